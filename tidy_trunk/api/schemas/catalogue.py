"""What there is to choose from."""

from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import Hazard, Role
from tidy_trunk.results.numbers import Out


class ClassOut(Out):
    """A plain class of the catalogue. group: the words of its kind, under which it is listed."""

    id: str
    label: str
    kind: DeviceKind
    group: str
    blurb: str


class TargetChoiceOut(Out):
    id: str
    label: str
    words: str


class RoomOut(Out):
    """A kind of place, and how loud it usually is when nobody speaks."""

    id: str
    label: str
    noise_db_a: float
    rumble_db_spl: float


class HazardOut(Out):
    """What a lead may pass; `along`: for so many metres, else at a distance."""

    id: Hazard
    label: str
    along: bool


class CatalogueOut(Out):
    classes: list[ClassOut]
    targets: list[TargetChoiceOut]
    rooms: list[RoomOut]
    roles: list[Role]
    frame_rates: list[str]
    efforts: dict[str, float]
    hazards: list[HazardOut]


class FormOut(Out):
    """One form of a said line."""

    pattern: str
    example: str
    does: str


class GrammarOut(Out):
    forms: list[FormOut]
    passable: str
