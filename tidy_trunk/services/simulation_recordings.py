"""Recordings made on the bench: measured like any file, and listed with the others."""

import io
from collections.abc import Sequence
from dataclasses import replace
from typing import Final
from uuid import UUID, uuid5

from tidy_trunk.core.advice.compare import MOST_WAYS, track_reached, way_plans
from tidy_trunk.core.advice.gear_tests import GearTestKind, gear_test_of
from tidy_trunk.core.advice.line_up import knob_of, line_up_steps, worth_trying
from tidy_trunk.core.plan import SetControl, apply_edits
from tidy_trunk.core.sound.levels import Report, known_sender
from tidy_trunk.core.sound.simulation import (
    Loop,
    both_sides,
    meter_shows_dbfs,
    silence_take,
    tone_and_silence,
    tone_steps,
    tone_take,
    truth,
)
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.media.simulated import PAUSE_S, loop_file
from tidy_trunk.results.recordings import measured_recording
from tidy_trunk.services.jobs import JobService, plan_document
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord
from tidy_trunk.tasks.requests import Measure
from tidy_trunk.words import worded
from tidy_trunk.words.gear_tests import gear_test_words

KNOB_TARGET_DBFS: Final = -20.0
"""ASSUMED_ target of steps that are there for the marks of a knob alone."""


class BenchRecordings:
    """One method for one thing that a user records on the bench. `own_id`: of what is made; made again it is the same."""

    def __init__(self, jobs: JobService, recordings: RecordingService) -> None:
        self._jobs = jobs
        self._recordings = recordings

    def tone(self, job_id: UUID, own_id: UUID, track_id: str) -> RecordingRecord:
        """Tone through simulated devices, recorded on a track.

        Raises:
            NotFoundError: No such track.
            InputError: A track that no tone can be sent to.
        """
        report = self._jobs.report(job_id)
        recorded = tone_take(truth(report.index.plan), track_id)
        what = f"tone on {_words(report, track_id)}"
        return self._keep(job_id, own_id, report, what, recorded, Measure(track=track_id, bench=True))

    def steps(
        self,
        job_id: UUID,
        own_id: UUID,
        track_id: str,
        device: str,
        control: str,
        positions: Sequence[float],
        target_dbfs: float,
    ) -> RecordingRecord:
        """Tone while a knob on the way to a track is turned; a worker records and measures it, which takes some seconds.

        `positions`: in dB as the knob has them; those worth trying where none are given.

        Raises:
            NotFoundError: No such track, or no such knob on its way.
            InputError: Positions that are not on the knob, or at which nothing can be told.
        """
        report = self._jobs.report(job_id)
        knob = knob_of(report, track_id, device, control)
        step = next((item for item in line_up_steps(report) if item.track == track_id), None)
        tries = list(positions or (worth_trying(knob, step.shows_dbfs) if step is not None else ()))
        if len(tries) < 2:
            raise InputError("at no two positions of this knob would the tone be clean: match the levels first")
        known_sender(report.index, report.known_track(track_id).trace.stage)
        for position_db in tries:
            SetControl(device=device, control=control, value=position_db).apply(report.index.plan)
        request = Measure(
            track=track_id,
            bench=True,
            settings=tuple(tries),
            target_dbfs=target_dbfs,
            device=device,
            control=control,
            plan=plan_document(report.index.plan),
        )
        what = f"Simulator: tone at {len(tries)} positions of {knob.label}"
        return self._recordings.work_out(job_id, what, request, own_id)

    def gear_test(self, job_id: UUID, own_id: UUID, test_id: str) -> RecordingRecord:
        """What a test of one's own gear asks to be recorded.

        Raises:
            NotFoundError: No such test.
            InputError: A test that no recording answers.
        """
        report = self._jobs.report(job_id)
        test = gear_test_of(report, test_id)
        if not test.records:
            raise InputError("this test cannot be done in the simulation: count the frames on the real device")
        plan = truth(apply_edits(report.index.plan, test.settings))
        request = Measure(track=test.track, bench=True, test=test_id)
        match test.kind:
            case GearTestKind.LEGS | GearTestKind.BLEED:
                recorded = both_sides(plan, test.track, test.other)
            case GearTestKind.IDLE_NOISE | GearTestKind.INPUT_NOISE:
                recorded = silence_take(plan, test.track)
            case GearTestKind.KNOB:
                recorded = tone_steps(plan, test.track, test.device, test.at, test.positions, PAUSE_S)
                request = replace(request, settings=test.positions, target_dbfs=KNOB_TARGET_DBFS)
            case _:
                recorded = tone_take(plan, test.track)
        return self._keep(job_id, own_id, report, gear_test_words(test, report.index).title, recorded, request)

    def ways(self, job_id: UUID, own_id: UUID, run_id: str, asked_ways: Sequence[str]) -> list[RecordingRecord]:
        """Tone and silence by several ways to match a run, one recording each.

        Raises:
            NotFoundError, UnknownItemError: No such run, or a way that it has not.
            InputError: More ways than can be compared, or a run that no tone can be sent through.
        """
        if not 1 <= len(asked_ways) <= MOST_WAYS:
            raise InputError(f"{len(asked_ways)} ways cannot be compared: choose 2 to {MOST_WAYS}")
        report = self._jobs.report(job_id)
        plans = way_plans(report, run_id)
        made = []
        for way in asked_ways:
            if way not in plans:
                raise NotFoundError(f"cable '{run_id}' has no way '{way}'; it has {', '.join(plans)}")
            report = Report(trace_plan(plans[way].plan))
            stage = track_reached(report, run_id)
            track_id = f"{stage.device}.{stage.name}"
            recorded = tone_and_silence(truth(plans[way].plan), track_id)
            made.append(
                (report, worded(plans[way].does), recorded, Measure(track=track_id, bench=True, run=run_id, way=way))
            )
        return [self._keep(job_id, uuid5(own_id, item[-1].way), *item) for item in made]

    def _keep(
        self,
        job_id: UUID,
        recording_id: UUID,
        report: Report,
        what: str,
        recorded: Loop,
        request: Measure,
    ) -> RecordingRecord:
        data = loop_file(recorded)
        result = measured_recording(lambda: io.BytesIO(data), request.settings, request.target_dbfs)
        device = request.track.partition(".")[0]
        shown = tuple(meter_shows_dbfs(report.index.plan, device, level) for level in result.tone_levels_dbfs)
        return self._recordings.keep(
            job_id, recording_id, f"Simulator: {what}", replace(request, shown=shown), result.model_dump(mode="json")
        )


def _words(report: Report, track_id: str) -> str:
    device, _, bus = track_id.partition(".")
    return report.index.unit(device).bus_label(bus)
