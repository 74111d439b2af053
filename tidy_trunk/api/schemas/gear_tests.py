"""Tests of one's own gear."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.advice.gear_tests import GearTest, GearTestKind, known
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.document import AnyEdit, KnobMark, edit_document
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.gear_tests import GearTestResult
from tidy_trunk.words.gear_tests import found_words, gear_test_words


class QuestionOut(Out):
    asks: str
    yes: str
    no: str


class GearTestOut(Out):
    """A test: what to do, how it is answered, and what it found last.

    value: what may be typed, "" for nothing; positions: where a knob is turned to, in the order of the recording.
    records: a recording answers it, a simulated one too.
    """

    id: str
    kind: GearTestKind
    device: str
    device_label: str
    title: str
    why: str
    does: list[str]
    question: QuestionOut | None
    value: str
    records: bool
    track: str
    positions: list[float]
    found: str
    when: datetime | None

    @classmethod
    def from_core(cls, report: Report, test: GearTest) -> "GearTestOut":
        words, found = gear_test_words(test, report.index), known(report, test)
        asked = words.question
        return cls(
            id=test.id,
            kind=test.kind,
            device=test.device,
            device_label=report.index.placed(test.device).label,
            title=words.title,
            why=words.why,
            does=list(words.does),
            question=None if asked is None else QuestionOut(asks=asked.asks, yes=asked.yes, no=asked.no),
            value=words.value,
            records=test.records,
            track=test.track,
            positions=list(test.positions),
            found="" if found is None else found_words(found),
            when=datetime.fromisoformat(test.when) if found is not None else None,
        )


class GearAnswerIn(In):
    """What was seen, measured or recorded; `yes` to the question of the test, `value` in the unit that it asks for."""

    test: Annotated[str, Field(min_length=1, max_length=240)]
    yes: bool | None = None
    value: Annotated[float, Field(allow_inf_nan=False, ge=-200, le=200)] | None = None
    recording: UUID | None = None
    scale: tuple[KnobMark, KnobMark] | None = None

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"test": "camera-b picture", "value": 5}]}
    )


class GearFoundOut(Out):
    """What was found, the edits that keep it in the job, and the class or cable that knows it then."""

    sentence: str
    edits: list[AnyEdit]
    class_id: str

    @classmethod
    def from_service(cls, found: GearTestResult) -> "GearFoundOut":
        return cls(
            sentence=found.sentence, edits=[edit_document(edit) for edit in found.edits], class_id=found.class_id
        )


class SimulatedTestIn(In):
    test: Annotated[str, Field(min_length=1, max_length=240, examples=["camera-b meter"])]
