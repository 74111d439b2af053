"""The sockets of a device as one sees them, with the number of the cable that goes into each."""

import math
from collections.abc import Iterator, Sequence
from typing import Final

from tidy_trunk.exports.paper.drawing import SOFT, Box, Circle, Drawing, Item, Line, Words, fitting
from tidy_trunk.results.patch import UsedSocketOut

CELL_MM: Final = (23.0, 18.5)
"""ASSUMED_ width and height of what one socket takes on paper."""

CONTACT_MM: Final = 0.55
"""ASSUMED_ radius of a contact as it is drawn."""

LABEL_PT: Final = 7.0
"""ASSUMED_ size of the name below a socket."""


def socket_strip(sockets: Sequence[UsedSocketOut], width_mm: float) -> Drawing:
    """Inputs, then outputs, in rows. What a cable goes into is drawn with a thick line and bears its number."""
    wide, high = CELL_MM
    in_row = max(int(width_mm // wide), 1)
    drawing = Drawing(width_mm, high * math.ceil(len(sockets) / in_row) + 1.0)
    for number, socket in enumerate(sockets):
        x, y = wide * (number % in_row), high * (number // in_row)
        drawing.add(_cell(socket, x, y))
    return drawing


def _cell(socket: UsedSocketOut, x: float, y: float) -> Iterator[Item]:
    middle_x, middle_y = x + 5.5, y + 5.5
    yield from _drawn(socket, middle_x, middle_y, 0.8 if socket.runs else 0.25)
    way = "in" if socket.is_input else "out"
    left = x + 1.0  # below the text of the tables
    if socket.runs:
        yield Words(x + 11.5, middle_y + 1.6, ", ".join(map(str, socket.runs)), 12.0, bold=True)
    yield Words(left, y + 13.6, fitting(socket.label, LABEL_PT, CELL_MM[0] - 1.5), LABEL_PT, bold=bool(socket.runs))
    if way not in socket.label.split():
        yield Words(left, y + 16.6, way, LABEL_PT, color=SOFT)


def _drawn(socket: UsedSocketOut, x: float, y: float, line_mm: float) -> Iterator[Item]:
    """As a face-on view: pins filled, holes open; by shape, not to scale. [PRACTICE]"""
    match socket.connector:
        case "xlr3" | "xlr5" | "combo":
            yield Circle(x, y, 4.6, line_mm)
            yield from _contacts(x, y, 2.4, 5 if socket.connector == "xlr5" else 3, socket.is_male)
            if socket.connector == "combo":
                yield Circle(x, y, 1.3)
        case "ta3" | "ta5":
            yield Circle(x, y, 3.2, line_mm)
            yield from _contacts(x, y, 1.7, int(socket.connector[2]), socket.is_male)
        case "trs35" | "trrs35" | "ts35":
            yield Circle(x, y, 2.6, line_mm)
            yield Circle(x, y, 1.1, is_filled=True)
        case "trs635" | "ts635":
            yield Circle(x, y, 3.9, line_mm)
            yield Circle(x, y, 2.1, is_filled=True)
        case "bnc":
            yield Circle(x, y, 3.2, line_mm)
            yield Circle(x, y, 0.6, is_filled=True)
            yield Line(((x - 4.4, y), (x - 3.2, y)), 0.9)
            yield Line(((x + 3.2, y), (x + 4.4, y)), 0.9)
        case "rca":
            yield Circle(x, y, 3.4, line_mm)
            yield Circle(x, y, 1.6)
        case "hdmi":
            corners = ((-4.2, -1.5), (4.2, -1.5), (4.2, 0.4), (3.0, 1.6), (-3.0, 1.6), (-4.2, 0.4), (-4.2, -1.5))
            yield Line(tuple((x + dx, y + dy) for dx, dy in corners), line_mm)
        case "usb-c":
            yield Box(x - 3.2, y - 1.2, 6.4, 2.4, line_mm=line_mm)
        case _:
            yield Box(x - 4.2, y - 2.6, 8.4, 5.2, line_mm=line_mm)


def _contacts(x: float, y: float, radius: float, count: int, is_male: bool) -> Iterator[Item]:
    """Spread over a circle, one of them at the bottom."""
    for number in range(count):
        angle = math.pi / 2 + number * 2 * math.pi / count
        yield Circle(x + radius * math.cos(angle), y + radius * math.sin(angle), CONTACT_MM, is_filled=is_male)
