"""Edits on line-ups."""

from tidy_trunk.core.plan import DropLineUp, Plan, PlanIndex, TakeLineUp
from tidy_trunk.words.edits.said import sentence
from tidy_trunk.words.names import track_words
from tidy_trunk.words.numbers import unsigned


@sentence.register
def take_line_up(edit: TakeLineUp, plan: Plan) -> str:
    found, before = edit.line_up, plan.line_ups.get(edit.line_up.track)
    if before is not None and before.when == found.when and before.read_dbfs == found.read_dbfs:
        return f"Keep the reading of {track_words(plan, found.track)}"
    read, sent = map(unsigned, (found.read_dbfs, found.sent_dbfs))
    sender = PlanIndex(plan).placed(found.sender).label
    return f"Save reading of {track_words(plan, found.track)}: {read} dBFS, {sent} sent from {sender}"


@sentence.register
def drop_line_up(edit: DropLineUp, plan: Plan) -> str:
    return f"Delete the reading of {track_words(plan, edit.track)}"
