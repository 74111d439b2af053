"""Edits on cables of the user's own."""

from tidy_trunk.core.plan import Plan, RemoveLead, SaveLead
from tidy_trunk.words.edits.said import sentence


@sentence.register
def save_lead(edit: SaveLead, plan: Plan) -> str:
    known = edit.id is not None and edit.id in plan.leads
    return f"{'Change cable' if known else 'New cable'} {edit.label.strip()}"


@sentence.register
def remove_lead(edit: RemoveLead, plan: Plan) -> str:
    return f"Remove cable {plan.leads[edit.lead].label}"
