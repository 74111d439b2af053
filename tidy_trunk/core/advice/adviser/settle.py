"""Settling one group of joints after the other: what is upstream stands, and is never worked out again."""

import math
from collections.abc import Collection, Iterable, Iterator, Sequence
from itertools import product
from typing import Final

from tidy_trunk.core.advice.adviser.judge import joint_marks
from tidy_trunk.core.advice.adviser.order import Group, devices_in_order, groups_into
from tidy_trunk.core.advice.options import Trial, built_in_run, modes_for
from tidy_trunk.core.gear.catalogue import (
    CAPSULE_PAD_KEY,
    InputMode,
    InputPort,
    OutputMode,
    OutputPort,
    Setting,
    bus_gain_key,
    find_control,
    gain_key,
    mode_key,
    pad_key,
    trim_key,
)
from tidy_trunk.core.plan import Edit, PlacedDevice, Plan, PlanIndex, PortRef, Run, SetControl, edited
from tidy_trunk.core.sound.levels import LevelSolver, SignalLevels, StageLevel
from tidy_trunk.core.sound.trace import Stage, StageKey, Tracer

Pins = frozenset[tuple[str, str]]
"""Controls that are left as they are, as (device, control)."""

NO_PINS: Final[Pins] = frozenset()
"""ASSUMED_ that everything may be moved unless somebody pins it."""

Score = tuple[float, ...]
"""What is wrong with a setting, the gravest first; less is better. [HANDBOOK] §6"""

ROUND_DB: Final = 5.0
"""ASSUMED_ positions that are easily found again in the dark: whole fives."""

_MOST_STEPS_DOWN = 200


class SettlingPlan:
    """A plan whose gains are being settled, with the stages and levels of every device that stands."""

    def __init__(self, plan: Plan) -> None:
        self.index = PlanIndex(plan)
        self._stages: dict[StageKey, Stage] = {}
        self._levels: dict[StageKey, StageLevel[SignalLevels]] = {}

    @property
    def plan(self) -> Plan:
        return self.index.plan

    def worked_out(self, plan: Plan) -> tuple[PlanIndex, Tracer, LevelSolver]:
        index = PlanIndex(plan, self.index)
        return index, Tracer(index, self._stages), LevelSolver(index, self._levels)

    def take(self, edits: Sequence[Edit]) -> None:
        self.index = PlanIndex(edited(self.plan, edits), self.index)

    def stand(self, devices: Iterable[str]) -> None:
        """Devices of which nothing is changed any more: their mixes and microphones are worked out for good."""
        _, tracer, solver = self.worked_out(self.plan)
        for device in devices:
            placed = self.index.placed(device)
            stages = [tracer.bus(device, bus.id) for bus in placed.device_class.buses]
            if placed.device_class.capsule is not None:
                stages.append(tracer.microphone(device))
            for stage in stages:
                self._stages[stage.key] = stage
                self._levels[stage.key] = solver.level(stage)


def settle(plan: Plan, pins: Pins = NO_PINS, only: Collection[str] | None = None) -> Plan:
    """The plan with every knob where it fits, from the microphones on. `only`: devices into which runs are settled."""
    progress = SettlingPlan(plan)
    done: set[str] = set()
    for device in devices_in_order(progress.index):
        if only is None or device in only:
            settle_device(progress, device, pins, done)
    return progress.plan


def settle_device(progress: SettlingPlan, device: str, pins: Pins, done: set[str]) -> None:
    """Everything that feeds a device, then its own mixes. `done`: ids of runs that are settled; added to."""
    progress.stand({run.sending.device for run in progress.plan.runs.values() if run.receiving.device == device})
    for group in groups_into(progress.index, device):
        if not all(run.id in done for run in group.runs):
            progress.take(_best(progress, group, pins))
            done |= {run.id for run in group.runs}
    _set_own_microphone(progress, device, pins)
    _unclip_mixes(progress, device, pins)
    _set_tracks(progress, device, pins)


def _best(progress: SettlingPlan, group: Group, pins: Pins) -> list[Edit]:
    """The setting of a group that has the least wrong with it: every position of its outputs, and for each the best
    of every input, which do not depend on each other."""
    best: tuple[Score, list[Edit]] | None = None
    for sent in _free(_outputs(progress.index, group), pins):
        plan = edited(progress.plan, sent)
        edits, scores = list(sent), []
        for ref in group.inputs:
            runs = [run for run in group.runs if run.receiving == ref]
            score, chosen = _best_input(progress, plan, ref, runs, pins)
            plan = edited(plan, chosen)
            edits += chosen
            scores.append(score)
        total = tuple(sum(parts) for parts in zip(*scores, strict=True))
        total = (*total[:-2], total[-2] + len(sent), total[-1] + _roughness(sent))
        if best is None or total < best[0]:
            best = (total, edits)
    return best[1] if best else []


def _free(choices: Iterable[list[Edit]], pins: Pins) -> Iterator[list[Edit]]:
    for edits in choices:
        if not any(isinstance(edit, SetControl) and (edit.device, edit.control) in pins for edit in edits):
            yield edits


def _best_input(
    progress: SettlingPlan, plan: Plan, ref: PortRef, runs: Sequence[Run], pins: Pins
) -> tuple[Score, list[Edit]]:
    placed = PlanIndex(plan, progress.index).placed(ref.device)
    senders = [progress.index.placed(run.sending.device) for run in runs]
    found = []
    for edits in _free(_input_switches(placed, placed.input(ref.port), senders), pins):
        switched = edited(plan, edits)
        tried: list[list[SetControl]] = [[]]
        for run in runs:
            turn = Trial(switched, run.id, progress).fitting_gain()
            if turn is not None and (turn.device, turn.control) not in pins:
                tried += [[turn], *_rounded(placed, turn)]
        for turned in tried:
            score = _score(progress, edited(switched, turned), runs, [*edits, *turned])
            found.append((score, [*edits, *turned]))
            if not score[0]:
                continue
            # What clips there is not the voice that the knob was fitted to.
            lower = Trial(edited(switched, turned), runs[0].id, progress).turned_down(score[0])
            if lower is not None and (lower.device, lower.control) not in pins:
                score = _score(progress, edited(switched, [lower]), runs, [*edits, lower])
                found.append((score, [*edits, lower]))
    return min(found, key=lambda item: item[0])


def _rounded(placed: PlacedDevice, turn: SetControl) -> list[list[SetControl]]:
    """The same knob at the round position below, where that is another one of its positions."""
    span = find_control(placed.device_class, turn.control).span
    if span is None:
        return []
    value = math.floor(float(turn.value) / ROUND_DB) * ROUND_DB
    if value == turn.value or value < span.minimum_db or span.snapped_db(value) != value:
        return []
    return [[SetControl(device=turn.device, control=turn.control, value=value)]]


def _input_switches(placed: PlacedDevice, port: InputPort, senders: Sequence[PlacedDevice]) -> Iterator[list[Edit]]:
    """Mode and attenuator of an input: as they stand, then every other position."""
    device = placed.device.id
    now, pad_on = placed.input_mode(port), placed.pad_db(port) > 0
    modes = [now, *(mode for mode in modes_for(port, senders) if mode is not now)]
    for mode, pad in product(modes, (pad_on, not pad_on) if port.pad_db is not None else (pad_on,)):
        edits: list[Edit] = []
        if mode is not now:
            edits.append(SetControl(device=device, control=mode_key(port.id), value=mode.id))
        if pad is not pad_on:
            edits.append(SetControl(device=device, control=pad_key(port.id), value=pad))
        yield edits


def _outputs(index: PlanIndex, group: Group) -> Iterator[list[Edit]]:
    """Settings of a group's outputs: as they stand, then all of them moved alike."""
    choices = [list(_output_settings(index, ref, group)) for ref in group.outputs]
    yield []
    for at in range(1, max(len(choice) for choice in choices)):
        edits = [edit for choice in choices for edit in choice[min(at, len(choice) - 1)]]
        if edits:
            yield edits


def _output_settings(index: PlanIndex, ref: PortRef, group: Group) -> Iterator[list[Edit]]:
    """Mode and trim of one output, or the pad of a microphone; as it stands first."""
    placed = index.placed(ref.device)
    port = placed.output(ref.port)
    now = placed.output_mode(port)
    yield []
    capsule = placed.device_class.capsule
    if capsule is not None and placed.device_class.is_capsule_out(port):
        now_db = str(placed.device.settings.get(CAPSULE_PAD_KEY, "0"))
        for by_db in capsule.positions_db:
            if f"{0 - by_db:g}" != now_db:
                yield [SetControl(device=ref.device, control=CAPSULE_PAD_KEY, value=f"{0 - by_db:g}")]
        return
    # What a headphone socket carries is chosen for what is at its other end, and not for a level.
    for mode in (now,) if port.is_headphone else [mode for mode in port.modes if mode.carries_what(now)]:
        switch: list[Edit] = (
            [] if mode is now else [SetControl(device=ref.device, control=mode_key(port.id), value=mode.id)]
        )
        if switch:
            yield switch
        stands = placed.trim_mark_db(port, mode)
        for trim_db in _trims(index, port, mode, group):
            if trim_db != stands:
                key = trim_key(port.id, mode.id)
                yield [*switch, SetControl(device=ref.device, control=key, value=trim_db)]


def _trims(index: PlanIndex, port: OutputPort, mode: OutputMode, group: Group) -> list[float]:
    """Positions of a trim worth trying: open, and where its full scale is that of each input at its lowest gains."""
    if mode.trim is None or mode.full_scale_dbu is None:
        return []
    found = {mode.trim.maximum_db}
    for ref in group.inputs:
        placed = index.placed(ref.device)
        for takes in placed.input(ref.port).modes:
            if takes.full_scale_dbu is None:
                continue
            for above in (0, 1, 4):
                lowest = takes.gain.above_lowest_db(above) if takes.gain is not None else 0.0
                room = min(takes.full_scale_dbu.value - lowest, _clip_dbu(takes)) - mode.full_scale_dbu.value
                found.add(mode.trim.at_most_db(room))
    return sorted(found, reverse=True)


def _clip_dbu(mode: InputMode) -> float:
    return mode.clip_dbu.value if mode.clip_dbu is not None else math.inf


def _score(progress: SettlingPlan, plan: Plan, runs: Sequence[Run], edits: Sequence[Edit]) -> Score:
    """What is wrong where these runs arrive; then how many knobs move, and to how odd a position."""
    parts = [joint_marks(Trial(plan, run.id, progress)) for run in runs]
    total = tuple(sum(part) for part in zip(*parts, strict=True))
    return (*total, float(len(edits)), _roughness(edits))


def _roughness(edits: Sequence[Edit]) -> float:
    """How many knobs come to stand on no round position."""
    values: list[Setting] = [edit.value for edit in edits if isinstance(edit, SetControl)]
    return float(sum(isinstance(value, float) and value % ROUND_DB != 0 for value in values))


def _unclip_mixes(progress: SettlingPlan, device: str, pins: Pins) -> None:
    """Several tracks that fit may clip where they are summed: what feeds that mix goes down, step by step."""
    for bus in progress.index.placed(device).device_class.buses:
        for _ in range(_MOST_STEPS_DOWN):
            _, tracer, solver = progress.worked_out(progress.plan)
            stage = tracer.bus(device, bus.id)
            level = solver.level(stage)
            if len(stage.feeds) < 2 or level.over_db == 0:
                break
            edits = _one_step_down(progress.index.placed(device), stage, level.over_db, pins)
            if not edits:
                break
            progress.take(edits)


def _set_own_microphone(progress: SettlingPlan, device: str, pins: Pins) -> None:
    """The knob of a built-in microphone, where its track is wanted."""
    run = built_in_run(progress.index, device)
    turn = Trial(progress.plan, run, progress).fitting_gain() if run is not None else None
    if run is None or turn is None or (turn.device, turn.control) in pins:
        return
    turned = Trial(edited(progress.plan, [turn]), run, progress)
    clips_db = joint_marks(turned)[0]
    lower = turned.turned_down(clips_db) if clips_db else None
    progress.take([turn if lower is None else lower])


def _set_tracks(progress: SettlingPlan, device: str, pins: Pins) -> None:
    """The knob of each track that has one of its own, where that track is wanted."""
    for bus in progress.index.placed(device).device_class.buses:
        if bus.gain is None or (device, bus_gain_key(bus.id)) in pins:
            continue
        _, tracer, _ = progress.worked_out(progress.plan)
        for feed, _ in tracer.bus(device, bus.id).feeds:
            runs = [lead.run for lead, _ in feed.feeds if lead.run is not None]
            turn = Trial(progress.plan, runs[0].id, progress, bus.id).fitting_gain() if runs else None
            if turn is not None and turn.control == bus_gain_key(bus.id):
                progress.take([turn])
                break


def _one_step_down(placed: PlacedDevice, mix: Stage, by_db: float, pins: Pins) -> list[Edit]:
    found: dict[str, Edit] = {}
    for feed, _ in mix.feeds:
        port = placed.leader_of(placed.input(feed.name))
        mode = placed.input_mode(port)
        key = gain_key(port.id, mode.id)
        if mode.gain is None or (placed.device.id, key) in pins:
            continue
        now = placed.gain_db(port, mode)
        lower = mode.gain.nearest_db(now - max(by_db / 2, mode.gain.step_db))
        if lower < placed.gain_mark_db(port, mode):
            found[key] = SetControl(device=placed.device.id, control=key, value=lower)
    return list(found.values())
