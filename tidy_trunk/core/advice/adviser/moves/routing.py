"""Routing: which input goes to which track, and which knob moves which."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, Joint
from tidy_trunk.core.advice.options import arming
from tidy_trunk.core.gear.catalogue import FOUR_TRACKS_KEY, INSIDE, Bus, armed_key, channel_refs, gain_key, link_key
from tidy_trunk.core.plan import Edit, PlacedDevice, RouteBus, SetControl, message

SAFETY_DB: Final = 10.0
"""How far a safety track lies below the first: 6 to 20 dB. [PRACTICE]"""


@moves_for("input-without-track", "source-without-track")
def to_a_track(question: Question, finding: Finding) -> Iterator[Move]:
    """An input to a track that takes nothing, else to the first; a built-in microphone makes way."""
    for joint in _waiting(question, finding):
        placed = joint.receiver
        recorded = _recorded(placed)
        taken = {ref for bus in recorded for ref in placed.bus_inputs(bus)}
        free = [ref for ref in _reached(joint) if ref not in taken]
        if not free or not recorded:
            continue
        track = next((bus for bus in recorded if not placed.bus_inputs(bus)), recorded[0])
        kept = tuple(ref for ref in placed.bus_inputs(track) if not _is_built_in(question, placed, ref))
        edit = RouteBus(device=placed.device.id, bus=track.id, inputs=(*kept, free[0]))
        yield move(message("route", question.index, socket=joint.run.receiving, bus=track.id), edit)


def _waiting(question: Question, finding: Finding) -> list[Joint]:
    if finding.run:
        return [question.joint(finding.run)]
    source = question.plan.sources[finding.track.partition(".")[2]]
    return [joint for joint in question.joints if joint.sender.device.id in source.heard_by]


@moves_for("track-without-source")
def feed_the_other_side(question: Question, finding: Finding) -> Iterator[Move]:
    """The silent side of a stereo socket given what the other side has, by the box that sends both."""
    for joint in question.joints:
        sender = joint.sender
        if (
            joint.receiver.device.id != finding.device
            or len(joint.output.channels) != 2
            or not sender.device_class.buses
        ):
            continue
        sides = [sender.fed_bus(ref) for ref in channel_refs(joint.output)]
        heard = [bus is not None and _carries(question, sender, bus) for bus in sides]
        if sorted(heard) != [False, True]:
            continue
        full, empty = (sides[heard.index(True)], sides[heard.index(False)])
        if full is None or empty is None:
            continue
        edit = RouteBus(device=sender.device.id, bus=empty.id, inputs=sender.bus_inputs(full))
        yield move(message("both-sides", question.index, device=sender.device.id), edit)


def _carries(question: Question, placed: PlacedDevice, bus: Bus) -> bool:
    return bool(question.report.tracer.bus(placed.device.id, bus.id).sources)


@moves_for("built-in-microphone")
def instead_of_the_built_in(question: Question, finding: Finding) -> Iterator[Move]:
    """The track given to the plug that waits at an input."""
    placed = question.index.placed(finding.device)
    bus = placed.bus(finding.track.partition(".")[2])
    for joint in question.joints:
        refs = channel_refs(joint.input)
        if joint.receiver.device.id != finding.device or not joint.input.circuit.is_analogue:
            continue
        if not any(set(refs) & set(placed.bus_inputs(other)) for other in _recorded(placed)):
            edit = RouteBus(device=finding.device, bus=bus.id, inputs=(refs[0],))
            yield move(message("route", question.index, socket=joint.run.receiving, bus=bus.id), edit)
            return


@moves_for("track-not-armed")
def arm(question: Question, finding: Finding) -> Iterator[Move]:
    """The tracks that take the socket, armed."""
    joint = question.joint(finding.run)
    edits = arming(joint.receiver, joint.input)
    buses = tuple(
        bus.id for bus in joint.receiver.device_class.buses if any(edit.control == armed_key(bus.id) for edit in edits)
    )
    yield move(message("arm", question.index, device=finding.device, buses=buses), *edits)


@moves_for("four-track-mode")
def four_tracks(question: Question, finding: Finding) -> Iterator[Move]:
    """The mode in which those tracks exist."""
    on = SetControl(device=finding.device, control=FOUR_TRACKS_KEY, value=True)
    yield move(message("four-tracks", question.index, device=finding.device), on)


@moves_for("safety-on-one-knob")
def a_knob_of_its_own(question: Question, finding: Finding) -> Iterator[Move]:
    """The two inputs parted, and the one that does not lead set lower."""
    second = question.joint(finding.run)
    placed = second.receiver
    leader = placed.leader_of(second.input)
    first = next(
        joint
        for joint in question.joints
        if joint.run.sending == second.run.sending
        and joint.receiver.device.id == placed.device.id
        and joint.run.id != second.run.id
    )
    edits: list[Edit] = [SetControl(device=placed.device.id, control=link_key(leader.id), value=False)]
    lower = second if second.input.id != leader.id else first
    if lower.takes.gain is not None:
        wanted = lower.takes.gain.nearest_db(placed.gain_db(lower.input, lower.takes) - SAFETY_DB)
        key = gain_key(lower.input.id, lower.takes.id)
        edits.append(SetControl(device=placed.device.id, control=key, value=wanted))
    yield move(message("own-knob", question.index, socket=lower.run.receiving, lower_db=SAFETY_DB), *edits)


def _recorded(placed: PlacedDevice) -> list[Bus]:
    return [bus for bus in placed.device_class.buses if placed.is_recorded(bus)]


def _reached(joint: Joint) -> list[str]:
    """The channels of the input on which something arrives."""
    return [ref for ref, heard in zip(channel_refs(joint.input), joint.link.heard, strict=True) if heard]


def _is_built_in(question: Question, placed: PlacedDevice, ref: str) -> bool:
    return question.index.input_channel(placed, ref)[0].plug.connector == INSIDE
