"""Edits on targets of the user's own, and on what a track is kept for."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.edits.base import device_of, find, free_id, put, with_device, without
from tidy_trunk.core.plan.model import Defaults, Plan
from tidy_trunk.core.plan.targets import Role, Target
from tidy_trunk.errors import PlanError


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveTarget:
    """A target of the user's own: a new one, or another range for one that there is. dBFS, of peaks or averages."""

    label: str
    low_dbfs: float
    high_dbfs: float
    of_peaks: bool = False
    id: str | None = None

    def target_in(self, plan: Plan) -> Target:
        target_id = self.id or free_id(f"own {self.label}", plan.targets)
        return Target(target_id, self.label.strip(), self.low_dbfs, self.high_dbfs, self.of_peaks)

    def apply(self, plan: Plan) -> Plan:
        target = self.target_in(plan)
        return replace(plan, targets=put(plan.targets, target.id, target))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveTarget:
    """A target that the job does not use."""

    target: str

    def apply(self, plan: Plan) -> Plan:
        target = find(plan.targets, self.target, "target of your own")
        uses = [name for name in Defaults.__dataclass_fields__ if name.endswith("target")]
        if any(getattr(plan.defaults, name) == target.id for name in uses):
            raise PlanError(f"the job uses the target {target.label}: choose another one for it first")
        return replace(plan, targets=without(plan.targets, target.id))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetRole:
    """What a track is kept for."""

    device: str
    bus: str
    role: Role

    def apply(self, plan: Plan) -> Plan:
        device = device_of(plan, self.device)
        roles = without(device.roles, self.bus)
        if self.role is not Role.DIALOGUE:
            roles[self.bus] = self.role
        return with_device(plan, replace(device, roles=roles))
