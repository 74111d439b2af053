"""Tracing tracks back to their sources."""

from itertools import pairwise

import pytest

from tests.plans import boom_in_bag, device, line_into_camera, made, run
from tidy_trunk.core.plan import PlanIndex, RouteBus
from tidy_trunk.core.sound.trace import StageKind, Tracer, trace_plan
from tidy_trunk.errors import PlanError, SignalLoopError


def test_every_stage_in_order():
    tracer = trace_plan(line_into_camera())
    trace = next(trace for trace in tracer.traces() if trace.id == "cam.L")
    kinds, stage = [], trace.stage
    while True:
        kinds.append(stage.kind)
        if not stage.feeds:
            break
        stage = stage.feeds[0][0]
    assert kinds[::-1] == [
        StageKind.SOUND, StageKind.MICROPHONE, StageKind.OUTPUT, StageKind.LEAD, StageKind.INPUT, StageKind.BUS,
        StageKind.OUTPUT, StageKind.LEAD, StageKind.INPUT, StageKind.BUS,
    ]  # fmt: skip
    assert trace.stage.sources == ("voice",)


def test_routing_decides():
    plan = made(RouteBus(device="bag", bus="1", inputs=("in2",)), base=boom_in_bag())
    tracks = {trace.id: trace.stage.sources for trace in Tracer(PlanIndex(plan)).traces()}
    assert tracks["bag.1"] == ()
    assert tracks["bag.mix-l"] == ("voice",)


def test_a_circle_is_refused_with_its_devices():
    plan = made(
        device("field-mixer", "one"),
        device("field-mixer", "two"),
        run("one.out-l", "two.in1", "xlr"),
        run("two.out-l", "one.in1", "xlr"),
    )
    with pytest.raises(SignalLoopError, match="one → two → one"):
        trace_plan(plan)


@pytest.mark.parametrize("order", [1, -1])
def test_a_chain_too_deep_to_trace_is_refused(order):
    """Whichever end of the chain is met first: nothing runs out of stack."""
    names = [f"m{number}" for number in range(290)][::order]
    edits = [device("field-mixer", name) for name in names]
    chain = names[::order]
    edits += [run(f"{one}.out-l", f"{two}.in1", "xlr") for one, two in pairwise(chain)]
    with pytest.raises(PlanError, match="chain of more than"):
        trace_plan(made(*edits))
