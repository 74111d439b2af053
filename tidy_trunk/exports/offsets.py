"""Offsets as a table."""

import csv
import io

from tidy_trunk.core.base.timecode import at_seconds
from tidy_trunk.exports.cells import plain_cell
from tidy_trunk.exports.placed import PlacedTimeline


def offsets_csv(timeline: PlacedTimeline) -> bytes:
    """A line for each file: where it begins on the timeline in timecode, seconds and frames, and how it was found.

    UTF-8; a name that a table would take for a formula is told by an apostrophe before it.
    """
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(
        ["file", "starts", "starts_s", "starts_frames", "length_s", "drift_ppm", "polarity", "method", "confidence"]
    )
    for file in timeline.files:
        label = at_seconds(timeline.starts_s + file.begins_s, timeline.rate)
        out.writerow(
            [
                plain_cell(file.name),
                str(label),
                f"{float(file.begins_s):.6f}",
                f"{float(file.begins_s * timeline.rate.ratio):.3f}",
                f"{float(file.seconds):.6f}",
                "" if file.drift_ppm is None else f"{file.drift_ppm:.2f}",
                "opposite" if file.polarity < 0 else "same",
                file.method,
                f"{file.confidence:.2f}" if file.method else "",
            ]
        )
    return box.getvalue().encode()
