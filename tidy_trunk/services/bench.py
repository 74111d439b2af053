"""Listening to simulated devices that are set as a job says."""

import io
from dataclasses import dataclass
from uuid import UUID

import numpy as np

from tidy_trunk.core.bench import (
    RATE_HZ,
    Bench,
    Loop,
    Play,
    Point,
    Seen,
    audible,
    points_of,
    seen,
    truth,
)
from tidy_trunk.core.levels import NO_OSCILLATORS, Report, TrackLevel, sender_of
from tidy_trunk.core.plan import Rig
from tidy_trunk.core.trace import accept
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.formats import write_sound
from tidy_trunk.services.jobs import JobService

BITS = "24"
"""A lead at microphone level lies 80 dB down: it is to be heard as it is, not as steps of 16 bits."""


@dataclass(frozen=True, slots=True)
class _Place:
    """A point of a chain, on a bench that plays."""

    bench: Bench
    point: Point
    is_track: bool


class BenchService:
    """One method for one thing that a user does at the bench."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def points(self, job_id: UUID, track_id: str) -> tuple[Rig, tuple[Point, ...]]:
        """Where one can listen on the way to a track. Raises NotFoundError."""
        report, track = self._track(job_id, track_id)
        return report.rig, points_of(report, track.trace.stage)

    def sound(self, job_id: UUID, track_id: str, number: int, play: Play, from_sender: bool) -> bytes:
        """What is heard at a point, as a WAV that can be played over and over without a seam.

        `from_sender`: the device before the track sends the job's tone. Raises NotFoundError, InputError.
        """
        place = self._place(job_id, track_id, number, play, from_sender)
        return wav(audible(place.bench, place.point, is_track=place.is_track))

    def seen(self, job_id: UUID, track_id: str, number: int, play: Play, from_sender: bool) -> tuple[Point, Seen]:
        """What meters show at a point. Raises NotFoundError, InputError."""
        place = self._place(job_id, track_id, number, play, from_sender)
        return place.point, seen(place.bench, place.point, is_track=place.is_track)

    def _track(self, job_id: UUID, track_id: str) -> tuple[Report, TrackLevel]:
        # The bench is what its devices are, not what is thought of them.
        report = Report(accept(truth(self._jobs.report(job_id).rig.plan)))
        track = report.track(track_id)
        if track is None:
            raise NotFoundError(f"the job has no track '{track_id}'")
        return report, track

    def _place(self, job_id: UUID, track_id: str, number: int, play: Play, from_sender: bool) -> _Place:
        report, track = self._track(job_id, track_id)
        points = points_of(report, track.trace.stage)
        if not 0 <= number < len(points):
            raise NotFoundError(f"the way to this track has {len(points)} points: there is no number {number}")
        oscillators = NO_OSCILLATORS
        if from_sender:
            sender = sender_of(report.rig, track.trace.stage)
            if sender is None:
                raise InputError("no device before this track can send a tone")
            oscillators = {sender.device: report.rig.plan.defaults.alignment_dbfs}
        bench = Bench(report.rig, play, oscillators=oscillators)
        return _Place(bench, points[number], number == len(points) - 1)


def wav(loop: Loop) -> bytes:
    """A loop as a file."""
    box = io.BytesIO()
    write_sound(box, [loop[np.newaxis]], rate_hz=RATE_HZ, channels=1, sample_count=len(loop), bits=BITS)
    return box.getvalue()
