"""Via another device: what can stand between two ends that do not go together, and what that costs in noise."""

import math
from collections.abc import Iterator, Sequence
from typing import Final

from tidy_trunk.core.advice.adviser.matching_options import matching_options
from tidy_trunk.core.advice.options import MatchingOption, Trial, Upstream, option_of
from tidy_trunk.core.gear.catalogue import (
    DeviceKind,
    InputPort,
    OutputPort,
    Signal,
    Supply,
    built_in,
    mode_key,
    switch_key,
)
from tidy_trunk.core.plan import (
    AddDevice,
    Connect,
    Disconnect,
    Edit,
    Part,
    PlacedDevice,
    Plan,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    apply_edits,
    free_id,
    message,
)
from tidy_trunk.core.sound.cable_chains import JOINT_M, find_cable_chains
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import TidyTrunkError

BOXES: Final = ("preamp-box", "field-mixer", "handheld-recorder")
"""Classes that are proposed where the job has none of them: each gives 48 V and leads on to a camera. [HANDBOOK] §13"""

_BOX_KINDS = (DeviceKind.PREAMP, DeviceKind.MIXER, DeviceKind.RECORDER)
_SHORT_M = 0.5


def inserted_devices(report: Report, run_id: str) -> list[MatchingOption]:
    """Ways of a run by a box between its ends: devices of the job first, then classes of the catalogue; quiet ones first.

    Source: [HANDBOOK] §13
    """
    index = report.index
    run = index.plan.runs[run_id]
    found = [
        (inserted_device, _cost(brought))
        for brought, device in _boxes(index, run)
        if (inserted_device := _by(index, brought, run, device)) is not None
    ]
    found.sort(key=lambda item: (item[0].clips, item[0].needs is not None, _hiss_db(item[0]), item[1]))
    return [option for option, _ in found]


def _hiss_db(option: MatchingOption) -> float:
    """Noise below the signal in whole decibels: less is heard by nobody, and then the cheaper one is better."""
    below_db = option.noise_dbfs - option.average_dbfs
    return round(below_db) if math.isfinite(below_db) else math.inf


def _cost(brought: Sequence[Edit]) -> int:
    """The cost class of what has to be brought; 0 where it is there already."""
    classes = [built_in().devices[edit.class_id] for edit in brought if isinstance(edit, AddDevice)]
    return sum(item.cost or 0 for item in classes)


def _boxes(index: PlanIndex, run: Run) -> Iterator[tuple[list[Edit], str]]:
    """Boxes to go by: the edits that bring each, and its id."""
    ends = (run.sending.device, run.receiving.device)
    for placed in index.placed_devices():
        if placed.device_class.kind in _BOX_KINDS and placed.device.id not in ends:
            yield [], placed.device.id
    for class_id in BOXES:
        label = built_in().devices[class_id].label
        box = AddDevice(class_id=class_id, id=free_id(class_id, index.plan.devices), label=label)
        yield [box], str(box.id)


def _by(index: PlanIndex, brought: list[Edit], run: Run, device: str) -> MatchingOption | None:
    """The way by one device in between, matched as well as its knobs allow; None where it does not go."""
    plan = index.plan
    try:
        state = apply_edits(plan, [Disconnect(run=run.id), *brought])
        edits: list[Edit] = [Disconnect(run=run.id), *brought]
        placed = PlanIndex(state).placed(device)
        for more in (_into(state, run, placed), _out_of(state, run, placed)):
            edits += more
            state = apply_edits(state, more)
            if not more:
                return None
        for new in [item for item in state.runs if item not in plan.runs or item == run.id]:
            best = next(
                (
                    option
                    for option in matching_options(Report(trace_plan(state)), new)
                    if option.fits and not option.clips
                ),
                None,
            )
            if best is not None:
                edits += best.edits
                state = apply_edits(state, best.edits)
        report = Report(trace_plan(state))
        last = next(item for item in report.index.plan.runs.values() if item.receiving == run.receiving)
        trial = Trial(state, last.id, Upstream(report, last.receiving.device))
    except TidyTrunkError:
        return None
    return option_of(
        trial,
        id=f"box-{device}",
        does=message("via-new", index, class_id=placed.device_class.id)
        if brought
        else message("via", index, device=device),
        edits=tuple(edits),
        needs=message("one-device", index, class_id=placed.device_class.id) if brought else None,
        risks=(message("one-more-device", index),),
    )


def _into(plan: Plan, run: Run, placed: PlacedDevice) -> list[Edit]:
    """The first run, into a free input that gives what the sender needs."""
    index = PlanIndex(plan)
    sender = index.placed(run.sending.device)
    output, feeding = sender.output(run.sending.port), sender.device_class.feeding
    signal = Signal.MIC if feeding is not None else Signal.LINE
    for port in placed.device_class.inputs:
        ref = PortRef(placed.device.id, port.id)
        mode = next(
            (
                mode
                for mode in port.modes
                if mode.signal is signal
                and (feeding is None or not feeding.needs or set(feeding.needs) & set(mode.supplies))
            ),
            None,
        )
        if mode is None or index.arriving.get(ref):
            continue
        parts = _joined(index, output, port, max(run.length_m, _SHORT_M))
        if parts is None:
            continue
        edits: list[Edit] = [Connect(sending=run.sending, receiving=ref, parts=parts)]
        if len(port.modes) > 1 and mode is not placed.input_mode(port):
            edits.append(SetControl(device=placed.device.id, control=mode_key(port.id), value=mode.id))
        if feeding is not None and Supply.P48 in feeding.needs:
            edits += [
                SetControl(device=placed.device.id, control=switch_key(port.id, "phantom", place), value=True)
                for place in port.phantom_places
            ]
        return edits
    return []


def _out_of(plan: Plan, run: Run, placed: PlacedDevice) -> list[Edit]:
    """The second run, from a free output that is not the headphones."""
    index = PlanIndex(plan)
    port = index.placed(run.receiving.device).input(run.receiving.port)
    for output in placed.device_class.outputs:
        ref = PortRef(placed.device.id, output.id)
        if output.is_headphone or not output.circuit.is_analogue or index.leaving.get(ref):
            continue
        parts = _joined(index, output, port, _SHORT_M)
        if parts is not None:
            return [Connect(sending=ref, receiving=run.receiving, parts=parts)]
    return []


def _joined(index: PlanIndex, output: OutputPort, port: InputPort, length_m: float) -> tuple[Part, ...] | None:
    """The best leads that bring the right signal; None where there are none."""
    joins = find_cable_chains(output, port, length_m=max(length_m, JOINT_M + 0.1), own=index.plan.leads)
    return next((join.parts for join in joins if join.is_right), None)
