"""What to practise next: a kind of fault that was missed or took long comes back soon, one that is mastered late."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final

MASTERED: Final = 70
"""ASSUMED_ score from which a kind of fault was found well: at most half as long again as the shortest order."""

DAYS: Final = (0, 1, 3, 7, 21)
"""Days after which a kind is due again, by how often running it was found well: each time about three times later. [PRACTICE] of
spaced repetition"""


@dataclass(frozen=True, slots=True)
class PlayedFault:
    """kind: of the fault that was hidden, a key of `LIKELY`; score: 0 where it was missed."""

    kind: str
    score: int
    ended: datetime


@dataclass(frozen=True, slots=True)
class KindProgress:
    """found: how often in a row it was found well; played: how often it was played; due: when it is due again."""

    kind: str
    found: int
    played: int
    due: datetime


def progress(played: Sequence[PlayedFault]) -> tuple[KindProgress, ...]:
    """By kind, what is due first coming first."""
    found: dict[str, KindProgress] = {}
    for one in sorted(played, key=lambda one: one.ended):
        before = found.get(one.kind)
        in_row = (before.found + 1 if before is not None else 1) if one.score >= MASTERED else 0
        due = one.ended + timedelta(days=DAYS[min(in_row, len(DAYS) - 1)])
        found[one.kind] = KindProgress(one.kind, in_row, 1 if before is None else before.played + 1, due)
    return tuple(sorted(found.values(), key=lambda one: (one.due, one.kind)))


def due_kind(played: Sequence[PlayedFault], now: datetime) -> str:
    """The kind to practise now; "" where none is due."""
    return next((one.kind for one in progress(played) if one.due <= now), "")
