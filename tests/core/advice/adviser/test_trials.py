"""What was tried as a recordist would, and what is right: each plan is typed, and each answer is one of the program's own."""

import pytest

from tests.core.command.test_say import do
from tests.few import few
from tests.plans import fixes
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.adviser import Adviser, fixed, gain_plan, matching_options
from tidy_trunk.core.advice.checks import Finding, Severity, check
from tidy_trunk.core.command import say
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import Disconnect, Plan, Role, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import TimecodeFrom, timecode_devices
from tidy_trunk.words import answer_words, label_of

BAG_AND_CAMERA = ("add bag recorder as bag", "add mirrorless camera, microphone as cam", "add boom shotgun as boom", "me at boom, 0.5 m",
                  "boom to bag 1, 2 m")  # fmt: skip
RADIO = ("add lavalier as lav", "add body-pack transmitter as tx", "add radio receiver, one channel as rx", "rep at lav, 0.2 m",
         "lav to tx", "tx to rx")  # fmt: skip


def typed(*lines: str) -> Plan:
    return do(Plan(name="Tried"), *lines)


def report_of(plan: Plan) -> Report:
    return Report(trace_plan(plan))


def found(plan: Plan, *severities: Severity) -> list[Finding]:
    return [finding for finding in check(report_of(plan)) if finding.severity in severities]


def grave(plan: Plan) -> list[str]:
    return [finding.rule for finding in found(plan, Severity.STOP, Severity.CAUTION)]


def average(plan: Plan, track: str) -> float:
    return report_of(plan).track(track).sound.average


@pytest.mark.parametrize("line", ["bag line to cam, 0.5 m, by 3.5 mm cable with 25 dB", "bag line to cam, 0.5 m"])
def test_a_camera_left_at_30_db_is_a_stop_and_the_knob_mends_it(line):
    """Said before: the row clips by 17.7 dB, and 0 stops, 0 cautions."""
    plan = typed(*BAG_AND_CAMERA, line, "set cam auto off", "set cam gain 30")
    (stop,) = found(plan, Severity.STOP)
    assert stop.rule == "clipping" and {"cam.L", "cam.R"} <= set(stop.tracks)
    assert any("cam mic socket: gain" in label_of(fix) for fix in fixes(plan, stop))
    cured = apply_edits(plan, fixes(plan, stop)[0].edits)
    assert not grave(cured)


def test_a_transmitter_is_raised_with_what_follows_lowered():
    """Said before: a fix that drives the track 11 dB over, and no stop."""
    plan = typed("add shoulder camcorder as cam", *RADIO, "rx to cam 1, 0.5 m", "set tx gain 12", "set cam 1 gain 38")
    low = next(finding for finding in check(report_of(plan)) if finding.rule == "transmitter-low")
    for fix in fixes(plan, low):
        after = apply_edits(plan, fix.edits)
        assert not found(after, Severity.STOP) and -21 <= average(after, "cam.1") <= -12


@pytest.mark.parametrize("lines", [("add dynamic handheld as dyn", "y at dyn, 0.1 m", "dyn to mixer 1"), ()])
def test_t_power_is_for_what_needs_it(lines):
    """Said before: the first answer switches the input to T-power beside 48 V."""
    plan = typed(
        "add field mixer as mixer", *lines, "add boom shotgun as boom", "x at boom, 0.5 m", "boom to mixer 2", *RADIO
    )
    plan = do(plan, "rx to mixer 3, 0.5 m")
    assert not any("T-power" in str(device.settings) for device in plan.devices.values())
    assert not {"harmful-power", "microphone-unpowered"} & set(grave(plan))


def test_t_power_of_a_mode_is_told_wherever_it_reaches():
    """On such mixers the mode is the switch. Said before: nothing, unless 48 V was on too."""
    coil = typed("add field mixer as mixer", "add dynamic handheld as dyn", "y at dyn, 0.1 m", "dyn to mixer 1")
    shotgun = typed("add field mixer as mixer", "add boom shotgun as boom", "x at boom, 0.5 m", "boom to mixer 1")
    output = typed("add field mixer as mixer", "add bag recorder as bag", "bag out l to mixer 1")
    for plan in (coil, shotgun, output):
        warned = do(plan, "set mixer 1 mode t-power")
        told = [finding for finding in check(report_of(warned)) if finding.rule == "harmful-power"]
        assert [finding.about for finding in told] == ["t-power"]
        cured = apply_edits(warned, fixes(warned, told[0])[0].edits)
        assert "harmful-power" not in grave(cured)


def test_a_sender_far_down_makes_the_level_itself():
    """Said before: camera +25.5, +1.5, +25.5, +1.5 … for ever."""
    plan = typed(*BAG_AND_CAMERA, "bag line to cam, 1 m, by 3.5 mm trs", "set bag line output -48", "set cam gain 1.5", "set cam auto off")  # fmt: skip
    done, taken = fixed(plan)
    assert len([step for step in taken if "bag line out" in label_of(step.move)]) == 1
    assert not grave(done) and -21 <= average(done, "cam.L") <= -17
    assert gain_plan(report_of(done)).steps == ()


def test_no_attenuator_where_there_is_margin():
    """Said before: too quiet, or hiss: use the 15 dB lead, which adds 3 dB of noise."""
    plan = typed(*BAG_AND_CAMERA, "bag line to cam, 1 m, by 3.5 mm trs", "set bag line output -48", "set cam gain 25.5", "set cam auto off")  # fmt: skip
    offered = [label_of(fix) for found_fixes in Adviser(report_of(plan)).all_fixes().values() for fix in found_fixes]
    assert offered and not any(" dB attenuator" in label for label in offered)


def test_the_volume_goes_up_and_the_camera_down():
    """Said before: camera at its maximum, noise −43.8 dBFS; by hand −62.9."""
    plan = typed("add body-worn recorder as body", "add mirrorless camera, microphone as cam", "add lavalier as lav", "ann at lav, 0.2 m",
                 "lav to body", "body to cam, 0.3 m", "set body phones -20", "set body digital gain 0", "set cam gain 46.5")  # fmt: skip
    planned = apply_edits(plan, gain_plan(report_of(plan)).edits)
    sound = report_of(planned).track("cam.L").sound
    assert -21 <= sound.average <= -17 and sound.gear_noise <= -62.9


@pytest.mark.deep
@pytest.mark.parametrize("camera", ["add shoulder camcorder as cam", "add mirrorless camera, microphone as cam"])
def test_one_answer_for_a_radio(camera):
    """The line, the line after the transmitter is set, and the gain plan. Said before: three answers."""
    first = typed(camera, *RADIO, "rx to cam, 0.3 m")
    assert {step.control for step in gain_plan(report_of(first)).steps} <= {"mic.limiter"}, "no knob is moved"
    assert "camera-gain" not in {finding.rule for finding in check(report_of(first))} and not grave(first)
    turned = do(first, "set tx gain 0")
    again = apply_edits(turned, gain_plan(report_of(turned)).edits)
    assert average(again, "cam.1" if "shoulder" in camera else "cam.L") == pytest.approx(
        average(first, "cam.1" if "shoulder" in camera else "cam.L"), abs=1.5
    )


def test_a_microphone_without_power_is_silent_and_one_finding():
    """Said before: −48/−34 dBFS, four cautions on level and hiss, and "fits; nobody will hear it"."""
    plan = typed("add boom shotgun as boom", "add mirrorless camera, microphone as cam", "me at boom, 0.5 m")
    plan = apply_edits(plan, say(plan, "boom to cam, by xlr to 3.5 mm, hot on tip and ring").proposals[0].edits)
    assert report_of(plan).track("cam.L").is_silent
    assert grave(plan).count("microphone-unpowered") == 1 and not {"off-target", "gear-above-room"} & set(grave(plan))
    assert [option.id for option in matching_options(report_of(plan), "run-1")] == []


def test_sound_comes_before_timecode():
    """Said before: `bag to cam` sends timecode as sound, and nothing says that the camera hears nobody."""
    plan = typed(*BAG_AND_CAMERA, "bag to cam")
    assert report_of(plan).track("cam.L").sources == ("me",)
    asked = typed(*BAG_AND_CAMERA, "bag timecode to cam")
    assert Role.TIMECODE in asked.devices["cam"].roles.values()


def test_two_receivers_share_a_stereo_socket():
    """Said before: the first fills both sides, the second is refused."""
    second = ("add lavalier as lav b", "add body-pack transmitter as tx b", "add radio receiver, one channel as rx b",
              "ben at lav b, 0.2 m", "lav b to tx b", "tx b to rx b")  # fmt: skip
    plan = typed("add mirrorless camera, microphone as cam", *RADIO, *second, "rx to cam", "rx b to cam")
    report = report_of(plan)
    assert (report.track("cam.L").sources, report.track("cam.R").sources) == (("rep",), ("ben",))
    assert not grave(plan)


def test_an_attenuator_stays_at_the_receiving_end_whatever_lead_is_named():
    """Said before: pad dropped, or put at the sending end with 3.2 m at microphone level behind it."""
    bag = typed("add bag recorder as bag", "add mirrorless camera, microphone as cam")

    def leads(plan):
        return [(part.lead, part.length_m) for part in plan.runs["run-1"].parts]

    short = do(bag, "bag line to cam, 3.5 m", "swap cable 1 for 3.5 mm cable with 25 dB")
    assert leads(short) == [("trs-pad-25", 3.5)]
    assert leads(do(short, "length cable 1 2 m")) == [("trs-pad-25", 2.0)]
    balanced = do(bag, "bag out l to cam, 10 m", "swap cable 1 for xlr")
    assert leads(balanced) == [("xlr", 9.7), ("xlr-trs-pad-25", 0.3)]
    barrel = do(balanced, "swap cable 1 for xlr barrel with 25 dB")
    assert [lead for lead, _ in leads(barrel)] == ["xlr", "xlr-pad-25", "xlr-trs"]
    plain = say(short, "swap cable 1 for 3.5 mm TRS").proposals[0]
    assert [stop.finding.rule for stop in plain.stops] == ["line-into-mic"], (
        "asked for by name it goes, and the answer says what follows"
    )


def test_a_jam_every_hour_gives_way_to_a_clock_that_stays_on():
    """±5 ppm beside ±1: half a frame at 25 frames/s is gone in 0.02 s / 6 ppm = 55 min. Said before: eleven jams a day."""
    plan = typed("add bag recorder as bag", "add shoulder camcorder as cam", "jam cam from bag at 8:00")
    (finding,) = [item for item in found(plan, Severity.CAUTION) if item.rule == "missed-jam"]
    assert finding.facts["missed"].every_min == 55
    first, *others = fixes(plan, finding)
    assert label_of(first) == "Run a timecode cable from bag and leave it connected"
    assert label_of(others[0]).startswith("Add a timecode generator")
    assert "at the worst drift" in label_of(others[1])


def test_a_headphone_socket_gives_timecode_left_and_sound_right():
    """Said before: Ann on both sides, the clock from nobody, and no lead into a timecode socket."""
    body = typed("add body-worn recorder as body", "add lavalier as lav", "ann at lav, 0.2 m", "lav to body")
    sound = do(body, "add mirrorless camera, microphone as cam", "set body phones mode timecode", "body to cam, 0.3 m")
    left, right = (report_of(sound).track(track) for track in ("cam.L", "cam.R"))
    assert (left.sources, left.role) == ((), Role.TIMECODE), "timecode, and no voice"
    assert (right.sources, right.role) == (("ann",), Role.GUIDE), "beside timecode a voice is scratch at best"
    assert left.sound.average == left.sound.peak > right.sound.average
    (camera,) = [
        timecode_device for timecode_device in timecode_devices(report_of(sound)) if timecode_device.device == "cam"
    ]
    assert (camera.gets, camera.giver, camera.beside) == (TimecodeFrom.SOUND, "body", ("cam.R",))
    socket = do(body, "add shoulder camcorder as cam", "body headphones to cam timecode")
    assert [part.lead for part in socket.runs["run-2"].parts] == ["trs-timecode-bnc"]
    (camera,) = [
        timecode_device for timecode_device in timecode_devices(report_of(socket)) if timecode_device.device == "cam"
    ]
    assert (camera.gets, camera.giver) == (TimecodeFrom.SOCKET, "body") and not grave(socket)


def test_what_is_plugged_into_the_socket_counts_for_power():
    """An inline amplifier lives on 48 V and keeps it from the ribbon before it. [PRACTICE]

    By hand: 1.5 mV/Pa is −54.3 dBu at 94 dB SPL; 20 dB more behind the amplifier.
    """
    plan = typed("add ribbon as mic", "me at mic, 0.3 m", "add inline amplifier as amp", "mic to amp",
                 "add bag recorder as bag", "amp to bag 1, 5 m")  # fmt: skip
    assert not found(plan)
    bare = typed("add ribbon as mic", "me at mic, 0.3 m", "add bag recorder as bag", "mic to bag 1, 5 m")
    gains = [item.devices["bag"].settings["in1.mic.gain_db"] for item in (plan, bare)]
    levels = [average(item, "bag.1") for item in (plan, bare)]
    assert (levels[0] - gains[0]) - (levels[1] - gains[1]) == pytest.approx(20, abs=0.3), (
        "and what it is plugged into takes"
    )
    dead = do(plan, "set bag 1 phantom menu off")
    (stop,) = found(dead, Severity.STOP)
    assert (stop.rule, report_of(dead).track("bag.1").is_silent) == ("microphone-unpowered", True)
    assert "bag.1" in stop.tracks and label_of(fixes(dead, stop)[0]) == "Switch P48 on at bag in 1"
    condenser = typed("add boom shotgun as mic", "add inline amplifier as amp")
    assert not answer_words(say(condenser, "mic to amp").proposals[0]).title.endswith("amp in"), (
        "it lets no 48 V through"
    )


def test_a_track_that_is_right_stays_as_it_is():
    """Said before: "Switch to line: 34 dB below target", with a button."""
    plan = typed(*BAG_AND_CAMERA, "bag line to cam, 1 m")
    (run_id,) = (run.id for run in plan.runs.values() if run.receiving.device == "cam")
    listed = matching_options(report_of(plan), run_id)
    assert "as-it-is" in [option.id for option in listed] and all(option.fits for option in listed)


def test_what_is_free_and_quiet_comes_before_shopping():
    """A camera with a line menu. Said before: three purchases before "switch it to line"."""
    plan = typed(*("add mirrorless camera, mic/line as cam" if "mirrorless" in line else line for line in BAG_AND_CAMERA),
                 "bag line to cam, 1 m, by 3.5 mm trs", "set cam mode mic")  # fmt: skip
    (stop,) = (finding for finding in found(plan, Severity.STOP) if finding.rule == "line-into-mic")
    assert "mode to line" in label_of(fixes(plan, stop)[0])
    assert matching_options(report_of(plan), stop.run)[0].id == "input-line"


def test_the_first_answer_works_or_says_that_none_does():
    """`boom to cam`, no power there. Said before: Enter takes the answer that cannot work."""
    plan = typed("add boom shotgun as boom", "add mirrorless camera, microphone as cam", "me at boom, 0.5 m")
    answers = say(plan, "boom to cam, 3 m").proposals
    assert not found(do(plan, "boom to cam, 3 m"), Severity.STOP)
    assert [stop.finding.rule for stop in answers[-1].stops] == ["microphone-unpowered"]


def test_a_camera_without_a_cable_is_no_mistake():
    """Pictures to a switcher, jammed, or double system. Said before: "records nothing, take it off the job"."""
    plan = typed("add mirrorless camera, microphone as cam", "add live switcher as sw", "cam to sw hdmi 1")
    assert not [finding for finding in check(report_of(plan)) if finding.device == "cam" and finding.rule == "track-without-source"]  # fmt: skip


def test_float_is_not_nagged_for_level():
    """Said before: caution, "39 dB below target"."""
    plan = typed("add body-worn recorder as body", "add lavalier as lav", "ann at lav, 0.2 m", "lav to body", "set body digital gain 0")  # fmt: skip
    assert average(plan, "body.1") < -50 and not grave(plan)


@pytest.mark.deep
def test_automatic_level_goes_off_with_every_match():
    """Said before: −20/−6 dBFS are promised with automatic level left on."""
    for camera in ("add shoulder camcorder as cam", "add mirrorless camera, microphone as cam"):
        plan = typed(camera, *RADIO, "rx to cam, 0.3 m")
        assert "automatic-level" not in {finding.rule for finding in check(report_of(plan))}


def test_a_burst_is_caught_and_then_there_is_silence():
    """Said before: "A burst clips" on every microphone, without a fix."""
    done, _ = fixed(typed(*BAG_AND_CAMERA, "bag line to cam, 1 m"))
    assert not {"burst-clips", "off-target", "clipping"} & {finding.rule for finding in check(report_of(done))}


def test_both_limiters_at_line_level_are_told():
    """Mixer to camera. Said before: nothing."""
    plan = typed("add field mixer as mixer", "add shoulder camcorder as cam", "add dynamic handheld as dyn", "y at dyn, 0.1 m",
                 "dyn to mixer 1", "mixer out l to cam 1, 5 m", "set mixer 1 limiter on", "set cam 1 limiter on")  # fmt: skip
    (twice,) = (finding for finding in check(report_of(plan)) if finding.rule == "limiter")
    assert not twice.facts["is_straight"] and label_of(fixes(plan, twice)[0]) == "Turn the limiter of cam in 1 off"


def test_a_guide_track_is_for_finding_sync():
    """Automatic level and an unused side. Said before: cautions."""
    plan = typed(*BAG_AND_CAMERA, "bag out l to cam, by xlr to 3.5 mm, hot on tip, cold open", "use cam l and r for guide")  # fmt: skip
    plan = do(fixed(plan)[0], "set cam auto on")
    assert not [finding for finding in found(plan, Severity.STOP, Severity.CAUTION) if finding.device == "cam"]


def test_a_place_as_loud_as_the_voice_is_told():
    """Room noise 2 dB below the voice. Said before: "clear"."""
    plan = typed(*BAG_AND_CAMERA, "set job room 66")
    assert "loud-place" in grave(plan)


def test_each_pair_is_told_once():
    plan = typed(*BAG_AND_CAMERA, "bag line to cam, 1 m, by 3.5 mm trs", "set bag line output -48", "set cam auto off")
    for rule in ("off-target", "gear-above-room"):
        (finding,) = (item for item in check(report_of(plan)) if item.rule == rule)
        assert finding.tracks == ("cam.L", "cam.R") and finding.facts["buses"] == ("L", "R")


def test_the_only_output_of_a_recorder_is_no_caution():
    """The headphone socket of a body-worn recorder. Said before: a caution that nothing ends."""
    plan = typed("add body-worn recorder as body", "add mirrorless camera, microphone as cam", "add lavalier as lav", "ann at lav, 0.2 m",
                 "lav to body", "body to cam, 0.3 m")  # fmt: skip
    assert not grave(plan)


def test_without_a_voice_full_scales_are_matched():
    """Three lines that name both devices and the run. Said before: a stop without a lead."""
    plan = typed("add bag recorder as bag", "add mirrorless camera, microphone as cam")
    plan = do(plan, "bag line to cam, 0.5 m")
    (run,) = plan.runs.values()
    assert not found(plan, Severity.STOP)
    lost_db = sum(
        built_in().leads[part.lead].loss_db.value
        for part in run.parts
        if built_in().leads[part.lead].loss_db is not None
    )
    trim_db = plan.devices["bag"].settings.get("line.line.trim_db", 0.0)
    assert lost_db - trim_db >= 20, "the bag's +10 dBu into the camera's −10.5 dBu"


RIGS = {
    "bag, cable and camera": (*BAG_AND_CAMERA, "bag line to cam, 0.5 m"),
    "radio into a camcorder": ("add shoulder camcorder as cam", *RADIO, "rx to cam 1, 0.5 m"),
    "boom and dynamic on a mixer": ("add field mixer as mixer", "add bag recorder as bag", "add dynamic handheld as dyn", "add boom shotgun as boom",
                                    "y at dyn, 0.1 m", "x at boom, 0.5 m", "dyn to mixer 1", "boom to mixer 2", "mixer out l to bag 1, 2 m"),
    "body-worn recorder": ("add body-worn recorder as body", "add mirrorless camera, microphone as cam", "add lavalier as lav",
                           "ann at lav, 0.2 m", "lav to body", "body to cam, 0.3 m"),
    "on-camera microphone": ("add on-camera microphone as top", "add mirrorless camera, microphone as cam", "host at top, 0.8 m", "top to cam"),
    "camera in four-track mode": ("add mirrorless camera, four-track mode with a shoe adapter as cam", "add field mixer as mix",
                                  "add boom shotgun as boom", "host at boom, 0.6 m", "boom to mix 1, 3 m", "mix out l to cam, 1 m"),
    "box between": ("add boom shotgun as boom", "add mirrorless camera, microphone as cam", "me at boom, 0.5 m", "boom to cam"),
}  # fmt: skip


@pytest.mark.parametrize("lines", RIGS.values(), ids=RIGS.keys())
def test_the_first_answer_is_the_best_way_and_stands(lines):
    """The third law: nothing betters what was typed, and the gain plan moves no knob of it. The sixth: no stop."""
    plan = typed(*lines)
    report = report_of(plan)
    assert not grave(plan)
    for run_id in plan.runs:
        assert [option.id for option in Adviser(report).matching_options(run_id)][:1] in ([], ["as-it-is"])
    assert all(step.control.endswith("limiter") for step in gain_plan(report).steps)


@pytest.mark.parametrize(
    ("run_id", "line"),
    few(
        [
            ("run-11", "bag line to camera b, 3 m"),
            ("run-4", "receiver a to bag 2"),
            ("run-1", "boom to bag 1"),
            ("run-8", "bell to bag 4"),
        ],
        1,
    ),
)
def test_the_first_answer_is_the_best_way_in_a_whole_job_too(run_id, line):
    """What lies behind the joint counts: the switcher that Camera B feeds, the tracks beside."""
    typed_anew = do(apply_edits(foundry(), [Disconnect(run=run_id)]), line)
    (made,) = typed_anew.runs.keys() - (foundry().runs.keys() - {run_id})
    assert Adviser(report_of(typed_anew)).matching_options(made)[0].id == "as-it-is"
