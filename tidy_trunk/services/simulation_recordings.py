"""Recordings made in the simulation: a worker makes and measures them, which takes some seconds; they are listed with the others."""

from collections.abc import Sequence
from typing import Any, Final
from uuid import UUID, uuid5

from tidy_trunk.core.advice.compare import MOST_OPTIONS, option_plans, track_reached
from tidy_trunk.core.advice.gear_tests import GearTest, GearTestKind, gear_test_of
from tidy_trunk.core.advice.line_up import knob_of, line_up_steps, worth_trying
from tidy_trunk.core.plan import Plan, SetControl, apply_edits
from tidy_trunk.core.sound.levels import Report, known_sender
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.services.jobs import JobService, plan_document
from tidy_trunk.services.recordings import RecordingService
from tidy_trunk.store import RecordingRecord
from tidy_trunk.tasks.requests import Measure, Plays
from tidy_trunk.words import worded
from tidy_trunk.words.gear_tests import gear_test_words

KNOB_TARGET_DBFS: Final = -20.0
"""ASSUMED_ target of steps that are there for the marks of a knob alone."""


class SimulationRecordingService:
    """One method for one thing that a user records in the simulation; answered before it is made.

    `own_id`: of what is made; asked for again it is the same.
    """

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
        known_sender(report.index, report.known_track(track_id).trace.stage)
        return self._record(job_id, own_id, f"tone on {_words(report, track_id)}", report.index.plan, track=track_id)

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
        """Tone while a knob on the way to a track is turned.

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
        what = f"tone at {len(tries)} positions of {knob.label}"
        settings = {"settings": tuple(tries), "target_dbfs": target_dbfs, "device": device, "control": control}
        return self._record(job_id, own_id, what, report.index.plan, track=track_id, **settings)

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
        what = gear_test_words(test, report.index).title
        plan = apply_edits(report.index.plan, test.settings)
        return self._record(job_id, own_id, what, plan, track=test.track, test=test_id, **_asked_of(test))

    def options(self, job_id: UUID, own_id: UUID, run_id: str, asked_options: Sequence[str]) -> list[RecordingRecord]:
        """Tone and silence by several matching options of a run, one recording each.

        Raises:
            NotFoundError, UnknownItemError: No such run, or an option that it has not.
            InputError: More options than can be compared, or a run that no tone can be sent through.
        """
        if not 1 <= len(asked_options) <= MOST_OPTIONS:
            raise InputError(f"{len(asked_options)} options cannot be compared: choose 2 to {MOST_OPTIONS}")
        report = self._jobs.report(job_id)
        plans = option_plans(report, run_id)
        unknown = next((option for option in asked_options if option not in plans), None)
        if unknown is not None:
            raise NotFoundError(f"cable '{run_id}' has no option '{unknown}'; it has {', '.join(plans)}")
        made = []
        for option in asked_options:
            reached = Report(trace_plan(plans[option].plan))
            stage = track_reached(reached, run_id)
            known_sender(reached.index, stage)
            made.append((option, worded(plans[option].does), plans[option].plan, f"{stage.device}.{stage.name}"))
        return [
            self._record(
                *(job_id, uuid5(own_id, option), what, plan),
                track=track_id,
                run=run_id,
                option=option,
                plays=Plays.TONE_AND_SILENCE,
            )
            for option, what, plan, track_id in made
        ]

    def _record(self, job_id: UUID, own_id: UUID, what: str, plan: Plan, **asked: Any) -> RecordingRecord:
        request = Measure(simulated=True, plan=plan_document(plan), **asked)
        return self._recordings.work_out(job_id, f"Simulator: {what}", request, own_id)


def _asked_of(test: GearTest) -> dict[str, Any]:
    """What simulated devices are sent for a test, as the fields of its request."""
    match test.kind:
        case GearTestKind.LEGS | GearTestKind.BLEED:
            return {"plays": Plays.BOTH_SIDES, "other": test.other}
        case GearTestKind.IDLE_NOISE | GearTestKind.INPUT_NOISE:
            return {"plays": Plays.SILENCE}
        case GearTestKind.KNOB:
            knob = {"device": test.device, "control": test.at}
            return {"settings": test.positions, "target_dbfs": KNOB_TARGET_DBFS, **knob}
        case _:
            return {}


def _words(report: Report, track_id: str) -> str:
    device, _, bus = track_id.partition(".")
    return report.index.placed(device).bus_label(bus)
