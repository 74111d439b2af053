"""Frame rates, labels and lengths of time; linear timecode sent and read; clocks that part."""

from tidy_trunk.core.base.timecode.arithmetic import added, at_seconds, by_count, by_real_time, real_seconds, to_samples
from tidy_trunk.core.base.timecode.drift import HALF_A_FRAME, LARGEST_PPM, MOST_FRAMES, Drift, drift
from tidy_trunk.core.base.timecode.label import Timecode
from tidy_trunk.core.base.timecode.ltc_bits import NO_EXTRAS, LtcExtras, frame_bits
from tidy_trunk.core.base.timecode.ltc_decode import LtcFrames, carries_timecode, read_frames
from tidy_trunk.core.base.timecode.ltc_encode import FASTEST_LTC, RISE_S, ltc_samples
from tidy_trunk.core.base.timecode.ltc_read import Gap, LtcReading, PlacedLabel, ltc_reading, name_of
from tidy_trunk.core.base.timecode.rates import RATES, Delay, FrameRate, delay_of_frames, delay_of_ms
from tidy_trunk.core.base.timecode.user_bits import date_digits, user_digits, user_hex

__all__ = [
    "FASTEST_LTC",
    "HALF_A_FRAME",
    "LARGEST_PPM",
    "MOST_FRAMES",
    "NO_EXTRAS",
    "RATES",
    "RISE_S",
    "Delay",
    "Drift",
    "FrameRate",
    "Gap",
    "LtcExtras",
    "LtcFrames",
    "LtcReading",
    "PlacedLabel",
    "Timecode",
    "added",
    "at_seconds",
    "by_count",
    "by_real_time",
    "carries_timecode",
    "date_digits",
    "delay_of_frames",
    "delay_of_ms",
    "drift",
    "frame_bits",
    "ltc_reading",
    "ltc_samples",
    "name_of",
    "read_frames",
    "real_seconds",
    "to_samples",
    "user_digits",
    "user_hex",
]
