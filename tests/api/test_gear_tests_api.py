"""Know your own gear: recordings, real and simulated, become measured figures of My equipment."""

from dataclasses import replace

import numpy as np
import pytest

from tests.api.test_line_up_api import drop, over
from tests.api.test_patch_api import opened
from tests.core.advice.test_gear_tests import matched, splitter, with_attenuator
from tests.plans import device, made, run
from tests.sounds import noise, ratio, sine, wav
from tidy_trunk.core.gear.catalogue import PadPlace, built_in
from tidy_trunk.core.plan import SaveClass
from tidy_trunk.core.sound.simulation import truth
from tidy_trunk.equipment import write_class


def answer(client, job, **given):
    return client.post(f"/api/jobs/{job}/gear-tests/answer", json=given)


def simulated(client, job, test):
    """What simulated devices record for a test; nothing is made twice of one request."""
    at, body = f"/api/jobs/{job}/gear-tests/simulate", {"test": test}
    made_one = client.post(at, json=body).json()
    assert (
        made_one["state"] == "waiting" and client.post(at, json=body, params={"id": made_one["id"]}).status_code == 201
    )
    assert [item["id"] for item in client.get(f"/api/jobs/{job}/recordings").json()].count(made_one["id"]) == 1
    return over(client, job, made_one["id"])


def kept(client, state, found):
    """What was found, in the job and in My equipment."""
    job = state["job"]
    after = client.post(
        f"/api/jobs/{job}/edits", json={"base_revision": state["revision"], "edits": found["edits"]}
    ).json()
    assert client.post(f"/api/jobs/{job}/classes/{found['class_id']}/keep").status_code == 201
    return after, client.get(f"/api/equipment/{found['class_id']}").json()["document"]


@pytest.mark.deep
def test_the_simulation_is_found_out_as_it_really_is(client):
    """Its camera strays from the typical −76 dBFS; the answer finds by how much, and the other tests stay open."""
    plan = matched()
    real = truth(plan).devices["cam"].figures["inputs.mic.idle_noise_dbfs"].value
    state = opened(client, plan)
    job = f"/api/jobs/{state['job']}"
    before = {test["id"]: test for test in client.get(f"{job}/gear-tests").json()}
    assert before["cam idle-noise mic"]["when"] is None and before["cam meter"]["records"]
    made_one = simulated(client, state["job"], "cam idle-noise mic")
    assert made_one["asked"]["test"] == "cam idle-noise mic" and made_one["asked"]["simulated"]
    found = answer(client, state["job"], test="cam idle-noise mic", recording=made_one["id"]).json()
    after, document = kept(client, state, found)
    figure = document["inputs"][0]["idle_noise_dbfs"]
    assert figure["value"] == pytest.approx(real, abs=0.3) and figure["provenance"] == "measured"
    assert found["sentence"] == f"Noise without sound: −{abs(figure['value']):g} dBFS ±1."
    now = {test["id"]: test for test in client.get(f"{job}/gear-tests").json()}
    assert now["cam idle-noise mic"]["found"] == found["sentence"] and now["cam idle-noise mic"]["when"]
    assert after["sentence"].startswith("New class My mirrorless")
    undone = client.post(f"{job}/undo", json={"base_revision": after["revision"]}).json()
    assert undone["plan"]["classes"] == []


@pytest.mark.deep
def test_bleed_is_read_in_a_recording_of_both_sides(client):
    """Its other side holds the same tone 42 dB lower, upside down, in noise of its own."""
    state = opened(client, splitter())
    tone = sine(1000, -20, 4)
    take = wav(tone + noise(-80, 4, 1), -ratio(-42) * tone + noise(-85, 4, 2), bits=24)
    recording = over(client, state["job"], drop(client, state["job"], take, test="cam bleed mic").json()["id"])
    found = answer(client, state["job"], test="cam bleed mic", recording=recording["id"]).json()
    _, document = kept(client, state, found)
    assert document["inputs"][0]["bleed_db"]["value"] == pytest.approx(-42, abs=0.3)


@pytest.mark.parametrize(("cut_dbfs", "is_late"), [(-20.0, True), (0.0, False)])
@pytest.mark.deep
def test_where_an_attenuator_sits_is_seen_in_its_tops(client, cut_dbfs, is_late):
    """A tone 10 dB over the top: cut off before 20 dB are taken off, or whole at −10."""
    plan = made(
        SaveClass(device_class=with_attenuator(PadPlace.FIRST)),
        device("bag-recorder", "bag"), device("my-cam", "cam"), run("bag.out-l", "cam.mic", "xlr-trs"),
    )  # fmt: skip
    state = opened(client, plan)
    tone = np.clip(sine(1000, -10, 4), -ratio(cut_dbfs), ratio(cut_dbfs)) + noise(-85, 4)
    recording = over(client, state["job"], drop(client, state["job"], wav(tone, bits=24)).json()["id"])
    found = answer(client, state["job"], test="cam attenuator mic", recording=recording["id"]).json()
    _, document = kept(client, state, found)
    assert (document["inputs"][0].get("pad_place") == "behind-converter") is is_late


@pytest.mark.deep
def test_knob_and_meter_travel_with_the_class(client):
    state = opened(client, matched())
    made_one = simulated(client, state["job"], "cam knob mic.mic.gain_db")
    found = answer(client, state["job"], test="cam knob mic.mic.gain_db", recording=made_one["id"]).json()
    state, document = kept(client, state, found)
    assert len(document["inputs"][0]["modes"][0]["gain"]["law"]) == 8
    read = simulated(client, state["job"], "cam meter")
    shown = read["asked"]["shown"][0]
    found = answer(client, state["job"], test="cam meter", recording=read["id"], value=shown).json()
    state, document = kept(client, state, found)
    off_db = document["traits"]["meter_reads_high_db"]["value"]
    assert off_db == pytest.approx(shown - read["result"]["channels"][0]["tone"]["level_dbfs"], abs=0.01)
    fresh = opened(client, made(device("field-mixer", "desk")))
    first = client.post(f"/api/jobs/{fresh['job']}/say", json={"text": "add my mirrorless as cam"}).json()["proposals"][
        0
    ]
    body = {"base_revision": fresh["revision"], "edits": first["edits"]}
    fresh = client.post(f"/api/jobs/{fresh['job']}/edits", json=body).json()
    joined = client.post(f"/api/jobs/{fresh['job']}/say", json={"text": "desk to cam"}).json()["proposals"][0]
    client.post(f"/api/jobs/{fresh['job']}/edits", json={"base_revision": fresh["revision"], "edits": joined["edits"]})
    step = client.get(f"/api/jobs/{fresh['job']}/line-up").json()[0]
    assert step["meter"]["reads_high_db"] == off_db and step["meter"]["drop"] == []


@pytest.mark.deep
def test_what_is_no_answer_is_refused(client):
    state = opened(client, matched())
    job = state["job"]
    assert answer(client, job, test="cam nothing").status_code == 404
    assert answer(client, job, test="cam idle-noise mic").status_code == 422
    assert answer(client, job, test="cam idle-noise mic", value=1e9).status_code == 422
    refused = answer(client, job, test="cam picture", value=-3).json()["detail"]
    assert refused == "say by how many frames the picture is late, from 0 to 120"
    simulated = client.post(f"/api/jobs/{job}/gear-tests/simulate", json={"test": "cam picture"})
    assert simulated.status_code == 422 and "real device" in simulated.json()["detail"]
    silent = over(client, job, drop(client, job, wav(noise(-75, 4))).json()["id"])
    refused = answer(client, job, test="cam meter", recording=silent["id"], value=-18).json()["detail"]
    assert refused.startswith("no tone is heard in this recording")


def test_a_device_of_ones_own_is_tested_in_a_job_made_for_it(client):
    """Tone comes from a recorder of one's own where there is one; sent again, the request makes no second job."""
    camera = replace(built_in().devices["mirrorless-mic"], id="my-cam", label="My cam")
    own = [write_class(item).decode() for item in (camera, replace(built_in().devices["bag-recorder"], id="my-bag"))]
    files = [{"name": f"{at}.toml", "text": text} for at, text in enumerate(own)]
    client.post("/api/equipment", json={"files": files[:1]})
    job = client.post("/api/equipment/my-cam/test-job").json()["job"]
    kinds = {test["kind"] for test in client.get(f"/api/jobs/{job}/gear-tests").json() if test["device"] == "camera"}
    assert {"lowest", "idle-noise", "input-noise", "meter", "knob", "picture"} <= kinds
    client.post("/api/equipment", json={"files": files[1:]})
    again = [
        client.post("/api/equipment/my-cam/test-job", params={"id": "0d0f8a7e-6a5c-4d7e-9c3a-1b2c3d4e5f60"}).json()
        for _ in range(2)
    ]
    assert again[0] == again[1] and len(client.get("/api/jobs").json()) == 2
    plan = client.get(f"/api/jobs/{again[0]['job']}").json()["plan"]
    assert [item["class_id"] for item in plan["devices"]] == ["my-cam", "my-bag"] and len(plan["runs"]) == 1
