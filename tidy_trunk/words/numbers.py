"""Numbers as they are printed: a minus sign that is one, as many places as a meter shows."""


def signed(value: float, places: int = 1) -> str:
    """A level with its sign: `+4.0`, `−20.5`."""
    return f"{value:+.{places}f}".replace("-", "−")


def unsigned(value: float) -> str:
    """A level with a sign only below zero: `4.0`, `−20.5`."""
    return f"{value:.1f}".replace("-", "−")


def khz(rate_hz: int) -> str:
    return f"{rate_hz / 1000:g} kHz"


def many(count: int, what: str) -> str:
    """`1 stop`, `2 stops`."""
    return f"{count} {what}{'' if count == 1 else 's'}"


def listed(names: list[str]) -> str:
    """`L`, `L and R`, `1, 2 and 3`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def whole(value: float) -> str:
    """A level in whole decibels, with a sign only below zero."""
    return f"{value:.0f}".replace("-", "−")


def marked(value: float) -> str:
    """Where a knob stands: `+12`, `−3.5`, and 0 without a sign."""
    return f"{value:+g}".replace("-", "−") if value else "0"


def plain(value: float) -> str:
    """As many places as it has: `-20`, `12.5`, with a minus sign that is one."""
    return f"{value:g}".replace("-", "−")


def beside_target(miss_db: float) -> str:
    """`8 dB below the target`; of a level outside it."""
    return f"{abs(miss_db):.0f} dB {'below' if miss_db < 0 else 'above'} the target"
