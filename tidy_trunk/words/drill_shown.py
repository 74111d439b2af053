"""What a probe of a drill shows: line by line, and what is drawn of it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from tidy_trunk.core.drill import ClapComparison, FaultyRig, Impression, Probe, has_headphones, records
from tidy_trunk.core.gear.catalogue import Control, ControlKind
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef
from tidy_trunk.core.sound.levels import TrackLevel
from tidy_trunk.core.time.clock import TimecodeFrom
from tidy_trunk.words.numbers import listed, signed
from tidy_trunk.words.rows import parts_words

_HEARD: Final[Mapping[Impression, str]] = {
    Impression.SILENT: "silent",
    Impression.QUIET: "much quieter than planned",
    Impression.AS_PLANNED: "as planned",
    Impression.LOUD: "much louder than planned",
    Impression.DISTORTED: "distorted",
    Impression.HISS: "hiss above the room",
    Impression.HUM: "hum",
    Impression.DROPOUTS: "dropouts and crackle",
    Impression.UNSTEADY: "the level rides up and down",
    Impression.CHATTER: "timecode chatters in it",
    Impression.HOLLOW: "hollow beside the other tracks, in one ear",
    Impression.FLAT: "the shout is pressed flat",
    Impression.NOTHING: "nothing was recorded",
}

_SHOUTED: Final[Mapping[Impression, str]] = {
    Impression.DISTORTED: "a shout clips",
    Impression.FLAT: "a shout is pressed flat",
}

_TOGETHER: Final[Mapping[ClapComparison, str]] = {
    ClapComparison.AS_PLANNED: "lies where it should",
    ClapComparison.NOTHING: "there is no file",
    ClapComparison.ELSEWHERE: "its timecode is hours away from the others",
    ClapComparison.OTHER_RATE: "its timecode counts at another rate",
    ClapComparison.STANDS_STILL: "its timecode stands still between takes",
    ClapComparison.RUNS_OFF: "it runs off: what fits at the beginning does not at the end",
}

_COMES_BY: Final[Mapping[TimecodeFrom, str]] = {
    TimecodeFrom.GIVES: "of its own, given to others",
    TimecodeFrom.SOCKET: "by cable from {giver}",
    TimecodeFrom.JAMS: "jammed from {giver}",
    TimecodeFrom.SOUND: "as sound from {giver}",
    TimecodeFrom.NOTHING: "from nowhere",
}
"""How a device comes by its timecode. [HANDBOOK] §8"""


class DrawnAs(StrEnum):
    """What is drawn beside a line."""

    KNOB = "knob"
    SWITCH = "switch"
    MENU = "menu"
    LAMP = "lamp"
    PLUG = "plug"


@dataclass(frozen=True, slots=True, kw_only=True)
class ShownLine:
    """A line of what a probe shows. drawing: None where words say it all; positions: where it can stand, by name; at: where it stands
    among them; turned: how far a knob is, from 0 to 1."""

    text: str
    drawing: DrawnAs | None = None
    positions: tuple[str, ...] = ()
    at: int = 0
    turned: float = 0.0


_PLUG: Final = ("sits firmly", "moves", "is not plugged in")
"""How a plug can be found. [PRACTICE]"""

_FIRM, _MOVES, _OUT = range(3)


def shown(faulty: FaultyRig, probe: Probe) -> list[ShownLine]:
    """What a probe shows, line by line. What was not looked at is not told."""
    match probe.code:
        case "settings":
            return list(_settings(faulty, probe))
        case "plugs":
            return list(_plugs(faulty, probe.run))
        case _:
            return [ShownLine(text=text) for text in _lines(faulty, probe)]


def _lines(faulty: FaultyRig, probe: Probe) -> list[str]:
    index = faulty.index
    match probe.code:
        case "meters":
            return [_meter_line(faulty, name) for name in faulty.heard_names(probe.device)]
        case "tone":
            return [_tone_line(faulty, track) for track in faulty.tone_tracks(probe.device)]
        case "listen" | "play-back" | "shout":
            return [
                f"{_track(index, name)}: {', '.join(_HEARD[one] for one in sorted(faulty.told_by(probe, name)))}"
                for name in faulty.heard_names(probe.device)
            ]
        case "clap":
            recording = [placed for placed in faulty.rig.chain if records(placed)]
            return [f"{placed.label}: {_TOGETHER[faulty.together(placed.device.id)]}" for placed in recording]
        case _:
            return ["It is gone." if faulty.observe(probe)[0] else "No change."]


def recorded_words(faulty: FaultyRig) -> list[str]:
    """What would be wrong with the recordings, device by device."""
    index, lines = faulty.index, list[str]()
    for placed in (placed for placed in faulty.rig.chain if records(placed)):
        device = placed.device.id
        if not faulty.is_rolling(device):
            lines.append(f"{placed.label}: {_HEARD[Impression.NOTHING]}.")
            continue
        heard: dict[str, list[str]] = {}
        for name in faulty.heard_names(device):
            if words := _lost_words(faulty, name):
                heard.setdefault(words, []).append(_track(index, name))
        lines += [f"{listed(tracks)}: {words}." for words, tracks in heard.items()]
        if (together := faulty.together(device)) is not ClapComparison.AS_PLANNED:
            lines.append(f"{placed.label}: {_TOGETHER[together]}.")
    return lines


def _lost_words(faulty: FaultyRig, track_id: str) -> str:
    """What would be wrong with a track, in speech, else in a shout; "" where it is as planned."""
    track = faulty.report.track(track_id)
    if track is None:
        return _HEARD[Impression.NOTHING]
    heard = faulty.heard(track) - {Impression.AS_PLANNED}
    if heard:
        return ", ".join(_HEARD[one] for one in sorted(heard))
    return ", ".join(_SHOUTED[one] for one in sorted(faulty.shouted(track)) if one in _SHOUTED)


def sound_names(faulty: FaultyRig, probe: Probe) -> list[str]:
    """Tracks that can be listened to there, in their order."""
    if not probe.is_heard or (probe.code == "play-back" and not faulty.is_rolling(probe.device)):
        return []
    return [_track(faulty.index, name) for name in faulty.heard_names(probe.device)]


def _settings(faulty: FaultyRig, probe: Probe) -> Iterator[ShownLine]:
    rig = FaultyRig(faulty.rig)
    now, planned = faulty.index.placed(probe.device), rig.index.placed(probe.device)
    for control in faulty.rig.controls(probe.device, probe.port):
        if now.acts(control):
            yield _control(now, planned, control)
    if probe.port:
        gives, then = (
            ", ".join(placed.bus_label(bus.id) for bus in one.gives(probe.device, probe.port))
            for placed, one in ((now, faulty), (planned, rig))
        )
        if then and len(now.device_class.buses) > 1:
            yield ShownLine(text=f"gives: {gives} (planned {then})")
        return
    if records(now):
        is_on = faulty.is_rolling(probe.device)
        text = f"record lamp: {'on' if is_on else 'off'} (planned on)"
        yield ShownLine(text=text, drawing=DrawnAs.LAMP, positions=("off", "on"), at=int(is_on))
    if has_headphones(now):
        on = "all tracks" if faulty.hears_all(probe.device) else "first track alone"
        yield ShownLine(text=f"headphones: {on} (planned all tracks)")
    if probe.device in faulty.rig.clocks:
        comes, came = (_comes_by(one, probe.device) for one in (faulty, rig))
        yield ShownLine(text=f"timecode: {comes} (planned {came})")


def _control(placed: PlacedDevice, planned: PlacedDevice, control: Control) -> ShownLine:
    """Beside what the settings sheet says."""
    stands = placed.device.settings.get(control.id, control.default)
    text = f"{control.label}: {control.words(stands)}"
    if planned.acts(control):
        text += f" (planned {control.words(planned.device.settings.get(control.id, control.default))})"
    match control.kind:
        case ControlKind.KNOB if control.span is not None:
            span = control.span
            turned = (float(stands) - span.minimum_db) / (span.maximum_db - span.minimum_db or 1.0)
            return ShownLine(text=text, drawing=DrawnAs.KNOB, turned=turned)
        case ControlKind.SWITCH:
            drawing = DrawnAs.MENU if control.label.endswith(", menu") else DrawnAs.SWITCH
            return ShownLine(text=text, drawing=drawing, positions=("off", "on"), at=int(bool(stands)))
        case ControlKind.CHOICE:
            ids = [option for option, _ in control.options]
            labels = tuple(label for _, label in control.options)
            return ShownLine(text=text, drawing=DrawnAs.MENU, positions=labels, at=ids.index(str(stands)))
        case _:
            return ShownLine(text=text)


def _comes_by(faulty: FaultyRig, device: str) -> str:
    gets, giver = faulty.timecode_from(device)
    return _COMES_BY[gets].format(giver=faulty.index.placed(giver).label if giver else "")


def _plugs(faulty: FaultyRig, run_id: str) -> Iterator[ShownLine]:
    """Both ends, and the cable as it looks. What nothing locks is what moves."""
    index, planned = faulty.index, faulty.rig.index
    run = faulty.plugged(run_id)
    parts = planned.plan.runs[run_id].parts if faulty.looks_planned(run_id) else run.parts
    yield _plug(index, run.sending, _MOVES if faulty.loose_end(run_id) == run.sending else _FIRM)
    yield ShownLine(text=parts_words(planned, parts) or "plugged in directly")
    at = _OUT if faulty.is_out(run_id) else _MOVES if faulty.loose_end(run_id) == run.receiving else _FIRM
    yield _plug(index, run.receiving, at)


def _plug(index: PlanIndex, end: PortRef, at: int) -> ShownLine:
    return ShownLine(text=f"{index.port_label(end)}: {_PLUG[at]}", drawing=DrawnAs.PLUG, positions=_PLUG, at=at)


def _meter_line(faulty: FaultyRig, track_id: str) -> str:
    now, then = faulty.report.track(track_id), faulty.rig.report.track(track_id)
    shows = faulty.meter_dbfs(now) if now is not None else None
    planned = faulty.meter_dbfs(then) if then is not None else None
    return f"{_track(faulty.index, track_id)}: {_level(shows)} (planned {_level(planned)})"


def _level(level: float | None) -> str:
    return "no reading" if level is None else f"{signed(level, 0)} dBFS"


def _tone_line(faulty: FaultyRig, track: TrackLevel) -> str:
    off_db = faulty.tone_off_db(track)
    if off_db is None:
        says = "no tone"
    elif off_db == 0:
        says = "as planned"
    else:
        says = f"{signed(off_db, 0)} dB against the plan"
    return f"{_track(faulty.rig.index, track.trace.id)}: {says}"


def _track(index: PlanIndex, track_id: str) -> str:
    device, _, bus = track_id.partition(".")
    return index.placed(device).bus_label(bus)
