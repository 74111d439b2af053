"""A sheet in one plain layout: title, facts, headings, tables; text can be selected, and the same input gives the same bytes."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Final

from fontTools.ttLib import TTFont
from fpdf import FPDF
from fpdf.enums import XPos, YPos

from tidy_trunk.errors import InputError

PAPERS: Final[Mapping[str, str]] = {"a4": "A4", "letter": "Letter"}
"""Sizes of paper by what they are asked for. [ISO216], and US Letter [PRACTICE]"""

FONTS: Final = Path(__file__).parent / "fonts"

MARGIN_MM: Final = 15.0
"""ASSUMED_ white on all sides: holes and clips need some."""

INK, SOFT, LINE = (28, 33, 29), (90, 96, 92), (200, 196, 184)
"""Ink, lesser ink and hairlines, as on the screen; dark enough for a copier. ASSUMED_"""

MISSING: Final = "□"
"""Stands for letters that the font has not. [PRACTICE] of software"""


@dataclass(frozen=True, slots=True)
class Column:
    """width: a share of the sheet's; is_number: set to the right."""

    title: str
    width: float
    is_number: bool = False


@cache
def _letters() -> frozenset[int]:
    return frozenset(TTFont(FONTS / "AtkinsonHyperlegibleNext-Regular.ttf").getBestCmap())


def printable(text: str) -> str:
    """What the font can print; other letters as a box."""
    known = _letters()
    return "".join(letter if ord(letter) in known else MISSING for letter in " ".join(text.split()))


class Sheet:
    """One document, filled from the top; `bytes` ends it."""

    def __init__(self, title: str, subtitle: str, *, paper: str = "a4", made: datetime) -> None:
        """`paper`: a key of `PAPERS`; `made`: the moment that the file says of itself. Raises InputError: no such paper."""
        if paper not in PAPERS:
            raise InputError(f"no paper is called '{paper[:20]}': use {' or '.join(PAPERS)}")
        self._pdf = pdf = _Document(printable(title), PAPERS[paper])
        pdf.set_title(title)
        pdf.set_creator("Tidy Trunk")
        pdf.set_creation_date(made)
        pdf.set_margins(MARGIN_MM, MARGIN_MM, MARGIN_MM)
        pdf.set_auto_page_break(True, margin=MARGIN_MM + 5)
        pdf.add_font("own", "", FONTS / "AtkinsonHyperlegibleNext-Regular.ttf")
        pdf.add_font("own", "B", FONTS / "AtkinsonHyperlegibleNext-Bold.ttf")
        pdf.add_page()
        self._write(title, size=17, bold=True, height=8)
        self._write(subtitle, size=10, color=SOFT, height=5)
        pdf.ln(3)

    def heading(self, text: str, *, keep_mm: float = 22.0) -> None:
        """Of a part; it never stands alone at the foot of a page, but with so much of what follows."""
        if self._pdf.will_page_break(keep_mm):
            self._pdf.add_page()
        self._pdf.ln(3)
        self._write(text, size=12, bold=True, height=7)

    def text(self, text: str, *, soft: bool = False) -> None:
        self._write(text, size=9.5, color=SOFT if soft else INK, height=4.8)

    def facts(self, facts: Sequence[tuple[str, str]]) -> None:
        """Pairs of a name and what it is, two beside each other; those that say nothing are left out."""
        pdf, told = self._pdf, [pair for pair in facts if pair[1]]
        half = pdf.epw / 2
        for at in range(0, len(told), 2):
            for name, value in told[at : at + 2]:
                pdf.set_font("own", "", 9)
                pdf.set_text_color(*SOFT)
                pdf.cell(half * 0.32, 5.4, printable(name))
                pdf.set_font("own", "B", 9)
                pdf.set_text_color(*INK)
                pdf.cell(half * 0.68, 5.4, self._fitting(printable(value), half * 0.66))
            pdf.ln(5.4)
        pdf.ln(1)

    def table(self, columns: Sequence[Column], rows: Sequence[Sequence[str]], bold: Sequence[bool] = ()) -> None:
        """Rows under their titles, which are repeated on each page; what is long takes several lines. `bold`: by row."""
        pdf = self._pdf
        widths = [column.width * pdf.epw / sum(one.width for one in columns) for column in columns]
        self._titles(columns, widths)
        for number, row in enumerate(rows):
            strong = "B" if number < len(bold) and bold[number] else ""
            pdf.set_font("own", strong, 9)
            pdf.set_text_color(*INK)
            cells = [self._lines(printable(text), width - 2) for text, width in zip(row, widths, strict=True)]
            height = 4.6 * max(len(lines) for lines in cells) + 1.6
            if pdf.will_page_break(height):
                pdf.add_page()
                self._titles(columns, widths)
                pdf.set_font("own", strong, 9)
                pdf.set_text_color(*INK)
            x, y = pdf.l_margin, pdf.get_y()
            for column, width, lines in zip(columns, widths, cells, strict=True):
                for at, line in enumerate(lines):
                    pdf.set_xy(x, y + 0.8 + 4.6 * at)
                    pdf.cell(width, 4.6, line, align="R" if column.is_number else "L")
                x += width
            pdf.set_draw_color(*LINE)
            pdf.line(pdf.l_margin, y + height, pdf.l_margin + pdf.epw, y + height)
            pdf.set_xy(pdf.l_margin, y + height)
        pdf.ln(2)

    def draw(self, height_mm: float, paint: Callable[[FPDF, float, float], None]) -> None:
        """Leave so much room, and have something drawn there; `paint` is told its upper left corner."""
        pdf = self._pdf
        if pdf.will_page_break(height_mm):
            pdf.add_page()
        y, line_mm = pdf.get_y(), pdf.line_width
        paint(pdf, pdf.l_margin, y)
        pdf.set_line_width(line_mm)
        pdf.set_xy(pdf.l_margin, y + height_mm)

    @property
    def width_mm(self) -> float:
        """From margin to margin."""
        return float(self._pdf.epw)

    def bytes(self) -> bytes:
        return bytes(self._pdf.output())

    def _titles(self, columns: Sequence[Column], widths: Sequence[float]) -> None:
        pdf = self._pdf
        pdf.set_font("own", "", 8)
        pdf.set_text_color(*SOFT)
        for column, width in zip(columns, widths, strict=True):
            pdf.cell(width, 5, printable(column.title), align="R" if column.is_number else "L")
        pdf.ln(5)
        pdf.set_draw_color(*INK)
        pdf.line(pdf.l_margin, pdf.get_y(), pdf.l_margin + pdf.epw, pdf.get_y())

    def _lines(self, text: str, width_mm: float) -> list[str]:
        """Words on as many lines as they need; a word that is wider than the column is cut."""
        lines, line = [], ""
        for word in text.split(" "):
            longer = f"{line} {word}".strip()
            if line and self._pdf.get_string_width(longer) > width_mm:
                lines.append(line)
                line = word
            else:
                line = longer
            while self._pdf.get_string_width(line) > width_mm and len(line) > 1:
                cut = next(
                    n for n in range(len(line) - 1, 0, -1) if n == 1 or self._pdf.get_string_width(line[:n]) <= width_mm
                )
                lines.append(line[:cut])
                line = line[cut:]
        return [*lines, line]

    def _fitting(self, text: str, width_mm: float) -> str:
        while text and self._pdf.get_string_width(text) > width_mm:
            text = f"{text[:-2]}…" if len(text) > 2 else ""
        return text

    def _write(
        self, text: str, *, size: float, height: float, bold: bool = False, color: tuple[int, int, int] = INK
    ) -> None:
        pdf = self._pdf
        pdf.set_font("own", "B" if bold else "", size)
        pdf.set_text_color(*color)
        pdf.multi_cell(pdf.epw, height, printable(text), new_x=XPos.LMARGIN, new_y=YPos.NEXT, align="L")


class _Document(FPDF):
    """With the title and the number of the page at each foot."""

    def __init__(self, foot: str, paper: str) -> None:
        super().__init__(format=paper)
        self._foot = foot

    def footer(self) -> None:
        self.set_y(-MARGIN_MM)
        self.set_font("own", "", 8)
        self.set_text_color(*SOFT)
        self.cell(self.epw / 2, 5, self._foot)
        self.cell(self.epw / 2, 5, f"{self.page_no()} / {{nb}}", align="R")
