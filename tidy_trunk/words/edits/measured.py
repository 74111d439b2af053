"""Edits on what was measured of a class."""

from tidy_trunk.core.plan import DropGainLaw, DropMeterError, Plan, TakeGainLaw, TakeMeterError
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.names import error_words, knob_words, meter_words


@sentence.register
def take_gain_law(edit: TakeGainLaw, plan: Plan) -> str:
    return f"{knob_words(plan, edit.law.class_id, edit.law.control)}: measured at {len(edit.law.points)} positions"


@sentence.register
def drop_gain_law(edit: DropGainLaw, plan: Plan) -> str:
    return f"{knob_words(plan, edit.class_id, edit.control)}: as it is marked"


@sentence.register
def take_meter_error(edit: TakeMeterError, plan: Plan) -> str:
    return f"{meter_words(plan, edit.meter.class_id)} {error_words(edit.meter)}"


@sentence.register
def drop_meter_error(edit: DropMeterError, plan: Plan) -> str:
    return f"{meter_words(plan, edit.class_id)}: correction cleared"
