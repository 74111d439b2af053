"""Rules on powering microphones."""

from collections.abc import Iterator
from enum import Enum, auto
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, rule
from tidy_trunk.core.base.units import PHANTOM_FEED_OHM, PHANTOM_TOLERANCE_V, PHANTOM_V
from tidy_trunk.core.gear.catalogue import Supply
from tidy_trunk.core.gear.wiring import DeliveredSupply
from tidy_trunk.core.sound.trace import is_powered


class NoPowerReason(Enum):
    """Why a microphone has no power: one of two switches off, all off, a lead that blocks it, a socket that has none, no cell."""

    ONE_OF_TWO = auto()
    OFF = auto()
    BLOCKED = auto()
    CANNOT = auto()
    NO_CELL = auto()


class Harm(Enum):
    """What a supply does where it is not wanted: to an output, to what it can harm, to a ribbon, to a coil.

    COIL_ONE_LEG: because a lead ties one leg down.
    """

    NO_MICROPHONE = auto()
    NOT_MADE_FOR_IT = auto()
    RIBBON = auto()
    COIL = auto()
    COIL_ONE_LEG = auto()


@rule
def microphone_unpowered(situation: Situation) -> Iterator[Finding]:
    """A microphone that needs 48 V or plug-in power and gets none, or has only one of two switches on. [IEC61938]"""
    for device, joints in _plugged_in(situation).items():
        feeding = situation.index.placed(device).device_class.feeding
        if feeding is None or is_powered(situation.index, device):
            continue
        tracks = tuple(track.trace.id for track in situation.report.tracks if device in track.unpowered)
        if not feeding.needs:
            yield _needs_cell(joints[0], tracks)
            continue
        # One input is enough: of several on one microphone the first that can give what it needs.
        can = [joint for joint in joints if joint.can_power(feeding.needs[0])]
        yield _unpowered((can or joints)[0], feeding.needs[0], tracks)


def _plugged_in(situation: Situation) -> dict[str, list[Joint]]:
    """The runs whose plugs mate, by the device in which they begin."""
    found: dict[str, list[Joint]] = {}
    for joint in situation.joints:
        if joint.mates:
            found.setdefault(joint.sender.device.id, []).append(joint)
    return found


@rule
def harmful_power(situation: Situation) -> Iterator[Finding]:
    """Power on the contacts where it harms: ribbons, T-power, anything that is no microphone. [IEC61938], [PRACTICE]"""
    for joint in situation.joints:
        feeding = joint.sender.device_class.feeding
        for supply in joint.receiver.supplies(joint.input):
            given = joint.delivery(supply)
            if given is None or not given.is_felt:
                continue
            harm = _harm(joint, given)
            if harm is None:
                continue
            yield Finding(
                rule="harmful-power",
                severity=Severity.STOP if feeding is not None else Severity.CAUTION,
                facts={"harm": harm, "across_v": abs(given.across_v)},
                source="IEC61938",
                device=joint.receiver.device.id,
                run=joint.run.id,
                about=supply,
            )


def _harm(joint: Joint, given: DeliveredSupply) -> Harm | None:
    """Why a supply that arrives is bad for what it reaches; None where it is not."""
    feeding = joint.sender.device_class.feeding
    if feeding is None:
        return None if given.supply is Supply.PLUG_IN else Harm.NO_MICROPHONE
    if given.supply in feeding.harmed_by:
        return Harm.NOT_MADE_FOR_IT
    passive = not feeding.needs and not feeding.cell
    if abs(given.across_v) >= 1 and passive and feeding.harmed_by:
        return Harm.RIBBON
    if given.supply is not Supply.PLUG_IN and passive and abs(given.across_v) >= 1:
        return Harm.COIL_ONE_LEG if given.supply is Supply.P48 else Harm.COIL
    return None


@rule
def phantom_shorted(situation: Situation) -> Iterator[Finding]:
    """Phantom power into a lead that ties a leg to the screen. [IEC61938]"""
    for joint in situation.joints:
        if Supply.P48 not in joint.receiver.supplies(joint.input):
            continue
        given = joint.delivery(Supply.P48)
        if given is None or not given.is_shorted:
            continue
        yield Finding(
            rule="phantom-shorted",
            severity=Severity.CAUTION,
            facts={"short_ma": given.short_ma},
            source="IEC61938",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


WITHIN_V: Final = 0.05
"""ASSUMED_ rounding of a voltage that is worked out in two ways."""


@rule
def phantom_voltage(situation: Situation) -> Iterator[Finding]:
    """Less at the microphone than the lowest supply of the standard would leave there. [IEC61938]"""
    for joint in situation.joints:
        feeding = joint.sender.device_class.feeding
        if feeding is None or feeding.current_ma is None or Supply.P48 not in feeding.needs or joint.sender.has_cell_in:
            continue
        given = joint.delivery(Supply.P48) if Supply.P48 in joint.receiver.supplies(joint.input) else None
        if given is None or not given.is_felt or given.is_shorted:
            continue
        least = PHANTOM_V - PHANTOM_TOLERANCE_V - feeding.current_ma.value / 1000 * PHANTOM_FEED_OHM / 2
        if given.left_v >= least - WITHIN_V:
            continue
        yield Finding(
            rule="phantom-voltage",
            severity=Severity.CAUTION,
            facts={
                "nominal_v": given.nominal_v,
                "current_ma": feeding.current_ma.value,
                "left_v": given.left_v,
                "least_v": least,
            },
            source="IEC61938",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


@rule
def phantom_budget(situation: Situation) -> Iterator[Finding]:
    """More phantom current than a device gives in all, or than one input may. [IEC61938]"""
    drawn: dict[str, float] = {}
    for joint in situation.joints:
        feeding = joint.sender.device_class.feeding
        if feeding is None or feeding.current_ma is None or Supply.P48 not in feeding.needs or joint.sender.has_cell_in:
            continue
        if Supply.P48 in joint.receiver.supplies(joint.input):
            device = joint.receiver.device.id
            drawn[device] = drawn.get(device, 0.0) + feeding.current_ma.value
    for device, current_ma in drawn.items():
        placed = situation.index.placed(device)
        budget = placed.device_class.traits.phantom_budget_ma
        if budget is not None and current_ma > budget.value:
            yield Finding(
                rule="phantom-budget",
                severity=Severity.CAUTION,
                facts={"drawn_ma": current_ma, "budget_ma": budget.value},
                source="IEC61938",
                device=device,
            )


@rule
def cell_without_gauge(situation: Situation) -> Iterator[Finding]:
    """A battery microphone tells nobody how full its cell is. [PRACTICE]"""
    for joint in situation.joints:
        feeding = joint.sender.device_class.feeding
        if feeding is None or not feeding.cell or not joint.sender.has_cell_in:
            continue
        fed = Supply.P48 in joint.receiver.supplies(joint.input) and Supply.P48 in feeding.needs
        if fed:
            continue
        yield Finding(
            rule="cell-without-gauge",
            severity=Severity.NOTE,
            source="PRACTICE",
            device=joint.sender.device.id,
            run=joint.run.id,
        )


def _unpowered(joint: Joint, need: Supply, tracks: tuple[str, ...]) -> Finding:
    can = [mode for mode in joint.input.modes if need in mode.supplies]
    now_on = joint.receiver.phantom_on(joint.input) if need is Supply.P48 else ()
    if now_on and set(now_on) != set(joint.input.phantom_places):
        cause = NoPowerReason.ONE_OF_TWO
    elif joint.can_power(need):
        cause = NoPowerReason.OFF
    else:
        cause = NoPowerReason.BLOCKED if can else NoPowerReason.CANNOT
    return Finding(
        rule="microphone-unpowered",
        severity=Severity.STOP,
        facts={"cause": cause, "need": need},
        source="IEC61938" if need is Supply.P48 else "PRACTICE",
        device=joint.receiver.device.id,
        run=joint.run.id,
        tracks=tracks,
        has_inserted_devices=not can,
    )


def _needs_cell(joint: Joint, tracks: tuple[str, ...]) -> Finding:
    return Finding(
        rule="microphone-unpowered",
        severity=Severity.STOP,
        facts={"cause": NoPowerReason.NO_CELL, "need": None},
        source="PRACTICE",
        device=joint.sender.device.id,
        run=joint.run.id,
        tracks=tracks,
    )
