"""Edits on what was found when a chain was lined up."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.edits.base import find, put, without
from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.line_ups import LineUp
from tidy_trunk.core.plan.model import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeLineUp:
    """What a track showed takes the place of what was thought of it."""

    line_up: LineUp

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, line_ups=put(plan.line_ups, self.line_up.track, self.line_up))

    def sentence(self, plan: Plan) -> str:
        found, before = self.line_up, plan.line_ups.get(self.line_up.track)
        if before is not None and before.when == found.when and before.read_dbfs == found.read_dbfs:
            return f"Keep the line-up of {track_words(plan, found.track)}"
        read, sent = (f"{level:.1f}".replace("-", "−") for level in (found.read_dbfs, found.sent_dbfs))
        sender = PlanIndex(plan).unit(found.sender).label
        return f"Line up {track_words(plan, found.track)}: {read} dBFS for {sent} from {sender}"


@dataclass(frozen=True, slots=True, kw_only=True)
class DropLineUp:
    """Back to what the figures say of a track."""

    track: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.line_ups, self.track, "line-up of the track")
        return replace(plan, line_ups=without(plan.line_ups, self.track))

    def sentence(self, plan: Plan) -> str:
        return f"Forget the line-up of {track_words(plan, self.track)}"


def track_words(plan: Plan, track: str) -> str:
    """A track as it is named in sentences; its id where its device is gone."""
    device, _, bus = track.partition(".")
    return PlanIndex(plan).unit(device).bus_label(bus) if device in plan.devices else track
