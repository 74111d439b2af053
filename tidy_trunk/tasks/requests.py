"""What may be asked of a worker, and how it is written down: beside its recording in the store, and to the worker's input."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any, ClassVar, Final


@dataclass(frozen=True, slots=True, kw_only=True)
class Measure:
    """A recording measured; with settings, the steps of a knob found in it.

    track: the one that it was made on, `device.bus`; settings: of a step recording, in order; keep: its sound is kept too.
    bench: it was simulated, with a `control` of a `device` turned, or by a `way` of a `run`; test: that it
    answers; shown: what that device's meter
    showed for each of its tones, in dBFS.
    """

    kind: ClassVar = "measure"

    track: str = ""
    settings: tuple[float, ...] = ()
    target_dbfs: float | None = None
    keep: bool = False
    bench: bool = False
    device: str = ""
    control: str = ""
    run: str = ""
    way: str = ""
    test: str = ""
    shown: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class LookAt:
    """A file of a recorder or a camera looked at, to be laid over others later. side: which of the two; its sound is kept."""

    kind: ClassVar = "look-at"
    keep: ClassVar = True

    side: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Match:
    """Where files lie on each other. files: with id, name, side and facts; by_hand, nudged: clips that were moved."""

    kind: ClassVar = "match"
    keep: ClassVar = False

    files: tuple[dict[str, Any], ...]
    by_hand: tuple[dict[str, Any], ...] = ()
    nudged: tuple[dict[str, Any], ...] = ()


Request = Measure | LookAt | Match

_KINDS: Final[Mapping[str, type[Measure] | type[LookAt] | type[Match]]] = {
    kind.kind: kind for kind in (Measure, LookAt, Match)
}


def request_document(request: Request) -> dict[str, Any]:
    """A request as plain JSON values."""
    return {"kind": request.kind, **asdict(request)}


def request_of(document: Mapping[str, Any]) -> Request:
    """What was written down, by earlier versions too: those told the kind by the keys that are there."""
    values: dict[str, Any] = {
        name: tuple(value) if isinstance(value, list) else value for name, value in document.items()
    }
    if "kind" in values:
        return _KINDS[values.pop("kind")](**values)
    side = values.pop("sync", None)
    if "match" in values:
        return Match(files=values["match"], by_hand=values.get("by_hand", ()), nudged=values.get("nudged", ()))
    return Measure(**values) if side is None else LookAt(side=side)
