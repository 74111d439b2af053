"""Gain plans through the API."""

import numpy as np
import pytest

from tests.api.test_patch_api import opened
from tests.core.base.signal.test_speech import recording
from tests.formats.test_sound import wav
from tests.plans import line_into_camera, made, put
from tests.waiting import wait
from tidy_trunk.app.demo import foundry


def test_a_gain_plan_is_made_and_done(client):
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}"
    plan = client.post(f"{address}/gain-plan", json={}).json()
    assert plan["stops_before"] == 4 and len(plan["stops_left"]) == 2
    assert all(change["after"]["clip_db"] is None for change in plan["tracks"])
    assert client.get(address).json()["revision"] == 1, "nothing is kept until it is done"
    edits = [step["edit"] for step in plan["steps"]]
    done = client.post(f"{address}/edits", json={"base_revision": 1, "edits": edits}).json()
    assert done["counts"]["stop"] == 2 and done["sentence"].endswith("and 10 more")
    assert client.post(f"{address}/gain-plan", json={}).json()["steps"] == []


@pytest.mark.deep
def test_a_large_job_is_left_to_a_worker(client, services, monkeypatch):
    """The same plan as at once, and the one before it is given up."""
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}/gain-plan"
    at_once = client.post(address, json={}).json()
    monkeypatch.setattr("tidy_trunk.services.gain_plans.MOST_AT_ONCE", 3)
    first = client.post(address, json={})
    assert first.status_code == 202 and first.json()["plan"] is None
    later = client.post(address, json={}).json()
    assert client.get(f"{address}/{first.json()['task']}").status_code == 404
    wait(lambda: client.get(f"{address}/{later['task']}").json()["state"] == "done")
    assert client.get(f"{address}/{later['task']}").json()["plan"] == at_once
    assert client.get(f"/api/jobs/{state['job']}/recordings").json() == []
    assert client.get(f"/api/jobs/{state['job']}/sync").json()["files"] == []
    assert client.delete(f"{address}/{later['task']}").status_code == 204
    assert client.get(f"{address}/{later['task']}").status_code == 404


def test_what_is_pinned_is_left(client):
    state = opened(client, line_into_camera())
    address = f"/api/jobs/{state['job']}/gain-plan"
    step = client.post(address, json={}).json()["steps"][0]
    pin = {"device": step["device"], "control": step["control"]}
    kept = client.post(address, json={"pins": [pin]}).json()["steps"]
    assert pin not in [{"device": each["device"], "control": each["control"]} for each in kept]


@pytest.mark.parametrize(
    "body", [{"pins": [{"device": "bag"}]}, {"pins": "all"}, {"knobs": []}, {"pins": [{"device": "", "control": "x"}]}]
)
def test_bad_pins_are_refused(client, body):
    state = opened(client, line_into_camera())
    answer = client.post(f"/api/jobs/{state['job']}/gain-plan", json=body)
    assert answer.status_code == 422 and answer.json()["detail"]


@pytest.mark.deep
def test_a_recording_says_how_loud_the_founder_is(client):
    state = opened(client, made(put("bag", "in1.limiter", False), base=line_into_camera()))
    address = f"/api/jobs/{state['job']}/tracks/bag.1/heard"
    data = wav(recording(-25, -60)[:, np.newaxis])
    found = client.post(address, content=data, headers={"Content-Type": "audio/wav"})
    assert found.status_code == 200, found.text
    assert found.json()["average_db_spl"] == pytest.approx(60 - 25 + 20.04, abs=0.3)
    assert found.json()["edits"][0]["kind"] == "set-source"
    for content, words in (
        (b"nonsense", "no recording that can be read"),
        (wav(recording()[:, np.newaxis][:500]), "too short"),
    ):
        refused = client.post(address, content=content, headers={"Content-Type": "audio/wav"})
        assert 400 <= refused.status_code < 500 and words in refused.json()["detail"]
    assert client.post(address.replace("bag.1", "bag.99"), content=data, headers={"Content-Type": "audio/wav"}).status_code == 404  # fmt: skip
