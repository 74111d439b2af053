"""The trunk, and what a job needs of it."""

from pydantic import Field

from tidy_trunk.core.trunk import CableFault, PieceKind
from tidy_trunk.document import AnyEdit
from tidy_trunk.results.numbers import Level, Out


class PieceOut(Out):
    """A piece as it lies in the trunk. words: as it is called; has_photo: whether there is a photograph of it."""

    id: str
    kind: PieceKind
    words: str
    label: str
    what: str
    count: int
    length_m: float
    number: str
    case: str
    tested: str
    fault: str
    wh: Level
    weight_kg: Level
    has_photo: bool = False


class ContactPairOut(Out):
    near: str
    far: str


class CableTestOut(Out):
    """What a tester shows on a whole cable of a class: contacts of both ends, and which reaches which."""

    sending: list[str]
    receiving: list[str]
    right: list[ContactPairOut]


class TestedOut(Out):
    fault: str
    faults: list[CableFault]


class StockOut(Out):
    summary: str
    pieces: list[PieceOut]
    cases: list[str]


class DescribedOut(Out):
    """What a line or a table would add: how many, and of what."""

    count: int
    words: str
    kind: PieceKind
    case: str


class ServedOut(Out):
    """A cable that a job needs. runs: their numbers; label: what is needed, in words; pieces: ids; is_short: nothing is left for it; spare: kept for what happens only
    once, in words; chosen: by hand."""

    need: str
    runs: list[int]
    label: str
    length_m: float
    words: str
    pieces: list[str]
    is_short: bool
    is_once: bool
    spare: str
    is_unspared: bool
    chosen: bool = False


class WantedOut(Out):
    count: int
    words: str
    runs: list[int]


class OtherWayOut(Out):
    """Other cables for a run, of which all are there, or other sockets of its devices; edits: that make the plan so."""

    run: int
    words: str
    edits: list[AnyEdit]


class HeldOut(Out):
    """Pieces that another job uses on that day; count: of those that are alike."""

    count: int
    words: str
    job: str
    job_name: str


class CountOut(Out):
    label: str
    kind: PieceKind
    needed: int
    owned: int


class PackedOut(Out):
    """A line of the packing list. used_up: ids of its pieces where they are counted down, none of what comes back; kit: who of the crew takes its case, "" for nobody in particular; state: open, packed, back or
    missing."""

    id: str
    label: str
    count: int
    case: str
    kind: PieceKind
    runs: list[int]
    used_up: list[str]
    kit: str
    is_spare: bool
    warning: str
    state: str
    who: str


class TrunkOut(Out):
    """What a job needs of the trunk. summary: in one line; day: that it claims pieces for; claimed: whether it has."""

    summary: str
    day: str
    claimed: bool
    has_stock: bool
    served: list[ServedOut]
    wanted: list[WantedOut]
    other_ways: list[OtherWayOut]
    held: list[HeldOut]
    devices: list[CountOut]
    packing: list[PackedOut]
    weight: str
    packed: int = 0
    notes: list[str] = Field(default_factory=list)
