"""What a line-up says of a chain today: whether it still holds, and by how much it corrects what the figures say."""

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.gear.catalogue import INSIDE, Bus, DeviceKind, InputPort
from tidy_trunk.core.plan import READ_WITHIN_DB, LineUp, PlacedDevice, PlanIndex, ReadFrom, Run
from tidy_trunk.core.sound.trace import Stage, StageKind, upstream_of
from tidy_trunk.errors import InputError

OTHER_SIDE_DB: Final = 0.5
"""ASSUMED_ ± by which the two sides of a socket with one knob differ: its two halves, and those of the lead."""

SENDERS: Final = frozenset({DeviceKind.RECORDER, DeviceKind.MIXER, DeviceKind.SWITCHER})
"""What can send a tone. [PRACTICE]"""

MOVED_DB: Final = 0.05
"""ASSUMED_ change of what the figures say from which a setting has been changed since the line-up."""

MOVED_WITHIN_DB: Final = 1.0
"""± of a line-up whose knobs have been moved since: as far as the marks on a knob can be trusted. [PRACTICE]"""


class LineUpStanding(StrEnum):
    """What has become of a line-up."""

    FRESH = "fresh"
    MOVED = "moved"  # the same way, another setting: its correction holds, within the marks of the knobs
    ANOTHER_WAY = "another-way"  # another mode, lead or port: it says nothing any more


@dataclass(frozen=True, slots=True)
class LineUpCorrection:
    """What a line-up says of its track today: by how many dB it is louder than without it, and within how many."""

    standing: LineUpStanding
    by_db: float
    within_db: float

    @property
    def holds(self) -> bool:
        return self.standing is not LineUpStanding.ANOTHER_WAY


def correction_of(
    index: PlanIndex, found: LineUp, track: Stage, predicted_dbfs: float, without_dbfs: float
) -> LineUpCorrection:
    """Args:
    predicted_dbfs: What the figures say of the tone today, without any line-up.
    without_dbfs: What stands there today with all other line-ups, but without this one.
    """
    standing = _standing(index, found, track, predicted_dbfs)
    if standing is LineUpStanding.ANOTHER_WAY or not math.isfinite(without_dbfs):
        return LineUpCorrection(LineUpStanding.ANOTHER_WAY, 0.0, 0.0)
    within_db = _read_within_db(index, found, track)
    if standing is LineUpStanding.MOVED:
        within_db = max(within_db, MOVED_WITHIN_DB)
    if found.track != f"{track.device}.{track.name}":
        within_db = math.hypot(within_db, OTHER_SIDE_DB)
    # As it was read, moved by whatever the settings have moved it since.
    expected_dbfs = found.read_dbfs + predicted_dbfs - found.predicted_dbfs
    return LineUpCorrection(standing, expected_dbfs - without_dbfs, within_db)


def _read_within_db(index: PlanIndex, found: LineUp, track: Stage) -> float:
    """± of a reading: that of a meter of which is known how it reads may be worse than an eye."""
    meter = index.meter_of(track.device) if found.read_from is ReadFrom.METER else None
    return meter.within_db if meter is not None else READ_WITHIN_DB[found.read_from]


def line_up_of(index: PlanIndex, track: Stage, line_ups: Mapping[str, LineUp]) -> LineUp | None:
    """What was read on a track; while nothing was, what was read on the other side of its socket, by the same way: both
    sides have one knob and one lead."""
    if not line_ups:
        return None
    found = line_ups.get(f"{track.device}.{track.name}")
    if found is not None:
        return found
    for other in _other_sides(index.placed(track.device), track.name):
        found = line_ups.get(f"{track.device}.{other}")
        if found is not None and way_between(index, found.sender, track) == found.way:
            return found
    return None


def _other_sides(placed: PlacedDevice, bus_id: str) -> Iterator[str]:
    """The tracks that take other channels of the socket that a track takes one of."""

    def socket(bus: Bus) -> InputPort | None:
        ports = [placed.device_class.channel_of[ref][0] for ref in placed.bus_inputs(bus)]
        sockets = [port for port in ports if port.plug.connector != INSIDE]  # its own microphone is off then
        return sockets[0] if len(sockets) == 1 else None

    buses = {bus.id: bus for bus in placed.device_class.buses}
    own = socket(buses[bus_id])
    for other in buses.values():
        if own is not None and other.recorded and other.id != bus_id and socket(other) is own:
            yield other.id


@dataclass(frozen=True, slots=True)
class ToneSender:
    """The device that can send tone to a track, and its mix that would carry it."""

    device: str
    stage: Stage


def sender_of(index: PlanIndex, track: Stage) -> ToneSender | None:
    """The nearest device before a track's own that can send tone; None where none does."""
    for stage in upstream_of(track):
        if stage.kind is StageKind.BUS and stage.device != track.device and can_send(index.placed(stage.device)):
            return ToneSender(stage.device, stage)
    return None


def known_sender(index: PlanIndex, track: Stage) -> ToneSender:
    """Raises InputError: no device before the track can send tone."""
    sender = sender_of(index, track)
    if sender is None:
        raise InputError("no device before this track can send a tone: let the source be heard, and read the meter")
    return sender


def can_send(placed: PlacedDevice) -> bool:
    """Whether a device has a tone and an output for it."""
    return placed.device_class.kind in SENDERS and bool(placed.device_class.feeds)


def way_between(index: PlanIndex, sender: str, track: Stage) -> tuple[str, ...]:
    """Ports with their modes, and leads, from a sender to a track: what makes it this way and no other."""
    return tuple(sorted(set(_way(index, sender, track, str))))


def way_of_classes(index: PlanIndex, sender: str, track: Stage) -> tuple[str, ...]:
    """The same with the class of each device in its place, and the track: what makes it this pair in any job."""

    def class_of(device: str) -> str:
        return index.placed(device).device_class.id

    steps = {f"to {class_of(track.device)}.{track.name}"}
    for step in _way(index, sender, track, class_of):
        run, _, leads = step.partition(" ")
        steps.add(leads if run in index.plan.runs else step)
    return tuple(sorted(steps))


def runs_between(index: PlanIndex, sender: str, track: Stage) -> tuple[Run, ...]:
    """The runs on the way from a sender to a track, each once."""
    ids = (step.partition(" ")[0] for step in way_between(index, sender, track))
    return tuple(index.plan.runs[run] for run in dict.fromkeys(ids) if run in index.plan.runs)


def _way(index: PlanIndex, sender: str, stage: Stage, name: Callable[[str], str]) -> Iterator[str]:
    for feed, _ in stage.feeds:
        if feed.kind is StageKind.BUS and feed.device == sender:
            continue
        placed = index.placed(feed.device)
        if feed.kind is StageKind.OUTPUT:
            yield f"{name(feed.device)}.{feed.name}.{placed.output_mode(placed.output(feed.name)).id}"
        elif feed.kind is StageKind.INPUT:
            port = placed.input(feed.name)
            yield f"{name(feed.device)}.{feed.name}.{placed.input_mode(port).id}{' pad' if placed.pad_db(port) else ''}"
        elif feed.kind is StageKind.LEAD and feed.run is not None:
            yield f"{feed.name} {' + '.join(part.lead for part in feed.run.parts)}"
        yield from _way(index, sender, feed, name)


def _standing(index: PlanIndex, found: LineUp, track: Stage, predicted_dbfs: float) -> LineUpStanding:
    if not math.isfinite(predicted_dbfs) or way_between(index, found.sender, track) != found.way:
        return LineUpStanding.ANOTHER_WAY
    return LineUpStanding.FRESH if abs(predicted_dbfs - found.predicted_dbfs) <= MOVED_DB else LineUpStanding.MOVED
