"""What there is to choose from."""

from fastapi import APIRouter

from tidy_trunk.api.schemas.catalogue import CatalogueOut, ClassOut, TargetChoiceOut
from tidy_trunk.core.catalogue import DEVICES
from tidy_trunk.core.plan import EFFORTS_DB_SPL, TARGETS
from tidy_trunk.core.timecode import RATES

router = APIRouter(tags=["catalogue"])


@router.get("/catalogue")
def read_catalogue() -> CatalogueOut:
    """Device classes, targets, frame rates and vocal efforts."""
    return CatalogueOut(
        classes=[ClassOut.model_validate(item) for item in DEVICES.values()],
        targets=[TargetChoiceOut.model_validate(target) for target in TARGETS.values()],
        frame_rates=list(RATES),
        efforts=dict(EFFORTS_DB_SPL),
    )


@router.get("/health")
def read_health() -> dict[str, str]:
    """Whether the server answers."""
    return {"status": "ok"}
