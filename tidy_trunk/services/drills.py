"""Drills: a fault hidden in a rig, looked for with what a set allows, and judged."""

import json
from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Final, NamedTuple
from uuid import UUID

import numpy as np

from tidy_trunk.core.drill import (
    DESCRIBED_OTHERWISE,
    Drill,
    DrillLevel,
    PlayedFault,
    Probe,
    draw_drill,
    drill_of,
    faults_of,
    progress,
    rungs_of,
)
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.simulation import Faults, Play, Simulator, audible, points_of
from tidy_trunk.document import stored_plan, write_plan
from tidy_trunk.errors import InputError, NotFoundError, PlanError
from tidy_trunk.media.simulated import loop_file
from tidy_trunk.results.drill import (
    MENDED,
    DrillOut,
    JobMadeOut,
    KindOut,
    PlayedOut,
    ResultOut,
    SameDrillOut,
    TrainingOut,
    drill_out,
    with_mended,
)
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.services.examples import example_plan
from tidy_trunk.services.jobs import JobService
from tidy_trunk.services.shared import SharedAnswers
from tidy_trunk.store import DrillRecord, DrillStore
from tidy_trunk.words.drill import KINDS

GIVEN_UP: Final = "given up"
"""Answer of whoever wants to be told; no fault has that id. ASSUMED_"""

SAFE_SHARE: Final = 0.5
"""ASSUMED_ share of full scale that a drill sounds at most: a fault may be loud, and headphones are on the ears."""

KEPT: Final = 8
"""ASSUMED_ drills whose rigs are kept worked out."""

SOUND_SAMPLES: Final = 2**18
"""ASSUMED_ length of what is listened to: 5.5 s, two sentences."""


class DrillLadders(NamedTuple):
    """A track of a drill that is over, as it was planned and with the faults in it. at: rungs of the planned ladder at which these are."""

    track: str
    planned: Evaluation
    faulty: Evaluation
    at: tuple[int, ...]


class DrillService:
    """One method for one thing that a user does with a drill."""

    def __init__(
        self, jobs: JobService, store: DrillStore, now: Callable[[], datetime] = lambda: datetime.now(UTC)
    ) -> None:
        self._jobs = jobs
        self._store = store
        self._known: SharedAnswers[tuple[UUID, str], Drill] = SharedAnswers(KEPT)
        self.now = now

    def begin(
        self,
        drill_id: UUID,
        seed: int,
        job_id: UUID | None = None,
        *,
        example: str = "",
        level: DrillLevel = DrillLevel.UNIT,
        kind: str = "",
        most: int = 1,
        who: str = "",
    ) -> DrillOut:
        """A drill of a number, in a rig of its own, in a job or in an example; begun again under the same id it is the same.

        Raises NotFoundError: no such job or example; RangeError: no such number or kind; PlanError: the job is not fit for one.
        """
        plan = self._plan(job_id, example)
        drill = draw_drill(seed, plan, level=level, kind=kind, most=most)
        record = DrillRecord(
            id=drill_id,
            seed=seed,
            title="Drawn rig" if plan is None else plan.name,
            plan=json.loads(write_plan(drill.rig.index.plan)),
            truth=drill.truth,
            most=most,
            who=who,
            begun=self.now(),
        )
        return self._out(self._store.begin(record))

    def _plan(self, job_id: UUID | None, example: str) -> Plan | None:
        if job_id is not None:
            return self._jobs.plan(job_id)
        return example_plan(example, is_right=True) if example else None

    def read(self, drill_id: UUID) -> DrillOut:
        """Raises NotFoundError; PlanError: its classes have changed since."""
        return self._out(self._store.get(drill_id))

    def training(self) -> TrainingOut:
        """What was played on this machine, and which kinds of fault are due."""
        records, now = self._store.all(), self.now()
        ended = [record for record in records if record.ended is not None and record.truth]
        kinds = progress(
            [
                PlayedFault(fault.partition(":")[0], record.score or 0, record.ended or now)
                for record in ended
                for fault in faults_of(record.truth)
            ]
        )
        return TrainingOut(
            played=[
                PlayedOut(
                    id=str(record.id),
                    seed=record.seed,
                    title=record.title,
                    who=record.who,
                    begun=record.begun.isoformat(),
                    score=record.score,
                )
                for record in records
            ],
            side_by_side=_side_by_side(records),
            kinds=[
                KindOut(
                    kind=one.kind,
                    label=KINDS[one.kind],
                    found=one.found,
                    played=one.played,
                    is_due=one.due <= now,
                )
                for one in kinds
            ],
        )

    def as_job(self, drill_id: UUID, job_id: UUID) -> JobMadeOut:
        """A job with the rig as it was planned, and then with the fault in it: its trace and ladder show what it does.

        Raises NotFoundError; InputError: the drill is not over.
        """
        record = self._store.get(drill_id)
        if record.answer is None:
            raise InputError("this drill is not over: find the fault first")
        drill = self._drill(record)
        plan = replace(drill.rig.index.plan, name=f"Drill {record.seed}")
        state = self._jobs.create(plan, f"Drill {record.seed}, as planned", job_id)
        edits = [edit for fault in drill.faults for edit in fault.edits]
        if edits and state.revision.number == 1:
            self._jobs.edit(state.revision.job, 1, edits)
        return JobMadeOut(job=state.revision.job, track=drill.hit_track())

    def ladders(self, drill_id: UUID) -> DrillLadders:
        """Of the track on which the faults are heard best. Raises NotFoundError; InputError: the drill is not over."""
        record = self._store.get(drill_id)
        if record.answer is None:
            raise InputError("this drill is not over: find the fault first")
        drill = self._drill(record)
        planned, faulty = (Evaluation(one.index.plan) for one in (drill.rig, drill.faulty))
        track = drill.hit_track()
        return DrillLadders(track, planned, faulty, rungs_of(planned.report, track, drill.faults))

    def remove(self, drill_id: UUID) -> None:
        self._store.remove(drill_id)

    def do(self, drill_id: UUID, probe_id: str, number: int) -> DrillOut:
        """Look at something, or try it. number: how much was done before; sent again it counts once.

        Raises NotFoundError; InputError: it is over, it cannot be done, or another window has gone on.
        """

        def done(record: DrillRecord) -> DrillRecord:
            if record.done[number : number + 1] == (probe_id,):
                return record
            _check_open(record)
            self._probe(record, probe_id)
            if number != len(record.done):
                raise InputError("another window has gone on with this drill: look again")
            return replace(record, done=(*record.done, probe_id))

        return self._out(self._store.change(drill_id, done))

    def answer(self, drill_id: UUID, answer: str, number: int, *, gives_up: bool = False) -> DrillOut:
        """Say what is wrong. number: how many answers were wrong before. A wrong one costs a take, and the search goes on; of two
        faults, the one that is named is put right, and the search goes on for the other.

        Raises NotFoundError; InputError: it is over, it is no answer, or another window has gone on.
        """
        last = GIVEN_UP if gives_up else answer

        def answered(record: DrillRecord) -> DrillRecord:
            if record.answer == last or record.wrong[number : number + 1] == (answer,):
                return record  # sent again
            _check_open(record)
            drill = self._drill(record)
            put_right = [name.removeprefix(MENDED) for name in record.done if name.startswith(MENDED)]
            if any(drill.found.is_answer(answer, fault) for fault in put_right):
                return record  # sent again, or said of what nothing tells apart from it
            if not gives_up and answer and not drill.found.named(answer):
                raise InputError("that is none of the possible answers: choose one of the list")
            if number != len(record.wrong):
                raise InputError("another window has gone on with this drill: look again")
            here = with_mended(drill, record.done)
            found = drill.found.is_answer(answer, here.truth)
            if not gives_up and answer != here.truth and not found:
                return replace(record, wrong=(*record.wrong, answer))
            if not gives_up and here.without(found).faults:
                return replace(record, done=(*record.done, MENDED + found))
            ended = replace(record, answer=last, ended=self.now())
            judged = self._out(ended).judged
            return replace(ended, score=judged.score if judged else None)

        return self._out(self._store.change(drill_id, answered))

    def sound(self, drill_id: UUID, probe_id: str, number: int = 0) -> bytes:
        """What is heard on one of the tracks there, by its number from 0, as a WAV that can be played over and over, never louder than half of full scale.

        Raises NotFoundError: no such drill, or nothing has been listened to there.
        """
        record = self._store.get(drill_id)
        if probe_id not in record.done:
            raise NotFoundError("nothing has been listened to there yet")
        drill = self._drill(record)
        probe = self._probe(record, probe_id)
        faulty = with_mended(drill, record.done[: _last(record.done, probe_id)]).faulty
        loose = next((fault.run for fault in faulty.faults if fault.code == "loose"), "")
        names = faulty.heard_names(probe.device) if probe.is_heard else []
        if number >= len(names) or (probe.code == "play-back" and not faulty.is_rolling(probe.device)):
            raise NotFoundError("there is nothing to be heard there")
        play = Play.LAUGH if probe.code == "shout" else Play.VOICE
        track = faulty.report.track(names[number])
        if track is None or faulty.is_off_the_ears(probe, names[number]):
            return loop_file(np.zeros(SOUND_SAMPLES, np.float32))
        simulator = Simulator(faulty.index, play, faults=Faults(strays=True, loose=loose), sample_count=SOUND_SAMPLES)
        point = points_of(faulty.report, track.trace.stage)[-1]
        return loop_file(audible(simulator, point, is_track=True) * SAFE_SHARE)

    def _probe(self, record: DrillRecord, probe_id: str) -> Probe:
        probe = next((one for one in self._drill(record).rig.probes if one.id == probe_id), None)
        if probe is None:
            raise InputError("that cannot be done on this rig: choose one of the list")
        return probe

    def _out(self, record: DrillRecord) -> DrillOut:
        drill = self._drill(record)
        return drill_out(str(record.id), record.title, drill, record.done, record.wrong, record.answer)

    def _drill(self, record: DrillRecord) -> Drill:
        """Raises PlanError: its classes have changed since."""
        drill = self._known.get(
            (record.id, record.truth),
            lambda: drill_of(record.seed, stored_plan(record.plan), record.truth, record.most),
        )
        probes = {probe.id for probe in drill.rig.probes}
        if any(name not in probes and not name.startswith(MENDED) for name in record.done):
            raise PlanError(DESCRIBED_OTHERWISE)
        return drill


def _last(done: Sequence[str], probe_id: str) -> int:
    """How much was done before a probe was done last."""
    return len(done) - 1 - list(reversed(done)).index(probe_id)


def _side_by_side(records: Sequence[DrillRecord]) -> list[SameDrillOut]:
    """Drills with the same fault in the same rig that several people have ended: of each the first result."""
    found: dict[tuple[int, str, str], dict[str, int]] = {}
    for record in reversed(records):
        if record.score is not None:
            same = found.setdefault((record.seed, record.title, record.truth), {})
            same.setdefault(record.who, record.score)
    return [
        SameDrillOut(
            seed=seed,
            title=title,
            results=[
                ResultOut(who=who or "somebody", score=score)
                for who, score in sorted(results.items(), key=lambda item: -item[1])
            ],
        )
        for (seed, title, _), results in reversed(found.items())
        if len(results) > 1
    ]


def _check_open(record: DrillRecord) -> None:
    if record.answer is not None:
        raise InputError("this drill is over: draw another one")
