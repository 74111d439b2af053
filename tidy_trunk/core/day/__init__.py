"""The day on the set: what runs out, what is done when, and what cannot be kept."""

from tidy_trunk.core.day.day_plan import DayPlan, DayTask, DayTrouble, RenewalSpan, UnmetNeed, plan_day
from tidy_trunk.core.day.needs import NOTHING_DONE, DayProgress, Renewal, TaskKind
from tidy_trunk.core.day.timeline import Slot, SlotKind, Timeline, timeline

__all__ = [
    "NOTHING_DONE",
    "DayPlan",
    "DayProgress",
    "DayTask",
    "DayTrouble",
    "Renewal",
    "RenewalSpan",
    "Slot",
    "SlotKind",
    "TaskKind",
    "Timeline",
    "UnmetNeed",
    "plan_day",
    "timeline",
]
