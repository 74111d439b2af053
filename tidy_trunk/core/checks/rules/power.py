"""Rules on powering microphones."""

from collections.abc import Iterator

from tidy_trunk.core.catalogue import CELL_KEY, Supply, mode_key, switch_key
from tidy_trunk.core.checks.rule import Finding, Fix, Joint, Severity, Situation, rule
from tidy_trunk.core.plan import Edit, SetControl

_ROUTINE = "Mute, connect, switch on, wait, open."


@rule
def microphone_unpowered(situation: Situation) -> Iterator[Finding]:
    """A microphone that needs 48 V or plug-in power and gets none, or has only one of two switches on. [IEC61938]"""
    for joint in situation.joints:
        capsule = joint.sender.device_class.capsule
        if capsule is None or (capsule.cell and joint.sender.has_cell_in):
            continue
        given = joint.receiver.supplies(joint.input)
        if not capsule.needs:
            if capsule.cell:
                yield _needs_cell(joint)
            continue
        if any(need in given for need in capsule.needs) and _power_passes(joint):
            continue
        yield _unpowered(joint, capsule.needs[0])


@rule
def harmful_power(situation: Situation) -> Iterator[Finding]:
    """Power on the contacts where it harms: ribbons, T-power, or anything that is no microphone. [IEC61938], [PRACTICE]"""
    for joint in situation.joints:
        given = joint.receiver.supplies(joint.input)
        capsule = joint.sender.device_class.capsule
        harmed = capsule.harmed_by if capsule is not None else (Supply.P48, Supply.T_POWER)
        harming = [supply for supply in given if supply in harmed]
        if not harming or not joint.output.circuit.is_analogue:
            continue
        what = f"{harming[0]} is on at {joint.socket} and reaches {joint.sender.label}"
        why = "which it can harm" if capsule is not None else "an output that is not made for it"
        yield Finding(
            rule="harmful-power",
            severity=Severity.STOP if capsule is not None else Severity.CAUTION,
            title=f"{harming[0]} where it harms",
            text=f"{what}, {why}. Switch it off before plugging in.",
            source="IEC61938",
            device=joint.receiver.device.id,
            run=joint.run.id,
            fixes=(Fix(f"Switch {harming[0]} off", _switches(joint, harming[0], on=False)),),
        )


def _power_passes(joint: Joint) -> bool:
    """Pads with a shunt, radio and anything unbalanced do not pass 48 V; plug-in power passes along plain jacks."""
    needs = joint.sender.device_class.capsule.needs if joint.sender.device_class.capsule else ()
    plain = all(lead.loss_db is None for lead, _ in joint.leads)
    return plain and (Supply.P48 not in needs or all(lead.balanced for lead, _ in joint.leads))


def _switches(joint: Joint, supply: Supply, *, on: bool) -> tuple[Edit, ...]:
    port = joint.input
    what, places = ("plug_in", port.plug_in_places) if supply is Supply.PLUG_IN else ("phantom", port.phantom_places)
    device = joint.receiver.device.id
    return tuple(SetControl(device=device, control=switch_key(port.id, what, place), value=on) for place in places)


def _unpowered(joint: Joint, need: Supply) -> Finding:
    capsule = joint.sender.device_class.capsule
    can = [mode for mode in joint.input.modes if need in mode.supplies]
    now_on = joint.receiver.phantom_on(joint.input) if need is Supply.P48 else ()
    fixes = []
    if can and _power_passes(joint):
        edits = _switches(joint, need, on=True)
        if need not in joint.takes.supplies:
            edits = (
                SetControl(device=joint.receiver.device.id, control=mode_key(joint.input.id), value=can[0].id),
                *edits,
            )
        fixes.append(Fix(f"Switch {need} on at {joint.socket}", edits))
    if capsule is not None and capsule.cell:
        cell = SetControl(device=joint.sender.device.id, control=CELL_KEY, value=True)
        fixes.append(Fix(f"Put a fresh cell into {joint.sender.label}", (cell,)))
    if now_on and set(now_on) != set(joint.input.phantom_places):
        off = [place for place in joint.input.phantom_places if place not in now_on]
        why = f"48 V is on in the {' and '.join(now_on)} but off in the {' and '.join(off)}: both must be on"
    elif can and _power_passes(joint):
        why = f"it is off at {joint.socket}"
    elif can:
        why = "a lead on the way does not pass it"
    else:
        why = f"{joint.socket} cannot give it: go by way of a preamp box or recorder, or take a microphone with a cell"
    return Finding(
        rule="microphone-unpowered",
        severity=Severity.STOP,
        title=f"{joint.sender.label} has no power",
        text=f"{joint.sender.label} needs {need}, and {why}. {_ROUTINE}",
        source="IEC61938" if need is Supply.P48 else "PRACTICE",
        device=joint.receiver.device.id,
        run=joint.run.id,
        fixes=tuple(fixes),
    )


def _needs_cell(joint: Joint) -> Finding:
    cell = SetControl(device=joint.sender.device.id, control=CELL_KEY, value=True)
    return Finding(
        rule="microphone-unpowered",
        severity=Severity.STOP,
        title=f"{joint.sender.label} has no cell",
        text=f"{joint.sender.label} works from its own cell, and none is in. It has no gauge: a fresh one each day, and log it.",
        source="PRACTICE",
        device=joint.sender.device.id,
        run=joint.run.id,
        fixes=(Fix(f"Put a fresh cell into {joint.sender.label}", (cell,)),),
    )
