"""Devices and leads by id, and a class with some of its figures changed."""

import dataclasses
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Any, Final

from tidy_trunk.core.gear.catalogue.devices import DeviceClass, Signal
from tidy_trunk.core.gear.catalogue.figures import Figure
from tidy_trunk.errors import UnknownItemError

FIGURE_WORDS: Final[Mapping[str, tuple[str, str]]] = {
    "sensitivity_mv_per_pa": ("sensitivity", "mV/Pa"),
    "self_noise_db_a": ("self-noise", "dB(A)"),
    "max_db_spl": ("loudest sound", "dB SPL"),
    "full_scale_dbu": ("full scale", "dBu"),
    "clip_dbu": ("first stage clips at", "dBu"),
    "ein_dbu": ("equivalent input noise", "dBu"),
    "idle_noise_dbfs": ("noise without sound", "dBFS"),
    "bleed_db": ("bleed between its sides", "dB"),
    "limiter_dbfs": ("limiter", "dBFS"),
    "noise_dbu": ("own noise", "dBu"),
    "noise_after_dbu": ("noise behind the trim", "dBu"),
    "compander_db": ("range of the radio channel", "dB"),
    "pad_db": ("attenuator", "dB"),
    "impedance_ohm": ("input impedance", "Ω"),
    "source_ohm": ("output impedance", "Ω"),
    "current_ma": ("phantom current", "mA"),
    "phantom_v": ("phantom voltage", "V"),
    "phantom_budget_ma": ("phantom current for all", "mA"),
    "clock_ppm": ("clock", "ppm"),
    "picture_delay_frames": ("picture delay", "frames"),
    "sdi_delay_frames": ("picture delay over SDI", "frames"),
    "sound_delay_ms": ("sound delay", "ms"),
    "average_dbfs": ("plays at, on average", "dBFS"),
    "peak_dbfs": ("plays peaks of", "dBFS"),
    "meter_reads_high_db": ("meter reads high by", "dB"),
    "tone_dbfs": ("tone, fixed at", "dBFS"),
    "power_w": ("power", "W"),
    "battery_wh": ("battery", "Wh"),
    "clip_limit_min": ("longest clip", "min"),
    "heat_limit_min": ("gets too hot after", "min"),
    "media_gb": ("media", "GB"),
    "picture_mbps": ("picture", "Mbit/s"),
    "warm_up_min": ("warm-up", "min"),
}
"""Each figure by its field: what it is called and its unit. [HANDBOOK] §3"""


LONGEST_LABEL: Final = 80
"""ASSUMED_ letters of a name."""


def own_label(label: str, taken: Collection[str]) -> str:
    """What a copy of a class is called that becomes the user's own, other than those that are called so already."""
    begun = f"My {label[:1].lower() if label[1:2].islower() else label[:1]}{label[1:]}"[: LONGEST_LABEL - 4]
    names = (begun, *(f"{begun} {number}" for number in range(2, len(taken) + 3)))
    return next(name for name in names if name not in taken)


@dataclass(frozen=True, slots=True)
class NamedFigure:
    """A figure with its path in the class, such as `inputs.mic.modes.mic.full_scale_dbu`, and its name in words."""

    path: str
    label: str
    unit: str
    figure: Figure

    @property
    def tolerance_unit(self) -> str:
        """Levels and sensitivities are sure to so many dB, all else to so many percent."""
        return "dB" if self.unit.startswith("dB") or self.unit == "mV/Pa" else "%"


def figures_of(device: DeviceClass) -> tuple[NamedFigure, ...]:
    """Every figure of a class, with its path, in the order of the description."""
    return tuple(_walk((), (), device))


def _walk(path: tuple[str, ...], labels: tuple[str, ...], value: Any) -> list[NamedFigure]:
    if isinstance(value, Figure):
        words, unit = FIGURE_WORDS[path[-1]]
        where = " ".join(dict.fromkeys(labels))
        return [NamedFigure(".".join(path), f"{where}, {words}" if where else words, unit, value)]
    found: list[NamedFigure] = []
    if getattr(value, "signal", None) is Signal.DIGITAL:
        return found  # a digital link has the impedance of its standard: nothing to measure or to change
    if isinstance(value, tuple) and value and hasattr(value[0], "id"):
        for item in value:
            found += _walk((*path, item.id), (*labels, item.label), item)
    elif dataclasses.is_dataclass(value):
        for entry in (item for item in dataclasses.fields(value) if item.init):
            found += _walk((*path, entry.name), labels, getattr(value, entry.name))
    return found


def with_figures(device: DeviceClass, changes: Mapping[str, Figure]) -> DeviceClass:
    """A copy of a class in which the figures at these paths are replaced.

    Raises:
        UnknownItemError: No figure stands at a path.
    """
    for path, figure in changes.items():
        try:
            device = _replace(device, path.split("."), figure)
        except LookupError as error:
            raise UnknownItemError(f"{device.label} has no figure {path}: look at the list of its figures") from error
    return device


def _replace(value: Any, path: list[str], figure: Figure) -> Any:
    """A copy with the figure at the end of a path replaced. Raises LookupError: no figure stands there."""
    if not path:
        if not isinstance(value, Figure):
            raise LookupError
        return figure
    head, *rest = path
    if isinstance(value, tuple):
        if all(getattr(item, "id", None) != head for item in value):
            raise LookupError
        return tuple(_replace(item, rest, figure) if item.id == head else item for item in value)
    if not dataclasses.is_dataclass(value) or isinstance(value, type) or not hasattr(value, head):
        raise LookupError
    return dataclasses.replace(value, **{head: _replace(getattr(value, head), rest, figure)})
