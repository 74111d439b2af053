"""Ways to match a run beside each other."""

from typing import Annotated
from uuid import UUID

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.api.schemas.simulation import BandOut
from tidy_trunk.core.advice.compare import MOST_OPTIONS, Comparison
from tidy_trunk.core.advice.options import AS_IT_IS
from tidy_trunk.core.base.signal import BANDS_HZ
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words import remark, worded

OptionId = Annotated[str, Field(min_length=1, max_length=120)]


class OptionNameOut(Out):
    id: str
    label: str


class OptionsIn(In):
    """Ways that are to be recorded in the simulation."""

    options: Annotated[list[OptionId], Field(min_length=1, max_length=MOST_OPTIONS)]

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"options": [AS_IT_IS, "trim"]}]}
    )


class CompareIn(In):
    """Recordings by the option that each was made in."""

    recordings: Annotated[dict[OptionId, UUID], Field(min_length=1, max_length=MOST_OPTIONS)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [
                {
                    "recordings": {
                        AS_IT_IS: "7b2e4f3a-5d1c-4a8e-9f60-2c3d4e5f6a7b",
                        "trim": "8c3f5a4b-6e2d-4b9f-8a71-3d4e5f6a7b8c",
                    }
                }
            ]
        },
    )


class ComparedOut(Out):
    """An option as it was recorded beside the option as it was predicted. hiss: noise against the tone, negative.

    place, predicted_place: from 1, the quietest first. remark: "" where it is as predicted.
    """

    option: str
    label: str
    tone_dbfs: Level
    noise_dbfs: Level
    noise_dbfs_a: Level
    hiss_db: Level
    predicted_tone_dbfs: Level
    predicted_hiss_db: Level
    predicted_rules: str
    place: int
    predicted_place: int
    rules: str
    off_db: Level
    remark: str
    is_cut_off: bool
    bands: list[BandOut]

    @classmethod
    def from_core(cls, item: Comparison) -> "ComparedOut":
        found = item.recorded
        return cls(
            option=item.option,
            label=worded(item.does),
            tone_dbfs=found.tone_dbfs,
            noise_dbfs=found.noise_dbfs,
            noise_dbfs_a=found.noise_dbfs_a,
            hiss_db=item.hiss_db,
            predicted_tone_dbfs=item.predicted_tone_dbfs,
            predicted_hiss_db=item.predicted_hiss_db,
            predicted_rules=item.predicted_rules,
            place=item.place,
            predicted_place=item.predicted_place,
            rules=item.rules,
            off_db=item.off_db,
            remark=remark(item),
            is_cut_off=found.is_cut_off,
            bands=[
                # Against the tone, so that options of another level lie where the ear would put them.
                BandOut(hertz=round(hertz, 1), level=band - found.tone_dbfs)
                for hertz, band in zip(BANDS_HZ, found.bands, strict=True)
            ],
        )
