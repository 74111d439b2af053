"""Ear training as it is shown."""

from tidy_trunk.core.drill import EarTask
from tidy_trunk.results.numbers import Level, Out


class ThresholdOut(Out):
    """The difference that was just heard in a session."""

    who: str
    begun: str
    threshold_db: float


class EarTaskOut(Out):
    """Something to listen for. found: thresholds, the oldest first."""

    task: EarTask
    label: str
    question: str
    found: list[ThresholdOut]


class EarOut(Out):
    """A session. trial: number of the pair that is to be answered; turns: turning points so far; was_right: the last answer;
    difference_db: of this pair; threshold_db: once it is over."""

    id: str
    task: EarTask
    label: str
    question: str
    trial: int
    turns: int
    was_right: bool | None
    difference_db: float
    threshold_db: Level
