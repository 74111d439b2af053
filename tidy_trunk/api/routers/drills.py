"""Drills: a hidden fault, what was looked at, and how the search is judged."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response

from tidy_trunk.api.dependencies import Drills
from tidy_trunk.api.heavy import heavy
from tidy_trunk.api.schemas.drills import DrillAnswerIn, DrillIn, DrillJobIn, DrillLaddersOut, ProbeIn
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.ladder import LadderOut
from tidy_trunk.results.drill import DrillOut, JobMadeOut, TrainingOut

router = APIRouter(prefix="/drills", tags=["drill"], responses=PROBLEMS)


@router.get("")
def read_training(drills: Drills) -> TrainingOut:
    """Drills that were played on this machine, and what is to be practised."""
    return drills.training()


@router.post("", status_code=201)
@heavy
def begin_drill(body: DrillIn, drills: Drills) -> DrillOut:
    """Hide a fault in a rig. What it is, is told when the drill was answered."""
    return drills.begin(
        body.id,
        body.seed,
        body.job,
        example=body.example,
        level=body.level,
        kind=body.kind,
        most=body.most,
        who=body.who,
    )


@router.get("/{drill_id}")
@heavy
def read_drill(drill_id: UUID, drills: Drills) -> DrillOut:
    """A drill as far as it was played."""
    return drills.read(drill_id)


@router.delete("/{drill_id}", status_code=204)
def remove_drill(drill_id: UUID, drills: Drills) -> None:
    """Forget a drill."""
    drills.remove(drill_id)


@router.post("/{drill_id}/probes")
@heavy
def do_probe(drill_id: UUID, body: ProbeIn, drills: Drills) -> DrillOut:
    """Look at something, or try it: it takes its time, and is shown from then on."""
    return drills.do(drill_id, body.probe, body.number)


@router.post("/{drill_id}/answer")
@heavy
def answer_drill(drill_id: UUID, body: DrillAnswerIn, drills: Drills) -> DrillOut:
    """Say what is wrong. A wrong answer costs a take; the right one, or giving up, is judged."""
    return drills.answer(drill_id, body.answer, body.number, gives_up=body.gives_up)


@router.post("/{drill_id}/job", status_code=201)
@heavy
def make_job_of_drill(drill_id: UUID, body: DrillJobIn, drills: Drills) -> JobMadeOut:
    """A job with the rig as planned, and then with the fault: its levels and findings show what it does."""
    return drills.as_job(drill_id, body.id)


@router.get("/{drill_id}/ladders")
@heavy
def read_drill_ladders(drill_id: UUID, drills: Drills) -> DrillLaddersOut:
    """Of a drill that is over: the track on which it is heard, as planned and with the faults in it."""
    found = drills.ladders(drill_id)
    planned, faulty = (
        LadderOut.from_core(one, one.report.known_track(found.track), "") for one in (found.planned, found.faulty)
    )
    return DrillLaddersOut(planned=planned, faulty=faulty, at=list(found.at))


@router.get("/{drill_id}/sound.wav", response_class=Response, responses={200: {"content": {"audio/wav": {}}}})
@heavy
def read_drill_sound(
    drill_id: UUID,
    probe: Annotated[str, Query(max_length=200, description="What was listened to")],
    drills: Drills,
    track: Annotated[int, Query(ge=0, le=1000, description="Of the tracks there, from 0")] = 0,
) -> Response:
    """What is heard at a place that was listened to, at half of full scale at most."""
    return Response(drills.sound(drill_id, probe, track), media_type="audio/wav")
