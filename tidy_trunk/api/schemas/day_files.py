"""The files of a day: folders as they come in, and how far reading and copying are."""

from typing import Annotated, Any
from uuid import UUID

from pydantic import AfterValidator, ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.base.text import is_plain
from tidy_trunk.core.log import DayFault, FileFix
from tidy_trunk.media.copying import CopyVerdict
from tidy_trunk.results.files import FilesOut
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.day_files import MOST_FAULTS
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.tasks.requests import CopyDay, ReadDay, request_of
from tidy_trunk.words.files import FAULT_WORDS, copy_words


def _plain(name: str) -> str:
    if not all(is_plain(letter) for letter in name):
        raise ValueError("there are characters in it that no folder has")
    return name.strip()


FolderName = Annotated[str, Field(max_length=1000), AfterValidator(_plain)]


class ReadFolderIn(In):
    """folder: of this machine, by its whole path; with_sound: levels, flat tops, silence and drift are looked for too."""

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"folder": "/media/cards/2026-12-01", "with_sound": True}]}
    )

    folder: FolderName
    with_sound: bool = True


class CopyFilesIn(In):
    """into, second: folders of this machine by their whole paths; second: "" for one copy alone.

    mono: sound of takes as a file for each of its channels.
    """

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"into": "/media/drive/2026-12-01", "second": "/media/other/2026-12-01"}]}
    )

    into: FolderName
    second: FolderName = ""
    mono: bool = False


class PlayDayIn(In):
    """seed: the same gives the same faults; faults: files that are to have one."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"seed": 7, "faults": 5}]})

    seed: Annotated[int, Field(ge=0, le=10**9)] = 1
    faults: Annotated[int, Field(ge=0, le=MOST_FAULTS)] = 5


class MendIn(In):
    """path: of a file that was read; fix: what is to be done to the log."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"path": "Bag recorder/REC_007.WAV", "fix": "log-take"}]})

    path: Annotated[str, Field(min_length=1, max_length=4000)]
    fix: FileFix


class FileTaskOut(Out):
    """Work on the files of a day. progress: 0 to 1."""

    id: UUID
    folder: str
    state: RecordingState
    progress: float
    message: str

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "FileTaskOut":
        request = request_of(record.asked)
        if isinstance(request, ReadDay):
            folder = request.folder
        else:
            folder = request.into if isinstance(request, CopyDay) else (record.result or {}).get("folder", "")
        return cls(id=record.id, folder=folder, state=record.state, progress=record.progress, message=record.message)


class CopiedFileOut(Out):
    """text: what became of it. again: whether the second copy is as good; null: there is none."""

    path: str
    name: str
    verdict: CopyVerdict
    size: int
    sha256: str
    again: bool | None
    is_good: bool
    text: str


class DayCopiesOut(Out):
    """summary: whether the card may be formatted."""

    task: FileTaskOut
    second: str
    summary: str
    is_good: bool
    copies: list[CopiedFileOut]

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "DayCopiesOut":
        request = request_of(record.asked)
        raw: list[dict[str, Any]] = (record.result or {}).get("copies", [])
        bad = sum(not item["is_good"] for item in raw)
        is_over = record.state is RecordingState.DONE
        words = copy_words(len(raw), bad, has_second=isinstance(request, CopyDay) and bool(request.second))
        return cls(
            task=FileTaskOut.from_record(record),
            second=request.second if isinstance(request, CopyDay) else "",
            summary=words if is_over else "",
            is_good=is_over and not bad,
            copies=[CopiedFileOut(**{**item, "text": item["problem"]}) for item in _with_texts(raw)],
        )


def _with_texts(raw: list[dict[str, Any]]) -> list[dict[str, Any]]:
    known = set(CopiedFileOut.model_fields) | {"problem"}
    return [{name: value for name, value in item.items() if name in known} for item in raw]


class StandInFaultOut(Out):
    what: DayFault
    text: str


class PlayedDayOut(Out):
    """A simulated day. faults: what is wrong with which file."""

    task: FileTaskOut
    files: int
    faults: list[StandInFaultOut]

    @classmethod
    def from_record(cls, record: RecordingRecord) -> "PlayedDayOut":
        result = record.result or {}
        return cls(
            task=FileTaskOut.from_record(record),
            files=result.get("files", 0),
            faults=[
                StandInFaultOut(what=item["what"], text=FAULT_WORDS[item["what"]].format(item["device"], item["take"]))
                for item in result.get("faults", [])
            ],
        )


class DayFilesOut(Out):
    """read: the folder that was read last; found: what was in it, beside the log as it is now; null of what nobody has done."""

    read: FileTaskOut | None
    found: FilesOut | None
    copies: DayCopiesOut | None
    played: PlayedDayOut | None
