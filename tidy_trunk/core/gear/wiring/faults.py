"""What is wrong with what arrives."""

from collections.abc import Sequence
from enum import StrEnum

from tidy_trunk.core.gear.catalogue import Circuit, InputPort, LeadClass, OutputPort, Signal
from tidy_trunk.core.gear.wiring.sound import Link, link


class Fault(StrEnum):
    """One thing wrong; the worst first."""

    NUMBERS = "digital-into-analogue"
    VOLTAGE = "analogue-into-digital"
    NOTHING = "nothing-arrives"
    OPPOSITE = "opposite-polarity"
    DIFFERENCE = "left-minus-right"
    FIGHTING = "outputs-joined"
    SHORTED = "leg-shorted"
    SWAPPED = "sides-swapped"
    MIXED = "sides-mixed"
    INVERTED = "polarity-inverted"
    LOST = "one-side-lost"
    ONE_SIDE = "one-side-silent"


def faults(
    sending: OutputPort, leads: Sequence[tuple[LeadClass, str]], receiving: InputPort, found: Link | None = None
) -> tuple[Fault, ...]:
    """What is wrong with what arrives through leads; empty where each channel hears what it should.

    Arguments as of `link`; `found` is what that gave, where somebody has asked already. Source: [HANDBOOK] §4
    """
    if sending.circuit.is_digital:
        digital = any(mode.signal is Signal.DIGITAL for mode in receiving.modes)
        other = sending.circuit is not receiving.circuit and not receiving.circuit.is_analogue
        return (Fault.NUMBERS,) if not digital or other else ()
    if sending.circuit is receiving.circuit and sending.circuit in (Circuit.TIMECODE, Circuit.GENLOCK):
        return ()
    if receiving.circuit is Circuit.TIMECODE and sending.timecode_mode is not None:
        heard = (found or link(sending, leads, receiving)).heard[0]
        carries = sending.channels.index(sending.timecode_mode.timecode_on)
        return () if [arrival.channel for arrival in heard] == [carries] else (Fault.NOTHING,)
    if not receiving.circuit.is_analogue or sending.circuit is Circuit.GENLOCK:
        return (Fault.VOLTAGE,)
    found = found or link(sending, leads, receiving)
    branched = any(branch for _, branch in leads)
    wrong = _faults(found, len(sending.channels), branched)
    return tuple(fault for fault in Fault if fault in wrong) if wrong else ()


def _faults(found: Link, sent: int, branched: bool) -> set[Fault]:
    wrong = set()
    if found.shorted:
        wrong.add(Fault.SHORTED)
    if found.fighting:
        wrong.add(Fault.FIGHTING)
    if not any(found.heard):
        return wrong | {Fault.NOTHING}
    wrong |= _polarity(found)
    if branched:
        return wrong
    if not all(found.heard):
        wrong.add(Fault.ONE_SIDE)
    reached = {arrival.channel for channel in found.heard for arrival in channel}
    if len(reached) < sent:
        wrong.add(Fault.LOST)
    elif sent == len(found.heard) == 2 and [channel[0].channel if channel else -1 for channel in found.heard] != [0, 1]:
        wrong.add(Fault.SWAPPED)
    return wrong


def _polarity(found: Link) -> set[Fault]:
    wrong = set()
    single = [channel[0].ratio > 0 for channel in found.heard if len(channel) == 1]
    for channel in found.heard:
        if len(channel) == 2:
            opposed = channel[0].ratio * channel[1].ratio < 0
            wrong.add(Fault.DIFFERENCE if opposed else Fault.MIXED)
    if len(set(single)) > 1:
        wrong.add(Fault.OPPOSITE)
    elif single and not single[0]:
        wrong.add(Fault.INVERTED)
    return wrong
