"""What is said of the trunk."""

from typing import Annotated, Any
from uuid import UUID

from pydantic import AfterValidator, ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In, Who
from tidy_trunk.api.schemas.reported_times import Moment
from tidy_trunk.core.base.text import is_plain
from tidy_trunk.core.trunk import LONGEST_LEAD_M, MOST_OF_A_KIND
from tidy_trunk.core.trunk.tester import CableFault
from tidy_trunk.store import PackingState, TickRecord


def _plain(text: str) -> str:
    if not is_plain(text):
        raise ValueError("there are characters in it that cannot be printed: leave them out")
    return text.strip()


ShortLine = Annotated[str, Field(max_length=120), AfterValidator(_plain)]
TypedLine = Annotated[str, Field(min_length=1, max_length=1000), AfterValidator(_plain)]
PieceFigure = Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]


class TrunkLineIn(In):
    """What lies in the trunk, as a line: `6 XLR 5 m, 2 XLR 10 m, blue case`."""

    line: TypedLine

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"line": "6 XLR 5 m, 2 XLR 10 m, blue case"}]}
    )


class UsedIn(In):
    """One is used up. count: how many there were before, so that it may be sent again."""

    count: Annotated[int, Field(ge=1, le=MOST_OF_A_KIND)]

    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_extra={"examples": [{"count": 12}]})


class TrunkTableIn(In):
    """A table of pieces, as CSV."""

    text: Annotated[str, Field(min_length=1, max_length=3_900_000)]

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"text": "count,what,length_m\n6,XLR,5\n"}]}
    )


class PieceChangeIn(In):
    """What is said of a piece; what is null stays."""

    label: Annotated[str, Field(min_length=1, max_length=80), AfterValidator(_plain)] | None = None
    number: ShortLine | None = None
    case: ShortLine | None = None
    tested: Annotated[str, Field(max_length=10)] | None = None
    fault: ShortLine | None = None
    count: Annotated[int, Field(ge=1, le=MOST_OF_A_KIND)] | None = None
    length_m: Annotated[float, Field(ge=0, le=LONGEST_LEAD_M, allow_inf_nan=False)] | None = None
    wh: PieceFigure | None = None
    weight_kg: PieceFigure | None = None

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"number": "X12", "tested": "2026-11-28"}]}
    )

    def values(self) -> dict[str, Any]:
        return self.model_dump(exclude_none=True)


class PiecesIn(In):
    """Pieces that are taken out for good."""

    pieces: Annotated[tuple[UUID, ...], Field(min_length=1, max_length=1000)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"pieces": ["5f0c2b9e-3a53-4a8e-9f3e-6f1f0c7b1a10"]}]},
    )


class ContactPairIn(In):
    """A contact of the sending end that reaches one of the receiving end."""

    near: Annotated[str, Field(max_length=10)]
    far: Annotated[str, Field(max_length=10)]


class CableTestIn(In):
    """Which contact reaches which, as a tester showed it."""

    pairs: Annotated[tuple[ContactPairIn, ...], Field(max_length=100)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"pairs": [{"near": "1", "far": "1"}, {"near": "2", "far": "3"}]}]},
    )


class StandInTestIn(In):
    """A fault that a simulated cable has, null for none; where in it, by the seed."""

    fault: CableFault | None = None
    seed: Annotated[int, Field(ge=0, le=10**9)] = 0

    model_config = ConfigDict(
        extra="forbid", frozen=True, json_schema_extra={"examples": [{"fault": "swapped", "seed": 3}]}
    )


class ChosenIn(In):
    """Pieces that are to serve a need, whatever that costs elsewhere; by the need's id."""

    chosen: Annotated[dict[str, Annotated[tuple[str, ...], Field(max_length=8)]], Field(max_length=500)] = Field(
        default_factory=dict
    )

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"chosen": {"run-1/0": ["5f0c2b9e-3a53-4a8e-9f3e-6f1f0c7b1a10"]}}]},
    )


class TickIn(In):
    """A line of the packing list, ticked; made: when, which may be long before it is sent."""

    item: Annotated[str, Field(min_length=1, max_length=400)]
    state: PackingState
    who: Who = ""
    made: Moment

    def to_core(self) -> TickRecord:
        return TickRecord(item=self.item, state=self.state, who=self.who, made=self.made)


class TicksIn(In):
    ticks: Annotated[tuple[TickIn, ...], Field(min_length=1, max_length=1000)]

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [{"ticks": [{"item": "case/cable", "state": "packed", "made": "2026-11-28T08:10:00+01:00"}]}]
        },
    )
