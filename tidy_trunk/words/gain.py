"""Why a gain plan moves a control."""

from tidy_trunk.core.advice.adviser import JUST_DB, Outcome
from tidy_trunk.core.advice.checks import PlacedFinding
from tidy_trunk.core.base.units import SILENCE_DB
from tidy_trunk.words.findings import headline
from tidy_trunk.words.numbers import whole


def why(reason: PlacedFinding | Outcome | None) -> str:
    """The reason of a step, as half a sentence. None: what follows would be driven too hard."""
    if reason is None:
        return "so that what follows is not driven too hard"
    if isinstance(reason, PlacedFinding):
        return f"fixes: {headline(reason)}"
    sound = reason.sound
    if sound.average == SILENCE_DB:
        return "nothing is heard there yet"
    what = f"{reason.label} then averages {whole(sound.average)}, peaks {whole(sound.peak)} dBFS"
    if sound.clip is not None:
        return f"{what}, cut by {sound.clip.over_db:.0f} dB at {sound.clip.where}"
    if sound.burst_clip is not None and sound.burst_clip.over_db >= JUST_DB:
        return f"{what}; a burst would go {sound.burst_clip.over_db:.0f} dB over at {sound.burst_clip.where}"
    if sound.limited_db:
        return f"{what}; the limiter takes {sound.limited_db:.0f} dB off a burst"
    return f"{what}; a burst keeps {-sound.burst:.0f} dB" if -sound.burst >= JUST_DB else f"{what}; a burst just fits"
