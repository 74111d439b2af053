"""What follows where a way was recorded to be other than it was predicted."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.advice.compare import Comparison, Discrepancy, NoiseKind

_NOISY: Final[Mapping[NoiseKind, str]] = {
    NoiseKind.HUM: "it hums: look for a mains loop, and at the unbalanced part of the cable",
    NoiseKind.RUMBLE: "it has low-frequency noise: something was still open before the sender, or the low cut is off",
    NoiseKind.HISS: "it hisses: look whether all inputs of the sender were down, and how its output level stands",
}
"""Where to look, by what makes most of the noise. [PRACTICE]"""


def remark(item: Comparison) -> str:
    """A sentence or two; "" where nothing follows."""
    if item.surprise is Discrepancy.IS_WHOLE:
        return "It was predicted to be cut off, and is not: a burst would be. Measure the full scale of both ends."
    if item.surprise in (Discrepancy.CUT_OFF, Discrepancy.CUT_OFF_UNFORESEEN):
        told = "The tone is cut off: nothing repairs that, however quiet it is."
        if item.surprise is Discrepancy.CUT_OFF_UNFORESEEN:
            told += " It was not predicted: look at the mode of both ends, and at the cable."
        return told
    if item.surprise is Discrepancy.QUIETER:
        return f"{-item.off_db:.0f} dB quieter than predicted: the devices are better than their class. Measure their figures."
    if item.surprise is Discrepancy.NOISIER:
        return f"{item.off_db:.0f} dB noisier than predicted, and {_NOISY[item.kind]}."
    return ""
