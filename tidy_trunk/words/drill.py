"""A drill in words: what can be done, what it shows, and what was wrong."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.drill import (
    Drill,
    EarTask,
    HiddenFault,
    Probe,
    faults_of,
)
from tidy_trunk.core.gear.catalogue import find_control
from tidy_trunk.core.plan import FeedOutput, MoveRun, PlanIndex, PortRef, SetParts
from tidy_trunk.words.rows import parts_words

_PROBES: Final[Mapping[str, str]] = {
    "settings": "Look at {place}: switches, menu, knobs",
    "plugs": "Look at both plugs of {cable}, and wiggle them",
    "meters": "Look at the meters of {device} while somebody speaks",
    "listen": "Listen at {device}, headphones set low first",
    "shout": "Have somebody shout, and listen at {device}, headphones set low first",
    "tone": "Send tone to {device} and read its meters",
    "clap": "Clap once for all to record, and lay the files over each other",
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
    "monitor": "headphones on one side",
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
    "timecode-beside": "timecode beside dialogue",
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
    "monitor": "The headphones of {device} are on its first track alone",
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
    "timecode-beside": "{cable} brings timecode without its attenuator: the track beside it hears it",
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

RECORDED_RIGHT: Final = "Nothing on the recordings: it is only what one hears, or would have heard, that is wrong."
"""Of a fault that is in the headphones. [PRACTICE]"""

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


def probe_words(probe: Probe, index: PlanIndex) -> str:
    return _PROBES[probe.code].format(
        device=_device(index, probe.device),
        place=_place(index, probe.device, probe.port),
        cable=_cable(index, probe.run),
    )


def short_probe_words(probe: Probe, index: PlanIndex) -> str:
    """Beside the name of the device or cable; part of the whole words."""
    if probe.code == "settings":
        return index.placed(probe.device).where_label(probe.port) if probe.port else "switches"
    return _SHORT[probe.code]


def hidden_fault_words(fault: HiddenFault, index: PlanIndex) -> str:
    """What is wrong, where. index: of the rig as planned."""
    names = {"device": _device(index, fault.device), "cable": _cable(index, fault.run)}
    if fault.control:
        placed = index.placed(fault.device)
        control = find_control(placed.device_class, fault.control)
        edit = fault.edits[0]
        names |= {
            "control": control.label,
            "place": _place(index, fault.device, control.port),
            "value": control.words(edit.value),  # type: ignore[attr-defined]
            "planned": control.words(placed.device.settings.get(control.id, control.default)),
        }
    for edit in fault.edits:
        match edit:
            case SetParts(parts=parts) if fault.code == "wrong-cable":
                names["parts"] = parts_words(index, parts)
            case MoveRun(sending=PortRef() as output):
                names["output"] = index.port_label(output)
            case FeedOutput(device=device, channel=channel, bus=bus):
                planned = index.placed(device).fed_bus(channel)
                names["mix"] = index.placed(device).bus_label(bus)
                names["planned_mix"] = "nothing" if planned is None else index.placed(device).bus_label(planned.id)
            case _:
                pass
    told = _FAULTS[fault.code].format(**names)
    return f"{told[:1].upper()}{told[1:]}"


def drill_answer_words(drill: Drill, truth: str) -> str:
    """A possible answer, or what was wrong, by the ids of its faults."""
    faults = drill.found.named(truth)
    if not faults_of(truth):
        return NOTHING_WRONG
    return "; ".join(hidden_fault_words(fault, drill.rig.index) for fault in faults)


def _device(index: PlanIndex, device: str) -> str:
    return index.placed(device).label if device else ""


def _place(index: PlanIndex, device: str, port: str) -> str:
    if not device:
        return ""
    placed = index.placed(device)
    return f"{placed.label} {placed.where_label(port)}" if port else placed.label


def _cable(index: PlanIndex, run: str) -> str:
    return f"cable {index.plan.runs[run].number}" if run else ""
