"""Edits on the day as it is to be shot."""

import math
from dataclasses import dataclass, replace
from typing import TypeVar

from tidy_trunk.core.plan.clocks import Break
from tidy_trunk.core.plan.edits.base import device_of, find, free_id, put, with_device, without
from tidy_trunk.core.plan.model import Plan
from tidy_trunk.core.plan.shooting import BETWEEN_TAKES_MIN, CompanyMove, SetUp
from tidy_trunk.errors import InputError

_Planned = TypeVar("_Planned", CompanyMove, Break)


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveSetUp:
    """A set-up of the day, new or changed."""

    label: str
    at_min: int
    takes: int
    take_min: float
    between_min: float = BETWEEN_TAKES_MIN
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        key = self.id or free_id(self.label, plan.set_ups)
        item = SetUp(
            id=key,
            label=self.label.strip(),
            at_min=self.at_min,
            takes=self.takes,
            take_min=self.take_min,
            between_min=self.between_min,
        )
        return replace(plan, set_ups=_in_order(put(plan.set_ups, key, item)))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveSetUp:
    """A set-up that is not shot."""

    id: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.set_ups, self.id, "set-up")
        return replace(plan, set_ups=without(plan.set_ups, self.id))


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveMove:
    """A company move, new or changed."""

    label: str
    at_min: int
    length_min: int
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        key = self.id or free_id(self.label, plan.moves)
        item = CompanyMove(id=key, label=self.label.strip(), at_min=self.at_min, length_min=self.length_min)
        return replace(plan, moves=_in_order(put(plan.moves, key, item)))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveMove:
    """A company move that does not take place."""

    id: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.moves, self.id, "company move")
        return replace(plan, moves=without(plan.moves, self.id))


@dataclass(frozen=True, slots=True, kw_only=True)
class ShiftDay:
    """The day runs late, or early: whatever begins at `from_min` or later is moved by `by_min`, with the wrap.

    A set-up of which takes are left moves its later takes: it is parted in two.
    """

    from_min: int
    by_min: int

    def apply(self, plan: Plan) -> Plan:
        if not self.by_min:
            raise InputError("the day is shifted by no minutes: say by how many, 25 for later, −25 for earlier")
        parts = [part for item in plan.set_ups.values() for part in self._parts(item, plan)]
        return replace(
            plan,
            set_ups=_in_order({part.id: part for part in parts}),
            moves=_in_order({key: self._later(item) for key, item in plan.moves.items()}),
            breaks=_in_order({key: self._later(item) for key, item in plan.breaks.items()}),
            defaults=replace(plan.defaults, day_ends_min=plan.defaults.day_ends_min + self.by_min),
        )

    def _parts(self, item: SetUp, plan: Plan) -> tuple[SetUp, ...]:
        step = item.take_min + item.between_min
        done = sum(item.at_min + number * step < self.from_min for number in range(item.takes))
        if done == 0:
            return (replace(item, at_min=item.at_min + self.by_min),)
        if done == item.takes:
            return (item,)
        later = round(item.at_min + done * step) + self.by_min
        rest = replace(
            item,
            id=free_id(item.label, plan.set_ups),
            at_min=later,
            takes=item.takes - done,
            first_take=item.first_take + done,
        )
        return replace(item, takes=done), rest

    def _later(self, item: _Planned) -> _Planned:
        return item if item.at_min < self.from_min else replace(item, at_min=item.at_min + self.by_min)


@dataclass(frozen=True, slots=True, kw_only=True)
class AddTake:
    """One more take of a set-up; all that begins after it is later by as much."""

    set_up: str

    def apply(self, plan: Plan) -> Plan:
        item = find(plan.set_ups, self.set_up, "set-up")
        later = ShiftDay(from_min=math.ceil(item.ends_min), by_min=math.ceil(item.take_min + item.between_min))
        moved = later.apply(plan)
        return replace(moved, set_ups={**moved.set_ups, item.id: replace(item, takes=item.takes + 1)})


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceDevice:
    """Where a device stands, by a name; "" at the cart."""

    device: str
    place: str

    def apply(self, plan: Plan) -> Plan:
        return with_device(plan, replace(device_of(plan, self.device), place=self.place.strip()))


_Timed = TypeVar("_Timed", SetUp, CompanyMove, Break)


def _in_order(items: dict[str, _Timed]) -> dict[str, _Timed]:
    return dict(sorted(items.items(), key=lambda entry: (entry[1].at_min, entry[0])))
