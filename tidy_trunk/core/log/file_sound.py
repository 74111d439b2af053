"""What a take's file holds against what the plan expects on its tracks: silence, flat tops, levels, tracks that changed places."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations
from typing import Final

from tidy_trunk.core.log.files import ChannelHeard, DayFile, DayTake, ExpectedTrack, FileFinding, FileTrouble

FAR_DB: Final = 12.0
"""ASSUMED_ by how much what is spoken may miss the plan: people whisper and shout, and no setting is wrong by less."""

QUIETER_DB: Final = 3.0
"""ASSUMED_ by how much a safety track has to be the louder one before both are held to have changed places."""


def sound_findings(file: DayFile, take: DayTake, expected: Sequence[ExpectedTrack]) -> Iterator[FileFinding]:
    """What is wrong with the sound of a file, and with the order of its tracks. Nothing where its sound was not looked at."""
    facts: dict[str, str | float]
    clipped = [number for number, heard in enumerate(file.heard, start=1) if heard.clipped and not heard.is_timecode]
    if clipped:
        tops = max(file.heard[number - 1].clipped for number in clipped)
        facts = {"tracks": _words(clipped, tracks_by_channel(file, expected)), "count": float(tops)}
        yield FileFinding(what=FileTrouble.CLIPPED, path=file.path, take=take.id, facts=facts)
    placed = tracks_by_channel(file, expected)
    silent = [
        number
        for number, track in placed.items()
        if file.heard and _heard(file, number).is_silent and (track.is_timecode or track.level_dbfs is not None)
    ]
    if silent:
        facts = {"tracks": _words(silent, placed)}
        yield FileFinding(what=FileTrouble.SILENT, path=file.path, take=take.id, facts=facts)
    swapped = _swapped(file, expected, placed)
    if swapped is not None:
        first, second = swapped
        facts = {"first": float(first), "second": float(second)}
        yield FileFinding(what=FileTrouble.SWAPPED, path=file.path, take=take.id, facts=facts)
    elif take.is_spoken:
        yield from _levels(file, take, placed)


def _levels(file: DayFile, take: DayTake, placed: Mapping[int, ExpectedTrack]) -> Iterator[FileFinding]:
    for number, track in placed.items():
        if not file.heard or track.is_timecode or track.level_dbfs is None or _heard(file, number).clipped:
            continue
        level = _heard(file, number).level_dbfs
        if level is not None and abs(level - track.level_dbfs) > FAR_DB:
            facts: dict[str, str | float] = {"track": _name(number, placed), "is": level, "wanted": track.level_dbfs}
            yield FileFinding(what=FileTrouble.LEVEL, path=file.path, take=take.id, facts=facts)


def _swapped(
    file: DayFile, expected: Sequence[ExpectedTrack], placed: Mapping[int, ExpectedTrack]
) -> tuple[int, int] | None:
    """Two channels that changed places: by the names that the file gives them, by timecode, or by a safety that is louder."""
    said = dict(file.tracks)
    if sorted(said) == list(range(1, len(expected) + 1)):
        for first, second in combinations(range(1, len(said) + 1), 2):
            mine, other = expected[first - 1].names, expected[second - 1].names
            fits = said[first] in mine or said[second] in other
            if not fits and said[first] in other and said[second] in mine:
                return first, second
    if not file.heard:
        return None
    for first, second in combinations(placed, 2):
        one, two = _heard(file, first), _heard(file, second)
        if placed[first].is_timecode != placed[second].is_timecode and one.is_timecode != two.is_timecode:
            if one.is_timecode != placed[first].is_timecode:
                return first, second
        elif _is_louder_safety(placed[first], one, placed[second], two):
            return first, second
    return None


def _is_louder_safety(one: ExpectedTrack, heard: ChannelHeard, two: ExpectedTrack, beside: ChannelHeard) -> bool:
    if two.safety_of and two.safety_of in one.names:
        safety, main = beside, heard
    elif one.safety_of and one.safety_of in two.names:
        safety, main = heard, beside
    else:
        return False
    known = safety.level_dbfs is not None and main.level_dbfs is not None
    return known and (safety.level_dbfs or 0.0) > (main.level_dbfs or 0.0) + QUIETER_DB


def tracks_by_channel(file: DayFile, expected: Sequence[ExpectedTrack]) -> dict[int, ExpectedTrack]:
    """What is expected on each channel, from 1: by the names that the file gives them, else in order where all are there."""
    named = {
        number: track for number, name in file.tracks for track in expected if name and name in track.names
    }  # fmt: skip
    if file.tracks and len(named) == len(file.tracks) == len({id(track) for track in named.values()}):
        order = {channel: place for place, channel in enumerate(sorted(named), start=1)}
        found = {order[channel]: track for channel, track in named.items()}
    elif len(file.heard) == len(expected):
        found = dict(enumerate(expected, start=1))
    else:
        return {}
    return {number: track for number, track in sorted(found.items()) if not file.heard or number <= len(file.heard)}


def _heard(file: DayFile, number: int) -> ChannelHeard:
    return file.heard[number - 1]


def _name(number: int, placed: Mapping[int, ExpectedTrack]) -> str:
    """`1 (Boom)`: the track, and whom it holds."""
    if number not in placed:
        return str(number)
    first, *others = placed[number].names
    return f"{first} ({others[-1]})" if others else first


def _words(numbers: Sequence[int], placed: Mapping[int, ExpectedTrack]) -> str:
    return ", ".join(_name(number, placed) for number in numbers)
