"""Edits on cables of the user's own."""

from tidy_trunk.core.plan import DrawLead, Plan, RemoveLead, SaveLead
from tidy_trunk.words.edits.said import sentence


@sentence.register
def save_lead(edit: SaveLead, plan: Plan) -> str:
    return _saved(edit.lead.id, edit.lead.label, plan)


@sentence.register
def draw_lead(edit: DrawLead, plan: Plan) -> str:
    return _saved(edit.id, edit.label, plan)


def _saved(lead_id: str | None, label: str, plan: Plan) -> str:
    return f"{'Change cable' if lead_id in plan.leads else 'New cable'} {label.strip()}"


@sentence.register
def remove_lead(edit: RemoveLead, plan: Plan) -> str:
    return f"Remove cable {plan.leads[edit.lead].label}"
