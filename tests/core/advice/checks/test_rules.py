"""Every rule: a plan that has what it looks for, and its nearest neighbour that has not. Facts: handbook, as each rule says."""

import pytest

from tests.core.advice.checks.case import CAUTION, NOTE, STOP, Case
from tests.core.advice.checks.clock_cases import CLOCK_CASES, jammed_camera
from tests.core.advice.checks.patch_cases import PATCH_CASES
from tests.core.command.test_say import do
from tests.plans import boom_in_bag, device, fixes, line_into_camera, made, padded_plan, put, run
from tidy_trunk.core.advice.checks import RULES, check
from tidy_trunk.core.gear.catalogue import LawPoint
from tidy_trunk.core.plan import (
    AddSource,
    Disconnect,
    GainLaw,
    Hear,
    Part,
    Plan,
    PlanIndex,
    Role,
    RouteBus,
    SetJam,
    SetJob,
    SetParts,
    TakeGainLaw,
    apply_edits,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.time.clock import TimecodeFrom, timecode_devices
from tidy_trunk.words import SOURCE_WORDS, said


def found(plan: Plan, rule: str):
    return [finding for finding in check(Report(trace_plan(plan))) if finding.rule == rule]


def dynamic(class_id: str, port: str, *parts, microphone: str = "dynamic-handheld") -> Plan:
    """A voice at a hand-held microphone, in one input of one device."""
    return made(
        device(microphone, "mic"),
        device(class_id, "box"),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"mic": 0.1}),
        run("mic.out", f"box.{port}", *parts),
    )


def ribbon(power: bool) -> Plan:
    return made(put("box", "in1.phantom.menu", power), base=dynamic("bag-recorder", "in1", "xlr", microphone="ribbon"))


def cinema_mic(**switches: bool) -> Plan:
    edits = [put("box", "in.mode", "mic")] + [put("box", f"in.phantom.{place}", on) for place, on in switches.items()]
    lead = Part(lead="2xlr-xlr5", length_m=0.5, branch="L", shared="x")
    return made(*edits, base=dynamic("cinema-xlr5", "in", "xlr", lead, microphone="boom-shotgun"))


def lavalier_on_air(gain_db: float) -> Plan:
    base = dynamic("bodypack-transmitter", "mic", microphone="lavalier")
    return made(put("box", "mic.mic.gain_db", gain_db), base=base)


def through_mixer() -> Plan:
    return do(
        Plan(name="Mixed"),
        *(
            "add field mixer as mix",
            "add shoulder camcorder as cam",
            "voice: dynamic handheld to mix 1",
            "mix out l to cam 1",
        ),
    )


def dynamic_on_air(distance_m: float) -> Plan:
    base = made(
        put("box", "mic.mic.gain_db", 30), base=dynamic("bodypack-transmitter", "mic", "xlr", "xlr-trs-one-to-one")
    )
    return made(Hear(source="voice", device="mic", distance_m=distance_m), base=base)


def worn() -> Plan:
    return made(put("box", "mic.plug_in.menu", True), base=dynamic("mirrorless-mic", "mic", microphone="lavalier"))


def gain(value: float) -> Plan:
    return made(put("bag", "in1.mic.gain_db", value), base=boom_in_bag())


def limited_twice() -> Plan:
    lead = run("bag.out-l", "cam.in1", "xlr")
    return made(device("shoulder-camcorder", "cam"), lead, put("cam", "in1.mode", "mic"), base=boom_in_bag())


def camcorder_behind_a_pad(gain_db: float) -> Plan:
    """Its XLR microphone input, whose lowest gain is not known to be off."""
    camcorder = (device("shoulder-camcorder", "cam"), run("bag.out-l", "cam.in1", "xlr-pad-40"))
    return made(*camcorder, put("cam", "in1.mode", "mic"), put("cam", "in1.mic.gain_db", gain_db), base=boom_in_bag())


def measured_gain(stands_db: float) -> Plan:
    """A camera of which it was measured that from 9 dB on its gain brings more noise than level."""
    points = (LawPoint(0, 0.5), LawPoint(15, 14.0))
    law = GainLaw(
        class_id="mirrorless-mic", control="mic.mic.gain_db", points=points, noisy_from_db=9, when="2026-11-25"
    )
    return made(TakeGainLaw(law=law), put("cam", "mic.mic.gain_db", stands_db), base=padded_plan(25))


def at_lowest(gain_db: float) -> Plan:
    return made(put("cam", "mic.mic.gain_db", gain_db), base=padded_plan())


def padded_first(on: bool) -> Plan:
    cable = SetParts(run="run-2", parts=(Part(lead="trs-pad-25", length_m=0.3),))
    return made(cable, put("cam", "mic.pad", on), base=line_into_camera("mirrorless-pad-first"))


CASES = [
    Case("noisy-gain", measured_gain(15), measured_gain(9), CAUTION, "6 dB above the position"),
    Case("line-into-mic", line_into_camera(), padded_plan(25), STOP, "14.1 dB"),
    Case("mic-into-line", made(put("bag", "in1.mode", "line"), base=boom_in_bag()), boom_in_bag(), STOP, "near silence"),
    Case("clipping", gain(75), gain(50), STOP, "stays cut off"),
    Case("burst-clips", gain(50), gain(45), NOTE, "a laugh or a shout would go 4 dB over at bag in 1", cured=False),
    Case(
        "limiter",
        dynamic("shoulder-camcorder", "in1", "xlr"),
        made(put("box", "in1.limiter", True), base=dynamic("shoulder-camcorder", "in1", "xlr")),
        NOTE,
        "nobody rides its gain",
    ),
    Case(
        "limiter",
        made(put("bag", "in1.limiter", True), put("cam", "in1.limiter", True), base=limited_twice()),
        made(put("cam", "in1.limiter", True), base=limited_twice()),
        NOTE,
        "breathes with it",
    ),
    Case(
        "rumble",
        made(SetJob(rumble_db_spl=62), base=boom_in_bag()),
        made(SetJob(rumble_db_spl=62), put("bag", "in1.low_cut", "80"), base=boom_in_bag()),
        CAUTION,
        "A low cut at 80 Hz takes 10 dB off them and 0.1 dB off a voice",
    ),
    Case(
        "thin-voice",
        made(put("bag", "in1.low_cut", "160"), base=boom_in_bag()),
        made(SetJob(rumble_db_spl=60), put("bag", "in1.low_cut", "160"), base=boom_in_bag()),
        NOTE,
        "takes 0.7 dB off a voice",
    ),
    Case(
        "loud-place",
        made(SetJob(room_noise_db_spl=60), base=boom_in_bag()),
        made(SetJob(room_noise_db_spl=45), base=boom_in_bag()),
        CAUTION,
        "Go nearer, take a lavalier, or find a quieter place",
        cured=False,
    ),
    Case(
        "loud-place",
        made(SetJob(room_noise_db_spl=75), base=worn()),
        made(SetJob(room_noise_db_spl=45), base=worn()),
        CAUTION,
        "(A-weighted). Take a microphone that hears less from the sides, or find a quieter place",
        cured=False,
    ),
    Case(
        "too-far",
        made(SetJob(room="office"), Hear(source="voice", device="boom", distance_m=2), base=boom_in_bag()),
        made(SetJob(room="office"), Hear(source="voice", device="boom", distance_m=0.8), base=boom_in_bag()),
        NOTE,
        "1.4 m on",
        cured=False,
    ),
    Case(
        "knob-is-off",
        at_lowest(0.0),
        at_lowest(1.5),
        STOP,
        "its lowest position is off",
    ),
    Case("off-target", gain(30), gain(50), CAUTION, "film wants average −20 to −12"),
    Case(
        "gear-above-room",
        made(SetJob(room_noise_db_spl=15), base=dynamic("mirrorless-mic", "mic", "xlr-trs")),
        made(SetJob(room_noise_db_spl=75), base=dynamic("mirrorless-mic", "mic", "xlr-trs")),
        CAUTION,
        "above the room",
        cured=False,
    ),
    Case("automatic-level", made(put("cam", "mic.auto.menu", True), base=padded_plan(25)), padded_plan(25), CAUTION, "in the menu"),
    Case("camera-gain", camcorder_behind_a_pad(0), camcorder_behind_a_pad(1), CAUTION, "one step up", cured=False),
    Case("camera-gain", made(put("cam", "mic.mic.gain_db", 30), base=padded_plan(50)), padded_plan(25), NOTE, "30 dB above"),
    Case(
        "two-attenuators",
        padded_first(True),
        padded_first(False),
        CAUTION,
        "takes 25 dB off, and cam mic socket another 20 dB",
    ),
    Case(
        "pad-behind-converter",
        made(put("cam", "mic.pad", True), base=line_into_camera("mirrorless-pad-behind")),
        line_into_camera("mirrorless-pad-behind"),
        CAUTION,
        "stays clipped",
    ),
    Case(
        "plugs-do-not-mate",
        made(SetParts(run="run-2", parts=(Part(lead="xlr", length_m=3),)), base=line_into_camera()),
        line_into_camera(),
        STOP,
        "does not go into",
    ),
    Case(
        "wrong-lead",
        dynamic("mirrorless-mic", "mic", "xlr-trs-one-to-one"),
        dynamic("mirrorless-mic", "mic", "xlr-trs"),
        STOP,
        "in mono nothing is left",
    ),
    Case(
        "wrong-lead",
        dynamic("bag-recorder", "in1", "xlr", "xlr-crossed"),
        dynamic("bag-recorder", "in1", "xlr"),
        CAUTION,
        "swaps hot and cold",
    ),
    Case(
        "wrong-lead",
        made(device("shoulder-camcorder", "cam"), run("bag.line", "cam.in1", "trs-xlr"), base=boom_in_bag()),
        made(device("shoulder-camcorder", "cam"), run("bag.line", "cam.in1", "trs-xlr-mono"), base=boom_in_bag()),
        STOP,
        "left minus right",
    ),
    Case(
        "wrong-lead",
        made(device("field-mixer", "mix"), run("bag.aes", "mix.in1", "xlr"), base=boom_in_bag()),
        made(device("field-mixer", "mix"), run("bag.out-l", "mix.in1", "xlr"), base=boom_in_bag()),
        STOP,
        "expects a voltage or other numbers",
        cured=False,
    ),
    Case(
        "digital-mode",
        made(put("box", "in.mode", "aes3"), base=cinema_mic()),
        cinema_mic(),
        STOP,
        "sends a voltage",
        cured=False,
    ),
    Case("unbalanced-too-long", padded_plan(25, 3.0), padded_plan(25, 0.3), CAUTION, "unbalanced for 3 m"),
    Case("microphone-unpowered", cinema_mic(switch=True), cinema_mic(switch=True, menu=True), STOP, "off in the menu"),
    Case(
        "microphone-unpowered",
        dynamic("mirrorless-mic", "mic", "xlr-trs", microphone="boom-shotgun"),
        dynamic("mirrorless-mic", "mic", "xlr-trs"),
        STOP,
        "cannot give it",
        cured=False,
    ),
    Case(
        "microphone-unpowered",
        dynamic("mirrorless-mic", "mic", "xlr-trs", microphone="battery-condenser"),
        made(
            put("mic", "capsule.cell", True),
            base=dynamic("mirrorless-mic", "mic", "xlr-trs", microphone="battery-condenser"),
        ),
        STOP,
        "needs P48",
    ),
    Case(
        "microphone-unpowered",
        dynamic("mirrorless-mic", "mic", microphone="on-camera-microphone"),
        made(put("mic", "capsule.cell", True), base=dynamic("mirrorless-mic", "mic", microphone="on-camera-microphone")),
        STOP,
        "no gauge",
    ),
    Case(
        "microphone-unpowered",
        dynamic("mirrorless-mic", "mic", microphone="lavalier"),
        worn(),
        STOP,
        "plug-in power",
    ),
    Case("transmitter-low", lavalier_on_air(gain_db=0), lavalier_on_air(gain_db=20), CAUTION, "Turn it up first"),
    Case(
        "transmitter-low",
        dynamic_on_air(distance_m=0.8),
        dynamic_on_air(distance_m=0.1),
        CAUTION,
        "with its gain all the way up. Go nearer",
        cured=False,
    ),
    Case("harmful-power", ribbon(power=True), ribbon(power=False), STOP, "can harm"),
    Case(
        "harmful-power",
        made(device("bag-recorder", "two"), run("bag.out-l", "two.in1", "xlr"), put("two", "in1.phantom.menu", True), base=boom_in_bag()),
        made(device("bag-recorder", "two"), run("bag.out-l", "two.in1", "xlr"), base=boom_in_bag()),
        CAUTION,
        "not made for it",
    ),
    Case(
        "source-without-track",
        made(Hear(source="voice", device="boom", distance_m=None), base=boom_in_bag()),
        boom_in_bag(),
        STOP,
        "No microphone is at it",
        cured=False,
    ),
    Case(
        "source-without-track",
        made(
            *(RouteBus(device="bag", bus=bus, inputs=()) for bus in ("1", "mix-l", "mix-r")),
            base=boom_in_bag(),
        ),
        boom_in_bag(),
        STOP,
        "route its input to a track",
    ),
    Case(
        "source-without-track",
        made(Disconnect(run="run-2"), base=through_mixer()),
        through_mixer(),
        STOP,
        "nothing leads on from mix: connect mix to what records",
        cured=False,
    ),
    Case(
        "track-without-source",
        made(device("pocket-recorder", "pocket"), base=boom_in_bag()),
        boom_in_bag(),
        CAUTION,
        "Nothing is plugged into pocket",
        cured=False,
    ),
    Case(
        "track-without-source",
        made(device("dynamic-handheld", "hand"), run("hand.out", "bag.in2", "xlr"), base=boom_in_bag()),
        boom_in_bag(),
        CAUTION,
        "Say what hand hears",
        cured=False,
    ),
    Case(
        "track-without-source",
        made(device("desk-mixer", "desk"), run("desk.main-l", "bag.in2", "trs635-xlr"), base=boom_in_bag()),
        boom_in_bag(),
        CAUTION,
        "desk gets no sound yet",
        cured=False,
    ),
    *PATCH_CASES,
    *CLOCK_CASES,
]  # fmt: skip


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case.rule}: {case.says}")
def test_rule(case):
    bad = found(case.bad, case.rule)
    assert bad, "the rule does not see its own example"
    texts = [said(finding, PlanIndex(case.bad)).text for finding in bad]
    assert any(case.says in text for text in texts), texts
    assert case.severity in {finding.severity for finding in bad}
    assert not any(case.says in said(finding, PlanIndex(case.good)).text for finding in found(case.good, case.rule))
    if case.cured:
        fix = fixes(case.bad, bad[0])[0]
        cured = apply_edits(case.bad, fix.edits)
        assert bad[0].id not in {finding.id for finding in found(cured, case.rule)}, fix.label


def test_every_rule_has_an_example():
    assert {case.rule for case in CASES} == set(RULES)


def test_a_finding_says_where_why_and_from_what():
    for case in CASES:
        for finding in found(case.bad, case.rule):
            assert (
                said(finding, PlanIndex(case.bad)).text.endswith(".") and finding.source in SOURCE_WORDS and finding.id
            )
            assert finding.station in ("runs", "levels", "clock")


def test_stops_come_first():
    severities = [finding.severity for finding in check(Report(trace_plan(line_into_camera())))]
    assert severities == sorted(severities, key=[STOP, CAUTION, NOTE].index)


def test_a_generator_more_is_sound_on_a_track_of_its_own():
    """Where a camera has no timecode socket: jammed in place of the camera, its track kept for nothing else."""
    plan = jammed_camera("mirrorless-mic")
    (finding,) = found(plan, "missed-jam")
    cured = apply_edits(plan, fixes(plan, finding)[0].edits)
    timecode_device = next(item for item in timecode_devices(Report(trace_plan(cured))) if item.device == "cam")
    assert (timecode_device.gets, timecode_device.giver, timecode_device.loss_db) == (
        TimecodeFrom.SOUND,
        "timecode-generator",
        35,
    )
    assert PlanIndex(cured).role_of("cam", timecode_device.track.partition(".")[2]) is Role.TIMECODE
    assert not found(cured, "timecode-on-wrong-track")


def test_a_jam_after_the_day_leaves_it_without_time():
    """A day of 8:00 to 18:00, and the one jam at 19:00."""
    late = made(SetJam(device="cam", giver="bag", at_min=(19 * 60,)), base=jammed_camera("mirrorless-mic"))
    (finding,) = found(late, "missed-jam")
    missed = finding.facts["missed"]
    assert (missed.unset_until_min, missed.free_run) == (18 * 60, None)
    assert "has no time from bag until 18:00" in said(finding, PlanIndex(late)).text


@pytest.mark.parametrize(
    ("sending", "lead", "rule"), [("aes", "xlr-trs", "wrong-lead"), ("out-l", "xlr", "plugs-do-not-mate")]
)
def test_nothing_arrives_is_told_once(sending, lead, rule):
    """A camera that gets nothing through a wrong run has nothing to sync by either: one cause, one finding."""
    camera = device("mirrorless-mic", "cam"), put("cam", "mic.auto.menu", False)
    plan = made(*camera, run(f"bag.{sending}", "cam.mic", lead), base=boom_in_bag())
    about = [item for item in check(Report(trace_plan(plan))) if item.device == "cam" and item.severity is not NOTE]
    assert [item.rule for item in about] == [rule]
    assert "nothing-to-sync-by" in {item.rule for item in about[0].beneath}


def test_the_clip_is_told_once():
    """line-into-mic says it; clipping does not say it again."""
    assert not found(line_into_camera(), "clipping")


@pytest.mark.parametrize(("gain_db", "rule", "words"), [
    (62, "clipping", "in 1 clips"), (58, "clipping", "likely clips"), (53, "burst-clips", "may clip"), (50, "burst-clips", "A shout would clip"),
])  # fmt: skip
def test_how_sure_a_finding_is(gain_db, rule, words):
    """Peaks of a voice at −20 dBFS with 50 dB: the ± of source, microphone and input is 4.4 dB (root of the sum of squares)."""
    base = made(put("bag", "in1.mic.gain_db", gain_db), base=boom_in_bag())
    (finding,) = found(base, rule)
    assert words in said(finding, PlanIndex(base)).title


def test_a_limiter_is_advised_where_there_is_one():
    """Said before of a phone, which has none."""
    phone = do(Plan(name="Street"), "set job room 65", "add phone camera as phone", "ann: lavalier to phone, 0.2 m")
    for plan, has_one in ((gain(50), True), (phone, False)):
        (finding,) = found(plan, "burst-clips")
        assert ("limiter" in said(finding, PlanIndex(plan)).text) == has_one


def test_who_is_lost_on_the_side_that_goes_nowhere_is_named():
    """Said before: that something else might be on it, where nobody or somebody was known to be."""
    one = do(
        Plan(name="Pair"),
        *("add bag recorder, eight as bag", "add clip-on receiver as rx", "add clip-on transmitter as ta"),
        *("ta to rx", "ann at ta, 0.2 m", "rx to bag 1"),
    )
    assert not found(one, "stereo-into-mono")
    both = do(one, "add clip-on transmitter as tb", "tb to rx", "ben at tb, 0.2 m")
    (finding,) = found(both, "stereo-into-mono")
    assert finding.severity is CAUTION and said(finding, PlanIndex(both)).title == "Ben is lost"


def test_a_camera_beside_two_recorders_is_one_note():
    """Said before: one for each recorder, two lavaliers into packs of their own and a camera on the dash."""
    lines = [f"add bodypack that records as pack {n}" for n in (1, 2)]
    lines += [f"add lavalier as lav {n}" for n in (1, 2)] + [f"p{n} at lav {n}, 0.2 m" for n in (1, 2)]
    plan = do(Plan(name="Car"), *lines, *(f"lav {n} to pack {n}" for n in (1, 2)), "add action camera as dash")
    (found,) = [item for item in check(Report(trace_plan(plan))) if item.rule == "nothing-to-sync-by"]
    assert {found.about, *found.facts["others"]} == {"pack-1", "pack-2"}
