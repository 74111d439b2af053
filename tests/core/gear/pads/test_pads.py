"""Pads against the handbook's formulas, published worked values, and a nodal solution by numpy."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import constants

from tidy_trunk.core.base.units import dbu_from_volts
from tidy_trunk.core.gear.pads import PadLadder, design_bridging, design_matched, transfer_loss_db
from tidy_trunk.errors import InputError, RangeError

OHMS = st.floats(10, 50_000)
LOSSES = st.floats(0.5, 80)


def nodal(pad, source_ohm, load_ohm):
    """Node voltages of the physical resistors, balanced ones with both legs: (voltage at load, input ohm, output ohm)."""
    r = [part.ohms for part in pad.resistors]
    # Each branch: (node, node, ohm). The source sits between "a" and "b", the load between "y" and "z".
    branches = {
        "l": lambda: [("a", "y", r[0]), ("b", "z", 0.0), ("y", "z", r[1])],
        "u": lambda: [("a", "y", r[0]), ("b", "z", r[1]), ("y", "z", r[2])],
        "t": lambda: [("a", "m", r[0]), ("m", "y", r[1]), ("m", "z", r[2]), ("b", "z", 0.0)],
        "h": lambda: [("a", "m", r[0]), ("b", "n", r[1]), ("m", "y", r[2]), ("n", "z", r[3]), ("m", "n", r[4])],
        "pi": lambda: [("a", "y", r[0]), ("b", "z", 0.0), ("a", "b", r[1]), ("y", "z", r[2])],
        "o": lambda: [("a", "y", r[0]), ("b", "z", r[1]), ("a", "b", r[2]), ("y", "z", r[3])],
    }[pad.layout]()
    branches = [(one, other, max(ohm, 1e-7)) for one, other, ohm in branches]

    def voltage_between(extra, drive, probe):
        names = sorted({node for branch in (*branches, *extra) for node in branch[:2]})
        index = {name: at for at, name in enumerate(names)}
        matrix, current = np.zeros((len(names), len(names))), np.zeros(len(names))
        for one, other, ohm in (*branches, *extra):
            i, j = index[one], index[other]
            matrix[i, i] += 1 / ohm
            matrix[j, j] += 1 / ohm
            matrix[i, j] -= 1 / ohm
            matrix[j, i] -= 1 / ohm
        current[index[drive[0]]] += drive[2]
        current[index[drive[1]]] -= drive[2]
        ground = index["b"]
        keep = [at for at in range(len(names)) if at != ground]
        solved = np.zeros(len(names))
        solved[keep] = np.linalg.solve(matrix[np.ix_(keep, keep)], current[keep])
        return solved[index[probe[0]]] - solved[index[probe[1]]]

    source, load = ("a", "b", source_ohm), ("y", "z", load_ohm)
    at_load = voltage_between([source, load], ("a", "b", 1 / source_ohm), ("y", "z"))
    seen_in = voltage_between([load], ("a", "b", 1.0), ("a", "b"))
    seen_out = voltage_between([source], ("y", "z", 1.0), ("y", "z"))
    return at_load, seen_in, seen_out


def check_against_nodes(pad, source_ohm, load_ohm):
    at_load, seen_in, seen_out = nodal(pad, source_ohm, load_ohm)
    without = load_ohm / (load_ohm + source_ohm)
    assert -20 * math.log10(at_load / without) == pytest.approx(pad.loss_db_actual, abs=1e-3)
    assert seen_in == pytest.approx(pad.input_impedance_ohm, rel=1e-4)
    assert seen_out == pytest.approx(pad.output_impedance_ohm, rel=1e-4)
    noise = math.sqrt(4 * constants.Boltzmann * 293.15 * seen_out * 20_000) * load_ohm / (load_ohm + seen_out)
    assert pad.thermal_noise_dbu == pytest.approx(dbu_from_volts(noise), abs=1e-3)


@given(LOSSES, OHMS, OHMS, st.sampled_from(["l", "u"]))
def test_bridging_pad_has_its_loss(loss, source, load, layout):
    pad = design_bridging(loss, source, load, layout=layout)
    assert pad.loss_db_actual == pytest.approx(loss, abs=1e-6)
    assert all(part.ohms > 0 and math.isfinite(part.ohms) for part in pad.resistors)
    check_against_nodes(pad, source, load)


@given(LOSSES, OHMS, st.sampled_from(["t", "h", "pi", "o"]))
def test_matched_pad_keeps_the_impedance(loss, ohms, layout):
    pad = design_matched(loss, ohms, layout=layout)
    assert pad.loss_db_actual == pytest.approx(loss, abs=1e-6)
    assert pad.input_impedance_ohm == pytest.approx(ohms, rel=1e-6)
    assert pad.output_impedance_ohm == pytest.approx(ohms, rel=1e-6)
    check_against_nodes(pad, ohms, ohms)


@pytest.mark.parametrize(
    ("layout", "loss", "ohms", "values", "source"),
    [
        ("t", 20, 600, [490.9, 490.9, 121.2], "K=10: 600x9/11 and 2x600x10/99, by hand"),
        ("h", 20, 600, [245.5, 245.5, 245.5, 245.5, 121.2], "series arms halved"),
        ("pi", 20, 600, [2970, 733.3, 733.3], "K=10: 600x99/20 and 600x11/9, by hand"),
        ("o", 20, 600, [1485, 1485, 733.3, 733.3], "series arms halved"),
        ("t", 6.0206, 50, [16.67, 16.67, 66.67], "K=2: 50/3 and 200/3, by hand"),
    ],
)
def test_worked_values(layout, loss, ohms, values, source):
    pad = design_matched(loss, ohms, layout=layout)
    assert [part.ohms for part in pad.resistors] == pytest.approx(values, rel=1e-3), source


@pytest.mark.parametrize(
    ("loss", "series_t", "shunt_t", "series_pi", "shunt_pi"),
    [
        (1, 34.5, 5201, 69.2, 10440),
        (2, 68.8, 2582, 139.4, 5232),
        (3, 102.6, 1703, 211.4, 3509),
        (4, 135.8, 1258, 286.1, 2651),
        (5, 168.1, 987.0, 364.7, 2141),
        (6, 199.3, 803.2, 448.2, 1806),
        (8, 258.3, 567.7, 634.2, 1393),
        (10, 311.7, 421.6, 853.8, 1155),
        (15, 418.8, 220.4, 1634, 859.6),
        (20, 490.9, 121.2, 2970, 733.3),
        (30, 563.2, 37.99, 9477, 639.2),
        (40, 588.1, 12.0, 29997, 612.1),
    ],
)
def test_the_600_ohm_table(loss, series_t, shunt_t, series_pi, shunt_pi):
    """The table of T and π attenuators for 600 Ω as radio engineers' handbooks print it; from memory. H and O halve the series arms."""
    expected = {
        "t": [series_t, series_t, shunt_t],
        "pi": [series_pi, shunt_pi, shunt_pi],
        "h": [series_t / 2] * 4 + [shunt_t],
        "o": [series_pi / 2] * 2 + [shunt_pi] * 2,
    }
    for layout, values in expected.items():
        found = [part.ohms for part in design_matched(loss, 600, layout=layout).resistors]
        assert found == pytest.approx(values, rel=2.5e-3), layout


@given(
    st.floats(3, 60),
    st.floats(50, 1000),
    st.sampled_from(["E24", "E96"]),
    st.sampled_from(["l", "u", "t", "h", "pi", "o"]),
)
def test_preferred_resistors_stay_near(loss, ohms, series, layout):
    if layout in ("l", "u"):
        pad = design_bridging(loss, ohms, ohms * 20, layout=layout, series=series)
        assert pad.input_impedance_ohm >= 5 * ohms  # handbook section 6
        check_against_nodes(pad, ohms, ohms * 20)
    else:
        pad = design_matched(loss, ohms, layout=layout, series=series)
        check_against_nodes(pad, ohms, ohms)
    assert pad.loss_db_actual == pytest.approx(loss, abs=0.6)


def test_parts_are_physical_ones():
    counts = {"l": (1, 1), "u": (2, 1), "t": (2, 1), "h": (4, 1), "pi": (1, 2), "o": (2, 2)}
    for layout, (series, shunt) in counts.items():
        pad = (
            design_bridging(20, 150, 2500, layout=layout) if layout in "lu" else design_matched(20, 600, layout=layout)
        )
        roles = [part.role for part in pad.resistors]
        assert roles == ["series"] * series + ["shunt"] * shunt


@given(st.lists(st.floats(1, 40), min_size=1, max_size=4))
def test_pads_in_a_row_lose_more(losses):
    pads = [PadLadder(series_ohm=1000, shunt_ohm=1000 / (10 ** (loss / 20))) for loss in losses]
    assert transfer_loss_db(150, pads, 2500) > transfer_loss_db(150, pads[:-1], 2500)


@pytest.mark.parametrize("loss", [0, -3, math.nan, math.inf, 500])
def test_no_such_loss(loss):
    with pytest.raises(RangeError):
        design_bridging(loss, 150, 2500)


def test_no_such_pad():
    with pytest.raises(RangeError):
        design_matched(10, math.nan, layout="t")
    for layout in ("t", "x"):
        with pytest.raises(InputError):
            design_bridging(10, 150, 2500, layout=layout)
    with pytest.raises(InputError):
        design_matched(10, 600, layout="l")
    with pytest.raises(InputError):
        design_matched(10, 600, layout="t", series="E7")
