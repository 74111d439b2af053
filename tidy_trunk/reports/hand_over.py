"""The sheet that goes to the edit with the files, as paper and as a table."""

import csv
import io
from datetime import datetime

from tidy_trunk.exports import plain_cell
from tidy_trunk.exports.paper import Column, Sheet
from tidy_trunk.results.hand_over import HandOverClipOut, HandOverOut

RULES = (
    "Lay the recorder's sound under the picture by its timecode, then mute the camera's guide and link picture and new sound. Play both once before that: one voice "
    "is right, an echo is not. Timecode that was recorded as sound is never audible. A safety track is used instead of its track, never "
    "added to it."
)
"""What the edit has to know of every clip. [HANDBOOK] §14"""


def hand_over_csv(found: HandOverOut) -> bytes:
    """A line for each track of each clip. UTF-8."""
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(
        [
            "take",
            "status",
            "file",
            "device",
            "kind",
            "timecode",
            "length_s",
            "channel",
            "track",
            "name",
            "edit",
            "together",
            "notes",
        ]
    )
    for clip in found.clips:
        of_clip = [clip.source, _kind(clip), clip.timecode, f"{clip.seconds:.3f}"]
        rows = [[track.file, str(track.number), track.label, track.name, track.edit] for track in clip.tracks]
        for file, *row in rows or [[clip.name, "", "", "", ""]]:
            cells = [clip.take, clip.status, file, *of_clip, *row, clip.together, clip.notes]
            out.writerow([plain_cell(cell) for cell in cells])
    return box.getvalue().encode()


def hand_over_sheet(found: HandOverOut, *, paper: str, made: datetime) -> bytes:
    """Clip by clip. PDF; the same files and log give the same bytes."""
    sheet = Sheet(f"For the edit: {found.job}", f"{found.day}. {found.rate} fps.", paper=paper, made=made)
    sheet.text(RULES)
    sheet.heading("Clips")
    sheet.table(
        [
            *(Column("take", 0.9), Column("file", 2.9), Column("starts", 1.8), Column("tracks", 4.2)),
            *(Column("picture and sound", 1.9), Column("notes", 1.4)),
        ],
        [[clip.take, _files(clip), clip.timecode, _tracks(clip), clip.together, clip.notes] for clip in found.clips],
        bold=[clip.status == "circled" for clip in found.clips],
    )
    return sheet.bytes()


def _kind(clip: HandOverClipOut) -> str:
    return "picture" if clip.is_picture else "sound"


def _files(clip: HandOverClipOut) -> str:
    """Its own name, or those of the files that its channels became, in their order."""
    return "; ".join(dict.fromkeys(track.file for track in clip.tracks)) or clip.name


def _tracks(clip: HandOverClipOut) -> str:
    return "; ".join(f"{track.label} {track.name}{f' ({track.edit})' if track.edit else ''}" for track in clip.tracks)
