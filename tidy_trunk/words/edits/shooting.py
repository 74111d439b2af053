"""Edits on the day as it is to be shot."""

from tidy_trunk.core.plan import (
    AddTake,
    PlaceDevice,
    Plan,
    RemoveMove,
    RemoveSetUp,
    SaveMove,
    SaveSetUp,
    ShiftDay,
    clock_words,
)
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.numbers import plain


@sentence.register
def save_set_up(edit: SaveSetUp, plan: Plan) -> str:
    takes = f"{edit.takes} take{'' if edit.takes == 1 else 's'} of {plain(edit.take_min)} min"
    return f"Set-up {edit.label.strip()} at {clock_words(edit.at_min)}, {takes}"


@sentence.register
def remove_set_up(edit: RemoveSetUp, plan: Plan) -> str:
    return f"Remove set-up {plan.set_ups[edit.id].label}"


@sentence.register
def save_move(edit: SaveMove, plan: Plan) -> str:
    return f"Company move to {edit.label.strip()} at {clock_words(edit.at_min)}, {edit.length_min} min"


@sentence.register
def remove_move(edit: RemoveMove, plan: Plan) -> str:
    return f"Remove company move to {plan.moves[edit.id].label}"


@sentence.register
def shift_day(edit: ShiftDay, plan: Plan) -> str:
    late = "later" if edit.by_min > 0 else "earlier"
    return f"From {clock_words(edit.from_min)} on, {abs(edit.by_min)} min {late}"


@sentence.register
def add_take(edit: AddTake, plan: Plan) -> str:
    return f"One more take of {plan.set_ups[edit.set_up].label}"


@sentence.register
def place_device(edit: PlaceDevice, plan: Plan) -> str:
    return f"{plan.devices[edit.device].label} stands at {edit.place.strip() or 'the cart'}"
