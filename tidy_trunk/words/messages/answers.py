"""Answers of the typed line: what a cable would be, and what is then heard at its end."""

from collections.abc import Sequence

from tidy_trunk.core.advice.adviser import ConnectionMethod
from tidy_trunk.core.plan import Message, PlanIndex, PortRef
from tidy_trunk.words.messages.said import says, worded
from tidy_trunk.words.names import begun
from tidy_trunk.words.numbers import listed, whole


@says
def connect(at: PlanIndex, sending: PortRef, receiving: PortRef, how: ConnectionMethod, via: Message | None) -> str:
    ends = f"{at.port_label(sending)} to {at.port_label(receiving)}"
    if how is ConnectionMethod.VIA and via is not None:
        device = worded(via)
        return f"{ends}, {device[:1].lower()}{device[1:]}"
    return {
        ConnectionMethod.MATCHED: f"{ends}, matched",
        ConnectionMethod.UNMATCHED: f"{ends}, plain cable, nothing matched",
    }.get(how, ends)


@says
def add_class(at: PlanIndex, class_id: str, called: Sequence[str]) -> str:
    label = at.class_of(class_id).label
    return f"Add {label}, as {' and '.join(called)}" if called else f"Add {label}"


@says
def no_power_here(at: PlanIndex, device: str) -> str:
    return f"{at.placed(device).label} has no power here: its socket cannot give it, or a cable does not pass it"


@says
def track_without_source(at: PlanIndex, bus: str) -> str:
    return f"track {bus}: no source yet"


@says
def track_clips(at: PlanIndex, bus: str, by_db: float) -> str:
    return f"track {bus}: clips by {by_db:.1f} dB"


@says
def track_level(at: PlanIndex, bus: str, average_dbfs: float, peak_dbfs: float, gear_noise_dbfs: float | None) -> str:
    noise = "" if gear_noise_dbfs is None else f", gear noise {whole(gear_noise_dbfs)}"
    return f"track {bus}: average {whole(average_dbfs)}, peak {whole(peak_dbfs)} dBFS{noise}"


@says
def chain(at: PlanIndex, who: str, added: Sequence[str], then: Message | None) -> str:
    """Whoever is heard, what is added for it, and the connection that it ends in."""
    told = [f"Add {listed([at.placed(device).label for device in added])}"] if added else []
    told += [worded(then)] if then is not None else []
    label = "; ".join(told)
    return f"{begun(who)}: {label[:1].lower()}{label[1:]}" if who else label
