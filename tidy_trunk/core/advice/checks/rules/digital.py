"""Rules on digital links: leads, levels, sample rates."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Severity, Situation, level_rule, looks_at, rule
from tidy_trunk.core.advice.options import ALLOWED_MISS_DB
from tidy_trunk.core.gear.catalogue import AES3_OHM, Circuit
from tidy_trunk.core.plan import Aspect

AES3_PLAIN_M: Final = 10.0
"""ASSUMED_ length over which AES3 still gets through an ordinary microphone lead."""

AES3_LONGEST_M: Final = 100.0
"""Length for which AES3 is meant, in a lead of its impedance. [AES3]"""


@rule
def aes3_lead(situation: Situation) -> Iterator[Finding]:
    """AES3 in a lead of the wrong impedance, or too long. [AES3]"""
    for joint in situation.joints:
        if joint.output.circuit is not Circuit.AES3 or not joint.mates:
            continue
        plain = [
            part
            for part, (lead, _) in zip(joint.run.parts, joint.leads, strict=True)
            if _is_plain(lead.characteristic_ohm, lead.is_adapter)
        ]
        plain_m = sum(part.length_m for part in plain)
        if not plain and joint.run.length_m <= AES3_LONGEST_M:
            continue
        is_too_long = joint.run.length_m > AES3_LONGEST_M
        yield Finding(
            rule="aes3-lead",
            severity=Severity.CAUTION if is_too_long or plain_m > AES3_PLAIN_M else Severity.NOTE,
            facts={"is_too_long": is_too_long, "plain_m": plain_m},
            source="AES3",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _is_plain(characteristic_ohm: float | None, is_adapter: bool) -> bool:
    return characteristic_ohm != AES3_OHM and not is_adapter


@level_rule
def aes3_level(situation: Situation) -> Iterator[Finding]:
    """A level that AES3 has fixed: the receiver's knob does nothing. [AES3]"""
    for joint in situation.joints:
        if joint.output.circuit is not Circuit.AES3:
            continue
        misses = [
            track.miss_db
            for track in situation.tracks_of(joint.run.id)
            if track.miss_db is not None and abs(track.miss_db) > ALLOWED_MISS_DB
        ]
        if misses:
            yield Finding(
                rule="aes3-level",
                severity=Severity.NOTE,
                source="AES3",
                device=joint.receiver.device.id,
                run=joint.run.id,
                measured_db=misses[0],
            )


@looks_at(Aspect.RATES)
def sample_rate(situation: Situation) -> Iterator[Finding]:
    """A sample rate below 48 kHz, or unlike the job's. [PRACTICE]"""
    wanted = situation.plan.defaults.sample_rate_hz
    for placed in situation.index.placed_devices():
        rate = placed.sample_rate_hz
        if rate is None or rate == wanted or not placed.device_class.is_recording:
            continue
        yield Finding(
            rule="sample-rate",
            severity=Severity.CAUTION,
            facts={"rate_hz": rate},
            source="PRACTICE",
            device=placed.device.id,
        )


@looks_at(Aspect.RATES)
def sample_rate_between(situation: Situation) -> Iterator[Finding]:
    """Two ends of a digital link at different sample rates, or one that the receiver cannot take. [AES3], [PRACTICE]"""
    for joint in situation.joints:
        sends, takes = joint.sender.sample_rate_hz, joint.receiver.sample_rate_hz
        if (
            joint.output.circuit not in (Circuit.AES3, Circuit.USB, Circuit.SDI, Circuit.HDMI)
            or sends is None
            or takes is None
        ):
            continue
        if sends == takes:
            continue
        yield Finding(
            rule="sample-rate-between",
            severity=Severity.STOP,
            facts={"sends_hz": sends, "takes_hz": takes},
            source="AES3",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )
