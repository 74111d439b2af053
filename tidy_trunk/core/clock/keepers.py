"""Who keeps time on a set: who gives it to whom, and by how far clocks part once they run alone."""

from dataclasses import dataclass
from enum import StrEnum

from tidy_trunk.core.catalogue import Circuit, Kind
from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import PortRef, Rig
from tidy_trunk.core.timecode import HALF_A_FRAME, Drift, FrameRate, drift
from tidy_trunk.core.trace import Place, upstream_of


class Gets(StrEnum):
    """How a device comes by its time."""

    GIVES = "gives it"  # to others, and gets it from none
    SOCKET = "by its timecode socket"
    SOUND = "as sound on a track"
    NOTHING = "from nobody"


@dataclass(frozen=True, slots=True, kw_only=True)
class Keeper:
    """A device that records or keeps time.

    giver: from whom it gets its time, "" where from nobody; track: on which it is recorded as sound, "" elsewhere.
    ppm: what its clock is good for, None where nobody knows. forgets: it loses timecode when it is switched off.
    alone: by how far it parts from its giver, once jammed and on its own; None where there is nothing to part from.
    """

    device: str
    gets: Gets
    giver: str
    track: str
    has_socket: bool
    ppm: float | None
    forgets: bool | None
    alone: Drift | None


def keepers(report: Report, hours: float) -> tuple[Keeper, ...]:
    """Every recording device and clock of a job, in the order of the plan.

    Args:
        hours: Of a day, over which clocks run alone.

    Raises:
        RangeError: A day that cannot be.
    """
    rate = FrameRate.parse(report.rig.plan.defaults.frame_rate)
    found = [_keeper(report, device, rate, hours) for device in report.rig.plan.devices]
    return tuple(item for item in found if item is not None)


def _keeper(report: Report, device: str, rate: FrameRate, hours: float) -> Keeper | None:
    rig = report.rig
    unit = rig.unit(device)
    kind, traits = unit.device_class.kind, unit.device_class.traits
    if kind is not Kind.CLOCK and not unit.device_class.is_recording:
        return None
    sockets = [port for port in unit.device_class.inputs if port.circuit is Circuit.TIMECODE]
    jams = [run.sending.device for port in sockets for run in rig.arriving.get(PortRef(device, port.id), [])]
    sounds = [
        (track.trace.bus, giver)
        for track in report.tracks
        if track.trace.device == device
        for giver in _heard(report, track.trace.id)
    ]
    gives = any(
        rig.leaving.get(PortRef(device, port.id))
        for port in unit.device_class.outputs
        if port.circuit is Circuit.TIMECODE
    )
    gets, giver, bus = Gets.NOTHING, "", ""
    if jams:
        gets, giver = Gets.SOCKET, jams[0]
    elif sounds:
        gets, (bus, giver) = Gets.SOUND, sounds[0]
    elif gives:
        gets = Gets.GIVES
    ppm = None if traits.clock_ppm is None else traits.clock_ppm.value
    theirs = None if not giver else rig.unit(giver).device_class.traits.clock_ppm
    alone = (
        drift(ppm, theirs.value, rate, hours, HALF_A_FRAME) if jams and ppm is not None and theirs is not None else None
    )
    return Keeper(
        device=device,
        gets=gets,
        giver=giver,
        track=f"{device}.{bus}" if bus else "",
        has_socket=bool(sockets),
        ppm=ppm,
        forgets=None if traits.keeps_timecode_when_off is None else not traits.keeps_timecode_when_off,
        alone=alone,
    )


def _heard(report: Report, track_id: str) -> list[str]:
    """Devices whose timecode is recorded as sound on a track."""
    track = report.track(track_id)
    if track is None:
        return []
    return [
        stage.device
        for stage in upstream_of(track.trace.stage)
        if stage.place is Place.OUTPUT and report.rig.unit(stage.device).output(stage.name).circuit is Circuit.TIMECODE
    ]


def first_giver(rig: Rig, known: dict[str, Keeper], device: str) -> str:
    """Where a device's time comes from in the end: whoever gives it and gets it from nobody; "" where from nobody."""
    seen: list[str] = []
    here = device
    while here in known and here not in seen:
        seen.append(here)
        keeper = known[here]
        if keeper.gets is Gets.GIVES:
            return here
        here = keeper.giver
    return here if here and here not in known and here in rig.plan.devices else ""
