"""Timecode: what tracks are kept for, rates, jams, leads, and a generator more; the delay of a delay unit."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from tidy_trunk.core.advice.adviser.move import Move, move, moves_for
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding
from tidy_trunk.core.gear.catalogue import (
    FREE_RUN,
    RATE_OF_JOB,
    TIMECODE_RATE_KEY,
    TIMECODE_RUN_KEY,
    Circuit,
    DeviceKind,
    Figure,
    InputPort,
    OutputPort,
    Provenance,
    built_in,
    mode_key,
)
from tidy_trunk.core.plan import (
    AddDevice,
    Connect,
    Disconnect,
    Edit,
    Plan,
    PlanIndex,
    PortRef,
    Role,
    SetControl,
    SetFigure,
    SetJam,
    SetRole,
    apply_edits,
    free_id,
    message,
)
from tidy_trunk.core.sound.cable_chains import CableChain, find_cable_chains
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import (
    Clocks,
    TimecodeDevice,
    TimecodeFrom,
    first_giver,
    jams_for,
    jams_too_often,
    kept_for_timecode,
    timecode_devices,
)
from tidy_trunk.errors import TidyTrunkError

GENERATOR: Final = "timecode-generator"
"""ASSUMED_ class of what is clipped to a device and gives it time."""

BOX_LEAD_M: Final = 1.0
"""ASSUMED_ length of the lead between a device and the box that is clipped to it."""

SOUND_CIRCUITS: Final = tuple(circuit for circuit in Circuit if circuit.is_analogue)
"""What timecode can be sent into as sound. [PRACTICE]"""


@moves_for("timecode-on-wrong-track", "beside-timecode")
def keep_for(question: Question, finding: Finding) -> Iterator[Move]:
    """What a track that takes timecode, or lies beside one that does, is kept for."""
    role = Role.TIMECODE if finding.rule == "timecode-on-wrong-track" else Role.GUIDE
    device, _, bus = finding.track.partition(".")
    yield move(message("keep-for", question.index, role=role), SetRole(device=device, bus=bus, role=role))


@moves_for("timecode-rate")
def jobs_rate(question: Question, finding: Finding) -> Iterator[Move]:
    """A device to the job's rate."""
    edit = SetControl(device=finding.device, control=TIMECODE_RATE_KEY, value=RATE_OF_JOB)
    yield move(message("timecode-rate-of-job", question.index, device=finding.device), edit)


@moves_for("record-run")
def free_run(question: Question, finding: Finding) -> Iterator[Move]:
    """A device to labels that go on between takes."""
    edit = SetControl(device=finding.device, control=TIMECODE_RUN_KEY, value=FREE_RUN)
    yield move(message("free-run", question.index, device=finding.device), edit)


@moves_for("sound-into-timecode")
def give_timecode(question: Question, finding: Finding) -> Iterator[Move]:
    """The socket switched to timecode."""
    joint = question.joint(finding.run)
    mode = joint.output.timecode_mode
    if mode is not None:
        edit = SetControl(device=joint.sender.device.id, control=mode_key(joint.output.id), value=mode.id)
        yield move(message("switch-mode", question.index, socket=joint.run.sending, mode=mode.id), edit)


@moves_for("missed-jam")
def jam_in_time(question: Question, finding: Finding) -> Iterator[Move]:
    """Times that keep it within its limit; where those come too often for a crew, a lead or a clock that stays on it."""
    timecode_device = _timecode_device(question, finding.device)
    if timecode_device.jam is None:
        return
    advised = jams_for(question.clocks, timecode_device.device)
    if advised is not None:
        edit = SetJam(
            device=timecode_device.device, giver=timecode_device.giver, over=timecode_device.jam.over, at_min=advised
        )
        often = jams_too_often(advised) > 0
        giver = timecode_device.giver
        yield move(message("jam", question.index, giver=giver, at_min=advised, is_worst_case=often), edit)
        if not often:
            return
    yield from _from_the_first(question, timecode_device)
    yield from _leads(question, timecode_device.giver, timecode_device.device)
    yield from _generator(question, timecode_device)


def _from_the_first(question: Question, timecode_device: TimecodeDevice) -> Iterator[Move]:
    """Jams from the first of the chain, where whoever jams the device now is too far off by then."""
    root = question.clocks.root(timecode_device.device)
    if (
        root == timecode_device.giver
        or not question.index.placed(root).device_class.keeps_time
        or timecode_device.jam is None
    ):
        return
    jam = SetJam(
        device=timecode_device.device, giver=root, over=timecode_device.jam.over, at_min=timecode_device.jam.at_min
    )
    try:
        advised = _jams_in(apply_edits(question.plan, [jam]), timecode_device.device)
    except TidyTrunkError:
        return
    if advised is not None:
        does = message("jam", question.index, giver=root, at_min=advised, is_worst_case=False)
        yield move(does, replace(jam, at_min=advised))


def _jams_in(plan: Plan, device: str) -> tuple[int, ...] | None:
    """When to jam a device of another plan. Raises PlanError, InputError or SignalLoopError: it cannot be so."""
    report = Report(trace_plan(plan))
    return jams_for(Clocks(report.index, {item.device: item for item in timecode_devices(report)}), device)


@moves_for("two-clocks")
def one_master(question: Question, finding: Finding) -> Iterator[Move]:
    """The clock that fewer devices follow, jammed from the one that most follow."""
    known = {timecode_device.device: timecode_device for timecode_device in question.timecode_devices}
    followers: dict[str, int] = {}
    for device in known:
        root = first_giver(question.index, known, device)
        if root:
            followers[root] = followers.get(root, 0) + 1
    for master in sorted(followers, key=lambda device: -followers[device]):
        if master != finding.device:
            yield _begin_with(question, finding.device, master)
            return


@moves_for("genlock-alone")
def number_the_frames(question: Question, finding: Finding) -> Iterator[Move]:
    """A jam from whoever gives the genlock."""
    yield _begin_with(question, finding.device, _timecode_device(question, finding.device).genlocked_to)


def _begin_with(question: Question, device: str, giver: str) -> Move:
    jam = SetJam(device=device, giver=giver, at_min=(question.plan.defaults.day_begins_min,))
    return move(message("jam-when-day-begins", question.index, device=device, giver=giver), jam)


@moves_for("nothing-to-sync-by")
def something_in_common(question: Question, finding: Finding) -> Iterator[Move]:
    """Timecode from whom the recorder has it, or from itself: by a lead that stays, or by a jam."""
    known = {timecode_device.device: timecode_device for timecode_device in question.timecode_devices}
    camera, recorder = finding.device, finding.about
    root = first_giver(question.index, known, recorder) or recorder
    yield from _leads(question, root, camera)
    timecode_device = known.get(camera)
    both_keep = all(question.index.placed(device).device_class.keeps_time for device in (camera, root))
    if (
        both_keep
        and timecode_device is not None
        and timecode_device.has_socket
        and timecode_device.gets is TimecodeFrom.NOTHING
    ):
        yield _begin_with(question, camera, root)


@moves_for("early-sound")
def delay_it(question: Question, finding: Finding) -> Iterator[Move]:
    """Where a delay unit is the last box on the way: what it is to be set to."""
    for screen in question.screens:
        for sound in screen.sounds:
            placed = question.index.placed(sound.sender)
            if (screen.device, sound.run) != (
                finding.device,
                finding.run,
            ) or placed.device_class.kind is not DeviceKind.DELAY:
                continue
            now = placed.device_class.traits.sound_delay_ms
            wanted = now.value + sound.early_ms if now is not None else -1.0
            if wanted >= 0:
                figure = Figure(round(wanted, 1), 0.0, Provenance.MEASURED, "USER")
                edit = SetFigure(device=sound.sender, path="traits.sound_delay_ms", figure=figure)
                yield move(message("set-delay", question.index, device=sound.sender, ms=wanted), edit)


DELAY_UNIT: Final = "audio-delay"
"""ASSUMED_ class of the unit that is proposed where none stands on the way."""

SIDES: Final = {1: ("",), 2: ("L", "R")}
"""Tails of a splitter for an output of so many channels; more than two go through no such unit. [PRACTICE]"""


@moves_for("early-sound")
def delay_unit(question: Question, finding: Finding) -> Iterator[Move]:
    """Where none is on the way: a delay unit in between, set to what is missing; both of its sides for a stereo output."""
    run = question.plan.runs[finding.run]
    index = question.index
    output = index.placed(run.sending.device).output(run.sending.port)
    port = index.placed(run.receiving.device).input(run.receiving.port)
    early_ms = next(
        (sound.early_ms for screen in question.screens for sound in screen.sounds if sound.run == finding.run), 0.0
    )
    sides = SIDES.get(len(output.channels), ())
    if index.placed(run.sending.device).device_class.kind is DeviceKind.DELAY or early_ms <= 0 or not sides:
        return
    delay_unit = built_in().devices[DELAY_UNIT]
    name = free_id(DELAY_UNIT, question.plan.devices)
    connects: list[Connect] = []
    for branch, taker, giver in zip(sides, delay_unit.inputs, delay_unit.outputs, strict=False):
        before = _right_chain(index, output, taker, run.length_m, branch, run.sending)
        behind = _right_chain(index, giver, port, BOX_LEAD_M, branch, run.receiving)
        if before is None or behind is None:
            return
        connects += [
            Connect(sending=run.sending, receiving=PortRef(name, taker.id), parts=before.parts),
            Connect(sending=PortRef(name, giver.id), receiving=run.receiving, parts=behind.parts),
        ]
    figure = Figure(round(early_ms, 1), 0.0, Provenance.MEASURED, "USER")
    yield move(
        message("insert-delay", index, ms=early_ms),
        Disconnect(run=run.id),
        AddDevice(class_id=DELAY_UNIT, id=name, label=delay_unit.label),
        SetFigure(device=name, path="traits.sound_delay_ms", figure=figure),
        *connects,
    )


def _right_chain(
    index: PlanIndex, output: OutputPort, port: InputPort, length_m: float, branch: str, shared: PortRef
) -> CableChain | None:
    """The best cables between two ports, a side of a stereo one where `branch` names it; None where none are right.

    shared: the stereo port; the splitter's common plug is in it.
    """
    plug = f"{shared.device}-{shared.port}" if branch else ""
    found = find_cable_chains(output, port, length_m=length_m, branch=branch, shared=plug, own=index.plan.leads)
    at = 0 if shared.port == output.id else -1
    return next((chain for chain in found if chain.is_right and (not branch or chain.parts[at].branch)), None)


def _timecode_device(question: Question, device: str) -> TimecodeDevice:
    return next(timecode_device for timecode_device in question.timecode_devices if timecode_device.device == device)


def _leads(question: Question, giver: str, taker: str) -> Iterator[Move]:
    """A timecode lead that stays on, where both have a free socket for it."""
    for edits in _connections(question.index, giver, taker, (Circuit.TIMECODE,)):
        yield move(message("timecode-cable", question.index, giver=giver), *edits)


def _connections(index: PlanIndex, giver: str, taker: str, circuits: Sequence[Circuit]) -> Iterator[tuple[Edit, ...]]:
    """From free outputs that give timecode, or can be switched to, into free sockets of these circuits, each by its best
    lead."""
    outputs = [
        port
        for port in index.placed(giver).device_class.outputs
        if port.circuit is Circuit.TIMECODE or port.timecode_mode
    ]
    inputs = [
        port for circuit in circuits for port in index.placed(taker).device_class.inputs if port.circuit is circuit
    ]
    for output in outputs:
        for port in inputs:
            ends = PortRef(giver, output.id), PortRef(taker, port.id)
            if index.leaving.get(ends[0]) or index.arriving.get(ends[1]):
                continue
            joins = find_cable_chains(output, port, length_m=BOX_LEAD_M, own=index.plan.leads)
            if joins:
                connect = Connect(sending=ends[0], receiving=ends[1], parts=joins[0].parts)
                mode = output.timecode_mode
                if mode is None:
                    yield (connect,)
                else:
                    yield SetControl(device=giver, control=mode_key(output.id), value=mode.id), connect


def _generator(question: Question, timecode_device: TimecodeDevice) -> Iterator[Move]:
    """A generator more that stays on a device: over its timecode socket, else as sound on a track."""
    index, label = question.index, question.index.placed(timecode_device.device).label
    box = free_id(GENERATOR, index.plan.devices)
    begins = question.plan.defaults.day_begins_min
    edits: list[Edit] = [
        AddDevice(class_id=GENERATOR, id=box, label=f"{label} clock"),
        SetJam(device=box, giver=timecode_device.giver, at_min=(begins,)),
        SetJam(device=timecode_device.device, giver=None),
    ]
    try:
        brought = apply_edits(question.plan, edits)
        lead = next(
            _connections(PlanIndex(brought), box, timecode_device.device, (Circuit.TIMECODE, *SOUND_CIRCUITS)), None
        )
        if lead is None:
            return
        connected = apply_edits(brought, lead)
        edits += [*lead, *kept_for_timecode(connected, timecode_device.device)]  # traced there: a circle is told
        edits[1] = SetJam(device=box, giver=timecode_device.giver, at_min=_jams_in(connected, box) or (begins,))
    except TidyTrunkError:
        return
    yield move(message("add-generator", index, device=timecode_device.device), *edits)
