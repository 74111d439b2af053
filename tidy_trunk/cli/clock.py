"""`timecode`, `ltc` and `drift`: labels, timecode as sound, clocks."""

from datetime import date
from pathlib import Path

from tidy_trunk.cli.output import NOTHING_FOUND, show
from tidy_trunk.core.base.timecode import (
    NO_EXTRAS,
    FrameRate,
    Timecode,
    date_digits,
    user_digits,
    user_hex,
)
from tidy_trunk.errors import InputError
from tidy_trunk.media.files import at_file, new_file, reading
from tidy_trunk.media.timecode import FoundTimecode, find_timecode, write_timecode
from tidy_trunk.results.tools import drifted, timecoded


def show_timecode(text: str, fps: str, add: str | None, to: str | None, by: str, as_json: bool) -> None:
    """Print a label, its frame and its moment; added to and carried to another rate where that is asked for."""
    found = timecoded(text, fps, add, to, is_by_count=by == "count")
    show(found.document(), found.words, as_json)


def show_drift(ppms: tuple[float, ...], fps: str, hours: float, limit: float, as_json: bool) -> None:
    """Print by how much two clocks may part, and how often to set them together."""
    if len(ppms) != 2:
        raise InputError(f"drift is between two clocks: give --ppm twice, not {len(ppms)} times")
    found = drifted(ppms[0], ppms[1], fps, hours, limit)
    show(found.document(), found.words, as_json)


def write_ltc(
    path: Path,
    start: str,
    fps: str,
    seconds: float,
    level_dbfs: float,
    rate_hz: int,
    bits: str,
    user_bits: str | None,
    day: str | None,
) -> None:
    """Write linear timecode as a WAV; what stood there before stays until the new one is whole."""
    if user_bits is not None and day is not None:
        raise InputError("--user-bits and --date fill the same digits: give one of them")
    extras = NO_EXTRAS
    if user_bits is not None:
        extras = user_digits(user_bits)
    elif day is not None:
        try:
            extras = date_digits(date.fromisoformat(day))
        except ValueError as error:
            raise InputError(f"--date '{day[:20]}' is no date: write it as 2026-11-25") from error
    timecode = Timecode.parse(start, FrameRate.parse(fps))
    with new_file(path) as stream:
        write_timecode(
            stream, timecode, seconds=seconds, level_dbfs=level_dbfs, rate_hz=rate_hz, bits=bits, extras=extras
        )
    print(
        f"{path}: timecode from {timecode} at {fps}, {seconds:g} s, peaks at {level_dbfs:g} dBFS".replace("-", "−", 0)
    )
    print("It is loud and shrill: keep it off headphones and speakers.")


def show_ltc(path: Path, channel: int | None, fps: str | None, as_json: bool) -> int:
    """Print what a recording's timecode says; status 3 where there is none."""
    wanted = None if fps is None else FrameRate.parse(fps)
    with reading(path) as stream, at_file(path):
        found = find_timecode(stream, channel, wanted)
    if found is None:
        empty = dict.fromkeys(
            (
                "channel",
                "rate",
                "drop_frame",
                "first",
                "last",
                "start_timecode",
                "start_offset_s",
                "user_bits",
                "reversed",
            )
        )
        show({**empty, "frames": 0, "gaps": []}, "no timecode found", as_json)
        return NOTHING_FOUND
    show(_document(found), "\n".join(_words(found)), as_json)
    return 0


def _document(found: FoundTimecode) -> dict[str, object]:
    read = found.reading
    return {
        "channel": found.channel,
        "rate": read.rate_name,
        "drop_frame": read.drop_flag,
        "frames": read.frame_count,
        "first": {"timecode": str(read.first.timecode), "sample": round(read.first.sample, 3)},
        "last": {"timecode": str(read.last.timecode), "sample": round(read.last.sample, 3)},
        "start_timecode": str(read.start),
        "start_offset_s": read.start_offset_s,
        "user_bits": user_hex(read.user_bits),
        "reversed": read.is_reversed,
        "gaps": [
            {"after_timecode": str(gap.after), "sample": round(gap.sample, 3), "frames_lost": gap.frames_lost}
            for gap in read.gaps
        ],
        "notes": list(read.notes),
    }


def _words(found: FoundTimecode) -> list[str]:
    read = found.reading
    way = ", backwards" if read.is_reversed else ""
    lines = [
        f"channel {found.channel}: {read.frame_count} frames at {read.rate_name}{way}, from {read.first.timecode} to {read.last.timecode}",
        f"the file begins in {read.start}, {read.start_offset_s * 1000:.3f} ms after that frame began",
        f"user bits {user_hex(read.user_bits)}",
    ]
    for gap in read.gaps[:20]:
        seconds = gap.sample / found.rate_hz
        what = f"{gap.frames_lost} frames lost" if gap.frames_lost > 0 else f"jumps back by {-gap.frames_lost} frames"
        lines.append(f"after {gap.after}, at {seconds:.3f} s: {what}")
    if len(read.gaps) > 20:
        lines.append(f"and {len(read.gaps) - 20} more gaps")
    return [*lines, *read.notes]
