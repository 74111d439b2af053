"""What opens a hum loop."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, Joint
from tidy_trunk.core.gear.catalogue import POWER_KEY, Power, built_in, mates
from tidy_trunk.core.plan import Part, SetControl, SetParts, message
from tidy_trunk.core.sound.cable_chains import SHORT_M
from tidy_trunk.core.sound.hum import COMPUTER, EARTH

_FREE = (Power.BATTERY, Power.CHARGER, Power.ADAPTER)
"""What ties a device to nothing, or to hardly anything, the best first. [HANDBOOK] §9"""

MOST_PLACES: Final = 2
"""ASSUMED_ places in a chain at which transformers are proposed: one anywhere opens all its circles."""

_ISOLATORS = [lead for lead in built_in().leads.values() if lead.isolates]


@moves_for("hum-loop")
def other_power(question: Question, finding: Finding) -> Iterator[Move]:
    """Each device on the circle whose power ties it: on its battery, a charger that is no computer, or an adapter."""
    loop = next(loop for loop in question.loops if loop.run == finding.run)
    for first, second in ((tie.first, tie.second) for tie in loop.ties if not tie.run):
        if second not in (EARTH, COMPUTER) or first == COMPUTER:
            continue
        placed = question.index.placed(first)
        powers = placed.device_class.traits.powers
        free = next((power for power in _FREE if power in powers), None)
        if free is not None:
            edit = SetControl(device=first, control=POWER_KEY, value=free)
            yield move(message("power-from", question.index, device=first, power=free), edit)


@moves_for("hum-loop")
def isolators(question: Question, finding: Finding) -> Iterator[Move]:
    """Transformers in all the runs between two devices, where they are fewest."""
    between: dict[frozenset[str], list[Joint]] = {}
    for run_id in (finding.run, *finding.more_runs):
        joint: Joint = question.joint(run_id)
        between.setdefault(frozenset((joint.sender.device.id, joint.receiver.device.id)), []).append(joint)
    for joints in sorted(between.values(), key=len)[:MOST_PLACES]:
        edits = [edit for joint in joints if (edit := _isolated(joint)) is not None]
        if len(edits) == len(joints):
            runs = tuple(joint.run.id for joint in joints)
            yield move(message("isolating-transformers", question.index, runs=runs), *edits)


def _isolated(joint: Joint) -> SetParts | None:
    """A run with a transformer at the receiving end, or at the sending one; None where no plug takes one."""
    parts = joint.run.parts
    ends = (joint.output.plug, *(lead.receiving for lead, _ in joint.leads))
    starts = (*(lead.sending for lead, _ in joint.leads), joint.input.plug)
    for lead in _ISOLATORS:
        for at in range(len(parts), -1, -1):
            if mates(ends[at], lead.sending) and mates(lead.receiving, starts[at]):
                part = Part(lead=lead.id, length_m=lead.short_m or SHORT_M)
                return SetParts(run=joint.run.id, parts=(*parts[:at], part, *parts[at:]))
    return None
