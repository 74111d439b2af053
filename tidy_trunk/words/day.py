"""The day: what is done, why then, and what cannot be kept."""

import math
from typing import Final, NamedTuple

from tidy_trunk.core.day import DayPlan, DayTask, DayTrouble, RenewalSpan, SlotKind, TaskKind, UnmetNeed
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import PlanIndex, clock_words, crew_names
from tidy_trunk.words.numbers import listed, many


class TaskWords(NamedTuple):
    """what: as one says it to the assistant; why: one sentence; by: when it must be over."""

    what: str
    why: str
    by: str


class TroubleWords(NamedTuple):
    """title: what is wrong; text: where, by how much, and what to do."""

    title: str
    text: str


def at(minutes: float) -> str:
    """A moment of the day, to the minute: `10:31`."""
    return clock_words(math.floor(minutes + 0.01))


def who_words(index: PlanIndex, who: int) -> str:
    """Whose work it is, by name where the crew has names; "" of one who works alone."""
    defaults = index.plan.defaults
    if defaults.hands == 1:
        return ""
    names = crew_names(defaults.crew)
    return names[who] if who < len(names) else f"person {who + 1}"


def task_words(index: PlanIndex, task: DayTask) -> TaskWords:
    return TaskWords(_what(index, task), _why(index, task), at(task.by_min) if math.isfinite(task.by_min) else "")


def _label(index: PlanIndex, device: str) -> str:
    return index.placed(device).label


def _what(index: PlanIndex, task: DayTask) -> str:
    device = _label(index, task.device) if task.device else ""
    names = listed([_label(index, one) for one in task.devices]) if task.devices else ""
    match task.kind:
        case TaskKind.SWITCH_ON:
            return f"Switch on {names}"
        case TaskKind.BATTERY:
            return f"Change the battery of {device}"
        case TaskKind.MEDIA:
            return f"Change the card of {device}" if _has_card(index, task.device) else f"Empty the memory of {device}"
        case TaskKind.JAM:
            return f"Jam {device} from {_label(index, task.giver)}"
        case TaskKind.CHECK:
            return "Go through the short checklist"
        case TaskKind.LINE_UP:
            return f"Send tone to {device} and read its meter"
        case TaskKind.ROOM_TONE:
            return "Record room tone"
        case TaskKind.OFFLOAD:
            return "Copy the cards, and check the copies"


def _has_card(index: PlanIndex, device: str) -> bool:
    return index.placed(device).device_class.traits.media != "internal"


def _why(index: PlanIndex, task: DayTask) -> str:
    renews = _renews(task) if math.isfinite(task.by_min) else ""
    holds = ""
    if task.slot.kind is SlotKind.BETWEEN:
        label = index.plan.set_ups[task.slot.beside].label
        holds = f"Between two takes of {label}: "
        holds += f"the set waits {math.ceil(task.held_min)} min." if task.held_min > 0.5 else "the set need not wait."
    match task.kind:
        case TaskKind.SWITCH_ON:
            return "A clock keeps time only once it is warm."
        case TaskKind.CHECK:
            return _after(index, task, "Before the first take.")
        case TaskKind.LINE_UP if task.id.endswith(".again"):
            return "Something on its way was changed since it was read."
        case TaskKind.LINE_UP:
            return _after(index, task, "Before the first take; then listen to a recording.")
        case TaskKind.ROOM_TONE:
            return "Before everybody leaves this place; all quiet for a minute."
        case TaskKind.OFFLOAD:
            return (
                "A card that fails then costs half a day at the most. Never format before the second copy is checked."
            )
    return " ".join(part for part in (renews, holds) if part)


def _after(index: PlanIndex, task: DayTask, usual: str) -> str:
    if not task.about:
        return usual
    return f"All was unplugged for the move to {index.plan.moves[task.about].label}."


def _renews(task: DayTask) -> str:
    """How long what is there may last, and what comes in its place."""
    ends = f"It is sure until {at(task.by_min)}"
    if task.is_first:
        ends = "Nobody has set it today"
    elif task.kind is TaskKind.JAM:
        ends = f"Without it the drift may be too much from {at(task.by_min)} on"
    if task.is_first:
        return (
            f"{ends}." if task.lasts_until_min is None else f"{ends}; it holds until about {at(task.lasts_until_min)}."
        )
    if task.lasts_until_min is None:
        return f"{ends}; the next one lasts for the rest of the day."
    return f"{ends}; the next one lasts until about {at(task.lasts_until_min)}."


def unkept_words(index: PlanIndex, item: UnmetNeed) -> TroubleWords:
    device = _label(index, item.device) if item.device else ""
    label = index.plan.set_ups[item.take].label if item.take else ""
    limit, needed = f"{item.limit_min:.0f} min", f"{math.ceil(item.needed_min)} min"
    match item.what:
        case DayTrouble.RUNS_OUT:
            return _runs_out(index, item, device, label)
        case DayTrouble.NOT_DONE:
            return TroubleWords(f"No time for it: {_errand(index, item)}", _no_time(index, item, needed))
        case DayTrouble.CLIP_LIMIT:
            return TroubleWords(
                f"{device} stops after {limit}",
                f"A take of {label} is {needed} long. Cut it in two, or {_runs_through(index, item, device)}.",
            )
        case DayTrouble.OVERHEATS:
            return _overheats(index, item, device, label)
        case DayTrouble.TWO_FILES:
            return TroubleWords(
                f"{device} writes two files",
                f"A take of {label} is {needed} long, and a plain WAV of these tracks is full after {limit}. Tell editorial, "
                f"or record fewer tracks.",
            )
        case DayTrouble.OVERLAP:
            return TroubleWords(f"{label} and {_other(index, item)} overlap", f"Both want {at(item.at_min)}. Move one.")
        case DayTrouble.BEFORE_CALL:
            call = at(index.plan.defaults.day_begins_min)
            return TroubleWords(
                f"{label} is shot before call",
                f"It begins at {at(item.at_min)}, and call is at {call}: nothing is planned for it. Call earlier; or, where it is shot "
                f"after midnight, let the day go on until then, and say the set-up again.",
            )
        case DayTrouble.AFTER_WRAP:
            return TroubleWords(
                f"{label} is shot after wrap",
                f"The last take ends {needed} after {at(item.at_min)}. Wrap later, or plan fewer takes.",
            )


def _overheats(index: PlanIndex, item: UnmetNeed, device: str, label: str) -> TroubleWords:
    lasts = f"By its figure it records {item.limit_min:.0f} min in one go, and {at(item.at_min)} would be too much"
    if item.needed is None:
        fix = f"A take of {math.ceil(item.needed_min)} min is too long for it: cut it in two"
    else:
        fix = f"Leave it off for {math.ceil(item.needed)} min more before that take"
    return TroubleWords(
        f"{device} may get too hot in {label}",
        f"{lasts}. {fix}, keep it in the shade, or {_runs_through(index, item, device)}.",
    )


def _no_time(index: PlanIndex, item: UnmetNeed, needed: str) -> str:
    """What would make time for it: another hour where there is none, another pair of hands where it is all taken."""
    if item.limit_min >= item.needed_min:
        return (
            f"It takes {needed} from {at(item.at_min)} on, and all that time is taken. Call earlier, or take one more "
            f"pair of hands: set job hands {index.plan.defaults.hands + 1}."
        )
    there = f"It takes {needed}, and there are {math.floor(item.limit_min)}"
    if item.kind is TaskKind.ROOM_TONE:
        return f"{there} after the first take here. Leave this place later."
    if item.other:
        return f"{there} between the move and the next take. Plan that take later."
    return f"{there} between call and the first take. Call earlier, or plan that take later."


def _runs_through(index: PlanIndex, item: UnmetNeed, device: str) -> str:
    """What goes on while a camera starts a new clip: a recorder, where there is one."""
    fed = {run.receiving.device for run in index.plan.runs.values()}
    recorders = [
        placed.label
        for placed in index.placed_devices()
        if placed.device_class.kind is DeviceKind.RECORDER and placed.device.id in fed
    ]
    again = f"start {device} again at {at(item.at_min)}"
    return f"let {recorders[0]} run through and {again}" if recorders else f"{again}, and record on a second device too"


def _other(index: PlanIndex, item: UnmetNeed) -> str:
    plan = index.plan
    if item.other in plan.set_ups:
        return plan.set_ups[item.other].label
    return plan.breaks[item.other].label if item.other in plan.breaks else f"the move to {plan.moves[item.other].label}"


def _errand(index: PlanIndex, item: UnmetNeed) -> str:
    match item.kind:
        case TaskKind.LINE_UP:
            return f"tone to {_label(index, item.device)}"
        case TaskKind.ROOM_TONE:
            return "room tone"
        case TaskKind.OFFLOAD:
            return "copies of the cards"
        case TaskKind.SWITCH_ON:
            return "warm-up"
    return "the short checklist"


def _runs_out(index: PlanIndex, item: UnmetNeed, device: str, label: str) -> TroubleWords:
    lasts = f"It lasts {item.limit_min:.0f} min at the least, and {math.ceil(item.needed_min)} are needed"
    match item.kind:
        case TaskKind.BATTERY:
            wants = f"a battery of {math.ceil(item.needed or 0)} Wh, or mains" if item.needed else "mains"
            return TroubleWords(
                f"The battery of {device} may end in {label}", f"{lasts}. Use {wants}, or plan shorter takes."
            )
        case TaskKind.MEDIA:
            wants = f"{math.ceil(item.needed or 0)} GB" if item.needed else "more room"
            return TroubleWords(
                f"The card of {device} may be full in {label}", f"{lasts}. Use {wants}, or plan shorter takes."
            )
    return TroubleWords(
        f"{device} may drift too far in {label}",
        f"A jam holds for {item.limit_min:.0f} min, and {math.ceil(item.needed_min)} are needed. Leave a timecode generator on it.",
    )


def holding_words(index: PlanIndex, item: RenewalSpan) -> str:
    """Whose, and what: `Pack A, battery`."""
    what = {TaskKind.BATTERY: "battery", TaskKind.MEDIA: "card", TaskKind.JAM: "timecode"}[item.kind]
    return f"{_label(index, item.device)}, {what}"


def day_summary(plan: DayPlan) -> str:
    """The day in one line."""
    count = plan.interruptions
    holds = "the set is never held" if not count else f"the set is held {many(count, 'time')}"
    left = f"; {many(len(plan.unkept), 'problem')}" if plan.unkept else ""
    return f"{many(len(plan.tasks), 'thing')} to do, {holds}{left}."


_SPARED: Final = {
    TaskKind.BATTERY: "the battery of {}: mains, or a bigger one, would spare that",
    TaskKind.MEDIA: "the card of {}: a bigger one would spare that",
    TaskKind.JAM: "a jam of {}: a timecode generator that stays on it would spare that",
}
"""What would keep the set from being held, by what it is held for. [HANDBOOK] §§8, 9"""


def held_words(index: PlanIndex, plan: DayPlan) -> str:
    """For what the set is held, and what would spare it; "" where it never is."""
    held = [task for task in plan.tasks if task.slot.kind is SlotKind.BETWEEN and task.kind in _SPARED]
    devices: dict[TaskKind, list[str]] = {}
    for task in held:
        label = _label(index, task.device)
        if label not in devices.setdefault(task.kind, []):
            devices[task.kind].append(label)
    told = [_SPARED[kind].format(listed(names)) for kind, names in devices.items()]
    return f"Held for {'; for '.join(told)}." if told else ""
