"""Edits on leads of the user's own."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from tidy_trunk.core.gear.catalogue import Plug, Wiring
from tidy_trunk.core.plan.edits.base import find, free_id, put, without
from tidy_trunk.core.plan.model import OwnLead, Plan
from tidy_trunk.errors import PlanError


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveLead:
    """A lead of the user's own: a new one, or another wiring for one that there is."""

    label: str
    sending: Plug
    receiving: Plug
    ways: Mapping[str, Wiring]
    short_m: float | None = None
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        lead_id = self.id or free_id(f"own {self.label}", plan.leads)
        lead = OwnLead(
            id=lead_id,
            label=self.label.strip(),
            sending=self.sending,
            receiving=self.receiving,
            ways=self.ways,
            short_m=self.short_m,
        )
        return replace(plan, leads=put(plan.leads, lead_id, lead))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveLead:
    """A lead of the user's own that no run uses."""

    lead: str

    def apply(self, plan: Plan) -> Plan:
        lead = find(plan.leads, self.lead, "cable of your own")
        for run in plan.runs.values():
            if any(part.lead == lead.id for part in run.parts):
                raise PlanError(f"cable {run.number} uses {lead.label}: change that first")
        return replace(plan, leads=without(plan.leads, lead.id))
