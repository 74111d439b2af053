"""When somebody claps in a recording."""

from typing import Any, BinaryIO

from tidy_trunk.errors import FormatError
from tidy_trunk.formats import movie_facts
from tidy_trunk.media.mono_mix import opened, sound_of


def claps_of(stream: BinaryIO) -> dict[str, Any]:
    """`claps_s`: in seconds from its first sample; `pictures`: a second, as a fraction, None where it is sound alone.

    Raises FormatError, InputError: no recording, or nothing is in it.
    """
    pictures = _rate_of(stream)
    with opened(stream) as found:
        found.prepare()
        return {"claps_s": list(sound_of(found).profile.claps), "pictures": pictures}


def _rate_of(stream: BinaryIO) -> str | None:
    try:
        rate = movie_facts(stream).frame_rate
    except FormatError:
        return None
    return None if rate is None else str(rate)
