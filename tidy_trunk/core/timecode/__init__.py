"""Frame rates, labels and lengths of time; linear timecode."""

from tidy_trunk.core.timecode.label import Timecode
from tidy_trunk.core.timecode.ltc_bits import NO_EXTRAS, LtcExtras, frame_bits
from tidy_trunk.core.timecode.ltc_encode import FASTEST_LTC, RISE_S, ltc_samples
from tidy_trunk.core.timecode.rates import RATES, Delay, FrameRate, delay_of_frames, delay_of_ms

__all__ = [
    "FASTEST_LTC",
    "NO_EXTRAS",
    "RATES",
    "RISE_S",
    "Delay",
    "FrameRate",
    "LtcExtras",
    "Timecode",
    "delay_of_frames",
    "delay_of_ms",
    "frame_bits",
    "ltc_samples",
]
