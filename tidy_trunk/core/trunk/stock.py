"""What lies in the trunk: pieces by kind, and a line that says what some of them are."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from tidy_trunk.core.command import NotUnderstoodError, find_classes, find_leads, split_words
from tidy_trunk.core.gear.catalogue import DeviceClass, LeadClass, built_in
from tidy_trunk.core.plan import Plan

MOST_PIECES: Final = 5_000
"""ASSUMED_ most pieces of one trunk: several times the largest van we know of."""

MOST_OF_A_KIND: Final = 999
"""ASSUMED_ most pieces of one line: a roll of tape is one."""

LONGEST_LEAD_M: Final = 500.0
"""ASSUMED_ longest cable, as in a plan."""


class PieceKind(StrEnum):
    """What a piece is there for. Source: [HANDBOOK] §§4, 9"""

    CABLE = "cable"  # cables, adapters and attenuators: what lies between two sockets
    DEVICE = "device"
    BATTERY = "battery"
    CELL = "cell"
    CARD = "card"
    TAPE = "tape"
    STAND = "stand"
    OTHER = "other"


CONSUMED: Final = frozenset({PieceKind.CELL, PieceKind.TAPE})
"""What is used up, and counted down. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One piece; of what is all alike and has no number, several at once.

    what: id of a class of cable or device, "" of anything else. label: what it is called. count: 1 of cables and devices.
    length_m: of a cable. number: that stands on it, "" where none does. case: where it lies. tested: when it was found to be
    right, ISO 8601; fault: what is wrong with it; "" where that was not looked at, or nothing is. wh: of a battery; weight_kg: of
    one, None where nobody has said.
    """

    id: str
    kind: PieceKind
    label: str
    what: str = ""
    count: int = 1
    length_m: float = 0.0
    number: str = ""
    case: str = ""
    tested: str = ""
    fault: str = ""
    wh: float | None = None
    weight_kg: float | None = None

    @property
    def is_whole(self) -> bool:
        return not self.fault


@dataclass(frozen=True, slots=True)
class PieceLine:
    """A piece as a line says it, and how many of it there are to be; it has no id yet."""

    piece: Piece
    count: int


_CLAUSE: Final = re.compile(
    r"(?:(?P<count>\d{1,4})\s*(?:x|×)?\s+)?(?:(?P<first>\d+(?:\.\d+)?)\s*(?P<first_unit>m|ft|feet)\s+)?(?P<name>.*?)"
    r"(?:\s+(?P<length>\d+(?:\.\d+)?)\s*(?P<unit>m|ft|feet))?(?:\s+(?P<wh>\d+(?:\.\d+)?)\s*wh)?",
    re.IGNORECASE,
)
_LENGTH: Final = re.compile(r"\s+\d+(?:\.\d+)?\s*(?:m|ft|feet)$", re.IGNORECASE)
M_PER_FT: Final = 0.3048
"""The international foot. [MEMORY]"""

_CASES: Final = ("case", "bag", "box", "trunk", "drawer", "pouch", "rack", "van")
_WORDS: Final[Mapping[str, PieceKind]] = {
    "battery": PieceKind.BATTERY,
    "batteries": PieceKind.BATTERY,
    "cell": PieceKind.CELL,
    "cells": PieceKind.CELL,
    "card": PieceKind.CARD,
    "cards": PieceKind.CARD,
    "tape": PieceKind.TAPE,
    "tapes": PieceKind.TAPE,
    "stand": PieceKind.STAND,
    "stands": PieceKind.STAND,
    "pole": PieceKind.STAND,
    "poles": PieceKind.STAND,
}


def described(plan: Plan, line: str) -> list[PieceLine]:
    """`6 XLR 5 m, 2 XLR 10 m, blue case`: each piece with its count; the case holds all that stands before it.

    plan: with the user's own classes, which are found too.

    Raises NotUnderstoodError: nothing is called so, or a count or length that cannot be.
    """
    found: list[PieceLine] = []
    for clause in _clauses(plan, line):
        if _is_case(clause) and found:
            found = [one if one.piece.case else replace(one, piece=replace(one.piece, case=clause)) for one in found]
            continue
        found.append(one_described(plan, clause))
    if not found:
        raise NotUnderstoodError("say what lies in the trunk: 6 XLR 5 m, 2 XLR 10 m, blue case")
    return found


def _clauses(plan: Plan, line: str) -> Iterator[str]:
    """What stands between the commas; those that are part of a cable's name stay in it."""
    tails = {
        tail.strip().casefold()
        for lead in (*plan.leads.values(), *built_in().leads.values())
        for tail in lead.label.split(",")[1:]
    }
    held = ""
    for part in filter(None, (one.strip() for one in line.split(","))):
        if held and _LENGTH.sub("", part).casefold() in tails:
            held = f"{held}, {part}"
            continue
        if held:
            yield held
        held = part
    if held:
        yield held


def _is_case(clause: str) -> bool:
    return clause.split()[-1].casefold() in _CASES and not clause[0].isdigit()


def one_described(plan: Plan, clause: str) -> PieceLine:
    """`6 XLR 5 m`: one thing with its count. Raises as `described`."""
    said = _CLAUSE.fullmatch(clause)
    assert said is not None  # every part of it may be left out
    count, name = int(said["count"] or 1), said["name"].strip()
    length, unit = (said["first"], said["first_unit"]) if said["first"] else (said["length"], said["unit"])
    length_m = round(float(length or 0.0) * (M_PER_FT if unit and unit.casefold() != "m" else 1.0), 2)
    if not name or name.isdigit():
        raise NotUnderstoodError(f"'{clause}': say what it is: 6 XLR 5 m")
    if not 1 <= count <= MOST_OF_A_KIND:
        raise NotUnderstoodError(f"'{clause}': from 1 to {MOST_OF_A_KIND} of a kind")
    if length_m > LONGEST_LEAD_M:
        raise NotUnderstoodError(f"'{clause}': a cable is at most {LONGEST_LEAD_M:g} m long")
    words = split_words(name)
    kind = next((_WORDS[word] for word in reversed(words) if word in _WORDS), None)
    wh = float(said["wh"]) if said["wh"] else None
    if kind is not None and not length_m:
        return PieceLine(Piece(id="", kind=kind, label=name, wh=wh), count)
    lead = _lead(plan, words, length_m)
    if lead is not None:
        length = length_m or lead.short_m or 0.0
        if not length:
            raise NotUnderstoodError(f"'{clause}': say how long it is: {count} {lead.label} 5 m")
        return PieceLine(Piece(id="", kind=PieceKind.CABLE, label=lead.label, what=lead.id, length_m=length), count)
    if length_m:
        raise NotUnderstoodError(f"no cable is called '{name}'")
    # A name may have no word by which classes are found: it is the user's own then.
    device = next(iter(find_classes(plan, words)), None) if words else None
    if device is not None:
        return PieceLine(Piece(id="", kind=PieceKind.DEVICE, label=device.label, what=device.id), count)
    return PieceLine(Piece(id="", kind=PieceKind.OTHER, label=name), count)


def _lead(plan: Plan, words: Sequence[str], length_m: float) -> LeadClass | None:
    """The cable that is meant: one of just that name, else one whose name begins so, else the shortest name; with a length, one that
    is made to length."""
    singular = [
        word[:-1] if word.endswith("s") and len(word) > 3 else word for word in words if word not in ("cable", "cables")
    ]
    found = list(find_leads({**plan.leads, **built_in().leads}, singular or words))
    found = [lead for lead in found if lead.id not in ("radio", "shoe")]
    return min(
        found,
        key=lambda lead: (
            split_words(lead.label) != singular,
            split_words(lead.label)[: len(singular)] != singular,
            bool(length_m) and lead.is_adapter and abs((lead.short_m or 0.0) - length_m) > 0.01,
            len(lead.label),
        ),
        default=None,
    )


def pieces_of(found: Sequence[PieceLine], ids: Iterator[str]) -> list[Piece]:
    """As they are kept: cables and devices one by one, of anything else as many as there are in one."""
    made = []
    for one in found:
        if one.piece.kind in (PieceKind.CABLE, PieceKind.DEVICE):
            made += [replace(one.piece, id=next(ids)) for _ in range(one.count)]
        else:
            made.append(replace(one.piece, id=next(ids), count=one.count))
    return made


def class_of(plan: Plan, piece: Piece) -> LeadClass | DeviceClass | None:
    """What a piece is, by the catalogue or the user's own; None where that is not known any more."""
    if piece.kind is PieceKind.CABLE:
        return plan.leads.get(piece.what) or built_in().leads.get(piece.what)
    return plan.classes.get(piece.what) or built_in().devices.get(piece.what)
