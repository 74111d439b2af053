"""Rules on hum loops."""

from collections.abc import Iterator

from tidy_trunk.core.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.hum import COMPUTER, EARTH, Loop
from tidy_trunk.core.plan import Aspect


@looks_at(Aspect.POWER)
def hum_loop(situation: Situation) -> Iterator[Finding]:
    """A circle through mains or a computer and the screen of an unbalanced lead. [HANDBOOK] §9"""
    for loop in situation.loops:
        joint = situation.joint(loop.run)
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
            verify="Listen at the receiving device with the final power in place.",
        )


def _circle(situation: Situation, loop: Loop) -> str:
    names = {EARTH: "mains", COMPUTER: "the computer"}
    labels = [names.get(node) or situation.rig.unit(node).label for node in loop.nodes]
    return " → ".join([*labels, labels[0]])
