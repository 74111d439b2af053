"""A drill in words: what can be done, what it shows, and what was wrong."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.drill import (
    Drill,
    EarTask,
    FaultyRig,
    HiddenFault,
    Impression,
    Probe,
    Together,
    faults_of,
    records,
)
from tidy_trunk.core.gear.catalogue import Control, find_control
from tidy_trunk.core.plan import FeedOutput, MoveRun, PlacedDevice, PlanIndex, PortRef, SetParts
from tidy_trunk.core.sound.levels import TrackLevel
from tidy_trunk.core.time.clock import Gets
from tidy_trunk.words.numbers import signed
from tidy_trunk.words.rows import parts_words

_PROBES: Final[Mapping[str, str]] = {
    "settings": "Look at {place}: switches, menu, knobs",
    "plugs": "Look at both plugs of {cable}, and wiggle them",
    "meters": "Look at the meters of {device} while somebody speaks",
    "listen": "Listen at {device}, headphones set low first",
    "shout": "Have somebody shout, and listen at {device}, headphones set low first",
    "tone": "Send tone to {device} and read its meters",
    "clap": "Clap before all, record, and lay the files over each other",
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
    "limiter": "limiter",
    "linked": "linked knobs",
    "pan": "wrong side",
    "armed": "track not armed",
    "rolling": "not recording",
    "frequency": "wrong frequency",
    "cell": "flat cell",
    "mains": "mains hum",
    "pad-missing": "attenuator left out",
    "wrong-cable": "wrong cable",
    "crossed": "crossed cable",
    "one-leg": "one leg lost",
    "wrong-input": "wrong input",
    "wrong-output": "wrong output",
    "wrong-mix": "wrong mix",
    "break": "broken cable",
    "loose": "loose plug",
    "timecode-out": "no timecode",
    "not-jammed": "jam missed",
    "timecode-rate": "timecode rate",
    "timecode-run": "record run",
    "sample-rate": "sample rate",
}
"""Kinds of fault by what they are called. [PRACTICE]"""

_SHORT: Final[Mapping[str, str]] = {
    "plugs": "plugs",
    "meters": "meters",
    "listen": "listen",
    "shout": "shout",
    "tone": "tone",
    "clap": "clap and compare the files",
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
    "limiter": "The limiter at {place} is {value} instead of {planned}",
    "linked": "The knobs of {place} are linked with others",
    "pan": "{place} is panned {value} instead of {planned}",
    "rolling": "{device} was never started: it does not record",
    "armed": "{place} is not armed",
    "frequency": "{place} is on another frequency: {value} instead of {planned}",
    "cell": "The cell in {device} is flat",
    "mains": "{device} hums through its mains supply",
    "pad-missing": "The attenuator of {cable} is left out",
    "wrong-cable": "{cable} is another cable: {parts}",
    "crossed": "{cable} is wired with 2 and 3 crossed",
    "one-leg": "{cable} has lost one leg: pin 2 is broken inside",
    "wrong-input": "{cable} is in the wrong input",
    "wrong-output": "{cable} is in the wrong output: {output}",
    "wrong-mix": "{device} gives {mix} where {planned_mix} was planned",
    "break": "{cable} is broken",
    "loose": "A plug of {cable} is loose",
    "timecode-out": "{cable} is not plugged in: no timecode comes over it",
    "not-jammed": "{device} was never jammed",
    "timecode-rate": "{device} counts timecode at {value} instead of {planned}",
    "timecode-run": "The timecode of {device} is on {value} instead of {planned}",
    "sample-rate": "{device} is set to {value} instead of {planned}",
}
"""What can be wrong. [HANDBOOK] §§4 to 9"""

NOTHING_WRONG: Final = "Nothing is wrong"
"""The answer where no fault is hidden. ASSUMED_"""

PUT_RIGHT: Final = "Put right"
"""What was done once a fault was named. ASSUMED_"""

SOMETHING_ELSE: Final = "Something else is wrong too."
"""After the first of two faults. ASSUMED_"""

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
    Impression.HOLLOW: "hollow beside the other tracks, in one ear",
    Impression.FLAT: "the shout is pressed flat",
    Impression.NOTHING: "nothing was recorded",
}

_TOGETHER: Final[Mapping[Together, str]] = {
    Together.AS_PLANNED: "lies where it should",
    Together.NOTHING: "there is no file",
    Together.ELSEWHERE: "its timecode is hours away from the others",
    Together.OTHER_RATE: "its timecode counts at another rate",
    Together.STANDS_STILL: "its timecode stands still between takes",
    Together.RUNS_OFF: "it runs off: what fits at the beginning does not at the end",
}

_COMES_BY: Final[Mapping[Gets, str]] = {
    Gets.GIVES: "of its own, given to others",
    Gets.SOCKET: "by cable from {giver}",
    Gets.JAMS: "jammed from {giver}",
    Gets.SOUND: "as sound from {giver}",
    Gets.NOTHING: "from nowhere",
}
"""How a device comes by its timecode. [HANDBOOK] §8"""


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
    for edit in fault.edits:
        match edit:
            case SetParts(parts=parts) if fault.code == "wrong-cable":
                names["parts"] = parts_words(index, parts)
            case MoveRun(sending=PortRef() as output):
                names["output"] = index.port_label(output)
            case FeedOutput(device=device, channel=channel, bus=bus):
                planned = index.unit(device).fed_bus(channel)
                names["mix"] = index.unit(device).bus_label(bus)
                names["planned_mix"] = "nothing" if planned is None else index.unit(device).bus_label(planned.id)
            case _:
                pass
    told = _FAULTS[fault.code].format(**names)
    return f"{told[:1].upper()}{told[1:]}"


def answer_words(drill: Drill, truth: str) -> str:
    """A possible answer, or what was wrong, by the ids of its faults."""
    faults = drill.found.named(truth)
    if not faults_of(truth):
        return NOTHING_WRONG
    return "; ".join(fault_words(fault, drill.rig.index) for fault in faults)


def shown_words(faulty: FaultyRig, probe: Probe) -> list[str]:
    """What a probe shows, line by line. What was not looked at is not told."""
    index = faulty.index
    match probe.code:
        case "settings":
            return _settings_lines(faulty, probe)
        case "plugs":
            return _plugs_lines(faulty, probe.run)
        case "meters":
            return [_meter_line(faulty, track.trace.id) for track in faulty.tracks(probe.device)]
        case "tone":
            return [_tone_line(faulty, track) for track in faulty.tone_tracks(probe.device)]
        case "listen" | "play-back" | "shout":
            return [
                f"{_track(index, name)}: {', '.join(_HEARD[one] for one in sorted(faulty.told_by(probe, name)))}"
                for name in faulty.heard_names(probe)
            ]
        case "clap":
            recording = [unit for unit in faulty.rig.chain if records(unit)]
            return [f"{unit.label}: {_TOGETHER[faulty.together(unit.device.id)]}" for unit in recording]
        case _:
            return ["It is gone." if faulty.observe(probe)[0] else "No change."]


def _settings_lines(faulty: FaultyRig, probe: Probe) -> list[str]:
    now, planned = faulty.index.unit(probe.device), faulty.rig.index.unit(probe.device)
    lines = [
        _control_line(now, planned, control)
        for control in faulty.rig.controls(probe.device, probe.port)
        if now.acts(control)
    ]
    if probe.port:
        buses, then = (
            ", ".join(unit.bus_label(bus.id) for bus in rig.gives(probe.device, probe.port))
            for unit, rig in ((now, faulty), (planned, FaultyRig(faulty.rig)))
        )
        return [*lines, f"gives: {buses} (planned {then})"] if then else lines
    if records(now):
        lines.append(f"record lamp: {'on' if faulty.is_rolling(probe.device) else 'off'} (planned on)")
    if probe.device in faulty.rig.clocks:
        from_now, from_then = (_comes_by(rig, probe.device) for rig in (faulty, FaultyRig(faulty.rig)))
        lines.append(f"timecode: {from_now} (planned {from_then})")
    return lines


def _comes_by(faulty: FaultyRig, device: str) -> str:
    gets, giver = faulty.timecode_from(device)
    return _COMES_BY[gets].format(giver=_device(faulty.index, giver))


def _plugs_lines(faulty: FaultyRig, run_id: str) -> list[str]:
    index, planned = faulty.index, faulty.rig.index
    run = faulty.plugged(run_id)
    shown = planned.plan.runs[run_id] if faulty.looks_planned(run_id) else run
    if faulty.is_out(run_id):
        sits = "It is not plugged in."
    else:
        sits = "A plug moves." if faulty.is_loose(run_id) else "Both plugs sit firmly."
    return [
        f"{index.port_label(run.sending)} to {index.port_label(run.receiving)}",
        parts_words(planned, shown.parts) or "plugged in directly",
        sits,
    ]


def _tone_line(faulty: FaultyRig, track: TrackLevel) -> str:
    off_db = faulty.tone_off_db(track)
    if off_db is None:
        says = "no tone"
    elif off_db == 0:
        says = "as planned"
    else:
        says = f"{signed(off_db, 0)} dB against the plan"
    return f"{_track(faulty.rig.index, track.trace.id)}: {says}"


def sound_names(faulty: FaultyRig, probe: Probe) -> list[str]:
    """Tracks that can be listened to there, in their order."""
    if not probe.is_heard or (probe.code == "play-back" and not faulty.is_rolling(probe.device)):
        return []
    return [_track(faulty.index, name) for name in faulty.heard_names(probe)]


def _control_line(unit: PlacedDevice, planned: PlacedDevice, control: Control) -> str:
    """Beside what the settings sheet says."""
    now, then = (control.words(one.device.settings.get(control.id, control.default)) for one in (unit, planned))
    if not planned.acts(control):
        return f"{control.label}: {now}"
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
