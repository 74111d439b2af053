"""Levels: knobs, modes, attenuators and leads along the whole chain of a track."""

from collections.abc import Iterable, Iterator
from itertools import chain, product
from typing import Final

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for, setting
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.adviser.settle import settle
from tidy_trunk.core.advice.checks import Finding, Joint, Severity
from tidy_trunk.core.advice.options import AS_IT_IS, Trial, Upstream, built_in_run, by_hand
from tidy_trunk.core.gear.catalogue import (
    Bus,
    Control,
    controls_of,
    digital_gain_key,
    gain_key,
    limiter_key,
    low_cut_key,
    mode_key,
    pad_key,
    switch_key,
)
from tidy_trunk.core.plan import Edit, Plan, PortRef, SetControl, edited, message
from tidy_trunk.core.sound.trace import Stage, StageKind, upstream_of

MOST_TRIED: Final = 4
"""ASSUMED_ ways to match a run that are tried as a fix: the best ones; a longer list is no choice."""

MOST_RUNS: Final = 2
"""ASSUMED_ runs into one track of which each is looked at alone: more are a mix, and set at its inputs together."""

MOST_APART: Final = 3
"""ASSUMED_ settings of which each is tried alone too."""

_TOO_LOUD: Final = ("clipping", "burst-clips")

LEVEL_RULES: Final = (
    "line-into-mic",
    "mic-into-line",
    "clipping",
    "burst-clips",
    "off-target",
    "gear-above-room",
    "camera-gain",
    "transmitter-low",
    "aes3-level",
    "noisy-gain",
    "digital-mode",
)
"""Rules whose findings a knob, a mode or a lead somewhere along the chain may mend. [HANDBOOK] §6"""


@moves_for(*LEVEL_RULES)
def receiving_knob(question: Question, finding: Finding) -> Iterator[Move]:
    """Only the knob at the end of each run into the tracks in question."""
    tracks = {track.partition(".")[2] for track in finding.tracks} or {""}
    for run_id, track in product(_runs(question, finding), sorted(tracks)):
        turn = Trial(question.plan, run_id, question.upstream(run_id), track).fitting_gain()
        if turn is not None:
            yield _set(question, (turn,))


@moves_for(*LEVEL_RULES)
def own_microphone_knob(question: Question, finding: Finding) -> Iterator[Move]:
    """The knob of a built-in microphone that is on the way."""
    for device in dict.fromkeys(stage.device for stage in _stages(question, finding)):
        run = built_in_run(question.index, device)
        if run is not None:
            turn = Trial(question.plan, run, Upstream(question.report, device)).fitting_gain()
            if turn is not None:
                yield _set(question, (turn,))


@moves_for(*LEVEL_RULES)
def along_the_chain(question: Question, finding: Finding) -> Iterator[Move]:
    """As the whole job would be settled: the last joint alone, then all from the microphones on.

    What is too loud may hang on one of two senders into a socket: then each of the settings is a move of its own too.
    """
    stages = _stages(question, finding)
    devices = {finding.device} if finding.device else {stage.device for stage in stages[:1]}
    near = [stage for stage in stages if stage.device in devices or _feeds(question, stage, devices)]
    for part in (near, stages):
        edits = _settled_at(question, part, question.settled)
        if finding.rule in _TOO_LOUD and 1 < len(edits) <= MOST_APART:
            yield from (_set(question, (edit,)) for edit in edits)
        if edits:
            yield _set(question, edits)


@moves_for(*LEVEL_RULES)
def other_ways(question: Question, finding: Finding) -> Iterator[Move]:
    """The best ways to match the runs in question: leads, attenuators, other outputs. Nobody rewires for a track that is a little off."""
    if finding.severity is Severity.NOTE and finding.rule != "camera-gain":
        return
    for run_id in _runs(question, finding):
        for option in [option for option in question.matching_options(run_id) if option.id != AS_IT_IS][:MOST_TRIED]:
            yield Move((option.does,), option.edits)


@moves_for("clipping")
def inputs_down(question: Question, finding: Finding) -> Iterator[Move]:
    """All inputs of a mix that clips, or that drives an output into clipping, turned down alike."""
    track = question.report.track(finding.track)
    clip = track.clip if track is not None else None
    path = question.report.main_path(track.trace.stage) if track is not None else []
    mix = next((stage for stage in path if clip and stage.device == clip.device and stage.kind is StageKind.BUS), None)
    if clip is None or mix is None:
        return
    placed = question.index.placed(mix.device)
    for by_db in (clip.over_db + 1, clip.over_db + 3):
        edits: list[Edit] = []
        for feed, _ in mix.feeds:
            port = placed.input(feed.name)
            mode = placed.input_mode(port)
            if mode.gain is not None:
                wanted = mode.gain.nearest_db(placed.gain_db(port, mode) - by_db)
                edits.append(SetControl(device=placed.device.id, control=gain_key(port.id, mode.id), value=wanted))
            elif port.digital_gain is not None:
                wanted = port.digital_gain.nearest_db(placed.digital_gain_db(port) - by_db)
                edits.append(SetControl(device=placed.device.id, control=digital_gain_key(port.id), value=wanted))
        if edits:
            yield move(message("inputs-down", question.index, device=placed.device.id, by_db=by_db), *edits)


@moves_for("burst-clips", "limiter")
def limiter(question: Question, finding: Finding) -> Iterator[Move]:
    """A limiter on where a burst goes over, or one of two off."""
    for joint in _joints(question, finding):
        if joint.input.limiter_dbfs is None:
            continue
        on = joint.receiver.limiter_dbfs(joint.input) is not None
        switch = SetControl(device=joint.receiver.device.id, control=limiter_key(joint.input.id), value=not on)
        yield move(message("limiter", question.index, socket=joint.run.receiving, on=not on), switch)


@moves_for("knob-is-off")
def from_off(question: Question, finding: Finding) -> Iterator[Move]:
    """Where it fits, else one step up."""
    joint = question.joint(finding.run)
    placed, leader = joint.receiver, joint.receiver.leader_of(joint.input)
    mode = placed.input_mode(leader)
    if mode.gain is None:
        return
    key = gain_key(leader.id, mode.id)
    step = SetControl(device=finding.device, control=key, value=mode.gain.minimum_db + mode.gain.step_db)
    turn = Trial(edited(question.plan, [step]), finding.run, question.upstream(finding.run)).fitting_gain()
    for edit in (turn, step):
        if edit is not None:
            yield _set(question, (edit,))


@moves_for("automatic-level")
def automatic_off(question: Question, finding: Finding) -> Iterator[Move]:
    """Automatic level off in every place, and the level then set by hand."""
    placed = question.index.placed(finding.device)
    place = placed.automatic_level_place(finding.about)
    off = message("automatic-level-off", question.index)
    if isinstance(place, Bus):
        keys = [switch_key(place.id, "auto", where) for where in placed.automatic_level_on(place)]
        yield move(off, *(SetControl(device=finding.device, control=key, value=False) for key in keys))
        return
    edits = by_hand(placed, place)
    yield move(off, *edits)
    for joint in question.joints:
        if (joint.receiver.device.id, joint.input.id) == (finding.device, finding.about):
            turn = Trial(edited(question.plan, edits), joint.run.id, question.upstream(joint.run.id)).fitting_gain()
            if turn is not None:
                yield Move((off, setting(question.index, (turn,))), (*edits, turn))


@moves_for("pad-behind-converter", "two-attenuators")
def attenuator_off(question: Question, finding: Finding) -> Iterator[Move]:
    """The attenuator that saves nothing, off; with the level that it held down set by other means."""
    joint = question.joint(finding.run)
    off = SetControl(device=finding.device, control=pad_key(joint.input.id), value=False)
    does = message("attenuator-off", question.index)
    yield move(does, off)
    turn = Trial(edited(question.plan, [off]), finding.run, question.upstream(finding.run)).fitting_gain()
    if turn is not None:
        yield Move((does, setting(question.index, (turn,))), (off, turn))


@moves_for("rumble", "clipping")
def low_cut_on(question: Question, finding: Finding) -> Iterator[Move]:
    """The gentlest low cut of an input that rumble reaches."""
    for joint in _joints(question, finding):
        cut_hz = joint.input.gentle_cut_hz
        if cut_hz is not None and joint.receiver.low_cut_hz(joint.input) is None:
            key = low_cut_key(joint.input.id)
            switch = SetControl(device=joint.receiver.device.id, control=key, value=str(cut_hz))
            yield move(message("low-cut", question.index, socket=joint.run.receiving, cut_hz=cut_hz), switch)


@moves_for("thin-voice")
def low_cut_off(question: Question, finding: Finding) -> Iterator[Move]:
    """A low cut that takes nothing but voice, off."""
    joint = question.joint(finding.run)
    off = SetControl(device=finding.device, control=low_cut_key(joint.input.id), value="off")
    yield move(message("low-cut", question.index, socket=joint.run.receiving, cut_hz=None), off)


@moves_for("mic-into-line", "digital-mode")
def other_mode(question: Question, finding: Finding) -> Iterator[Move]:
    """Any other mode of the input, with the supply that the microphone needs left to whoever mends what it brings."""
    joint = question.joint(finding.run)
    for mode in joint.input.modes:
        if mode is not joint.takes:
            switch = SetControl(device=joint.receiver.device.id, control=mode_key(joint.input.id), value=mode.id)
            yield move(message("switch-mode", question.index, socket=joint.run.receiving, mode=mode.id), switch)


def _runs(question: Question, finding: Finding) -> list[str]:
    """The runs in question: that of the finding, else those into its tracks; none where many are mixed there."""
    if finding.run:
        return [finding.run]
    tracks = (question.report.track(track) for track in finding.tracks)
    found = (
        lead.run.id
        for track in tracks
        if track is not None
        for feed, _ in track.trace.stage.feeds
        for lead, _ in feed.feeds
        if lead.run is not None
    )
    runs = list(dict.fromkeys(found))
    return runs if len(runs) <= MOST_RUNS else []


def _stages(question: Question, finding: Finding) -> list[Stage]:
    """All that is upstream of what the finding is about, and that itself; nearest first."""
    ends: list[Stage] = []
    for track_id in finding.tracks:
        track = question.report.track(track_id)
        if track is not None:
            ends.append(track.trace.stage)
    if finding.run:
        placed, run = question.index.placed(finding.device), question.plan.runs[finding.run]
        placed = question.index.placed(run.receiving.device)
        ends += [question.report.tracer.bus(placed.device.id, bus.id) for bus in placed.device_class.buses]
    found = chain.from_iterable(upstream_of(end) for end in ends)
    return list({stage.key: stage for stage in found}.values())


def _joints(question: Question, finding: Finding) -> list[Joint]:
    """The runs upstream of what the finding is about, or its own alone; those into its device first."""
    if finding.run:
        return [question.joint(finding.run)]
    runs = {stage.run.id: stage.run for stage in _stages(question, finding) if stage.run is not None}
    return sorted((question.joint(run) for run in runs), key=lambda joint: joint.receiver.device.id != finding.device)


def _feeds(question: Question, stage: Stage, devices: set[str]) -> bool:
    """Whether a stage is an output that a lead takes into one of these devices."""
    if stage.kind is not StageKind.OUTPUT:
        return False
    runs = question.index.leaving.get(PortRef(stage.device, stage.name), ())
    return any(run.receiving.device in devices for run in runs)


def settled_towards(question: Question, run_id: str) -> tuple[SetControl, ...]:
    """The controls of the whole chain up to the end of a run, where they fit; automatic level there off."""
    run = question.plan.runs[run_id]
    placed = question.index.placed(run.receiving.device)
    buses = [question.report.tracer.bus(placed.device.id, bus.id) for bus in placed.device_class.buses]
    stages = [
        stage for bus in buses for stage in upstream_of(bus) if any(_is_of(item, run_id) for item in upstream_of(bus))
    ]
    manual = by_hand(placed, placed.input(run.receiving.port))
    devices = {stage.device for stage in stages}
    after = settle(edited(question.plan, manual), only=devices)
    return _settled_at(question, stages, after)


def _is_of(stage: Stage, run_id: str) -> bool:
    return stage.run is not None and stage.run.id == run_id


def _settled_at(question: Question, stages: Iterable[Stage], after: Plan) -> tuple[SetControl, ...]:
    """What a settled job has otherwise at these inputs, outputs and microphones."""
    before = question.plan
    ports: dict[str, set[str]] = {}
    for stage in stages:
        if stage.kind in (StageKind.INPUT, StageKind.OUTPUT):
            ports.setdefault(stage.device, set()).add(stage.name)
            if stage.kind is StageKind.INPUT:
                placed = question.index.placed(stage.device)
                ports[stage.device].add(placed.leader_of(placed.input(stage.name)).id)
        elif stage.kind is StageKind.BUS:
            ports.setdefault(stage.device, set()).add(stage.name)
        elif stage.kind is StageKind.MICROPHONE:
            ports.setdefault(stage.device, set()).add("")
    return tuple(
        edit
        for device, names in ports.items()
        for control in controls_of(question.index.placed(device).device_class).values()
        if control.port in names and (edit := _difference(before, after, device, control)) is not None
    )


def _difference(before: Plan, after: Plan, device: str, control: Control) -> SetControl | None:
    if device not in after.devices:
        return None  # a box that is only tried
    was, now = (plan.devices[device].settings.get(control.id) for plan in (before, after))
    return None if now is None or was == now else SetControl(device=device, control=control.id, value=now)


def _set(question: Question, edits: tuple[SetControl, ...]) -> Move:
    return Move((setting(question.index, edits),), edits)
