"""A knob that gives something else than is written beside it, worked by hand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.gear.catalogue import LawPoint, Span
from tidy_trunk.errors import RangeError

# Written 0, 10, 20, 30; gives 2, 10, 16, 30.
BENT = Span(0, 30, 1, 10, law=(LawPoint(0, 2.0), LawPoint(10, 10.0), LawPoint(20, 16.0), LawPoint(30, 30.0)))


@pytest.mark.parametrize(
    ("position", "gives", "why"),
    [
        (10, 10, "measured"),
        (15, 13, "half way from 10 to 16"),
        (25, 23, "half way from 16 to 30"),
        (5, 6, "from 2 to 10"),
    ],
)
def test_between_two_marks_it_is_a_straight_line(position, gives, why):
    assert BENT.gain_db(position) == pytest.approx(gives), why
    assert BENT.nearest_db(gives) == position, why


def test_outside_of_what_was_measured_the_marks_are_believed():
    part = Span(0, 30, 1, 10, law=(LawPoint(10, 12.0), LawPoint(20, 21.0)))
    assert (part.gain_db(4), part.gain_db(26)) == (6.0, 27.0)
    assert (part.lowest_db, part.above_lowest_db(1)) == (2.0, 3.0)


laws = st.lists(st.tuples(st.floats(1, 9), st.floats(0.1, 12)), min_size=1, max_size=5).map(
    lambda steps: tuple(
        LawPoint(sum(step for step, _ in steps[:index]) + 3, sum(rise for _, rise in steps[:index]) - 7)
        for index in range(1, len(steps) + 1)
    )
)


@given(laws, st.sampled_from([0.5, 1.0, 1.5]), st.floats(-30, 80))
def test_the_nearest_position_is_the_nearest_of_all(law, step, wanted):
    span = Span(0, 45, step, 0, law=law)
    positions = [round(number * step, 6) for number in range(int(45 / step) + 1)]
    best = min(abs(span.gain_db(position) - wanted) for position in positions)
    assert abs(span.gain_db(span.nearest_db(wanted)) - wanted) == pytest.approx(best, abs=1e-6)
    highest = span.at_most_db(wanted)
    assert span.gain_db(highest) <= wanted or highest == 0
    gains = [span.gain_db(position) for position in positions]
    assert gains == sorted(gains), "turned up it gives more"


def test_a_law_that_does_not_rise_is_refused():
    with pytest.raises(RangeError, match="does not rise"):
        Span(0, 30, 1, 10, law=(LawPoint(0, 2.0), LawPoint(10, 2.0)))
