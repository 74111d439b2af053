"""What an edit is, how several are applied as one, and the small parts that all of them share."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Final, Protocol, TypeVar

from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.model import Device, Plan
from tidy_trunk.core.plan.validate import validate
from tidy_trunk.errors import UnknownItemError

_T = TypeVar("_T")


class Edit(Protocol):
    """A command on a plan. `apply` raises PlanError or InputError where it cannot be done, and changes nothing."""

    def apply(self, plan: Plan) -> Plan: ...

    def sentence(self, plan: Plan) -> str:
        """What it does to this plan (the state before), in plain words."""
        ...


def free_id(wanted: str, taken: Mapping[str, object]) -> str:
    """A short readable id made from a label, not yet taken."""
    slug = re.sub(r"[^a-z0-9]+", "-", wanted.lower()).strip("-")[:40] or "item"
    number, candidate = 1, slug
    while candidate in taken:
        number += 1
        candidate = f"{slug}-{number}"
    return candidate


MOST_SENTENCES: Final = 5
"""ASSUMED_ what one line of the history holds: the rest is told by comparing states."""


def edited(plan: Plan, edits: Iterable[Edit]) -> Plan:
    """The plan with edits done in order, to try them out: neither worded nor checked as a whole. Raises PlanError."""
    for edit in edits:
        plan = edit.apply(plan)
    return plan


def sentences(plan: Plan, edits: Iterable[Edit]) -> Iterator[str]:
    """What each of several edits does, each to the plan that the ones before it have made. Raises PlanError."""
    for edit in edits:
        yield edit.sentence(plan)
        plan = edit.apply(plan)


def apply_edits(plan: Plan, edits: Sequence[Edit]) -> tuple[Plan, str]:
    """Apply edits in order; the new plan and one sentence for all of them.

    Raises:
        PlanError, InputError: One of them cannot be done; the plan given stays as it was.
    """
    sentences = []
    for edit in edits:
        sentences.append(edit.sentence(plan))
        plan = edit.apply(plan)
    validate(plan)
    told = sentences if len(sentences) <= MOST_SENTENCES else sentences[: MOST_SENTENCES - 1]
    more = f"; and {len(sentences) - len(told)} more" if len(told) < len(sentences) else ""
    return plan, "; ".join(told) + more


def put(items: Mapping[str, _T], key: str, value: _T) -> dict[str, _T]:
    return {**items, key: value}


def without(items: Mapping[str, _T], key: str) -> dict[str, _T]:
    return {name: value for name, value in items.items() if name != key}


def device_of(plan: Plan, device_id: str) -> Device:
    return PlanIndex(plan).unit(device_id).device


def with_device(plan: Plan, device: Device) -> Plan:
    return replace(plan, devices=put(plan.devices, device.id, device))


def find(items: Mapping[str, _T], key: str, what: str) -> _T:
    if key not in items:
        raise UnknownItemError(f"there is no {what} '{key}'; the job has {', '.join(items) or 'none'}")
    return items[key]
