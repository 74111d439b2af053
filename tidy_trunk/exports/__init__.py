"""What was worked out, as files for other programs: each a function from values to bytes. Opens nothing."""

from tidy_trunk.exports.edl import edl
from tidy_trunk.exports.offsets import offsets_csv
from tidy_trunk.exports.placed import PlacedFile, PlacedTimeline
from tidy_trunk.exports.timeline import otio_timeline

__all__ = ["PlacedFile", "PlacedTimeline", "edl", "offsets_csv", "otio_timeline"]
