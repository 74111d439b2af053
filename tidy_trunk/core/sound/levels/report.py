"""What each track of a plan will hold, and the ladder of stages that leads to it."""

import math
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Final

from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.core.gear.catalogue import Circuit, Provenance
from tidy_trunk.core.plan import Aspect, Plan, PlanIndex, Role, Run, Target, changed_aspects, validate
from tidy_trunk.core.sound.levels.gear import dbu_at_no_spl
from tidy_trunk.core.sound.levels.passage import Step
from tidy_trunk.core.sound.levels.sound import Clipping, Noise, SignalLevels
from tidy_trunk.core.sound.levels.stage_solver import StageLevel
from tidy_trunk.core.sound.levels.stages import LevelSolver
from tidy_trunk.core.sound.levels.touched import moved_ports, touched_devices
from tidy_trunk.core.sound.trace import Stage, StageKey, StageKind, Trace, Tracer, is_powered, trace_plan, upstream_of
from tidy_trunk.errors import NotFoundError

TOLD_DB: Final = 0.05
"""ASSUMED_ least that is told of: less is printed as nothing."""


@dataclass(frozen=True, kw_only=True)
class TrackLevel:
    """A track with its prediction, in dBFS, and what it is kept for.

    miss_db: outside the target, positive above; None in silence.
    unpowered: microphones without power, where that is why the track is silent.
    """

    trace: Trace
    sound: SignalLevels
    role: Role
    target: Target
    sources: tuple[str, ...]
    miss_db: float | None
    unpowered: tuple[str, ...] = ()

    @property
    def headroom_db(self) -> float:
        """By how much the expected peaks may rise before anything on the way from the microphone to the file cuts them;
        negative by how much all of it has to come down at the source so that nothing does. inf where nothing can."""
        return self.sound.headroom_over_all_db

    @cached_property
    def gear_noise_a(self) -> float:
        """Noise of the gear by ear, asked for by everybody who judges the track."""
        return self.sound.gear_noise_a

    @cached_property
    def room_noise_a(self) -> float:
        """The same of the place."""
        return self.sound.room_noise_a

    @property
    def is_silent(self) -> bool:
        return self.sound.average == SILENCE_DB

    @property
    def is_reached(self) -> bool:
        """Whether a source comes through to it, once its microphones have power."""
        return not self.is_silent or bool(self.unpowered)

    @property
    def clip(self) -> Clipping | None:
        return self.sound.clip

    @property
    def clips_by_db(self) -> float | None:
        """By how much all of it has to come down at the source so that nothing on the way clips; None where nothing does."""
        return None if self.clip is None else max(-self.sound.headroom_db, 0.0)

    @property
    def ruling_noise(self) -> Noise | None:
        return self.sound.ruling_noise

    @property
    def provenance(self) -> Provenance:
        return self.sound.weakest


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """A stage as the ladder draws it: `dbu_offset` added to its levels puts all stages on one dBu scale.

    begins: what the ladder begins with here, in words; "" on all other rungs.
    steps: what became of the average since the rung before, or since what it begins with.
    """

    level: StageLevel[SignalLevels]
    label: str
    dbu_offset: float
    begins: str = ""
    steps: tuple[Step, ...] = ()


class Report:
    """Traces and levels of a whole plan, worked out once."""

    def __init__(
        self,
        tracer: Tracer,
        known: Mapping[StageKey, StageLevel[SignalLevels]] | None = None,
        like: "Report | None" = None,
        changed: Collection[StageKey] = (),
    ) -> None:
        """`known`: levels of stages that are those of another plan; `like`: the report of that plan; `changed`: stages that
        both have and that hold another level here."""
        self.tracer = tracer
        self.index: PlanIndex = tracer.index
        self.solver = LevelSolver(self.index, known)
        before = like.tracks if like is not None else ()
        same = {id(track.trace.stage): track for track in before if track.trace.stage.key not in changed}
        self.tracks: tuple[TrackLevel, ...] = tuple(
            same.get(id(trace.stage)) or self._track(trace) for trace in tracer.traces()
        )

    def edited(self, plan: Plan) -> "Report":
        """The report of a plan that edits have made from this one; what they do not touch is taken over.

        Raises PlanError or InputError where the plan is not well formed, SignalLoopError where it goes in a circle.
        """
        index = validate(plan, self.index)
        if not changed_aspects(self.index.plan, plan) & Aspect.WIRING:
            # Nothing leads elsewhere: of all that was traced only what is behind a moved control has to be worked out again.
            stages = self.tracer.downstream_of(moved_ports(self.index, index))
            return Report(self.tracer.carried_to(index), self.solver.levels_outside(stages), self, stages)
        touched = touched_devices(self.index, index)
        if touched is None:
            return Report(trace_plan(plan))
        stages = self.tracer.downstream_of_devices(touched)
        tracer = Tracer(index, self.tracer.stages_outside(stages))
        tracer.traces()
        return Report(tracer, self.solver.levels_outside(stages), self)

    def _track(self, trace: Trace) -> TrackLevel:
        sound = self.solver.track_sound(trace.stage)
        target, role = self.index.target_of(trace.device, trace.bus), self.index.role_of(trace.device, trace.bus)
        miss = None if sound.average == SILENCE_DB else target.miss_db(sound.average, sound.peak)
        return TrackLevel(
            trace=trace,
            sound=sound,
            role=role,
            target=target,
            sources=trace.stage.sources,
            miss_db=miss,
            unpowered=self._unpowered(trace.stage) if miss is None else (),
        )

    def _unpowered(self, stage: Stage) -> tuple[str, ...]:
        return tuple(
            item.device
            for item in upstream_of(stage)
            if item.kind is StageKind.OUTPUT and item.sources and not is_powered(self.index, item.device)
        )

    @cached_property
    def _by_id(self) -> Mapping[str, TrackLevel]:
        return {track.trace.id: track for track in self.tracks}

    @cached_property
    def _of_device(self) -> Mapping[str, list[TrackLevel]]:
        found: dict[str, list[TrackLevel]] = {}
        for track in self.tracks:
            found.setdefault(track.trace.device, []).append(track)
        return found

    def tracks_of(self, device: str) -> list[TrackLevel]:
        """The recorded tracks of a device."""
        return self._of_device.get(device, [])

    def track(self, track_id: str) -> TrackLevel | None:
        return self._by_id.get(track_id)

    def known_track(self, track_id: str) -> TrackLevel:
        """Raises NotFoundError: the job has no such track."""
        track = self.track(track_id)
        if track is None:
            raise NotFoundError(f"the job has no track '{track_id}'")
        return track

    def main_path(self, stage: Stage, through: str = "") -> list[Stage]:
        """From source to stage along the loudest feeds, or by way of a device where a mix has several."""
        reach = _reaching(stage, through) if through else frozenset()
        path = [stage]
        while stage.feeds:
            stage = max(
                (feed for feed, _ in stage.feeds),
                key=lambda feed: (feed.key in reach, self.solver.level(feed).sound.average),
            )
            path.append(stage)
        return path[::-1]

    def run_into(self, stage: Stage) -> Run | None:
        """The last run on the way to a stage; None where there is none, as behind a built-in microphone."""
        return next((item.run for item in reversed(self.main_path(stage)) if item.run is not None), None)

    def branches(self, stage: Stage) -> tuple[str, ...]:
        """Devices in which the ways to a stage begin, loudest first: the ladders to choose from."""
        found: dict[str, float] = {}
        for first in upstream_of(stage):
            if first.kind is not StageKind.SOUND and not any(
                feed.kind is not StageKind.SOUND for feed, _ in first.feeds
            ):
                average = self.solver.level(first).sound.average
                found[first.device] = max(found.get(first.device, SILENCE_DB), average)
        return tuple(sorted(found, key=lambda device: -found[device]))

    def ladder(self, trace: Trace, through: str = "") -> list[Rung]:
        """The stages from source to track, on one dBu scale.

        A digital stage is drawn where its full scale would stand as a voltage: at the next analogue output after it,
        else at the analogue input before it.
        """
        whole = self.main_path(trace.stage, through)
        path = [stage for stage in whole if not self._says_nothing(stage)]
        found, begins, steps = [], "", []
        for before, stage in zip([None, *whole], whole, strict=False):
            if stage.kind is StageKind.SOUND:
                source = self.index.plan.sources[stage.name]
                begins = f"{source.label} at 1 m, {source.average_db_spl:g} dB SPL"
            elif before is not None:
                steps += self._account(before, stage)
            if stage in path:
                offset = self._offset(path, path.index(stage))
                label, level = self.solver.place_words(stage), self.solver.level(stage)
                found.append(Rung(level=level, label=label, dbu_offset=offset, begins=begins, steps=tuple(steps)))
                begins, steps = "", []
        return found

    def _account(self, before: Stage, stage: Stage) -> list[Step]:
        """What became of the average between two stages, to the last tenth."""
        level, came_from = self.solver.level(stage), self.solver.level(before)
        steps = list(level.steps.get(before.key, ()))
        start = came_from.sound.average
        if before.kind is StageKind.SOUND:
            start = self.index.plan.sources[before.name].average_db_spl
        rest = level.sound.average - start - sum(step.by_db for step in steps)
        if math.isfinite(rest) and abs(rest) >= TOLD_DB:
            steps.append(Step("with what else comes in", rest))
        return steps

    def _says_nothing(self, stage: Stage) -> bool:
        """Sources, which the microphone sums, and aerials, which pass on what is on air, are no rungs of their own."""
        if stage.kind not in (StageKind.OUTPUT, StageKind.INPUT):
            return stage.kind is StageKind.SOUND
        return self.index.placed(stage.device).port(stage.name).circuit is Circuit.RADIO

    def _offset(self, path: list[Stage], index: int) -> float:
        level = self.solver.level(path[index])
        if level.unit == "dBu":
            return 0.0
        capsule = self.index.placed(path[index].device).device_class.capsule
        if level.unit == "dB SPL" and capsule is not None:
            return dbu_at_no_spl(self.index.placed(path[index].device), capsule)
        for later in path[index:]:
            placed = self.index.placed(later.device)
            if later.kind is StageKind.OUTPUT:
                mode = placed.output_mode(placed.output(later.name))
                if mode.full_scale_dbu is not None:
                    return mode.full_scale_dbu.value
        for earlier in reversed(path[: index + 1]):
            if earlier.kind is StageKind.INPUT:
                placed = self.index.placed(earlier.device)
                port = placed.input(earlier.name)
                mode_in = placed.input_mode(port)
                if mode_in.full_scale_dbu is not None:
                    return mode_in.full_scale_dbu.value - placed.gain_db(port, mode_in)
        return 0.0


def _reaching(stage: Stage, device: str) -> frozenset[StageKey]:
    """Keys of the stages, among those upstream, that the device reaches."""
    stages = upstream_of(stage)
    reached = {item.key for item in stages if item.device == device and item.kind is not StageKind.LEAD}
    grew = True
    while grew:
        more = {item.key for item in stages if any(feed.key in reached for feed, _ in item.feeds)}
        grew = not more <= reached
        reached |= more
    return frozenset(reached)
