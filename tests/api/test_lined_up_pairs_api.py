"""Pairs that were lined up: found in one job, offered in the next, to be verified."""

import pytest

from tests.api.test_patch_api import edited, opened
from tests.plans import line_into_camera, put
from tidy_trunk.core.plan import apply_edits


def tone_clear_of_the_top():
    """The output down to where the camera takes it, as a recordist sets it."""
    return apply_edits(line_into_camera(), [put("bag", "line.line.trim_db", -17.0), put("cam", "mic.mic.gain_db", 3.0)])


def lined_up(client, plan, off_db=2.1):
    """A job in which the left side reads so much more than was wanted."""
    state = opened(client, plan)
    job = f"/api/jobs/{state['job']}"
    step = client.get(f"{job}/line-up").json()[0]
    body = {"read_dbfs": round(step["shows_dbfs"] + off_db, 2), "read_from": "recording"}
    taken = client.post(f"{job}/line-up/{step['track']}/reading", json=body).json()
    return client.post(f"{job}/edits", json={"base_revision": state["revision"], "edits": taken["edits"]}).json()


def test_what_was_read_of_a_pair_is_offered_in_the_next_job(client):
    """As handbook §6 has it: the same camera wants about the same, and nobody believes it before the tone."""
    lined_up(client, tone_clear_of_the_top())
    (pair,) = client.get("/api/equipment-pairs").json()
    assert (pair["sender"], pair["off_db"], pair["cables"]) == (
        "Bag recorder, eight inputs",
        2.1,
        ["3.5 mm TRS"],
    )
    fresh = opened(client, line_into_camera())
    job = f"/api/jobs/{fresh['job']}"
    step = client.get(f"{job}/line-up").json()[0]
    assert (step["state"], step["earlier"]["off_db"], step["earlier"]["job"]) == ("open", 2.1, "Test")
    assert "bag line out, output level −17 dB" in step["earlier"]["settings"]
    taken = client.post(f"{job}/line-up/{step['track']}/earlier").json()
    after = client.post(f"{job}/edits", json={"base_revision": fresh["revision"], "edits": taken["edits"]})
    assert after.status_code == 200
    settings = {item["id"]: item["settings"] for item in after.json()["plan"]["devices"]}
    assert settings["bag"]["line.line.trim_db"] == -17 and settings["cam"]["mic.mic.gain_db"] == 3
    now = client.get(f"{job}/line-up").json()[0]
    assert now["state"] == "earlier" and now["found"]["read_from"] == "earlier" and now["earlier"] is None
    assert now["found"]["off_db"] == pytest.approx(2.1, abs=0.02)
    assert client.get("/api/equipment-pairs").json() == [pair], "what was not read says nothing new"


def test_another_cable_is_another_pair_and_a_reading_far_off_is_none(client):
    lined_up(client, tone_clear_of_the_top(), off_db=9.0)
    assert client.get("/api/equipment-pairs").json() == []
    lined_up(client, tone_clear_of_the_top())
    state = opened(client, tone_clear_of_the_top())
    job = f"/api/jobs/{state['job']}"
    parts = [{"lead": "trs-pad-25", "length_m": 2}]
    edited(client, state, kind="set-parts", run="run-2", parts=parts)
    steps = client.get(f"{job}/line-up").json()
    assert [step["earlier"] for step in steps] == [None, None]
    assert client.post(f"{job}/line-up/{steps[0]['track']}/earlier").status_code == 404


def test_a_pair_is_forgotten(client):
    lined_up(client, tone_clear_of_the_top())
    (pair,) = client.get("/api/equipment-pairs").json()
    assert client.delete("/api/equipment-pairs", params={"key": pair["key"]}).status_code == 204
    assert client.delete("/api/equipment-pairs", params={"key": pair["key"]}).status_code == 404
    assert client.get("/api/equipment-pairs").json() == []
