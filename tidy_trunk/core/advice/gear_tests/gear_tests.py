"""Which tests there are for the devices of a job as they are connected, and which of them were done."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.line_up import Knob, knobs_of, worth_trying
from tidy_trunk.core.advice.options import by_hand
from tidy_trunk.core.gear.catalogue import (
    INSIDE,
    PINOUTS,
    Bridge,
    DeviceKind,
    InputPort,
    LeadClass,
    Port,
    Side,
    Signal,
    Wire,
    Wiring,
    channel_refs,
    gain_key,
    pad_key,
)
from tidy_trunk.core.plan import (
    METER_TEST,
    Disconnect,
    Edit,
    Part,
    PlacedDevice,
    PlanIndex,
    PortRef,
    Run,
    SaveLead,
    SetControl,
    SetParts,
    apply_edits,
    law_key,
)
from tidy_trunk.core.sound.levels import LevelSolver, Report, SignalLevels, known_sender, sender_of
from tidy_trunk.core.sound.trace import Stage, StageKind
from tidy_trunk.errors import NotFoundError


class GearTestKind(StrEnum):
    """What a test finds out, in the order in which they are done. Source: [HANDBOOK] §§3, 4, 6, 7"""

    LOWEST = "lowest"  # whether the lowest position of a knob is off
    ATTENUATOR = "attenuator"  # whether it sits before the converter or behind it
    LEGS = "legs"  # which leg of a splitter is which side
    BLEED = "bleed"  # how much one side of a socket hears of the other
    IDLE_NOISE = "idle-noise"  # of a track when nothing is plugged in and the gain is down
    INPUT_NOISE = "input-noise"  # of the first stage, at full gain
    METER = METER_TEST  # by how much it shows something else than it records
    KNOB = "knob"  # what it gives at its marks
    PICTURE = "picture"  # how late the picture comes out


QUIETEST_TONE_DBFS: Final = -55.0
"""ASSUMED_ level below which a tone is no longer seen on a meter."""

BY_TONE: Final = frozenset(
    {
        GearTestKind.LOWEST,
        GearTestKind.ATTENUATOR,
        GearTestKind.LEGS,
        GearTestKind.BLEED,
        GearTestKind.METER,
        GearTestKind.KNOB,
    }
)
"""Tests that need a device that sends tone before the track. [HANDBOOK] §§4, 6, 7"""


@dataclass(frozen=True, slots=True, kw_only=True)
class GearTest:
    """One thing to be found out of a device.

    at: id of the knob, of the input, or of the lead that two legs belong to; "" for the whole device.
    track, other: what is read, and for what has two sides that of the other one; "" where nothing is.
    sender: the device that sends the tone; "" where none is sent.
    runs: of a pair of legs, left first.
    knob: the one that is turned; positions: where it is turned to for its marks, in dB.
    settings: what has to be set, or unplugged, before; gain_db: where the gain stands then, None where there is no knob.
    when: it was done last, ISO 8601; "" where it never was.
    """

    kind: GearTestKind
    device: str
    at: str = ""
    track: str = ""
    other: str = ""
    sender: str = ""
    runs: tuple[str, ...] = ()
    knob: Knob | None = None
    positions: tuple[float, ...] = ()
    settings: tuple[Edit, ...] = ()
    gain_db: float | None = None
    when: str = ""

    @property
    def id(self) -> str:
        return f"{self.device} {self.key}"

    @property
    def key(self) -> str:
        """As a class keeps it."""
        return f"{self.kind} {self.at}".strip()

    @property
    def records(self) -> bool:
        """Whether a recording answers it, a simulated one too."""
        return self.kind is not GearTestKind.PICTURE


def gear_test_of(report: Report, test_id: str) -> GearTest:
    """Raises NotFoundError: no such test in a job as it is connected now."""
    for test in gear_tests(report):
        if test.id == test_id:
            return test
    raise NotFoundError("this job has no such test any more: a cable, a device or a position of a switch was changed")


def gear_tests(report: Report) -> tuple[GearTest, ...]:
    """All tests that the devices of a job can be put to as they are connected, by device, in the order of the work."""
    order = list(GearTestKind)
    found: list[GearTest] = []
    for device_id in report.index.plan.devices:
        placed = report.index.placed(device_id)
        tests = {test.id: test for test in _of_device(report, placed)}
        found += sorted(tests.values(), key=lambda test: order.index(test.kind))
    return tuple(found)


SET_BY_STEPS: Final = frozenset({DeviceKind.RECORDER, DeviceKind.MIXER})
"""ASSUMED_ kinds of device of which an output level gives what is written beside it."""


def _of_device(report: Report, placed: PlacedDevice) -> Iterator[GearTest]:
    for knob, track in _knobs(report, placed):
        yield from _of_knob(report, knob, track)
    tracks = [track.trace.stage for track in report.tracks_of(placed.device.id)]
    toned = [track for track in tracks if sender_of(report.index, track) is not None]
    if toned:
        yield _test(report, GearTestKind.METER, placed, "", toned[0], settings=_by_hand(report, toned[0]))
    seen: list[InputPort] = []
    for port in placed.device_class.inputs:
        runs = report.index.arriving.get(PortRef(placed.device.id, port.id), [])
        if not runs or port.plug.connector == INSIDE or not port.circuit.is_analogue:
            continue
        # Of sockets that are built alike one is asked for.
        built = replace(port, id="", label="", linked_to=(), blocks=())
        if built not in seen:
            seen.append(built)
            yield from _of_input(report, placed, port, runs)
    if placed.device_class.kind in (DeviceKind.CAMERA, DeviceKind.SWITCHER):
        yield _test(report, GearTestKind.PICTURE, placed, "", None)


def _knobs(report: Report, placed: PlacedDevice) -> Iterator[tuple[Knob, Stage]]:
    """Its knobs, each with the first track on which a tone through it can be read."""
    seen = set()
    for track in report.tracks:
        for knob in knobs_of(report, track.trace.stage):
            if knob.device == placed.device.id and knob.control not in seen:
                seen.add(knob.control)
                yield knob, track.trace.stage


def _of_knob(report: Report, knob: Knob, track: Stage) -> Iterator[GearTest]:
    placed = report.index.placed(knob.device)
    if knob.kind is StageKind.OUTPUT and placed.device_class.kind in SET_BY_STEPS:
        return
    manual = _by_hand(report, track)
    report = report.edited(apply_edits(report.index.plan, manual)) if manual else report
    track = report.known_track(f"{track.device}.{track.name}").trace.stage
    lowest = SetControl(device=knob.device, control=knob.control, value=knob.span.minimum_db)
    test = _test(
        report, GearTestKind.LOWEST, placed, knob.control, track, knob=knob, settings=(*manual, lowest),
        gain_db=knob.span.minimum_db + knob.span.step_db,
    )  # fmt: skip
    tone_dbfs = tone_at(report, track).average
    above_dbfs = tone_dbfs + knob.span.above_lowest_db(1) - knob.span.gain_db(knob.stands_db)
    if above_dbfs >= QUIETEST_TONE_DBFS:
        yield test
    positions = worth_trying(knob, tone_dbfs)
    if len(positions) > 1:
        yield _test(
            report, GearTestKind.KNOB, placed, knob.control, track, knob=knob, positions=positions, settings=manual
        )


def _of_input(report: Report, placed: PlacedDevice, port: InputPort, runs: Sequence[Run]) -> Iterator[GearTest]:
    tracks = list(_tracks_of(report, placed, port))
    if not tracks:
        return
    if sender_of(report.index, tracks[0]) is not None:
        yield from _attenuator(report, placed, port, tracks[0])
        yield from _sides(report, placed, port, tracks, two_legs(runs))
    yield from _noises(report, placed, port, tracks[0], _emptied(report.index, placed, port, runs))


def _sides(
    report: Report, placed: PlacedDevice, port: InputPort, tracks: Sequence[Stage], legs: tuple[Run, ...]
) -> Iterator[GearTest]:
    """Of a socket with two sides: which leg is which, and what one side hears of the other."""
    if len(tracks) != 2 or not legs:
        return
    first, second = tracks
    one = (*_by_hand(report, first), Disconnect(run=legs[1].id))
    for kind in (GearTestKind.LEGS, GearTestKind.BLEED):
        test = _test(
            report, kind, placed, port.id, first, other=f"{second.device}.{second.name}", settings=one,
            runs=tuple(leg.id for leg in legs),
        )  # fmt: skip
        lead = report.index.lead_of(leg_part(legs[0]))
        yield replace(test, when=lead.tested.get(kind, "")) if kind is GearTestKind.LEGS else test


def _attenuator(report: Report, placed: PlacedDevice, port: InputPort, track: Stage) -> Iterator[GearTest]:
    """The tone as far over the top as half its attenuator takes off, so that it is clean again where that comes in time."""
    mode = placed.input_mode(port)
    if port.pad_db is None or mode.gain is None:
        return
    over_db = port.pad_db.value / 2
    manual = by_hand(placed, port)
    report = report.edited(apply_edits(report.index.plan, manual)) if manual else report
    track = report.known_track(f"{track.device}.{track.name}").trace.stage
    without_pad_dbfs = tone_at(report, track).uncut + placed.pad_db(port)
    wanted_db = mode.gain.gain_db(placed.gain_mark_db(port, mode)) + over_db - without_pad_dbfs
    gain_db = mode.gain.nearest_db(wanted_db)
    if mode.gain.gain_db(gain_db) < wanted_db - mode.gain.step_db:
        return  # it cannot be driven that hot from here
    pad_on = SetControl(device=placed.device.id, control=pad_key(port.id), value=True)
    turned = _turned(placed, port, gain_db)
    yield _test(
        report, GearTestKind.ATTENUATOR, placed, port.id, track, settings=(*manual, *turned, pad_on), gain_db=gain_db
    )


def _noises(
    report: Report, placed: PlacedDevice, port: InputPort, track: Stage, unplugged: tuple[Edit, ...]
) -> Iterator[GearTest]:
    mode = placed.input_mode(port)
    pad = (
        (SetControl(device=placed.device.id, control=pad_key(port.id), value=False),) if port.pad_db is not None else ()
    )
    low_db = None
    if mode.gain is not None:
        low_db = mode.gain.minimum_db + (mode.gain.step_db if mode.gain.lowest_is_off else 0)
    manual = by_hand(placed, port)
    settings = (*unplugged, *manual, *pad, *_turned(placed, port, low_db))
    yield _test(report, GearTestKind.IDLE_NOISE, placed, port.id, track, settings=settings, gain_db=low_db)
    if mode.gain is not None and mode.signal is Signal.MIC and mode.full_scale_dbu is not None:
        high_db = mode.gain.maximum_db
        settings = (*unplugged, *manual, *pad, *_turned(placed, port, high_db))
        yield _test(report, GearTestKind.INPUT_NOISE, placed, port.id, track, settings=settings, gain_db=high_db)


def _test(
    report: Report,
    kind: GearTestKind,
    placed: PlacedDevice,
    at: str,
    track: Stage | None,
    *,
    knob: Knob | None = None,
    settings: tuple[Edit, ...] = (),
    gain_db: float | None = None,
    positions: tuple[float, ...] = (),
    other: str = "",
    runs: tuple[str, ...] = (),
) -> GearTest:
    sender = None if track is None or kind not in BY_TONE else sender_of(report.index, track)
    test = GearTest(
        kind=kind,
        device=placed.device.id,
        at=at,
        track="" if track is None else f"{track.device}.{track.name}",
        other=other,
        sender="" if sender is None else sender.device,
        runs=runs,
        knob=knob,
        positions=positions,
        settings=settings,
        gain_db=gain_db,
    )
    return replace(test, when=_when(report.index, placed, test))


def _when(index: PlanIndex, placed: PlacedDevice, test: GearTest) -> str:
    if test.kind is GearTestKind.METER:
        meter = index.meter_of(placed.device.id)
        return "" if meter is None else meter.when
    law = index.plan.gain_laws.get(law_key(placed.device_class.id, test.at)) if test.kind is GearTestKind.KNOB else None
    return placed.device_class.tested.get(test.key, "") if law is None else law.when


def _by_hand(report: Report, track: Stage) -> tuple[Edit, ...]:
    """Automatic level off on the way to a track: through it a tone says nothing."""
    found: list[Edit] = []
    for stage in report.main_path(track):
        if stage.kind is StageKind.INPUT:
            placed = report.index.placed(stage.device)
            found += by_hand(placed, placed.input(stage.name))
    return tuple(found)


def _emptied(index: PlanIndex, placed: PlacedDevice, port: InputPort, runs: Sequence[Run]) -> tuple[Edit, ...]:
    """Nothing at an input. Where a plug turns a device's own microphones off, a plug that is shorted stays in."""
    if not lets_own_microphones_in(placed, port):
        return tuple(Disconnect(run=run.id) for run in runs)
    first, *others = runs
    output = index.placed(first.sending.device).output(first.sending.port)
    signal, screen = _contacts(port)
    ground = _contacts(output)[1]
    bridges = tuple(Bridge(Side.RECEIVING, contact, screen) for contact in signal)
    plug = LeadClass(
        id=SHORTED_PLUG, label="shorted plug", sending=output.plug.opposite, receiving=port.plug.opposite, balanced=False,
        ways={"": Wiring((Wire(ground, screen),), bridges)},
    )  # fmt: skip
    part = Part(lead=plug.id, length_m=0.1)
    return (
        *(Disconnect(run=run.id) for run in others),
        SaveLead(lead=plug),
        SetParts(run=first.id, parts=(part,)),
    )


SHORTED_PLUG: Final = "shorted-plug"
"""ASSUMED_ id of what stands for a plug in which all is joined."""


def lets_own_microphones_in(placed: PlacedDevice, port: InputPort) -> bool:
    """Whether a device hears by itself while nothing is plugged in."""
    return any(placed.device_class.port_of[other].plug.connector == INSIDE for other in port.blocks)


def _contacts(port: Port) -> tuple[list[str], str]:
    """What carries signal at a socket, and its screen."""
    pins = PINOUTS[port.plug.connector, port.circuit]
    screen = next(contact for contact, leg in pins.items() if leg.role == "screen")
    return [contact for contact, leg in pins.items() if leg.role != "screen"], screen


def _turned(placed: PlacedDevice, port: InputPort, gain_db: float | None) -> tuple[Edit, ...]:
    if gain_db is None:
        return ()
    control = gain_key(port.id, placed.input_mode(port).id)
    return (SetControl(device=placed.device.id, control=control, value=gain_db),)


def _tracks_of(report: Report, placed: PlacedDevice, port: InputPort) -> Iterator[Stage]:
    """For each side of an input the first track that takes it."""
    for ref in channel_refs(port):
        for track in report.tracks_of(placed.device.id):
            if ref in placed.bus_inputs(placed.bus(track.trace.bus)):
                yield track.trace.stage
                break


def two_legs(runs: Sequence[Run]) -> tuple[Run, ...]:
    """The two runs that share one lead with two legs, left first; nothing where there is no such pair."""
    by_branch = {part.branch: run for run in runs for part in run.parts if part.branch and part.shared}
    return (by_branch["L"], by_branch["R"]) if by_branch.keys() == {"L", "R"} else ()


def leg_part(run: Run) -> Part:
    """The lead of a leg."""
    return next(part for part in run.parts if part.branch)


def tone_at(report: Report, track: Stage) -> SignalLevels:
    """The tone of the nearest sender before a track, as the track has it. Raises InputError: no device sends one."""
    sender = known_sender(report.index, track)
    oscillators = {sender.device: report.index.tone_dbfs(sender.device)}
    return LevelSolver(report.index, oscillators=oscillators).level(track).sound
