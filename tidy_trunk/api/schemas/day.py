"""A day sheet from elsewhere."""

from typing import Annotated

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.exports import LARGEST_DAY_SHEET


class DaySheetIn(In):
    """text: of a calendar (iCalendar), or of a table with columns `what`, `at`, `minutes`, `takes`, `take_min`."""

    text: Annotated[str, Field(min_length=1, max_length=LARGEST_DAY_SHEET)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [{"text": "what,at,minutes,takes,take_min\\n12C,10:30,,4,3\\nLunch,13:00,45,,\\n"}]
        },
    )
