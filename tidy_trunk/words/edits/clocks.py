"""Edits on time."""

from tidy_trunk.core.plan import DropPairDrift, JamOver, Plan, RemoveBreak, SetBreak, SetJam, TakePairDrift, clock_words
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.names import drift_words, times_words


@sentence.register
def set_jam(edit: SetJam, plan: Plan) -> str:
    label = plan.devices[edit.device].label
    if edit.giver is None:
        return f"{label} is not jammed"
    giver, times = plan.devices[edit.giver].label, times_words(sorted(set(edit.at_min)))
    return f"Jam {label} from {giver} by {'cable' if edit.over is JamOver.LEAD else 'radio'}: {times}"


@sentence.register
def set_break(edit: SetBreak, plan: Plan) -> str:
    return f"Break {edit.label.strip()} at {clock_words(edit.at_min)}, {edit.length_min} min"


@sentence.register
def remove_break(edit: RemoveBreak, plan: Plan) -> str:
    return f"Remove break {plan.breaks[edit.id].label}"


@sentence.register
def take_pair_drift(edit: TakePairDrift, plan: Plan) -> str:
    first, second = (plan.devices[name].label for name in (edit.drift.first, edit.drift.second))
    return f"{second} runs {drift_words(edit.drift.ppm)} against {first}, measured"


@sentence.register
def drop_pair_drift(edit: DropPairDrift, plan: Plan) -> str:
    first, second = (plan.devices[name].label for name in (edit.first, edit.second))
    return f"{first} and {second}: clocks as good as their classes again"
