"""Data that older versions made (dumped by the versions themselves): they open, whole, and a copy is made first."""

import json
import zipfile
from pathlib import Path

import psycopg
import pytest

from tests.few import each_of
from tidy_trunk.app.server import update
from tidy_trunk.errors import SetupError
from tidy_trunk.services.container import services_on
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, PrivateCluster, load
from tidy_trunk.upkeep.backup import restore
from tidy_trunk.upkeep.copies import BEFORE_UPDATE, copies_in

OLD = sorted((Path(__file__).resolve().parents[1] / "files").glob("data-*.dump"))


def counted(url: str) -> dict[str, int]:
    with psycopg.connect(url) as connection:
        tables = [row[0] for row in connection.execute("select tablename from pg_tables where schemaname = 'public'")]
        wanted = set(tables) & {"job", "revision", "recording", "walk"}
        return {table: connection.execute(f"select count(*) from {table}").fetchone()[0] for table in sorted(wanted)}


@pytest.mark.parametrize("dumped", each_of(reversed(OLD), 3), ids=lambda path: path.stem)
def test_data_of_every_older_version_open(dumped, database_url, tmp_path):
    load(database_url, dumped)
    before = counted(database_url)
    assert before["job"] == 1 and before["revision"] == 7
    database = Database(database_url)
    update(database, tmp_path)
    after = counted(database_url)
    assert {table: after[table] for table in before} == before
    services = services_on(database, tmp_path, tmp_path / "recordings")
    (job,) = services.jobs.all()
    assert len(services.jobs.history(job.id)) == 7
    for number in range(1, 8):
        assert services.jobs.at(job.id, number).evaluation.report.tracks
    undone = services.jobs.undo(job.id, 7)
    assert services.jobs.bring_back(job.id, undone.revision.number, 1).revision.number == 9
    found = services.recordings.all(job.id)
    assert len(found) == before.get("recording", 0) and all(item.state == "done" for item in found)
    assert [len(walk.items) > 3 for walk in services.walks.all(job.id)] == [True] * before.get("walk", 0)
    services.close()
    database.close()
    copies = copies_in(tmp_path / "copies")
    assert len(copies) == 1 and copies[0].name.startswith(BEFORE_UPDATE)


def test_what_an_older_version_was_reading_when_it_ended_is_told(database_url, tmp_path):
    load(database_url, OLD[-1])
    with psycopg.connect(database_url) as connection:
        connection.execute("update recording set state = 'reading'")
    database = Database(database_url)
    update(database, tmp_path)
    with psycopg.connect(database_url) as connection:
        found = connection.execute("select state, left(message, 21) from recording").fetchall()
    assert found and set(found) == {("failed", "the program was ended")}
    database.close()


def test_a_copy_from_before_an_update_comes_back(database_url, home, tmp_path):
    load(database_url, OLD[0])
    database = Database(database_url)
    update(database, tmp_path)
    database.close()
    (copy,) = copies_in(tmp_path / "copies")
    path = tmp_path / "copies" / copy.name
    assert json.loads(zipfile.ZipFile(path).read("manifest.json"))["jobs"] == 1
    assert restore(home / "back", EnvironmentSettings(database_url=None), path).jobs == 1
    cluster = PrivateCluster(home / "back")
    assert counted(cluster.start())["revision"] == 7
    cluster.stop()


def test_data_of_a_newer_version_are_refused_and_left(database_url, tmp_path):
    load(database_url, OLD[-1])
    with psycopg.connect(database_url) as connection:
        connection.execute("update schema_migration set name = '9999_later' where name like '0008%'")
    database = Database(database_url)
    with pytest.raises(SetupError, match="newer than this program"):
        update(database, tmp_path)
    database.close()
    assert counted(database_url)["revision"] == 7
