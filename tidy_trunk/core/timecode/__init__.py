"""Frame rates and lengths of time."""

from tidy_trunk.core.timecode.rates import RATES, Delay, FrameRate, delay_of_frames, delay_of_ms

__all__ = ["RATES", "Delay", "FrameRate", "delay_of_frames", "delay_of_ms"]
