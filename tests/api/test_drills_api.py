"""Drills over the API: nothing is told before it was looked at, each tap counts once, and the end is judged."""

import io
from dataclasses import replace
from functools import cache
from uuid import UUID, uuid4

import numpy as np
import pytest
import soundfile

from tests.api.test_patch_api import opened
from tests.plans import line_into_camera, padded_plan
from tidy_trunk.core.drill import DrillLevel, draw_drill
from tidy_trunk.words.drill import drill_answer_words

KIND = {"kind": "automatic"}


@cache
def hidden():
    return next(
        drill
        for drill in (draw_drill(seed, **KIND) for seed in range(20))
        if {"listen:recorder", "meters:camera"} <= {probe.id for probe in drill.rig.probes}
    )


@pytest.fixture
def drill(client):
    def begun(seed=None, **more):
        asked = {"seed": hidden().seed, **KIND, **more} if seed is None else {"seed": seed, **more}
        answer = client.post("/api/drills", json={"id": str(uuid4()), **asked})
        assert answer.status_code == 201, answer.text
        return answer.json()

    return begun


def test_a_drill_is_played_to_its_end(client, drill):
    found = drill()
    at = f"/api/drills/{found['id']}"
    assert found["seen"] == [] and found["judged"] is None and hidden().truth in {one["id"] for one in found["answers"]}
    looked = {"probe": "meters:camera", "number": 0}
    for _ in range(2):  # sent again it counts once
        seen = client.post(f"{at}/probes", json=looked).json()
    assert [one["probe"] for one in seen["seen"]] == ["meters:camera"] and seen["minutes"] == 0.3
    late = client.post(f"{at}/probes", json={"probe": "listen:recorder", "number": 0})
    assert late.status_code == 422 and "another window" in late.json()["detail"]
    assert client.get(f"{at}/sound.wav", params={"probe": "listen:recorder"}).status_code == 404
    client.post(f"{at}/probes", json={"probe": "listen:recorder", "number": 1})
    for _ in range(2):
        wrong = client.post(f"{at}/answer", json={"answer": "", "number": 0}).json()
    assert wrong["wrong"] == ["Nothing is wrong"] and wrong["minutes"] == 5.8 and wrong["judged"] is None
    for _ in range(2):
        done = client.post(f"{at}/answer", json={"answer": hidden().truth, "number": 1}).json()
    judged = done["judged"]
    assert judged["is_right"] and judged["takes_lost"] == 1 and 0 < judged["score"] < 100
    assert judged["truth"] == drill_answer_words(hidden(), hidden().truth) and judged["truth"].startswith(
        "Automatic level, menu is on at "
    )
    assert "automatic level" in judged["prevents"][0] and judged["lost"]
    assert judged["own"][0]["left"] >= judged["own"][1]["left"] >= 1 and judged["best"][-1]["left"] == 1
    over = client.post(f"{at}/probes", json={"probe": "meters:camera", "number": 2})
    assert over.status_code == 422 and "is over" in over.json()["detail"]
    training = client.get("/api/drills").json()
    assert [(one["seed"], one["who"], one["score"]) for one in training["played"]] == [
        (hidden().seed, "", judged["score"])
    ]
    assert [(one["kind"], one["found"], one["is_due"]) for one in training["kinds"]] == [("automatic", 0, True)]
    assert client.delete(at).status_code == 204 and client.get(at).status_code == 404


def test_what_is_heard_is_safe_and_crackles_where_a_plug_is_loose(client, drill):
    found = drill(5, kind="loose")
    at = f"/api/drills/{found['id']}"
    probe = next(one["id"] for one in found["probes"] if one["has_sound"] and one["group"] == found["devices"][-1])
    client.post(f"{at}/probes", json={"probe": probe, "number": 0})
    samples, rate = soundfile.read(io.BytesIO(client.get(f"{at}/sound.wav", params={"probe": probe}).content))
    assert rate == 48_000 and 0.005 < np.abs(samples).max() <= 0.5
    pieces = np.sqrt(np.mean(np.square(samples[: len(samples) // 480 * 480].reshape(-1, 480)), axis=1))
    assert pieces.min() < 0.01 * pieces.max(), "it lets go at times"


def test_a_kind_and_a_level_are_asked_for(client, drill):
    found = drill(3, kind="loose", level="first-day", who="Ann")
    told = client.post(f"/api/drills/{found['id']}/answer", json={"number": 0, "gives_up": True}).json()["judged"]
    assert "is loose" in told["truth"] and len(found["devices"]) <= 4
    assert client.get("/api/drills").json()["played"][0]["who"] == "Ann"
    refused = client.post("/api/drills", json={"id": str(uuid4()), "seed": 3, "kind": "gremlins"})
    assert refused.status_code == 422 and "no fault is of the kind" in refused.json()["detail"]


@pytest.mark.deep
def test_a_crew_plays_the_same_drill_side_by_side(client, drill):
    """Each by the first result; whoever has not ended it is not in it."""
    for who, answers in (
        ("Ann", [hidden().truth]),
        ("Ben", ["", hidden().truth]),
        ("Ben", [hidden().truth]),
        ("Cleo", []),
    ):
        at = f"/api/drills/{drill(**KIND, who=who)['id']}"
        client.post(f"{at}/probes", json={"probe": "meters:camera", "number": 0})
        for number, answer in enumerate(answers):
            client.post(f"{at}/answer", json={"answer": answer, "number": number})
    (same,) = client.get("/api/drills").json()["side_by_side"]
    assert (same["seed"], [one["who"] for one in same["results"]]) == (hidden().seed, ["Ann", "Ben"])
    assert same["results"][0]["score"] > same["results"][1]["score"]


def test_a_drill_that_is_over_becomes_a_job(client, drill):
    at = f"/api/drills/{drill()['id']}"
    early = client.post(f"{at}/job", json={"id": str(uuid4())})
    assert early.status_code == 422 and "not over" in early.json()["detail"]
    client.post(f"{at}/answer", json={"number": 0, "gives_up": True})
    mine = {"id": str(uuid4())}
    for _ in range(2):
        job = client.post(f"{at}/job", json=mine).json()["job"]
    assert job == mine["id"]
    state = client.get(f"/api/jobs/{job}").json()
    assert state["revision"] == 2 and state["plan"]["devices"]
    assert "automatic-level" in {one["rule"] for one in state["findings"]}


def test_giving_up_is_judged_too(client, drill):
    at = f"/api/drills/{drill()['id']}"
    told = client.post(f"{at}/answer", json={"number": 0, "gives_up": True}).json()["judged"]
    assert not told["is_right"] and told["score"] == 0 and told["truth"].startswith("Automatic level")


def test_a_fault_is_hidden_in_a_job_of_ones_own(client, drill):
    job = opened(client, padded_plan(25))["job"]
    found = drill(5, job=job)
    assert found["title"] == padded_plan(25).name and found["devices"]
    broken = opened(client, line_into_camera())["job"]
    refused = client.post("/api/drills", json={"id": str(uuid4()), "seed": 5, "job": broken})
    assert refused.status_code == 422 and "will not work already" in refused.json()["detail"]


@pytest.mark.parametrize(
    ("body", "says"),
    [({"seed": -1}, "seed"), ({"seed": 10**6}, "seed"), ({"seed": "x"}, "seed"), ({"seed": 1.5}, "seed")],
)
def test_numbers_that_are_none_are_refused(client, body, says):
    answer = client.post("/api/drills", json={"id": str(uuid4()), **body})
    assert answer.status_code == 422 and says in answer.json()["detail"]


def test_what_is_no_probe_and_no_answer_is_refused(client, drill):
    at = f"/api/drills/{drill()['id']}"
    probe = client.post(f"{at}/probes", json={"probe": "x-ray:camera", "number": 0})
    assert probe.status_code == 422 and "cannot be done" in probe.json()["detail"]
    answer = client.post(f"{at}/answer", json={"answer": "aliens", "number": 0})
    assert answer.status_code == 422 and "none of the possible answers" in answer.json()["detail"]


def test_of_two_faults_each_is_put_right_and_both_are_judged(client, drill):
    asked = {"most": 2, "level": "night-shoot"}
    two = next(
        one
        for one in (draw_drill(seed, most=2, level=DrillLevel.NIGHT_SHOOT) for seed in range(20))
        if len(one.faults) == 2
    )
    found = drill(two.seed, **asked)
    at = f"/api/drills/{found['id']}"
    first, second = (fault.id for fault in two.faults)
    for _ in range(2):  # sent again it counts once
        mid = client.post(f"{at}/answer", json={"answer": first, "number": 0}).json()
    assert mid["judged"] is None and mid["wrong"] == []
    assert [one["label"] for one in mid["seen"]] == ["Put right"] and "Something else" in mid["seen"][0]["lines"][1]
    assert client.get(f"{at}/ladders").status_code == 422
    lamp = next(one["id"] for one in found["probes"] if one["id"] == "settings:recorder")
    seen = client.post(f"{at}/probes", json={"probe": lamp, "number": 1}).json()["seen"][1]
    assert len(seen["drawn"]) == len(seen["lines"]) and {"lamp", "menu"} <= {
        one["drawing"] for one in seen["drawn"] if one
    }
    done = client.post(f"{at}/answer", json={"answer": second, "number": 0}).json()["judged"]
    assert done["is_right"] and done["truth"] == drill_answer_words(two, two.truth)
    ladders = client.get(f"{at}/ladders").json()
    assert ladders["planned"]["track"] == ladders["faulty"]["track"] and ladders["planned"]["rungs"]


def test_a_fault_hides_in_an_example(client, drill):
    found = drill(11, example="choir")
    assert "Bag" in found["devices"] and any(one["id"].startswith("not-jammed") for one in found["answers"])
    missing = client.post("/api/drills", json={"id": str(uuid4()), "seed": 1, "example": "opera"})
    assert missing.status_code == 404 and "bakery" in missing.json()["detail"]
    three = client.post("/api/drills", json={"id": str(uuid4()), "seed": 1, "most": 3})
    assert three.status_code == 422


def test_what_was_looked_at_and_is_not_there_any_more_is_said(client, drill, services):
    """After an update: said before, that the program had made a mistake."""
    found = drill()
    services.drills._store.change(UUID(found["id"]), lambda record: replace(record, done=("meters:gone",)))
    answer = client.get(f"/api/drills/{found['id']}")
    assert answer.status_code == 422 and "since an update" in answer.json()["detail"]


def test_an_answer_that_nothing_tells_apart_from_the_fault_is_right_once_and_again(client, drill):
    """Said before, of two faults: the same request sent again was wrong, and cost a take."""
    two = draw_drill(13, level=DrillLevel.FIRST_DAY, most=2)
    alike = next(
        (other.id, one.id)
        for one in two.faults
        for other in two.found.faults
        if other not in two.faults and two.found.is_answer(other.id, one.id)
    )
    at = f"/api/drills/{drill(13, level='first-day', most=2)['id']}/answer"
    for answer in (alike[0], *alike):
        told = client.post(at, json={"answer": answer, "number": 0}).json()
        assert told["wrong"] == [] and [one["label"] for one in told["seen"]] == ["Put right"]
