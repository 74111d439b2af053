"""Edits: pure, and refused where they cannot be."""

from dataclasses import replace

import pytest

from tests.plans import boom_in_bag, device, made, put, run
from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, Provenance, built_in, with_figures
from tidy_trunk.core.plan import (
    AddDevice,
    AddSource,
    Connect,
    CopyClass,
    CopyDevice,
    Disconnect,
    Hear,
    Part,
    Plan,
    PlanIndex,
    PortRef,
    RemoveClass,
    RemoveDevice,
    RenameDevice,
    RouteBus,
    SaveClass,
    SetControl,
    SetFigure,
    SetJob,
    SetSource,
    apply_edits,
)
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, PlanError, PortInUseError, RangeError, SignalLoopError, UnknownItemError

CLIP = "inputs.in1.modes.mic.clip_dbu"


def test_a_removed_device_takes_its_runs_and_ears_along():
    plan = made(RemoveDevice(device="boom"), base=boom_in_bag())
    assert not plan.runs
    assert plan.sources["voice"].heard_by == {}


def test_a_copy_has_the_settings():
    plan = made(CopyDevice(device="bag", label="Second bag"), base=boom_in_bag())
    assert plan.devices["second-bag"].settings == plan.devices["bag"].settings


def test_a_class_of_ones_own():
    figure = Figure(2.0, 0.3, Provenance.MEASURED, "USER")
    plan = made(
        SetFigure(device="bag", path=CLIP, figure=figure), CopyClass(device="bag", label="My bag"), base=boom_in_bag()
    )
    own = plan.devices["bag"].class_id
    plan = made(AddDevice(class_id=own, id="other"), base=plan)
    mode = PlanIndex(plan).placed("other").input("in1").modes[0]
    assert mode.clip_dbu == figure
    assert plan.devices["other"].label == "My bag"


def test_numbers_are_the_lowest_free_ones():
    plan = made(run("bag.out-l", "two.in1", "xlr"), base=made(device("bag-recorder", "two"), base=boom_in_bag()))
    assert [item.number for item in plan.runs.values()] == [1, 2]
    assert made(RemoveDevice(device="boom"), device("boom-shotgun", "boom"), run("boom.out", "bag.in2", "xlr"), base=plan).runs[
        "run-1"
    ].number == 1  # fmt: skip


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (put("bag", "in1.mic.gain_db", 200), RangeError, "goes from 10 to 75 dB"),
        (put("bag", "in1.mic.gain_db", True), RangeError, "takes a number"),
        (put("bag", "in1.phantom.menu", "yes"), RangeError, "on or off"),
        (put("bag", "in1.mode", "tape"), RangeError, "use mic, line"),
        (put("bag", "nothing", 1), UnknownItemError, "has no control"),
        (put("gone", "x", 1), UnknownItemError, "there is no device 'gone'"),
        (AddDevice(class_id="gramophone"), UnknownItemError, "no class of device"),
        (AddDevice(class_id="ribbon", id="bag"), PlanError, "already"),
        (run("boom.out", "bag.in2", "xlr"), PortInUseError, "holds the plug of cable 1"),
        (run("bag.in1", "bag.in2", "xlr"), UnknownItemError, "begins at an output"),
        (run("bag.line", "bag.nine", "trs"), UnknownItemError, "no port 'nine'"),
        (run("bag.line", "bag.in2", "spaghetti"), UnknownItemError, "no cable"),
        (run("bag.line", "bag.in2", Part(lead="trs", length_m=-1)), RangeError, "m, not -1"),
        (run("bag.line", "bag.in2", Part(lead="trs", length_m=1, branch="Q")), PlanError, "has the ways"),
        (Hear(source="voice", device="bag", distance_m=1), PlanError, "is no microphone"),
        (Hear(source="voice", device="boom", distance_m=0), RangeError, "m, not 0"),
        (AddSource(label="x", average_db_spl=float("nan")), RangeError, "nan"),
        (SetSource(source="voice", peak_db_spl=10), RangeError, "must rise"),
        (RenameDevice(device="bag", label="  "), InputError, "1 to 80 printable"),
        (SetJob(mains_hz=55), RangeError, "50 or 60"),
        (SetJob(frame_rate="26"), InputError, "no frame rate"),
        (RouteBus(device="bag", bus="1", inputs=("in99",)), UnknownItemError, "no input channel"),
        (RouteBus(device="bag", bus="1", inputs=("in1", "in1")), PlanError, "routed twice"),
        (SetFigure(device="bag", path="colour", figure=Figure(1)), UnknownItemError, "has no figure"),
    ],
)  # fmt: skip
def test_refused(edit, error, says):
    with pytest.raises(error, match=says):
        apply_edits(boom_in_bag(), [edit])


def test_all_or_nothing():
    with pytest.raises(RangeError):
        apply_edits(boom_in_bag(), [RenameDevice(device="bag", label="Cart"), put("bag", "in1.mic.gain_db", 900)])


def test_sound_may_not_run_in_a_circle():
    plan = apply_edits(boom_in_bag(), [run("bag.out-l", "bag.in2", "xlr")])
    with pytest.raises(SignalLoopError, match="bag → bag"):
        trace_plan(plan)


def test_a_two_way_lead_lets_two_runs_share_a_port():
    def side(branch: str, port: str) -> Connect:
        part = Part(lead="2xlr-trs", length_m=0.3, branch=branch, shared="splitter")
        return Connect(sending=PortRef("bag", port), receiving=PortRef("cam", "mic"), parts=(part,))

    base = made(device("mirrorless-mic", "cam"), base=boom_in_bag())
    trace_plan(made(side("L", "out-l"), side("R", "out-r"), base=base))
    with pytest.raises(PortInUseError):
        made(side("L", "out-l"), side("L", "out-r"), base=base)


def test_the_largest_job_has_a_limit():
    with pytest.raises(PlanError, match="at most 300 devices"):
        made(*(device("dynamic-handheld", f"m{number}") for number in range(301)))


def test_label_is_free_for_a_second_of_a_class():
    plan = made(AddDevice(class_id="lavalier"), AddDevice(class_id="lavalier"), base=Plan(name="x"))
    assert [item.label for item in plan.devices.values()] == ["Lavalier", "Lavalier 2"]


def my_recorder(**changes) -> DeviceClass:
    return replace(built_in().devices["bag-recorder"], id="my-recorder", label="My recorder", **changes)


def test_a_class_of_ones_own_may_say_whatever_a_built_in_one_may():
    plan = made(SaveClass(device_class=my_recorder()), AddDevice(class_id="my-recorder", id="mine"), base=boom_in_bag())
    assert plan.devices["mine"].label == "My recorder"
    assert PlanIndex(plan).placed("mine").input("in8").label == "in 8"
    clips = Figure(-6.0, 1.0, Provenance.MEASURED, "USER")
    changed = made(SaveClass(device_class=with_figures(my_recorder(), {CLIP: clips})), base=plan)
    assert PlanIndex(changed).placed("mine").input("in1").modes[0].clip_dbu.value == -6.0


def test_a_class_described_anew_keeps_what_can_still_be_set():
    base = made(
        SaveClass(device_class=my_recorder()), AddDevice(class_id="my-recorder", id="mine"),
        SetControl(device="mine", control="in1.mic.gain_db", value=40.0), SetControl(device="mine", control="in8.mic.gain_db", value=50.0),
        base=boom_in_bag(),
    )  # fmt: skip
    whole = my_recorder()
    smaller = my_recorder(
        inputs=tuple(port for port in whole.inputs if port.id != "in8"),
        buses=tuple(replace(bus, inputs=tuple(ref for ref in bus.inputs if ref != "in8")) for bus in whole.buses),
    )
    plan = made(SaveClass(device_class=smaller), base=base)
    assert plan.devices["mine"].settings == {"in1.mic.gain_db": 40.0}


def test_a_class_cannot_vanish_under_what_uses_it():
    plan = made(SaveClass(device_class=my_recorder()), AddDevice(class_id="my-recorder", id="mine"), base=boom_in_bag())
    with pytest.raises(PlanError, match="My recorder is a My recorder: remove the device first"):
        made(RemoveClass(class_id="my-recorder"), base=plan)
    plugged = made(Connect(sending=PortRef("boom", "out"), receiving=PortRef("mine", "in1"), parts=(Part(lead="xlr", length_m=3),)),
                   base=made(Disconnect(run="run-1"), base=plan))  # fmt: skip
    gone = my_recorder(inputs=my_recorder().inputs[1:], buses=(), feeds={})
    with pytest.raises(UnknownItemError, match="My recorder has no port 'in1'"):
        made(SaveClass(device_class=gone), base=plugged)
    freed = made(RemoveDevice(device="mine"), RemoveClass(class_id="my-recorder"), base=plan)
    assert not freed.classes
    with pytest.raises(PlanError, match="built-in class has the id 'ribbon'"):
        made(SaveClass(device_class=built_in().devices["ribbon"]), base=plan)
