"""Recordings dropped in, measured in processes of their own, and taken over into the plan."""

import io
import time

import numpy as np
import pytest
import soundfile

from tests.api.test_patch_api import opened
from tests.few import each_of
from tests.plans import line_into_camera, padded_plan
from tests.sounds import RATE, noise, sine, wav


def drop(client, job, data, **query):
    return client.post(f"/api/jobs/{job}/recordings", params={"name": "take.wav", **query}, content=data)


def over(client, job, recording):
    """The recording once nobody works on it any more."""
    for _ in range(600):
        found = client.get(f"/api/jobs/{job}/recordings/{recording}").json()
        if found["state"] not in ("waiting", "reading"):
            return found
        time.sleep(0.05)
    raise AssertionError("never came to an end")


@pytest.fixture
def job(client):
    return opened(client, padded_plan())["job"]


def test_a_recording_is_measured_and_listed(client, job, services):
    answer = drop(client, job, wav(sine(1000, -21.5, 3) + noise(-70, 3), bits=24), track="cam.L")
    assert answer.status_code == 201 and answer.json()["state"] == "waiting"
    found = over(client, job, answer.json()["id"])
    assert found["state"] == "done" and found["progress"] == 1 and found["asked"]["track"] == "cam.L"
    channel = found["result"]["channels"][0]
    assert channel["tone"]["level_dbfs"] == pytest.approx(-21.5, abs=0.02)
    assert found["result"]["overview"]["highest"][0]
    listed = client.get(f"/api/jobs/{job}/recordings").json()
    assert [item["id"] for item in listed] == [found["id"]] and listed[0]["result"] is None
    assert not list(services.media.incoming.iterdir()), "the sound itself is not kept"
    assert client.delete(f"/api/jobs/{job}/recordings/{found['id']}").status_code == 204
    assert client.get(f"/api/jobs/{job}/recordings").json() == []


@pytest.mark.deep
def test_steps_are_found_in_a_recording(client, job):
    tones = [np.concatenate((sine(1000, level, 1.0), np.zeros(15_000))) for level in (-30, -20, -10)]
    answer = drop(client, job, wav(np.concatenate(tones), bits=24), settings=[40, 50, 60], target_dbfs=-14)
    steps = over(client, job, answer.json()["id"])["result"]["steps"]
    assert steps["interpolated_setting"] == pytest.approx(56, abs=0.1)
    answer = drop(client, job, wav(np.concatenate(tones)), settings=[40, 50], target_dbfs=-14)
    failed = over(client, job, answer.json()["id"])
    assert failed["state"] == "failed" and "3 steps" in failed["message"]


def edited(client, job, answer):
    assert answer.status_code == 200, answer.text
    revision = client.get(f"/api/jobs/{job}").json()["revision"]
    body = {"base_revision": revision, "edits": answer.json()["edits"]}
    return client.post(f"/api/jobs/{job}/edits", json=body)


@pytest.mark.deep
def test_a_knob_turned_in_the_simulation_is_measured_and_taken_over(client, job):
    knob = {"device": "cam", "control": "mic.mic.gain_db"}
    made = client.post(f"/api/jobs/{job}/simulation/cam.L/steps", json={**knob, "target_dbfs": -20}).json()
    assert made["state"] == "waiting"
    made = over(client, job, made["id"])
    steps = made["result"]["steps"]
    assert len(steps["steps"]) == len(made["asked"]["shown"]) >= 5 and steps["interpolated_setting"] is not None
    state = edited(client, job, client.post(f"/api/jobs/{job}/recordings/{made['id']}/law", json=knob))
    assert state.status_code == 200 and state.json()["plan"]["gain_laws"][0]["read_from"] == "simulation"
    meter = {"track": "cam.L", "shown_dbfs": made["asked"]["shown"]}
    state = edited(client, job, client.post(f"/api/jobs/{job}/recordings/{made['id']}/meter", json=meter))
    assert state.json()["plan"]["meters"][0]["class_id"] == "mirrorless-mic"
    step = next(item for item in client.get(f"/api/jobs/{job}/line-up").json() if item["track"] == "cam.L")
    assert step["meter"]["within_db"] >= 1 and step["meter_shows_dbfs"] != step["shows_dbfs"]
    measured = next(item for item in step["knobs"] if item["control"] == knob["control"])
    assert measured["measured"] and measured["drop"]
    device = client.get(f"/api/jobs/{job}/devices/cam").json()
    gain = next(item for item in device["controls"] if item["id"] == knob["control"])
    assert gain["gives_db"] is not None and gain["gives_db"] != gain["value"]


@pytest.mark.deep
def test_what_says_nothing_of_a_knob_or_a_meter_is_refused(client, job):
    found = over(client, job, drop(client, job, wav(sine(1000, -20, 2), bits=24), track="cam.L").json()["id"])
    at = f"/api/jobs/{job}/recordings/{found['id']}"
    knob = {"device": "cam", "control": "mic.mic.gain_db"}
    for path, body, says in (
        ("law", knob, "holds no steps"),
        ("meter", {"track": "cam.L", "shown_dbfs": [-18, -19]}, "1 levels, and 2 readings"),
        ("meter", {"track": "cam.L", "shown_dbfs": [None]}, "say what the meter showed"),
        ("meter", {"track": "nobody.L", "shown_dbfs": [-18]}, "no track"),
    ):
        answer = client.post(f"{at}/{path}", json=body)
        assert 400 <= answer.status_code < 500 and says in answer.json()["detail"], (path, body)
    steps = f"/api/jobs/{job}/simulation/cam.L/steps"
    assert client.post(steps, json={**knob, "control": "mic.pad"}).status_code == 404
    assert client.post(steps, json={**knob, "positions": [1.5, 900]}).status_code == 422


@pytest.mark.parametrize("data", each_of([b"a letter home", b"RIFF\x00\x00\x00\x00WAVE", wav(np.zeros(0))], 1))
def test_what_is_no_recording_fails_with_a_reason(client, job, data, services):
    found = over(client, job, drop(client, job, data).json()["id"])
    assert found["state"] == "failed" and found["message"] and found["result"] is None
    assert not list(services.media.incoming.iterdir())


def test_what_cannot_be_taken_in_is_refused(client, job, services):
    assert drop(client, job, b"").status_code == 422
    huge = client.post(f"/api/jobs/{job}/recordings", headers={"Content-Length": str(10**11)}, content=b"RIFF")
    assert huge.status_code == 413

    def pieces():
        yield b"RIFF"

    assert client.post(f"/api/jobs/{job}/recordings", content=pieces()).status_code == 411
    assert drop(client, job, wav(sine(1000, -20, 1)), target_dbfs="nan").status_code == 422
    assert drop(client, job, wav(sine(1000, -20, 1)), settings=["1", "nan"], target_dbfs=-20).status_code == 422
    assert "want a target" in drop(client, job, wav(sine(1000, -20, 1)), settings=[1, 2]).json()["detail"]
    assert drop(client, "00000000-0000-0000-0000-000000000000", wav(sine(1000, -20, 1))).status_code == 404
    assert not list(services.media.incoming.iterdir()) and client.get(f"/api/jobs/{job}/recordings").json() == []


@pytest.mark.deep
def test_a_recording_is_cancelled(client, job, services):
    """Many at once: the last ones still wait, and are never begun."""
    data = wav(*[noise(-30, 20, seed) for seed in range(4)])
    names = [drop(client, job, data).json()["id"] for _ in range(4)]
    for name in names:
        client.post(f"/api/jobs/{job}/recordings/{name}/cancel")
    states = [over(client, job, name)["state"] for name in names]
    assert states[-1] == "cancelled" and set(states) <= {"cancelled", "done"}
    for _ in range(200):
        if not list(services.media.incoming.iterdir()):
            return
        time.sleep(0.05)
    raise AssertionError("files were left behind")


def test_a_line_up_is_taken_over_and_goes_stale(client, job):
    """The ladder's doubt shrinks to what is left behind the sender; a knob moved makes it stale, and back makes it fresh."""
    step = client.get(f"/api/jobs/{job}/line-up").json()[0]
    assert (step["track"], step["sender"], step["state"]) == ("cam.L", "bag", "open")
    before = client.post(f"/api/jobs/{job}/tracks/cam.L/ladder", json={}).json()
    read = step["shows_dbfs"] - 2.5
    taken = client.post(
        f"/api/jobs/{job}/line-up/cam.L/reading", json={"read_dbfs": read, "read_from": "recording"}
    ).json()
    assert "Save reading of cam track L" in taken["sentence"]

    def edit(*edits):
        revision = client.get(f"/api/jobs/{job}").json()["revision"]
        answer = client.post(f"/api/jobs/{job}/edits", json={"base_revision": revision, "edits": list(edits)})
        assert answer.status_code == 200, answer.text
        return client.get(f"/api/jobs/{job}/line-up").json()[0]

    step = edit(*taken["edits"])
    assert step["state"] == "done" and step["found"]["off_db"] == pytest.approx(-2.5, abs=0.01)
    assert step["shows_dbfs"] == pytest.approx(read, abs=0.01)
    after = client.post(f"/api/jobs/{job}/tracks/cam.L/ladder", json={}).json()
    assert after["tolerance_db"] < before["tolerance_db"] - 0.3
    assert after["average_dbfs"] == pytest.approx(before["average_dbfs"] - 2.5, abs=0.02)
    assert any("line-up" in doubt["what"] for doubt in after["doubts"])
    gain = {"kind": "set-control", "device": "bag", "control": "line.line.trim_db"}
    step = edit({**gain, "value": -6})
    assert step["state"] == "stale" and step["shows_dbfs"] == pytest.approx(read - 6, abs=0.01)
    assert edit({**gain, "value": 0})["state"] == "done"
    assert step["turn"] is None and edit(*step["drop"])["state"] == "open"


@pytest.mark.deep
def test_the_simulation_stands_in_for_devices(client, job):
    """A simulated camera is near what its class says, not the same; line-up finds by how much, again and again the same."""
    step = client.get(f"/api/jobs/{job}/line-up").json()[0]
    levels = []
    for _ in range(2):
        found = over(client, job, client.post(f"/api/jobs/{job}/simulation/cam.L/tone").json()["id"])
        assert found["state"] == "done" and found["asked"] == {**found["asked"], "simulated": True, "track": "cam.L"}
        levels.append(found["result"]["channels"][0]["tone"]["level_dbfs"])
    assert levels[0] == levels[1]
    assert 0.01 < abs(levels[0] - step["shows_dbfs"]) <= 2 * step["within_db"]


def test_a_track_that_no_tone_reaches_is_refused(client, job):
    assert client.post(f"/api/jobs/{job}/line-up/bag.1/reading", json={"read_dbfs": -20}).status_code == 422
    assert client.post(f"/api/jobs/{job}/line-up/nothing/reading", json={"read_dbfs": -20}).status_code == 404
    assert client.post(f"/api/jobs/{job}/line-up/cam.L/reading", json={"read_dbfs": 1e9}).status_code == 422
    assert client.post(f"/api/jobs/{job}/simulation/bag.1/tone").status_code == 422


def test_clipped_and_riding_chains_are_warned_of(client):
    job = opened(client, line_into_camera())["job"]
    assert "The tone clips" in client.get(f"/api/jobs/{job}/line-up").json()[0]["warning"]


def test_the_tone_of_the_job_is_a_file(client, job):
    answer = client.get(f"/api/jobs/{job}/tone.wav", params={"seconds": 4})
    samples, rate = soundfile.read(io.BytesIO(answer.content))
    assert rate == RATE and samples.shape == (4 * RATE, 2)
    assert np.abs(samples[:, 1]).max() == pytest.approx(0.1, abs=1e-4)
    assert client.get(f"/api/jobs/{job}/tone.wav", params={"seconds": "inf"}).status_code == 422


@pytest.mark.deep
def test_ways_are_recorded_in_the_simulation_and_compared(client, job):
    at = f"/api/jobs/{job}/runs/run-2/compare"
    ways = {item["id"]: item["label"] for item in client.get(f"{at}/options").json()}
    wanted = [way for way in ways if way in ("as-it-is", "trim", "headphones")]
    made = client.post(f"{at}/simulation", json={"options": wanted}).json()
    assert [item["asked"]["option"] for item in made] == wanted
    assert all(over(client, job, item["id"])["state"] == "done" for item in made)
    found = client.post(at, json={"recordings": {item["asked"]["option"]: item["id"] for item in made}}).json()
    assert [item["place"] for item in found] == [1, 2, 3] and {item["option"] for item in found} == set(wanted)
    assert found[-1]["option"] == "headphones" and "headphones" in found[-1]["rules"]
    assert all(len(item["bands"]) == 31 and abs(item["off_db"]) < 4.8 for item in found)


@pytest.mark.deep
def test_recordings_that_cannot_be_compared_are_refused(client, job):
    tone = over(client, job, drop(client, job, wav(sine(1000, -20, 2), bits=24)).json()["id"])["id"]
    hiss = over(client, job, drop(client, job, wav(noise(-60, 2), bits=24)).json()["id"])["id"]
    at = f"/api/jobs/{job}/runs/run-2/compare"
    for recordings, says in (
        ({"as-it-is": hiss, "trim": tone}, "no tone"),
        ({"as-it-is": tone}, "1 ways cannot"),
        ({"as-it-is": "00000000-0000-0000-0000-000000000000", "trim": tone}, "no recording"),
    ):
        answer = client.post(at, json={"recordings": recordings})
        assert 400 <= answer.status_code < 500 and says in answer.json()["detail"]
    assert client.post(f"{at}/simulation", json={"options": ["rope"]}).status_code == 404


@pytest.mark.deep
def test_the_sound_is_kept_where_that_is_asked_for_and_goes_with_its_line(client, job, services):
    data = wav(sine(1000, -20, 1), bits=24)
    plain, kept = (over(client, job, drop(client, job, data, **more).json()["id"]) for more in ({}, {"keep": True}))
    at = f"/api/jobs/{job}/recordings"
    answer = client.get(f"{at}/{kept['id']}/sound")
    assert answer.content == data and "take.wav" in answer.headers["content-disposition"]
    assert "not kept" in client.get(f"{at}/{plain['id']}/sound").json()["detail"]
    assert client.delete(f"{at}/{kept['id']}").status_code == 204
    assert not list(services.media.kept.iterdir())
    broken = over(client, job, drop(client, job, b"a letter home", keep=True).json()["id"])
    assert broken["state"] == "failed" and not list(services.media.kept.iterdir())
