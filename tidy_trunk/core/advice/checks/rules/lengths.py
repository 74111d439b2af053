"""Rules on where leads lie and how long they are."""

from collections.abc import Iterator, Mapping
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, rule
from tidy_trunk.core.base.units import lead_corner_hz
from tidy_trunk.core.plan import (
    FIELDS,
    Hazard,
    Passing,
    needed_m,
    passed,
    passing_words,
    path_m,
)
from tidy_trunk.core.sound.cable_chains import UNBALANCED_LIMIT_M

NEAR_M: Final = 2.0
"""ASSUMED_ distance within which a dimmer, driver, motor or transmitter is felt by an unbalanced lead."""

UNBALANCED_NEAR_M: Final = 0.3
"""Unbalanced length that is good even there: an adapter. [PRACTICE]"""

ALONG_MAINS_M: Final = 3.0
"""ASSUMED_ length beside mains from which a balanced lead too is better laid elsewhere."""

TREBLE_HZ: Final = 20_000.0
"""Upper end of what is heard. [HANDBOOK]"""


@rule
def unbalanced_too_long(situation: Situation) -> Iterator[Finding]:
    """Keep the balanced part long and the unbalanced part short, shorter still beside what radiates. [PRACTICE]"""
    for joint in situation.joints:
        length_m = joint.unbalanced_m
        near = [passing for passing in passed(joint.run) if _is_near(passing)]
        limit_m = UNBALANCED_NEAR_M if near else UNBALANCED_LIMIT_M
        if length_m <= limit_m:
            continue
        beside = f" and passes {' and '.join(map(passing_words, near))}" if near else ""
        yield Finding(
            rule="unbalanced-too-long",
            severity=Severity.CAUTION,
            title=f"{length_m:g} m unbalanced",
            text=(
                f"Cable {joint.run.number} is unbalanced for {length_m:g} m{beside}. Beside dimmers, LED supplies or transmitters, "
                "1 m has buzzed: balanced lead to the receiving end, adapter of about 0.3 m there."
                + (" Or keep it well away from there." if near else "")
            ),
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            verify="Listen at the receiving end with the final power in place, and keep clear of mains.",
        )


@rule
def lead_too_short(situation: Situation) -> Iterator[Finding]:
    """Leads that do not reach along their path with slack for floor, corners and both ends. [PRACTICE]"""
    for joint in situation.joints:
        needed = needed_m(joint.run, situation.plan.defaults)
        missing = needed - joint.run.length_m
        if not needed or missing <= 0.05 or joint.is_wireless:
            continue
        reaches = joint.run.length_m >= path_m(joint.run)
        yield Finding(
            rule="lead-too-short",
            severity=Severity.CAUTION if reaches else Severity.STOP,
            title=f"{missing:.1f} m too short",
            text=(
                f"Cable {joint.run.number} measures {joint.run.length_m:g} m; its path of {path_m(joint.run):g} m needs {needed:.1f} m "
                "with slack for corners and both ends. A tight cable pulls at the socket and trips people."
            ),
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
            how_far = f"for {metres:g} m" if metres else "for a length that nobody has said"
            yield _mains(
                joint,
                Severity.CAUTION,
                "Beside mains",
                f"Cable {joint.run.number} lies beside mains {how_far}. Keep it half a metre away, and cross at right angles.",
            )
        elif crosses:
            yield _mains(
                joint,
                Severity.NOTE,
                "Across mains",
                f"Cable {joint.run.number} crosses mains: at a right angle, and not coiled there.",
            )


def _mains(joint: Joint, severity: Severity, title: str, text: str) -> Finding:
    return Finding(
        rule="beside-mains",
        severity=severity,
        title=title,
        text=f"{text} Mains itself is for a qualified electrician.",
        source="PRACTICE",
        device=joint.receiver.device.id,
        run=joint.run.id,
        verify="Listen for hum with lamps and dimmers as in the take.",
    )


_LAID: Final[Mapping[Hazard, str]] = {
    Hazard.WALKWAY: "crosses a walkway: ramp it or tape it down along its whole length, and mark it",
    Hazard.DOORWAY: "goes through a doorway: above the frame, or flat under a ramp, and never in the way of a fire door",
    Hazard.OVERHEAD: "hangs overhead: tie it to something that bears it, with a second tie, out of reach",
    Hazard.WET: "lies in the wet: joins off the ground and covered, and no mains near it",
    Hazard.HOT: "passes something hot: keep it off, or cover it with what does not burn",
}


@rule
def laid_safely(situation: Situation) -> Iterator[Finding]:
    """Cables where people walk, overhead, in the wet or beside hot things. [PRACTICE]"""
    for joint in situation.joints:
        said = [_LAID[what] for what in dict.fromkeys(item.what for item in passed(joint.run)) if what in _LAID]
        if not said:
            continue
        yield Finding(
            rule="laid-safely",
            severity=Severity.NOTE,
            title="Lay it so that nobody is hurt",
            text=f"Cable {joint.run.number} {'; it '.join(said)}. Rules of the place and the people in charge of safety decide.",
            source="PRACTICE",
            device=joint.receiver.device.id,
            run=joint.run.id,
            verify="Walk along it once as a stranger in the dark would.",
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
            title="Treble lost in the cable",
            text=(
                f"Cable {joint.run.number}: {joint.run.length_m:g} m behind {joint.sends.source_ohm.value:g} Ω take 3 dB off at "
                f"{corner_hz / 1000:.1f} kHz. Put the preamp, or a source of low impedance, near the microphone."
            ),
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _is_near(passing: Passing) -> bool:
    if passing.what is Hazard.BESIDE_MAINS:
        return True
    return passing.what in FIELDS and (passing.metres is None or passing.metres <= NEAR_M)
