"""My equipment."""

from datetime import datetime
from typing import Annotated, Any, Literal, Self
from uuid import UUID

from pydantic import Field, model_validator

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.advice.line_up import LinedUpPair
from tidy_trunk.core.gear.catalogue import DeviceClass, InputPort, LeadClass, Port
from tidy_trunk.core.plan import ReadFrom
from tidy_trunk.core.sound.levels import Datasheet, level_dbu
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.equipment import document_of, write_class
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.services.equipment import JobClass, Original, OwnClass, TrackMoved
from tidy_trunk.services.jobs import taken_into_job
from tidy_trunk.words.class_facts import class_facts
from tidy_trunk.words.classes import cable_lines, plug_words, port_lines, track_lines
from tidy_trunk.words.terms import term


class DrawnSocketOut(Out):
    """A socket of a class as it is drawn."""

    id: str
    label: str
    direction: Literal["in", "out"]
    plug: str
    is_socket: bool
    channels: list[str]
    lines: list[str]

    @classmethod
    def from_core(cls, port: Port) -> "DrawnSocketOut":
        return cls(
            id=port.id,
            label=port.label,
            direction="in" if isinstance(port, InputPort) else "out",
            plug=plug_words(port),
            is_socket=port.plug.gender == "female",
            channels=list(port.channels),
            lines=port_lines(port),
        )


class FactLineOut(Out):
    name: str
    words: str


class ClassPageOut(Out):
    """A class of device or cable, as it is shown."""

    id: str
    label: str
    of: Literal["device", "cable"]
    kind: str
    blurb: str
    sockets: list[DrawnSocketOut]
    lines: list[str]
    facts: list[FactLineOut]

    @classmethod
    def from_core(cls, item: DeviceClass | LeadClass) -> "ClassPageOut":
        if isinstance(item, LeadClass):
            return cls(
                id=item.id, label=item.label, of="cable", kind="cable", blurb="", sockets=[], lines=cable_lines(item), facts=[]
            )  # fmt: skip
        return cls(
            id=item.id,
            label=item.label,
            of="device",
            kind=term(item.kind),
            blurb=item.blurb,
            sockets=[DrawnSocketOut.from_core(port) for port in item.ports],
            lines=track_lines(item),
            facts=[FactLineOut(name=name, words=words) for name, words in class_facts(item)],
        )


class OwnClassOut(Out):
    """A class in My equipment, and the edit that takes it into a job."""

    page: ClassPageOut
    changed: datetime
    takes: AnyEdit

    @classmethod
    def from_service(cls, own: OwnClass) -> "OwnClassOut":
        return cls(
            page=ClassPageOut.from_core(own.item), changed=own.changed, takes=edit_document(taken_into_job(own.item))
        )


class TestJobOut(Out):
    """A job that was made for testing a device."""

    job: UUID


class ClassDraftOut(Out):
    """A class to be changed: as text, as the values that the text says, and as it is shown."""

    text: str
    document: dict[str, Any]
    page: ClassPageOut

    @classmethod
    def from_core(cls, item: DeviceClass | LeadClass) -> "ClassDraftOut":
        return cls(text=write_class(item).decode(), document=document_of(item), page=ClassPageOut.from_core(item))


class JobClassOut(Out):
    """A class of one's own in a job."""

    id: str
    label: str
    used_by: list[str]
    original: Original

    @classmethod
    def from_service(cls, found: JobClass) -> "JobClassOut":
        return cls(id=found.item.id, label=found.item.label, used_by=list(found.used_by), original=found.original)


class TrackMovedOut(Out):
    """A track of a job, before and after."""

    label: str
    average_before: Level
    average_after: Level
    peak_before: Level
    peak_after: Level
    noise_before: Level
    noise_after: Level

    @classmethod
    def from_service(cls, moved: TrackMoved) -> "TrackMovedOut":
        before, after = moved.before, moved.after
        return cls(
            label=moved.label,
            average_before=before.average,
            average_after=after.average,
            peak_before=before.peak,
            peak_after=after.peak,
            noise_before=before.noise,
            noise_after=after.noise,
        )


class LinedUpPairOut(Out):
    """Two devices that were lined up, and what lies between."""

    key: str
    sender: str
    receiver: str
    cables: list[str]
    off_db: float
    read_from: ReadFrom
    when: datetime
    job: str

    @classmethod
    def from_core(cls, pair: LinedUpPair) -> "LinedUpPairOut":
        return cls(
            key=pair.key,
            sender=pair.sender_label,
            receiver=pair.receiver_label,
            cables=list(pair.cables),
            off_db=pair.off_db,
            read_from=pair.read_from,
            when=datetime.fromisoformat(pair.when),
            job=pair.job,
        )


Printed = Annotated[float, Field(ge=-200, le=10_000, allow_inf_nan=False)]
LevelUnit = Literal["dBu", "dBV", "V", "mV"]


class DatasheetIn(In):
    """What a manual prints of one position of an input, and that position as it is described so far."""

    mode: dict[str, Any]
    lowest_db: Annotated[float, Field(ge=-100, le=100, allow_inf_nan=False, examples=[0])]
    highest_db: Annotated[float, Field(ge=-100, le=100, allow_inf_nan=False)]
    step_db: Annotated[float, Field(gt=0, le=40, allow_inf_nan=False)] = 1.0
    most: Printed | None = None
    most_unit: LevelUnit = "dBu"
    sensitivity: Printed | None = None
    sensitivity_unit: LevelUnit = "dBu"
    nominal_dbfs: Annotated[float, Field(ge=-60, le=0, allow_inf_nan=False)] = 0.0
    ein_dbu: Annotated[float, Field(ge=-160, le=0, allow_inf_nan=False)] | None = None
    is_a_weighted: bool = False

    def to_core(self) -> Datasheet:
        return Datasheet(
            lowest_db=self.lowest_db,
            highest_db=self.highest_db,
            step_db=self.step_db,
            most_dbu=None if self.most is None else level_dbu(self.most, self.most_unit),
            sensitivity_dbu=None if self.sensitivity is None else level_dbu(self.sensitivity, self.sensitivity_unit),
            nominal_dbfs=self.nominal_dbfs,
            ein_dbu=self.ein_dbu,
            is_a_weighted=self.is_a_weighted,
        )


class DatasheetOut(Out):
    """The position with what the manual says."""

    mode: dict[str, Any]


_LEAD = """id = "my-lead"
label = "my XLR lead"
sending = {connector = "xlr3", gender = "male"}
receiving = {connector = "xlr3", gender = "female"}
balanced = true

[ways.""]
wires = ["1-1", "2-2", "3-3"]
"""


class ClassFileIn(In):
    """A file of a class, as text or as the values that it says. `name`: what it is called, for messages."""

    name: Annotated[str, Field(min_length=1, max_length=120, examples=["lead.toml"])]
    text: Annotated[str, Field(max_length=10_000_000)] | None = None
    document: dict[str, Any] | None = None

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.text is None) is (self.document is None):
            raise ValueError("give text or document, not both")
        return self

    def content(self) -> bytes | dict[str, Any]:
        return (self.text or "").encode() if self.document is None else self.document


class ClassFilesIn(In):
    files: Annotated[
        tuple[ClassFileIn, ...],
        Field(
            min_length=1,
            max_length=200,
            examples=[[{"name": "lead.toml", "text": _LEAD}]],
        ),
    ]
