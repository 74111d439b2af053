"""Attenuator design, against the divider rule in numpy, a Monte Carlo run, and the network of the lead that it makes."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.base.units import lead_corner_hz
from tidy_trunk.core.gear.catalogue import FITTINGS, PINOUTS, Circuit, padded
from tidy_trunk.core.gear.pads import (
    SERIES_TOLERANCE_PERCENT,
    arms_of,
    corner,
    design_bridging,
    design_matched,
    loss_range,
    losses_over_loads,
    losses_over_sources,
)
from tidy_trunk.core.gear.wiring import bare_ratio
from tidy_trunk.errors import InputError, RangeError
from tidy_trunk.words import pad_advice

U_25 = design_bridging(25, 150, 2500, layout="u", series="E24")


def divider_db(series, shunt, source, load):
    """Loss of putting an L pad in, by the divider rule, for arrays of resistors."""
    below = shunt * load / (shunt + load)
    return -20 * np.log10(below / (source + series + below) / (load / (source + load)))


def test_the_range_holds_every_pad_that_is_built():
    """10,000 pads of 5 % resistors: none outside the worst case, 99.7 % within three deviations (a normal one each)."""
    found = loss_range(U_25, 150, 2500, 5)
    rng = np.random.default_rng(3)
    drawn = [part.ohms * (1 + rng.normal(0, 0.05 / 3, 10_000).clip(-0.05, 0.05)) for part in U_25.resistors]
    losses = divider_db(drawn[0] + drawn[1], drawn[2], 150, 2500)
    assert found.worst_low_db <= losses.min() and losses.max() <= found.worst_high_db
    inside = np.mean((losses > found.sigma3_low_db) & (losses < found.sigma3_high_db))
    assert inside == pytest.approx(0.997, abs=0.004)


def test_the_worst_case_is_that_of_the_corners():
    """By hand: all series high and the shunt low is the most that is lost."""
    low, high = 0.95, 1.05
    series, shunt = (sum(part.ohms for part in U_25.resistors[:2]), U_25.resistors[2].ohms)
    found = loss_range(U_25, 150, 2500, 5)
    assert found.worst_high_db == pytest.approx(divider_db(series * high, shunt * low, 150, 2500))
    assert found.worst_low_db == pytest.approx(divider_db(series * low, shunt * high, 150, 2500))


@given(st.floats(3, 60), st.floats(20, 1000), st.floats(1000, 50_000), st.floats(0.1, 20))
def test_a_range_holds_its_middle_and_grows_with_the_tolerance(loss, source, load, percent):
    pad = design_bridging(loss, source, load, layout="l")
    found = loss_range(pad, source, load, percent)
    assert found.worst_low_db <= found.sigma3_low_db + 0.2 * percent / 20
    assert found.worst_low_db <= pad.loss_db_actual <= found.worst_high_db
    wider = loss_range(pad, source, load, min(percent * 1.5, 20))
    assert wider.worst_high_db >= found.worst_high_db - 1e-9


@pytest.mark.parametrize("percent", [0, -1, 21, float("nan"), float("inf")])
def test_a_tolerance_that_cannot_be_is_refused(percent):
    with pytest.raises(RangeError, match="tolerance"):
        loss_range(U_25, 150, 2500, percent)


def test_other_gear_at_the_ends():
    series, shunt = (sum(part.ohms for part in U_25.resistors[:2]), U_25.resistors[2].ohms)
    for load, loss in losses_over_loads(U_25, 150):
        assert loss == pytest.approx(divider_db(series, shunt, 150, load))
    for source, loss in losses_over_sources(U_25, 2500):
        assert loss == pytest.approx(divider_db(series, shunt, source, 2500))


def test_the_treble_of_a_lead():
    """Handbook §4: 100 pF/m; 10 m behind 150 Ω is 1 / (2π · 150 · 1 nF) = 1.06 MHz, behind 10 kΩ 15.9 kHz."""
    assert lead_corner_hz(150, 10) == pytest.approx(1.061e6, rel=1e-3)
    assert lead_corner_hz(10_000, 10) == pytest.approx(15_915, rel=1e-3)
    arms = arms_of("u", U_25.resistors)
    found = corner(arms, 150, 2500, 10)
    seen = 1 / (1 / U_25.output_impedance_ohm + 1 / 2500)
    assert found.at_sender_hz == pytest.approx(lead_corner_hz(seen, 10))
    with pytest.raises(RangeError, match="no cable"):
        corner(arms, 150, 2500, 0)


def test_what_is_said_of_it():
    """Handbook §6: keep the load of the source at five times its impedance or more; the pad at the camera end."""
    good = pad_advice(U_25, 150, 3, corner(arms_of("u", U_25.resistors), 150, 2500, 3))
    assert "no loading" in good[0] and "receiving end" in good[1]
    heavy = pad_advice(U_25, 600, 3, corner(arms_of("u", U_25.resistors), 600, 2500, 3))
    assert "loaded" in heavy[0]
    matched = design_matched(20, 600, layout="t")
    assert "equal impedances" in pad_advice(matched, 600, 3, corner(arms_of("t", matched.resistors), 600, 600, 3))[0]


@pytest.mark.parametrize("fitting", FITTINGS.values(), ids=lambda item: item.id)
@pytest.mark.parametrize("loss", [10, 25, 50])
def test_the_lead_that_it_makes_has_that_loss(fitting, loss):
    """The network solution of the lead, contact by contact, against the ladder formula."""
    layout = fitting.layouts[0]
    pad = design_bridging(loss, 150, 2500, layout=layout, series="E24")
    wiring = padded(fitting, layout, arms_of(layout, pad.resistors))
    sends = Circuit.BALANCED if fitting.cold else Circuit.UNBALANCED_STEREO
    takes = Circuit.BALANCED if fitting.id == "xlr" else Circuit.UNBALANCED_STEREO
    assert (fitting.receiving.connector, takes) in PINOUTS
    ratio = bare_ratio(fitting.sending, sends, wiring, fitting.receiving, takes, 150, 2500 * (2 if fitting.also else 1))
    bridging = 2500 / 2650
    assert -20 * np.log10(ratio / bridging) == pytest.approx(pad.loss_db_actual, abs=0.02)


def test_a_layout_that_no_plug_holds_is_refused():
    with pytest.raises(InputError, match="cannot be built into XLR to XLR: use u or o"):
        padded(FITTINGS["xlr"], "t", arms_of("t", design_matched(20, 600, layout="t").resistors))


def test_the_tolerance_of_a_series():
    """IEC 60063: E12 is made for 10 %, E24 for 5 %, E96 for 1 %."""
    assert [SERIES_TOLERANCE_PERCENT[name] for name in ("E12", "E24", "E96")] == [10, 5, 1]
