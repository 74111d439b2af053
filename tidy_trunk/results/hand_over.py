"""What the edit gets: clip by clip, which side is whom, what to mute, what is never audible, and whether picture and sound agree."""

from collections.abc import Mapping, Sequence
from fractions import Fraction

from tidy_trunk.core.base.timecode import FrameRate, at_seconds
from tidy_trunk.core.log import DayFile, match_files_to_takes, tracks_by_channel
from tidy_trunk.results.files import copy_orders, expected_of, takes_of
from tidy_trunk.results.log import LoggedTakeOut, LogOut
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words.files import together_words


class HandOverTrackOut(Out):
    """number: of the channel, from 1; label: of the track, as its device calls it; edit: what the edit does with it, "" where that goes without saying;
    file: that holds it, as its copy is called."""

    number: int
    file: str
    label: str
    name: str
    edit: str


class HandOverClipOut(Out):
    """A file of a take. name: as its copy is called; off_ms: by how much its guide lies beside the recorder, null where nobody knows."""

    take: str
    status: str
    notes: str
    name: str
    source: str
    is_picture: bool
    timecode: str
    seconds: float
    tracks: list[HandOverTrackOut]
    off_ms: Level
    together: str


class HandOverOut(Out):
    """clips: of takes that were not struck, in their order; sound before the pictures that go with it."""

    job: str
    day: str
    rate: str
    clips: list[HandOverClipOut]


def hand_over(files: Sequence[DayFile], log: LogOut, *, mono: bool = False) -> HandOverOut:
    """Every file that belongs to a take, as the edit wants to know it. `mono`: copies have a file for each channel."""
    expected, rate = expected_of(log), FrameRate.parse(log.rate)
    whole = copy_orders(files, log)
    names = {order.path: order.name for order in whole}
    copied = copy_orders(files, log, mono=True) if mono else whole
    split = {(order.path, order.channel): order.name for order in copied}
    found = match_files_to_takes(files, takes_of(log), expected).takes
    by_id = {take.id: take for take in log.takes}
    clips = []
    for key, mine in found.items():
        for file in sorted(mine, key=lambda file: (file.is_picture, file.source, file.path)):
            take = by_id[key]
            at = None if file.begins_s is None else Fraction(file.begins_s).limit_denominator(1_000_000)
            off_ms = None if file.off_s is None else 1000 * file.off_s
            clips.append(
                HandOverClipOut(
                    take=take.label,
                    status=take.status_words,
                    notes=_notes(take),
                    name=names[file.path],
                    source=file.source,
                    is_picture=file.is_picture,
                    timecode="" if at is None else str(at_seconds(at, rate)),
                    seconds=file.seconds,
                    tracks=_tracks(file, log, names[file.path], split),
                    off_ms=off_ms,
                    together=together_words(off_ms) if file.is_picture else "",
                )
            )
    return HandOverOut(job=log.job, day=log.day, rate=log.rate, clips=clips)


def _tracks(file: DayFile, log: LogOut, copied: str, split: Mapping[tuple[str, int], str]) -> list[HandOverTrackOut]:
    logged = [track for track in log.tracks if track.device == file.source]
    expected = expected_of(log).tracks.get(file.source, ())
    placed = tracks_by_channel(file, expected)
    if not placed and not file.heard and not file.tracks:
        placed = dict(enumerate(expected, start=1))  # its head says nothing of tracks: those of the plan
    found = []
    for number, track in placed.items():
        mine = logged[next(at for at, one in enumerate(expected) if one is track)]
        name = ", ".join(mine.sources)
        alone = split.get((file.path, number), copied)
        found.append(HandOverTrackOut(number=number, file=alone, label=mine.track, name=name, edit=mine.edit))
    return found


def _notes(take: LoggedTakeOut) -> str:
    return "; ".join([*([take.text] if take.text else []), *(note.text for note in take.notes)])
