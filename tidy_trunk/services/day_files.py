"""The files of a day: read, held against the log, copied with labels that are right; and simulated, where there is no card at hand."""

from dataclasses import asdict
from datetime import timedelta
from pathlib import Path
from typing import Final
from uuid import UUID, uuid4

from tidy_trunk.core.log import (
    Act,
    DayFile,
    FileFix,
    LogEntry,
    match_files_to_takes,
    recorded_beside,
)
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.reports import hand_over_csv, hand_over_sheet
from tidy_trunk.results.files import DayFileOut, FilesOut, copy_orders, expected_of, files_beside, takes_of
from tidy_trunk.results.hand_over import hand_over
from tidy_trunk.results.log import LogOut
from tidy_trunk.services.jobs import JobService, plan_document
from tidy_trunk.services.log import LogService, log_stamp
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.tasks.requests import CopyDay, PlayDay, PlayTogether, ReadDay, request_of

MOST_FAULTS: Final = 50
"""ASSUMED_ most faults of a simulated day."""


class DayFileService:
    """One method for one thing that a user does with the files of a day. Originals are only read."""

    def __init__(self, jobs: JobService, log: LogService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._log = log
        self._recordings = recordings

    def read(self, job_id: UUID, folder: str, *, with_sound: bool) -> RecordingRecord:
        """Begin to read the recordings below a folder of this machine; what was read before is forgotten.

        Raises:
            NotFoundError: No such job.
            InputError: No such folder.
        """
        place = _folder(folder)
        if not place.is_dir():
            raise InputError(f"{place}: there is no such folder on this machine")
        self._forget(job_id, ReadDay)
        return self._recordings.work_out(
            job_id, f"files in {place.name}", ReadDay(folder=str(place), with_sound=with_sound)
        )

    def last(self, job_id: UUID) -> RecordingRecord | None:
        """What was read last, or is being read; None where nothing was. Raises NotFoundError: no such job."""
        self._jobs.plan(job_id)
        return self._newest(job_id, ReadDay)

    def beside_log(self, job_id: UUID) -> FilesOut:
        """What was read, held against the log as it is now.

        Raises:
            NotFoundError: No such job, or nothing was read yet.
        """
        return files_beside(self._files(job_id)[1], self._log.view(job_id))

    def cancel(self, job_id: UUID, task_id: UUID) -> None:
        """Nobody waits for it any more. Raises NotFoundError."""
        self._recordings.delete(job_id, task_id)

    def mend(self, job_id: UUID, path: str, fix: FileFix) -> FilesOut:
        """Put the log right by a file: it becomes a take, or its take gets the label that the file has.

        Raises:
            NotFoundError: No such job, file, or take of it.
            InputError: A file that does not say what is wanted.
        """
        files = {file.path: file for file in self._files(job_id)[1]}
        if path not in files:
            raise NotFoundError(f"{path} was not read")
        log = self._log.view(job_id)
        self._log.add(job_id, self._entries(job_id, files[path], fix, log))
        return self.beside_log(job_id)

    def copy(self, job_id: UUID, into: str, second: str, *, mono: bool) -> RecordingRecord:
        """Begin to copy what was read, sound with the labels of its takes; `second`: another copy of the same, "" for none.

        mono: sound of takes as a file for each channel.

        Raises:
            NotFoundError: No such job, or nothing was read yet.
            InputError: Nothing to copy, or folders that are none.
        """
        folder, files = self._files(job_id)
        log = self._log.view(job_id)
        targets = [str(_folder(into)), str(_folder(second)) if second.strip() else ""]
        orders = tuple(asdict(order) for order in copy_orders(files, log, mono=mono))
        if not orders:
            raise InputError("there is no file that could be copied: read a folder with recordings first")
        self._forget(job_id, CopyDay)
        return self._recordings.work_out(
            job_id, "copies", CopyDay(folder=folder, into=targets[0], second=targets[1], orders=orders)
        )

    def hand_over(self, job_id: UUID, kind: str, paper: str) -> tuple[str, bytes]:
        """The sheet for the edit, clip by clip, with its name; files are called as in the copy that was made last.

        kind: pdf or csv.

        Raises NotFoundError: no such job, or nothing was read yet.
        """
        log = self._log.view(job_id)
        found = hand_over(self._files(job_id)[1], log, mono=self._is_split(job_id))
        made = log_stamp(log)
        data = hand_over_csv(found) if kind == "csv" else hand_over_sheet(found, paper=paper, made=made)
        return f"for-the-edit-{log.day}.{kind}", data

    def together(self, job_id: UUID, picture: str, *, by_ear: bool) -> bytes:
        """A camera's guide and the sound of the recorder that ran beside it in one, as a WAV.

        by_ear: laid as both are heard, where that is known, and not as their timecode says.

        Raises:
            NotFoundError: No such job or file, or no recorder ran beside it.
            InputError: The files are not there any more, or cannot be read.
        """
        folder, files = self._files(job_id)
        file = next((one for one in files if one.path == picture and one.is_picture), None)
        if file is None:
            raise NotFoundError(f"{picture} was not read as a picture")
        sound = recorded_beside(file, files)
        if sound is None or sound.begins_s is None or file.begins_s is None:
            raise NotFoundError(f"no recorder ran beside {picture}")
        behind_s = file.begins_s - sound.begins_s + ((file.off_s or 0.0) if by_ear else 0.0)
        request = PlayTogether(folder=folder, sound=sound.path, picture=file.path, behind_s=behind_s)
        return self._recordings.play_together(request)

    def _is_split(self, job_id: UUID) -> bool:
        copied = self.last_copy(job_id)
        request = None if copied is None else request_of(copied.asked)
        return isinstance(request, CopyDay) and any(order["channel"] for order in request.orders)

    def last_copy(self, job_id: UUID) -> RecordingRecord | None:
        """The copy that was made last, or is being made. Raises NotFoundError: no such job."""
        self._jobs.plan(job_id)
        return self._newest(job_id, CopyDay)

    def play(self, job_id: UUID, seed: int, faults: int) -> RecordingRecord:
        """Begin to write the files that simulated devices would have of the takes that were logged.

        Raises:
            NotFoundError: No such job.
            InputError: No take that was cut.
        """
        log = self._log.view(job_id)
        takes = [take for take in takes_of(log) if take.seconds]
        if not takes:
            raise InputError("the log has no take that was cut: log one first")
        fields = tuple(
            {
                "id": take.id,
                "slate": take.slate,
                "number": take.number,
                "begins_s": take.begins_s,
                "seconds": take.seconds,
            }
            for take in takes
        )
        self._forget(job_id, PlayDay)
        own_id = uuid4()
        request = PlayDay(
            plan=plan_document(self._jobs.plan(job_id)),
            takes=fields,
            folder=str(own_id),
            seed=seed,
            faults=min(faults, MOST_FAULTS),
            date=log.day,
        )
        return self._recordings.work_out(job_id, "simulated files", request, own_id)

    def last_play(self, job_id: UUID) -> RecordingRecord | None:
        """The simulated files that were written last, or are being written. Raises NotFoundError: no such job."""
        self._jobs.plan(job_id)
        return self._newest(job_id, PlayDay)

    def _files(self, job_id: UUID) -> tuple[str, list[DayFile]]:
        record = self.last(job_id)
        if record is None or record.state is not RecordingState.DONE or record.result is None:
            raise NotFoundError("no folder has been read yet: name one first")
        request = request_of(record.asked)
        assert isinstance(request, ReadDay)  # that kind was asked for
        return request.folder, [DayFileOut.model_validate(file).to_core() for file in record.result["files"]]

    def _newest(self, job_id: UUID, kind: type[ReadDay | CopyDay | PlayDay]) -> RecordingRecord | None:
        found = self._recordings.of_kind(job_id, kind)
        return self._recordings.get(job_id, found[0].id) if found else None

    def _forget(self, job_id: UUID, kind: type[ReadDay | CopyDay | PlayDay]) -> None:
        for record in self._recordings.of_kind(job_id, kind):
            self._recordings.delete(job_id, record.id)

    def _entries(self, job_id: UUID, file: DayFile, fix: FileFix, log: LogOut) -> list[LogEntry]:
        clock = self._log.read(job_id).clock
        now = self._log.now()
        matched = match_files_to_takes([file], takes_of(log), expected_of(log))
        take = next((key for key, mine in matched.takes.items() if mine), None)
        if fix is FileFix.LOG_TAKE:
            if take is not None:
                raise InputError(f"{file.path} belongs to a take already")
            if file.begins_s is None:
                raise InputError(f"{file.path} does not say when it began: log its take by hand")
            begins = clock.moment(file.begins_s)
            named = file.take.isdigit() and bool(file.scene)
            slate, number = (file.scene, int(file.take)) if named else (log.next.slate, log.next.number)
            own = uuid4().hex
            return [
                LogEntry(id=uuid4().hex, made=begins, act=Act.ROLL, take=own, slate=slate, number=number),
                LogEntry(id=uuid4().hex, made=begins + timedelta(seconds=file.seconds), act=Act.CUT, take=own),
                LogEntry(id=uuid4().hex, made=now, act=Act.NOTE, take=own, text=f"logged by its file, {file.path}"),
            ]
        if fix is not FileFix.CORRECT_TAKE or take is None or not file.take.isdigit():
            raise InputError(f"{file.path} says nothing by which the log could be corrected")
        return [LogEntry(id=uuid4().hex, made=now, act=Act.CORRECT, take=take, slate=file.scene, number=int(file.take))]


def _folder(name: str) -> Path:
    """Raises InputError: no path that says the same from everywhere."""
    place = Path(name.strip()).expanduser()
    if not name.strip() or not place.is_absolute():
        raise InputError("name a folder by its whole path, as /media/card or C:\\Cards")
    return place
