"""The patch of a job on paper: a diagram, what each device is set to, the list of runs, and a card for the wallet."""

import csv
import io
from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime
from typing import Final

from tidy_trunk.errors import InputError
from tidy_trunk.exports import plain_cell
from tidy_trunk.exports.paper import Column, Sheet
from tidy_trunk.exports.paper.drawing import (
    PAPER,
    SOFT,
    Box,
    Drawing,
    Item,
    Line,
    Words,
    fitting,
    laid_into,
    pdf,
    placed_on,
    svg,
    text_width_mm,
)
from tidy_trunk.exports.patch_layout import HEAD_MM, ROW_MM, STUB_MM, DrawnCable, PatchLayout, Station, lay_out
from tidy_trunk.reports.socket_strip import socket_strip
from tidy_trunk.results.patch import PatchDeviceOut, PatchOut, PatchRunOut, PatchSocketOut, SettingsOut

PAPERS_MM: Final[Mapping[str, tuple[float, float]]] = {
    "a4": (297.0, 210.0),
    "a3": (420.0, 297.0),
    "letter": (279.4, 215.9),
}
"""Sheets lying on their long side. [ISO216], and US Letter [PRACTICE]"""

MARGIN_MM: Final = 12.0
"""ASSUMED_ white around a diagram: printers leave some."""

TITLE_MM: Final = 12.0
"""ASSUMED_ height of the line above a diagram."""

NARROWEST_MM, WIDEST_MM = 26.0, 58.0
"""ASSUMED_ widths of a device: a short name, and the longest that is not cut."""

NAME_PT, SOCKET_PT, NUMBER_PT = 9.0, 7.5, 7.0
"""ASSUMED_ sizes of letters: read at arm's length on A3, and up close on A4."""

CARD_PTS: Final = (5.8, 5.4, 5.0, 5.8)
"""ASSUMED_ sizes of letters on it: the largest that takes one card; where none does, the first on several."""

CARD_FIRST_MM: Final = 8.4
"""ASSUMED_ first line on it, below its title."""

CARD_MM: Final = (85.6, 54.0)
"""A card of size ID-1. [ISO7810], from memory"""


def patch_drawing(patch: PatchOut) -> tuple[Drawing, PatchLayout]:
    """The whole job, from left to right as sound goes; and where everything lies."""
    stations = [_station(device) for device in patch.devices if device.inputs or device.outputs]
    wires = [DrawnCable(run.id, run.sender, run.output, run.receiver, run.input) for run in patch.runs]
    placed = lay_out(stations, wires)
    drawing = Drawing(placed.width, placed.height + TITLE_MM)
    runs = {run.id: run for run in patch.runs}
    for name, points in placed.paths.items():
        lowered = tuple((x, y + TITLE_MM) for x, y in points)
        drawing.add([Line(lowered, dashed=runs[name].is_air)])
    for device in patch.devices:
        if device.id in placed.corners:
            drawing.add(_box(device, placed))
    ends: dict[tuple[float, float], list[int]] = {}
    for name, points in placed.paths.items():
        # Several cables may come from one socket, or go into one: their numbers stand beside each other.
        for (x, y), towards in ((points[0], STUB_MM / 2), (points[-1], -STUB_MM / 2)):
            ends.setdefault((x + towards, y + TITLE_MM), []).append(runs[name].number)
    for (x, y), numbers in ends.items():
        drawing.add(_tag(", ".join(map(str, sorted(numbers))), x, y))
    drawing.add([Words(0, 5, f"{patch.job}: patch", 12, bold=True)])
    drawing.add([Words(0, 9.5, "Numbers stand on both ends of each cable; dashed: by radio.", 8, color=SOFT)])
    return drawing, placed


def patch_svg(patch: PatchOut) -> bytes:
    return svg(patch_drawing(patch)[0], f"{patch.job}: patch")


def patch_pdf(patch: PatchOut, *, paper: str, made: datetime) -> bytes:
    """On one sheet, as large as fits. Raises InputError: no such paper."""
    if paper not in PAPERS_MM:
        raise InputError(f"no paper is called '{paper[:20]}': use {', '.join(PAPERS_MM)}")
    sheet, scale = placed_on(patch_drawing(patch)[0], PAPERS_MM[paper], MARGIN_MM)
    return pdf([sheet], f"{patch.job}: patch", made, scales=[scale])


def _station(device: PatchDeviceOut) -> Station:
    sides = _widest(device.inputs) + _widest(device.outputs)
    wanted = max(text_width_mm(device.label, NAME_PT, bold=True) + 4, sides + 8)
    return Station(
        id=device.id,
        inputs=tuple(socket.id for socket in device.inputs),
        outputs=tuple(socket.id for socket in device.outputs),
        width=min(max(wanted, NARROWEST_MM), WIDEST_MM),
    )


def _widest(sockets: Sequence[PatchSocketOut]) -> float:
    return max((text_width_mm(socket.label, SOCKET_PT) for socket in sockets), default=0.0)


def _box(device: PatchDeviceOut, placed: PatchLayout) -> Iterator[Item]:
    station = _station(device)
    left, top = placed.corners[device.id]
    top += TITLE_MM
    yield Box(left, top, station.width, station.height, fill=PAPER, line_mm=0.4)
    yield Words(left + 2, top + 4.6, fitting(device.label, NAME_PT, station.width - 4, bold=True), NAME_PT, bold=True)
    labels = {socket.id: socket.label for socket in (*device.inputs, *device.outputs)}
    half = station.width - 4
    for row, socket in enumerate(placed.inputs[device.id]):
        y = top + HEAD_MM + ROW_MM * (row + 0.5) + 1.0
        yield Words(left + 1.6, y, fitting(labels[socket], SOCKET_PT, half), SOCKET_PT)
    for row, socket in enumerate(placed.outputs[device.id]):
        y = top + HEAD_MM + ROW_MM * (row + 0.5) + 1.0
        yield Words(left + station.width - 1.6, y, fitting(labels[socket], SOCKET_PT, half), SOCKET_PT, anchor="end")


def _tag(text: str, x: float, y: float) -> Iterator[Item]:
    """Numbers of runs on their cable, on paper of their own so that no line goes through them."""
    size = next((pt for pt in (NUMBER_PT, 6.0, 5.0) if text_width_mm(text, pt, bold=True) < STUB_MM - 1.4), 4.0)
    width = text_width_mm(text, size, bold=True) + 1.4
    yield Box(x - width / 2, y - 1.7, width, 3.4, fill=PAPER, line_mm=0.2)
    yield Words(x, y + 0.9, text, size, bold=True, anchor="middle")


def settings_sheet(job: str, patch: PatchOut, settings: Sequence[SettingsOut], *, paper: str, made: datetime) -> bytes:
    """Every device: what goes into which socket, then every switch, menu item and knob in the order in which they are set. PDF."""
    sheet = Sheet(
        f"{job}: settings", "Device by device, in the order of the sound. Tick what is set.", paper=paper, made=made
    )
    for item in settings:
        where = f", {item.place}" if item.place else ""
        sheet.heading(f"{item.label}{where}", keep_mm=45.0)
        sheet.text(item.kind, soft=True)
        if item.sockets:
            laid_into(sheet, socket_strip(item.sockets, sheet.width_mm))
        mine = [run for run in patch.runs if item.device in (run.sender, run.receiver)]
        if mine:
            sheet.table(
                [Column("cable", 0.6), Column("this socket", 2), Column("other end", 3), Column("what", 3.4)],
                [_end(run, item.device, item.label) for run in mine],
            )
        sheet.table(
            [Column("set", 0.6), Column("what", 5.2), Column("why", 3.2)],
            [["[  ]", line.text, line.why] for line in item.lines],
        )
    sheet.text("48 V, mains and cables on the floor: the usual care, and the local rules.", soft=True)
    return sheet.bytes()


def _end(run: PatchRunOut, device: str, label: str) -> list[str]:
    here, there = (run.begins, run.ends) if run.sender == device else (run.ends, run.begins)
    return [str(run.number), here.removeprefix(label).strip() or here, there, run.cable]


def run_list_sheet(patch: PatchOut, *, paper: str, made: datetime) -> bytes:
    """All runs by their numbers. PDF."""
    lying = [run for run in patch.runs if not run.is_air]
    metres = sum(run.length_m for run in lying)
    sheet = Sheet(f"{patch.job}: cables", f"{len(lying)} cables, {metres:.0f} m.", paper=paper, made=made)
    sheet.table(
        [
            *(Column("no.", 0.5), Column("colours", 1.3), Column("from", 2.4), Column("to", 2.4)),
            *(Column("what", 2.8), Column("plugs", 1.6), Column("m", 0.6, is_number=True)),
        ],
        [
            [str(run.number), ", ".join(run.tape), run.begins, run.ends, run.cable, run.plugs, _metres(run)]
            for run in patch.runs
        ],
    )
    return sheet.bytes()


def run_list_csv(patch: PatchOut) -> bytes:
    """A line for each run. UTF-8."""
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(["number", "colours", "from", "to", "what", "plugs", "length_m"])
    for run in patch.runs:
        cells = [str(run.number), " ".join(run.tape), run.begins, run.ends, run.cable, run.plugs, _metres(run)]
        out.writerow([plain_cell(cell) for cell in cells])
    return box.getvalue().encode()


def _metres(run: PatchRunOut) -> str:
    return "" if run.is_air or not run.length_m else f"{run.length_m:g}"


def wallet_card(job: str, lines: Sequence[str], made: datetime) -> bytes:
    """What must be right, on cards of the usual size, one beside the other to be folded. PDF."""
    width, height = CARD_MM
    for size in CARD_PTS:
        step, cards = size * 0.44, _cards(lines, size)
        if len(cards) == 1:
            break
    drawing = Drawing(width * len(cards), height)
    for number, card in enumerate(cards):
        left = width * number
        drawing.add([Box(left, 0, width, height, line_mm=0.1)])
        more = f" {number + 1}/{len(cards)}" if len(cards) > 1 else ""
        drawing.add([Words(left + 4, 5.2, fitting(f"{job}{more}", 8, width - 8, bold=True), 8, bold=True)])
        for at, (text, begins) in enumerate(card):
            y = CARD_FIRST_MM + at * step
            if begins:
                drawing.add([Box(left + 4, y - 1.6, 1.7, 1.7, line_mm=0.15)])
            drawing.add([Words(left + 7.2, y, text, size)])
    return pdf([drawing], f"{job}: what must be right", made)


def _cards(lines: Sequence[str], size_pt: float) -> list[list[tuple[str, bool]]]:
    """Rows of each card, and whether a line begins with them; no line is cut in two by the edge of a card."""
    fits = int((CARD_MM[1] - CARD_FIRST_MM - 2.5) / (size_pt * 0.44)) + 1
    cards: list[list[tuple[str, bool]]] = [[]]
    for line in lines:
        rows = [(part, number == 0) for number, part in enumerate(_wrapped(line, size_pt, CARD_MM[0] - 10.5))]
        if len(cards[-1]) + len(rows) > fits and cards[-1]:
            cards.append([])
        cards[-1] += rows
    return cards


def _wrapped(text: str, size_pt: float, width_mm: float) -> list[str]:
    lines, line = [], ""
    for word in text.split():
        longer = f"{line} {word}".strip()
        if line and text_width_mm(longer, size_pt) > width_mm:
            lines.append(line)
            line = word
        else:
            line = longer
    return [*lines, line]
