"""Names and values as they stand in sentences: what holds for the job, tracks, knobs, cables, routes, times."""

from collections.abc import Mapping, Sequence
from typing import Final

from tidy_trunk.core.gear.catalogue import find_control
from tidy_trunk.core.plan import (
    ALONG,
    ROOMS,
    Hazard,
    MeterError,
    Part,
    Passing,
    Plan,
    PlanIndex,
    School,
    Stretch,
    clock_words,
)
from tidy_trunk.core.time.clock import SyncWindow
from tidy_trunk.words.numbers import plain, signed
from tidy_trunk.words.terms import term

_WORDS: Final[Mapping[str, tuple[str, str]]] = {
    "frame_rate": ("frame rate", ""),
    "target": ("level target", ""),
    "effects_target": ("level target of effects", ""),
    "guide_target": ("level target of scratch tracks", ""),
    "timecode_target": ("level target of timecode", ""),
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
    "date": ("date", ""),
    "zone": ("time zone", ""),
    "temperature_c": ("temperature", " °C"),
    "hands": ("sound crew of", ""),
    "crew": ("sound crew", ""),
    "slating": ("slates by", ""),
    "walk_min": ("walk to a device", " min"),
}


SCHOOL_WORDS: Final[Mapping[School, str]] = {
    School.CLEAN: "always the clean way",
    School.GUIDE: "good enough where the room hides it",
}
"""What the job's school goes by. [HANDBOOK] §6"""

_WINDOWS: Final = {
    "unnoticed": ("not noticeable", "noticeable"),
    "accepted": ("within the tolerance", "outside the tolerance"),
    "broadcast": ("fit to be broadcast", "not fit to be broadcast"),
}
"""By id of a window of lip sync, what lies within it and what outside. [BT1359], [EBU-R37]"""


def window_words(window: SyncWindow, *, holds: bool) -> str:
    return _WINDOWS[window.id][0 if holds else 1]


def default_words(name: str, value: object) -> str:
    """What holds for the job, as it is said: `tone −20 dBFS`."""
    if name == "slack_share" and isinstance(value, float):
        return f"spare cable {value * 100:g} %"
    if name == "room":
        return f"place {ROOMS[str(value)].label if value in ROOMS else value}"
    if isinstance(value, School):
        return SCHOOL_WORDS[value]
    if name == "frequencies_cleared":
        return "radio frequencies cleared" if value else "radio frequencies not cleared"
    label, unit = _WORDS[name]
    if name in ("day_begins_min", "day_ends_min") and isinstance(value, int):
        return f"{label} {clock_words(value)}"
    return f"{label} {plain(value)}{unit}" if isinstance(value, int | float) else f"{label} {value}"


def knob_words(plan: Plan, class_id: str, control: str) -> str:
    """A knob of a class as it is named in sentences."""
    device = PlanIndex(plan).class_of(class_id)
    found = find_control(device, control)
    return f"{device.label}, {device.port_of[found.port].label}, {found.label}"


def begun(text: str) -> str:
    """As a sentence begins; the rest stays as it is written on the device."""
    return text[:1].upper() + text[1:]


def meter_words(plan: Plan, class_id: str) -> str:
    """A meter of a class as it is named in sentences."""
    return f"The meter of {PlanIndex(plan).class_of(class_id).label}"


def error_words(meter: MeterError) -> str:
    """By how much a meter is wrong, as it is said."""
    by_db = meter.reads_high_db
    within = f"±{meter.within_db:.1f}"
    if abs(by_db) < 0.05:
        return f"reads right, {within} dB"
    return f"reads {abs(by_db):.1f} dB too {'high' if by_db > 0 else 'low'}, {within}"


def track_words(plan: Plan, track: str) -> str:
    """A track as it is named in sentences; its id where its device is gone."""
    device, _, bus = track.partition(".")
    return PlanIndex(plan).placed(device).bus_label(bus) if device in plan.devices else track


def drift_words(ppm: float) -> str:
    return f"{signed(ppm)} ppm"


def through(index: PlanIndex, parts: Sequence[Part]) -> str:
    if not parts:
        return ""
    names = []
    for part in parts:
        lead = index.lead_of(part)
        names.append(f"{part.length_m:g} m {lead.label}" if not lead.is_adapter else lead.label)
    return f" by {' and '.join(names)}"


def path_words(path: Sequence[Stretch]) -> str:
    """A path as it is said: `8 m past walkway and beside mains 2 m, then 4 m across mains`."""
    return ", then ".join(_stretch_words(stretch) for stretch in path) or "path not known"


def passing_words(passing: Passing) -> str:
    """As it is said: `beside mains 4 m`, `dimmer at 0.5 m`, `walkway`."""
    if passing.metres is None:
        return term(passing.what)
    return f"{term(passing.what)}{'' if passing.what in ALONG else ' at'} {passing.metres:g} m"


def _stretch_words(stretch: Stretch) -> str:
    if not stretch.passes:
        return f"{stretch.length_m:g} m"
    past = "" if stretch.passes[0].what in (Hazard.BESIDE_MAINS, Hazard.ACROSS_MAINS) else "past "
    return f"{stretch.length_m:g} m {past}{' and '.join(map(passing_words, stretch.passes))}"


def times_words(minutes: Sequence[int]) -> str:
    return ", ".join(clock_words(minute) for minute in minutes) or "never"
