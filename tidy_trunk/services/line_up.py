"""Lining up a job: its steps, readings, and what they say of knobs and meters."""

import io
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

from tidy_trunk.core.advice.line_up import (
    LinedUpPair,
    LineUpStep,
    VoiceStep,
    as_earlier,
    earlier,
    knob_of,
    law_edits,
    line_up_steps,
    meter_edit,
    taken,
    voice_steps,
)
from tidy_trunk.core.base.signal import line_up_tone
from tidy_trunk.core.plan import Edit, MeterPair, ReadFrom, Scale
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.simulation import RATE_HZ
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.formats import write_sound
from tidy_trunk.results.measurement import MeasurementOut
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.lined_up_pairs import pairs_in
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import LinedUpPairStore, RecordingRecord
from tidy_trunk.tasks.requests import Measure, request_of
from tidy_trunk.words import in_one, sentence

TONE_BITS = "24"
"""What the files of a set hold."""


@dataclass(frozen=True, slots=True)
class LineUpChange:
    """The edits that take over what was found, and what they do in one sentence."""

    sentence: str
    edits: tuple[Edit, ...]


class LineUpService:
    """One method for one thing that a user does when he lines up."""

    def __init__(
        self,
        jobs: JobService,
        recordings: RecordingService,
        pairs: LinedUpPairStore,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._jobs = jobs
        self._recordings = recordings
        self._pairs = pairs
        self._now = now

    def steps(self, job_id: UUID) -> tuple[Report, tuple[LineUpStep, ...]]:
        """What to send where and what must be read there, in the order of the work."""
        report = self._jobs.report(job_id)
        return report, line_up_steps(report)

    def earlier(self, report: Report, steps: Sequence[LineUpStep]) -> dict[str, LinedUpPair]:
        """By track, what was found of its pair in another job, for those that nobody has read in this one."""
        known = {pair.key: pair for pair in pairs_in(self._pairs)}
        found = {step.track: earlier(report, step, known) for step in steps}
        return {track: pair for track, pair in found.items() if pair is not None}

    def as_earlier(self, job_id: UUID, track_id: str) -> LineUpChange:
        """The edits that set a pair as it was found in another job; nothing is kept.

        Raises:
            NotFoundError: No such track, or its pair was never lined up elsewhere.
        """
        report, steps = self.steps(job_id)
        pair = self.earlier(report, steps).get(track_id)
        if pair is None:
            report.known_track(track_id)
            raise NotFoundError("this pair was not lined up in another job, or it has been read in this one already")
        edits = as_earlier(report, track_id, pair, self._when())
        return LineUpChange(in_one(report.index.plan, edits), edits)

    def voices(self, job_id: UUID) -> tuple[Report, tuple[VoiceStep, ...]]:
        """Who is to be heard on which track, behind the tone, and how loud."""
        report = self._jobs.report(job_id)
        return report, voice_steps(report)

    def reading(
        self, job_id: UUID, track_id: str, read_dbfs: float, read_from: ReadFrom, sent_dbfs: float | None
    ) -> LineUpChange:
        """What takes a reading over; nothing is kept.

        Raises:
            NotFoundError: No such track.
            InputError: A track that no tone reaches.
        """
        report = self._jobs.report(job_id)
        edit = taken(report, track_id, sent_dbfs=sent_dbfs, read_dbfs=read_dbfs, read_from=read_from, when=self._when())
        return LineUpChange(sentence(edit, report.index.plan), (edit,))

    def law(self, job_id: UUID, recording_id: UUID, device: str, control: str, scale: Scale | None) -> LineUpChange:
        """What takes over what a knob gave in a recording of steps; nothing is kept.

        Raises:
            NotFoundError: No such recording, or no such knob on the way to its track.
            InputError: A recording without steps, marks that are not on the knob, or levels that do not rise.
        """
        record = self._recordings.get(job_id, recording_id)
        made_for, found = request_of(record.asked), _found(record)
        steps = None if found is None else found.steps
        if steps is None or not isinstance(made_for, Measure):
            raise InputError("this recording holds no steps: name the marks when it is dropped in")
        report = self._jobs.report(job_id)
        edits = law_edits(
            report,
            knob_of(report, made_for.track, device, control),
            tuple(step.to_core() for step in steps.steps),
            noisy_from=steps.noisy_from,
            scale=scale,
            read_from=ReadFrom.SIMULATION if made_for.simulated else ReadFrom.RECORDING,
            when=self._when(),
        )
        return LineUpChange(sentence(edits[0], report.index.plan), edits)

    def meter(
        self, job_id: UUID, recording_id: UUID, track_id: str, shown_dbfs: Sequence[float | None]
    ) -> LineUpChange:
        """What takes over how a meter reads: one reading for each tone or step of a recording, None where none was made.

        Raises:
            NotFoundError: No such recording or track.
            InputError: Another number of readings than of tones, or none at all.
        """
        record = self._recordings.get(job_id, recording_id)
        found = _found(record)
        levels = [] if found is None else found.tone_levels_dbfs
        if len(levels) != len(shown_dbfs):
            raise InputError(f"the recording holds {len(levels)} levels, and {len(shown_dbfs)} readings were given")
        pairs = [MeterPair(shown, level) for shown, level in zip(shown_dbfs, levels, strict=True) if shown is not None]
        report = self._jobs.report(job_id)
        edit = meter_edit(report, track_id, pairs, self._when())
        return LineUpChange(sentence(edit, report.index.plan), (edit,))

    def _when(self) -> str:
        return self._now().astimezone().isoformat(timespec="minutes")

    def tone(self, job_id: UUID, seconds: float) -> bytes:
        """The job's line-up tone as a WAV, two channels, the left one marked. Raises InputError: a length that cannot be."""
        level = self._jobs.report(job_id).index.plan.defaults.alignment_dbfs
        pieces = line_up_tone(level, 1_000.0, seconds, rate_hz=RATE_HZ, channels=2, ident=True)
        box = io.BytesIO()
        count = round(seconds * RATE_HZ)
        write_sound(box, pieces, rate_hz=RATE_HZ, channels=2, sample_count=count, bits=TONE_BITS)
        return box.getvalue()


def _found(record: RecordingRecord) -> MeasurementOut | None:
    return None if record.result is None else MeasurementOut.model_validate(record.result)
