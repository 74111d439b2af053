"""Rules on where leads lie and how long they are."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, rule
from tidy_trunk.core.base.units import lead_corner_hz
from tidy_trunk.core.gear.catalogue import Signal
from tidy_trunk.core.plan import (
    FIELDS,
    Hazard,
    Passing,
    needed_m,
    passed,
    path_m,
)
from tidy_trunk.core.sound.cable_chains import UNBALANCED_LIMIT_M

NEAR_M: Final = 2.0
"""ASSUMED_ distance within which a dimmer, driver, motor or transmitter is felt by an unbalanced lead."""

UNBALANCED_NEAR_M: Final = 0.3
"""Unbalanced length that is good even there: an adapter. [PRACTICE]"""

UNBALANCED_LINE_M: Final = 3.0
"""Unbalanced length without trouble where both ends are at line level. [HANDBOOK] §4"""

ALONG_MAINS_M: Final = 3.0
"""ASSUMED_ length beside mains from which a balanced lead too is better laid elsewhere."""

TREBLE_HZ: Final = 20_000.0
"""Upper end of what is heard. [HANDBOOK] §15.3"""


@rule
def unbalanced_too_long(situation: Situation) -> Iterator[Finding]:
    """Keep the balanced part long and the unbalanced part short, at line level less so, beside what radiates more. [PRACTICE]"""
    for joint in situation.joints:
        length_m = joint.unbalanced_m
        near = [passing for passing in passed(joint.run) if _is_near(passing)]
        at_line = joint.sends.signal is Signal.LINE and joint.takes.signal is Signal.LINE
        far_m = UNBALANCED_LINE_M if at_line else UNBALANCED_LIMIT_M
        limit_m = UNBALANCED_NEAR_M if near else far_m
        if length_m <= limit_m:
            continue
        yield Finding(
            rule="unbalanced-too-long",
            severity=Severity.CAUTION,
            facts={"length_m": length_m, "near": tuple(near)},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


SHORT_WITHIN_M: Final = 0.05
"""ASSUMED_ what nobody measures when a path is paced."""


@rule
def lead_too_short(situation: Situation) -> Iterator[Finding]:
    """Leads that do not reach along their path with slack for floor, corners and both ends. [PRACTICE]"""
    for joint in situation.joints:
        needed = needed_m(joint.run, situation.plan.defaults)
        missing = needed - joint.run.length_m
        if not needed or missing <= SHORT_WITHIN_M or joint.is_wireless:
            continue
        reaches = joint.run.length_m >= path_m(joint.run)
        yield Finding(
            rule="lead-too-short",
            severity=Severity.CAUTION if reaches else Severity.STOP,
            facts={"path_m": path_m(joint.run), "needed_m": needed},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def beside_mains(situation: Situation) -> Iterator[Finding]:
    """Audio leads cross mains at right angles, and do not lie beside it. [PRACTICE]"""
    for joint in situation.joints:
        along = [item for item in passed(joint.run) if item.what is Hazard.BESIDE_MAINS]
        metres = sum(item.metres or 0.0 for item in along)
        crosses = any(item.what is Hazard.ACROSS_MAINS for item in passed(joint.run))
        if along and (metres > ALONG_MAINS_M or any(item.metres is None for item in along)):
            yield _mains(joint, Severity.CAUTION, metres)
        elif crosses:
            yield _mains(joint, Severity.NOTE, metres)


def _mains(joint: Joint, severity: Severity, metres: float) -> Finding:
    return Finding(
        rule="beside-mains",
        severity=severity,
        facts={"metres": metres},
        source="PRACTICE",
        device=joint.receiver.device.id,
        run=joint.run.id,
    )


_LAID_WITH_CARE: Final = (Hazard.WALKWAY, Hazard.DOORWAY, Hazard.OVERHEAD, Hazard.WET, Hazard.HOT)
"""Where a cable can hurt somebody, or be hurt. [PRACTICE]"""


@rule
def laid_safely(situation: Situation) -> Iterator[Finding]:
    """Cables where people walk, overhead, in the wet or beside hot things. [PRACTICE]"""
    for joint in situation.joints:
        hazards = [what for what in dict.fromkeys(item.what for item in passed(joint.run)) if what in _LAID_WITH_CARE]
        if not hazards:
            continue
        yield Finding(
            rule="laid-safely",
            severity=Severity.NOTE,
            facts={"hazards": tuple(hazards)},
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def treble_lost(situation: Situation) -> Iterator[Finding]:
    """Capacitance of a long lead behind a high source impedance: low-pass at 1/(2π·R·C). [HANDBOOK] §4"""
    for joint in situation.joints:
        if not joint.output.circuit.is_analogue or joint.run.length_m == 0:
            continue
        corner_hz = lead_corner_hz(joint.sends.source_ohm.value, joint.run.length_m)
        if corner_hz >= TREBLE_HZ:
            continue
        yield Finding(
            rule="treble-lost",
            severity=Severity.CAUTION if corner_hz < TREBLE_HZ / 2 else Severity.NOTE,
            facts={"corner_hz": corner_hz},
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _is_near(passing: Passing) -> bool:
    if passing.what is Hazard.BESIDE_MAINS:
        return True
    return passing.what in FIELDS and (passing.metres is None or passing.metres <= NEAR_M)
