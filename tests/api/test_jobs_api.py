"""The API: an edit and its answer, history, conflicts, and bodies that cannot be."""

import json
from uuid import uuid4

import pytest

from tests.plans import line_into_camera
from tidy_trunk.document import write_plan


@pytest.fixture
def job(client):
    """The classic mistake as a job: (address, state)."""
    state = client.post("/api/jobs/import", json=json.loads(write_plan(line_into_camera()))).json()
    return f"/api/jobs/{state['job']}", state


def rules(state):
    return [finding["rule"] for finding in state["findings"]]


def test_one_request_answers_with_everything(client, job):
    address, state = job
    stop = next(finding for finding in state["findings"] if finding["rule"] == "line-into-mic")
    assert [other["title"] for other in stop["beneath"]] == ["cam mic socket clips"]
    fixes = client.get(f"{address}/advice").json()["fixes"][stop["id"]]
    fix = next(fix for fix in fixes if fix["label"] == "Use the 25 dB attenuator")
    answer = client.post(f"{address}/edits", json={"base_revision": state["revision"], "edits": fix["edits"]}).json()
    assert answer["revision"] == state["revision"] + 1
    assert "line-into-mic" not in rules(answer)
    camera = next(device for device in answer["devices"] if device["id"] == "cam")
    assert camera["tracks"][0]["verdict"] == "ok" and camera["tracks"][0]["over_db"] is None
    assert answer["sentence"].startswith("Cable 2 by 3.5 mm cable with 25 dB")
    undone = client.post(f"{address}/undo", json={"base_revision": answer["revision"]}).json()
    assert "line-into-mic" in rules(undone) and undone["can_redo"]
    redone = client.post(f"{address}/redo", json={"base_revision": undone["revision"]}).json()
    assert "line-into-mic" not in rules(redone)
    assert [entry["number"] for entry in client.get(f"{address}/revisions").json()] == [4, 3, 2, 1]
    looked = client.get(f"{address}/revisions/1").json()
    assert "line-into-mic" in rules(looked)
    back = client.post(f"{address}/revisions/1/bring-back", json={"base_revision": 4}).json()
    assert "line-into-mic" in rules(back) and back["sentence"] == "Restore revision 1"


def test_an_edit_on_an_old_state_is_409_with_the_newer_one(client, job):
    address, _ = job
    edit = {"base_revision": 1, "edits": [{"kind": "rename-device", "device": "bag", "label": "Cart"}]}
    assert client.post(f"{address}/edits", json=edit).status_code == 200
    refused = client.post(f"{address}/edits", json=edit)
    assert refused.status_code == 409
    assert refused.headers["content-type"] == "application/problem+json"
    answer = refused.json()
    assert answer["newest_revision"] == 2 and answer["yours"] == "Rename bag to Cart"
    assert answer["theirs"] == ["bag is called Cart"] and answer["by"] == ""
    file = client.put(f"{address}/plan", json={"base_revision": 1, "plan": client.get(f"{address}/plan").json()})
    assert file.status_code == 409 and file.json()["yours"].startswith("the plan file ")
    never = client.post(f"{address}/edits", json=edit | {"base_revision": 77})
    assert never.status_code == 409 and "theirs" not in never.json()


def test_exported_and_imported_it_is_the_same(client, job):
    address, state = job
    exported = client.get(f"{address}/plan")
    again = client.post("/api/jobs/import", json=exported.json()).json()
    assert again["plan"] == state["plan"]
    assert again["findings"] == state["findings"]


def test_a_ladder_of_what_would_be(client, job):
    address, state = job
    track = f"{address}/tracks/cam.L/ladder"
    edit = {"kind": "set-control", "device": "bag", "control": "line.line.trim_db", "value": -20.5}
    now, then = client.post(track, json={}).json(), client.post(track, json={"edits": [edit]}).json()
    assert now["over_db"] == pytest.approx(14.1, abs=0.1) and then["over_db"] is None
    assert client.get(address).json()["revision"] == state["revision"], "nothing is kept"
    assert [control["id"] for rung in now["rungs"] for control in rung["controls"]][-1] == "mic.mic.gain_db"
    assert client.post(f"{address}/tracks/cam.Q/ladder", json={}).status_code == 404


def test_ways_joins_devices_and_saying(client, job):
    address, _ = job
    assert client.get(f"{address}/runs/run-2/options").json()[0]["label"] == "Use the 25 dB attenuator"
    assert client.get(f"{address}/runs/run-9/options").status_code == 404
    assert client.get(f"{address}/runs/run-2/cable-chains").json()[0]["faults"] == []
    device = client.get(f"{address}/devices/cam").json()
    assert [control["id"] for control in device["controls"]] == [
        "power",
        "timecode_rate",
        "timecode_run",
        "mic.plug_in.menu",
        "mic.auto.menu",
        "mic.mic.gain_db",
        "built-in.auto.menu",
    ]
    said = client.post(f"{address}/say", json={"text": "set bag 1 gain 40"}).json()
    assert said["proposals"][0]["edits"][0]["value"] == 40
    assert {"name": "clock", "words": "±30 ppm"} in device["facts"]
    assert len(client.get("/api/catalogue").json()["classes"]) >= 24


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "says"),
    [
        ("post", "/edits", {"base_revision": 1, "edits": []}, 422, "edits"),
        ("post", "/edits", {"base_revision": 0, "edits": [{"kind": "x"}]}, 422, "base_revision"),
        ("post", "/edits", {"base_revision": 1, "edits": [{"kind": "explode"}]}, 422, "explode"),
        ("post", "/edits", {"base_revision": 1, "edits": [{"kind": "remove-device", "device": "ghost"}]}, 422, "ghost"),
        (
            "post", "/edits",
            {"base_revision": 1, "edits": [{"kind": "set-control", "device": "bag", "control": "in1.mic.gain_db", "value": 1e9}]},
            422, "edits.0",
        ),
        (
            "post", "/edits",
            {"base_revision": 1, "edits": [{"kind": "hear", "source": "voice", "device": "boom", "distance_m": -1}]},
            422, "distance_m",
        ),
        # Said before: 500.
        (
            "post", "/edits",
            {"base_revision": 1, "edits": [{"kind": "add-source", "label": "Me", "average_db_spl": 60, "heard_by": {"nosuch": 1}}]},
            422, "nosuch",
        ),
        ("post", "/edits", {"base_revision": 1, "edits": [{"kind": "set-job", "name": "x"}], "who": "a\u0000"}, 422, "who"),
        ("post", "/edits", {"base_revision": 1, "edits": [{"kind": "set-job", "name": "x"}], "who": "a\u202e"}, 422, "who"),
        ("post", "/undo", {"base_revision": 1}, 409, "nothing to undo"),
        ("post", "/undo", {}, 422, "base_revision"),
        ("post", "/say", {"text": "x" * 201}, 422, "text"),
        ("get", "/revisions/99", None, 404, "no state 99"),
        ("get", "/revisions/zero", None, 422, "number"),
        ("get", "/devices/ghost", None, 404, "ghost"),
    ],
)  # fmt: skip
def test_refused_with_a_problem_document(client, job, method, path, body, status, says):
    address, state = job
    answer = client.request(method, address + path, json=body)
    assert answer.status_code == status, answer.text
    problem = answer.json()
    assert answer.headers["content-type"] == "application/problem+json"
    assert problem["status"] == status and problem["code"] and says in problem["detail"]
    assert client.get(address).json()["revision"] == state["revision"], "nothing half-saved"


@pytest.mark.parametrize(
    "body",
    [
        b"not json",
        b'{"name": NaN}',
        b'{"schema_version": 99, "name": "x"}',
        b"[]",
        b"null",
        b'{"name": "x", "devices": [1]}',
    ],
)
def test_plans_that_cannot_be_imported(client, body):
    answer = client.post("/api/jobs/import", content=body, headers={"content-type": "application/json"})
    assert answer.status_code == 422 and answer.json()["detail"]
    assert client.get("/api/jobs").json() == []


def test_what_is_not_there(client):
    assert client.get(f"/api/jobs/{uuid4()}").status_code == 404
    assert client.get("/api/nothing").json()["status"] == 404
    assert client.get("/api/jobs/what").status_code == 422


def test_jobs_come_and_go(client):
    state = client.post("/api/jobs", json={"name": "Empty"}).json()
    assert state["counts"] == {"stop": 0, "caution": 0, "note": 0}
    assert [job["name"] for job in client.get("/api/jobs").json()] == ["Empty"]
    assert client.delete(f"/api/jobs/{state['job']}").status_code == 204
    assert client.get("/api/jobs").json() == []
    assert client.post("/api/jobs", json={"name": " "}).status_code == 422
