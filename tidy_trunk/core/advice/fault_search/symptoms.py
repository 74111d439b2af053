"""What somebody hears or sees that should not be, in everyday words, and the rules whose findings would show so."""

import re
from collections.abc import Mapping
from enum import StrEnum
from typing import Final


class Symptom(StrEnum):
    """What is wrong, as it shows."""

    HUM = "hum"
    HISS = "hiss"
    DISTORTED = "distorted"
    QUIET = "quiet"  # or silent
    ONE_SIDE = "one-side"
    METERS = "meters"
    OUT_OF_SYNC = "out-of-sync"
    DROPOUTS = "dropouts"


WORDS: Final[tuple[tuple[Symptom, str], ...]] = (
    (Symptom.ONE_SIDE, r"one (?:side|ear|channel)|(?:left|right) (?:is )?(?:missing|dead|silent|only)|only (?:on )?(?:left|right)|mono"),
    (Symptom.METERS, r"meters?|reads?|−?-?\d+ and −?-?\d+"),
    (Symptom.OUT_OF_SYNC, r"sync|lips?|late|early|drift|timecode (?:differs|off)"),
    (Symptom.DROPOUTS, r"drop ?outs?|crackl\w*|cuts? out|intermittent|gone at times|interference|ticks?|clicks?"),
    (Symptom.DISTORTED, r"distort\w*|clip\w*|crunch\w*|overload\w*|too (?:loud|hot)|harsh"),
    (Symptom.HUM, r"hum\w*|buzz\w*|mains|50 ?hz|60 ?hz"),
    (Symptom.HISS, r"hiss\w*|nois[ey]\w*|rush\w*"),
    (Symptom.QUIET, r"quiet|weak|silen\w*|nothing|no (?:sound|signal)|dead|low"),
)  # fmt: skip
"""By symptom, what it is called; the first that fits counts. [PRACTICE]"""

EXPLAINED_BY: Final[Mapping[Symptom, tuple[str, ...]]] = {
    Symptom.HUM: ("hum-loop", "beside-mains", "unbalanced-too-long", "wrong-lead"),
    Symptom.HISS: ("gear-above-room", "noisy-gain", "camera-gain", "transmitter-low", "headphone-feed", "pad-behind-converter", "automatic-level", "mic-into-line"),
    Symptom.DISTORTED: ("line-into-mic", "clipping", "burst-clips", "pad-behind-converter", "camera-gain", "aes3-lead"),
    Symptom.QUIET: ("microphone-unpowered", "mic-into-line", "knob-is-off", "off-target", "transmitter-low", "two-attenuators", "input-without-track", "track-not-armed", "wrong-lead", "plugs-do-not-mate", "digital-mode", "port-blocked", "frequency-mismatch", "phantom-shorted"),
    Symptom.ONE_SIDE: ("wrong-lead", "mono-into-stereo", "stereo-into-mono", "track-not-armed", "input-without-track", "another-ring-count", "plugs-do-not-mate", "knob-is-off", "microphone-unpowered"),
    Symptom.METERS: ("automatic-level", "line-into-mic", "mic-into-line", "two-attenuators", "off-target", "camera-gain"),
    Symptom.OUT_OF_SYNC: ("two-clocks", "missed-jam", "timecode-rate", "sample-rate", "sample-rate-between", "early-sound", "pictures-apart", "forgets-timecode", "record-run", "genlock-alone", "listening-late", "nothing-to-sync-by"),
    Symptom.DROPOUTS: ("frequency-twice", "frequency-mismatch", "intermodulation", "battery-ends", "no-strain-relief", "cell-without-gauge", "hum-loop"),
}  # fmt: skip
"""By symptom, the rules a finding of which would show so. [HANDBOOK] §§4, 6, 8, 9"""


def symptom_in(text: str) -> Symptom | None:
    """The symptom that everyday words name; None where they name none."""
    said = text.lower()
    return next((symptom for symptom, pattern in WORDS if re.search(rf"(?<![a-z])(?:{pattern})(?![a-z])", said)), None)
