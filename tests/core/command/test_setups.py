"""Ways of working, each typed from nothing: its tracks reach their target, and nothing is left that would have to be fixed.

What the ways are is common practice; their levels are those of the classes' typical figures.
"""

import pytest

from tests.core.command.test_say import do
from tests.few import each_of
from tidy_trunk.core.advice.adviser import Adviser, fixed
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.advice.walk import walk_items
from tidy_trunk.core.command import say
from tidy_trunk.core.gear.catalogue import controls_of
from tidy_trunk.core.plan import Plan, PlanIndex, Role, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import SyncMeans, TimecodeFrom, pairs, timecode_devices
from tidy_trunk.words import label_of, said, walk_words

MIRRORLESS = "add mirrorless camera, microphone as cam"
LAVALIER = ("add lavalier as lav", "anna at lav, 0.2 m")
BOOM = ("add boom shotgun as boom", "anna at boom, 0.5 m")
HAND = ("add dynamic handheld as hand", "host at hand, 0.05 m")

SETUPS = {
    "float recorder's timecode into a camera's socket": (
        ("add body-worn recorder as rec", *LAVALIER, "add mirrorless camera, timecode socket as cam", "lav to rec",
         "rec headphones/timecode to cam timecode in"),
        {"rec.1": "anna"},
    ),
    "float recorder into a microphone socket, timecode left and sound right": (
        ("add body-worn recorder as rec", *LAVALIER, MIRRORLESS, "lav to rec",
         "set rec headphones/timecode mode timecode left, sound right", "rec to cam, 0.5 m"),
        {"rec.1": "anna", "cam.L": "", "cam.R": "anna"},
    ),
    "one microphone on two camera tracks with two gains": (
        ("add camcorder, gain as cam", *BOOM, "boom to cam 1, 3 m", "route cam 1 to 2", "set cam track 2 automatic level off",
         "set cam track 2 gain 12"),
        {"cam.1": "anna", "cam.2": "anna"},
    ),
    "one microphone on a track set by hand and one with automatic level": (
        ("add camcorder, gain as cam", *BOOM, "boom to cam 1, 3 m", "route cam 1 to 2"),
        {"cam.1": "anna", "cam.2": "anna"},
    ),
    "two clip-on transmitters into a camera, a side each": (
        ("add clip-on transmitter as a, b", "add clip-on receiver as rx", MIRRORLESS, "anna at a, 0.2 m", "ben at b, 0.2 m",
         "a to rx 1", "b to rx 2", "rx to cam, 0.3 m"),
        {"cam.L": "anna", "cam.R": "ben"},
    ),
    "a clip-on transmitter into a camera, with a safety side": (
        ("add clip-on transmitter as a", "add clip-on receiver as rx", MIRRORLESS, "anna at a, 0.2 m", "a to rx 1",
         "set rx mode safety", "rx to cam, 0.3 m"),
        {"cam.L": "anna", "cam.R": "anna"},
    ),
    "a lavalier in a clip-on transmitter, whose own microphone is off then": (
        ("add clip-on transmitter as a", "add clip-on receiver as rx", *LAVALIER, MIRRORLESS, "lav to a", "a to rx 1",
         "rx to cam, 0.3 m"),
        {"cam.L": "anna"},
    ),
    "a desk with a music player into a camera": (
        ("add desk mixer as desk", "add music player as player", *HAND, MIRRORLESS, "hand to desk 1, 5 m",
         "player to desk line 5, by 3.5 mm to two 6.35", "player to desk line 6, by 3.5 mm to two 6.35",
         "desk main l to cam, by two 6.35 mm", "desk main r to cam, by two 6.35 mm"),
        {"cam.L": "host", "cam.R": "host"},
    ),
    "a receiver with two channels on one plug into a camera, a side each": (
        ("add radio receiver, two channels, ta5 as rx", "add lavalier as lav a, lav b", "add radio pack as pack a, pack b",
         MIRRORLESS, "anna at lav a, 0.2 m", "ben at lav b, 0.2 m", "lav a to pack a", "lav b to pack b", "pack a to rx 1",
         "pack b to rx 2", "rx to cam, 1 m"),
        {"cam.L": "anna", "cam.R": "ben"},
    ),
    "an on-camera microphone, and a lavalier plugged into it on the other side": (
        ("add on-camera microphone with an input as top", "add lavalier as lav", MIRRORLESS, "anna at top, 1 m", "ben at lav, 0.3 m",
         "lav to top", "top to cam"),
        {"cam.L": "anna", "cam.R": "ben"},
    ),
    "an on-camera microphone with nothing plugged into it": (
        ("add on-camera microphone with an input as top", MIRRORLESS, "anna at top, 1 m", "top to cam"),
        {"cam.L": "anna", "cam.R": "anna"},
    ),
    "a headphone socket into a camera, with a tail to listen at": (
        ("add handheld recorder with built-in as rec", MIRRORLESS, "add headphones as phones", "anna at rec, 0.8 m",
         "rec headphones to cam, by 3.5 mm attenuator cable", "rec headphones to phones, by 3.5 mm attenuator cable"),
        {"rec.L": "anna", "cam.L": "anna", "cam.R": "anna"},
    ),
    "a music player into a camera": (
        ("add music player as player", MIRRORLESS, "player to cam, 0.5 m"),
        {"cam.L": "", "cam.R": ""},
    ),
    "two lavaliers by a splitter into one socket": (
        ("add lavalier as lav a, lav b", MIRRORLESS, "anna at lav a, 0.2 m", "ben at lav b, 0.2 m",
         "lav a to cam, by splitter, two microphones", "lav b to cam, by splitter, two microphones"),
        {"cam.L": "anna", "cam.R": "ben"},
    ),
    "a USB microphone in a computer beside a camera": (
        ("add usb microphone as mic", "add computer as laptop", MIRRORLESS, "anna at mic, 0.2 m", "mic to laptop"),
        {"laptop.1": "anna"},
    ),
    "a USB interface in a computer": (
        ("add usb interface as box", "add laptop as laptop", *HAND, "hand to box 1, 2 m", "box usb to laptop"),
        {"laptop.1": "host"},
    ),
    "a recorder with built-in microphones as a camera's microphone": (
        ("add handheld recorder with built-in as rec", MIRRORLESS, "anna at rec, 0.8 m", "rec line to cam, 0.3 m"),
        {"rec.L": "anna", "rec.R": "anna", "cam.L": "anna", "cam.R": "anna"},
    ),
    "a pocket recorder with plug-in power, its line out into a camera": (
        ("add pocket recorder, plug-in as rec", *LAVALIER, MIRRORLESS, "lav to rec", "rec line to cam, 0.3 m"),
        {"rec.L": "anna", "cam.L": "anna"},
    ),
    "a phone with a preamp box on its headset socket": (
        ("add preamp box with a headset as pre", "add phone as a camera, headset as ph", *BOOM, "boom to pre, 2 m", "pre to ph"),
        {"ph.1": "anna"},
    ),
    "a phone without a headset socket": (
        ("add usb-c adapter as dongle", "add phone as a camera, digital as ph", "add headset microphone as hs",
         "anna at hs, 0.1 m", "hs to dongle", "dongle to ph"),
        {"ph.1": "anna"},
    ),
    "a picture recorder behind a camera": (
        ("add picture recorder as rec", "add mirrorless camera, mic/line as cam", "add on-camera microphone with as top",
         "anna at top, 1 m", "top to cam", "cam hdmi to rec hdmi in"),
        {"cam.L": "anna", "rec.1": "anna"},
    ),
    "a dynamic by an inline amplifier of 28 dB": (
        ("add inline amplifier, 28 as amp", "add dynamic handheld as hand", "add shoulder camcorder as cam",
         "anna at hand, 0.3 m", "hand to amp, 0.3 m", "amp to cam 1, 5 m"),
        {"cam.1": "anna"},
    ),
    "a lavalier by an adapter into an XLR input with 48 V": (
        ("add lavalier adapter as adapter", *LAVALIER, "add shoulder camcorder as cam", "lav to adapter", "adapter to cam 1, 5 m"),
        {"cam.1": "anna"},
    ),
    "a desk into a table recorder with tracks to be armed": (
        ("add table recorder as rec", "add desk mixer as desk", *HAND, "hand to desk 1, 5 m", "desk main l to rec 1, 3 m"),
        {"rec.1": "host"},
    ),
    "AES3 from one bag recorder into another": (
        ("add bag recorder, six as bag", "add bag recorder, eight as old", *BOOM, "boom to old 1, 3 m",
         "old aes to bag aes3 in, 2 m"),
        {"old.1": "anna", "bag.7": "anna"},
    ),
    "two AES3 pairs into a cinema camera": (
        ("add cinema camera, four as cam", "add bag recorder, six as bag", *BOOM, "boom to bag 1, 3 m", "set bag 1 gain 49",
         "bag aes3 out 1 to cam in 1 as aes3, 5 m", "bag aes3 out 2 to cam in 2 as aes3, 5 m"),
        {"cam.1": "anna", "cam.3": "anna"},
    ),
    "one microphone on both sides of a camera": (
        ("add preamp box, one as box", *BOOM, MIRRORLESS, "boom to box, 2 m", "box to cam, 0.3 m"),
        {"cam.L": "anna", "cam.R": "anna"},
    ),
    "a camcorder at a press box": (
        ("add distribution amplifier as press", "add field mixer as mix", *HAND, "hand to mix 1", "mix out l to press, 3 m",
         "add shoulder camcorder as cam", "press 1 to cam 1, 10 m"),
        {"cam.1": "host"},
    ),
    "an on-camera microphone at its +20 dB": (
        ("add on-camera microphone with as top", MIRRORLESS, "anna at top, 1 m", "top to cam"),
        {"cam.L": "anna", "cam.R": "anna"},
    ),
    "a receiver with two sockets, one of them into a camera": (
        ("add body-pack transmitter as tx", *LAVALIER, "add radio receiver, two channels, two 3.5 mm sockets as rx", MIRRORLESS,
         "lav to tx", "tx to rx 1", "rx 1 to cam"),
        {"cam.L": "anna", "cam.R": "anna"},
    ),
    "an XLR receiver at line level": (
        ("add body-pack transmitter as tx", *LAVALIER, "add radio receiver, xlr as rx", "add shoulder camcorder as cam",
         "lav to tx", "tx to rx", "rx to cam 1, 0.5 m"),
        {"cam.1": "anna"},
    ),
}  # fmt: skip


def report_of(plan: Plan) -> Report:
    return Report(trace_plan(plan))


def grave(plan: Plan) -> list[str]:
    return [finding.rule for finding in check(report_of(plan)) if finding.severity is not Severity.NOTE]


@pytest.mark.parametrize("name", each_of(SETUPS, 8))
def test_a_setup_is_typed_and_right(name):
    """Within 6 dB of its target, which is a note and no more; no stop and no caution is left."""
    lines, tracks = SETUPS[name]
    plan = do(Plan(name=name), *lines)
    report = report_of(plan)
    for track_id, source in tracks.items():
        track = report.track(track_id)
        assert track.sources == ((source,) if source else ()), track_id
        assert abs(track.miss_db) < 6 and track.clip is None, track_id
    assert grave(plan) == []


def test_a_switcher_with_xlr_and_late_pictures_is_told_to_delay_its_sound():
    """2 frames of the camera and 2 of the switcher are 160 ms at 25 fps, by hand; ITU-R BT.1359-1 accepts 90 ms."""
    plan = do(
        Plan(name="Live"), "add live switcher, xlr as sw", "add shoulder camcorder as cam", "add field mixer as mix", *HAND,
        "hand to mix 1, 5 m", "mix out l to sw xlr l, 5 m", "cam hdmi to sw hdmi 1",
    )  # fmt: skip
    (early,) = [finding for finding in check(report_of(plan)) if finding.severity is not Severity.NOTE]
    assert early.rule == "early-sound" and abs(report_of(plan).track("sw.pgm-l").miss_db) < 1
    assert "160 ms" in said(early, report_of(plan).index).text
    fix = Adviser(report_of(plan)).fixes(early)[0]
    assert label_of(fix) == "Put an audio delay unit in between, set to 160 ms"
    assert grave(apply_edits(plan, fix.edits)) == []


def test_timecode_of_a_float_recorder_is_what_it_says():
    """In its own socket it is labels; in a microphone socket a track of sound, with nothing else on its side."""
    labels, sound = (report_of(do(Plan(name=name), *SETUPS[name][0])) for name in list(SETUPS)[:2])
    in_socket, on_track = ({item.device: item for item in timecode_devices(report)} for report in (labels, sound))
    assert in_socket["cam"].gets is TimecodeFrom.SOCKET and in_socket["cam"].giver == "rec"
    assert on_track["cam"].gets is TimecodeFrom.SOUND and on_track["cam"].track == "cam.L"
    roles = [PlanIndex(sound.index.plan).role_of("cam", bus) for bus in ("L", "R")]
    assert roles == [Role.TIMECODE, Role.GUIDE]


def test_a_usb_microphone_is_synced_by_what_the_camera_hears_itself():
    name = "a USB microphone in a computer beside a camera"
    report = report_of(do(Plan(name=name), *SETUPS[name][0]))
    (pair,) = pairs(report, timecode_devices(report))
    assert pair.by == (SyncMeans.OWN_MICROPHONE,)


def test_a_plug_turns_the_built_in_microphones_off():
    plan = do(
        Plan(name="x"),
        "add handheld recorder with built-in as rec",
        "anna at rec, 0.8 m",
        *BOOM[:1],
        "ben at boom, 0.5 m",
    )
    assert report_of(plan).track("rec.L").sources == ("anna",)
    plugged = do(plan, "add on-camera microphone as top", "cora at top, 1 m", "top to rec ext in")
    assert report_of(plugged).track("rec.L").sources == ("cora",)


def test_two_sides_stay_apart_until_somebody_wants_both_on_both():
    """A receiver's mono position would bring 3 dB more: nothing switches to it but its user."""
    lines = SETUPS["two clip-on transmitters into a camera, a side each"][0]
    plan = do(Plan(name="x"), *lines)
    assert "out.mode" not in fixed(plan)[0].devices["rx"].settings
    mono = report_of(do(plan, "set rx mode mono"))
    assert mono.track("cam.L").sources == mono.track("cam.R").sources == ("anna", "ben")


def test_a_lowest_position_that_is_off_is_a_stop_and_one_step_up_is_not():
    plan = do(Plan(name="x"), *LAVALIER, MIRRORLESS, "lav to cam", "set cam gain 0")
    report = report_of(plan)
    assert "knob-is-off" in grave(plan) and report.track("cam.L").sound.average < -100
    stop = next(finding for finding in check(report) if finding.rule == "knob-is-off")
    assert "knob-is-off" not in grave(apply_edits(plan, Adviser(report).fixes(stop)[0].edits))


def test_the_other_side_of_a_camera_is_fed_too():
    """One microphone in a two-input box: the camera's right side is silent until the box sends it there as well."""
    lines = ("add preamp box for as box", *BOOM, MIRRORLESS, "boom to box 1, 2 m", "box to cam, 0.3 m")
    plan = do(Plan(name="x"), *lines)
    silent = next(finding for finding in check(report_of(plan)) if finding.rule == "track-without-source")
    fix = Adviser(report_of(plan)).fixes(silent)[0]
    assert label_of(fix) == "Send the same on both sides of box"
    fed = report_of(apply_edits(plan, fix.edits))
    assert fed.track("cam.L").sources == fed.track("cam.R").sources == ("anna",)


def test_a_recorder_that_makes_no_timecode_gives_none():
    plan = do(
        Plan(name="x"),
        "add two-input recorder as rec",
        "add cinema camera, xlr as cam",
        "add timecode generator as box",
    )
    assert "rec makes no timecode, and only takes it" in say(plan, "jam cam from rec at 8:00").problem
    assert do(plan, "box to rec timecode in, 0.5 m", "jam cam from box at 8:00").devices["cam"].jam.giver == "box"


def test_the_checklist_knows_the_knobs_of_a_track_and_an_output_that_is_dead_at_first():
    lines = SETUPS["one microphone on a track set by hand and one with automatic level"][0]
    report = report_of(do(Plan(name="x"), *lines))
    read = [walk_words(item, report.index).text for item in walk_items(report)]
    assert "Track 1: automatic level, menu off, gain +16 dB." in read
    recorder = report_of(
        do(Plan(name="x"), *SETUPS["a pocket recorder with plug-in power, its line out into a camera"][0])
    )
    read = [walk_words(item, recorder.index).text for item in walk_items(recorder)]
    assert "Line out: listened to while it records." in read


def test_one_knob_moves_both_inputs_of_a_recorder():
    plan = do(Plan(name="x"), "add two-input recorder as rec", "set rec in 1 gain 50")
    placed = PlanIndex(plan).placed("rec")
    second = placed.input("in2")
    assert placed.gain_db(second, second.modes[0]) == 50
    assert "in2.mic.gain_db" not in controls_of(placed.device_class)
