"""The log of the day: taps as they arrive, late ones too, and what they say together."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Final
from uuid import UUID

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.day import DayProgress, Renewal, TaskKind
from tidy_trunk.core.log import Act, Log, LogEntry, TakeStatus, note_words, read_log
from tidy_trunk.core.plan import Plan, Role
from tidy_trunk.core.sound.levels import Report, is_safety
from tidy_trunk.core.sound.trace import upstream_of
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.reports import circled_edl, circled_otio, report_csv, report_sheet, report_text
from tidy_trunk.results.log import (
    ClockReadOut,
    HeardTimecodeOut,
    LocalTime,
    LoggedDeviceOut,
    LoggedTrackOut,
    LogOut,
    SinceOut,
    log_finding_list,
    logged_photos,
    logged_takes,
    slates,
)
from tidy_trunk.services.days import DayClock, day_clock
from tidy_trunk.services.jobs import JobService, JobState
from tidy_trunk.store import HistoryRecord, LogStore
from tidy_trunk.words.log import EDIT_WORDS, ONE_OF_TWO, log_summary

WRONG_BY: Final = timedelta(seconds=2)
"""ASSUMED_ by how much a telephone's clock is put right: less is what it takes to send."""

LONGEST_DAY: Final = timedelta(hours=36)
"""ASSUMED_ what was logged longer ago than this is of another day."""


@dataclass(frozen=True, slots=True, kw_only=True)
class JobLog:
    """A log with the job that it is of."""

    state: JobState
    log: Log
    seq: int
    clock: DayClock


class LogService:
    """One method for one thing that a user does with the log."""

    def __init__(
        self,
        jobs: JobService,
        store: LogStore,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._jobs = jobs
        self._store = store
        self.now = now

    def add(self, job_id: UUID, entries: Sequence[LogEntry], sent: datetime | None = None) -> LogOut:
        """Taps as they arrive, in any order; sent again they are the same.

        sent: what the sender's clock said when they were sent: where it is wrong, their moments are put right.

        Raises:
            NotFoundError: No such job.
            InputError: A tap that says nothing, or more of them than a log holds.
        """
        now = self.now()
        wrong = now - sent if sent is not None and abs(now - sent) > WRONG_BY else timedelta()
        right = [replace(entry, made=min(entry.made + wrong, now)) for entry in entries]
        for entry in right:
            _check(entry)
        self._store.add(job_id, right, now)
        return self.view(job_id)

    def add_photo(self, job_id: UUID, entry: LogEntry, jpeg: bytes) -> LogOut:
        """A photograph with its entry; sent again it is the same.

        Raises:
            NotFoundError: No such job.
            InputError: More photographs than a log holds.
        """
        now = self.now()
        self._store.add_photo(job_id, replace(entry, made=min(entry.made, now)), jpeg, now)
        return self.view(job_id)

    def photo(self, job_id: UUID, photo_id: UUID) -> bytes:
        """As JPEG. Raises NotFoundError."""
        return self._store.photo(job_id, photo_id)

    def remove_photo(self, job_id: UUID, photo_id: UUID) -> LogOut:
        """Raises NotFoundError."""
        self._store.remove_photo(job_id, photo_id)
        return self.view(job_id)

    def rate(self, job_id: UUID) -> str:
        """Of the job's timecode, by its name. Raises NotFoundError."""
        return self._jobs.plan(job_id).defaults.frame_rate

    def last(self, job_id: UUID) -> int:
        """The number of the last entry: whoever knows it has the whole log."""
        return self._store.last(job_id)

    def read(self, job_id: UUID) -> JobLog:
        """A log, and the clock of its day. Raises NotFoundError."""
        entries, seq = self._store.all(job_id)
        state = self._jobs.newest(job_id)
        log = read_log(entries)
        newest = max((entry.made for entry in entries), default=None)
        clock = day_clock(state.evaluation.plan, self.now(), newest, log.clock)
        return JobLog(state=state, log=log, seq=seq, clock=clock)

    def view(self, job_id: UUID) -> LogOut:
        """A log as it is shown. Raises NotFoundError."""
        found = self.read(job_id)
        report, plan, clock = found.state.evaluation.report, found.state.evaluation.plan, found.clock
        moments = {moment for take in found.log.takes for moment in (take.begins, take.ends) if moment is not None}
        moments |= {note.at for take in found.log.takes for note in take.notes}
        moments |= {photo.at for photo in found.log.photos}
        place = LocalTime(
            clock={moment: clock.clock(moment) for moment in moments},
            timecode={moment: clock.timecode(moment) for moment in moments},
        )
        now_slate, to_come = slates(found.log, plan.defaults.slating, _planned(plan))
        running = found.log.running
        devices = logged_devices(report)
        return LogOut(
            seq=found.seq,
            summary=log_summary(found.log),
            job=plan.name,
            day=clock.day.isoformat(),
            zone=plan.defaults.zone,
            rate=plan.defaults.frame_rate,
            sample_rate_hz=plan.defaults.sample_rate_hz,
            read=None if found.log.clock is None else _clock_read(found.log.clock, clock),
            running=running.id if running is not None else "",
            next=now_slate,
            next_set_up=to_come[0],
            set_ups_to_come=to_come,
            since=self._since(found.log),
            takes=logged_takes(found.log, place, self._revisions(job_id, found.log), _names(report), devices),
            tracks=logged_tracks(report),
            devices=devices,
            words=note_words(found.log),
            findings=log_finding_list(found.log),
            photos=logged_photos(found.log, self._store.photos(job_id), place, devices) if found.log.photos else [],
        )

    def report(self, job_id: UUID, kind: str, paper: str = "a4") -> tuple[str, bytes]:
        """The sound report as a file, with its name.

        kind: pdf, csv, txt or json; edl or otio of the circled takes.

        Raises:
            NotFoundError: No such job.
            InputError: No take is circled, for edl and otio.
        """
        log = self.view(job_id)
        name = f"circled-takes-{log.day}.{kind}" if kind in ("edl", "otio") else f"sound-report-{log.day}.{kind}"
        return name, log_paper(log, kind, paper)

    def state_of(self, job_id: UUID, take_id: str) -> JobState:
        """The plan as it was when a take began. Raises NotFoundError."""
        found = self.read(job_id)
        if take_id not in {take.id for take in found.log.takes}:
            raise NotFoundError(f"the log has no take {take_id[:60]}")
        return self._jobs.at(job_id, self._revisions(job_id, found.log)[take_id])

    def progress(self, found: JobLog, now: datetime) -> DayProgress:
        """How far the day has come, for planning the rest of it."""
        renewed: dict[tuple[TaskKind, str], Renewal] = {}
        done = set()
        for entry in found.log.done:
            if now - entry.made > LONGEST_DAY:
                continue
            left = 1.0 if entry.act is Act.DONE else entry.left
            renewed[TaskKind(entry.kind), entry.device] = Renewal(at_min=found.clock.minutes(entry.made), left=left)
            if entry.act is Act.DONE and entry.text:
                done.add(entry.text)
        takes = tuple(
            (found.clock.minutes(take.begins), found.clock.minutes(take.ends or now)) for take in found.log.counted
        )
        return DayProgress(now_min=found.clock.minutes(now), renewed=renewed, done=frozenset(done), takes=takes)

    def _since(self, log: Log) -> SinceOut:
        now = self.now()

        def minutes(kind: TaskKind) -> float | None:
            moments = [entry.made for entry in log.done if entry.kind == kind and entry.act is Act.DONE]
            if kind is TaskKind.ROOM_TONE:
                moments += [take.begins for take in log.counted if take.status is TakeStatus.ROOM_TONE]
            return (now - max(moments)).total_seconds() / 60 if moments else None

        return SinceOut(
            room_tone_min=minutes(TaskKind.ROOM_TONE),
            line_up_min=minutes(TaskKind.LINE_UP),
            jam_min=minutes(TaskKind.JAM),
        )

    def _revisions(self, job_id: UUID, log: Log) -> dict[str, int]:
        """Which state of the plan was in force when each take began."""
        found = revisions_at(self._jobs.history(job_id), [take.begins for take in log.takes])
        return {take.id: number for take, number in zip(log.takes, found, strict=True)}


def revisions_at(history: Iterable[HistoryRecord], moments: Sequence[datetime]) -> list[int]:
    """Which state of a plan was in force at each moment; before there was one, the first."""
    ordered = sorted(history, key=lambda one: one.number)
    before = [[record.number for record in ordered if record.created <= moment] for moment in moments]
    return [numbers[-1] if numbers else ordered[0].number for numbers in before]


def log_paper(log: LogOut, kind: str, paper: str) -> bytes:
    match kind:
        case "pdf":
            return report_sheet(log, paper=paper, made=log_stamp(log))
        case "csv":
            return report_csv(log)
        case "txt":
            return report_text(log).encode()
        case "edl":
            return circled_edl(log)
        case "otio":
            return circled_otio(log)
    # How long something is ago is no fact of the log: without it the same log gives the same bytes.
    ago = SinceOut(room_tone_min=None, line_up_min=None, jam_min=None)
    return log.model_copy(update={"since": ago}).model_dump_json(indent=1).encode()


def log_stamp(log: LogOut) -> datetime:
    """The moment that a report says it was made at: that of the last take, so that the same log gives the same bytes."""
    moments = [datetime.fromisoformat(moment) for take in log.takes for moment in (take.begins, take.ends) if moment]
    return max(moments, default=datetime(2000, 1, 1, tzinfo=UTC)).astimezone(UTC).replace(microsecond=0)


def heard_timecode(found: Mapping[str, str], rate: str) -> HeardTimecodeOut:
    """What a sound input brought. `rate`: the job's, by its name.

    Raises InputError: no timecode in it, or one at another rate.
    """
    if not found:
        raise InputError("no timecode is heard there: plug the timecode output into this input, and turn its level up")
    if FrameRate.parse(found["rate"]) != FrameRate.parse(rate):
        raise InputError(f"the timecode runs at {found['rate']}, the job at {rate}: set one of them")
    return HeardTimecodeOut(timecode=found["timecode"])


def _clock_read(entry: LogEntry, clock: DayClock) -> ClockReadOut:
    return ClockReadOut(timecode=entry.timecode, clock=clock.clock(entry.made), who=entry.who)


def _check(entry: LogEntry) -> None:
    """Raises InputError: a tap that says nothing. One on a take that is not here yet is kept: its beginning may come later."""
    if entry.act is Act.PHOTO:
        raise InputError("a photograph comes with its picture: send it to /log/photos")
    if entry.act in (Act.MARK, Act.UNMARK):
        if not (entry.slate and entry.text and entry.track):
            raise InputError("a level mark wants its scene, its part and its track")
        return
    if entry.act not in (Act.DONE, Act.HOLDS, Act.CLOCK) and not entry.take:
        raise InputError("this is about a take: say which one")
    if entry.act is Act.ROLL and not (entry.slate.strip() and entry.number > 0 and entry.take):
        raise InputError("a take that begins wants a slate and a number from 1 on")
    if entry.act in (Act.NOTE, Act.FAULT) and not entry.text.strip():
        raise InputError("a note wants words: say what was noticed")
    if entry.act in (Act.DONE, Act.HOLDS) and entry.kind not in tuple(TaskKind):
        raise InputError(f"'{entry.kind[:40]}' is nothing that is done in a day: use {', '.join(TaskKind)}")


def _planned(plan: Plan) -> list[str]:
    return list(dict.fromkeys(item.label for item in plan.set_ups.values()))


def _names(report: Report) -> Mapping[str, str]:
    index = report.index
    return {track.trace.id: index.placed(track.trace.device).bus_label(track.trace.bus) for track in report.tracks}


def logged_devices(report: Report) -> list[LoggedDeviceOut]:
    """Every device of the plan, with a track that shows what is wrong with it."""
    shows: dict[str, str] = {}
    for track in report.tracks:
        for stage in upstream_of(track.trace.stage):
            shows.setdefault(stage.device, track.trace.id)
    return [
        LoggedDeviceOut(id=placed.device.id, label=placed.label, track=shows.get(placed.device.id, ""))
        for placed in report.index.placed_devices()
    ]


def logged_tracks(report: Report) -> list[LoggedTrackOut]:
    """What is recorded on which track, as editorial reads it: the tracks to which something comes."""
    index, found = report.index, []
    recorded = [track for track in report.tracks if track.trace.stage.feeds]
    for track in recorded:
        device, placed = track.trace.device, index.placed(track.trace.device)
        mine = [other for other in recorded if other.trace.device == device]
        first = next((other for other in mine if other is not track and is_safety(track, other)), None)
        role = index.role_of(device, track.trace.bus)
        beside = placed.bus(first.trace.bus).label if first is not None else ""
        found.append(
            LoggedTrackOut(
                id=track.trace.id,
                device=placed.label,
                track=placed.bus(track.trace.bus).label,
                sources=[index.plan.sources[source].label for source in track.sources],
                edit=ONE_OF_TWO.format(beside) if beside else EDIT_WORDS[role],
                level_dbfs=track.sound.average if not track.is_silent else None,
                is_timecode=role is Role.TIMECODE,
                safety_of=beside,
            )
        )
    return found
