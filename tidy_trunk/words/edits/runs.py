"""Edits on cables."""

from tidy_trunk.core.plan import Connect, Disconnect, MoveRun, Plan, PlanIndex, SetParts, SetPath, SetStrainRelief
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.names import path_words, through


@sentence.register
def connect(edit: Connect, plan: Plan) -> str:
    index = PlanIndex(plan)
    return f"Connect {index.port_label(edit.sending)} to {index.port_label(edit.receiving)}{through(index, edit.parts)}"


@sentence.register
def set_parts(edit: SetParts, plan: Plan) -> str:
    return f"Cable {plan.runs[edit.run].number}{through(PlanIndex(plan), edit.parts) or ' plugged directly'}"


@sentence.register
def set_path(edit: SetPath, plan: Plan) -> str:
    return f"Cable {plan.runs[edit.run].number}: {path_words(edit.path)}"


@sentence.register
def set_strain_relief(edit: SetStrainRelief, plan: Plan) -> str:
    return f"Cable {plan.runs[edit.run].number}: {'strain relief fitted' if edit.on else 'no strain relief'}"


@sentence.register
def move_run(edit: MoveRun, plan: Plan) -> str:
    run, index = plan.runs[edit.run], PlanIndex(plan)
    ends = f"{index.port_label(edit.sending or run.sending)} to {index.port_label(edit.receiving or run.receiving)}"
    return f"Cable {run.number} now from {ends}{through(index, edit.parts or ())}"


@sentence.register
def disconnect(edit: Disconnect, plan: Plan) -> str:
    return f"Remove {PlanIndex(plan).run_label(plan.runs[edit.run])}"
