"""Files on a timeline, as every export takes them."""

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from tidy_trunk.core.base.timecode import FrameRate


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedFile:
    """A file that was placed. begins_s: on the timeline; own_start_s: since midnight by its own clock, 0 where it has none.

    method, confidence: of how it was found; "" and 0 for what all else is laid against.
    """

    name: str
    is_picture: bool
    begins_s: Fraction
    seconds: Fraction
    own_start_s: Fraction
    drift_ppm: float | None = None
    polarity: int = 1
    method: str = ""
    confidence: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedTimeline:
    """starts_s: of the timeline, since midnight. rate: in whose frames it is counted."""

    title: str
    rate: FrameRate
    starts_s: Fraction
    files: tuple[PlacedFile, ...]

    def lanes(self, is_picture: bool) -> list[list[PlacedFile]]:
        """Files of one kind on as few lanes as they need: on one lane none lies over another."""
        lanes: list[list[PlacedFile]] = []
        for file in sorted(self._of_kind(is_picture), key=lambda item: item.begins_s):
            free = next((lane for lane in lanes if lane[-1].begins_s + lane[-1].seconds <= file.begins_s), None)
            if free is None:
                lanes.append([file])
            else:
                free.append(file)
        return lanes

    def _of_kind(self, is_picture: bool) -> Iterable[PlacedFile]:
        return (file for file in self.files if file.is_picture == is_picture)
