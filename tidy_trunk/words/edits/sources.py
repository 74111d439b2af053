"""Edits on sources."""

from tidy_trunk.core.plan import AddSource, Hear, Plan, RemoveSource, SetSource, Weighting
from tidy_trunk.words.edits.said import sentence

_UNITS = {Weighting.A: "dB(A)", Weighting.Z: "dB SPL"}


@sentence.register
def add_source(edit: AddSource, plan: Plan) -> str:
    at = "".join(f", {distance:g} m from {plan.devices[mic].label}" for mic, distance in edit.heard_by.items())
    unit = _UNITS[edit.weighting]
    return f"Add {edit.label.strip()}, {edit.average_db_spl:g} {unit} at 1 m{at}"


@sentence.register
def set_source(edit: SetSource, plan: Plan) -> str:
    values = {
        "quiet": edit.quiet_db_spl,
        "average": edit.average_db_spl,
        "peak": edit.peak_db_spl,
        "burst": edit.burst_db_spl,
    }
    parts = [f"name {edit.label.strip()}"] if edit.label is not None else []
    source = plan.sources[edit.source]
    unit = _UNITS[edit.weighting or source.weighting]
    parts += [f"stated in {unit}"] if edit.weighting is not None else []
    parts += [f"{name} {value:g} {unit}" for name, value in values.items() if value is not None]
    parts += [f"within {edit.tolerance_db:g} dB"] if edit.tolerance_db is not None else []
    if edit.irreplaceable is not None:
        parts.append("cannot be repeated" if edit.irreplaceable else "can be repeated")
    return f"{source.label}: {', '.join(parts) or 'nothing changed'}"


@sentence.register
def hear(edit: Hear, plan: Plan) -> str:
    source, device = plan.sources[edit.source], plan.devices[edit.device]
    if edit.distance_m is None:
        return f"{device.label} no longer at {source.label}"
    angle = "" if edit.off_axis_deg is None else f", {edit.off_axis_deg:g}° off axis"
    return f"{device.label} at {edit.distance_m:g} m from {source.label}{angle}"


@sentence.register
def remove_source(edit: RemoveSource, plan: Plan) -> str:
    return f"Remove {plan.sources[edit.source].label}"
