"""All data into one file while they are changed, and back from there into an empty folder."""

import json
import re
import threading
import zipfile

import pytest

from tests.app.test_server import Program, edit, no_leftovers  # noqa: F401, a fixture
from tests.plans import line_into_camera
from tests.sounds import sine, wav
from tidy_trunk.document import write_plan
from tidy_trunk.errors import FormatError, SetupError
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import PrivateCluster
from tidy_trunk.upkeep.backup import DUMP, MANIFEST, SOUNDS, back_up, restore
from tidy_trunk.upkeep.home import RESTORING, alone

SETTINGS = EnvironmentSettings(database_url=None)


@pytest.mark.deep
def test_what_is_backed_up_while_it_is_edited_comes_back_elsewhere(home, tmp_path):
    program = Program(home)
    job = program.client.post("/api/jobs/import", json=json.loads(write_plan(line_into_camera()))).json()["job"]
    sound = wav(sine(1000, -20, 1), bits=24)
    kept = program.client.post(
        f"/api/jobs/{job}/recordings",
        params={"name": "take.wav", "keep": "true"},
        content=sound,
        headers={"content-type": "audio/wav"},
    ).json()["id"]
    at = f"/api/jobs/{job}/recordings/{kept}"
    while program.client.get(at).json()["state"] in ("waiting", "reading"):
        pass
    acknowledged, ended = [1], threading.Event()

    def busy():
        while not ended.is_set():
            acknowledged[0] = edit(program, job, acknowledged[0]) or acknowledged[0]

    worker = threading.Thread(target=busy)
    worker.start()
    before = acknowledged[0]
    archive = tmp_path / "all.backup"
    made = back_up(home, SETTINGS, archive)
    ended.set()
    worker.join()
    assert (made.jobs, made.sounds) == (1, 1)
    history = program.client.get(f"/api/jobs/{job}/revisions").json()
    program.kill(15)

    elsewhere = tmp_path / "elsewhere"
    assert restore(elsewhere, SETTINGS, archive) == made
    again = Program(elsewhere)
    found = again.client.get(f"/api/jobs/{job}/revisions").json()
    assert len(found) >= before and found == history[-len(found) :], (
        "as it stood at one moment, with all that was before"
    )
    assert again.client.get(f"{at}/sound").content == sound
    assert edit(again, job, len(found)) == len(found) + 1
    again.kill(15)
    with pytest.raises(SetupError, match="there are data"):
        restore(elsewhere, SETTINGS, archive)
    PrivateCluster(elsewhere)._end_leftover()


@pytest.fixture(scope="module")
def whole(tmp_path_factory):
    """A backup of no job, made while no program runs."""
    home = tmp_path_factory.mktemp("data")
    cluster = PrivateCluster(home)
    cluster.start()
    cluster.stop()
    path = home / "small.backup"
    assert back_up(home, SETTINGS, path).jobs == 0
    return path.read_bytes()


@pytest.fixture
def archive(whole, tmp_path):
    path = tmp_path / "small.backup"
    path.write_bytes(whole)
    return path


def changed(archive, name, change):
    """The same archive with one part of it otherwise; None leaves it out."""
    with zipfile.ZipFile(archive) as read:
        parts = {part: read.read(part) for part in read.namelist()}
    parts[name] = change(parts.get(name, b""))
    with zipfile.ZipFile(archive, "w") as write:
        for part, data in parts.items():
            if data is not None:
                write.writestr(part, data)


@pytest.mark.deep
@pytest.mark.parametrize(
    "damage",
    [
        lambda archive: archive.write_bytes(archive.read_bytes()[:-200]),
        lambda archive: archive.write_bytes(b"a letter home"),
        lambda archive: changed(archive, DUMP, lambda data: data[:-1] + b"x"),
        lambda archive: changed(archive, DUMP, lambda data: None),
        lambda archive: changed(archive, MANIFEST, lambda data: data.replace(b"backup-1", b"backup-9")),
        lambda archive: changed(archive, f"{SOUNDS}../../outside", lambda data: b"sound"),
        lambda archive: changed(
            archive, MANIFEST, lambda data: re.sub(rb'"identity": "[^"]+"', b'"identity": "../.."', data)
        ),
    ],
    ids=[
        "cut off",
        "no archive",
        "one byte",
        "no database",
        "another form",
        "a part that it does not name",
        "a name that runs elsewhere",
    ],
)
def test_a_damaged_backup_is_refused_and_nothing_is_made(archive, tmp_path, damage):
    damage(archive)
    with pytest.raises(FormatError):
        restore(tmp_path / "elsewhere", SETTINGS, archive)
    assert not (tmp_path / "elsewhere").exists() or not any((tmp_path / "elsewhere").iterdir())


def test_what_is_half_restored_does_not_start(home):
    home.mkdir(parents=True, exist_ok=True)
    (home / RESTORING).touch()
    with pytest.raises(SetupError, match="did not come to its end"), alone(home):
        raise AssertionError("it started")


def test_where_nothing_is_nothing_is_backed_up(tmp_path):
    with pytest.raises(SetupError, match="there are no data"):
        back_up(tmp_path / "nowhere", SETTINGS, tmp_path / "x.backup")
    assert not (tmp_path / "x.backup").exists()
