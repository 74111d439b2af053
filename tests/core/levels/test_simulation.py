"""Stage levels against a sampled simulation: a sine and white noise go through the chain as numbers and are measured.

The simulation multiplies voltages and cuts them off as circuits do; it shares no code with the core, only the figures
of the devices. numpy is the reference.
"""

import math

import numpy as np
import pytest

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.core.levels import Report
from tidy_trunk.core.plan import AddSource, Part, Plan, RemoveSource, SetParts
from tidy_trunk.core.trace import accept

RATE = 48_000
DBU_V = math.sqrt(0.6)
TIME = np.arange(RATE) / RATE
RANDOM = np.random.default_rng(7)


def sine(rms_volts: float) -> np.ndarray:
    return math.sqrt(2) * rms_volts * np.sin(2 * np.pi * 997 * TIME)


def noise(rms_volts: float) -> np.ndarray:
    return rms_volts * RANDOM.standard_normal(RATE)


def rms_db(signal: np.ndarray, reference: float) -> float:
    return 20 * math.log10(math.sqrt(float(np.mean(signal**2))) / reference)


def dbu(value: float) -> float:
    return DBU_V * 10 ** (value / 20)


def ratio(db: float) -> float:
    return 10 ** (db / 20)


def clipped(signal: np.ndarray, rms_limit: float) -> np.ndarray:
    """Cut off where a sine of that RMS would peak."""
    return np.clip(signal, -math.sqrt(2) * rms_limit, math.sqrt(2) * rms_limit)


FULL_SCALE = 1 / math.sqrt(2)  # RMS of a sine that peaks at 1.0


def microphone(signal_pa: np.ndarray, mv_per_pa: float, source_ohm: float, load_ohm: float) -> np.ndarray:
    return signal_pa * mv_per_pa / 1000 * load_ohm / (load_ohm + source_ohm)


def bag_track(signal_v: np.ndarray, gain_db: float) -> np.ndarray:
    """Microphone input: first stage takes 0 dBu, 0 dBFS at +10 dBu less the gain; numbers peak at 1.0."""
    signal = clipped(signal_v, dbu(0))
    numbers = signal * ratio(gain_db) / dbu(10) * FULL_SCALE
    return np.clip(numbers, -1, 1)


def pad(db: float, signal_v: np.ndarray, source_ohm: float, load_ohm: float) -> np.ndarray:
    """An L pad made for 150 into 2500 ohm with ten times the source as input: resistors by the divider rule."""
    k = ratio(-db) * 2500 / 2650
    onward = k * (150 + 1500)
    series, shunt = 1500 - onward, 1 / (1 / onward - 1 / 2500)
    loaded = shunt * load_ohm / (shunt + load_ohm)
    return signal_v * loaded / (loaded + series + source_ohm)


def predicted(plan: Plan, track_id: str):
    return Report(accept(plan)).track(track_id).sound


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
    tone = AddSource(
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
    hand = AddSource(id="other", label="Other", average_db_spl=66, heard_by={"hand": 0.1})
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
        ratio = Report(accept(plan)).track(track_id).trace.stage.feeds[0][0].feeds[0][0].feeds[0][1]
        assert ratio * sign > 0 and 20 * math.log10(abs(ratio)) == pytest.approx(loss, abs=0.01)
        both = Report(accept(right)).track(track_id).trace.stage.feeds[0][0].feeds[0][0].feeds[0][1]
        assert both == pytest.approx(0.5 * 1250 / 1300, rel=1e-4), "both sides hear the hot leg, and load it together"


@pytest.mark.parametrize(("on", "level"), [(False, 78), (True, 78), (True, 60)])
def test_a_limiter_before_the_converter(on, level):
    """A feedback-free limiter as numbers: what comes out of the preamp is scaled so that no peak is above −3 dBFS."""
    loud = AddSource(id="loud", label="Loud", quiet_db_spl=level, average_db_spl=level, peak_db_spl=level, burst_db_spl=level, heard_by={"boom": 0.5})  # fmt: skip
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
