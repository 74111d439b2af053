"""Power over the contacts. IEC 61938: 48 V through 2 × 6.8 kΩ; handbook §5: 37.8 V are left at 3 mA."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.gear.wiring.test_sound import COIL, LAVALIER, LINE, SOCKET, XLR_IN, port
from tidy_trunk.core.gear.catalogue import Supply, built_in
from tidy_trunk.core.gear.wiring import delivery


def given_to(sending, receiving, supply, *leads, draw_ma=0.0):
    return delivery(sending, [(built_in().leads[lead], "") for lead in leads], receiving, supply, draw_ma=draw_ma)


def test_phantom_power_arrives_alike_on_both_legs():
    found = given_to(COIL, XLR_IN, Supply.P48, "xlr", draw_ma=3)
    assert found.passes and not found.is_shorted
    assert found.left_v == pytest.approx(37.8, abs=0.05)  # handbook §5
    assert found.across_v == pytest.approx(0, abs=1e-6)
    assert found.hot_v == pytest.approx(48, rel=0.01)


@given(st.floats(0, 10))
def test_what_is_left_falls_by_3_4_kilohm(draw_ma):
    """IEC 61938: two 6.8 kΩ side by side."""
    found = given_to(COIL, XLR_IN, Supply.P48, "xlr", draw_ma=draw_ma)
    assert found.left_v == pytest.approx(48 - 3.4 * draw_ma, abs=0.01)


@pytest.mark.parametrize(
    ("lead", "passes"),
    [("xlr", True), ("xlr-crossed", True), ("xlr-isolator", False), ("xlr-pad-25", True), ("aes3", True)],
)
def test_which_leads_pass_it(lead, passes):
    """A U pad leaves a way through its series arms on both legs; a transformer is an end for direct current."""
    assert given_to(COIL, XLR_IN, Supply.P48, lead).passes is passes


def test_a_leg_on_the_screen_is_a_short():
    """6.8 kΩ across 48 V: 7.06 mA for nothing."""
    found = given_to(LINE, XLR_IN, Supply.P48, "trs-xlr-mono")
    assert found.is_shorted and found.short_ma == pytest.approx(7.06, abs=0.1)
    assert (found.is_felt and found.across_v == 0) or found.hot_v == pytest.approx(48, rel=0.02)


def test_plug_in_power_goes_along_plain_jacks_and_not_past_a_pad():
    assert given_to(LAVALIER, SOCKET, Supply.PLUG_IN).passes
    assert given_to(LAVALIER, port("bodypack-transmitter", "mic"), Supply.PLUG_IN).passes
    assert not given_to(LINE, SOCKET, Supply.PLUG_IN, "trs-pad-25").passes
    assert given_to(LINE, SOCKET, Supply.PLUG_IN, "trs").is_felt


def test_plug_in_power_through_hot_on_both_runs_through_a_coil():
    """The cold leg lies on the screen, so the coil lies across the supply: what a ribbon must not feel."""
    found = given_to(COIL, SOCKET, Supply.PLUG_IN, "xlr-trs")
    assert found.across_v > 2


def test_t_power_lies_between_the_legs():
    found = given_to(COIL, XLR_IN, Supply.T_POWER, "xlr")
    assert found.across_v == pytest.approx(12, abs=0.1) and found.passes
