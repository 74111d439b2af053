"""Delays of pictures and of sound against the second model."""

from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import device, made, run
from tests.reference.late import Late
from tidy_trunk.core.gear.catalogue import Figure, built_in
from tidy_trunk.core.plan import AddSource, Connect, Hear, Part, Plan, PortRef, SetFigure, SetJob
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import late_screens, latency
from tidy_trunk.document import write_plan
from tidy_trunk.errors import TidyTrunkError

FRAMES = "traits.picture_delay_frames"
SCREENS = ("live-switcher", "picture-monitor")


def late(name: str, frames: float):
    return SetFigure(device=name, path=FRAMES, figure=Figure(frames, 0))


def drawn(seed: int) -> Plan:
    """Cameras, switchers and monitors, joined by pictures as it comes; microphones and a recorder beside them."""
    by = Random(seed)
    cameras = [
        item.id for item in built_in().devices.values() if any(port.circuit in ("hdmi", "sdi") for port in item.outputs)
    ]
    plan = made(SetJob(frame_rate=by.choice(["23.976", "25", "29.97", "50"])))
    names = [f"d{at}" for at in range(by.randint(3, 7))]
    for name in names:
        plan = made(
            device(by.choice([*cameras, *SCREENS, "bag-recorder", "lavalier", "receiver-one"]), name), base=plan
        )
    plan = made(AddSource(id="s", label="Source", average_db_spl=60), base=plan)
    edits = [Hear(source="s", device=name, distance_m=by.uniform(0.1, 20)) for name in names]
    edits += [late(name, by.choice([0.0, 1.0, 3.0, 5.0])) for name in names]
    edits += [
        SetFigure(device=name, path="traits.sdi_delay_frames", figure=Figure(by.choice([1.0, 2.0]), 0))
        for name in names
    ]
    for _ in range(14):
        one, other = sorted(by.choices(names, k=2))  # no picture comes back to where it began
        pairs = [
            (output.id, port.id, {"hdmi": "hdmi", "sdi": "bnc"}[output.circuit])
            for output in built_in().devices[plan.devices[one].class_id].outputs
            for port in built_in().devices[plan.devices[other].class_id].inputs
            if output.circuit is port.circuit and output.circuit in ("hdmi", "sdi") and one != other
        ]
        if pairs:
            sent, taken, lead = by.choice(pairs)
            parts = (Part(lead=lead, length_m=1.0),)
            edits.append(Connect(sending=PortRef(one, sent), receiving=PortRef(other, taken), parts=parts))
        edits.append(
            Connect(
                sending=PortRef(one, "line"), receiving=PortRef(other, "audio"), parts=(Part(lead="trs", length_m=1.0),)
            )
        )
        edits.append(Connect(sending=PortRef(one, "out"), receiving=PortRef(other, "mic"), parts=()))
    for edit in edits:
        try:
            after = edit.apply(plan)
            trace_plan(after)
        except TidyTrunkError:
            continue
        plan = after
    return plan


@given(st.integers(0, 1_000_000))
def test_pictures_and_sound_drawn_at_random(seed):
    plan = drawn(seed)
    report, model = Report(trace_plan(plan)), Late(write_plan(plan))
    found = {item.device: item for item in late_screens(report)}
    assert set(found) == set(model.screens())
    for name, screen in found.items():
        pictures = model.pictures(name)
        late_by = {(item.camera, item.over_sdi): item.late_frames for item in screen.pictures}
        assert late_by == pytest.approx(pictures)
        own = model.own_frames(name, "hdmi") or 0.0
        assert screen.late_frames == pytest.approx(max(pictures.values()) + own)
        for item in screen.pictures:
            assert item.hold_frames == pytest.approx(max(pictures.values()) - item.late_frames) or item.hold_frames == 0
    for placed in report.index.placed_devices():
        for port in placed.device_class.inputs:
            for channel in range(len(port.channels)):
                ways = model.sound_into(placed.device.id, port.id, channel)
                ours = latency(report.index, report.tracer.input(placed.device.id, port.id, channel))
                if ways:
                    assert (ours.least_ms, ours.most_ms) == pytest.approx((min(ways), max(ways))), (
                        placed.label,
                        port.id,
                    )


def test_a_picture_delay_passes_through_a_switcher():
    """Camera 5 frames, switcher 2, monitor 2, at 25: 9 frames, 360 ms."""
    plan = made(
        device("mirrorless-mic", "cam"),
        device("live-switcher", "one"),
        device("picture-monitor", "monitor"),
        late("cam", 5),
        late("one", 2),
        late("monitor", 2),
        run("cam.hdmi", "one.hdmi1", "hdmi"),
        run("one.pgm", "monitor.hdmi", "hdmi"),
    )
    screens = {item.device: item for item in late_screens(Report(trace_plan(plan)))}
    assert screens["monitor"].late_frames == 9 and float(screens["monitor"].delay.seconds) == pytest.approx(0.36)
    (picture,) = screens["monitor"].pictures
    assert (picture.own_frames, picture.late_frames) == (2, 7)


def test_the_quicker_picture_is_the_one_to_hold():
    """Camera 5 → switcher 2 → second switcher 1, beside a camera of 3: that one is held by 4, and 8 frames are late in all."""
    plan = made(
        device("mirrorless-mic", "cam"),
        device("live-switcher", "one"),
        device("live-switcher", "two"),
        device("mirrorless-line", "near"),
        late("cam", 5),
        late("one", 2),
        late("two", 1),
        late("near", 3),
        run("cam.hdmi", "one.hdmi1", "hdmi"),
        run("one.pgm", "two.hdmi1", "hdmi"),
        run("near.hdmi", "two.hdmi2", "hdmi"),
    )
    second = next(item for item in late_screens(Report(trace_plan(plan))) if item.device == "two")
    assert second.late_frames == 8 and {item.camera: item.hold_frames for item in second.pictures} == {
        "one": 0,
        "near": 4,
    }
