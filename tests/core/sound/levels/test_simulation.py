"""Stage levels against a sampled simulation: a sine and white noise go through the chain as numbers and are measured.

The simulation multiplies voltages and cuts them off as circuits do; it shares no code with the core, only the figures
of the devices. numpy is the reference.
"""

import itertools
import math

import numpy as np
import pytest
import scipy

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run, unweighted
from tidy_trunk.core.plan import Hear, Part, Plan, RemoveSource, RouteBus, SetJob, SetParts, SetSource
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

RATE = 48_000
DBU_V = math.sqrt(0.6)
TIME = np.arange(RATE) / RATE
RANDOM = np.random.default_rng(7)


def sine(rms_volts: float) -> np.ndarray:
    return math.sqrt(2) * rms_volts * np.sin(2 * np.pi * 997 * TIME)


def noise(rms_volts: float) -> np.ndarray:
    return rms_volts * RANDOM.standard_normal(RATE)


def rms_db(samples: np.ndarray, reference: float) -> float:
    return 20 * math.log10(math.sqrt(float(np.mean(samples**2))) / reference)


def dbu(value: float) -> float:
    return DBU_V * 10 ** (value / 20)


def ratio(db: float) -> float:
    return 10 ** (db / 20)


def clipped(samples: np.ndarray, rms_limit: float) -> np.ndarray:
    """Cut off where a sine of that RMS would peak."""
    return np.clip(samples, -math.sqrt(2) * rms_limit, math.sqrt(2) * rms_limit)


FULL_SCALE = 1 / math.sqrt(2)  # RMS of a sine that peaks at 1.0


def microphone(signal_pa: np.ndarray, mv_per_pa: float, source_ohm: float, load_ohm: float) -> np.ndarray:
    return signal_pa * mv_per_pa / 1000 * load_ohm / (load_ohm + source_ohm)


def bag_track(signal_v: np.ndarray, gain_db: float) -> np.ndarray:
    """Microphone input: first stage takes 0 dBu, 0 dBFS at +10 dBu less the gain; numbers peak at 1.0."""
    numbers = clipped(signal_v, dbu(0)) * ratio(gain_db) / dbu(10) * FULL_SCALE
    return np.clip(numbers, -1, 1)


def pad(db: float, signal_v: np.ndarray, source_ohm: float, load_ohm: float) -> np.ndarray:
    """An L pad made for 150 into 2500 ohm with ten times the source as input: resistors by the divider rule."""
    k = ratio(-db) * 2500 / 2650
    onward = k * (150 + 1500)
    series, shunt = 1500 - onward, 1 / (1 / onward - 1 / 2500)
    loaded = shunt * load_ohm / (shunt + load_ohm)
    return signal_v * loaded / (loaded + series + source_ohm)


def predicted(plan: Plan, track_id: str):
    return Report(trace_plan(plan)).track(track_id).sound


def voice(db_spl: float) -> np.ndarray:
    """At 0.5 m from something of that level at 1 m."""
    return sine(20e-6 * ratio(db_spl) / 0.5)


@pytest.mark.parametrize("gain_db", [30, 45, 60])
def test_microphone_into_recorder(gain_db):
    plan = made(put("bag", "in1.mic.gain_db", gain_db), base=boom_in_bag())
    simulated = bag_track(microphone(voice(60), 20, 150, 4000), gain_db)
    assert predicted(plan, "bag.1").average == pytest.approx(rms_db(simulated, FULL_SCALE), abs=0.2)


@pytest.mark.parametrize("lead_db", [15, 25, 40, 50])
def test_recorder_through_a_pad_into_a_camera(lead_db):
    parts = (Part(lead=f"trs-pad-{lead_db}", length_m=0.3),)
    plan = made(SetParts(run="run-2", parts=parts), base=line_into_camera())
    track = bag_track(microphone(voice(60), 20, 150, 4000), 50)
    line = track / FULL_SCALE * dbu(10)
    at_camera = clipped(pad(lead_db, line, 100, 2500), dbu(-10.5))
    numbers = np.clip(at_camera * ratio(1.5) / dbu(-9) * FULL_SCALE, -1, 1)
    assert predicted(plan, "cam.L").average == pytest.approx(rms_db(numbers, FULL_SCALE), abs=0.2)


def test_clipped_before_a_pad_stays_clipped():
    """The attenuator behind the converter: a full-scale tone ends as a square-topped one, 20 dB lower."""
    tone = unweighted(
        id="tone", label="Tone", quiet_db_spl=79, average_db_spl=79, peak_db_spl=79, heard_by={"boom": 0.5}
    )
    base = made(tone, base=line_into_camera("mirrorless-pad-behind"))
    plan = made(put("cam", "mic.pad", True), base=base)
    track = bag_track(microphone(voice(79), 20, 150, 4000), 50)
    line = track / FULL_SCALE * dbu(10) * 2500 / 2600
    numbers = np.clip(clipped(line, dbu(-10.5)) * ratio(1.5) / dbu(-9) * FULL_SCALE, -1, 1) * ratio(-20)
    sound = predicted(plan, "cam.L")
    assert 20 * math.log10(np.max(np.abs(numbers))) == pytest.approx(sound.peak, abs=0.2)
    assert np.mean(np.abs(numbers) > 0.99 * np.max(np.abs(numbers))) > 0.5, "the tops are flat"
    assert sound.clip is not None


@pytest.mark.parametrize(("place", "level"), list(itertools.product(("first", "between", "behind"), (60, 66, 79))))
def test_an_attenuator_in_each_of_its_places(place, level):
    """20 dB before the first stage, before the converter, or on the finished numbers: as voltages, each cut where it is cut."""
    tone = unweighted(id="tone", label="Tone", quiet_db_spl=level, average_db_spl=level, peak_db_spl=level, burst_db_spl=level, heard_by={"boom": 0.5})  # fmt: skip
    plan = made(RemoveSource(source="voice"), tone, put("cam", "mic.pad", True), base=line_into_camera(f"mirrorless-pad-{place}"))  # fmt: skip
    line = bag_track(microphone(voice(level), 20, 150, 4000), 50) / FULL_SCALE * dbu(10) * 2500 / 2600
    before, between, behind = (ratio(-20 if place == name else 0) for name in ("first", "between", "behind"))
    stage = clipped(line * before, dbu(-10.5)) * ratio(1.5) * between
    numbers = np.clip(stage / dbu(-9) * FULL_SCALE, -1, 1) * behind
    sound = predicted(plan, "cam.L")
    assert 20 * math.log10(np.max(np.abs(numbers))) == pytest.approx(sound.peak, abs=0.2)
    flat = np.mean(np.abs(numbers) > 0.999 * np.max(np.abs(numbers))) > 0.1
    assert (sound.clip is not None) is bool(flat)


def test_noise_adds_as_power():
    """Output hiss, preamp and converter of the camera with the lead in, and no sound: measured from three noises."""
    sound = predicted(padded_plan(25), "cam.L")
    hiss = pad(25, noise(dbu(-85)), 100, 2500)
    preamp = noise(dbu(-108))
    numbers = (hiss + preamp) * ratio(1.5) / dbu(-9) * FULL_SCALE + noise(FULL_SCALE * ratio(-73))
    parts = {item.name: item.level for item in sound.noises}
    together = sum(10 ** (parts[name] / 10) for name in ("bag line out hiss", "cam preamp", "cam converter"))
    assert 10 * math.log10(together) == pytest.approx(rms_db(numbers, FULL_SCALE), abs=0.2)


def test_two_voices_mix_by_power():
    hand = unweighted(id="other", label="Other", average_db_spl=66, heard_by={"hand": 0.1})
    plan = made(
        device("dynamic-handheld", "hand"), hand, run("hand.out", "bag.in2", "xlr"), put("bag", "in2.mic.gain_db", 50), base=boom_in_bag()
    )  # fmt: skip
    first = bag_track(microphone(voice(60), 20, 150, 4000), 50)
    second_pa = math.sqrt(2) * 20e-6 * ratio(66) / 0.1 * np.sin(2 * np.pi * 1301 * TIME)
    second = bag_track(microphone(second_pa, 1.8, 300, 4000), 50)
    assert predicted(plan, "bag.mix-l").average == pytest.approx(rms_db(first + second, FULL_SCALE), abs=0.2)


def test_one_to_one_lead_cancels_in_mono():
    """Hot left, cold right: half the voltage each, in opposite polarity; the sum of the two tracks is nothing."""
    plan = made(device("mirrorless-mic", "cam"), run("bag.out-l", "cam.mic", "xlr-trs-one-to-one"), base=boom_in_bag())
    right = made(device("mirrorless-mic", "cam"), run("bag.out-l", "cam.mic", "xlr-trs-open"), base=boom_in_bag())
    line = sine(dbu(-30))
    # Each leg of the output: half of it behind 50 Ω; each side of the socket: 2.5 kΩ.
    hot, cold = line / 2 * 2500 / 2550, -line / 2 * 2500 / 2550
    assert np.max(np.abs(hot + cold)) == 0
    for track_id, sign in (("cam.L", 1), ("cam.R", -1)):
        loss = rms_db(hot, 1) - rms_db(line, 1)
        ratio = Report(trace_plan(plan)).track(track_id).trace.stage.feeds[0][0].feeds[0][0].feeds[0][1]
        assert ratio * sign > 0 and 20 * math.log10(abs(ratio)) == pytest.approx(loss, abs=0.01)
        both = Report(trace_plan(right)).track(track_id).trace.stage.feeds[0][0].feeds[0][0].feeds[0][1]
        assert both == pytest.approx(0.5 * 1250 / 1300, rel=1e-4), "both sides hear the hot leg, and load it together"


@pytest.mark.parametrize(("on", "level"), [(False, 78), (True, 78), (True, 60)])
def test_a_limiter_before_the_converter(on, level):
    """A feedback-free limiter as numbers: what comes out of the preamp is scaled so that no peak is above −3 dBFS."""
    loud = unweighted(id="loud", label="Loud", quiet_db_spl=level, average_db_spl=level, peak_db_spl=level, burst_db_spl=level, heard_by={"boom": 0.5})  # fmt: skip
    plan = made(RemoveSource(source="voice"), loud, put("bag", "in1.limiter", on), base=boom_in_bag())
    numbers = clipped(microphone(voice(level), 20, 150, 4000), dbu(0)) * ratio(50) / dbu(10) * FULL_SCALE
    threshold = ratio(-3)
    if on:
        numbers *= min(1.0, threshold / np.max(np.abs(numbers)))
    sound = predicted(plan, "bag.1")
    simulated = np.clip(numbers, -1, 1)
    assert 20 * math.log10(np.max(np.abs(simulated))) == pytest.approx(sound.peak, abs=0.2)
    assert (sound.clip is not None) is bool(np.any(np.abs(numbers) > 1))
    assert (sound.limited_db > 0) is (on and level == 78)


@pytest.mark.parametrize(("angle", "pressure"), [(0, 1.0), (60, (0.37 + 0.63 * 0.5) * 0.75), (90, 0.37 * 0.5)])
def test_beside_the_axis_of_a_shotgun(angle, pressure):
    """Supercardioid times cardioid, which is from memory: by hand at angles with plain cosines."""
    plan = made(Hear(source="voice", device="boom", distance_m=0.5, off_axis_deg=angle), base=boom_in_bag())
    simulated = bag_track(microphone(pressure * voice(60), 20, 150, 4000), 50)
    assert predicted(plan, "bag.1").average == pytest.approx(rms_db(simulated, FULL_SCALE), abs=0.05)


@pytest.mark.parametrize("cut", ["off", "80", "160"])
def test_a_low_cut_on_the_rumble_of_a_place(cut):
    """Noise of that slope, made from its spectrum, through the chain and a Butterworth filter by scipy, and measured."""
    plan = made(SetJob(rumble_db_spl=70), put("bag", "in1.low_cut", cut), base=boom_in_bag())
    hertz = np.fft.rfftfreq(len(TIME), 1 / RATE)
    lines = np.where((hertz >= 20) & (hertz <= 20_000), np.maximum(hertz, 1) ** -1.5, 0)
    pascal = np.fft.irfft(lines * np.exp(2j * math.pi * RANDOM.random(len(hertz))), len(TIME))
    pascal *= 20e-6 * ratio(70) / math.sqrt(float(np.mean(pascal**2)))
    heard = microphone(pascal, 20, 150, 4000)
    if cut != "off":
        heard = scipy.signal.sosfilt(scipy.signal.butter(2, int(cut), "highpass", fs=RATE, output="sos"), heard)
    found = next(noise for noise in predicted(plan, "bag.1").noises if noise.name == "low-frequency noise")
    assert found.level == pytest.approx(rms_db(bag_track(heard, 50), FULL_SCALE), abs=0.25)


def test_a_companders_noise_in_the_pauses():
    """Compressed 2:1, sent over a channel with noise 55 dB down, expanded 1:2, while only the noise of room and microphone
    goes through: what comes out besides is the channel's."""
    base = made(
        device("lavalier", "lav"), device("bodypack-analogue", "pack"), device("receiver-one", "rx"), device("bag-recorder", "bag"),
        unweighted(id="voice", label="Voice", quiet_db_spl=60, average_db_spl=60, peak_db_spl=60, heard_by={"lav": 0.2}),
        run("lav.out", "pack.mic"), run("pack.air", "rx.air"), run("rx.out", "bag.in1", "xlr"),
    )  # fmt: skip
    report = Report(trace_plan(base))
    pack = report.solver.level(report.tracer.bus("pack", "air")).sound
    sent = noise(FULL_SCALE * ratio(pack.noise))
    gain = ratio(-pack.noise / 2)  # halves the level of a steady sound in dB
    received = (sent * gain + noise(FULL_SCALE * ratio(-55))) / gain
    air = report.solver.level(report.tracer.bus("rx", "air")).sound
    found = next(item for item in air.noises if item.name == "pack compander")
    assert found.level == pytest.approx(rms_db(received - sent, FULL_SCALE), abs=0.2)


@pytest.mark.parametrize(("pan", "left", "right"), [("centre", 0.7071, 0.7071), ("left", 1, 0), ("right", 0, 1)])
def test_a_pan_knob_keeps_the_power(pan, left, right):
    """Constant power, common practice: the squares of both sides add up to one."""
    plan = made(
        device("boom-shotgun", "boom"), device("field-mixer", "mixer"), device("bag-recorder", "bag"),
        unweighted(id="voice", label="Voice", average_db_spl=60, heard_by={"boom": 0.5}), run("boom.out", "mixer.in1", "xlr"),
        run("mixer.out-l", "bag.in1", "xlr"), run("mixer.out-r", "bag.in2", "xlr"),
        put("bag", "in1.mode", "line"), put("bag", "in2.mode", "line"), put("mixer", "in1.pan", pan),
        put("mixer", "in1.phantom.switch", True),
    )  # fmt: skip
    mixed = microphone(voice(60), 20, 150, 2000) * ratio(45) / dbu(22)  # re the mixer's clip point
    arrived = mixed * dbu(22) * 10_000 / 10_100 / dbu(24)
    for side, track_id in ((left, "bag.1"), (right, "bag.2")):
        sound = predicted(plan, track_id)
        if side:
            assert sound.average == pytest.approx(rms_db(arrived * side, 1), abs=0.05)
        else:
            assert sound.average == -math.inf


@pytest.mark.parametrize("same", [True, False])
def test_one_sound_by_two_ways_adds_as_voltage(same):
    """Both channels of a mono mix summed: 6 dB more; two voices: 3 dB. The preamps of the second device are its own."""
    second = () if same else (
        device("boom-shotgun", "other"), unweighted(id="two", label="Two", average_db_spl=60, heard_by={"other": 0.5}),
        run("other.out", "bag.in2", "xlr"), put("bag", "in2.mic.gain_db", 50), put("bag", "in2.phantom.menu", True),
    )  # fmt: skip
    plan = made(
        *second, device("bag-recorder", "far"), run("bag.out-l", "far.in1", "xlr"), run("bag.out-r", "far.in2", "xlr"),
        put("far", "in1.mode", "line"), put("far", "in2.mode", "line"), RouteBus(device="bag", bus="mix-l", inputs=("in1",)),
        RouteBus(device="bag", bus="mix-r", inputs=("in1",) if same else ("in2",)), base=boom_in_bag(),
    )  # fmt: skip
    first = bag_track(microphone(voice(60), 20, 150, 4000), 50)
    other = first if same else np.sqrt(2) * np.sqrt(np.mean(first**2)) * np.sin(2 * np.pi * 1301 * TIME)
    hiss = [noise(dbu(-85)) for _ in range(2)]
    arrived = [(item / FULL_SCALE * dbu(10) + own) * 10_000 / 10_100 / dbu(24) for item, own in zip((first, other), hiss, strict=True)]  # fmt: skip
    sound = predicted(plan, "far.mix-l")
    assert sound.average == pytest.approx(rms_db(sum(arrived), 1), abs=0.1)
    found = [item.level for item in sound.noises if item.name.startswith("bag out ")]
    simulated = sum(own * 10_000 / 10_100 / dbu(24) for own in hiss)
    assert 10 * math.log10(sum(10 ** (level / 10) for level in found)) == pytest.approx(rms_db(simulated, 1), abs=0.2)
    room = next(item.level for item in sound.noises if item.name == "room")
    once = next(item.level for item in predicted(plan, "bag.1").noises if item.name == "room")
    assert room - once + 14.086 == pytest.approx(
        6.02 if same else 3.01, abs=0.02
    )  # 24 dBu after 10, less 0.086 of bridging


@pytest.mark.parametrize("trim_db", [0, -10, -20])
def test_noise_before_and_after_an_analogue_trim(trim_db):
    """What comes before the trim falls with it, what the amplifier behind it makes stays: two noises, measured."""
    plan = made(
        device("lavalier", "lav"), device("bodypack-transmitter", "pack"), device("receiver-one", "rx"), device("bag-recorder", "bag"),
        run("lav.out", "pack.mic"), run("pack.air", "rx.air"), run("rx.out", "bag.in1", "xlr"), put("rx", "out.line.trim_db", trim_db),
    )  # fmt: skip
    simulated = noise(dbu(-112)) * ratio(trim_db) + noise(dbu(-120))
    report = Report(trace_plan(plan))
    output = report.tracer.bus("bag", "1").feeds[0][0].feeds[0][0].feeds[0][0]
    found = [item.level for item in report.solver.level(output).sound.noises if item.name.startswith("rx out")]
    assert 10 * math.log10(sum(10 ** (level / 10) for level in found)) == pytest.approx(
        rms_db(simulated, DBU_V), abs=0.2
    )


@pytest.mark.parametrize(("level", "digital_db"), [(60, 0), (60, 20), (148, -20)])
def test_digital_gain_comes_too_late_for_the_converter(level, digital_db):
    """The float recorder's input takes −2 dBu at its converter: what was cut there stays flat, however it is turned."""
    plan = made(
        device("dynamic-handheld", "mic"), device("float-recorder", "rec"), run("mic.out", "rec.mic", "xlr-trs-left"),
        unweighted(id="v", label="V", quiet_db_spl=level, average_db_spl=level, peak_db_spl=level, burst_db_spl=level, heard_by={"mic": 1}),
        put("rec", "mic.digital_gain_db", digital_db),
    )  # fmt: skip
    volts = microphone(sine(20e-6 * ratio(level)), 1.8, 300, 10_000)
    numbers = clipped(volts, dbu(-2)) / dbu(-2) * FULL_SCALE * ratio(digital_db)
    sound = predicted(plan, "rec.1")
    assert 20 * math.log10(np.max(np.abs(numbers))) == pytest.approx(sound.peak, abs=0.2)
    assert (sound.clip is not None) is (level == 148)


@pytest.mark.parametrize("volume_db", [0, -20, -40])
def test_a_headphone_amplifier_hisses_on_when_it_is_turned_down(volume_db):
    """Its volume acts on the numbers: the voice falls, the amplifier's noise stays."""
    plan = made(device("mirrorless-mic", "cam"), run("bag.phones", "cam.mic", "trs"), put("bag", "phones.phones.trim_db", volume_db), base=boom_in_bag())  # fmt: skip
    numbers = bag_track(microphone(voice(60), 20, 150, 4000), 50) * ratio(volume_db)
    report = Report(trace_plan(plan))
    output = report.tracer.bus("cam", "L").feeds[0][0].feeds[0][0].feeds[0][0]
    sound = report.solver.level(output).sound
    assert sound.average == pytest.approx(rms_db(numbers / FULL_SCALE * dbu(10), DBU_V), abs=0.2)
    hiss = next(item.level for item in sound.noises if item.name == "bag headphones hiss")
    assert hiss == pytest.approx(rms_db(noise(dbu(-76.5)), DBU_V), abs=0.2)


@pytest.mark.parametrize(("mode", "step_db"), [("mic-minus", -20), ("mic", 0), ("mic-plus", 20)])
def test_the_gain_switch_of_a_shoe_adapter(mode, step_db):
    plan = made(
        device("boom-shotgun", "boom"), device("shoe-adapter", "shoe"), device("mirrorless-line", "cam"), run("boom.out", "shoe.in1", "xlr"),
        unweighted(id="v", label="V", quiet_db_spl=70, average_db_spl=70, peak_db_spl=70, burst_db_spl=70, heard_by={"boom": 0.5}),
        run("shoe.shoe", "cam.shoe"), put("shoe", "in1.mode", mode), put("shoe", "in1.phantom.switch", True),
    )  # fmt: skip
    numbers = microphone(voice(70), 20, 150, 3000) / dbu(-30) * FULL_SCALE * ratio(step_db)
    assert predicted(plan, "cam.L").average == pytest.approx(rms_db(np.clip(numbers, -1, 1), FULL_SCALE), abs=0.2)


@pytest.mark.parametrize(("voice_db", "room"), [(60, 10), (60, 35), (60, 60), (30, 35), (80, 35)])
def test_automatic_level(voice_db, room):
    """All that it hears at −20 dBFS, and nothing moved by more than 30 dB, from memory; more than 16 dB on a quiet
    voice and more still in the pauses are common practice."""
    quiet = SetSource(source="voice", quiet_db_spl=voice_db - 12, average_db_spl=voice_db, peak_db_spl=voice_db + 14)
    plan = made(quiet, SetJob(room_noise_db_spl=room), put("cam", "mic.auto.menu", True), base=padded_plan(25))
    on, off = predicted(plan, "cam.L"), predicted(made(put("cam", "mic.auto.menu", False), base=plan), "cam.L")
    both = 10 * math.log10(10 ** (off.average / 10) + 10 ** (off.noise / 10))
    assert on.average == pytest.approx(off.average + max(-30.0, min(30.0, -20 - both)))
    assert on.peak - on.average == pytest.approx(off.peak - off.average)
    pause = noise(FULL_SCALE * ratio(off.noise))
    lifted = min(ratio(30), FULL_SCALE * ratio(-20) / math.sqrt(float(np.mean(pause**2))))
    assert on.noise == pytest.approx(rms_db(pause * lifted, FULL_SCALE), abs=0.2)
    if voice_db == 30:
        assert on.average - off.average > 16 and on.noise - off.noise >= on.average - off.average
