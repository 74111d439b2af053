"""The ways to match a run, each computed and ranked."""

import math
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.catalogue import Signal, channel_refs, gain_key
from tidy_trunk.core.levels import Reckoner, Sound, full_scale_at_input_dbu, input_stage_dbu
from tidy_trunk.core.plan import TARGETS, Edit, Plan, Rig, Run, SetControl
from tidy_trunk.core.trace import Stage, Tracer
from tidy_trunk.core.units import SILENCE_DB, combine_tolerances_db, sum_powers_db
from tidy_trunk.core.ways.candidates import Candidate, candidates
from tidy_trunk.errors import PlanError, UnknownItemError

ALLOWED_MISS_DB: Final = 1.0
"""ASSUMED_ how far outside its target an average may lie before anything is said: less than a typical figure's ±."""

PEAK_MARGIN_DB: Final = 3.0
"""ASSUMED_ what is left above the expected peaks when a knob is set."""

AUDIBLE_DB: Final = 10.0
"""Gear noise this far below the room's adds less than half a decibel to it. [HANDBOOK]: powers add"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A way with its result at the first track (or mix) that the run reaches, in dBFS.

    headroom_db: to full scale above the expected peaks, negative where they are cut off.
    full_scale_margin_db: from the sender's full scale to what the input takes; negative where a burst would clip.
    sure: that margin is larger than the ± of the figures behind it.
    fits: neither clips nor misses the target.
    """

    id: str
    label: str
    edits: tuple[Edit, ...]
    needs: str
    loses: str
    average_dbfs: float
    peak_dbfs: float
    headroom_db: float
    noise_dbfs: float
    room_noise_dbfs: float
    ruled_by: str
    tolerance_db: float
    full_scale_margin_db: float
    sure: bool
    clips: bool
    fits: bool
    verdict: str


def ways(plan: Plan, run_id: str) -> list[Way]:
    """Every way for a run, best first: what fits, then what keeps the sender's full scale, then the least noise.

    Raises:
        UnknownItemError: No such run.

    Source: [HANDBOOK] §6; the order among ways that fit is that of the school that always works clean.
    """
    run = plan.runs.get(run_id)
    if run is None:
        raise UnknownItemError(f"there is no run '{run_id}'; the job has {', '.join(plan.runs) or 'none'}")
    ranked: list[tuple[tuple[float, ...], Way]] = []
    for candidate in candidates(Rig(plan), run):
        found = _compute(plan, run_id, candidate)
        if found is not None:
            ranked.append((_rank(found, candidate), found))
    ranked.sort(key=lambda item: item[0])
    return _one_lead_of_each_kind([way for _, way in ranked])


def _rank(way: Way, candidate: Candidate) -> tuple[float, ...]:
    gear = way.noise_dbfs
    return (
        float(way.clips),
        float(not way.fits),
        float(not way.sure),
        float(candidate.cost > 1),
        round(gear),
        candidate.cost,
        len(way.edits),
        gear,
    )


def _one_lead_of_each_kind(found: list[Way]) -> list[Way]:
    """Of the attenuating leads the best two: the table compares ways, not a drawer of resistors."""
    leads = [way for way in found if way.id.startswith("lead-")]
    return [way for way in found if not way.id.startswith("lead-") or way in leads[:2]]


def _compute(plan: Plan, run_id: str, candidate: Candidate) -> Way | None:
    try:
        for edit in candidate.edits:
            plan = edit.apply(plan)
        plan, turn = _with_fitting_gain(plan, run_id)
        sound = _sound_after(plan, run_id)
    except PlanError:
        return None  # a way that this plan cannot take is no way
    edits = (*candidate.edits, *turn)
    if sound is None or not edits:
        return None
    ruling = sound.ruling_noise
    margin, doubt = _full_scale_margin_db(plan, run_id)
    miss = TARGETS[plan.defaults.target].miss_db(sound.average, sound.peak)
    clips = sound.clip is not None
    silent = sound.average == SILENCE_DB
    fits = not clips and not silent and abs(miss) <= ALLOWED_MISS_DB
    room = sum_powers_db(noise.level for noise in sound.noises if noise.is_room)
    gear = sum_powers_db(noise.level for noise in sound.noises if not noise.is_room)
    return Way(
        id=candidate.id,
        label=candidate.label,
        edits=edits,
        needs=candidate.needs,
        loses=candidate.loses,
        average_dbfs=sound.average,
        peak_dbfs=sound.peak,
        headroom_db=-sound.clip.over_db if sound.clip else -sound.peak,
        noise_dbfs=gear,
        room_noise_dbfs=room,
        ruled_by=ruling.name if ruling else "",
        tolerance_db=sound.tolerance_db,
        full_scale_margin_db=margin,
        sure=margin > doubt,
        clips=clips,
        fits=fits,
        verdict=_verdict(sound, miss, gear, room, margin),
    )


def _verdict(sound: Sound, miss: float, gear: float, room: float, margin: float) -> str:
    if sound.average == SILENCE_DB:
        return "nothing arrives"
    if sound.clip is not None:
        return f"still clips by {sound.clip.over_db:.1f} dB"
    if miss < -ALLOWED_MISS_DB:
        return f"{-miss:.0f} dB below the target"
    if miss > ALLOWED_MISS_DB:
        return f"{miss:.0f} dB above the target"
    if margin < -ALLOWED_MISS_DB:
        return f"fits, but a full-scale burst would clip by {-margin:.0f} dB"
    if room - gear >= AUDIBLE_DB:
        return f"fits; its hiss lies {room - gear:.0f} dB below the room: nobody will hear it"
    return "fits; its hiss can be heard beside the room"


def _first_stage(rig: Rig, run: Run) -> Stage | None:
    """The first track, or else mix, of the receiving device that this run reaches."""
    unit = rig.unit(run.receiving.device)
    refs = set(channel_refs(unit.input(run.receiving.port)))
    tracer = Tracer(rig)
    buses = sorted(unit.device_class.buses, key=lambda bus: (not bus.recorded, len(unit.bus_inputs(bus))))
    for bus in buses:
        if refs & set(unit.bus_inputs(bus)):
            stage = tracer.bus(unit.device.id, bus.id)
            if any(lead.run is not None and lead.run.id == run.id for feed, _ in stage.feeds for lead, _ in feed.feeds):
                return stage
    return None


def _sound_after(plan: Plan, run_id: str) -> Sound | None:
    rig = Rig(plan)
    stage = _first_stage(rig, plan.runs[run_id])
    return Reckoner(rig).track_sound(stage) if stage is not None else None


def _with_fitting_gain(plan: Plan, run_id: str) -> tuple[Plan, tuple[Edit, ...]]:
    """Set the receiving knob so that the average comes to the middle of the target, and the peaks keep a margin.

    The lowest position of a microphone input is often "off": one step above it is the least that is proposed.
    """
    rig = Rig(plan)
    run = plan.runs[run_id]
    unit = rig.unit(run.receiving.device)
    port = unit.input(run.receiving.port)
    mode = unit.input_mode(port)
    stage = _first_stage(rig, run)
    if mode.gain is None or stage is None or mode.signal is Signal.DIGITAL:
        return plan, ()
    sound = _unclipped(rig, stage)
    target = TARGETS[plan.defaults.target]
    level = sound.peak if target.of_peaks else sound.average
    if level == SILENCE_DB:
        return plan, ()
    now = unit.gain_db(port, mode)
    if abs(target.miss_db(sound.average, sound.peak)) <= ALLOWED_MISS_DB and sound.peak <= -PEAK_MARGIN_DB:
        return plan, ()
    shift = min((target.low_dbfs + target.high_dbfs) / 2 - level, -PEAK_MARGIN_DB - sound.peak)
    room_db = _full_scale_room_db(rig, run)
    if room_db < shift:
        # The sender's full scale comes before the middle of the target: the two meters then read alike.
        shift = max(room_db, min(target.low_dbfs - level, shift))
    gain = mode.gain.nearest_db(now + shift)
    if mode.signal is Signal.MIC and gain < mode.gain.minimum_db + mode.gain.step_db:
        gain = mode.gain.minimum_db + mode.gain.step_db
    if gain == now:
        return plan, ()
    edit = SetControl(device=unit.device.id, control=gain_key(port.id, mode.id), value=gain)
    return edit.apply(plan), (edit,)


def _full_scale_room_db(rig: Rig, run: Run) -> float:
    """By how much the receiving gain may rise until the sender's full scale reads 0 dBFS; negative above it."""
    receiver = rig.unit(run.receiving.device)
    port = receiver.input(run.receiving.port)
    mode = receiver.input_mode(port)
    arrives = full_scale_at_input_dbu(rig, run)
    if arrives is None or mode.full_scale_dbu is None:
        return math.inf
    return mode.full_scale_dbu.value - receiver.gain_db(port, mode) + receiver.pad_db(port) - arrives


def _unclipped(rig: Rig, stage: Stage) -> Sound:
    """What the track would hold if the receiving input could not clip: where the knob ought to go."""
    reckoner = Reckoner(rig)
    inputs = [feed for feed, _ in stage.feeds]
    unit = rig.unit(stage.device)
    shifted = []
    for feed in inputs:
        level = reckoner.level(feed)
        port = unit.input(feed.name)
        mode = unit.input_mode(port)
        by_db = 0.0
        if level.unit == "dBu" and mode.full_scale_dbu is not None:
            by_db = unit.gain_db(port, mode) - unit.pad_db(port) - mode.full_scale_dbu.value
        shifted.append(level.sound.shifted(by_db))
    loudest = max(shifted, key=lambda sound: sound.average, default=Sound())
    return replace(
        loudest,
        average=sum_powers_db(sound.average for sound in shifted),
        peak=sum_powers_db(sound.peak for sound in shifted),
    )


def _full_scale_margin_db(plan: Plan, run_id: str) -> tuple[float, float]:
    """From the sender's full scale to the receiver's clip point, and the ± of that; infinite where neither is stated."""
    rig = Rig(plan)
    run = plan.runs[run_id]
    sender, receiver = rig.unit(run.sending.device), rig.unit(run.receiving.device)
    output = sender.output(run.sending.port)
    sends = sender.output_mode(output)
    port = receiver.input(run.receiving.port)
    takes = receiver.input_mode(port)
    arrives = full_scale_at_input_dbu(rig, run)
    if arrives is None or sends.full_scale_dbu is None or takes.full_scale_dbu is None:
        return math.inf, 0.0
    doubt = combine_tolerances_db((sends.full_scale_dbu.tolerance, takes.full_scale_dbu.tolerance))
    return input_stage_dbu(receiver, port, takes) - arrives, doubt
