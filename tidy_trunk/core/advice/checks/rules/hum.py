"""Rules on hum loops."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, looks_at
from tidy_trunk.core.plan import Aspect
from tidy_trunk.core.sound.hum import Grade, Loop

_GRADED: Final = {
    Grade.COMPUTER: Severity.CAUTION,
    Grade.EARTH: Severity.CAUTION,
    Grade.ADAPTERS: Severity.NOTE,
}
"""How bad each is. [HANDBOOK] §9"""


@looks_at(Aspect.POWER)
def hum_loop(situation: Situation) -> Iterator[Finding]:
    """Circles through mains or a computer and the screen of unbalanced leads, by what drives them. [HANDBOOK] §9"""
    causes: dict[tuple[str, ...], list[Loop]] = {}
    for loop in situation.loops:
        causes.setdefault(loop.cause, []).append(loop)
    for together in causes.values():
        loop, *more = together
        joint = situation.joint(loop.run)
        yield Finding(
            rule="hum-loop",
            severity=_GRADED[loop.grade],
            facts={"grade": loop.grade, "nodes": tuple(loop.nodes)},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
            more_runs=tuple(other.run for other in more),
        )
