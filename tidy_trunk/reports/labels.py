"""Cable labels for both ends of each run: number, colours, this end and the other, length, and a code that opens the run."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from tidy_trunk.errors import InputError
from tidy_trunk.exports.paper.drawing import Box, Code, Drawing, Item, Words, fitting, pdf, text_width_mm
from tidy_trunk.results.patch import PatchRunOut

TAPE_FILLS: Final[Mapping[str, str]] = {
    "black": "#1a1a1a",
    "brown": "#7a4a21",
    "red": "#c8281e",
    "orange": "#e8801a",
    "yellow": "#f2d21b",
    "green": "#2c8a3c",
    "blue": "#2456b4",
    "violet": "#7a3f9c",
    "grey": "#8c8c8c",
    "white": "#ffffff",
}
"""What each colour is printed as. [IEC60062] names the colours, the shades are ASSUMED_; their names stand beside them, so that
one colour of ink is enough."""

PAD_MM: Final = 1.5
"""ASSUMED_ white within a label: sheets shift by as much in a printer."""

QUIET_MODULES_MM: Final = 1.6
"""ASSUMED_ white around a code: four of its modules on the narrowest tape. [ISO18004]"""

MOST_CODE: Final = 0.3
"""ASSUMED_ share of a label's width that a code takes at most: the words want the rest."""

TAPE_LENGTH_MM: Final = 62.0
"""ASSUMED_ length of a label on tape: once round a cable, and a flag to be read."""


@dataclass(frozen=True, slots=True)
class LabelPaper:
    """width, height: of one label; on a sheet: of so many columns and rows, from its upper left corner on, by so much."""

    label: str
    width: float
    height: float
    sheet: tuple[float, float] | None = None
    columns: int = 1
    rows: int = 1
    left: float = 0.0
    top: float = 0.0
    across: float = 0.0
    down: float = 0.0


LABEL_PAPERS: Final[Mapping[str, LabelPaper]] = {
    "a4-24": LabelPaper("A4, 24 of 70 × 37 mm", 70.0, 37.0, (210.0, 297.0), 3, 8, 0.0, 0.5, 70.0, 37.0),
    "a4-65": LabelPaper("A4, 65 of 38.1 × 21.2 mm", 38.1, 21.2, (210.0, 297.0), 5, 13, 4.7, 10.9, 40.6, 21.2),
    "letter-30": LabelPaper(
        "Letter, 30 of 66.7 × 25.4 mm", 66.675, 25.4, (215.9, 279.4), 3, 10, 4.76, 12.7, 69.85, 25.4
    ),
    "tape-9": LabelPaper("tape, 9 mm", TAPE_LENGTH_MM, 9.0),
    "tape-12": LabelPaper("tape, 12 mm", TAPE_LENGTH_MM, 12.0),
    "tape-24": LabelPaper("tape, 24 mm", TAPE_LENGTH_MM, 24.0),
}
"""Label sheets and tapes as shops have them, from memory. [MEMORY]"""


@dataclass(frozen=True, slots=True)
class CableEnd:
    """One label: what it says of the end that it is stuck to."""

    run: PatchRunOut
    here: str
    there: str


def cable_ends(runs: Sequence[PatchRunOut]) -> list[CableEnd]:
    """Two of each run that a cable lies for, by their numbers."""
    found = []
    for run in runs:
        if not run.is_air:
            found += [CableEnd(run, run.begins, run.ends), CableEnd(run, run.ends, run.begins)]
    return found


def label_pages(
    ends: Sequence[CableEnd], kind: str, address: Callable[[PatchRunOut], str], skip: int = 0
) -> list[Drawing]:
    """Pages of labels. skip: labels of the first sheet that are used up.

    Raises InputError: no such kind of label.
    """
    if kind not in LABEL_PAPERS:
        raise InputError(f"no label is called '{kind[:20]}': use {', '.join(LABEL_PAPERS)}")
    paper = LABEL_PAPERS[kind]
    if paper.sheet is None:
        pages = []
        for end in ends:
            page = Drawing(paper.width, paper.height)
            page.add(_label(end, 0, 0, paper, address(end.run)))
            pages.append(page)
        return pages
    each, pages = paper.columns * paper.rows, []
    for number, end in enumerate(ends, start=skip % each):
        if not pages or number % each == 0:
            pages.append(Drawing(*paper.sheet))
        row, column = divmod(number % each, paper.columns)
        left, top = paper.left + column * paper.across, paper.top + row * paper.down
        pages[-1].add(_label(end, left, top, paper, address(end.run)))
    return pages


def labels_pdf(pages: Sequence[Drawing], job: str, made: datetime) -> bytes:
    """Exactly as large as they are: print them without "fit to page"."""
    return pdf(pages, f"{job}: cable labels", made)


def _label(end: CableEnd, left: float, top: float, paper: LabelPaper, address: str) -> Iterator[Item]:
    """The number large, colours below it, where it goes in the middle, the code on the right."""
    run, height = end.run, paper.height - 2 * PAD_MM
    x, y = left + PAD_MM, top + PAD_MM
    is_low = paper.height < 10
    number_pt = min(26.0, height * (2.3 if is_low else 1.25))
    number = str(run.number)
    block = max(text_width_mm(number, number_pt, bold=True) + 1.5, 9.0)
    base = y + number_pt * 0.3528 * 0.78
    yield Words(x, base, number, number_pt, bold=True)
    if not is_low:
        yield from _bands(run.tape, x, base + 1.0, block - 1.5, min(3.0, top + paper.height - PAD_MM - base - 1.0))
    code = 0.0
    if paper.height >= 12:
        code = min(height, 18.0, paper.width * MOST_CODE)
        yield Code(left + paper.width - PAD_MM - code, y + (height - code) / 2, code, address)
        code += QUIET_MODULES_MM
    room = paper.width - 2 * PAD_MM - block - code
    yield from _lines(end, x + block, y, room, height)


def _bands(tape: Sequence[str], x: float, y: float, width: float, height: float) -> Iterator[Item]:
    if height < 1.0:
        return
    each = width / len(tape)
    for at, colour in enumerate(tape):
        yield Box(x + at * each, y, each - 0.4, height, fill=TAPE_FILLS[colour], line_mm=0.15)


def _lines(end: CableEnd, x: float, y: float, width: float, height: float) -> Iterator[Item]:
    """This end bold, the other one, what it is, its colours: as many lines as there is room for."""
    run = end.run
    colours = ", ".join(run.tape)
    told = [(end.here, True), (f"to {end.there}", False), (run.cable, False), (colours, False)]
    if height < 7:
        told = [(f"{end.here} · {end.there}", True), (f"{run.cable} · {colours}", False)]
    size = min(8.0, height / len(told) / 0.3528 / 1.2)
    step = min(height / len(told), size * 0.3528 * 2.0)
    for number, (text, bold) in enumerate(told):
        yield Words(x, y + step * number + size * 0.3528 * 0.95, fitting(text, size, width, bold=bold), size, bold=bold)
