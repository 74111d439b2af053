"""Edits on targets and on what tracks are for."""

from tidy_trunk.core.plan import Plan, PlanIndex, RemoveTarget, SaveTarget, SetRole
from tidy_trunk.words.edits.said import sentence


@sentence.register
def save_target(edit: SaveTarget, plan: Plan) -> str:
    target = edit.target_in(plan)
    return f"{'Change' if target.id in plan.targets else 'New'} target {target.label}: {target.words}"


@sentence.register
def remove_target(edit: RemoveTarget, plan: Plan) -> str:
    return f"Remove target {plan.targets[edit.target].label}"


@sentence.register
def set_role(edit: SetRole, plan: Plan) -> str:
    return f"{PlanIndex(plan).placed(edit.device).bus_label(edit.bus)} is for {edit.role}"
