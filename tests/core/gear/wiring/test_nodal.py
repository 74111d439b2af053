"""Every lead of the catalogue against a second solution: a full tableau in numpy.

The tableau knows nothing of nets: each contact is a node of its own, each wire, source and winding a branch with an
unknown current, solved by least squares. Source: Kirchhoff's laws; impedances of handbook §12.
"""

import numpy as np
import pytest

from tidy_trunk.core.gear.catalogue import (
    PINOUTS,
    Circuit,
    Drive,
    Figure,
    Gender,
    InputMode,
    InputPort,
    OutputMode,
    OutputPort,
    Plug,
    Side,
    Signal,
    built_in,
)
from tidy_trunk.core.gear.pads import PadLadder, bridging_arms, transfer_loss_db
from tidy_trunk.core.gear.wiring import link

OTHER = {Gender.MALE: Gender.FEMALE, Gender.FEMALE: Gender.MALE}
STEREO = (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO)


def circuits(plug):
    return [circuit for name, circuit in PINOUTS if name == plug.connector and circuit.is_analogue]


def output(plug, circuit, drive, ohm):
    mode = OutputMode(id="x", label="x", signal=Signal.LINE, source_ohm=Figure(ohm))
    names = ("L", "R") if circuit in STEREO else ("1",)
    return OutputPort(id="o", label="o", plug=plug, circuit=circuit, channels=names, modes=(mode,), drive=drive)


def input_(plug, circuit, ohm):
    mode = InputMode(id="x", label="x", signal=Signal.LINE, impedance_ohm=Figure(ohm))
    names = ("L", "R") if circuit in STEREO else ("1",)
    return InputPort(id="i", label="i", plug=plug, circuit=circuit, channels=names, modes=(mode,))


class Tableau:
    """Rows of equations over node voltages and branch currents, all contacts apart."""

    def __init__(self):
        self.nodes, self.branches = {"ground": 0}, []

    def node(self, name):
        return self.nodes.setdefault(name, len(self.nodes))

    def branch(self, plus, minus, volts=0.0, ohm=0.0):
        """v(plus) - v(minus) = volts - ohm · i, the current i leaving the branch at plus."""
        self.branches.append((self.node(plus), self.node(minus), volts, ohm))

    def solve(self, windings=()):
        nodes, branches = len(self.nodes), len(self.branches)
        rows = np.zeros((nodes + branches + len(windings) + 1, nodes + branches + len(windings)))
        right = np.zeros(len(rows))
        for at, (plus, minus, volts, ohm) in enumerate(self.branches):
            rows[at, plus], rows[at, minus], rows[at, nodes + at], right[at] = 1, -1, ohm, volts
            if plus == minus:
                rows[at, plus] = 0
            rows[branches + plus, nodes + at] += 1
            rows[branches + minus, nodes + at] -= 1
        for at, ends in enumerate(windings):
            for name, sign in zip(ends, (1, -1, -1, 1), strict=True):
                rows[branches + nodes + at, self.node(name)] += sign
                rows[branches + self.node(name), nodes + branches + at] += sign
        rows[-1, 0] = 1
        found, *_ = np.linalg.lstsq(rows, right, rcond=None)
        assert np.allclose(rows @ found, right, atol=1e-8), "the laws hold"
        return lambda name: found[self.node(name)]


def by_tableau(sender, lead, branch, receiver, driven):
    wiring, table = lead.ways[branch], Tableau()
    for wire in wiring.wires:
        table.branch(("near", wire.near), ("far", wire.far), ohm=wire.ohm)
    for bridge in wiring.bridges:
        place = "near" if bridge.end is Side.SENDING else "far"
        table.branch((place, bridge.first), (place, bridge.second), ohm=bridge.ohm)
    sent, heard = PINOUTS[sender.plug.connector, sender.circuit], PINOUTS[receiver.plug.connector, receiver.circuit]
    for contact, leg in sent.items():
        if leg.role == "screen":
            table.branch(("near", contact), "common")
    for contact, leg in heard.items():
        if leg.role == "screen":
            table.branch(("far", contact), "ground")
    half = sender.modes[0].source_ohm.value / 2
    for channel in range(len(sender.channels)):
        volts = 1.0 if channel == driven else 0.0
        hot, cold = (
            next((("near", c) for c, leg in sent.items() if leg == (channel, role)), None) for role in ("hot", "cold")
        )
        if cold is None:
            table.branch(hot, "common", volts, 2 * half)
        elif sender.drive is Drive.FLOATING:
            table.branch(hot, cold, volts, 2 * half)
        elif sender.drive is Drive.SYMMETRIC:
            table.branch(hot, "common", volts / 2, half)
            table.branch("common", cold, volts / 2, half)
        else:
            table.branch(hot, "common", volts, half)
            table.branch("common", cold, 0.0, half)
    ends = []
    for channel in range(len(receiver.channels)):
        hot, cold = (
            next((("far", c) for c, leg in heard.items() if leg == (channel, role)), None) for role in ("hot", "cold")
        )
        load = receiver.modes[0].impedance_ohm.value
        table.branch(hot, "ground", ohm=load if cold is None else load / 2)
        if cold is not None:
            table.branch(cold, "ground", ohm=load / 2)
        ends.append((hot, cold or "ground"))
    windings = [(*((("near", c)) for c in item.near), *((("far", c)) for c in item.far)) for item in wiring.windings]
    volts = table.solve(windings)
    return [volts(hot) - volts(cold) for hot, cold in ends]


@pytest.mark.parametrize(
    "lead",
    [lead for lead in built_in().leads.values() if circuits(lead.sending) and circuits(lead.receiving)],
    ids=lambda lead: lead.id,
)
def test_every_lead(lead):
    compared = 0
    for branch in lead.ways:
        for circuit in circuits(lead.sending):
            for drive in Drive if circuit.is_balanced else [Drive.FLOATING]:
                for takes in circuits(lead.receiving):
                    for source_ohm, load_ohm in ((150, 2_500), (2_000, 10_000), (32, 64)):
                        sender = output(
                            Plug(lead.sending.connector, OTHER[lead.sending.gender]), circuit, drive, source_ohm
                        )
                        receiver = input_(Plug(lead.receiving.connector, OTHER[lead.receiving.gender]), takes, load_ohm)
                        found = link(sender, [(lead, branch)], receiver)
                        for driven in range(len(sender.channels)):
                            expected = by_tableau(sender, lead, branch, receiver, driven)
                            ours = [sum(a.ratio for a in side if a.channel == driven) for side in found.heard]
                            assert ours == pytest.approx(expected, abs=2e-5), (circuit, drive, takes, source_ohm)
                            compared += 1
    assert compared >= 3


@pytest.mark.parametrize("db", [15, 25, 50])
@pytest.mark.parametrize("load_ohm", [600, 2_500, 10_000])
def test_pads_against_the_divider_rule(db, load_ohm):
    """A floating source through a U pad, and one channel of a stereo L pad, by the formula of two arms in a row."""
    arms = bridging_arms(db, 150, 2_500)
    alone = transfer_loss_db(150, [arms], load_ohm)
    barrel = link(
        output(Plug("xlr3", Gender.MALE), Circuit.BALANCED, Drive.FLOATING, 150), [(built_in().leads[f"xlr-pad-{db}"], "")],
        input_(Plug("xlr3", Gender.FEMALE), Circuit.BALANCED, load_ohm),
    )  # fmt: skip
    assert -20 * np.log10(barrel.strongest) == pytest.approx(alone, abs=0.001)
    jack = link(
        output(Plug("trs35", Gender.FEMALE), Circuit.UNBALANCED_STEREO, Drive.FLOATING, 150), [(built_in().leads[f"trs-pad-{db}"], "")],
        input_(Plug("trs35", Gender.FEMALE), Circuit.UNBALANCED_STEREO, load_ohm),
    )  # fmt: skip
    assert -20 * np.log10(jack.strongest) == pytest.approx(alone, abs=0.001)
    # The same pad with hot on both sides drives two loads at once.
    both = link(
        output(Plug("xlr3", Gender.MALE), Circuit.BALANCED, Drive.FLOATING, 150), [(built_in().leads[f"xlr-trs-pad-{db}"], "")],
        input_(Plug("trs35", Gender.FEMALE), Circuit.UNBALANCED_STEREO, load_ohm),
    )  # fmt: skip
    assert -20 * np.log10(both.strongest) == pytest.approx(
        transfer_loss_db(150, [PadLadder(series_ohm=arms.series_ohm, shunt_ohm=arms.shunt_ohm)], load_ohm / 2),
        abs=0.001,
    )
