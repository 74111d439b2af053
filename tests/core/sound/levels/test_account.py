"""The account of a ladder: from what somebody says at 1 m to the track, every decibel has a name."""

import pytest

from tests.plans import boom_in_bag, line_into_camera, made, padded_plan, put
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Hear, Plan, SetJob
from tidy_trunk.core.sound.levels import Report, Rung
from tidy_trunk.core.sound.trace import trace_plan

PLANS = [boom_in_bag(), line_into_camera(), padded_plan(25), made(put("bag", "in1.low_cut", "160"), base=padded_plan(15)), foundry()]  # fmt: skip


def ladders(plan: Plan) -> list[list[Rung]]:
    report = Report(trace_plan(plan))
    return [report.ladder(track.trace) for track in report.tracks if not track.is_silent]


@pytest.mark.parametrize("plan", PLANS)
def test_the_account_adds_up(plan):
    for rungs in ladders(plan):
        level = float(rungs[0].begins.split(", ")[-1].split()[0])
        for rung in rungs:
            level += sum(step.by_db for step in rung.steps)
            assert rung.level.sound.average == pytest.approx(level, abs=0.1), rung.label


@pytest.mark.parametrize("plan", PLANS[:-1])
def test_nothing_is_left_over_where_one_thing_feeds_another(plan):
    for rungs in ladders(plan):
        assert "with what else comes in" not in [step.what for rung in rungs for step in rung.steps]


def test_the_account_of_a_voice_by_hand():
    """60 dB at 1 m, at 0.5 m and 60° beside a shotgun, in an office; 20 mV/Pa; 4 kΩ behind 150 Ω; +50 dB; +10 dBu."""
    edits = (SetJob(room="office"), Hear(source="voice", device="boom", distance_m=0.5, off_axis_deg=60))
    (rungs,) = (rungs for rungs in ladders(made(*edits, base=boom_in_bag())) if rungs[-1].label == "bag track 1")
    told = {step.what: step.by_db for rung in rungs for step in rung.steps}
    assert rungs[0].begins == "Voice at 1 m, 60 dB SPL"
    assert told.pop("what the room gives back") > 0
    assert told == pytest.approx(
        {
            "0.5 m away": 6.02,
            "60° off axis, shotgun": -5.78,
            "sensitivity": -125.74,
            "cable, with what it is plugged into": -0.32,
            "gain": 50,
            "full scale": -10,
        },
        abs=0.02,
    )
