"""A manual's figures by hand: what they say of full scale, of the first stage and of the noise."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.sound.levels import Datasheet, level_dbu, mode_of_datasheet
from tidy_trunk.errors import InputError, RangeError

MODE = built_in().devices["bag-recorder"].inputs[0].modes[0]


def read(**printed):
    return mode_of_datasheet(Datasheet(**{"lowest_db": 10, "highest_db": 70, "step_db": 1, **printed}), MODE)


def test_a_maximum_input_sets_full_scale_at_the_lowest_gain():
    """+4 dBu at 10 dB: +14 dBu at 0 dB."""
    mode = read(most_dbu=4)
    assert (mode.full_scale_dbu.value, mode.clip_dbu, mode.full_scale_dbu.provenance) == (14, None, "manual")
    assert (mode.gain.minimum_db, mode.gain.maximum_db, mode.gain.default_db) == (10, 70, 40)


def test_a_sensitivity_for_a_nominal_level_is_taken_to_full_scale():
    """-76 dBu reads -20 dBFS at 70 dB: full scale at -56 dBu there, +14 dBu at 0 dB."""
    assert read(sensitivity_dbu=-76, nominal_dbfs=-20).full_scale_dbu.value == 14


def test_a_maximum_below_full_scale_is_the_first_stage():
    """Full scale at the lowest gain is +4 dBu; the input takes -3 dBu."""
    assert read(sensitivity_dbu=-56, most_dbu=-3).clip_dbu.value == -3
    assert read(sensitivity_dbu=-56, most_dbu=3.5).clip_dbu is None, "that is rounding"


def test_noise_that_is_a_weighted_is_2_db_more_without():
    """White noise from 20 Hz to 20 kHz reads about 2 dB less in dB(A). From memory, by the curve of IEC 61672-1."""
    assert read(most_dbu=4, ein_dbu=-128, is_a_weighted=True).ein_dbu.value == pytest.approx(-126, abs=0.3)
    assert read(most_dbu=4, ein_dbu=-126).ein_dbu.value == -126


@pytest.mark.parametrize(
    ("value", "unit", "dbu"), [(-60, "dBu", -60), (-2.2, "dBV", 0.02), (775, "mV", 0.0), (1.228, "V", 4.0)]
)
def test_levels_in_the_units_of_manuals(value, unit, dbu):
    """0.775 V is 0 dBu, 1.228 V is +4 dBu, dBV is 2.2 dB below. Source: ITU-R V.574"""
    assert level_dbu(value, unit) == pytest.approx(dbu, abs=0.02)


@given(st.floats(-60, 20), st.floats(-20, 20), st.floats(20.5, 80))
def test_what_was_read_gives_the_maximum_back(most, lowest, highest):
    mode = mode_of_datasheet(Datasheet(lowest_db=lowest, highest_db=highest, step_db=0.5, most_dbu=most), MODE)
    assert mode.full_scale_dbu.value - mode.gain.minimum_db == pytest.approx(most, abs=0.051)


def test_figures_that_contradict_each_other_are_refused():
    with pytest.raises(RangeError, match=r"would be \+4.0 dBu at the lowest gain, and the maximum input \+24.0 dBu"):
        read(sensitivity_dbu=-56, most_dbu=24)
    with pytest.raises(InputError, match="give the maximum input level or the sensitivity"):
        read()
    with pytest.raises(RangeError, match="not from 70 to 10 dB"):
        read(most_dbu=4, lowest_db=70, highest_db=10)
