"""Heat of a camera against the same law solved step by step by scipy, and the pause that would do."""

import numpy as np
import pytest
import scipy
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import line_into_camera, made
from tidy_trunk.core.day import DayTrouble, plan_day
from tidy_trunk.core.day.heat import AT_FULL, overheated
from tidy_trunk.core.plan import PlannedTake, SaveSetUp
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

LIMIT_MIN = 60.0


def takes(*spans):
    return [PlannedTake("12", number, begins, ends) for number, (begins, ends) in enumerate(spans, start=1)]


@given(st.lists(st.tuples(st.floats(1, 40), st.floats(1, 40)), min_size=1, max_size=6))
def test_it_is_newtons_law_of_cooling(pairs):
    """dT/dt = (power - T) / time constant; ends of takes where an integrator has it hotter than allowed. Textbook."""
    at, spans = 0.0, []
    for pause, length in pairs:
        spans.append((at + pause, at + pause + length))
        at += pause + length
    heat, until, hottest = 0.0, 0.0, []
    for begins, ends in spans:
        for power, since, to in ((0.0, until, begins), (AT_FULL, begins, ends)):
            heat = scipy.integrate.solve_ivp(
                lambda _, y, p=power: (p - y) / LIMIT_MIN, (since, to), [heat], rtol=1e-8
            ).y[0, -1]
        hottest.append(heat)
        until = ends
    if min(abs(one - 1) for one in hottest) < 1e-4:
        return
    found = overheated(takes(*spans), LIMIT_MIN)
    first = next((number for number, one in enumerate(hottest, start=1) if one > 1), None)
    assert (found.take.number if found else None) == first
    if found is not None and found.pause_min is not None:
        later = [(begins, ends) if n < found.take.number else (begins + found.pause_min, ends + found.pause_min)
                 for n, (begins, ends) in enumerate(spans, start=1)]  # fmt: skip
        again = overheated(takes(*later[: found.take.number]), LIMIT_MIN)
        assert again is None, "the pause that was told would not do"


def test_its_limit_in_one_go():
    assert overheated(takes((0, 60)), LIMIT_MIN) is None
    found = overheated(takes((0, 70)), LIMIT_MIN)
    assert found.at_min == pytest.approx(60) and found.pause_min is None
    assert overheated(takes((0, 30), (30, 60), (61, 70)), LIMIT_MIN).take.number == 3
    assert np.isfinite(overheated(takes((0, 50), (51, 70)), LIMIT_MIN).pause_min)


def test_a_camera_that_gets_too_hot_is_told_with_the_pause_that_helps():
    """Clips of 25 minutes that follow each other: none is too long, together they are."""
    day = [SaveSetUp(label="12C", at_min=600, takes=4, take_min=25, between_min=2)]
    troubles = plan_day(Report(trace_plan(made(*day, base=line_into_camera())))).unkept
    (hot,) = [item for item in troubles if item.what is DayTrouble.OVERHEATS]
    assert hot.device == "cam" and 625 < hot.at_min < 710 and hot.needed > 0
    spread = [SaveSetUp(label="12C", at_min=600, takes=4, take_min=25, between_min=45)]
    calm = plan_day(Report(trace_plan(made(*spread, base=line_into_camera())))).unkept
    assert not [item for item in calm if item.what is DayTrouble.OVERHEATS]
