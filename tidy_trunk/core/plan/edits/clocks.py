"""Edits on time: jams, breaks, and how fast two clocks were measured to part."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.clocks import Break, Jam, JamOver, PairDrift, pair_key
from tidy_trunk.core.plan.edits.base import device_of, find, free_id, put, with_device, without
from tidy_trunk.core.plan.model import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class SetJam:
    """From whom a device is set, over what and when; a giver of None takes it away.

    at_min: minutes since midnight; they are kept in order, each once.
    """

    device: str
    giver: str | None
    over: JamOver = JamOver.LEAD
    at_min: tuple[int, ...] = ()

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        jam = None
        if self.giver is not None:
            jam = Jam(giver=device_of(plan, self.giver).id, over=self.over, at_min=tuple(sorted(set(self.at_min))))
        return with_device(plan, replace(device, jam=jam))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetBreak:
    """A break of the day, new or changed."""

    label: str
    at_min: int
    length_min: int
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        break_id = self.id or free_id(self.label, plan.breaks)
        item = Break(id=break_id, label=self.label.strip(), at_min=self.at_min, length_min=self.length_min)
        breaks = put(plan.breaks, break_id, item)
        return replace(plan, breaks=dict(sorted(breaks.items(), key=lambda entry: (entry[1].at_min, entry[0]))))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveBreak:
    """A break that is none."""

    id: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.breaks, self.id, "break")
        return replace(plan, breaks=without(plan.breaks, self.id))


@dataclass(frozen=True, slots=True, kw_only=True)
class TakePairDrift:
    """What two clocks were measured to part by takes the place of what their classes are good for."""

    drift: PairDrift

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, pair_drifts=put(plan.pair_drifts, self.drift.key, self.drift))


@dataclass(frozen=True, slots=True, kw_only=True)
class DropPairDrift:
    """Back to what the classes of two clocks are good for."""

    first: str
    second: str

    def apply(self, plan: Plan) -> Plan:
        key = pair_key(self.first, self.second)
        find(plan.pair_drifts, key, "measured pair of clocks")
        return replace(plan, pair_drifts=without(plan.pair_drifts, key))
