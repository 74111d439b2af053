"""Lines about the day as it is to be shot: set-ups and their takes, company moves, and a day that runs late."""

import re
from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.command.clock import minutes, of_day
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal, single
from tidy_trunk.core.command.words import find_devices, number, split_words
from tidy_trunk.core.plan import (
    BETWEEN_TAKES_MIN,
    AddTake,
    PlaceDevice,
    Plan,
    PlanIndex,
    RemoveSetUp,
    SaveMove,
    SaveSetUp,
    SetUp,
    ShiftDay,
)

_NUMBER: Final = r"\d+(?:[.,]\d+)?"
_LENGTH: Final = rf"(?P<much>{_NUMBER})\s*(?P<unit>s|sec\w*|h|hours?|min\w*)"
_TAKES: Final = re.compile(
    rf"(?:(?P<takes>\d+)\s*takes?\s*(?:of|à|x|×)?\s*)?{_LENGTH}(?:\s*(?:each)?,?\s*(?P<between>{_NUMBER})\s*min\w* between)?"
)
_SLIP: Final = re.compile(rf"{_LENGTH}(?:\s+(?P<early>early|earlier|late|later))?(?:\s+from\s+(?P<since>\S+))?")
_MINUTES: Final = {"s": 1 / 60, "h": 60.0, "m": 1.0}

USUAL_MOVE_MIN: Final = 45
"""ASSUMED_ length of a company move of which nothing is said."""


def set_up(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`12C at 10:30, 4 takes of 3 min, 2 min between`; one of the same name is changed. `12C none` takes it away."""
    label, _, when = rest.partition(" at ")
    if not when and rest.strip().lower().endswith((" none", " off")):
        yield single(plan, RemoveSetUp(id=_known(plan, rest.strip().rpartition(" ")[0]).id))
        return
    at, _, takes = when.partition(",")
    if not label.strip() or not takes.strip():
        raise NotUnderstoodError(
            f"'{rest.strip()}': say when, and how many takes: set-up 12C at 10:30, 4 takes of 3 min"
        )
    found = _TAKES.fullmatch(takes.strip().lower())
    if found is None:
        raise NotUnderstoodError(f"'{takes.strip()}': say how many takes of what length: 4 takes of 3 min")
    known = _named(plan, label)
    yield single(
        plan,
        SaveSetUp(
            label=label.strip(),
            at_min=of_day(plan, minutes(at)),
            takes=int(found["takes"] or 1),
            take_min=_length_min(found),
            between_min=number(found["between"]) if found["between"] else BETWEEN_TAKES_MIN,
            id=known.id if known else None,
        ),
    )


def company(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`move to the tower at 13:30, 40 min`; one to the same place is changed."""
    found = re.fullmatch(r"move to (?P<label>.+?) at (?P<at>\S+?)(?:,\s*(?P<length>\d+)\s*min\w*)?", rest.strip(), re.I)
    if found is None:
        raise NotUnderstoodError(f"'{rest.strip()}': say where to and when: company move to the tower at 13:30, 40 min")
    label = found["label"].strip()
    known = next((item for item in plan.moves.values() if item.label.lower() == label.lower()), None)
    length = int(found["length"] or USUAL_MOVE_MIN)
    yield single(
        plan,
        SaveMove(
            label=label, at_min=of_day(plan, minutes(found["at"])), length_min=length, id=known.id if known else None
        ),
    )


def slip(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`25 min from 11:40`, `10 min early from 11:40`: all that begins from then on is later; the whole day where none is said."""
    found = _SLIP.fullmatch(rest.strip().lower())
    if found is None:
        raise NotUnderstoodError(f"'{rest.strip()}': say by how much and since when: slip 25 min from 11:40")
    sign = -1 if (found["early"] or "").startswith("early") else 1
    since = of_day(plan, minutes(found["since"])) if found["since"] else plan.defaults.day_begins_min
    yield single(plan, ShiftDay(from_min=since, by_min=sign * round(_length_min(found))))


def again(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`12C`: one more take of it."""
    yield single(plan, AddTake(set_up=_known(plan, rest).id))


def place(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera b at the walkway`, `camera b at cart`: where a device stands."""
    who, _, where = rest.partition(" at ")
    placed_devices = [match.placed for match in find_devices(PlanIndex(plan), split_words(who)) if not match.rest]
    if not where.strip() or not placed_devices:
        raise NotUnderstoodError(f"'{rest.strip()}': say which device stands where: place camera b at the walkway")
    name = "" if where.strip().lower() in ("cart", "the cart") else where.strip()
    for placed in placed_devices:
        yield single(plan, PlaceDevice(device=placed.device.id, place=name))


def _named(plan: Plan, label: str) -> SetUp | None:
    return next((item for item in plan.set_ups.values() if item.label.lower() == label.strip().lower()), None)


def _known(plan: Plan, label: str) -> SetUp:
    found = _named(plan, label)
    if found is None:
        known = ", ".join(item.label for item in plan.set_ups.values())
        raise NotUnderstoodError(
            f"no set-up is called '{label.strip()}': {f'there are {known}' if known else 'none is planned yet'}"
        )
    return found


def _length_min(found: re.Match[str]) -> float:
    return number(found["much"]) * _MINUTES[found["unit"][0]]
