"""Whole rigs for a job that is said in a line or two."""

import math
from collections.abc import Mapping

from tidy_trunk.core.gear.catalogue import Circuit, DeviceClass, DeviceKind
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.rigs import Brief, Reading, Rig, Rigs
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.rigs import (
    NO_RIG,
    TITLES,
    GapWords,
    gaps,
    other_recorder_words,
    problem_words,
    question,
    reason,
    rows,
)


class GapOut(Out):
    id: str
    lead: str
    phrase: str
    is_open: bool
    options: list[str]


class NodeOut(Out):
    """A device in the picture of a rig. column: from the sources on, 0 first; row: its height, 0 on top."""

    id: str
    label: str
    kind: DeviceKind
    column: int
    row: float


class LinkOut(Out):
    """A cable, or radio, from device to device. label: what is in it, "" for a plain cable."""

    sending: str
    receiving: str
    is_radio: bool
    label: str


class RigPictureOut(Out):
    """Devices and what joins them; a transmitter and its receiver are one."""

    nodes: list[NodeOut]
    links: list[LinkOut]

    @classmethod
    def from_core(cls, index: PlanIndex) -> "RigPictureOut":
        return _picture(index)


class RigOut(Out):
    """A way to work. cells: one for each row of the comparison; strong: which of them stand out."""

    approach: str
    title: str
    reason: str
    cells: list[str]
    strong: list[bool]
    picture: RigPictureOut
    settings: int
    headroom_db: Level
    under_room_db: Level
    copies: int
    apart: int
    sync: str


class RowOut(Out):
    id: str
    label: str


class RigsOut(Out):
    """The question as it was understood, and the rigs that answer it, what suits it best first."""

    question: str
    gaps: list[GapOut]
    problems: list[str]
    rows: list[RowOut]
    rigs: list[RigOut]

    @classmethod
    def from_core(cls, reading: Reading, found: Rigs, own: Mapping[str, DeviceClass]) -> "RigsOut":
        shown = rows(found.rigs)
        best = [_stands_out(row.marks) for row in shown]
        return cls(
            question=question(reading.brief, own),
            gaps=[_gap(gap) for gap in gaps(reading.brief, own)],
            problems=[*map(problem_words, reading.problems), *_of_all(reading.brief, found, own)],
            rows=[RowOut(id=row.id, label=row.label) for row in shown],
            rigs=[
                _rig(rig, found, [row.cells[at] for row in shown], [marks[at] for marks in best])
                for at, rig in enumerate(found.rigs)
            ],
        )


def _gap(gap: GapWords) -> GapOut:
    options = list(dict.fromkeys((gap.phrase, *gap.options)))
    return GapOut(id=gap.id, lead=gap.lead, phrase=gap.phrase, is_open=gap.is_open, options=options)


def _of_all(brief: Brief, found: Rigs, own: Mapping[str, DeviceClass]) -> list[str]:
    """What is to be said of the answer as a whole."""
    if not found.rigs:
        return [] if found.is_open else [NO_RIG]
    others = [TITLES[rig.approach] for rig in found.rigs if rig.approach in found.on_other_recorder]
    return [other_recorder_words(brief, own, others)] if others else []


def _stands_out(marks: tuple[tuple[float, ...], ...]) -> list[bool]:
    """Where a row differs, its best cells."""
    return [len(set(marks)) > 1 and mark == min(marks) for mark in marks]


def _rig(rig: Rig, found: Rigs, cells: list[str], strong: list[bool]) -> RigOut:
    figures = rig.figures
    return RigOut(
        approach=rig.approach,
        title=TITLES[rig.approach],
        reason=reason(rig, found.wishes),
        cells=cells,
        strong=strong,
        picture=RigPictureOut.from_core(rig.built.report.index),
        settings=figures.settings,
        headroom_db=figures.headroom_db,
        under_room_db=figures.under_room_db,
        copies=figures.copies,
        apart=figures.apart,
        sync=figures.sync,
    )


def _picture(index: PlanIndex) -> RigPictureOut:
    """Each device in the column behind all that lead to it. Transmitters are left out: the radio is drawn from the microphone."""
    worn = {
        run.receiving.device: run.sending.device
        for run in index.plan.runs.values()
        if index.placed(run.receiving.device).device_class.kind is DeviceKind.TRANSMITTER
    }
    links: dict[tuple[str, str], LinkOut] = {}
    for run in index.plan.runs.values():
        if run.receiving.device in worn and worn[run.receiving.device] == run.sending.device:
            continue
        sending = worn.get(run.sending.device, run.sending.device)
        output = index.placed(run.sending.device).output(run.sending.port)
        losses = [f"{lead.loss_db.value:g} dB" for lead, _ in index.leads_of(run) if lead.loss_db is not None]
        kind = {Circuit.TIMECODE: "timecode", Circuit.AES3: "AES3"}.get(output.circuit, "")
        links[sending, run.receiving.device] = LinkOut(
            sending=sending,
            receiving=run.receiving.device,
            is_radio=output.circuit is Circuit.RADIO,
            label=" ".join(filter(None, (kind, *losses))),
        )
    shown = [device for device in index.plan.devices if device not in worn]
    column = dict.fromkeys(shown, 0)
    for _ in shown:  # as deep as the chain is long
        for sending, receiving in links:
            column[receiving] = max(column[receiving], column[sending] + 1)
    last = max(column.values(), default=0)
    for device in shown:
        if index.placed(device).device_class.kind is DeviceKind.CAMERA and not any(
            receiving == device for _, receiving in links
        ):
            # A camera that nothing goes into stands where cameras stand, or before what its picture goes into.
            takers = [column[receiving] - 1 for sending, receiving in links if sending == device]
            column[device] = min(takers, default=last if last else 1)
    return RigPictureOut(nodes=_nodes(index, column, list(links)), links=list(links.values()))


def _nodes(index: PlanIndex, column: dict[str, int], links: list[tuple[str, str]]) -> list[NodeOut]:
    """Each device at the height of what leads to it, and no two of a column in one place."""
    height: dict[str, float] = {}
    for at in range(max(column.values(), default=0) + 1):
        here = [device for device in column if column[device] == at]
        wanted = {
            device: [height[sending] for sending, receiving in links if receiving == device and sending in height]
            for device in here
        }
        here.sort(key=lambda device: _mean(wanted[device]))
        free = 0.0
        for device in here:
            height[device] = max(_mean(wanted[device]) if wanted[device] else free, free)
            free = height[device] + 1
    return [
        NodeOut(
            id=device,
            label=_short(index, device),
            kind=index.placed(device).device_class.kind,
            column=at,
            row=height[device],
        )
        for device, at in column.items()
    ]


def _mean(values: list[float]) -> float:
    return sum(values) / len(values) if values else math.inf


def _short(index: PlanIndex, device: str) -> str:
    """A receiver is told by the microphone that it is dotted to."""
    placed = index.placed(device)
    return "receiver" if placed.device_class.kind is DeviceKind.RECEIVER else placed.label
