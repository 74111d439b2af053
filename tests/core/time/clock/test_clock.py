"""Time on a set, worked by hand: handbook section 8."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.plan import (
    Break,
    Hear,
    RemoveBreak,
    RemoveDevice,
    Role,
    SetBreak,
    SetFigure,
    SetJam,
    SetJob,
    SetRole,
    TakePairDrift,
    apply_edits,
)
from tidy_trunk.core.plan.clocks import PairDrift
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import (
    Clocks,
    SyncMeans,
    TimecodeFrom,
    advised_jams,
    clock_day,
    jams_for,
    judged,
    late_screens,
    latency,
    pairs,
    timecode_devices,
)
from tidy_trunk.errors import PlanError, RangeError

GENERATOR = device("timecode-generator", "tc")
CINEMA = device("cinema-xlr5", "film")
EIGHT = 8 * 60


def report_of(plan):
    return Report(trace_plan(plan))


def by_device(plan):
    return {timecode_device.device: timecode_device for timecode_device in timecode_devices(report_of(plan))}


def met(plan):
    report = report_of(plan)
    return {(pair.camera, pair.recorder): pair for pair in pairs(report, timecode_devices(report))}


def jammed():
    edits = [GENERATOR, CINEMA, run("tc.tc-out", "film.tc-in", "bnc")]
    return made(*edits, base=padded_plan())


def test_who_gets_time_from_whom_and_parts_by_how_much():
    """1 ppm and 5 ppm: 6 x 3.6 ms x 10 h = 216 ms, 5.4 frames at 25; half a frame, 20 ms, after 20 / 21.6 h."""
    found = by_device(jammed())
    assert (
        found["tc"].gets is TimecodeFrom.GIVES
        and found["cam"].gets is TimecodeFrom.NOTHING
        and not found["cam"].has_socket
    )
    film = found["film"]
    assert (film.gets, film.giver) == (TimecodeFrom.SOCKET, "tc") and film.alone.drift_ms == pytest.approx(216)
    assert film.alone.drift_frames == pytest.approx(5.4)
    assert film.alone.rejam_every_h == pytest.approx(20 / 21.6)
    assert by_device(made(SetJob(day_ends_min=13 * 60), base=jammed()))["film"].alone.drift_ms == pytest.approx(108)
    beat = by_device(made(run("tc.sync-out", "film.genlock", "bnc"), base=jammed()))["film"]
    assert beat.genlocked_to == "tc" and beat.alone.drift_ms == 0, "genlock keeps what was jammed"


def test_what_was_measured_of_a_pair_beats_what_its_clocks_are_good_for():
    drift = PairDrift(first="tc", second="film", ppm=-2.0, when="2026-11-25T09:30")
    film = by_device(made(TakePairDrift(drift=drift), base=jammed()))["film"]
    assert film.relative_drift.is_measured and film.alone.drift_ms == pytest.approx(2.5 * 3.6 * 10)


def test_timecode_as_sound_is_named_with_its_track_its_pad_and_its_neighbour():
    sent = [GENERATOR, device("mirrorless-mic", "second"), run("tc.tc-out", "second.mic", "bnc-trs-pad-35")]
    plan = made(*sent, SetRole(device="second", bus="L", role=Role.TIMECODE), base=padded_plan())
    second = by_device(plan)["second"]
    assert (second.gets, second.giver, second.track) == (TimecodeFrom.SOUND, "tc", "second.L") and second.alone is None
    assert second.loss_db == 35 and second.beside == ("second.R",)


def test_by_what_cameras_and_recorders_meet():
    found = met(jammed())
    assert found["cam", "bag"].by == (SyncMeans.SOUND,)
    assert [(item.source, item.later_ms) for item in found["cam", "bag"].sources] == [("voice", 0.0)]
    assert found["film", "bag"].by == (SyncMeans.CLAP,), (
        "the bag has no timecode, and nothing is sent to the film camera"
    )
    both = met(made(run("tc.tc-out", "bag.tc-in", "bnc"), base=made(CINEMA, GENERATOR, base=padded_plan())))
    assert both["film", "bag"].by == (SyncMeans.CLAP,), "one of them alone has it"
    # 30 and 1 ppm: half a frame, 20 ms, after 20 ms / 31e-6 = 645 s.
    assert found["cam", "bag"].long_take_min == pytest.approx(0.020 / 31e-6 / 60)


def test_a_camera_that_hears_the_same_voice_from_further_away_hears_it_later():
    """3.93 m more at 343 m/s: 11.46 ms."""
    top = [
        device("on-camera-microphone", "top"),
        device("mirrorless-mic", "second"),
        run("top.out", "second.mic"),
        put("top", "capsule.cell", True),
    ]
    plan = made(*top, Hear(source="voice", device="top", distance_m=4.43), base=boom_in_bag())
    ((source, later_ms),) = [(item.source, item.later_ms) for item in met(plan)["second", "bag"].sources]
    assert source == "voice" and later_ms == pytest.approx(11.458, abs=0.001)


def test_the_same_clock_by_two_ways_is_timecode():
    """The bag is jammed by the generator and hands it on to the camera."""
    edits = [GENERATOR, CINEMA, run("tc.tc-out", "bag.tc-in", "bnc"), run("bag.tc-out", "film.tc-in", "bnc")]
    assert met(made(*edits, base=padded_plan()))["film", "bag"].by == (SyncMeans.TIMECODE,)


def test_the_day_of_the_foundry():
    """Box A is jammed at eight and at half past twelve: ±1 ppm each, 20 ms after 2 h 46 min, twice too long."""
    report = report_of(foundry())
    clocks = Clocks(
        report.index, {timecode_device.device: timecode_device for timecode_device in timecode_devices(report)}
    )
    (day,) = filter(None, (clock_day(clocks, timecode_device) for timecode_device in clocks.timecode_devices.values()))
    assert [(free_run.begins_min, free_run.beyond_min, free_run.ends_min) for free_run in day.free_runs] == [
        (480, 646, 750),
        (750, 916, 1050),
    ]
    assert day.beyond_min == 646 and day.free_runs[0].apart_frames == pytest.approx(4.5 * 7.2 / 40)
    assert jams_for(clocks, "box-a") == (480, 615, 750, 900), "at eight and in the three breaks"


def test_jams_go_into_breaks_where_that_can_be():
    breaks = [Break(id=f"b{at}", label="x", at_min=at, length_min=15) for at in (540, 810)]
    assert advised_jams(480, 1080, lambda _: 1080, breaks) == (480,)
    assert advised_jams(480, 1080, lambda minute: minute + 29, breaks) is None
    # Four hours at a time: noon stops the work whatever is done, the break at half past one costs nothing and reaches
    # half past five; the one at nine saves no other.
    assert advised_jams(480, 1050, lambda minute: minute + 240, breaks) == (480, 720, 810)


@given(st.integers(0, 600), st.integers(30, 900), st.integers(30, 2_000), st.lists(st.integers(0, 1_500), max_size=5))
def test_advised_jams_never_leave_a_clock_alone_for_too_long(begins, length, every, at):
    breaks = [Break(id=str(number), label="x", at_min=minute, length_min=15) for number, minute in enumerate(at)]
    found = advised_jams(begins, begins + length, lambda minute: minute + every, breaks)
    assert found[0] == begins
    edges = [*found, begins + length]
    assert all(0 < later - earlier <= every for earlier, later in pairwise(edges))


def test_late_pictures_and_the_delay_they_ask_for():
    """5 frames of the camera and 2 of the switcher at 29.97: 7 x 1001/30000 s = 233.57 ms, 11211.2 samples at 48 kHz."""
    edits = [
        device("live-switcher", "vision"),
        CINEMA,
        run("cam.hdmi", "vision.hdmi1", "hdmi"),
        run("film.sdi", "vision.sdi1", "bnc"),
    ]
    plan = made(*edits, SetJob(frame_rate="29.97"), base=line_into_camera())
    (late,) = late_screens(report_of(plan))
    assert late.late_frames == 7 and float(late.delay.seconds * 1000) == pytest.approx(233.567, abs=0.001)
    assert late.delay.sample_count == 11_211 and not any(holds for _, holds in late.windows)
    assert late.delay_metres == pytest.approx(0.233567 * 343, abs=0.01)
    assert {picture.camera: picture.hold_frames for picture in late.pictures} == {"cam": 0.0, "film": 2.0}
    quick = Figure(0.0, 0)
    edits = [
        SetFigure(device=name, path="traits.picture_delay_frames", figure=quick) for name in ("cam", "film", "vision")
    ]
    edits.append(SetFigure(device="film", path="traits.sdi_delay_frames", figure=quick))
    (late,) = late_screens(report_of(made(*edits, base=plan)))
    assert late.late_frames == 0 and all(holds for _, holds in late.windows)


def test_a_camera_is_late_by_the_way_its_picture_takes():
    sdi = SetFigure(device="film", path="traits.sdi_delay_frames", figure=Figure(1.0, 0))
    both = [device("live-switcher", "one"), device("live-switcher", "two"), CINEMA, sdi]
    plan = made(*both, run("film.sdi", "one.sdi1", "bnc"), run("film.hdmi", "two.hdmi1", "hdmi"))
    assert [screen.late_frames for screen in late_screens(report_of(plan))] == [1 + 2, 3 + 2]


@pytest.mark.parametrize(("early_ms", "unnoticed", "accepted", "broadcast"), [
    (40, True, True, True), (42, True, True, False), (46, False, True, False), (91, False, False, False),
    (-60, True, True, True), (-61, True, True, False), (-126, False, True, False), (-186, False, False, False),
])  # fmt: skip
def test_windows_of_the_standards(early_ms, unnoticed, accepted, broadcast):
    """ITU-R BT.1359-1: noticed from 45 ms early or 125 late, accepted to 90 and 185; EBU R 37: 40 and 60. From memory."""
    assert [holds for _, holds in judged(early_ms)] == [unnoticed, accepted, broadcast]


def test_sound_by_radio_and_air_comes_late_to_a_monitor_and_a_switcher():
    """3.43 m of air 10 ms, the digital receiver its own delay, the recorder 1 ms."""
    plan = foundry()
    report = report_of(made(device("live-switcher", "sw"), run("bag.line", "sw.audio", "trs"),
                            device("picture-monitor", "mon"), run("camera-b.hdmi", "mon.hdmi", "hdmi"),
                            base=made(RemoveDevice(device="camera-b"), device("mirrorless-line", "camera-b"), base=plan)))  # fmt: skip
    late = latency(report.index, report.tracer.input("sw", "audio", 0))
    # The boom hears the founder from 0.6 m, the bell is 1.5 m from its microphone: 1.75 and 4.37 ms.
    assert late.least_ms == pytest.approx(0.6 / 343 * 1000 + 1, abs=0.01)
    assert late.most_ms == pytest.approx(1.5 / 343 * 1000 + 1, abs=0.01)
    assert [part.what for part in late.parts] == ["air", "Bag recorder"]
    (monitor,) = late_screens(report)
    assert not monitor.is_switcher and monitor.late_frames == 7


def test_edits_on_time_go_back():
    plan = apply_edits(jammed(), [
        SetBreak(label="Dinner", at_min=750, length_min=45), SetJam(device="bag", giver="tc", at_min=(750, EIGHT, 750)),
    ])  # fmt: skip
    assert plan.devices["bag"].jam.at_min == (EIGHT, 750), "in order, each once"
    back = apply_edits(plan, [RemoveBreak(id="dinner"), SetJam(device="bag", giver=None)])
    assert back == jammed()
    assert made(RemoveDevice(device="tc"), base=plan).devices["bag"].jam is None, "a giver that is gone jams nobody"


@pytest.mark.parametrize("edit", [
    SetJob(day_begins_min=600, day_ends_min=600), SetJob(day_begins_min=10, day_ends_min=2000), SetJob(drift_limit_frames=0.0),
    SetBreak(label="Dinner", at_min=99_999, length_min=45), SetBreak(label="Dinner", at_min=700, length_min=0),
    SetJam(device="tc", giver="tc"), SetJam(device="tc", giver="boom"), SetJam(device="film", giver="tc", at_min=tuple(range(101))),
    SetJam(device="film", giver="tc", at_min=(-1,)),
    TakePairDrift(drift=PairDrift(first="tc", second="tc", ppm=1.0, when="2026-11-25T09:30")),
    TakePairDrift(drift=PairDrift(first="tc", second="film", ppm=float("nan"), when="2026-11-25T09:30")),
])  # fmt: skip
def test_what_cannot_be_is_refused(edit):
    with pytest.raises((PlanError, RangeError)):
        made(edit, base=jammed())


def test_a_timecode_lead_in_a_genlock_socket_is_a_stop():
    from tidy_trunk.core.advice.checks import Severity, check

    plan = made(GENERATOR, CINEMA, run("tc.tc-out", "film.genlock", "bnc"), put("film", "timecode_run", "free"))
    assert any(finding.severity is Severity.STOP and finding.run == "run-1" for finding in check(report_of(plan)))
    assert by_device(plan)["film"].gets is TimecodeFrom.NOTHING
