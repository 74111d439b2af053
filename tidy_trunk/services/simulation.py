"""Listening to simulated devices that are set as a job says."""

import math
from dataclasses import dataclass
from uuid import UUID

from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.levels import NO_OSCILLATORS, Report, TrackLevel, known_sender
from tidy_trunk.core.sound.simulation import (
    RATE_HZ,
    Clap,
    Faults,
    Play,
    Point,
    PointReading,
    Simulator,
    audible,
    clap_at,
    meter_shows_dbfs,
    points_of,
    seen,
    truth,
)
from tidy_trunk.core.sound.trace import trace_plan, upstream_of
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.media.simulated import loop_file
from tidy_trunk.services.jobs import JobService


@dataclass(frozen=True, slots=True)
class _Place:
    """A point of a chain, in a simulation that plays."""

    simulator: Simulator
    point: Point
    is_track: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SimulationRequest:
    """What the simulation does. from_sender: the device before the track sends the job's tone; loose: run with a loose plug."""

    play: Play = Play.VOICE
    from_sender: bool = False
    loose: str = ""


@dataclass(frozen=True, slots=True)
class PointView:
    """What is seen at a point; of a track also what its own meter shows, and of a switcher a clap beside its picture."""

    point: Point
    seen: PointReading
    meter_shows_dbfs: float | None
    clap: Clap | None


class SimulationService:
    """One method for one thing that a user does in the simulation."""

    def __init__(self, jobs: JobService) -> None:
        self._jobs = jobs

    def points(self, job_id: UUID, track_id: str) -> tuple[PlanIndex, tuple[Point, ...]]:
        """Where one can listen on the way to a track. Raises NotFoundError."""
        report, track = self._track(job_id, track_id)
        # The controls are shown as the job knows them: what the simulation really does is for measuring.
        return self._jobs.report(job_id).index, points_of(report, track.trace.stage)

    def sound(self, job_id: UUID, track_id: str, number: int, asked: SimulationRequest) -> bytes:
        """What is heard at a point, as a WAV that can be played over and over without a seam.

        Raises:
            NotFoundError: No such track, or no such point on its way.
            InputError: A track that no tone can be sent to, where one is asked for, or a run that is not on its way.
        """
        place = self._place(job_id, track_id, number, asked)
        return loop_file(audible(place.simulator, place.point, is_track=place.is_track))

    def seen(self, job_id: UUID, track_id: str, number: int, asked: SimulationRequest) -> PointView:
        """What meters show at a point. Raises as `sound`."""
        place = self._place(job_id, track_id, number, asked)
        found = seen(place.simulator, place.point, is_track=place.is_track)
        if not place.is_track:
            return PointView(place.point, found, None, None)
        index, device = place.simulator.index, place.point.stage.device
        shows = meter_shows_dbfs(index.plan, device, found.level) if math.isfinite(found.level) else None
        heard = audible(place.simulator, place.point, is_track=True)
        clap = clap_at(index, device, heard, RATE_HZ) if asked.play is Play.CLAP else None
        return PointView(place.point, found, shows, clap)

    def _track(self, job_id: UUID, track_id: str) -> tuple[Report, TrackLevel]:
        # The simulation is what its devices are, not what is thought of them.
        report = Report(trace_plan(truth(self._jobs.report(job_id).index.plan)))
        track = report.known_track(track_id)
        return report, track

    def _place(self, job_id: UUID, track_id: str, number: int, asked: SimulationRequest) -> _Place:
        report, track = self._track(job_id, track_id)
        points = points_of(report, track.trace.stage)
        if not 0 <= number < len(points):
            raise NotFoundError(f"the way to this track has {len(points)} points: there is no number {number}")
        oscillators = NO_OSCILLATORS
        if asked.from_sender:
            sender = known_sender(report.index, track.trace.stage).device
            oscillators = {sender: report.index.tone_dbfs(sender)}
        runs = {stage.run.id for stage in upstream_of(track.trace.stage) if stage.run is not None}
        if asked.loose and asked.loose not in runs:
            raise InputError(
                f"cable '{asked.loose}' is not on the way to this track: choose one of {', '.join(sorted(runs))}"
            )
        faults = Faults(strays=True, loose=asked.loose)
        simulator = Simulator(report.index, asked.play, oscillators=oscillators, faults=faults)
        return _Place(simulator, points[number], number == len(points) - 1)
