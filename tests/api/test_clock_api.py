"""The clocks of a job through the API."""

import pytest

from tests.api.test_patch_api import opened
from tests.core.clock.test_clock import jammed
from tidy_trunk.services.demo import foundry


def test_the_clocks_of_a_job(client):
    job = opened(client, jammed())["job"]
    found = client.get(f"/api/jobs/{job}/clock").json()
    film = next(keeper for keeper in found["keepers"] if keeper["device"] == "film")
    assert film["giver"] == "tc" and film["parts_ms"] == pytest.approx(216) and film["forgets"] is False
    assert {(pair["camera"], pair["recorder"]): pair["by"] for pair in found["pairs"]}["cam", "bag"] == [
        "the same sound"
    ]
    assert found["screens"] == [] and found["rate"] == "25"


def test_a_missed_jam_and_its_fix(client):
    state = opened(client, foundry())
    address = f"/api/jobs/{state['job']}"
    (finding,) = [item for item in state["findings"] if item["rule"] == "missed-jam"]
    assert finding["station"] == "clock" and "beyond 0.5 frames from 10:46 on" in finding["text"]
    fixed = client.post(
        f"{address}/edits", json={"base_revision": state["revision"], "edits": finding["fixes"][0]["edits"]}
    ).json()
    assert not [item for item in fixed["findings"] if item["rule"] == "missed-jam"]
    (day,) = client.get(f"{address}/clock").json()["days"]
    assert [spell["begins_min"] for spell in day["spells"]] == [480, 615, 750, 900] and day["beyond_min"] is None


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
