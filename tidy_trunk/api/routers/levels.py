"""Ladders, matching options, devices, and the sentence line."""

from typing import Annotated
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Query, Request, Response

from tidy_trunk.api.dependencies import GainPlans, ItemId, Jobs, PieceOf, Recordings, Trunk
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.devices import DeviceDetailOut
from tidy_trunk.api.schemas.edits import EditsOut
from tidy_trunk.api.schemas.gain import LATER, GainIn, GainTaskOut
from tidy_trunk.api.schemas.jobs import PROBLEMS, JoinIn, PreviewIn, SayIn
from tidy_trunk.api.schemas.ladder import HeardOut, LadderOut
from tidy_trunk.api.schemas.recordings import SOUND_BODY
from tidy_trunk.api.schemas.runs import CableChainOut
from tidy_trunk.core.base.signal import SpeechLevels
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.errors import NotFoundError
from tidy_trunk.results.advice import AnswerOut, GainPlanOut, MatchingOptionOut
from tidy_trunk.results.sockets import SocketsOut
from tidy_trunk.store import RecordingRecord
from tidy_trunk.tasks.requests import MeasureSpeech

router = APIRouter(prefix="/jobs/{job_id}", tags=["levels"], responses=PROBLEMS)


@router.post("/tracks/{track_id}/ladder")
def read_ladder(
    job_id: UUID,
    track_id: ItemId,
    body: PreviewIn,
    jobs: Jobs,
    through: Annotated[str, Query(max_length=61, description="Device by whose way to draw a mix")] = "",
) -> LadderOut:
    """The ladder of a track, as it is or as edits would make it; nothing is kept."""
    evaluation = jobs.preview(job_id, [edit.to_core() for edit in body.edits])
    track = evaluation.report.known_track(track_id)
    return LadderOut.from_core(evaluation, track, through)


@router.post("/tracks/{track_id}/heard", openapi_extra=SOUND_BODY)
async def read_heard(
    job_id: UUID,
    track_id: ItemId,
    piece: PieceOf,
    request: Request,
    jobs: Jobs,
    recordings: Recordings,
    channel: Annotated[int, Query(ge=1, le=64, description="Channel of the file, from 1")] = 1,
) -> HeardOut:
    """How loud a track's source and the place were in a recording of it, and the edits that say so; nothing is kept."""
    await to_thread.run_sync(jobs.plan, job_id)
    found = SpeechLevels(**await recordings.look(piece, MeasureSpeech(channel=channel), request.stream()))
    return HeardOut.from_core(await to_thread.run_sync(jobs.heard, job_id, track_id, found))


@router.post("/gain-plan", responses=LATER)
@heavy
def make_gain_plan(job_id: UUID, body: GainIn, response: Response, plans: GainPlans) -> GainPlanOut | GainTaskOut:
    """Where every knob and level switch of the job should stand, in the order of the work; the job stays as it is.

    For a large job it is made by a worker: ask for it again to see how far it is.
    """
    made = plans.make(job_id, frozenset((pin.device, pin.control) for pin in body.pins))
    if isinstance(made, RecordingRecord):
        response.status_code = 202
        return GainTaskOut.from_record(made)
    return GainPlanOut.from_core(made)


@router.get("/gain-plan/{task_id}")
def read_gain_plan(job_id: UUID, task_id: UUID, plans: GainPlans) -> GainTaskOut:
    """How far a gain plan is, and the plan once it is done."""
    return GainTaskOut.from_record(plans.get(job_id, task_id))


@router.delete("/gain-plan/{task_id}", status_code=204)
def cancel_gain_plan(job_id: UUID, task_id: UUID, plans: GainPlans) -> None:
    """Nobody waits for it any more."""
    plans.cancel(job_id, task_id)


@router.get("/runs/{run_id}/options")
@heavy
def read_options(job_id: UUID, run_id: ItemId, jobs: Jobs) -> list[MatchingOptionOut]:
    """The matching options of a run, each computed, best first."""
    return [MatchingOptionOut.from_core(option) for option in jobs.matching_options(job_id, run_id)]


@router.get("/runs/{run_id}/cable-chains")
def read_cable_chains(job_id: UUID, run_id: ItemId, jobs: Jobs, trunk: Trunk) -> list[CableChainOut]:
    """Other leads that join the two ports of a run: what lies in the trunk first, then best first."""
    found = trunk.owned_first(job_id, run_id, jobs.cable_chains(job_id, run_id))
    return [CableChainOut.from_core(choice, in_trunk) for choice, in_trunk in found]


@router.get("/runs/{run_id}/leads/{lead_id}")
def read_lead(job_id: UUID, run_id: ItemId, lead_id: ItemId, jobs: Jobs) -> EditsOut:
    """The edits that put a lead into a run, with an attenuator kept where it was."""
    return EditsOut.from_core(jobs.with_lead(job_id, run_id, lead_id))


@router.get("/devices/{device_id}")
def read_device(job_id: UUID, device_id: ItemId, jobs: Jobs) -> DeviceDetailOut:
    """A device with its ports, controls and figures."""
    evaluation = jobs.newest(job_id).evaluation
    if device_id not in evaluation.plan.devices:
        raise NotFoundError(f"the job has no device '{device_id}'")
    return DeviceDetailOut.from_core(evaluation, evaluation.index.placed(device_id))


@router.get("/sockets")
def list_sockets(job_id: UUID, jobs: Jobs) -> list[SocketsOut]:
    """Every socket of a job, device by device."""
    return SocketsOut.of_job(PlanIndex(jobs.plan(job_id)))


@router.post("/joined")
def join_sockets(job_id: UUID, body: JoinIn, jobs: Jobs) -> AnswerOut:
    """What joins two sockets: what a line that names them would do. Nothing changes."""
    return AnswerOut.from_core(jobs.joined(job_id, body.sending.to_core(), body.receiving.to_core(), body.length_m))


@router.post("/say")
def say(job_id: UUID, body: SayIn, jobs: Jobs) -> AnswerOut:
    """What a line would do, before anything changes."""
    return AnswerOut.from_core(jobs.say(job_id, body.text))
