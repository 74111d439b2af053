"""A track as a row of Runs: devices as stops on the way, leads between them, each in a recordist's words."""

from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.gear.catalogue import CONNECTORS, INSIDE, LeadClass, OutputPort
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef, Run
from tidy_trunk.core.sound.levels import Report, TrackLevel
from tidy_trunk.core.sound.trace import Stage, StageKind
from tidy_trunk.words.rows import heard_by_words, input_words, inside_words, output_words, parts_words, track_knob_words

TAPE_COLOURS: Final = ("black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white")
"""Colour of each digit. [IEC60062]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class RowStop:
    """A device on the way: its name, what it is set to where sound comes in, and where it goes out."""

    device: str
    label: str
    detail: str


@dataclass(frozen=True, slots=True, kw_only=True)
class RowLead:
    """What lies between two stops. `inside` says what is in it: a pad, a crossing; empty for a plain lead."""

    run: str
    number: int
    tape: tuple[str, ...]
    label: str
    parts: tuple[str, ...]
    length_m: float
    plugs: str
    inside: str
    wireless: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class TrackRow:
    """One track. `stops` has one more entry than `leads`; both are empty where nothing arrives."""

    track: TrackLevel
    stops: tuple[RowStop, ...]
    leads: tuple[RowLead, ...]
    others: int


def tape_of(number: int) -> tuple[str, ...]:
    """Colour bands of a run's number, one for each digit: 14 is brown, yellow. Source: [IEC60062]"""
    return tuple(TAPE_COLOURS[int(digit)] for digit in str(number))


def row_of(report: Report, track: TrackLevel) -> TrackRow:
    """The row of a track, along its loudest way; `others` counts the further sources mixed in."""
    path = [stage for stage in report.main_path(track.trace.stage) if stage.kind is not StageKind.SOUND]
    stops: list[RowStop] = []
    leads: list[RowLead] = []
    group: list[Stage] = []
    for stage in path:
        if stage.kind is StageKind.LEAD and stage.run is not None:
            stops.append(_stop(report.index, group))
            leads.append(lead_row(report.index, stage.run))
            group = []
        else:
            group.append(stage)
    if leads:
        stops.append(_stop(report.index, group))
    return TrackRow(track=track, stops=tuple(stops), leads=tuple(leads), others=max(0, len(track.sources) - 1))


def _stop(index: PlanIndex, group: list[Stage]) -> RowStop:
    placed = index.placed(group[-1].device)
    words = []
    for stage in group:
        if stage.kind is StageKind.MICROPHONE:
            words.append(heard_by_words(index.plan, stage.device))
        elif stage.kind is StageKind.INPUT and not _is_wireless(placed, stage.name):
            words.append(input_words(placed, placed.input(stage.name)))
        elif stage.kind is StageKind.BUS:
            words.append(track_knob_words(placed, placed.bus(stage.name)))
        elif stage.kind is StageKind.OUTPUT and not _says_nothing(placed, placed.output(stage.name)):
            words.append(output_words(placed, placed.output(stage.name)))
    return RowStop(device=placed.device.id, label=placed.label, detail=" → ".join(word for word in words if word))


def _is_wireless(placed: PlacedDevice, port_id: str) -> bool:
    return placed.port(port_id).plug.connector in ("air", "shoe")


def _says_nothing(placed: PlacedDevice, port: OutputPort) -> bool:
    return placed.device_class.is_capsule_out(port) or _is_wireless(placed, port.id)


def lead_row(index: PlanIndex, run: Run) -> RowLead:
    """A run's leads in one line."""
    leads = [index.lead_of(part) for part in run.parts]
    inside = [word for lead in leads if (word := inside_words(lead))]
    plug = _plug(index, run.sending)
    return RowLead(
        run=run.id,
        number=run.number,
        tape=tape_of(run.number),
        label=parts_words(index, run.parts) if run.parts else _WITHOUT_LEAD.get(plug, "own plug"),
        parts=tuple(lead.label for lead in leads),
        length_m=sum(part.length_m for part in run.parts),
        plugs=_plugs(index, run, leads),
        inside=", ".join(inside),
        wireless=plug == "air",
    )


_WITHOUT_LEAD: Final = {"air": "radio", "shoe": "on its shoe", INSIDE: "built in"}
"""Connectors that no lead goes into, and what joins them. [PRACTICE]"""


def _plugs(index: PlanIndex, run: Run, leads: list[LeadClass]) -> str:
    if leads:
        ends = (leads[0].sending.connector, leads[-1].receiving.connector)
    else:
        ends = (_plug(index, run.sending), _plug(index, run.receiving))
    first, last = (CONNECTORS[end].label for end in ends)
    return first if first == last else f"{first} to {last}"


def _plug(index: PlanIndex, ref: PortRef) -> str:
    return index.placed(ref.device).port(ref.port).plug.connector
