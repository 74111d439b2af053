"""How loud each channel of a file is, and whether it holds timecode, nothing, or flat tops: no more than that, as there are hundreds."""

from collections.abc import Callable
from typing import BinaryIO

from tidy_trunk.core.base.signal import Meter, active_level_dbfs, holds_timecode
from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio
from tidy_trunk.core.log import ChannelHeard
from tidy_trunk.formats import open_recording
from tidy_trunk.media.measuring import PIECE_BLOCKS, ahead, step_of


def heard_channels(stream: BinaryIO, tell: Callable[[float], None] = lambda share: None) -> tuple[ChannelHeard, ...]:
    """The channels of a recording, in order. Raises FormatError, InputError: it cannot be decoded, or is empty."""
    recording = open_recording(stream)
    try:
        meter = Meter(recording.rate_hz, recording.channels, step=step_of(recording), paired=False)
        for piece in ahead(recording, PIECE_BLOCKS * meter.block_size):
            meter.add(piece)
            tell(min(meter.sample_count / max(recording.sample_count, meter.sample_count), 1.0))
        found, heard = meter.metered(), []
        for channel in range(recording.channels):
            is_timecode = holds_timecode(found, channel, recording.read)
            peak = max(float(found.highest[channel].max()), -float(found.lowest[channel].min()))
            heard.append(
                ChannelHeard(
                    peak_dbfs=db_from_ratio(peak) if peak else SILENCE_DB,
                    level_dbfs=active_level_dbfs(found.block_powers(channel)),
                    clipped=0 if is_timecode else found.clip_counts[channel],
                    is_timecode=is_timecode,
                )
            )
        return tuple(heard)
    finally:
        recording.close()
