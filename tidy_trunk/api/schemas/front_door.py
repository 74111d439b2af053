"""What is asked before there is a job."""

from typing import Annotated
from uuid import UUID

from pydantic import Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.rigs import LONGEST, Approach, WantedConnection
from tidy_trunk.results.numbers import Out

LONGEST_M = 500
"""ASSUMED_ longest cable between two things."""

ChosenClass = Annotated[str, Field(min_length=1, max_length=61, examples=["handheld-recorder"])]
ChosenSocket = Annotated[str, Field(max_length=80)]


class TakeRigIn(In):
    """`text`: the question; `id`: of the job, given by the sender."""

    text: Annotated[
        str, Field(min_length=1, max_length=LONGEST, examples=["two people, two lavs on radio, bag recorder"])
    ]
    approach: Approach
    id: UUID


class EndsIn(In):
    """Two things; the labels of sockets are empty where any will do, the length where the usual one is meant."""

    sending: ChosenClass
    receiving: ChosenClass
    output: ChosenSocket = ""
    input: ChosenSocket = ""
    length_m: Annotated[float | None, Field(gt=0, le=LONGEST_M, allow_inf_nan=False)] = None

    def to_core(self) -> WantedConnection:
        return WantedConnection(**self.model_dump(include=set(EndsIn.model_fields)))


class TakeJoinedIn(EndsIn):
    """`number`: which of the ways, from 0; `id`: of the job."""

    number: Annotated[int, Field(ge=0, le=20)]
    id: UUID


class ExampleOut(Out):
    """A job to learn on: what is shot, with what."""

    id: str
    title: str
    story: str
