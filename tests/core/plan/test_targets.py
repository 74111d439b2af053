"""Targets: the ranges of the handbook, those of one's own, and what a track is kept for."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, line_into_camera, made, put
from tidy_trunk.core.advice.checks import check
from tidy_trunk.core.command import say
from tidy_trunk.core.plan import (
    TARGETS,
    Plan,
    RemoveTarget,
    Role,
    SaveTarget,
    SetJob,
    SetRole,
    Target,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import PlanError, RangeError, UnknownItemError
from tidy_trunk.words import difference_sentences

OWN = SaveTarget(label="Tape", low_dbfs=-30, high_dbfs=-24, id="own-tape")


def track(plan: Plan, track_id: str = "bag.1"):
    return Report(trace_plan(plan)).track(track_id)


def rules(plan: Plan, track_id: str) -> set[str]:
    return {finding.rule for finding in check(Report(trace_plan(plan))) if finding.track == track_id}


@pytest.mark.parametrize(("target_id", "low", "high"), [("film", -20, -12), ("wide", -24, -12)])
def test_the_averages_of_the_handbook(target_id, low, high):
    """Handbook §6, common practice."""
    assert (TARGETS[target_id].low_dbfs, TARGETS[target_id].high_dbfs) == (low, high)


@given(st.floats(-60, -5), st.floats(2, 40), st.floats(-80, 0), st.booleans())
def test_the_miss_is_what_is_missing(low, wide, level, of_peaks):
    target = Target("x", "x", low, low + wide, of_peaks)
    mended = level - target.miss_db(level, level)
    assert target.miss_db(mended, mended) == pytest.approx(0, abs=1e-9)
    assert low - 1e-9 <= mended <= low + wide + 1e-9


def test_a_target_of_ones_own_is_taken_and_kept_while_it_is_used():
    plan = made(OWN, SetJob(target="own-tape"), base=boom_in_bag())
    assert track(plan).target.label == "Tape" and track(plan).miss_db == pytest.approx(track(plan).sound.average + 24)
    assert "target Tape is new" in difference_sentences(boom_in_bag(), plan)
    with pytest.raises(PlanError, match="choose another one for it first"):
        made(RemoveTarget(target="own-tape"), base=plan)
    assert made(SetJob(target="film"), RemoveTarget(target="own-tape"), base=plan).targets == {}


@pytest.mark.parametrize(
    ("target", "error"),
    [
        (SaveTarget(label="x", low_dbfs=-10, high_dbfs=-9), RangeError),
        (SaveTarget(label="x", low_dbfs=-10, high_dbfs=3), RangeError),
        (SaveTarget(label="x", low_dbfs=-30, high_dbfs=-20, id="film"), PlanError),
    ],
)
def test_a_target_that_cannot_be_is_refused(target, error):
    with pytest.raises(error):
        made(target, base=boom_in_bag())


def test_a_guide_may_be_low_and_dialogue_may_not():
    """Ten decibels down at the camera: enough to find sync by, not enough for the film."""
    low = made(put("bag", "line.line.trim_db", -40), put("cam", "mic.mic.gain_db", 12), base=line_into_camera())
    assert "off-target" in rules(low, "cam.L")
    guide = made(SetRole(device="cam", bus="L", role=Role.GUIDE), base=low)
    assert "off-target" not in rules(guide, "cam.L") and track(guide, "cam.L").target is TARGETS["guide"]
    assert "cam track L is for guide, was for dialogue" in difference_sentences(low, guide)
    with pytest.raises(UnknownItemError, match="no track or mix 'X'"):
        made(SetRole(device="cam", bus="X", role=Role.GUIDE), base=low)


def test_tracks_are_given_their_use_in_a_line():
    edits = say(line_into_camera(), "use cam l and r for guide").proposals[0].edits
    assert made(*edits, base=line_into_camera()).devices["cam"].roles == {"L": Role.GUIDE, "R": Role.GUIDE}
    assert "say which track is for dialogue, effects" in say(line_into_camera(), "use cam l for lunch").problem


def test_an_angle_is_said_with_the_distance():
    edits = say(boom_in_bag(), "guest at boom, 0.8 m, 40° off, raised").proposals[0].edits
    plan = made(*edits, base=boom_in_bag())
    assert plan.sources["guest"].off_axis_deg == {"boom": 40} and plan.sources["guest"].average_db_spl == 66
