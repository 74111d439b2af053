"""Edits on what was measured of a class of devices."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.edits.base import find, put, without
from tidy_trunk.core.plan.measured import GainLaw, MeterError, law_key
from tidy_trunk.core.plan.model import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeGainLaw:
    """What a knob was measured to give takes the place of what is written beside it."""

    law: GainLaw

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, gain_laws=put(plan.gain_laws, self.law.key, self.law))


@dataclass(frozen=True, slots=True, kw_only=True)
class DropGainLaw:
    """Back to what is written beside a knob."""

    class_id: str
    control: str

    def apply(self, plan: Plan) -> Plan:
        key = law_key(self.class_id, self.control)
        find(plan.gain_laws, key, "measured knob")
        return replace(plan, gain_laws=without(plan.gain_laws, key))


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeMeterError:
    """A meter of which is known by how much it is wrong."""

    meter: MeterError

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, meters=put(plan.meters, self.meter.class_id, self.meter))


@dataclass(frozen=True, slots=True, kw_only=True)
class DropMeterError:
    """A meter that is believed again."""

    class_id: str

    def apply(self, plan: Plan) -> Plan:
        find(plan.meters, self.class_id, "meter of the class")
        return replace(plan, meters=without(plan.meters, self.class_id))
