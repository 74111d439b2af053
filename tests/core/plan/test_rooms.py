"""Rooms: the critical distance against textbook examples, and levels near and far from a source."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, made
from tidy_trunk.core.gear.catalogue import Pattern, built_in
from tidy_trunk.core.plan import OPEN, ROOMS, Hear, Room, SetJob
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import UnknownItemError


def average(room: str, distance_m: float) -> float:
    plan = made(SetJob(room=room), Hear(source="voice", device="boom", distance_m=distance_m), base=boom_in_bag())
    return Report(trace_plan(plan)).track("bag.1").sound.average


def test_the_critical_distance_by_hand():
    """0.057 · √(V·Q/T): 100 m³, 0.5 s: 0.81 m all round; a cardioid √3 as far (textbook of room acoustics, from memory)."""
    room = Room("x", "x", 100, 0.5, 30, 40)
    assert room.critical_distance_m(1) == pytest.approx(0.806, abs=0.001)
    assert room.critical_distance_m(Pattern.CARDIOID.directivity) / room.critical_distance_m(1) == pytest.approx(
        math.sqrt(3)
    )
    assert ROOMS[OPEN].critical_distance_m(1) == math.inf


def test_directivity_of_first_order_patterns():
    """Q = 1 / mean of (a + (1 − a) cos θ)² over the sphere = 1 / (a² + (1 − a)² / 3), by hand."""
    for pattern, a in (
        (Pattern.OMNI, 1.0),
        (Pattern.CARDIOID, 0.5),
        (Pattern.SUPERCARDIOID, 0.37),
        (Pattern.FIGURE_8, 0.0),
    ):
        assert pattern.directivity == pytest.approx(1 / (a * a + (1 - a) ** 2 / 3), abs=0.05)


def test_in_the_open_six_decibels_each_doubling():
    assert average(OPEN, 1) - average(OPEN, 2) == pytest.approx(6.02, abs=0.01)


def test_at_the_critical_distance_the_room_doubles_it():
    """As much room as voice: 3 dB above the voice alone; far beyond the level does not fall any more."""
    pattern = built_in().devices["boom-shotgun"].capsule.pattern
    critical = ROOMS["office"].critical_distance_m(pattern.directivity)
    assert average("office", critical) - average(OPEN, critical) == pytest.approx(3.01, abs=0.01)
    assert average("office", 20 * critical) == pytest.approx(average("office", 40 * critical), abs=0.05)


@given(st.sampled_from(list(ROOMS)), st.floats(0.05, 50), st.floats(1.01, 4))
def test_farther_is_never_louder_and_a_room_never_softer(room, distance, factor):
    assert average(room, distance * factor) <= average(room, distance)
    assert average(room, distance) >= average(OPEN, distance)


def test_a_place_that_is_not_known_is_refused():
    with pytest.raises(UnknownItemError, match="use open, stage"):
        made(SetJob(room="cave"), base=boom_in_bag())
