"""The edit on what holds for the whole job."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.plan.clocks import clock_words
from tidy_trunk.core.plan.model import Defaults, Plan, School
from tidy_trunk.core.plan.rooms import ROOMS


@dataclass(frozen=True, slots=True, kw_only=True)
class SetJob:
    """Name and defaults of the job; what is None stays."""

    name: str | None = None
    frame_rate: str | None = None
    target: str | None = None
    effects_target: str | None = None
    guide_target: str | None = None
    timecode_target: str | None = None
    school: School | None = None
    room: str | None = None
    alignment_dbfs: float | None = None
    mains_hz: int | None = None
    room_noise_db_spl: float | None = None
    rumble_db_spl: float | None = None
    sample_rate_hz: int | None = None
    slack_share: float | None = None
    slack_end_m: float | None = None
    frequencies_cleared: bool | None = None
    radio_guard_mhz: float | None = None
    day_begins_min: int | None = None
    day_ends_min: int | None = None
    drift_limit_frames: float | None = None

    def _changes(self) -> dict[str, object]:
        named = (name for name in Defaults.__dataclass_fields__)
        return {name: getattr(self, name) for name in named if getattr(self, name) is not None}

    def apply(self, plan: Plan) -> Plan:
        values = {name: getattr(plan.defaults, name) for name in Defaults.__dataclass_fields__}
        defaults = Defaults(**{**values, **self._changes()})
        return replace(plan, name=plan.name if self.name is None else self.name.strip(), defaults=defaults)

    def sentence(self, plan: Plan) -> str:
        parts = [f"name {self.name.strip()}"] if self.name is not None else []
        parts += [default_words(name, value) for name, value in self._changes().items()]
        return f"Job: {', '.join(parts) or 'nothing changed'}"


_WORDS: Final[Mapping[str, tuple[str, str]]] = {
    "frame_rate": ("frame rate", ""),
    "target": ("target", ""),
    "effects_target": ("target of effects", ""),
    "guide_target": ("target of guide tracks", ""),
    "timecode_target": ("target of timecode", ""),
    "alignment_dbfs": ("tone", " dBFS"),
    "mains_hz": ("mains", " Hz"),
    "room_noise_db_spl": ("room noise", " dB(A)"),
    "rumble_db_spl": ("low-frequency noise", " dB SPL"),
    "sample_rate_hz": ("sample rate", " Hz"),
    "slack_end_m": ("spare cable at each end", " m"),
    "radio_guard_mhz": ("minimum channel spacing", " MHz"),
    "day_begins_min": ("day from", ""),
    "day_ends_min": ("day until", ""),
    "drift_limit_frames": ("maximum drift", " frames"),
}


def default_words(name: str, value: object) -> str:
    """What holds for the job, as it is said: `tone -20 dBFS`."""
    if name == "slack_share" and isinstance(value, float):
        return f"spare cable {value * 100:g} %"
    if name == "room":
        return ROOMS[str(value)].label if value in ROOMS else str(value)
    if isinstance(value, School):
        return value.words
    if name == "frequencies_cleared":
        return "radio frequencies cleared" if value else "radio frequencies not cleared"
    label, unit = _WORDS[name]
    if name in ("day_begins_min", "day_ends_min") and isinstance(value, int):
        return f"{label} {clock_words(value)}"
    return f"{label} {value:g}{unit}" if isinstance(value, int | float) else f"{label} {value}"
