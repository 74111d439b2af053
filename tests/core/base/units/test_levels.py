"""Units against physical constants (scipy) and the worked examples of the handbook, sections 2 and 4."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import constants

from tidy_trunk.core.base.units import (
    SERIES,
    bridging_loss_db,
    combine_tolerances_db,
    convert,
    dbu_from_volts,
    microphone_dbu,
    neighbours_ohm,
    sum_powers_db,
    thermal_noise_dbu,
)
from tidy_trunk.errors import InputError, RangeError, UnitError


@pytest.mark.parametrize(
    ("value", "unit", "to", "expected", "source"),
    [
        (0, "dBu", "V", 0.774597, "1 mW in 600 ohm: sqrt(0.001 x 600)"),
        (0, "dBV", "dBu", 2.2185, "handbook section 2"),
        (-10, "dBV", "dBu", -7.78, "handbook section 2, consumer line"),
        (-10, "dBV", "V", 0.3162, "10 to the power -0.5"),
        (4, "dBu", "V", 1.228, "handbook section 2, professional line"),
        (1228, "mV", "dBu", 4.0, "the same back"),
        (1, "Pa", "dB SPL", 93.979, "20 log 50000"),
        (94, "dB SPL", "Pa", 1.0024, "10 to the power 4.7 times 20 uPa"),
        (0, "V", "dBu", -math.inf, "silence"),
    ],
)
def test_conversion(value, unit, to, expected, source):
    assert convert(value, unit, to) == pytest.approx(expected, abs=0.006), source


@pytest.mark.parametrize(("db_spl", "dbu"), [(60, -65.7), (94, -31.7), (130, 4.3)])
def test_microphone_of_20_mv_per_pa(db_spl, dbu):
    """Handbook section 2."""
    assert microphone_dbu(20, db_spl) == pytest.approx(dbu, abs=0.05)
    assert convert(db_spl, "dB SPL", "dBu", sensitivity_mv_per_pa=20) == pytest.approx(dbu, abs=0.05)


@given(
    st.floats(-200, 200),
    st.sampled_from(["V", "mV", "dBu", "dBV"]),
    st.sampled_from(["V", "mV", "dBu", "dBV"]),
)
def test_conversion_inverts(db, unit, to):
    value = convert(db, "dBu", unit)
    assert convert(convert(value, unit, to), to, "dBu") == pytest.approx(db, abs=1e-6)


@pytest.mark.parametrize(
    ("value", "unit", "to", "error"),
    [
        (math.nan, "dBu", "V", RangeError),
        (math.inf, "V", "dBu", RangeError),
        (-1, "V", "dBu", RangeError),
        (1e6, "dBu", "V", RangeError),
        (1, "furlong", "V", UnitError),
        (94, "dB SPL", "dBu", UnitError),
    ],
)
def test_refused(value, unit, to, error):
    with pytest.raises(error):
        convert(value, unit, to)


def test_thermal_noise_against_physics():
    expected = math.sqrt(4 * constants.Boltzmann * 293.15 * 150 * 20_000)
    assert thermal_noise_dbu(150) == pytest.approx(dbu_from_volts(expected), abs=1e-9)
    assert thermal_noise_dbu(150) == pytest.approx(-130.9, abs=0.05)  # handbook section 4


def test_bridging_loss():
    assert bridging_loss_db(150, 150) == pytest.approx(6.0206, abs=1e-4)  # half the voltage
    assert bridging_loss_db(150, math.inf) == 0


@given(st.lists(st.floats(-140, 20), min_size=1, max_size=12))
def test_powers_add(levels):
    total = sum_powers_db(levels)
    assert total >= max(levels) - 1e-9
    assert total <= max(levels) + 10 * math.log10(len(levels)) + 1e-9
    assert sum_powers_db(reversed(levels)) == pytest.approx(total)


def test_two_equal_noises_are_3_db_more():
    assert sum_powers_db([-72, -72]) == pytest.approx(-68.99, abs=0.01)
    assert sum_powers_db([]) == -math.inf


def test_tolerances_add_as_squares():
    assert combine_tolerances_db([3, 4]) == pytest.approx(5)


@pytest.mark.parametrize(
    ("series", "values"),
    [
        ("E12", (1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2)),
        ("E96", (1.0, 1.02, 1.05, 1.07, 1.1, 1.13)),
    ],
)
def test_preferred_values(series, values):
    """IEC 60063, from memory."""
    assert SERIES[series][: len(values)] == values
    assert len(SERIES[series]) == int(series[1:])


def test_neighbours():
    assert neighbours_ohm(1000, "E24") == (910, 1000, 1100)
    assert neighbours_ohm(99, "E12") == (82, 100, 120)
    with pytest.raises(InputError):
        neighbours_ohm(100, "E13")
