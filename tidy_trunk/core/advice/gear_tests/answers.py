"""What an answer says of a device, and the edits that keep it: the device is one of the user's own from then on."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import Final

from tidy_trunk.core.advice.gear_tests.found import (
    FigureFound,
    GearAnswer,
    GearFinding,
    GearRecording,
    GearTestOutcome,
    KnobFound,
    LegsFound,
    LowestFound,
    MeterFound,
    PadFound,
    RecordedChannel,
)
from tidy_trunk.core.advice.gear_tests.gear_tests import GearTest, GearTestKind, leg_part, tone_at
from tidy_trunk.core.advice.line_up import keeping_line_ups, law_edits, meter_edit
from tidy_trunk.core.base.units import less_power_db
from tidy_trunk.core.gear.catalogue import (
    DeviceClass,
    Figure,
    InputMode,
    InputPort,
    LeadClass,
    PadPlace,
    Provenance,
    figures_of,
    own_label,
    span_of,
    with_spans,
)
from tidy_trunk.core.plan import (
    CopyClass,
    Edit,
    MeterPair,
    Plan,
    ReadFrom,
    SaveClass,
    SaveLead,
    SetControl,
    SetFigure,
    SetParts,
    apply_edits,
    free_id,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError

BLEED_DB: Final = (-120.0, -3.0)
"""ASSUMED_ what one side of a socket may hear of the other: more is a plug in both, less no recorder shows."""

IDLE_NOISE_DBFS: Final = (-160.0, 0.0)
"""ASSUMED_ what a file may hold with nothing plugged in."""

EIN_DBU: Final = (-140.0, -60.0)
"""ASSUMED_ equivalent input noise of anything: a bare 150 Ω makes -130.9 dBu [NYQUIST28]."""

LATEST_FRAMES: Final = 120
"""ASSUMED_ most frames by which a picture is late: some seconds."""

MEASURED_WITHIN_DB: Final = 1.0
"""± of a noise or a bleed that was measured once: a second recording comes out that near. [MEMORY]"""

AT_MOST_WITHIN_DB: Final = 3.0
"""ASSUMED_ ± of a figure of which only the most that it can be is known."""

GONE_DB: Final = 40.0
"""ASSUMED_ how far a tone falls from one position of a knob to the lowest, beyond which that is off: a step takes less."""

SIDE_DB: Final = 10.0
"""ASSUMED_ by how much the side that a leg feeds is louder than the other: bleed lies far below."""

COUNTED_WITHIN_FRAMES: Final = 0.5
"""ASSUMED_ ± of frames that are counted."""

OWN_NOISE_ABOVE_DB: Final = 0.5
"""ASSUMED_ how much louder than the rest of the noise a track must be for its own part to be told from it."""


Change = Callable[[DeviceClass], DeviceClass]
"""What becomes of a class. [PRACTICE] of software"""


def answered(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    """What an answer says, and the edits that keep it.

    Raises:
        InputError: An answer of another kind than the test has, or a recording that does not tell.
    """
    return _READERS[test.kind](report, test, answer)


def known(report: Report, test: GearTest) -> GearFinding | None:
    """What a test has found out already; None where it was never done."""
    if not test.when:
        return None
    placed = report.index.placed(test.device)
    match test.kind:
        case GearTestKind.LOWEST:
            return LowestFound(span_of(placed.device_class, test.at).lowest_is_off)
        case GearTestKind.ATTENUATOR:
            return PadFound(placed.input(test.at).pad_place)
        case GearTestKind.LEGS:
            return LegsFound(True)
        case GearTestKind.METER:
            meter = report.index.meter_of(test.device)
            return None if meter is None else MeterFound(meter.reads_high_db)
        case GearTestKind.KNOB:
            return KnobFound(len(span_of(placed.device_class, test.at).law))
        case _:
            path = _figure_path(report, test)
            figures = {named.path: named.figure for named in figures_of(placed.device_class)}
            return FigureFound(path, figures[path]) if path in figures else None


def _figure_path(report: Report, test: GearTest) -> str:
    """Where a class keeps the figure that a test is for."""
    if test.kind is GearTestKind.PICTURE:
        return "traits.picture_delay_frames"
    if test.kind is GearTestKind.BLEED:
        return f"inputs.{test.at}.bleed_db"
    if test.kind is GearTestKind.IDLE_NOISE:
        return f"inputs.{test.at}.idle_noise_dbfs"
    placed = report.index.placed(test.device)
    return f"inputs.{test.at}.modes.{placed.input_mode(placed.input(test.at)).id}.ein_dbu"


def _lowest(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    is_off = answer.yes
    if is_off is None:
        channel = _channel(report, test.track, _recording(answer))
        step_up = (SetControl(device=test.device, control=test.at, value=test.gain_db or 0.0),)
        above = _edited(report, step_up)
        is_off = (
            channel.tone_dbfs is None
            or channel.tone_dbfs < tone_at(above, above.known_track(test.track).trace.stage).average - GONE_DB
        )

    def change(device: DeviceClass) -> DeviceClass:
        return with_spans(device, lambda key, span: replace(span, lowest_is_off=is_off) if key == test.at else span)

    return _kept(report, test, answer, LowestFound(is_off), change)


def _attenuator(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    is_late = answer.yes
    if is_late is None:
        channel = _channel(report, test.track, _recording(answer))
        if channel.tone_dbfs is None and not channel.is_cut:
            raise InputError("no tone is heard in this recording: send the tone, and switch the attenuator on")
        is_late = channel.is_cut
    port = report.index.placed(test.device).input(test.at)
    early = PadPlace.FIRST if port.pad_place is PadPlace.LAST else port.pad_place
    place = PadPlace.LAST if is_late else early
    return _kept(report, test, answer, PadFound(place), _port(test.at, lambda port: replace(port, pad_place=place)))


def _legs(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    """The leg that is marked left alone: it is the left one where the first side hears it."""
    as_marked = answer.yes
    if as_marked is None:
        recording = _recording(answer)
        first, second = (_channel(report, track, recording).tone_dbfs for track in (test.track, test.other))
        levels = (-math.inf if first is None else first, -math.inf if second is None else second)
        if abs(levels[0] - levels[1]) < SIDE_DB or levels == (-math.inf, -math.inf):
            raise InputError("both sides hear the same: plug in one leg alone, and record both sides in one file")
        as_marked = levels[0] > levels[1]
    plan = report.index.plan
    legs = [plan.runs[run] for run in test.runs]
    old = report.index.lead_of(leg_part(legs[0]))
    new = _own_lead(plan, old, answer.when)
    if not as_marked:
        new = replace(new, ways={"L": new.ways["R"], "R": new.ways["L"]})
    swapped = [
        SetParts(
            run=leg.id,
            parts=tuple(replace(part, lead=new.id) if part.lead == old.id else part for part in leg.parts),
        )
        for leg in legs
        if new.id != old.id
    ]
    return GearTestOutcome(LegsFound(as_marked), keeping_line_ups(report, (SaveLead(lead=new), *swapped)), new.id)


def _own_lead(plan: Plan, lead: LeadClass, when: str) -> LeadClass:
    tested = {**lead.tested, GearTestKind.LEGS.value: when}
    if lead.id in plan.leads:
        return replace(lead, tested=tested)
    label = own_label(lead.label, [item.label for item in plan.leads.values()])
    return replace(lead, id=free_id(f"my {lead.id}", plan.leads), label=label, tested=tested)


def _bleed(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    at_most = False
    if answer.value is not None:
        bleed_db = -abs(answer.value)
    else:
        recording = _recording(answer)
        if len(recording.channels) < 2:
            raise InputError("bleed is read on the other side: record both sides in one file")
        sides = [_channel(report, track, recording) for track in (test.track, test.other)]
        tone_dbfs = max((side.tone_dbfs for side in sides if side.tone_dbfs is not None), default=None)
        if tone_dbfs is None:
            raise InputError("no tone is heard in this recording: send it through one leg alone")
        quiet = min(sides, key=lambda side: -math.inf if side.tone_dbfs is None else side.tone_dbfs)
        heard_db = recording.bleed_db if quiet.tone_dbfs is None else quiet.tone_dbfs - tone_dbfs
        at_most = heard_db is None
        bleed_db = quiet.noise_dbfs - tone_dbfs if heard_db is None else heard_db
    if not BLEED_DB[0] <= bleed_db <= BLEED_DB[1]:
        raise InputError(f"the other side hears it at {bleed_db:.0f} dB: plug in one leg alone, and look again")
    figure = _measured(answer, bleed_db, AT_MOST_WITHIN_DB if at_most else MEASURED_WITHIN_DB)
    found = FigureFound(_figure_path(report, test), figure, at_most)
    return _kept(report, test, answer, found, _port(test.at, lambda port: replace(port, bleed_db=figure)))


def _idle_noise(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    def change(figure: Figure | None) -> Change:
        return _port(test.at, lambda port: replace(port, idle_noise_dbfs=figure))

    return _noise_found(report, test, answer, change, IDLE_NOISE_DBFS, MEASURED_WITHIN_DB)


def _input_noise(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    placed = report.index.placed(test.device)
    chosen = placed.input_mode(placed.input(test.at))

    def change(figure: Figure | None) -> Change:
        def with_ein(mode: InputMode) -> InputMode:
            return replace(mode, ein_dbu=figure) if mode.id == chosen.id else mode

        return _port(test.at, lambda port: replace(port, modes=tuple(map(with_ein, port.modes))))

    # What is read in the file is referred to the socket by its full scale, which may not be known better.
    doubt_db = chosen.full_scale_dbu.tolerance if chosen.full_scale_dbu is not None else AT_MOST_WITHIN_DB
    within_db = round(math.hypot(MEASURED_WITHIN_DB, doubt_db), 1)
    return _noise_found(report, test, answer, change, EIN_DBU, within_db)


def _noise_found(
    report: Report,
    test: GearTest,
    answer: GearAnswer,
    change: Callable[[Figure | None], Change],
    between: tuple[float, float],
    within_db: float,
) -> GearTestOutcome:
    """The figure of a noise by which its track comes out as it was measured: all else on the way makes noise as before."""
    noise_dbfs = _noise(report, test, answer)
    own, edits = _own_class(report, test)

    def with_figure(figure: Figure | None) -> float:
        changed = SaveClass(device_class=change(figure)(own))
        return _edited(report, (*edits, changed, *test.settings)).known_track(test.track).sound.noise

    rest_dbfs, tried = with_figure(None), _measured(answer, sum(between) / 2, within_db)
    at_most = noise_dbfs < rest_dbfs + OWN_NOISE_ABOVE_DB
    own_dbfs = noise_dbfs if at_most else less_power_db(noise_dbfs, rest_dbfs)
    value = tried.value + own_dbfs - less_power_db(with_figure(tried), rest_dbfs)
    if not between[0] <= value <= between[1]:
        raise InputError(
            f"that would be a noise of {value:.0f} dB, which no such input has: is the gain where it should be, and is "
            "nothing plugged in?"
        )
    figure = _measured(answer, value, max(within_db, AT_MOST_WITHIN_DB) if at_most else within_db)
    return _kept(report, test, answer, FigureFound(_figure_path(report, test), figure, at_most), change(figure))


def _meter(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    if answer.value is None:
        raise InputError("say what the meter showed while this was recorded")
    channel = _channel(report, test.track, _recording(answer))
    level = channel.tone_dbfs
    if level is None:
        raise InputError("no tone is heard in this recording: send the tone, and record it")
    if channel.is_cut:
        raise InputError("the tone is cut off in this recording: turn it down until its tops are whole")
    own, edits = _own_class(report, test)
    pairs = [MeterPair(answer.value, level)]
    edit = meter_edit(_edited(report, edits), test.track, pairs, answer.when)
    return GearTestOutcome(MeterFound(edit.meter.reads_high_db), keeping_line_ups(report, (*edits, edit)), own.id)


def _knob(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    recording = _recording(answer)
    if test.knob is None or not recording.steps:
        raise InputError("this recording holds no steps: name the marks when it is dropped in")
    own, edits = _own_class(report, test)
    law = law_edits(
        _edited(report, edits),
        replace(test.knob, class_id=own.id),
        recording.steps,
        noisy_from=recording.noisy_from,
        scale=answer.scale,
        read_from=answer.read_from,
        when=answer.when,
    )
    clean = {step.setting for step in recording.steps if not step.clipped}
    return GearTestOutcome(KnobFound(len(clean)), keeping_line_ups(report, (*edits, law[0])), own.id)


def _picture(report: Report, test: GearTest, answer: GearAnswer) -> GearTestOutcome:
    if answer.value is None or not 0 <= answer.value <= LATEST_FRAMES:
        raise InputError(f"say by how many frames the picture is late, from 0 to {LATEST_FRAMES}")
    # A frame is all that can be counted.
    within_percent = min(100 * COUNTED_WITHIN_FRAMES / answer.value, 100.0) if answer.value else 100.0
    figure = _measured(answer, answer.value, round(within_percent, 1))

    def change(device: DeviceClass) -> DeviceClass:
        return replace(device, traits=replace(device.traits, picture_delay_frames=figure))

    return _kept(report, test, answer, FigureFound(_figure_path(report, test), figure), change)


def _own_class(report: Report, test: GearTest) -> tuple[DeviceClass, tuple[Edit, ...]]:
    """The class of the user's own that the device is of, and the edits that make it one where it is not yet."""
    plan = report.index.plan
    own = plan.classes.get(plan.devices[test.device].class_id)
    if own is not None:
        return own, ()
    label = own_label(
        report.index.placed(test.device).device_class.label, [item.label for item in plan.classes.values()]
    )
    copied = CopyClass(device=test.device, label=label)
    after = copied.apply(plan)
    return after.classes[after.devices[test.device].class_id], (copied,)


def _kept(report: Report, test: GearTest, answer: GearAnswer, what: GearFinding, change: Change) -> GearTestOutcome:
    own, edits = _own_class(report, test)
    changed = change(own)
    kept: list[Edit] = [
        *edits,
        SaveClass(device_class=replace(changed, tested={**changed.tested, test.key: answer.when})),
    ]
    if isinstance(what, FigureFound) and not edits and what.path in report.index.plan.devices[test.device].figures:
        kept.append(SetFigure(device=test.device, path=what.path, figure=None))  # its class knows better now
    return GearTestOutcome(what, keeping_line_ups(report, kept), own.id)


def _port(port_id: str, change: Callable[[InputPort], InputPort]) -> Change:
    """What changes something of one input of a class."""

    def changed(device: DeviceClass) -> DeviceClass:
        inputs = tuple(change(port) if port.id == port_id else port for port in device.inputs)
        return replace(device, inputs=inputs)

    return changed


def _edited(report: Report, edits: Sequence[Edit]) -> Report:
    return Report(trace_plan(apply_edits(report.index.plan, edits)))


def _measured(answer: GearAnswer, value: float, within: float) -> Figure:
    """A figure that says where it is from: of a simulated device it is one of no real one."""
    source = "SIMULATION" if answer.read_from is ReadFrom.SIMULATION else "USER"
    return Figure(round(value, 1), within, Provenance.MEASURED, source)


def _recording(answer: GearAnswer) -> GearRecording:
    if answer.recording is None or not answer.recording.channels:
        raise InputError("this test wants a recording: drop it in, or measure in the simulation")
    return answer.recording


def _channel(report: Report, track_id: str, recording: GearRecording) -> RecordedChannel:
    """The channel of a recording that is a track's: in the order of its device's tracks, or the only one."""
    if len(recording.channels) == 1:
        return recording.channels[0]
    device = track_id.partition(".")[0]
    order = [track.trace.id for track in report.tracks_of(device)]
    number = order.index(track_id)
    if number >= len(recording.channels):
        raise InputError(
            f"the recording has {len(recording.channels)} channels, and the track is number {number + 1} of its device: "
            "record all of its tracks, or that one alone"
        )
    return recording.channels[number]


def _noise(report: Report, test: GearTest, answer: GearAnswer) -> float:
    """In dBFS, typed or recorded."""
    if answer.value is not None:
        return answer.value
    channel = _channel(report, test.track, _recording(answer))
    if channel.tone_dbfs is not None:
        raise InputError("a tone is heard in this recording: unplug the input, and record ten seconds of nothing")
    if not math.isfinite(channel.noise_dbfs):
        raise InputError("this recording holds no noise at all: is the track armed?")
    return channel.noise_dbfs


_READERS: Final[Mapping[GearTestKind, Callable[[Report, GearTest, GearAnswer], GearTestOutcome]]] = {
    GearTestKind.LOWEST: _lowest,
    GearTestKind.ATTENUATOR: _attenuator,
    GearTestKind.LEGS: _legs,
    GearTestKind.BLEED: _bleed,
    GearTestKind.IDLE_NOISE: _idle_noise,
    GearTestKind.INPUT_NOISE: _input_noise,
    GearTestKind.METER: _meter,
    GearTestKind.KNOB: _knob,
    GearTestKind.PICTURE: _picture,
}
