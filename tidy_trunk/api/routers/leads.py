"""Leads: drawn, judged, made."""

from uuid import UUID

from fastapi import APIRouter

from tidy_trunk.api.dependencies import ItemId, Jobs
from tidy_trunk.api.schemas.jobs import PROBLEMS
from tidy_trunk.api.schemas.leads import (
    ContactOut,
    EndOut,
    JudgedOut,
    LeadBoxOut,
    LeadIn,
    LeadPictureOut,
    RunPictureOut,
    StockLeadOut,
    UseOut,
)
from tidy_trunk.core.gear.catalogue import CONNECTORS, INSIDE, Gender, Plug, built_in
from tidy_trunk.core.plan import circuits_of
from tidy_trunk.equipment import PlugModel, WiringModel
from tidy_trunk.results.advice import MatchingOptionOut
from tidy_trunk.results.pictures import contacts_of, lead_picture, lead_uses

router = APIRouter(tags=["leads"], responses=PROBLEMS)


@router.get("/jobs/{job_id}/runs/{run_id}/picture")
def read_picture(job_id: UUID, run_id: ItemId, jobs: Jobs) -> RunPictureOut:
    """A run opened: the contacts of its leads, and the result."""
    return RunPictureOut.from_core(jobs.picture(job_id, run_id))


@router.get("/jobs/{job_id}/runs/{run_id}/inserted-devices")
def read_inserted_devices(job_id: UUID, run_id: ItemId, jobs: Jobs) -> list[MatchingOptionOut]:
    """Ways of a run by another box between its ends, each computed, quiet ones first."""
    return [MatchingOptionOut.from_core(inserted_device) for inserted_device in jobs.inserted_devices(job_id, run_id)]


@router.get("/leads")
def read_lead_box() -> LeadBoxOut:
    """Plugs with their contacts, and the leads of the catalogue, to make one's own from."""
    return LeadBoxOut(
        ends=[
            EndOut(
                connector=connector.id,
                label=connector.label,
                contacts=[ContactOut(name=name, carries=carries) for name, carries in contacts_of(plug)],
            )
            for connector in CONNECTORS.values()
            if circuits_of(plug := Plug(connector.id, Gender.MALE)) and connector.id != INSIDE
        ],
        leads=[
            StockLeadOut(
                id=lead.id,
                label=lead.label,
                sending=PlugModel.from_core(lead.sending),
                receiving=PlugModel.from_core(lead.receiving),
                ways={branch: WiringModel.from_core(way) for branch, way in lead.ways.items()},
                short_m=lead.short_m,
            )
            for lead in built_in().leads.values()
            if circuits_of(lead.sending) and circuits_of(lead.receiving) and lead.tail is None
        ],
    )


@router.post("/leads/judge")
def judge_lead(body: LeadIn) -> JudgedOut:
    """What a lead would do, contact by contact; nothing is kept."""
    lead = body.to_core()
    return JudgedOut(
        pictures={branch: LeadPictureOut.from_core(lead_picture(lead, branch)) for branch in lead.ways},
        balanced=lead.balanced,
        loss_db=lead.loss_db.value if lead.loss_db else None,
        uses=[UseOut.from_core(use, use.between) for use in lead_uses(lead)],
    )
