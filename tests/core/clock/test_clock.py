"""Time on a set, worked by hand: handbook section 8."""

import pytest

from tests.plans import device, line_into_camera, made, padded_plan, run
from tidy_trunk.core.catalogue import Figure
from tidy_trunk.core.clock import Gets, Meets, keepers, late_pictures, pairs
from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import Role, SetFigure, SetJob, SetRole
from tidy_trunk.core.trace import accept
from tidy_trunk.errors import RangeError

GENERATOR = device("timecode-generator", "tc")
CINEMA = device("cinema-xlr5", "film")


def report_of(plan):
    return Report(accept(plan))


def by_device(plan, hours=10.0):
    return {keeper.device: keeper for keeper in keepers(report_of(plan), hours)}


def jammed():
    edits = [GENERATOR, CINEMA, run("tc.tc-out", "film.tc-in", "bnc")]
    return made(*edits, base=padded_plan())


def test_who_gets_time_from_whom_and_parts_by_how_much():
    """1 ppm and 5 ppm: 6 x 3.6 ms x 10 h = 216 ms, 5.4 frames at 25; half a frame, 20 ms, after 20 / 21.6 h."""
    found = by_device(jammed())
    assert found["tc"].gets is Gets.GIVES and found["cam"].gets is Gets.NOTHING and not found["cam"].has_socket
    film = found["film"]
    assert (film.gets, film.giver) == (Gets.SOCKET, "tc") and film.alone.drift_ms == pytest.approx(216)
    assert film.alone.drift_frames == pytest.approx(5.4)
    assert film.alone.rejam_every_h == pytest.approx(20 / 21.6)
    assert by_device(jammed(), hours=5.0)["film"].alone.drift_ms == pytest.approx(108)


def test_timecode_as_sound_is_named_with_its_track():
    sent = [GENERATOR, device("mirrorless-mic", "second"), run("tc.tc-out", "second.mic", "bnc-trs-pad-35")]
    plan = made(*sent, SetRole(device="second", bus="L", role=Role.TIMECODE), base=padded_plan())
    second = by_device(plan)["second"]
    assert (second.gets, second.giver, second.track) == (Gets.SOUND, "tc", "second.L") and second.alone is None


def test_by_what_cameras_and_recorders_meet():
    found = {
        (pair.camera, pair.recorder): pair for pair in pairs(report_of(jammed()), keepers(report_of(jammed()), 10))
    }
    assert found["cam", "bag"].by == (Meets.SOUND,) and found["cam", "bag"].sources == ("voice",)
    assert found["film", "bag"].by == (Meets.CLAP,), "the bag has no timecode, and nothing is sent to the film camera"
    both = made(run("tc.tc-out", "bag.tc-in", "bnc"), base=made(CINEMA, GENERATOR, base=padded_plan()))
    given = {pair.camera: pair.by for pair in pairs(report_of(both), keepers(report_of(both), 10))}
    assert given["film"] == (Meets.CLAP,), "one of them alone has it"


def test_the_same_clock_by_two_ways_is_timecode():
    """The bag is jammed by the generator and hands it on to the camera."""
    edits = [GENERATOR, CINEMA, run("tc.tc-out", "bag.tc-in", "bnc"), run("bag.tc-out", "film.tc-in", "bnc")]
    report = report_of(made(*edits, base=padded_plan()))
    found = {pair.camera: pair for pair in pairs(report, keepers(report, 10))}
    assert found["film"].by == (Meets.TIMECODE,)


def test_late_pictures_and_the_delay_they_ask_for():
    """5 frames of the camera and 2 of the switcher at 29.97: 7 x 1001/30000 s = 233.57 ms, 11211.2 samples at 48 kHz."""
    edits = [
        device("live-switcher", "vision"),
        CINEMA,
        run("cam.hdmi", "vision.hdmi1", "hdmi"),
        run("film.sdi", "vision.sdi1", "bnc"),
    ]
    plan = made(*edits, SetJob(frame_rate="29.97"), base=line_into_camera())
    (late,) = late_pictures(report_of(plan).rig)
    assert late.late_frames == 7 and float(late.delay.seconds * 1000) == pytest.approx(233.567, abs=0.001)
    assert late.delay.sample_count == 11_211 and late.is_noticed and not late.is_accepted
    assert {picture.camera: picture.hold_frames for picture in late.pictures} == {"cam": 0.0, "film": 2.0}
    quick = Figure(0.0, 0)
    edits = [
        SetFigure(device=name, path="traits.picture_delay_frames", figure=quick) for name in ("cam", "film", "vision")
    ]
    (late,) = late_pictures(report_of(made(*edits, base=plan)).rig)
    assert late.late_frames == 0 and not late.is_noticed and late.is_accepted


def test_a_day_that_cannot_be_is_refused():
    with pytest.raises(RangeError):
        keepers(report_of(jammed()), -1.0)
