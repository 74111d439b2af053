"""Copies that make themselves: which are kept, what is in them, and that they come back."""

import zipfile
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import padded_plan
from tests.sounds import sine, wav
from tests.waiting import wait
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.store import Database, JobStore, PrivateCluster
from tidy_trunk.upkeep.backup import DUMP, MANIFEST, restore
from tidy_trunk.upkeep.copies import CopyService, to_keep

START = datetime(2026, 1, 1, 9, 0, tzinfo=UTC)


def test_a_year_of_daily_copies_leaves_7_days_4_weeks_and_6_months():
    kept: frozenset[datetime] = frozenset()
    for day in range(365):
        kept = to_keep({*kept, START + timedelta(days=day)})
    newest_first = sorted(kept, reverse=True)
    ages = [(newest_first[0] - moment).days for moment in newest_first]
    assert ages[:7] == list(range(7)) and len(ages) <= 17
    assert max(age for age in ages if age < 28) >= 14 and 150 <= ages[-1] <= 184
    assert max(later - earlier for earlier, later in pairwise(ages)) <= 31, "no month without one"


@given(st.sets(st.datetimes(datetime(2024, 1, 1), datetime(2027, 1, 1)), max_size=60))
def test_what_is_kept_is_kept_again(moments):
    kept = to_keep(moments)
    assert kept <= moments and len(kept) <= 17 and to_keep(kept) == kept
    assert not moments or max(moments) in kept


@pytest.fixture
def clock():
    return [START]


@pytest.fixture
def copies(services, database, tmp_path, clock):
    return CopyService(tmp_path, database, tmp_path / "recordings", lambda: clock[0])


@pytest.mark.deep
def test_one_a_day_is_made_and_old_ones_go(services, copies, clock):
    services.jobs.create(padded_plan())
    for hours in (0, 5, 19, 1, 24, 24):
        clock[0] += timedelta(hours=hours)
        copies.make_if_due()
    assert [copy.made - START for copy in copies.all()] == [timedelta(hours=hours) for hours in (73, 49, 24, 0)]
    clock[0] += timedelta(days=400)
    copies.make_if_due()
    assert len(copies.all()) == 5 and not copies.trouble  # those four are the last days that have any


def test_what_hinders_a_copy_is_said_and_it_is_tried_again(copies, tmp_path, monkeypatch):
    (tmp_path / "copies").write_text("in the way")
    copies.make_if_due()
    assert copies.trouble and copies.all() == []
    (tmp_path / "copies").unlink()
    copies.make_if_due()
    assert not copies.trouble and len(copies.all()) == 1


@pytest.mark.deep
def test_a_copy_comes_back_without_sounds_and_everything_with_them(client, services, home, tmp_path):
    job = services.jobs.create(padded_plan()).revision.job
    sound = wav(sine(1000, -20, 0.2))
    client.post(f"/api/jobs/{job}/recordings", params={"keep": "true"}, content=sound)
    wait(lambda: all(record.state.is_over for record in services.recordings.all(job)))
    made = client.post("/api/copies").json()
    assert client.get("/api/copies").json() == {"copies": [made], "trouble": ""}
    small, large = tmp_path / "small", tmp_path / "large"
    small.write_bytes(client.get(f"/api/copies/{made['name']}").content)
    large.write_bytes(client.get("/api/everything").content)
    assert set(zipfile.ZipFile(small).namelist()) == {DUMP, MANIFEST}
    assert len(zipfile.ZipFile(large).namelist()) == 3
    back = home / "back"
    assert restore(back, EnvironmentSettings(database_url=None), small).jobs == 1
    cluster = PrivateCluster(back)
    database = Database(cluster.start())
    assert [record.id for record in JobStore(database).all()] == [job]
    database.close()
    cluster.stop()


@pytest.mark.parametrize("name", ["../lock", "2026-01-01-090000.backup", "%2e%2e", "x" * 61])
def test_no_name_leads_elsewhere(client, name):
    assert client.get(f"/api/copies/{name}").status_code in (404, 422)
