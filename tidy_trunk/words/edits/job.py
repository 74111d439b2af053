"""The edit on what holds for the whole job."""

from tidy_trunk.core.plan import Plan, SetJob
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.names import default_words


@sentence.register
def set_job(edit: SetJob, plan: Plan) -> str:
    parts = [f"name {edit.name.strip()}"] if edit.name is not None else []
    parts += [default_words(name, value) for name, value in edit.changes.items()]
    return f"Job: {', '.join(parts) or 'nothing changed'}"
