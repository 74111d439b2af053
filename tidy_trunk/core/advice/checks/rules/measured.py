"""Rules on what was measured of a device."""

from collections.abc import Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, level_rule
from tidy_trunk.core.gear.catalogue import gain_key
from tidy_trunk.core.plan import law_key


@level_rule
def noisy_gain(situation: Situation) -> Iterator[Finding]:
    """A gain where a step up was measured to bring more noise than level. [HANDBOOK] §6: the best preamp takes the gain"""
    for joint in situation.joints:
        placed, gain = joint.receiver, joint.takes.gain
        if gain is None or placed.leader_of(joint.input) is not joint.input:
            continue
        control = gain_key(joint.input.id, joint.takes.id)
        law = situation.plan.gain_laws.get(law_key(placed.device.class_id, control))
        stands_db = placed.gain_mark_db(joint.input, joint.takes)
        if law is None or law.noisy_from_db is None or stands_db <= law.noisy_from_db:
            continue
        yield Finding(
            rule="noisy-gain",
            severity=Severity.CAUTION,
            source="HANDBOOK",
            device=placed.device.id,
            run=joint.run.id,
            measured_db=stands_db - law.noisy_from_db,
        )
