"""What there is to choose from."""

from tidy_trunk.api.schemas.numbers import Out


class ClassOut(Out):
    """A plain class of the catalogue."""

    id: str
    label: str
    kind: str
    blurb: str


class TargetChoiceOut(Out):
    id: str
    label: str
    words: str


class CatalogueOut(Out):
    classes: list[ClassOut]
    targets: list[TargetChoiceOut]
    frame_rates: list[str]
    efforts: dict[str, float]
