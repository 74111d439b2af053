"""Laws of every lead, sensible or not: passive networks give no more than they get, and swapped legs invert."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    PINOUTS,
    Bridge,
    Circuit,
    Drive,
    Figure,
    Gender,
    InputMode,
    InputPort,
    LeadClass,
    OutputMode,
    OutputPort,
    Plug,
    Side,
    Signal,
    Supply,
    Wire,
    Wiring,
)
from tidy_trunk.core.gear.wiring import Fault, delivery, faults, judged_uses, link
from tidy_trunk.core.plan import drawn_lead

PLUGS = ["xlr3", "xlr5", "trs35", "trrs35", "trs635", "ts635", "rca", "ta3"]
OHMS = st.one_of(st.just(0.0), st.floats(0.1, 1e6))
ENDS = [(name, circuit) for name, circuit in PINOUTS if name in PLUGS and circuit.is_analogue]
STEREO = (Circuit.BALANCED_STEREO, Circuit.UNBALANCED_STEREO)


@st.composite
def wirings(draw, near, far):
    here, there = CONNECTORS[near].contacts, CONNECTORS[far].contacts
    wires = draw(st.lists(st.builds(Wire, st.sampled_from(here), st.sampled_from(there), OHMS), min_size=1, max_size=6))
    ends = {Side.SENDING: here, Side.RECEIVING: there}
    bridges = []
    for side in draw(st.lists(st.sampled_from(list(Side)), max_size=2)):
        bridges.append(Bridge(side, draw(st.sampled_from(ends[side])), draw(st.sampled_from(ends[side])), draw(OHMS)))
    return Wiring(tuple(wires), tuple(bridges))


@st.composite
def joints(draw):
    (first, sends), (second, takes) = draw(st.sampled_from(ENDS)), draw(st.sampled_from(ENDS))
    lead = drawn_lead(
        id="own", label="Own", sending=Plug(first, Gender.FEMALE), receiving=Plug(second, Gender.MALE),
        ways={"": draw(wirings(first, second))},
    )  # fmt: skip
    out = OutputMode(id="o", label="o", signal=Signal.LINE, source_ohm=Figure(draw(st.floats(1, 10_000))))
    into = InputMode(id="i", label="i", signal=Signal.MIC, impedance_ohm=Figure(draw(st.floats(100, 100_000))))
    output = OutputPort(
        id="o", label="o", plug=Plug(first, Gender.MALE), circuit=sends, modes=(out,), drive=draw(st.sampled_from(list(Drive))),
        channels=("L", "R") if sends in STEREO else ("1",),
    )  # fmt: skip
    port = InputPort(
        id="i", label="i", plug=Plug(second, Gender.FEMALE), circuit=takes, modes=(into,),
        channels=("L", "R") if takes in STEREO else ("1",),
    )  # fmt: skip
    return output, lead, port


@given(joints())
def test_no_more_comes_out_than_goes_in(joint):
    """Every channel has an answer; no ratio is above one; what a fault says fits what is heard."""
    output, lead, port = joint
    found = link(output, [(lead, "")], port)
    assert len(found.heard) == len(port.channels)
    for side in found.heard:
        assert sum(abs(arrival.ratio) for arrival in side) <= 1.0001 * len(output.channels)
        assert all(abs(arrival.ratio) <= 1.0001 for arrival in side)
    assert found.mono_sum_db <= 1e-6
    wrong = faults(output, [(lead, "")], port)
    assert (Fault.NOTHING in wrong) == (not any(found.heard))
    for channel in found.dead:
        if not port.circuit.is_balanced:
            assert found.heard[channel] == ()


@given(joints(), st.sampled_from([Supply.P48, Supply.PLUG_IN, Supply.T_POWER]))
def test_no_more_volts_arrive_than_are_given(joint, supply):
    output, lead, port = joint
    given_ = delivery(output, [(lead, "")], port, supply)
    assert max(abs(given_.hot_v), abs(given_.cold_v)) <= given_.nominal_v * 1.001
    assert given_.short_ma >= -1e-9
    if given_.passes and supply is Supply.P48:
        assert not given_.is_shorted or given_.short_ma < 10


@given(wirings("xlr3", "xlr3"), st.sampled_from([Drive.FLOATING, Drive.SYMMETRIC]))
def test_swapping_the_legs_inverts(wiring, drive):
    swap = {"1": "1", "2": "3", "3": "2"}
    turned = Wiring(
        tuple(wire._replace(near=swap[wire.near]) for wire in wiring.wires),
        tuple(
            bridge._replace(first=swap[bridge.first], second=swap[bridge.second])
            if bridge.end is Side.SENDING
            else bridge
            for bridge in wiring.bridges
        ),
    )
    ratios = []
    for inside in (wiring, turned):
        lead = LeadClass(
            id="x",
            label="x",
            sending=Plug("xlr3", Gender.FEMALE),
            receiving=Plug("xlr3", Gender.MALE),
            ways={"": inside},
            balanced=True,
        )
        judged = next(item for item in judged_uses(lead) if item.drive is drive)
        ratios.append(sum(arrival.ratio for arrival in judged.link.heard[0]))
    assert ratios[1] == pytest.approx(-ratios[0], rel=1e-3, abs=1e-3)
