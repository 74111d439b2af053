"""Searching for what is wrong: what is suspected, and in which order one looks. The order is common practice: listen at the
recorder before anything is swapped (docs/handbook, sections 7 and 9)."""

import math
from functools import cache

import pytest

from tests.core.advice.checks.patch_cases import powered
from tests.core.command.test_say import do
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.checks import check
from tidy_trunk.core.advice.fault_search import SearchAnswer, Symptom, search, suspects, symptom_in
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words.fault_search import suspect_words, trial_words


@cache
def rig():
    return do(
        Plan(name="Rig"), "add bag recorder, eight as bag", "add mirrorless camera, microphone as cam", "ann: boom to bag 1, 0.6 m",
        "bag line out to cam",
    )  # fmt: skip


def searched(plan: Plan, symptom: Symptom, track: str, *answers: tuple[str, bool | None]):
    report = Report(trace_plan(plan))
    given = [SearchAnswer(test=test, yes=yes) for test, yes in answers]
    return search(report, check(report), symptom, report.known_track(track), given)


@pytest.mark.parametrize(
    ("text", "symptom"),
    [
        ("hum on the camera alone", Symptom.HUM), ("it hisses", Symptom.HISS), ("too loud, sounds crunchy", Symptom.DISTORTED),
        ("nothing arrives", Symptom.QUIET), ("left is missing", Symptom.ONE_SIDE), ("only right", Symptom.ONE_SIDE),
        ("meters read -20 and -8", Symptom.METERS), ("lips are late", Symptom.OUT_OF_SYNC), ("cuts out now and then", Symptom.DROPOUTS),
        ("the weather", None), ("he hummed", Symptom.HUM), ("a thermal camera", None),
    ],
)  # fmt: skip
def test_everyday_words_name_a_symptom(text, symptom):
    assert symptom_in(text) is symptom


def test_hum_is_listened_for_at_the_recorder_first():
    first = searched(rig(), Symptom.HUM, "cam.L").next
    assert (first.code, first.device) == ("listen", "bag")
    there = searched(rig(), Symptom.HUM, "cam.L", (first.id, True))
    assert {suspect.run for suspect, _ in there.left} <= {"run-1", ""}, "what comes behind the recorder is out of it"
    behind = searched(rig(), Symptom.HUM, "cam.L", (first.id, False))
    assert {suspect.run or suspect.device for suspect, _ in behind.left} == {"run-2"}


def test_a_loop_through_the_mains_is_found_by_a_battery():
    """Two devices on mains and an unbalanced cable: on battery the hum is gone. [handbook 9]"""
    plan = powered("mains", "mains")
    found, answers = searched(plan, Symptom.HUM, "cam.L"), []
    for _ in range(10):
        if found.next is None:
            break
        answers.append((found.next.id, found.next.code == "battery"))
        found = searched(plan, Symptom.HUM, "cam.L", *answers)
    assert "battery" in [test.split(":")[0] for test, _ in answers]
    assert found.cause.code == "hum-loop" and found.cause.finding is not None


@pytest.mark.parametrize("symptom", list(Symptom))
@pytest.mark.parametrize("track", ["camera-b.L", "bag.2"])
def test_every_fault_is_found_by_its_own_answers(symptom, track):
    """Whichever suspect it is, true answers never rule it out, and the search comes to an end that still holds it."""
    plan = foundry()
    report = Report(trace_plan(plan))
    findings, there = check(report), report.known_track(track)
    for culprit in suspects(report, findings, symptom, there):
        answers: list[SearchAnswer] = []
        found = search(report, findings, symptom, there, answers)
        while found.next is not None:
            words = trial_words(found.next, {suspect.id: suspect for suspect, _ in found.left}, report.index)
            assert words.asks.endswith("?")
            answers.append(SearchAnswer(test=found.next.id, yes=culprit.id in found.next.yes))
            found = search(report, findings, symptom, there, answers)
            assert len(answers) < 40
        assert culprit.id in {suspect.id for suspect, _ in found.left}
        assert math.isclose(sum(share for _, share in found.left), 1.0)
        assert suspect_words(found.cause, report.index).fix


def test_what_nobody_can_tell_leaves_everything_and_is_not_asked_again():
    first = searched(rig(), Symptom.HUM, "cam.L")
    after = searched(rig(), Symptom.HUM, "cam.L", (first.next.id, None))
    assert after.left == first.left and after.next.id != first.next.id


def test_of_hiss_the_figures_say_who_is_suspected():
    """What makes most of the noise by the figures is the first suspect: here the room, 10 dB above all gear."""
    likeliest, share = searched(rig(), Symptom.HISS, "cam.L").left[0]
    assert likeliest.code == "place" and share > 0.3
