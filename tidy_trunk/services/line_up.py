"""Lining up a job: its steps, readings, and simulated devices where there are none at hand."""

import io
from collections.abc import Callable
from datetime import UTC, datetime
from uuid import UUID

from tidy_trunk.core.bench import RATE_HZ
from tidy_trunk.core.levels import Report
from tidy_trunk.core.line_up import LineUpStep, line_up_steps, taken
from tidy_trunk.core.plan import Edit, ReadFrom
from tidy_trunk.core.signal import line_up_tone
from tidy_trunk.formats import write_sound
from tidy_trunk.services.bench import BenchService
from tidy_trunk.services.documents import stored_document
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.measuring import measure_stream
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord

TONE_BITS = "24"
"""What the files of a set hold."""


class LineUpService:
    """One method for one thing that a user does when he lines up."""

    def __init__(
        self,
        jobs: JobService,
        recordings: RecordingService,
        bench: BenchService,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._jobs = jobs
        self._bench = bench
        self._recordings = recordings
        self._now = now

    def steps(self, job_id: UUID) -> tuple[Report, tuple[LineUpStep, ...]]:
        """What to send where and what must be read there, in the order of the work."""
        report = self._jobs.report(job_id)
        return report, line_up_steps(report)

    def reading(
        self, job_id: UUID, track_id: str, read_dbfs: float, read_from: ReadFrom, sent_dbfs: float | None
    ) -> tuple[Edit, str]:
        """The edit that takes a reading over, with its sentence; nothing is kept.

        Raises:
            NotFoundError: No such track.
            InputError: A track that no tone reaches.
        """
        report = self._jobs.report(job_id)
        sent = report.rig.plan.defaults.alignment_dbfs if sent_dbfs is None else sent_dbfs
        when = self._now().astimezone().isoformat(timespec="minutes")
        edit = taken(report, track_id, sent_dbfs=sent, read_dbfs=read_dbfs, read_from=read_from, when=when)
        return edit, edit.sentence(report.rig.plan)

    def on_the_bench(self, job_id: UUID, track_id: str) -> RecordingRecord:
        """Tone through simulated devices, recorded on a track and measured like any file; it is listed with the others.

        Raises:
            NotFoundError: No such track.
            InputError: A track that no tone can be sent to.
        """
        recorded = self._bench.recorded_tone(job_id, track_id)
        result = stored_document(measure_stream(io.BytesIO(recorded)))
        device, _, bus = track_id.partition(".")
        name = f"Bench: tone on {self._jobs.report(job_id).rig.unit(device).bus_label(bus)}"
        return self._recordings.keep(job_id, name, {"track": track_id, "bench": True}, result)

    def tone(self, job_id: UUID, seconds: float) -> bytes:
        """The job's line-up tone as a WAV, two channels, the left one marked. Raises InputError: a length that cannot be."""
        level = self._jobs.report(job_id).rig.plan.defaults.alignment_dbfs
        pieces = line_up_tone(level, 1_000.0, seconds, rate_hz=RATE_HZ, channels=2, ident=True)
        box = io.BytesIO()
        count = round(seconds * RATE_HZ)
        write_sound(box, pieces, rate_hz=RATE_HZ, channels=2, sample_count=count, bits=TONE_BITS)
        return box.getvalue()
