"""A day on the set: what is done when, how long everything lasts, and what cannot be kept."""

from tidy_trunk.core.day import DayPlan, DayTask, DayTrouble, RenewalSpan, SlotKind, TaskKind, UnmetNeed
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.day import at, day_summary, held_words, holding_words, task_words, unkept_words, who_words


class DayTaskOut(Out):
    """Something to do. Times in minutes since midnight; at, by: as a watch shows them; by is "" where any time does.
    who: of the crew; "" of one who works alone."""

    id: str
    kind: TaskKind
    device: str
    what: str
    why: str
    at: str
    by: str
    who: str = ""
    at_min: float
    minutes: float
    by_min: Level
    place: str
    during: SlotKind
    held_min: float

    @classmethod
    def from_core(cls, index: PlanIndex, task: DayTask) -> "DayTaskOut":
        words = task_words(index, task)
        return cls(
            id=task.id,
            kind=task.kind,
            device=task.device,
            what=words.what,
            why=words.why,
            at=at(task.at_min),
            by=words.by,
            who=who_words(index, task.who),
            at_min=round(task.at_min, 2),
            minutes=task.minutes,
            by_min=task.by_min,
            place=task.place,
            during=task.slot.kind,
            held_min=round(task.held_min, 2),
        )


class UnkeptOut(Out):
    """What cannot be kept. at_min: when it happens; needed: what would do, in Wh of a battery, GB of a card or minutes
    of a pause."""

    what: DayTrouble
    kind: TaskKind | None
    device: str
    title: str
    text: str
    at_min: float
    limit_min: Level
    needed_min: Level
    needed: Level

    @classmethod
    def from_core(cls, index: PlanIndex, item: UnmetNeed) -> "UnkeptOut":
        words = unkept_words(index, item)
        return cls(
            what=item.what,
            kind=item.kind,
            device=item.device,
            title=words.title,
            text=words.text,
            at_min=round(item.at_min, 2),
            limit_min=item.limit_min,
            needed_min=item.needed_min,
            needed=item.needed,
        )


class HoldingOut(Out):
    """How long a battery, a card or a jam lasts; usual_min, least_min: null where it outlasts the day."""

    kind: TaskKind
    device: str
    label: str
    begins_min: float
    ends_min: float
    usual_min: Level
    least_min: Level

    @classmethod
    def from_core(cls, index: PlanIndex, item: RenewalSpan) -> "HoldingOut":
        return cls(
            kind=item.kind,
            device=item.device,
            label=holding_words(index, item),
            begins_min=round(item.begins_min, 2),
            ends_min=round(item.ends_min, 2),
            usual_min=item.usual_min,
            least_min=item.least_min,
        )


class TakeOut(Out):
    """A take that is planned."""

    set_up: str
    label: str
    number: int
    begins_min: float
    ends_min: float


class SpanOut(Out):
    """A set-up, break or company move."""

    id: str
    label: str
    at_min: float
    length_min: float


class SetUpOut(SpanOut):
    takes: int
    first_take: int
    take_min: float
    between_min: float


class DayOut(Out):
    """The day, or what is left of it. held: for what the set is held, and what would spare it. `begins_min` is its call, or the moment from which it was planned."""

    summary: str
    held: str
    begins_min: float
    ends_min: float
    call_min: int
    wrap_min: int
    date: str
    zone: str
    hands: int
    crew: str = ""
    temperature_c: float
    tasks: list[DayTaskOut]
    unkept: list[UnkeptOut]
    holdings: list[HoldingOut]
    takes: list[TakeOut]
    set_ups: list[SetUpOut]
    breaks: list[SpanOut]
    moves: list[SpanOut]
    interruptions: int
    is_best: bool

    @classmethod
    def from_core(cls, index: PlanIndex, day: DayPlan) -> "DayOut":
        plan, defaults = index.plan, index.plan.defaults
        return cls(
            summary=day_summary(day),
            held=held_words(index, day),
            begins_min=day.line.begins_min,
            ends_min=day.line.ends_min,
            call_min=defaults.day_begins_min,
            wrap_min=defaults.day_ends_min,
            date=defaults.date,
            zone=defaults.zone,
            hands=defaults.hands,
            crew=defaults.crew,
            temperature_c=defaults.temperature_c,
            tasks=[DayTaskOut.from_core(index, task) for task in day.tasks],
            unkept=[UnkeptOut.from_core(index, item) for item in day.unkept],
            holdings=[HoldingOut.from_core(index, item) for item in day.holdings],
            takes=[
                TakeOut(
                    set_up=take.set_up,
                    label=plan.set_ups[take.set_up].label,
                    number=take.number,
                    begins_min=take.begins_min,
                    ends_min=take.ends_min,
                )
                for take in day.line.takes
            ],
            set_ups=[
                SetUpOut(
                    id=item.id,
                    label=item.label,
                    at_min=item.at_min,
                    length_min=item.ends_min - item.at_min,
                    takes=item.takes,
                    first_take=item.first_take,
                    take_min=item.take_min,
                    between_min=item.between_min,
                )
                for item in plan.set_ups.values()
            ],
            breaks=[
                SpanOut(id=one.id, label=one.label, at_min=one.at_min, length_min=one.length_min)
                for one in plan.breaks.values()
            ],
            moves=[
                SpanOut(id=one.id, label=one.label, at_min=one.at_min, length_min=one.length_min)
                for one in plan.moves.values()
            ],
            interruptions=day.interruptions,
            is_best=day.is_best,
        )
