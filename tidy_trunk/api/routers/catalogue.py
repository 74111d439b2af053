"""What there is to choose from."""

from typing import Literal

from fastapi import APIRouter, Response

from tidy_trunk.api.schemas.catalogue import (
    CatalogueOut,
    ClassOut,
    FormOut,
    GrammarOut,
    HazardOut,
    RoomOut,
    TargetChoiceOut,
)
from tidy_trunk.core.base.timecode import RATES
from tidy_trunk.core.command import GRAMMAR, PASSABLE
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import ALONG, EFFORTS_DB_SPL, ROOMS, TARGETS, Hazard, Role
from tidy_trunk.document import plan_schema
from tidy_trunk.equipment import class_schema
from tidy_trunk.words.terms import term

router = APIRouter(tags=["catalogue"])


@router.get("/catalogue")
def read_catalogue() -> CatalogueOut:
    """Device classes, targets, frame rates and vocal efforts."""
    return CatalogueOut(
        classes=[
            ClassOut(id=item.id, label=item.label, kind=item.kind, group=term(item.kind), blurb=item.blurb)
            for item in built_in().devices.values()
        ],
        targets=[TargetChoiceOut.model_validate(target) for target in TARGETS.values()],
        rooms=[RoomOut.model_validate(room) for room in ROOMS.values()],
        roles=list(Role),
        frame_rates=list(RATES),
        efforts=dict(EFFORTS_DB_SPL),
        hazards=[HazardOut(id=hazard, label=term(hazard), along=hazard in ALONG) for hazard in Hazard],
    )


@router.get("/grammar")
def read_grammar() -> GrammarOut:
    """The forms of a said line."""
    return GrammarOut(forms=[FormOut(**form._asdict()) for form in GRAMMAR], passable=PASSABLE)


@router.get("/plan-schema", response_class=Response, responses={200: {"content": {"application/schema+json": {}}}})
def read_plan_schema() -> Response:
    """The JSON Schema of a plan file."""
    return Response(plan_schema(), media_type="application/schema+json")


@router.get(
    "/equipment-schema/{of}", response_class=Response, responses={200: {"content": {"application/schema+json": {}}}}
)
def read_equipment_schema(of: Literal["device", "cable"]) -> Response:
    """The JSON Schema of a file that describes a device or a cable."""
    return Response(class_schema(of), media_type="application/schema+json")


@router.get("/health")
def read_health() -> dict[str, str]:
    """Whether the server answers."""
    return {"status": "ok"}
