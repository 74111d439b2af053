"""Levels, noise, clipping and headroom against the second model; each fault that it once found, by a plan of its own.

The model reads the plan document and the classes. Where figures are worked by hand, the formula stands beside them.
"""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, fixes, line_into_camera, made, padded_plan, put, run
from tests.reference import sound
from tests.reference.rigs import ENDS, MICROPHONES, MIDDLES, drawn
from tests.reference.sound import Model, db, total
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.plan import AddSource, Part, Plan, RouteBus, SetJob, SetParts, SetSource
from tidy_trunk.core.sound.levels import Report, a_change_db
from tidy_trunk.core.sound.levels.spectra import SpectrumShape
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document import write_plan

LEVEL_DB, NOISE_DB, SMALL_NOISE_DB, NOTHING_DB = 0.1, 0.3, 1.0, -180.0


def report(plan: Plan) -> Report:
    return Report(trace_plan(plan))


def agree(plan: Plan) -> tuple[Report, int]:
    """Holds every track that something reaches against the model; how many those were."""
    ours, theirs, compared = report(plan), Model(write_plan(plan)), 0
    for track in ours.tracks:
        wave, found = theirs.bus(track.trace.device, track.trace.bus), track.sound
        if wave.partial or not (track.trace.stage.feeds or track.trace.stage.idle):
            continue
        compared += 1
        assert found.average == near(db(wave.average()), LEVEL_DB), (plan.name, track.trace.id)
        assert found.peak == near(db(total(wave.parts, "peak")), LEVEL_DB), (plan.name, track.trace.id)
        assert found.noise == near(db(wave.noise()), NOISE_DB), (plan.name, track.trace.id)
        assert (found.clip is not None) is (wave.cut_db > 0), (plan.name, track.trace.id)
        if not track.is_silent:
            assert track.headroom_db == near(wave.headroom_db, LEVEL_DB), (plan.name, track.trace.id)
        agree_on_noises(plan, track, wave)
    return ours, compared


def near(level: float, within: float):
    """What is left of two voltages that cancel is nothing."""
    return -math.inf if level < NOTHING_DB else level if math.isinf(level) else pytest.approx(level, abs=within)


def agree_on_noises(plan: Plan, track, wave) -> None:
    """Each contributor that the program names: the model's noises of that kind, added by power."""
    theirs: dict[str, float] = {}
    for atom, gain in wave.parts.items():
        if atom.noise:
            name = atom.name.partition("|")[0]
            kind = next((word for word in ("preamp", "converter", "hiss", "amplifier") if word in name), name)
            theirs[kind] = theirs.get(kind, 0.0) + atom.noise * float((atom.spectrum * abs(gain) ** 2).sum())
    ours: dict[str, float] = {}
    for noise in track.sound.noises:
        if noise.name == "all other gear":
            return  # the smallest of many are told as one
        kind = next((word for word in ("preamp", "converter", "hiss", "amplifier") if word in noise.name), noise.name)
        ours[kind] = ours.get(kind, 0.0) + sound.power(noise.level)
    for kind, power in theirs.items():
        if db(power) > -140:
            # The program tells inputs of one device by one name: what an idle one adds is then taken as alike on both ways.
            within = NOISE_DB if power > sum(theirs.values()) / 100 else SMALL_NOISE_DB
            assert db(ours.get(kind, 0.0)) == near(db(power), within), (plan.name, track.trace.id, kind)


@given(st.integers(0, 1_000_000))
def test_rigs_drawn_at_random(seed):
    agree(drawn(seed))


@pytest.mark.deep
def test_every_class_takes_part_in_what_is_drawn():
    drawn_classes = {item.class_id for seed in range(60) for item in drawn(seed).devices.values()}
    assert drawn_classes >= {*MICROPHONES, *MIDDLES, *ENDS}


def test_speech_is_stated_a_weighted_and_heard_unweighted():
    """IEC 61672-1 table 3 on the third octaves of Byrne et al. 1994, whose bands add up to their 70 dB in all."""
    weights = {
        63: -26.2, 80: -22.5, 100: -19.1, 125: -16.1, 160: -13.4, 200: -10.9, 250: -8.6, 315: -6.6, 400: -4.8, 500: -3.2, 630: -1.9,
        800: -0.8, 1000: 0, 1250: 0.6, 1600: 1.0, 2000: 1.2, 2500: 1.3, 3150: 1.2, 4000: 1.0, 5000: 0.5, 6300: -0.1, 8000: -1.1,
        10000: -2.5, 12500: -4.3, 16000: -6.6,
    }  # fmt: skip
    published = dict(zip(weights, sound.SPEECH[5:30], strict=True))
    whole = db(sum(sound.power(level) for level in published.values()))
    assert whole == pytest.approx(70.0, abs=0.1), "as published, of both sexes together"
    weighted = db(sum(sound.power(level + weights[hertz]) for hertz, level in published.items()))
    assert a_change_db(SpectrumShape.VOICE) == pytest.approx(weighted - whole, abs=0.05)
    voice = AddSource(id="speech", label="Speech", average_db_spl=60, heard_by={"boom": 0.5})
    plan = made(voice, base=made(RouteBus(device="bag", bus="2", inputs=()), base=boom_in_bag()))
    ours, _ = agree(plan)
    # The other voice, of 60 dB unweighted from as far: 0 and 4.1 dB together are 5.5.
    alone = report(boom_in_bag()).track("bag.1").sound.average
    assert ours.track("bag.1").sound.average - alone == pytest.approx(db(1 + sound.power(whole - weighted)), abs=0.05)


def test_headroom_is_that_of_the_whole_way():
    """The bag has 6 dB left above its peaks, the camera 35 dB behind a lead of 40: what comes first counts."""
    plan = padded_plan(40)
    ours, _ = agree(plan)
    bag, cam = ours.track("bag.1"), ours.track("cam.L")
    assert cam.headroom_db == pytest.approx(bag.headroom_db, abs=0.01) and -cam.sound.peak > cam.headroom_db + 10
    for louder_db in (5, 10, 16):
        source = report(plan).index.plan.sources["voice"]
        levels = {key: getattr(source, key) + louder_db for key in ("quiet_db_spl", "average_db_spl", "peak_db_spl")}
        louder, _ = agree(made(SetSource(source="voice", **levels), base=plan))
        assert louder.track("cam.L").headroom_db == pytest.approx(cam.headroom_db - louder_db, abs=0.01), (
            "dB for dB, through 0"
        )


def test_what_is_to_come_down_in_all_where_two_devices_clip():
    plan = made(put("bag", "in1.mic.gain_db", 70), base=line_into_camera())
    ours, _ = agree(plan)
    cam, bag = ours.track("cam.L"), ours.track("bag.1")
    # Peaks of -6 at 50 dB of gain are +14 at 70; the line into the camera is 14.1 over at -6.
    assert bag.clips_by_db == pytest.approx(14, abs=0.1) and cam.clips_by_db == pytest.approx(34.1, abs=0.1)
    assert cam.clip.device == "bag" and cam.headroom_db == -cam.clips_by_db


def test_the_output_of_a_float_recorder_clips():
    """Handbook §6: float saves the file, not what is fed from it."""
    plan = made(
        device("lavalier", "lav"),
        device("float-recorder", "pack"),
        device("mirrorless-line", "cam"),
        run("lav.out", "pack.mic"),
        run("pack.phones", "cam.mic", "trs"),
        put("pack", "mic.digital_gain_db", 40),
        put("pack", "phones.phones.trim_db", 0),
        put("cam", "mic.mode", "line"),
        put("cam", "mic.auto.menu", False),
        AddSource(id="voice", label="Voice", average_db_spl=80, heard_by={"lav": 0.3}),
    )
    ours, _ = agree(plan)
    assert ours.track("pack.1").clip is None, "the file has it"
    clip = ours.track("cam.L").clip
    assert clip is not None and clip.device == "pack" and "headphones" in clip.where and clip.over_db > 10
    found = next(item for item in check(ours) if item.rule == "clipping")
    assert found.severity is Severity.STOP and found.device == "pack" and fixes(plan, found)
    fixed, _ = agree(made(*fixes(plan, found)[0].edits, base=plan))
    assert fixed.track("cam.L").clip is None


def test_noise_alone_clips_a_converter():
    plan = made(SetJob(rumble_db_spl=100.0), base=boom_in_bag())
    ours, _ = agree(plan)
    track = ours.track("bag.1")
    # 100 dB SPL at 20 mV/Pa is -25.7 dBu; 50 dB of gain against +10 dBu: +13.9 dBFS. Its peaks are 9 dB higher.
    assert (
        track.clip is not None
        and track.clip.noise == "low-frequency noise"
        and track.clip.over_db == pytest.approx(13.9 + 9, abs=0.1)
    )
    assert track.sound.noise == pytest.approx(0, abs=0.1), "no more than full scale"
    stop = next(item for item in check(ours) if item.rule == "clipping")
    assert stop.severity is Severity.STOP and stop.facts["noise"] == "low-frequency noise" and fixes(plan, stop)


@pytest.mark.parametrize(
    ("class_id", "less_db"), [("boom-shotgun", 7.5), ("battery-condenser", 4.8), ("lavalier", 0.0)]
)
def test_a_directional_microphone_picks_up_less_of_the_room(class_id, less_db):
    """Textbook: 10 log Q of what comes from all sides; 4.8 dB for a cardioid, Q = 3."""
    plan = made(
        device(class_id, "mic"),
        device("handheld-recorder", "rec"),
        AddSource(id="voice", label="Voice", average_db_spl=60, heard_by={"mic": 0.3}),
        SetJob(room_noise_db_spl=50.0),
    )
    ours = report(plan)
    stage = ours.tracer.microphone("mic")
    room = next(noise for noise in ours.solver.level(stage).sound.noises if noise.name == "room")
    assert room.a_level == pytest.approx(50 - less_db, abs=0.05)
    theirs = Model(write_plan(plan)).microphone("mic")
    by_model = next(atom for atom in theirs.parts if atom.name.startswith("room"))
    assert room.level == pytest.approx(db(by_model.noise), abs=0.01)


def split(*edits) -> Plan:
    """A microphone on a bag recorder and a mixer at once."""
    left, right = (Part(lead="xlr-2xlr", length_m=0.5, branch=side, shared="y") for side in "LR")
    return made(
        device("dynamic-handheld", "mic"),
        device("bag-recorder", "bag"),
        device("field-mixer", "mixer"),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"mic": 0.1}),
        run("mic.out", "bag.in1", left),
        run("mic.out", "mixer.in1", right),
        *edits,
    )


def test_two_inputs_load_one_output_together():
    """300 Ω into 4 kΩ alone, and with 2 kΩ beside it: 1333 / 1633 against 4000 / 4300, 1.13 dB."""
    ours, _ = agree(split())
    alone = made(
        device("dynamic-handheld", "mic"),
        device("bag-recorder", "bag"),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"mic": 0.1}),
        run("mic.out", "bag.in1", "xlr"),
    )
    loss = report(alone).track("bag.1").sound.average - ours.track("bag.1").sound.average
    assert loss == pytest.approx(20 * math.log10((4000 / 4300) / ((4000 / 3) / (4000 / 3 + 300))), abs=0.001)


@pytest.mark.parametrize("at", ["bag", "mixer", "both", "none"])
def test_one_of_two_inputs_is_enough_for_phantom_power(at):
    edits = {"bag": put("bag", "in1.phantom.menu", True), "mixer": put("mixer", "in1.phantom.switch", True)}
    on = [edit for name, edit in edits.items() if at in (name, "both")]
    plan = made(*on, base=split())
    boom = made(device("boom-shotgun", "mic")).devices["mic"]
    ours, _ = agree(replace(plan, devices={**plan.devices, "mic": boom}))
    unpowered = [item for item in check(ours) if item.rule == "microphone-unpowered"]
    assert len(unpowered) == (1 if at == "none" else 0)
    assert ours.track("bag.1").is_silent is (at == "none"), "a condenser without power gives nothing"
    assert not any(item.rule in ("source-without-track", "track-without-source") for item in check(ours)), (
        "power is what is missing"
    )


def test_the_silent_side_of_a_stereo_plug_makes_its_noise():
    plan = made(
        device("lavalier", "lav"),
        device("pocket-recorder", "rec"),
        device("mirrorless-mic", "cam"),
        run("lav.out", "rec.in"),
        run("rec.phones", "cam.mic", "trs-pad-15"),
        put("rec", "in.plug_in.menu", True),
        put("rec", "in.auto.menu", False),
        put("cam", "mic.auto.menu", False),
        AddSource(id="voice", label="Voice", average_db_spl=60, heard_by={"lav": 0.2}),
    )
    ours, _ = agree(plan)
    right = ours.track("cam.R")
    assert right.is_silent and {"rec preamp", "rec converter"} <= {noise.name for noise in right.sound.noises}


def test_a_low_cut_stands_before_the_converter():
    """What it takes off a voice the converter takes more of: 160 Hz on a voice of which the peaks just clip without."""
    plan = made(put("bag", "in1.mic.gain_db", 57), put("bag", "in1.low_cut", "160"), base=boom_in_bag())
    ours, _ = agree(plan)
    without, _ = agree(made(put("bag", "in1.low_cut", "off"), base=plan))
    gain = ours.track("bag.1").headroom_db - without.track("bag.1").headroom_db
    assert without.track("bag.1").headroom_db < 0 and gain == pytest.approx(
        -db(sound.total(cut_voice(), "peak")), abs=0.01
    )


def cut_voice() -> dict:
    return {sound.Atom("voice", sound.VOICE, peak=1.0): sound.high_pass(160)}


def test_equivalent_input_noise_holds_the_source_that_it_was_stated_with():
    """EIN -125 dBu holds the -130.9 of 150 Ω: 300 Ω of a coil in its place make -124.0 - 1.3 + 1.3, not -123.2."""
    ours, _ = agree(split())
    level = {noise.name: noise.level for noise in ours.track("bag.1").sound.noises}
    assert level["mic coil"] - level["bag preamp"] == pytest.approx(
        sound.thermal_dbu(300)
        + 20 * math.log10((4000 / 3) / (4000 / 3 + 300))
        - db(sound.power(-125) - sound.power(sound.thermal_dbu(150))),
        abs=0.02,
    )


def test_an_on_camera_microphone_is_on_both_sides():
    plan = made(
        device("on-camera-microphone", "top"),
        device("mirrorless-mic", "cam"),
        run("top.out", "cam.mic"),
        put("top", "capsule.cell", True),
        put("cam", "mic.auto.menu", False),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"top": 0.8}),
    )
    ours, _ = agree(plan)
    assert ours.track("cam.L").sound.average == ours.track("cam.R").sound.average > -100
    assert not [item for item in check(ours) if item.rule == "track-without-source"]


def test_the_edge_of_an_opposite_pair_summed_in_one_track():
    """Hot left, cold right, and both into one track: nothing is left of the voice."""
    plan = made(
        device("mirrorless-mic", "cam"),
        run("bag.out-l", "cam.mic", "xlr-trs-one-to-one"),
        RouteBus(device="cam", bus="L", inputs=("mic.L", "mic.R")),
        put("cam", "mic.auto.menu", False),
        base=boom_in_bag(),
    )
    ours, _ = agree(plan)
    assert ours.track("cam.L").is_silent
    both = made(SetParts(run="run-2", parts=(Part(lead="xlr-trs-open", length_m=0.3),)), base=plan)
    assert agree(both)[0].track("cam.L").sound.average > -40
