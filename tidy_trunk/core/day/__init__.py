"""The day on the set: what runs out, what is done when, and what cannot be kept."""

from tidy_trunk.core.day.day_plan import DayPlan, DayTask, Holding, Trouble, Unkept, plan_day
from tidy_trunk.core.day.needs import NOTHING_DONE, DayProgress, Renewed, TaskKind
from tidy_trunk.core.day.timeline import Slot, SlotKind, Timeline, timeline

__all__ = [
    "NOTHING_DONE",
    "DayPlan",
    "DayProgress",
    "DayTask",
    "Holding",
    "Renewed",
    "Slot",
    "SlotKind",
    "TaskKind",
    "Timeline",
    "Trouble",
    "Unkept",
    "plan_day",
    "timeline",
]
