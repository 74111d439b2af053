"""Rules on hum loops."""

from collections.abc import Iterator

from tidy_trunk.core.catalogue import LEADS, POWER_KEY, Power, mates
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.hum import COMPUTER, EARTH, Loop, loops, ties
from tidy_trunk.core.plan import Part, SetControl, SetParts


@rule
def hum_loop(situation: Situation) -> Iterator[Finding]:
    """A circle through mains or a computer and the screen of an unbalanced lead. [HANDBOOK] §9"""
    by_run = {joint.run.id: joint for joint in situation.joints}
    for loop in loops(ties(situation.rig)):
        joint = by_run[loop.run]
        yield Finding(
            rule="hum-loop",
            severity=Severity.CAUTION,
            title="Hum loop",
            text=(
                f"Run {joint.run.number} is unbalanced and closes a circle: {_circle(situation, loop)}. Its return carries the loop's "
                "current: hum or clicks, perhaps in one file only. "
                "One device on battery, a charger that is no computer, or an isolating transformer breaks it. "
                "Never lift a protective earth."
            ),
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=(*_other_power(situation, loop), *_isolator(joint)),
            verify="Listen at the receiving device with the final power in place.",
        )


_ISOLATORS = [lead for lead in LEADS.values() if lead.isolates]


def _circle(situation: Situation, loop: Loop) -> str:
    names = {EARTH: "mains", COMPUTER: "the computer"}
    labels = [names.get(node) or situation.rig.unit(node).label for node in loop.nodes]
    return " → ".join([*labels, labels[0]])


def _other_power(situation: Situation, loop: Loop) -> Iterator[Fix]:
    """Each device on the circle whose power ties it: on its battery, else on a charger that is no computer."""
    for first, second in ((tie.first, tie.second) for tie in loop.ties if not tie.run):
        if second not in (EARTH, COMPUTER) or first == COMPUTER:
            continue
        unit = situation.rig.unit(first)
        powers = unit.device_class.traits.powers
        free = next((power for power in (Power.BATTERY, Power.CHARGER) if power in powers), None)
        if free is not None:
            edit = SetControl(device=first, control=POWER_KEY, value=free)
            yield Fix(f"Run {unit.label} from {'its battery' if free is Power.BATTERY else 'a USB charger'}", (edit,))


def _isolator(joint: Joint) -> Iterator[Fix]:
    """A transformer at the receiving end, or at the sending one."""
    parts = joint.run.parts
    ends = (joint.output.plug, *(lead.receiving for lead, _ in joint.leads))
    starts = (*(lead.sending for lead, _ in joint.leads), joint.input.plug)
    for lead in _ISOLATORS:
        for at in range(len(parts), -1, -1):
            if mates(ends[at], lead.sending) and mates(lead.receiving, starts[at]):
                part = Part(lead=lead.id, length_m=lead.short_m or 0.2)
                yield Fix(
                    "Put an isolating transformer in",
                    (SetParts(run=joint.run.id, parts=(*parts[:at], part, *parts[at:])),),
                )
                return
