"""Many sounds with many others: which of them lie over each other, and all of them on as few timelines as that allows."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.time.sync.align import Alignment, Sound, best_of
from tidy_trunk.core.time.sync.coarse import LagCandidate, Spectra, places, size_for

PLACES_A_PAIR: Final = 2
"""ASSUMED_ fewest places that each pair brings in: the right one is hardly ever behind them."""

MOST_PLACES: Final = 8
"""ASSUMED_ places of one sound, among all that it might lie in, that are looked at closely."""

ALSO_FROM: Final = 6.0
"""ASSUMED_ score, in standard deviations of chance, from which a sound may lie in a second one too."""


@dataclass(frozen=True, slots=True)
class PairOffset:
    """What was found between two items: the second begins so much later than the first, in seconds."""

    first: int
    second: int
    offset_s: float
    confidence: float


@dataclass(frozen=True, slots=True)
class PairAlignment:
    """A sound of the others in one of the references, by their numbers."""

    reference: int
    other: int
    alignment: Alignment


def match_many(
    references: Sequence[Sound],
    others: Sequence[Sound],
    sure: float,
    progress: Callable[[float], None],
) -> tuple[PairAlignment, ...]:
    """Where each of the others lies in the references: in the likeliest one, and in others where that is likely too.

    Args:
        sure: Confidence from which it counts as found.
        progress: Told the share that is done, 0 to 1.
    """
    if not references or not others:
        return ()
    longest = [max(len(sound.profile.features) for sound in sounds) for sounds in (references, others)]
    size = size_for(*longest)
    spectra = [Spectra(sound.profile, size) for sound in references]
    a_pair = max(PLACES_A_PAIR, MOST_PLACES // len(references))
    found: list[PairAlignment] = []
    for number, other in enumerate(others):
        theirs = Spectra(other.profile, size)
        likely = [
            (place, index) for index, reference in enumerate(spectra) for place in places(reference, theirs, a_pair)
        ]
        likely.sort(key=lambda item: -item[0].score)
        # The best of all references stands higher by chance than the best of one.
        tried = sum({index: place.tried for place, index in likely}.values())
        picked = [(replace(place, tried=tried), index) for place, index in likely[:MOST_PLACES]]
        found += _closely(references, other, number, picked, sure)
        progress((number + 1) / len(others))
    return tuple(found)


def align(reference: Sound, other: Sound) -> Alignment | None:
    """Find one sound in another by what both hear; None where nothing at all can be said."""
    found = match_many([reference], [other], 0.0, lambda _: None)
    return found[0].alignment if found else None


def _closely(
    references: Sequence[Sound], other: Sound, number: int, likely: Sequence[tuple[LagCandidate, int]], sure: float
) -> list[PairAlignment]:
    """The reference that holds a sound, and those that may hold a part of it too."""
    found: list[PairAlignment] = []
    for index in dict.fromkeys(index for _, index in likely):
        here = [place for place, where in likely if where == index]
        if found and here[0].score < ALSO_FROM:
            continue
        alignment = best_of(references[index], other, here)
        if alignment is not None and alignment.confidence >= sure:
            found.append(PairAlignment(index, number, alignment))
    return found


def timelines(count: int, ties: Sequence[PairOffset]) -> list[dict[int, float]]:
    """Items that hang together, each with where it begins on the timeline of its group, in seconds from its earliest.

    The surest ties count; what contradicts them is left out. Items that hang on nothing stand alone.
    """
    groups = [{item: 0.0} for item in range(count)]
    of = list(range(count))
    for tie in sorted(ties, key=lambda tie: -tie.confidence):
        first, second = of[tie.first], of[tie.second]
        if first == second:
            continue
        shift = groups[first][tie.first] + tie.offset_s - groups[second][tie.second]
        for item, begins_s in groups[second].items():
            groups[first][item] = begins_s + shift
            of[item] = first
        groups[second] = {}
    found = []
    for group in groups:
        if group:
            earliest = min(group.values())
            found.append({item: begins_s - earliest for item, begins_s in sorted(group.items())})
    return found
