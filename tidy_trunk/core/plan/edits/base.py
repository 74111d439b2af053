"""What an edit is, how several are applied as one, and the small parts that all of them share."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Protocol, TypeVar

from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.model import Device, Plan
from tidy_trunk.core.plan.validate import validate
from tidy_trunk.errors import UnknownItemError

_T = TypeVar("_T")


class Edit(Protocol):
    """A command on a plan. `apply` raises PlanError or InputError where it cannot be done, and changes nothing."""

    def apply(self, plan: Plan) -> Plan: ...


def free_id(wanted: str, taken: Mapping[str, object]) -> str:
    """A short readable id made from a label, not yet taken."""
    slug = re.sub(r"[^a-z0-9]+", "-", wanted.lower()).strip("-")[:40] or "item"
    number, candidate = 1, slug
    while candidate in taken:
        number += 1
        candidate = f"{slug}-{number}"
    return candidate


def edited(plan: Plan, edits: Iterable[Edit]) -> Plan:
    """The plan with edits done in order, to try them out: not checked as a whole. Raises PlanError."""
    for edit in edits:
        plan = edit.apply(plan)
    return plan


def apply_edits(plan: Plan, edits: Iterable[Edit]) -> Plan:
    """The plan with edits done in order, checked as a whole.

    Raises:
        PlanError, InputError: One of them cannot be done; the plan given stays as it was.
    """
    plan = edited(plan, edits)
    validate(plan)
    return plan


def put(items: Mapping[str, _T], key: str, value: _T) -> dict[str, _T]:
    return {**items, key: value}


def without(items: Mapping[str, _T], key: str) -> dict[str, _T]:
    return {name: value for name, value in items.items() if name != key}


def device_of(plan: Plan, device_id: str) -> Device:
    return PlanIndex(plan).placed(device_id).device


def with_device(plan: Plan, device: Device) -> Plan:
    return replace(plan, devices=put(plan.devices, device.id, device))


def find(items: Mapping[str, _T], key: str, what: str) -> _T:
    if key not in items:
        raise UnknownItemError(f"there is no {what} '{key}'; the job has {', '.join(items) or 'none'}")
    return items[key]
