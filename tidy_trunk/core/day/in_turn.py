"""What is done in one free time, worked through in turn by the hands that there are."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.day.needs import Errand, Series, TaskKind
from tidy_trunk.core.day.timeline import CRUMB_MIN, Slot, SlotKind, SlotPart, Timeline

_RANK: Final = {kind: number for number, kind in enumerate(TaskKind)}
"""Order of the work at one device. [HANDBOOK] §1"""


@dataclass(frozen=True, slots=True)
class AssignedWork:
    """Something, and the piece of the day in which it is done, by its place in the timeline."""

    task: Series | Errand
    piece: int


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkedSlot:
    """A free time as it is worked. starts_min: of each thing, in its order; hands: who does it,
    from 0 on; late_min: by how much anything is over later than the
    end of its piece, or of the time itself with the way back; held_min: by how long a set waits, between two takes."""

    assigned: tuple[AssignedWork, ...]
    starts_min: tuple[float, ...]
    hands: tuple[int, ...]
    late_min: float
    held_min: float


def work_through(
    line: Timeline, slot: Slot, assigned: Sequence[AssignedWork], hands: int, walk_min: float
) -> WorkedSlot:
    """Piece by piece, in each by place and in the order of the work; whoever is free first does the next thing."""
    if len(assigned) > 1:
        assigned = sorted(
            assigned, key=lambda item: (item.piece, item.task.place, _RANK[item.task.kind], item.task.device)
        )
    free = [(slot.begins_min, "")] * min(
        hands, max(len(assigned), 1)
    )  # when each pair of hands is free, and where it is
    ready: dict[str, float] = {}
    starts, whose, late = [], [], 0.0
    for item in assigned:
        task, piece = item.task, line.pieces[item.piece]
        earliest = max(_release(task, slot, piece), ready.get(task.device, 0.0))
        begins = [max(at + _walk(where, task.place, walk_min), earliest) for at, where in free]
        who = begins.index(min(begins))
        ends = begins[who] + task.minutes
        free[who] = (ends, task.place)
        ready[task.device] = ends
        starts.append(begins[who])
        whose.append(who)
        late = max(late, ends - piece.ends_min)
    back = max(at + _walk(where, "", walk_min) for at, where in free)
    is_between = slot.kind is SlotKind.BETWEEN
    return WorkedSlot(
        assigned=tuple(assigned),
        starts_min=tuple(starts),
        hands=tuple(whose),
        late_min=0.0 if is_between else max(late, back - slot.ends_min),
        held_min=max(0.0, back - slot.ends_min) if is_between else 0.0,
    )


def _release(task: Series | Errand, slot: Slot, piece: SlotPart) -> float:
    """What takes longer than a piece is begun before it, and is over by its end."""
    grain = piece.ends_min - piece.begins_min
    begins = max(slot.begins_min, piece.ends_min - math.ceil(task.minutes / grain - CRUMB_MIN) * grain)
    return max(begins, task.begins_min) if isinstance(task, Errand) else begins


def _walk(here: str, there: str, walk_min: float) -> float:
    """From one place to another; always by way of the cart."""
    return 0.0 if here == there else walk_min * (bool(here) + bool(there))
