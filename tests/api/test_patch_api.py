"""Leads, pictures, inserted devices, plan files and history through the API."""

import json

import pytest

from tests.core.advice.adviser.test_inserted_devices import boom_on_camera
from tests.plans import line_into_camera, padded_plan
from tidy_trunk.app.demo import foundry
from tidy_trunk.document import plan_schema, write_plan


def opened(client, plan):
    return client.post("/api/jobs/import", json=json.loads(write_plan(plan))).json()


def edited(client, state, who="", **edit):
    body = {"base_revision": state["revision"], "who": who, "edits": [edit]}
    answer = client.post(f"/api/jobs/{state['job']}/edits", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


LEAD = {
    "label": "Made last night",
    "sending": {"connector": "xlr3", "gender": "female"},
    "receiving": {"connector": "trs35", "gender": "male"},
    "ways": {"": {"wires": [{"near": "1", "far": "S"}, {"near": "2", "far": "T"}, {"near": "3", "far": "R"}]}},
}


def test_a_run_is_opened(client):
    state = opened(client, foundry())
    picture = client.get(f"/api/jobs/{state['job']}/runs/run-12/picture").json()
    assert [lead["label"] for lead in picture["leads"]] == ["XLR", "XLR to 3.5 mm, straight"]
    assert {"near": "3", "far": "R", "ohm": 0.0, "blocks_dc": False} in picture["leads"][1]["wiring"]["wires"]
    hears = {item["channel"]: item["words"] for item in picture["use"]["hears"]}
    assert hears["R"].startswith("the signal inverted") and "inverted" not in hears["L"]
    assert picture["use"]["mono"] == "cancels when summed to mono"
    assert picture["use"]["faults"] == ["the two sides are in opposite polarity"]


def test_a_lead_is_judged_saved_and_used(client):
    judged = client.post("/api/leads/judge", json=LEAD).json()
    floating = next(use for use in judged["uses"] if "floating" in use["between"] and "stereo" in use["between"])
    assert floating["faults"] == ["the two sides are in opposite polarity"]
    assert judged["balanced"] is True and judged["loss_db"] is None
    state = edited(client, opened(client, line_into_camera()), kind="draw-lead", **LEAD)
    assert state["plan"]["leads"][0]["id"] == "own-made-last-night"
    joins = client.get(f"/api/jobs/{state['job']}/runs/run-1/cable-chains").json()
    assert isinstance(joins, list)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"ways": {"": {"wires": [{"near": "7", "far": "T"}]}}}, "no contact '7'"),
        ({"ways": {"": {"wires": []}}}, "nothing is joined"),
        ({"ways": {"": {"wires": [{"near": "2", "far": "T", "ohm": -4}]}}}, "greater than or equal"),
        ({"sending": {"connector": "rope", "gender": "male"}}, "there is no connector 'rope'"),
        ({"short_m": 1e9}, "less than or equal"),
    ],
)
def test_a_lead_that_cannot_be_is_refused(client, change, says):
    answer = client.post("/api/leads/judge", json={**LEAD, **change})
    assert answer.status_code == 422 and answer.headers["content-type"] == "application/problem+json"
    assert says in answer.json()["detail"]


def test_the_box_of_leads(client):
    box = client.get("/api/leads").json()
    assert {"xlr3", "trs35", "trrs35"} <= {end["connector"] for end in box["ends"]}
    assert all(lead["ways"] for lead in box["leads"])


def test_inserted_devices_are_offered_and_taken(client):
    state = opened(client, boom_on_camera())
    unpowered = next(item for item in state["findings"] if item["rule"] == "microphone-unpowered")
    assert unpowered["has_inserted_devices"]
    ways = client.get(f"/api/jobs/{state['job']}/runs/run-1/inserted-devices").json()
    body = {"base_revision": state["revision"], "edits": ways[0]["edits"]}
    after = client.post(f"/api/jobs/{state['job']}/edits", json=body).json()
    assert after["counts"]["stop"] == 0
    assert client.get(f"/api/jobs/{state['job']}/runs/run-99/inserted-devices").status_code == 404


def test_a_plan_file_shows_what_it_would_change_and_then_does(client):
    state = opened(client, line_into_camera())
    file = json.loads(write_plan(padded_plan(25)))
    would = client.post(f"/api/jobs/{state['job']}/plan/preview", json=file).json()
    assert would["changes"] == ["cable 2 by 0.3 m 3.5 mm cable with 25 dB, was 0.3 m 3.5 mm TRS"]
    assert would["counts"]["stop"] == 0
    assert client.get(f"/api/jobs/{state['job']}").json()["revision"] == state["revision"], "nothing is kept"
    body = {"base_revision": state["revision"], "who": "Sound", "plan": file}
    after = client.put(f"/api/jobs/{state['job']}/plan", json=body).json()
    assert after["plan"] == file
    assert client.put(f"/api/jobs/{state['job']}/plan", json=body).status_code == 409
    undone = client.post(f"/api/jobs/{state['job']}/undo", json={"base_revision": after["revision"]}).json()
    assert undone["plan"] == state["plan"]
    broken = client.post(f"/api/jobs/{state['job']}/plan/preview", json={"name": "x", "colour": 1})
    assert broken.status_code == 422 and "colour" in broken.json()["detail"]


def test_wiped_and_read_again_it_is_the_same_job_with_the_same_findings(client):
    state = opened(client, foundry())
    file = client.get(f"/api/jobs/{state['job']}/plan").json()
    assert client.delete(f"/api/jobs/{state['job']}").status_code == 204
    again = client.post("/api/jobs/import", json=file).json()
    for what in ("plan", "findings", "devices", "runs"):
        assert again[what] == state[what]


def test_history_says_who_and_what(client):
    state = opened(client, line_into_camera())
    state = edited(
        client, state, who="Sound, second unit", kind="set-control", device="bag", control="in1.mic.gain_db", value=44
    )
    history = client.get(f"/api/jobs/{state['job']}/revisions").json()
    assert [(item["number"], item["who"]) for item in history] == [(2, "Sound, second unit"), (1, "")]
    difference = client.get(f"/api/jobs/{state['job']}/differences", params={"before": 1, "after": 2}).json()
    assert difference == ["bag in 1: gain +44 dB, was +50 dB"]
    assert client.get(f"/api/jobs/{state['job']}/differences", params={"before": 1, "after": 9}).status_code == 404


def test_schema_and_grammar_are_served(client):
    assert client.get("/api/plan-schema").content == plan_schema()
    forms = client.get("/api/grammar").json()["forms"]
    assert any(form["example"].startswith("route") for form in forms)
