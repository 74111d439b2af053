"""What arrives through leads. Facts of the trade: handbook §4, common practice unless a standard is named."""

import math
from dataclasses import replace

import pytest

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    PINOUTS,
    Figure,
    Gender,
    OutputMode,
    Plug,
    Signal,
    built_in,
    is_meant_for,
    mates,
    touching,
)
from tidy_trunk.core.gear.wiring import Fault, faults, link, unmated
from tidy_trunk.errors import InputError


def port(class_id, port_id):
    return next(item for item in built_in().devices[class_id].ports if item.id == port_id)


COIL = port("dynamic-handheld", "out")  # floating
LINE_XLR = port("bag-recorder", "out-l")  # symmetric
RADIO_XLR = port("receiver-one", "out")  # signal on the hot leg alone
LINE = port("bag-recorder", "line")
SOCKET = port("mirrorless-mic", "mic")
XLR_IN = port("bag-recorder", "in1")
LAVALIER = port("lavalier", "out")
HEADSET = port("headset-microphone", "out")
PHONE = port("phone-camera", "headset")


def joined(sending, lead, receiving, branch=""):
    """With a source of 10 Ω, so that loads take nothing worth naming and halves stay halves."""
    mode = OutputMode(id="x", label="x", signal=Signal.LINE, source_ohm=Figure(10))
    return link(sending, [(built_in().leads[lead], branch)] if lead else [], receiving, mode)


def rounded(found):
    return [[(item.channel, round(item.ratio, 1)) for item in side] for side in found.heard]


@pytest.mark.parametrize(
    ("sending", "lead", "receiving", "expected", "mono_db", "wrong"),
    [
        # The four that look alike at a 3.5 mm socket, and the level of the mono sum of each.
        (COIL, "xlr-trs", SOCKET, [[(0, 1)], [(0, 1)]], 0.0, ()),
        (COIL, "xlr-trs-one-to-one", SOCKET, [[(0, 0.5)], [(0, -0.5)]], -math.inf, (Fault.OPPOSITE,)),
        (COIL, "xlr-trs-left", SOCKET, [[(0, 1)], []], -6.02, (Fault.ONE_SIDE,)),
        (LINE, "trs", SOCKET, [[(0, 1)], [(1, 1)]], -6.02, ()),
        # What is left of the cold leg depends on how the output drives it.
        (LINE_XLR, "xlr-trs-one-to-one", SOCKET, [[(0, 0.5)], [(0, -0.5)]], -math.inf, (Fault.OPPOSITE,)),
        (RADIO_XLR, "xlr-trs-one-to-one", SOCKET, [[(0, 1)], []], -6.02, (Fault.ONE_SIDE,)),
        (LINE_XLR, "xlr-trs", SOCKET, [[(0, 0.5)], [(0, 0.5)]], 0.0, (Fault.SHORTED,)),
        (LINE_XLR, "xlr-trs-open", SOCKET, [[(0, 0.5)], [(0, 0.5)]], 0.0, ()),
        (RADIO_XLR, "xlr-trs", SOCKET, [[(0, 1)], [(0, 1)]], 0.0, ()),
        (COIL, "xlr-trs-open", SOCKET, [[], []], 0.0, (Fault.NOTHING,)),
        # Balanced inputs.
        (COIL, "xlr", XLR_IN, [[(0, 1)]], 0.0, ()),
        (COIL, "xlr-crossed", XLR_IN, [[(0, -1)]], 0.0, (Fault.INVERTED,)),
        (COIL, "xlr-isolator", XLR_IN, [[(0, 1)]], 0.0, ()),
        (LINE, "trs-xlr", XLR_IN, [[(0, 1), (1, -1)]], 0.0, (Fault.DIFFERENCE,)),
        (LINE, "trs-xlr-mono", XLR_IN, [[(0, 1)]], 0.0, (Fault.LOST,)),
        (LINE, "trs-xlr-joined", XLR_IN, [[(0, 0.5), (1, 0.5)]], 0.0, (Fault.FIGHTING, Fault.MIXED)),
        # Plugs with another number of rings.
        (LAVALIER, "", SOCKET, [[(0, 1)], []], -6.02, (Fault.ONE_SIDE,)),
        (HEADSET, "", SOCKET, [[], []], 0.0, (Fault.NOTHING, Fault.SHORTED)),
        (HEADSET, "headset-trs", SOCKET, [[(0, 1)], [(0, 1)]], 0.0, ()),
        (LAVALIER, "", PHONE, [[]], 0.0, (Fault.NOTHING,)),
        (LAVALIER, "trs-headset", PHONE, [[(0, 1)]], 0.0, ()),
        (HEADSET, "", PHONE, [[(0, 1)]], 0.0, ()),
    ],
)  # fmt: skip
def test_what_arrives(sending, lead, receiving, expected, mono_db, wrong):
    found = joined(sending, lead, receiving)
    assert rounded(found) == expected
    if len(found.heard) == 2 and any(found.heard):
        assert found.mono_sum_db == pytest.approx(mono_db, abs=0.1)
    assert faults(sending, [(built_in().leads[lead], "")] if lead else [], receiving) == wrong


def test_a_mono_plug_shorts_the_ring():
    assert joined(LAVALIER, "", SOCKET).dead == (1,)
    assert joined(LINE, "trs", SOCKET).dead == ()


def test_transformers_cut_the_copper():
    assert joined(COIL, "xlr", XLR_IN).copper
    assert not joined(COIL, "xlr-isolator", XLR_IN).copper
    chain = [(built_in().leads["trs"], ""), (built_in().leads["trs-isolator"], "")]
    assert not link(LINE, chain, SOCKET).copper
    assert [len(side) for side in link(LINE, chain, SOCKET).heard] == [1, 1]


def test_two_way_leads_use_one_side_each():
    assert rounded(joined(COIL, "2xlr-trs", SOCKET, "L")) == [[(0, 1)], []]
    assert rounded(joined(COIL, "2xlr-trs", SOCKET, "R")) == [[], [(0, 1)]]
    assert rounded(joined(LINE_XLR, "2xlr-xlr5", port("cinema-xlr5", "in"), "R")) == [[], [(0, 1)]]


def test_mating():
    assert unmated(LINE_XLR, [built_in().leads["xlr"]], XLR_IN) is None
    assert unmated(LINE_XLR, [], XLR_IN) is None  # a barrel-less joint: male into female
    assert unmated(LINE_XLR, [built_in().leads["trs"]], SOCKET).first.startswith("out L")
    assert unmated(LINE_XLR, [built_in().leads["xlr"]], SOCKET).second == "mic socket (3.5 mm TRS female)"
    assert unmated(LINE_XLR, [built_in().leads["xlr"]], port("handheld-recorder", "in1")) is None


def test_jacks_of_one_size_go_together_and_are_not_all_meant_to():
    ends = [Plug(name, Gender.MALE) for name in ("ts35", "trs35", "trrs35", "trrs35-older")]
    socket = Plug("trs35", Gender.FEMALE)
    assert all(mates(end, socket) for end in ends)
    assert [is_meant_for(end, socket) for end in ends] == [False, True, False, False]
    for end in ends:
        assert touching(socket, end) == tuple((there, here) for here, there in touching(end, socket))


def test_wires_name_contacts_that_exist():
    for lead in built_in().leads.values():
        near, far = (CONNECTORS[end.connector].contacts for end in (lead.sending, lead.receiving))
        for wiring in lead.ways.values():
            assert {wire.near for wire in wiring.wires} <= set(near), lead.id
            assert {wire.far for wire in wiring.wires} <= set(far), lead.id
            for bridge in wiring.bridges:
                assert {bridge.first, bridge.second} <= set(near if bridge.end == "sending" else far), lead.id
    for (connector, _), legs in PINOUTS.items():
        assert set(legs) <= set(CONNECTORS[connector].contacts)


def test_digital_and_timecode_go_to_their_like():
    """HDMI, SDI, USB and AES3 are told apart; timecode from socket to socket is no signal to judge as sound."""
    switcher, phone = "live-switcher", "phone-camera"
    assert faults(port("cinema-xlr5", "sdi"), [(built_in().leads["bnc"], "")], port(switcher, "sdi1")) == ()
    assert faults(port("cinema-xlr5", "sdi"), [(built_in().leads["bnc"], "")], port("bag-recorder", "tc-in")) == (
        Fault.NUMBERS,
    )
    assert faults(port("handheld-recorder", "usb"), [(built_in().leads["usb-c"], "")], port(phone, "usb")) == ()
    assert (
        faults(port("timecode-generator", "tc-out"), [(built_in().leads["bnc"], "")], port("cinema-xlr5", "tc-in"))
        == ()
    )
    assert faults(port("bag-recorder", "aes"), [(built_in().leads["aes3"], "")], port("field-mixer", "in1")) == (
        Fault.NUMBERS,
    )


def test_every_channel_has_an_answer():
    """Timecode pushed into a picture's BNC: two channels of numbers on one contact."""
    assert (
        len(
            link(
                port("timecode-generator", "tc-out"), [(built_in().leads["bnc"], "")], port("live-switcher", "sdi1")
            ).heard
        )
        == 2
    )


def test_one_plug_with_five_contacts_brings_two_channels():
    for sender, lead in ((port("receiver-ta5", "out"), "ta5-2xlr"), (port("field-mixer", "multi"), "multi-2xlr")):
        assert rounded(joined(sender, lead, XLR_IN, "L")) == [[(0, 1)]]
        assert rounded(joined(sender, lead, XLR_IN, "R")) == [[(1, 1)]]


def test_a_tail_is_straight_and_has_an_end_of_its_own():
    """The branch for the camera takes 25 dB off, that for listening nothing: common practice."""
    lead = built_in().leads["trs-pad-25-tail"]
    tail = lead.at_branch("R")
    assert (tail.receiving.gender, tail.loss_db) == (Gender.FEMALE, None) and lead.at_branch("L") is lead
    assert not tail.ways["R"].bridges and all(wire.ohm == 0 for wire in tail.ways["R"].wires)
    with pytest.raises(InputError, match="a tail is branch R"):
        replace(lead, ways={"": lead.ways["L"]})
