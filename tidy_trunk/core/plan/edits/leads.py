"""Edits on leads of the user's own."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from tidy_trunk.core.gear.catalogue import LeadClass, Plug, Wiring
from tidy_trunk.core.plan.edits.base import find, free_id, put, without
from tidy_trunk.core.plan.model import Plan
from tidy_trunk.core.plan.own_leads import drawn_lead
from tidy_trunk.errors import PlanError


@dataclass(frozen=True, slots=True, kw_only=True)
class SaveLead:
    """A lead of the user's own as a whole: a new one, or one that takes the place of the same id."""

    lead: LeadClass

    def apply(self, plan: Plan) -> Plan:
        return replace(plan, leads=put(plan.leads, self.lead.id, self.lead))


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawLead:
    """A lead of the user's own, contact by contact: a new one, or another wiring for one that there is.

    What is known of that beside its contacts stays: other names, cost, and what it is to cables of the same plugs.
    """

    label: str
    sending: Plug
    receiving: Plug
    ways: Mapping[str, Wiring]
    short_m: float | None = None
    id: str | None = None

    def apply(self, plan: Plan) -> Plan:
        lead = drawn_lead(
            id=self.id or free_id(f"own {self.label}", plan.leads),
            label=self.label.strip(),
            sending=self.sending,
            receiving=self.receiving,
            ways=self.ways,
            short_m=self.short_m,
        )
        known = plan.leads.get(lead.id)
        if known is not None:
            lead = replace(lead, also=known.also, cost=known.cost, proposed=known.proposed)
            if (known.sending, known.receiving) == (lead.sending, lead.receiving):
                tail = known.tail if set(lead.ways) == set(known.ways) else None
                lead = replace(lead, replaces=known.replaces, characteristic_ohm=known.characteristic_ohm, tail=tail)
        return replace(plan, leads=put(plan.leads, lead.id, lead))


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
