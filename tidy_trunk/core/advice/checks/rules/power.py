"""Rules on powering microphones."""

from collections.abc import Iterator

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, rule
from tidy_trunk.core.base.units import PHANTOM_FEED_OHM, PHANTOM_TOLERANCE_V, PHANTOM_V
from tidy_trunk.core.gear.catalogue import Supply
from tidy_trunk.core.gear.wiring import Delivery
from tidy_trunk.core.sound.trace import is_powered

_ROUTINE = "Mute, connect, switch on, wait, open."


@rule
def microphone_unpowered(situation: Situation) -> Iterator[Finding]:
    """A microphone that needs 48 V or plug-in power and gets none, or has only one of two switches on. [IEC61938]"""
    for device, joints in _plugged_in(situation).items():
        feeding = situation.rig.unit(device).device_class.feeding
        if feeding is None or is_powered(situation.rig, device):
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
            why = _harm(joint, given)
            if not why:
                continue
            yield Finding(
                rule="harmful-power",
                severity=Severity.STOP if feeding is not None else Severity.CAUTION,
                title=f"{supply} where it harms",
                text=f"{supply} is on at {joint.socket} and reaches {joint.sender.label}, {why}. Switch it off before plugging in, or "
                "use another input.",
                source="IEC61938",
                device=joint.receiver.device.id,
                run=joint.run.id,
                about=supply,
            )


def _harm(joint: Joint, given: Delivery) -> str:
    """Why a supply that arrives is bad for what it reaches; empty where it is not."""
    feeding = joint.sender.device_class.feeding
    if feeding is None:
        return "" if given.supply is Supply.PLUG_IN else "an output that is not made for it"
    if given.supply in feeding.harmed_by:
        return "which it can harm"
    passive = not feeding.needs and not feeding.cell
    if abs(given.across_v) >= 1 and passive and feeding.harmed_by:
        return f"whose ribbon then lies across {abs(given.across_v):.0f} V"
    if given.supply is not Supply.PLUG_IN and passive and abs(given.across_v) >= 1:
        why = ", because a cable ties one leg down" if given.supply is Supply.P48 else ""
        return f"whose coil then lies across {abs(given.across_v):.0f} V{why}"
    return ""


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
            title="48 V meets a short",
            text=(
                f"A piece of cable {joint.run.number} ties a leg of {joint.socket} to the screen: {given.short_ma:.0f} mA flow for nothing, "
                "and nothing at the other end is powered. Switch 48 V off there, or use a cable with both legs."
            ),
            source="IEC61938",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


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
        least = PHANTOM_V - PHANTOM_TOLERANCE_V - feeding.current_ma.value * PHANTOM_FEED_OHM / 2000
        if given.left_v >= least - 0.05:
            continue
        yield Finding(
            rule="phantom-voltage",
            severity=Severity.CAUTION,
            title=f"Too little voltage at {joint.sender.label}",
            text=(
                f"{joint.socket} gives {given.nominal_v:g} V; at {feeding.current_ma.value:g} mA {given.left_v:.1f} V are left at "
                f"{joint.sender.label}, and the standard promises {least:.1f} V. It distorts early or falls silent: use another input."
            ),
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
        unit = situation.rig.unit(device)
        budget = unit.device_class.traits.phantom_budget_ma
        if budget is not None and current_ma > budget.value:
            yield Finding(
                rule="phantom-budget",
                severity=Severity.CAUTION,
                title=f"{unit.label} has not current for all",
                text=(
                    f"The microphones at {unit.label} draw {current_ma:g} mA at 48 V, and it gives {budget.value:g} mA for all: the voltage "
                    "sags, and with it their loudest sound. Take one off, or one with its own cell."
                ),
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
            title=f"Fresh cell for {joint.sender.label}",
            text=(
                f"{joint.sender.label} runs on a cell and has no gauge: it fades or stops in mid-take. A fresh one each day, the day "
                "written on it, a spare in the pocket; used cells go to where cells are collected."
            ),
            source="PRACTICE",
            device=joint.sender.device.id,
            run=joint.run.id,
        )


def _unpowered(joint: Joint, need: Supply, tracks: tuple[str, ...]) -> Finding:
    can = [mode for mode in joint.input.modes if need in mode.supplies]
    now_on = joint.receiver.phantom_on(joint.input) if need is Supply.P48 else ()
    if now_on and set(now_on) != set(joint.input.phantom_places):
        off = [place for place in joint.input.phantom_places if place not in now_on]
        why = f"48 V is on in the {' and '.join(now_on)} but off in the {' and '.join(off)}: both must be on"
    elif joint.can_power(need):
        why = f"it is off at {joint.socket}"
    elif can:
        why = "a cable on the way does not pass it"
    else:
        feeding = joint.sender.device_class.feeding
        cell = "put a fresh cell in" if feeding is not None and feeding.cell else "take a microphone with a cell"
        why = f"{joint.socket} cannot give it: {cell}, or go via a preamp box or recorder"
    return Finding(
        rule="microphone-unpowered",
        severity=Severity.STOP,
        title=f"{joint.sender.label} has no power",
        text=f"{joint.sender.label} needs {need}, and {why}. {_ROUTINE}",
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
        title=f"{joint.sender.label} has no cell",
        text=f"{joint.sender.label} works from its own cell, and none is in. It has no gauge: a fresh one each day, and log it.",
        source="PRACTICE",
        device=joint.sender.device.id,
        run=joint.run.id,
        tracks=tracks,
    )
