"""The clocks of a job through the API."""

import numpy as np
import pytest

from tests.api.test_patch_api import opened
from tests.core.time.clock.test_clock import jammed
from tests.sounds import RATE, noise, wav
from tidy_trunk.app.demo import foundry


def test_the_clocks_of_a_job(client):
    job = opened(client, jammed())["job"]
    found = client.get(f"/api/jobs/{job}/clock").json()
    film = next(timecode_device for timecode_device in found["timecode_devices"] if timecode_device["device"] == "film")
    assert film["giver"] == "tc" and film["parts_ms"] == pytest.approx(216) and film["forgets"] is False
    assert {(pair["camera"], pair["recorder"]): pair["by"] for pair in found["pairs"]}["cam", "bag"] == ["sound"]
    assert found["screens"] == [] and found["rate"] == "25"


def test_a_missed_jam_and_its_fix(client):
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}"
    (finding,) = [item for item in state["findings"] if item["rule"] == "missed-jam"]
    assert finding["station"] == "clock" and "beyond 0.5 frames from 10:46 on" in finding["text"]
    advice = client.get(f"{address}/advice").json()
    assert advice["revision"] == state["revision"]
    edits = advice["fixes"][finding["id"]][0]["edits"]
    fixed = client.post(f"{address}/edits", json={"base_revision": state["revision"], "edits": edits}).json()
    assert not [item for item in fixed["findings"] if item["rule"] == "missed-jam"]
    (day,) = client.get(f"{address}/clock").json()["days"]
    assert [free_run["begins_min"] for free_run in day["free_runs"]] == [480, 615, 750, 900] and day[
        "beyond_min"
    ] is None


def test_a_picture_delay_goes_to_the_device_that_was_named_by_its_id(client):
    """Said before: the field sent a sentence, and of two cameras with crossed names it changed the other one."""
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}"
    crossed = [
        {"kind": "rename-device", "device": "camera-b", "label": "Camera X"},
        {"kind": "rename-device", "device": "camera-a", "label": "Camera B"},
    ]
    client.post(f"{address}/edits", json={"base_revision": state["revision"], "edits": crossed})
    (edit,) = client.get(f"{address}/clock/pictures/camera-b", params={"delay": "200 ms"}).json()["edits"]
    assert (edit["kind"], edit["device"], edit["figure"]["value"]) == ("set-figure", "camera-b", 5)  # at 25 frames/s
    for device, delay, status in (("camera-b", "soon", 422), ("nobody", "5", 404)):
        answer = client.get(f"{address}/clock/pictures/{device}", params={"delay": delay})
        assert answer.status_code == status and answer.json()["detail"]


def test_a_lead_is_put_into_a_run_by_its_id(client):
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}/runs"
    run, joins = next(
        (run, joins) for run in state["runs"] if (joins := client.get(f"{address}/{run['run']}/cable-chains").json())
    )
    lead = joins[0]["edits"][0]["parts"][0]["lead"]
    (edit,) = client.get(f"{address}/{run['run']}/leads/{lead}").json()["edits"]
    assert (edit["kind"], edit["run"]) == ("set-parts", run["run"]) and lead in [part["lead"] for part in edit["parts"]]
    assert client.get(f"{address}/{run['run']}/leads/nothing").status_code == 404
    refused = client.get(f"{address}/{run['run']}/leads/bnc")
    assert refused.status_code == 422 and "does not fit cable" in refused.json()["detail"]


@pytest.mark.deep
def test_a_clap_through_the_whole_path_measures_it(client):
    """Hands close in picture 60 at 25, 2.4 s; the clap is heard at 2.0 s: 400 ms early, 10 frames, of which 2 are the
    switcher's. The sound itself took the camera's 5 frames and the switcher's 2, and 1.75 ms of air at least.
    """
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}/clock"
    clap = np.zeros(4 * RATE)
    burst = np.random.default_rng(3).standard_normal(RATE // 20) * np.exp(-np.arange(RATE // 20) / (RATE / 200))
    clap[2 * RATE : 2 * RATE + len(burst)] = 0.2 * burst
    recording = wav(clap + noise(-70, 4))

    def sent(**query):
        headers = {"content-type": "audio/wav"}
        return client.post(f"{address}/screens/switcher/clap", params=query, content=recording, headers=headers)

    found = sent(camera="camera-b", frame=60).json()
    assert found["heard_s"] == pytest.approx(2.0, abs=0.002) and found["early_ms"] == pytest.approx(400, abs=2)
    assert found["within_ms"] == 20 and not any(window["holds"] for window in found["windows"])
    assert found["camera_frames"] == pytest.approx(10 - 2 + 7, abs=0.3)
    (edit,) = found["edits"]
    after = client.post(f"/api/jobs/{state['job']}/edits", json={"base_revision": 1, "edits": [edit]}).json()
    assert "picture delay" in after["sentence"] and "measured" in after["sentence"]
    assert sent(camera="camera-a", frame=60).status_code == 404
    refused = sent(camera="camera-b", frame=99)
    assert refused.status_code == 422 and "no clap is heard" in refused.json()["detail"]


@pytest.mark.parametrize("edit", [
    {"kind": "set-jam", "device": "box-a", "giver": "bag", "at_min": [1e9]},
    {"kind": "set-jam", "device": "box-a", "giver": "boom", "at_min": [480]},
    {"kind": "set-break", "label": "x", "at_min": -1, "length_min": 5},
    {"kind": "take-pair-drift", "drift": {"first": "bag", "second": "box-a", "ppm": "nan", "when": "2026-11-25"}},
    {"kind": "set-job", "drift_limit_frames": 0},
])  # fmt: skip
def test_times_that_cannot_be_are_refused(client, edit):
    state = opened(client, foundry())
    answer = client.post(f"/api/jobs/{state['job']}/edits", json={"base_revision": state["revision"], "edits": [edit]})
    assert answer.status_code == 422 and answer.json()["detail"]
