"""Ticks that a computer's power brings: short bursts at the rate of its USB frames, in what else is noise."""

from collections.abc import Sequence
from typing import Final

from tidy_trunk.core.base.signal.decibels import dbfs_of_power
from tidy_trunk.core.base.signal.lines import line_power
from tidy_trunk.core.base.signal.measurement import Ticks
from tidy_trunk.core.base.signal.spectrum import Spectrum

POLLED_MS: Final = (4, 2, 1)
"""A host asks a device each frame, which is a millisecond, or every second or fourth one. [USB2]"""

HIGHEST_LINE_HZ: Final = 7_999.0
"""A burst of one microframe, 125 µs, has no line at 8 kHz. [USB2]"""

CLOCK_DRIFT: Final = 0.0005
"""Share by which the clock of a host may be off: 500 ppm. [USB2]"""

FEWEST_LINES: Final = 4 / 7
"""ASSUMED_ share of the lines below 8 kHz: a tone and its distortion have fewer that are alike."""

ALIKE_DB: Final = 15.0
"""ASSUMED_ how far the lines of a tick lie from the strongest one: it is short, so they are all alike. The harmonics of a
distorted tone lie further below it."""

BUZZ_HZ: Final = 50.0
"""Where the next line of a dimmer's buzz is, which has one at each multiple of the mains. [PRACTICE]"""

COARSEST_HZ: Final = 20.0
"""ASSUMED_ widest bins in which a line can be told from the noise beside it."""


def find_ticks(spectrum: Spectrum, tones_hz: Sequence[float] = ()) -> Ticks | None:
    """The ticks in a spectrum of pauses, or of what is left under a tone; None where there are none.

    Args:
        spectrum: Of noise; bins of `COARSEST_HZ` or less.
        tones_hz: A tone that is sent, and its harmonics: no line of a tick is looked for there.
    """
    if spectrum.width_hz > COARSEST_HZ:
        return None
    for every_ms in POLLED_MS:
        spacing_hz = 1_000.0 / every_ms
        hertz = [spacing_hz * number for number in range(1, int(HIGHEST_LINE_HZ / spacing_hz) + 1)]
        lines = [_line(spectrum, line_hz, tones_hz) for line_hz in hertz]
        strongest = max(lines)
        alike = [line for line in lines if line > strongest * 10 ** (-ALIKE_DB / 10)]
        if strongest and len(alike) >= FEWEST_LINES * len(lines):
            return Ticks(every_ms=every_ms, level_dbfs=dbfs_of_power(sum(lines)))
    return None


def _line(spectrum: Spectrum, hertz: float, tones_hz: Sequence[float]) -> float:
    """Power of one line; 0 where it does not stand out, or is one of a tone's or of a dimmer's."""
    if any(abs(tone - hertz) < hertz * CLOCK_DRIFT + 4 * spectrum.width_hz for tone in tones_hz):
        return 0.0
    beside = (hertz - BUZZ_HZ, hertz + BUZZ_HZ)
    if any(line_power(spectrum, other_hz, reach_hz=BUZZ_HZ / 2, drift=CLOCK_DRIFT) for other_hz in beside):
        return 0.0
    return line_power(spectrum, hertz, reach_hz=BUZZ_HZ, drift=CLOCK_DRIFT)
