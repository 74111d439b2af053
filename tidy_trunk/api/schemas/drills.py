"""What is asked of a drill."""

from typing import Annotated
from uuid import UUID

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In, Who
from tidy_trunk.api.schemas.ladder import LadderOut
from tidy_trunk.core.drill import LARGEST_SEED, DrillLevel, EarTask
from tidy_trunk.results.numbers import Out

Counted = Annotated[int, Field(ge=0, le=10_000)]
Probed = Annotated[str, Field(min_length=1, max_length=200)]


class DrillIn(In):
    """A drill to begin. id: of its sender's own, so that it may be sent again; seed: draws the same for everybody; job: whose rig it
    is hidden in, example: that of one of the examples, neither for a rig that is drawn; level: of that one; kind: of fault, "" for any,
    and at times none; most: how many faults there may be."""

    id: UUID
    seed: Annotated[int, Field(ge=0, le=LARGEST_SEED)]
    job: UUID | None = None
    example: Annotated[str, Field(max_length=30)] = ""
    level: DrillLevel = DrillLevel.UNIT
    kind: Annotated[str, Field(max_length=30)] = ""
    most: Annotated[int, Field(ge=1, le=2)] = 1
    who: Who = ""

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"id": "5f0c6f0e-6f0f-4f6e-9d0c-3f1c9a6f7b10", "seed": 4711}]},
    )


class ProbeIn(In):
    """What is looked at, or tried: an id of the list. number: how much was done before, so that it may be sent again."""

    probe: Probed
    number: Counted

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"probe": "meters:camera", "number": 0}]}
    )


class DrillAnswerIn(In):
    """What is wrong: an id of the list, "" where nothing is. number: how many answers were wrong before; gives_up: to be told."""

    answer: Annotated[str, Field(max_length=200)] = ""
    number: Counted
    gives_up: bool = False

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"answer": "loose:run-1", "number": 0}]}
    )


class DrillLaddersOut(Out):
    """A track as it was planned, and with the faults in it. at: rungs of the planned ladder at which these are, from 0."""

    planned: LadderOut
    faulty: LadderOut
    at: list[int]


class DrillJobIn(In):
    """id: of the job that is made, of its sender's own."""

    id: UUID

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"id": "0b9f2b0e-7a7c-4a43-9d43-0f3f1f0c2a11"}]}
    )


class EarIn(In):
    """A session of ear training to begin. id: of its sender's own."""

    id: UUID
    task: EarTask
    who: Who = ""

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"id": "7d0a2a44-5d37-4a1c-8f2d-2f6b4e0f9a01", "task": "hum"}]},
    )


class EarAnswerIn(In):
    """Which of the two has more, 0 or 1. number: of the pair, from 0."""

    which: Annotated[int, Field(ge=0, le=1)]
    number: Counted

    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_extra={"examples": [{"which": 1, "number": 0}]})
