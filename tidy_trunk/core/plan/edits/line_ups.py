"""Edits on what was found when a chain was lined up."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.edits.base import find, put, without
from tidy_trunk.core.plan.line_ups import LineUp
from tidy_trunk.core.plan.model import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeLineUp:
    """What a track showed takes the place of what was thought of it."""

    line_up: LineUp

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, line_ups=put(plan.line_ups, self.line_up.track, self.line_up))


@dataclass(frozen=True, slots=True, kw_only=True)
class DropLineUp:
    """Back to what the figures say of a track."""

    track: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.line_ups, self.track, "line-up of the track")
        return replace(plan, line_ups=without(plan.line_ups, self.track))
