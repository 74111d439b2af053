"""What can be done about a run: ways to match its level, other leads."""

from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.advice.ways import Way
from tidy_trunk.core.plan import School
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.services.jobs import CableChainChoice
from tidy_trunk.words import FAULT_WORDS, way_words


class WayOut(Out):
    """A way to match a run, with its result in dBFS."""

    id: str
    label: str
    edits: list[AnyEdit]
    needs: str
    loses: str
    risk: str
    average_dbfs: Level
    peak_dbfs: Level
    headroom_db: Level
    noise_dbfs: Level
    below_room_db: Level
    ruled_by: str
    tolerance_db: Level
    full_scale_margin_db: Level
    clips: bool
    fits: bool
    verdict: str
    best_for: list[School]

    @classmethod
    def from_core(cls, way: Way) -> "WayOut":
        words = way_words(way)._asdict()
        names = [name for name in cls.model_fields if name != "edits" and name not in words]
        edits = [edit_document(edit) for edit in way.edits]
        return cls(**{name: getattr(way, name) for name in names}, **words, edits=edits)


class CableChainOut(Out):
    """Other leads for a run; `faults` is empty where the right signal arrives."""

    label: str
    faults: list[str]
    unbalanced_m: float
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, choice: CableChainChoice) -> "CableChainOut":
        return cls(
            label=choice.label,
            faults=[FAULT_WORDS[fault] for fault in choice.faults],
            unbalanced_m=choice.unbalanced_m,
            edits=[edit_document(choice.edit)],
        )
