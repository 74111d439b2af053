"""What joins A to B. Handbook section 4."""

from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.gear.wiring import Fault
from tidy_trunk.core.sound.cable_chains import find_cable_chains


def joins(sending, receiving, **options):
    (first, out), (second, into) = sending.split(":"), receiving.split(":")
    output = next(port for port in built_in().devices[first].outputs if port.id == out)
    port = next(port for port in built_in().devices[second].inputs if port.id == into)
    return find_cable_chains(output, port, **options)


def leads(join):
    return [part.lead for part in join.parts]


def test_balanced_long_unbalanced_short():
    best = joins("bag-recorder:out-l", "mirrorless-mic:mic", length_m=6)[0]
    assert leads(best) == ["xlr", "xlr-trs-open"], "the recorder drives both legs: neither may lie on the screen"
    assert best.unbalanced_m == 0.3
    assert sum(part.length_m for part in best.parts) == 6


def test_the_crossed_one_is_known_as_wrong():
    found = joins("dynamic-handheld:out", "mirrorless-mic:mic", length_m=0.3)
    assert leads(found[0]) == ["xlr-trs"] and not found[0].faults
    one_to_one = next(join for join in found if leads(join) == ["xlr-trs-one-to-one"])
    assert one_to_one.faults == (Fault.OPPOSITE,)


def test_own_cords_and_aerials_need_no_lead():
    assert joins("lavalier:out", "bodypack-transmitter:mic")[0].parts == ()
    assert joins("bodypack-transmitter:air", "receiver-one:air", length_m=40)[0].parts == ()


def test_nothing_joins_a_picture_to_a_microphone_socket():
    assert joins("mirrorless-mic:hdmi", "bag-recorder:in1") == []
