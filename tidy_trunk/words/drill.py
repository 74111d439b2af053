"""A drill in words: what can be done, what it shows, and what was wrong."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.drill import Drill, EarTask, FaultyRig, HiddenFault, Impression, Probe
from tidy_trunk.core.gear.catalogue import Control, find_control
from tidy_trunk.core.plan import PlacedDevice, PlanIndex
from tidy_trunk.words.numbers import signed
from tidy_trunk.words.rows import parts_words

_PROBES: Final[Mapping[str, str]] = {
    "settings": "Look at {place}: switches, menu, knobs",
    "plugs": "Look at both plugs of {cable}, and wiggle them",
    "meters": "Look at the meters of {device} while somebody speaks",
    "listen": "Listen at {device}, headphones set low first",
    "play-back": "Record half a minute on {device} and play it back",
    "swap": "Swap {cable} for a right one that is whole",
    "battery": "Run {device} from its battery",
}
"""What can be done on a set. [HANDBOOK] §9"""

KINDS: Final[Mapping[str, str]] = {
    "automatic": "automatic level",
    "phantom": "48 V off",
    "mode": "wrong input mode",
    "gain": "knob moved",
    "pad": "attenuator on",
    "armed": "track not armed",
    "frequency": "wrong frequency",
    "cell": "flat cell",
    "mains": "mains hum",
    "pad-missing": "attenuator left out",
    "wrong-cable": "wrong cable",
    "wrong-input": "wrong input",
    "break": "broken cable",
    "loose": "loose plug",
}
"""Kinds of fault by what they are called. [PRACTICE]"""

_SHORT: Final[Mapping[str, str]] = {
    "plugs": "plugs",
    "meters": "meters",
    "listen": "listen",
    "play-back": "play it back",
    "swap": "swap",
    "battery": "battery",
}

_FAULTS: Final[Mapping[str, str]] = {
    "automatic": "{control} is on at {place}",
    "phantom": "{control} is off at {place}",
    "mode": "{place} is set to {value} instead of {planned}",
    "gain": "{control} at {place} stands at {value} instead of {planned}",
    "pad": "{control} is on at {place}",
    "armed": "{place} is not armed",
    "frequency": "{place} is on another frequency: {value} instead of {planned}",
    "cell": "The cell in {device} is flat",
    "mains": "{device} hums through its mains supply",
    "pad-missing": "The attenuator of {cable} is left out",
    "wrong-cable": "{cable} is another cable: {parts}",
    "wrong-input": "{cable} is in the wrong input",
    "break": "{cable} is broken",
    "loose": "A plug of {cable} is loose",
}
"""What can be wrong. [HANDBOOK] §§4 to 9"""

NOTHING_WRONG: Final = "Nothing is wrong"
"""The answer where no fault is hidden. ASSUMED_"""

EAR_TASKS: Final[Mapping[EarTask, tuple[str, str]]] = {
    EarTask.HUM: ("Hum", "Which has more hum?"),
    EarTask.HISS: ("Hiss", "Which has more hiss?"),
    EarTask.CLIPPING: ("Clipping", "Which clips?"),
    EarTask.BLEED: ("Bleed", "In which is the other voice louder?"),
    EarTask.POLARITY: ("Polarity", "In which is the polarity of one microphone reversed?"),
    EarTask.LEVEL: ("Level", "Which is louder?"),
}
"""What can be listened for, and what is asked. [PRACTICE]"""

SETTINGS_SHEET: Final = "Every knob as the settings sheet has it."
"""What prevents a fault that no line of the checklist is about. [HANDBOOK] §1"""

_HEARD: Final[Mapping[Impression, str]] = {
    Impression.SILENT: "silent",
    Impression.QUIET: "much quieter than planned",
    Impression.AS_PLANNED: "as planned",
    Impression.LOUD: "much louder than planned",
    Impression.DISTORTED: "distorted",
    Impression.HISS: "hiss above the room",
    Impression.HUM: "hum",
    Impression.DROPOUTS: "dropouts and crackle",
    Impression.UNSTEADY: "the level rides up and down",
}


def probe_words(probe: Probe, index: PlanIndex) -> str:
    return _PROBES[probe.code].format(
        device=_device(index, probe.device),
        place=_place(index, probe.device, probe.port),
        cable=_cable(index, probe.run),
    )


def short_probe_words(probe: Probe, index: PlanIndex) -> str:
    """Beside the name of the device or cable; part of the whole words."""
    if probe.code == "settings":
        return index.unit(probe.device).where_label(probe.port) if probe.port else "switches"
    return _SHORT[probe.code]


def fault_words(fault: HiddenFault, index: PlanIndex) -> str:
    """What is wrong, where. index: of the rig as planned."""
    names = {"device": _device(index, fault.device), "cable": _cable(index, fault.run)}
    if fault.control:
        unit = index.unit(fault.device)
        control = find_control(unit.device_class, fault.control)
        edit = fault.edits[0]
        names |= {
            "control": control.label,
            "place": _place(index, fault.device, control.port),
            "value": control.words(edit.value),  # type: ignore[attr-defined]
            "planned": control.words(unit.device.settings.get(control.id, control.default)),
        }
    if fault.code == "wrong-cable":
        names["parts"] = parts_words(index, fault.edits[0].parts)  # type: ignore[attr-defined]
    told = _FAULTS[fault.code].format(**names)
    return f"{told[:1].upper()}{told[1:]}"


def answer_words(drill: Drill, truth: str) -> str:
    """A possible answer, by its id."""
    fault = next((fault for fault in drill.found.faults if fault.id == truth), None)
    return NOTHING_WRONG if fault is None else fault_words(fault, drill.rig.index)


def shown_words(faulty: FaultyRig, probe: Probe) -> list[str]:
    """What a probe shows, line by line. What was not looked at is not told."""
    index, planned = faulty.index, faulty.rig.index
    match probe.code:
        case "settings":
            return [
                _control_line(index.unit(probe.device), planned.unit(probe.device), control)
                for control in faulty.rig.controls(probe.device, probe.port)
                if index.unit(probe.device).acts(control)
            ]
        case "plugs":
            run = faulty.plugged(probe.run)
            shown = planned.plan.runs[probe.run] if faulty.looks_planned(probe.run) else run
            loose = faulty.is_loose(probe.run)
            return [
                f"{index.port_label(run.sending)} to {index.port_label(run.receiving)}",
                parts_words(planned, shown.parts) or "plugged in directly",
                "A plug moves." if loose else "Both plugs sit firmly.",
            ]
        case "meters":
            return [_meter_line(faulty, track.trace.id) for track in faulty.tracks(probe.device)]
        case "listen" | "play-back":
            return [
                f"{_track(index, track.trace.id)}: {', '.join(_HEARD[one] for one in sorted(faulty.heard(track)))}"
                for track in faulty.tracks(probe.device)
            ]
        case _:
            return ["It is gone." if faulty.observe(probe)[0] else "No change."]


def sound_names(faulty: FaultyRig, probe: Probe) -> list[str]:
    """Tracks that can be listened to there, in their order."""
    if not probe.is_heard:
        return []
    return [_track(faulty.index, track.trace.id) for track in faulty.tracks(probe.device)]


def _control_line(unit: PlacedDevice, planned: PlacedDevice, control: Control) -> str:
    """Beside what the settings sheet says."""
    now, then = (control.words(one.device.settings.get(control.id, control.default)) for one in (unit, planned))
    return f"{control.label}: {now} (planned {then})"


def _meter_line(faulty: FaultyRig, track_id: str) -> str:
    now, then = faulty.report.track(track_id), faulty.rig.report.track(track_id)
    shows = faulty.meter_dbfs(now) if now is not None else None
    planned = faulty.meter_dbfs(then) if then is not None else None
    return f"{_track(faulty.index, track_id)}: {_level(shows)} (planned {_level(planned)})"


def _level(level: float | None) -> str:
    return "no reading" if level is None else f"{signed(level, 0)} dBFS"


def _track(index: PlanIndex, track_id: str) -> str:
    device, _, bus = track_id.partition(".")
    return index.unit(device).bus_label(bus)


def _device(index: PlanIndex, device: str) -> str:
    return index.unit(device).label if device else ""


def _place(index: PlanIndex, device: str, port: str) -> str:
    if not device:
        return ""
    unit = index.unit(device)
    return f"{unit.label} {unit.where_label(port)}" if port else unit.label


def _cable(index: PlanIndex, run: str) -> str:
    return f"cable {index.plan.runs[run].number}" if run else ""
