"""Switches that give a microphone what it needs, or take away what harms it."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.adviser.inserted_devices import inserted_devices
from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, Joint
from tidy_trunk.core.advice.options import switched
from tidy_trunk.core.gear.catalogue import CELL_KEY, Supply, mode_key
from tidy_trunk.core.plan import SetControl, message

MOST_BOXES: Final = 2
"""ASSUMED_ boxes to go by that are tried where a socket cannot power a microphone."""


@moves_for("microphone-unpowered")
def power_on(question: Question, finding: Finding) -> Iterator[Move]:
    """What it needs switched on where it is plugged in, with the mode that gives it; or a fresh cell."""
    joint = question.joint(finding.run)
    feeding = joint.sender.device_class.feeding
    if feeding is None:
        return
    for need in feeding.needs:
        for mode in joint.input.modes:
            if need in mode.supplies:
                edits = switched(joint.receiver, joint.input, need, on=True)
                if mode is not joint.takes:
                    edits = (_mode(joint, mode.id), *edits)
                if edits:
                    on = message("supply-on", question.index, supply=need, socket=joint.run.receiving)
                    yield move(on, *edits)
    if feeding.cell:
        cell = SetControl(device=joint.sender.device.id, control=CELL_KEY, value=True)
        yield move(message("fresh-cell", question.index, device=joint.sender.device.id), cell)


@moves_for("microphone-unpowered")
def by_a_box(question: Question, finding: Finding) -> Iterator[Move]:
    """Via a box that gives it, where neither the socket nor a cell can: those of the job, then what can be had."""
    feeding = question.joint(finding.run).sender.device_class.feeding
    if finding.has_inserted_devices and feeding is not None and not feeding.cell:
        for inserted_device in inserted_devices(question.report, finding.run)[:MOST_BOXES]:
            yield Move((inserted_device.does,), inserted_device.edits)


@moves_for("harmful-power", "phantom-shorted")
def power_off(question: Question, finding: Finding) -> Iterator[Move]:
    """The supply switched off; where the mode is the switch, a mode that does not give it."""
    joint = question.joint(finding.run)
    supply = Supply(finding.about) if finding.rule == "harmful-power" else Supply.P48
    edits = switched(joint.receiver, joint.input, supply, on=False)
    if edits:
        yield move(message("supply-off", question.index, supply=supply), *edits)
    for mode in joint.input.modes:
        if mode is not joint.takes and supply not in mode.supplies:
            other = message("switch-mode", question.index, socket=joint.run.receiving, mode=mode.id)
            yield move(other, _mode(joint, mode.id))


def _mode(joint: Joint, mode_id: str) -> SetControl:
    return SetControl(device=joint.receiver.device.id, control=mode_key(joint.input.id), value=mode_id)
