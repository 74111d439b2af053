"""A drawing in millimetres, as SVG and as PDF: lines, boxes and text, in ink alone so that a copier keeps it."""

import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from typing import Final, Literal
from xml.etree.ElementTree import Element, ElementTree, SubElement

import segno
from fontTools.ttLib import TTFont
from fpdf import FPDF

from tidy_trunk.exports.paper.sheet import FONTS, INK, SOFT, Sheet, printable

PAPER: Final = "#ffffff"
"""What is filled so that nothing behind it is seen. ASSUMED_"""

MM_PER_PT: Final = 25.4 / 72
"""A point of type. [PRACTICE]"""

Anchor = Literal["start", "middle", "end"]
PaperPoint = tuple[float, float]

FACES: Final = {False: "AtkinsonHyperlegibleNext-Regular.ttf", True: "AtkinsonHyperlegibleNext-Bold.ttf"}


@dataclass(frozen=True, slots=True)
class Line:
    points: tuple[PaperPoint, ...]
    width_mm: float = 0.3
    dashed: bool = False


@dataclass(frozen=True, slots=True)
class Box:
    """fill: `#1c211d`, "" for none; outlined where `line_mm` is more than 0."""

    x: float
    y: float
    width: float
    height: float
    fill: str = ""
    line_mm: float = 0.3


@dataclass(frozen=True, slots=True)
class Circle:
    """Around (x, y); `is_filled` with ink."""

    x: float
    y: float
    radius: float
    line_mm: float = 0.3
    is_filled: bool = False


@dataclass(frozen=True, slots=True)
class Words:
    """y: of the line that the letters stand on."""

    x: float
    y: float
    text: str
    size_pt: float
    bold: bool = False
    anchor: Anchor = "start"
    color: tuple[int, int, int] = INK

    @property
    def span(self) -> tuple[float, float]:
        """Where they begin and end, from left to right."""
        width = text_width_mm(self.text, self.size_pt, bold=self.bold)
        begins = self.x - {"start": 0.0, "middle": width / 2, "end": width}[self.anchor]
        return begins, begins + width


@dataclass(frozen=True, slots=True)
class Code:
    """A QR code of a text, with its sides `size` mm long; without a quiet zone, which whoever lays it out leaves free. [ISO18004]"""

    x: float
    y: float
    size: float
    text: str


Item = Line | Box | Circle | Words | Code


@dataclass(slots=True)
class Drawing:
    """Items are laid over each other in their order."""

    width: float
    height: float
    items: list[Item] = field(default_factory=list)

    def add(self, items: Iterable[Item]) -> None:
        self.items.extend(items)


@cache
def _advances(bold: bool) -> tuple[dict[int, int], int]:
    font = TTFont(FONTS / FACES[bold])
    metrics = font["hmtx"]
    return {code: metrics[name][0] for code, name in font.getBestCmap().items()}, font["head"].unitsPerEm


def text_width_mm(text: str, size_pt: float, *, bold: bool = False) -> float:
    """How wide a line of text is."""
    advances, units = _advances(bold)
    return sum(advances.get(ord(letter), units // 2) for letter in printable(text)) / units * size_pt * MM_PER_PT


def fitting(text: str, size_pt: float, width_mm: float, *, bold: bool = False) -> str:
    """A text, cut where it does not fit."""
    if text_width_mm(text, size_pt, bold=bold) <= width_mm:
        return text
    while text and text_width_mm(f"{text}…", size_pt, bold=bold) > width_mm:
        text = text[:-1]
    return f"{text.rstrip()}…" if text else ""


def svg(drawing: Drawing, title: str) -> bytes:
    """As SVG, sized in millimetres; its text can be searched."""
    root = Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "viewBox": f"0 0 {drawing.width:.2f} {drawing.height:.2f}",
            "width": f"{drawing.width:.2f}mm",
            "height": f"{drawing.height:.2f}mm",
            "role": "img",
            "font-family": "Atkinson Hyperlegible Next, sans-serif",
        },
    )
    SubElement(root, "title").text = title
    for item in drawing.items:
        match item:
            case Line():
                points = " ".join(f"{x:.2f},{y:.2f}" for x, y in item.points)
                line = {"points": points, "fill": "none", "stroke": _css(INK), "stroke-width": f"{item.width_mm:g}"}
                SubElement(root, "polyline", line | ({"stroke-dasharray": "1.5 1"} if item.dashed else {}))
            case Box():
                place = {"x": item.x, "y": item.y, "width": item.width, "height": item.height}
                look = {"fill": item.fill or "none"}
                if item.line_mm:
                    look |= {"stroke": _css(INK), "stroke-width": f"{item.line_mm:g}"}
                SubElement(root, "rect", {name: f"{value:.3f}" for name, value in place.items()} | look)
            case Circle():
                round_ = {"cx": f"{item.x:.3f}", "cy": f"{item.y:.3f}", "r": f"{item.radius:.3f}"}
                look = {"fill": _css(INK) if item.is_filled else "none", "stroke": _css(INK)}
                SubElement(root, "circle", round_ | look | {"stroke-width": f"{item.line_mm:g}"})
            case Code():
                matrix = segno.make(item.text, error="m", micro=False).matrix
                one = item.size / len(matrix)
                path = "".join(
                    f"M{item.x + column * one:.3f} {item.y + row * one:.3f}h{one:.3f}v{one:.3f}h{-one:.3f}z"
                    for row, modules in enumerate(matrix)
                    for column, module in enumerate(modules)
                    if module
                )
                SubElement(root, "path", {"d": path, "fill": _css(INK)})
            case Words():
                words = {
                    "x": f"{item.x:.2f}",
                    "y": f"{item.y:.2f}",
                    "font-size": f"{item.size_pt * MM_PER_PT:.3f}",
                    "text-anchor": item.anchor,
                    "fill": _css(item.color),
                }
                SubElement(root, "text", words | ({"font-weight": "700"} if item.bold else {})).text = printable(
                    item.text
                )
    box = io.BytesIO()
    ElementTree(root).write(box, encoding="utf-8")
    return box.getvalue()


def _css(color: tuple[int, int, int]) -> str:
    return "#{:02x}{:02x}{:02x}".format(*color)


def pdf(pages: Sequence[Drawing], title: str, made: datetime, *, scales: Sequence[float] = ()) -> bytes:
    """Each drawing on a page of its own size. scales: of each, 1 where it is drawn as it is."""
    document = FPDF(unit="mm")
    document.set_title(title)
    document.set_creator("Tidy Trunk")
    document.set_creation_date(made)
    document.set_auto_page_break(False)
    document.set_margin(0)
    document.c_margin = 0
    for bold, name in FACES.items():
        document.add_font("own", "B" if bold else "", FONTS / name)
    for number, page in enumerate(pages):
        scale = scales[number] if number < len(scales) else 1.0
        document.add_page(format=(page.width * scale, page.height * scale))
        for item in page.items:
            _put(document, item, scale)
    return bytes(document.output())


def _put(document: FPDF, item: Item, scale: float) -> None:
    match item:
        case Line():
            document.set_draw_color(*INK)
            document.set_line_width(item.width_mm * scale)
            if item.dashed:
                document.set_dash_pattern(1.5 * scale, 1.0 * scale)
            document.polyline([(x * scale, y * scale) for x, y in item.points])
            document.set_dash_pattern()
        case Box():
            document.set_draw_color(*INK)
            document.set_line_width(max(item.line_mm, 0.01) * scale)
            if item.fill:
                document.set_fill_color(item.fill)
            style = ("F" if item.fill else "") + ("D" if item.line_mm else "")
            document.rect(item.x * scale, item.y * scale, item.width * scale, item.height * scale, style=style or "D")
        case Circle():
            document.set_draw_color(*INK)
            document.set_line_width(item.line_mm * scale)
            if item.is_filled:
                document.set_fill_color(*INK)
            style = "FD" if item.is_filled else "D"
            document.circle(item.x * scale, item.y * scale, item.radius * scale, style=style)
        case Code():
            box = io.BytesIO()
            segno.make(item.text, error="m", micro=False).save(box, kind="png", scale=1, border=0)
            document.image(box, item.x * scale, item.y * scale, item.size * scale, item.size * scale)
        case Words():
            document.set_font("own", "B" if item.bold else "", item.size_pt * scale)
            document.set_text_color(*item.color)
            document.text(item.span[0] * scale, item.y * scale, printable(item.text))


def placed_on(drawing: Drawing, paper_mm: tuple[float, float], margin_mm: float) -> tuple[Drawing, float]:
    """A drawing in the middle of a sheet, as large as fits and no larger than it is; the sheet, and its scale."""
    width, height = paper_mm
    scale = min(1.0, (width - 2 * margin_mm) / drawing.width, (height - 2 * margin_mm) / drawing.height)
    sheet = Drawing(width / scale, height / scale)
    dx, dy = (sheet.width - drawing.width) / 2, margin_mm / scale
    sheet.add(_moved(item, dx, dy) for item in drawing.items)
    return sheet, scale


def laid_into(sheet: Sheet, drawing: Drawing) -> None:
    """A drawing as wide as the text at most, where a sheet has come to."""

    def paint(document: FPDF, x: float, y: float) -> None:
        for item in drawing.items:
            _put(document, _moved(item, x, y), 1.0)

    sheet.draw(drawing.height, paint)


def _moved(item: Item, dx: float, dy: float) -> Item:
    match item:
        case Line():
            return Line(tuple((x + dx, y + dy) for x, y in item.points), item.width_mm, item.dashed)
        case Box():
            return Box(item.x + dx, item.y + dy, item.width, item.height, item.fill, item.line_mm)
        case Circle():
            return Circle(item.x + dx, item.y + dy, item.radius, item.line_mm, item.is_filled)
        case Code():
            return Code(item.x + dx, item.y + dy, item.size, item.text)
        case Words():
            return Words(item.x + dx, item.y + dy, item.text, item.size_pt, item.bold, item.anchor, item.color)


__all__ = [
    "INK",
    "MM_PER_PT",
    "PAPER",
    "SOFT",
    "Box",
    "Circle",
    "Code",
    "Drawing",
    "Item",
    "Line",
    "PaperPoint",
    "Words",
    "fitting",
    "laid_into",
    "pdf",
    "placed_on",
    "svg",
    "text_width_mm",
]
