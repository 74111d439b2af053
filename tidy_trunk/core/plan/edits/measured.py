"""Edits on what was measured of a class of devices."""

from dataclasses import dataclass, replace

from tidy_trunk.core.gear.catalogue import find_control
from tidy_trunk.core.plan.edits.base import find, put, without
from tidy_trunk.core.plan.index import PlanIndex
from tidy_trunk.core.plan.measured import GainLaw, MeterError, law_key
from tidy_trunk.core.plan.model import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeGainLaw:
    """What a knob was measured to give takes the place of what is written beside it."""

    law: GainLaw

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, gain_laws=put(plan.gain_laws, self.law.key, self.law))

    def sentence(self, plan: Plan) -> str:
        return f"{knob_words(plan, self.law.class_id, self.law.control)}: measured at {len(self.law.points)} positions"


@dataclass(frozen=True, slots=True, kw_only=True)
class DropGainLaw:
    """Back to what is written beside a knob."""

    class_id: str
    control: str

    def apply(self, plan: Plan) -> Plan:
        key = law_key(self.class_id, self.control)
        find(plan.gain_laws, key, "measured knob")
        return replace(plan, gain_laws=without(plan.gain_laws, key))

    def sentence(self, plan: Plan) -> str:
        return f"{knob_words(plan, self.class_id, self.control)}: back to what is written beside it"


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeMeterError:
    """A meter of which is known by how much it is wrong."""

    meter: MeterError

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, meters=put(plan.meters, self.meter.class_id, self.meter))

    def sentence(self, plan: Plan) -> str:
        return f"{meter_words(plan, self.meter.class_id)} {error_words(self.meter)}"


@dataclass(frozen=True, slots=True, kw_only=True)
class DropMeterError:
    """A meter that is believed again."""

    class_id: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.meters, self.class_id, "meter of the class")
        return replace(plan, meters=without(plan.meters, self.class_id))

    def sentence(self, plan: Plan) -> str:
        return f"{meter_words(plan, self.class_id)} is believed again"


def knob_words(plan: Plan, class_id: str, control: str) -> str:
    """A knob of a class as it is named in sentences."""
    device = PlanIndex(plan).class_of(class_id)
    found = find_control(device, control)
    return f"{device.label}, {device.port_of[found.port].label}, {found.label}"


def meter_words(plan: Plan, class_id: str) -> str:
    """A meter of a class as it is named in sentences."""
    return f"The meter of {PlanIndex(plan).class_of(class_id).label}"


def error_words(meter: MeterError) -> str:
    """By how much a meter is wrong, as it is said."""
    by_db = meter.reads_high_db
    within = f"±{meter.within_db:.1f}"
    if abs(by_db) < 0.05:
        return f"reads right, {within} dB"
    return f"reads {abs(by_db):.1f} dB too {'high' if by_db > 0 else 'low'}, {within}"
