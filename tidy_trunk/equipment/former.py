"""Values that class files of earlier versions hold: they are read as what they are called today, and never written."""

from collections.abc import Mapping
from typing import Any, Final

_FORMER: Final[Mapping[str, str]] = {
    "balanced stereo": "balanced-stereo",
    "unbalanced stereo": "unbalanced-stereo",
    "AES3": "aes3",
    "HDMI": "hdmi",
    "SDI": "sdi",
    "USB audio": "usb-audio",
    "preamp box": "preamp-box",
    "audio interface": "audio-interface",
    "audio delay": "audio-delay",
    "live switcher": "live-switcher",
    "timecode generator": "timecode-generator",
    "powered speaker": "powered-speaker",
    "picture monitor": "picture-monitor",
    "P48": "p48",
    "plug-in power": "plug-in-power",
    "T-power": "t-power",
    "before the first stage": "before-first-stage",
    "between the first stage and the converter": "before-converter",
    "behind the converter": "behind-converter",
    "a switch or menu": "switch",
    "keys that are held": "held-keys",
    "hot only": "hot-only",
    "figure of eight": "figure-of-eight",
}


def of_today(value: Any) -> Any:
    """A value as it is called today; what is no text, or was never called otherwise, is left as it is."""
    return _FORMER.get(value, value) if isinstance(value, str) else value
