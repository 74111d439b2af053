"""Signal walks: several people at once, and marks that arrive late."""

import pytest

from tests.api.test_patch_api import opened
from tests.plans import padded_plan
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan


@pytest.fixture
def walk(client):
    job = opened(client, padded_plan())["job"]
    found = client.post(f"/api/jobs/{job}/walks").json()
    return f"/api/jobs/{job}/walks/{found['id']}"


def marks(client, walk, *entries):
    body = {"marks": [{"item": item, "mark": mark, "made": made, "who": who} for item, mark, made, who in entries]}
    return client.put(f"{walk}/marks", json=body)


def seen(answer, item):
    return next(found for group in answer.json()["groups"] for found in group["items"] if found["id"] == item)


def test_of_two_marks_the_later_made_counts_whichever_comes_first(client, walk):
    good = ("bag.power", "good", "2026-11-25T08:10:00Z", "Sound")
    fault = ("bag.power", "fault", "2026-11-25T09:05:00+01:00", "Boom")  # five minutes earlier, seen elsewhere
    for order in ((good, fault), (fault, good)):
        answer = [marks(client, walk, entry) for entry in order][-1]
        assert answer.status_code == 200
        assert (seen(answer, "bag.power")["mark"], seen(answer, "bag.power")["who"]) == ("good", "Sound")
    assert answer.json()["good"] == 1 and answer.json()["faults"] == 0
    again = marks(client, walk, ("bag.power", "open", "2026-11-25T08:20:00Z", "Sound"))
    assert seen(again, "bag.power")["mark"] == "open" and again.json()["good"] == 0


def test_a_walk_stays_as_it_was_when_the_plan_goes_on(client, walk):
    before = client.get(walk).json()
    job = walk.split("/walks")[0]
    edit = {"kind": "set-control", "device": "bag", "control": "in1.mic.gain_db", "value": 30}
    client.post(f"{job}/edits", json={"base_revision": 1, "edits": [edit]})
    assert client.get(walk).json() == before
    newer = client.post(f"{job}/walks").json()
    assert newer["revision"] == 2 and [item["id"] for item in client.get(f"{job}/walks").json()] == [
        newer["id"],
        before["id"],
    ]
    assert "gain +30 dB" in str(newer) and "gain +50 dB" in str(before)
    assert client.delete(walk).status_code == 204 and client.get(walk).status_code == 404


def test_a_clock_that_is_ahead_does_not_win_for_ever(client, walk):
    marks(client, walk, ("bag.power", "fault", "2100-01-01T00:00:00Z", "Boom"))
    assert seen(client.get(walk), "bag.power")["made"] < "2099"


@pytest.mark.parametrize(
    ("entry", "status"),
    [
        (("nothing.there", "good", "2026-11-25T08:10:00Z", ""), 404),
        (("bag.power", "perhaps", "2026-11-25T08:10:00Z", ""), 422),
        (("bag.power", "good", "2026-11-25T08:10:00", ""), 422),
        (("bag.power", "good", "today", ""), 422),
        (("bag.power", "good", "2026-11-25T08:10:00Z", "a\0"), 422),
        (("bag.power", "good", "0001-01-01T00:00:00+14:00", ""), 422),
    ],
)
def test_marks_that_cannot_be_are_refused_and_none_is_kept(client, walk, entry, status):
    good = ("cam.armed", "good", "2026-11-25T08:10:00Z", "")
    assert marks(client, walk, good, entry).status_code == status
    assert client.get(walk).json()["good"] == 0


def test_nothing_recorded_is_nothing_to_walk_along(client):
    job = opened(client, Plan(name="Empty"))["job"]
    answer = client.post(f"/api/jobs/{job}/walks")
    assert answer.status_code == 422 and "plan a cable first" in answer.json()["detail"]
    assert client.get(f"/api/jobs/{job}/walks").json() == []


def test_the_short_checklist_is_short(client):
    job = opened(client, foundry())["job"]
    short = client.post(f"/api/jobs/{job}/walks", params={"short": True}).json()
    whole = client.post(f"/api/jobs/{job}/walks").json()
    assert short["count"] <= 15 < whole["count"]
    assert [group["label"] for group in short["groups"]] == ["From device to device", "At the end"]
