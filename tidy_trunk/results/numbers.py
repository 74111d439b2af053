"""Numbers on their way out: silence is null, as JSON has no infinity."""

import math
from typing import Annotated

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field


def _finite(value: float | None) -> float | None:
    return round(value, 3) if value is not None and math.isfinite(value) else None


Level = Annotated[float | None, BeforeValidator(_finite), Field(description="dB; null is silence, or no limit")]


class Out(BaseModel):
    """Read from core values by name."""

    model_config = ConfigDict(from_attributes=True, frozen=True)
