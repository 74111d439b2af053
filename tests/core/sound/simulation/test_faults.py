"""What befalls a chain in the simulation, found again by the same measuring that a real recording gets."""

import numpy as np
import pytest

from tests.few import each_of
from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tests.sounds import measured
from tidy_trunk.core.base.signal import dbfs_of_powers
from tidy_trunk.core.base.timecode import ltc_reading, read_frames
from tidy_trunk.core.plan import Hazard, Passing, RouteBus, SetJob, SetPath, Stretch
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.simulation import (
    BLEED_DB,
    Faults,
    Play,
    Simulator,
    clap_at,
    clock_ppm,
    recorded_by,
    strays,
    tone_and_silence,
    tone_take,
    truth,
)
from tidy_trunk.core.sound.trace import StageKind, trace_plan, upstream_of

RATE = 48_000
STRAYS = Faults(strays=True)


def played(plan, track, play=Play.NOBODY, faults=STRAYS, oscillators=None, count=2**18):
    report = Report(trace_plan(plan))
    simulator = Simulator(report.index, play, faults=faults, oscillators=oscillators or {}, sample_count=count)
    return simulator.track_sound(report.track(track).trace.stage)


def level(loop):
    return float(dbfs_of_powers(np.mean(np.square(loop, dtype=np.float64))))


def mains(plan, *devices, power="mains"):
    return made(*(put(name, "power", power) for name in devices), base=plan)


@pytest.mark.parametrize("hertz", each_of([50, 60], 1))
def test_a_mains_loop_hums_at_the_mains_and_one_battery_breaks_it(hertz):
    plan = made(SetJob(mains_hz=hertz), base=mains(padded_plan(), "bag", "cam"))
    hum = measured(played(plan, "cam.L")).channels[0].hum
    assert hum is not None and hum.mains_hz == hertz
    # By hand: the loop's hum at the terminals, full scale of the camera there.
    full_scale_dbu = -9 - 1.5
    assert hum.level_dbfs == pytest.approx(strays(trace_plan(plan).index)["run-2"].hum_dbu - full_scale_dbu, abs=1.0)
    quiet = made(put("cam", "power", "battery"), base=plan)
    assert measured(played(quiet, "cam.L")).channels[0].hum is None
    assert measured(played(plan, "cam.L", faults=Faults())).channels[0].hum is None, "only where it is asked for"


@pytest.mark.deep
def test_a_computer_clicks():
    plan = mains(mains(padded_plan(), "bag"), "cam", power="computer-usb")
    assert len(measured(played(plan, "cam.L")).channels[0].clicks) >= 5
    assert not measured(played(mains(padded_plan(), "bag", "cam"), "cam.L")).channels[0].clicks


def test_a_dimmer_is_heard_in_an_unbalanced_lead_and_hardly_in_a_balanced_one():
    """Twice as near is 6 dB more, and a balanced lead keeps 40 dB out."""

    def hum(metres, run_id="run-2", base=None):
        path = (Stretch(3.0, (Passing(Hazard.DIMMER, metres),)),)
        return strays(trace_plan(made(SetPath(run=run_id, path=path), base=base or padded_plan(length_m=2.0))).index)[
            run_id
        ]

    assert hum(0.5).hum_dbu - hum(1.0).hum_dbu == pytest.approx(6.02, abs=0.01)
    balanced = hum(0.5, "run-1", boom_in_bag())
    assert hum(0.5).hum_dbu - balanced.hum_dbu == pytest.approx(40 - 20 * np.log10(7 / 2), abs=0.01)


def test_one_side_of_a_camera_is_heard_in_the_other():
    """Nothing is routed to the right: what it holds then is its own hiss, and the left one's sound so much lower."""
    plan = made(RouteBus(device="bag", bus="mix-r", inputs=()), put("cam", "mic.mic.gain_db", 1.5), base=padded_plan())
    left, alone, both = (
        10 ** (level(played(plan, track, Play.TONE, faults)) / 10)
        for track, faults in (("cam.L", Faults()), ("cam.R", Faults()), ("cam.R", STRAYS))
    )
    assert 10 * np.log10((both - alone) / left) == pytest.approx(BLEED_DB, abs=0.5)


def test_a_loose_plug_lets_go_and_crackles():
    tight = played(padded_plan(), "cam.L", faults=Faults(), oscillators={"bag": -20.0})
    loose = played(padded_plan(), "cam.L", faults=Faults(loose="run-2"), oscillators={"bag": -20.0})
    blocks = np.abs(loose).reshape(-1, 64).max(axis=1)
    held = np.abs(tight).reshape(-1, 64).max(axis=1)
    assert 5 < (blocks < held / 10).sum() < len(held) / 4, "it lets go for a while, and holds mostly"
    assert np.array_equal(
        loose, played(padded_plan(), "cam.L", faults=Faults(loose="run-2"), oscillators={"bag": -20.0})
    )


@pytest.mark.parametrize(("sender", "recorder"), [(0.0, 30.0), (5.0, -40.0), (-12.0, 0.0)])
def test_a_recording_is_as_slow_as_its_clock_is_fast(sender, recorder):
    """A tone of 1 kHz on a fast sender is higher, on a fast recorder lower, by the difference of both in millionths."""
    count = 2**18
    tone = np.sin(2 * np.pi * np.arange(count) * round(1000 * count / RATE) / count).astype(np.float32)
    exact = round(1000 * count / RATE) / count * RATE
    found = recorded_by(tone, sender, recorder)
    phase = np.unwrap(
        np.angle(np.fft.ifft(np.where(np.fft.fftfreq(len(found)) > 0, np.fft.fft(found.astype(float)), 0)))
    )
    hertz = np.polyfit(np.arange(1000, 200_000) / RATE, phase[1000:200_000], 1)[0] / (2 * np.pi)
    assert (hertz / exact - 1) * 1e6 == pytest.approx(sender - recorder, abs=0.05)


def test_the_clocks_of_the_simulation_keep_to_their_class_and_are_heard_in_a_tone():
    plan = truth(padded_plan())
    camera, bag = (clock_ppm(trace_plan(plan).index, device) for device in ("cam", "bag"))
    ppm = camera - bag
    assert 0.5 < abs(camera) <= 30 and abs(bag) <= 2
    tone = measured(tone_take(plan, "cam.L")).channels[0].tone
    sent = round(1000 * 2**18 / RATE) / 2**18 * RATE
    assert tone.frequency_hz == pytest.approx(sent * (1 - ppm * 1e-6), abs=0.006)


def test_silence_behind_the_tone_is_silence():
    channel = measured(tone_and_silence(truth(padded_plan()), "cam.L")).channels[0]
    assert channel.tone.seconds == pytest.approx(4, abs=0.2) and channel.noise.found == "pauses"


def test_what_sources_do_is_as_loud_as_the_plan_says():
    plan = boom_in_bag()
    source = plan.sources["voice"]
    report = Report(trace_plan(plan))
    boom = next(item for item in upstream_of(report.track("bag.1").trace.stage) if item.kind is StageKind.MICROPHONE)

    def peak(play):
        simulator = Simulator(report.index, play, sample_count=2**18)
        return 20 * np.log10(np.abs(simulator.level(boom).sound).max())

    nearer = 20 * np.log10(1 / 0.5)
    for play in (Play.BELL, Play.CLAP, Play.VOICE):
        assert peak(play) == pytest.approx(source.peak_db_spl + nearer, abs=1.0)
    assert peak(Play.LAUGH) == pytest.approx(source.burst_db_spl + nearer, abs=2.0)
    windy = Simulator(report.index, Play.WIND, sample_count=2**18).level(boom).sound
    loud = np.sqrt(np.mean(np.square(windy.reshape(-1, 2**13)), axis=1))
    assert level(windy) == pytest.approx(75, abs=1) and 20 * np.log10(loud.max() / loud.min()) > 10, "it comes in gusts"


def test_a_clap_is_heard_before_its_picture_comes():
    """By hand: 5 frames of the camera and 2 of the switcher at 25 are 280 ms; the boom hears it 1.5 ms late."""
    edits = [
        device("live-switcher", "vision"),
        run("cam.hdmi", "vision.hdmi1", "hdmi"),
        run("bag.phones", "vision.audio", "trs"),
    ]
    plan = made(*edits, base=line_into_camera())
    report = Report(trace_plan(plan))
    simulator = Simulator(report.index, Play.CLAP)
    clap = clap_at(report.index, "vision", simulator.track_sound(report.track("vision.pgm-l").trace.stage), RATE)
    assert clap.early_ms == pytest.approx(280 - 1000 * 0.5 / 343, abs=2.0)
    camera = simulator.track_sound(report.track("cam.L").trace.stage)
    assert clap_at(report.index, "cam", camera, RATE) is None, "in its own file they are in step"


def test_timecode_as_sound_reaches_its_track_and_can_be_read_there():
    """By hand: 1.5 V from peak to peak peaks as a sine of -3 dBu does; 35 dB of lead, and the camera's full scale."""
    edits = [device("timecode-generator", "tc"), device("mirrorless-mic", "cam"), put("cam", "mic.auto.menu", False)]
    plan = made(*edits, run("tc.tc-out", "cam.mic", "bnc-trs-pad-35"))
    track = Report(trace_plan(plan)).track("cam.L")
    sound = played(plan, "cam.L", faults=Faults())
    peak = 20 * np.log10(np.abs(sound).max())
    assert track.sound.peak == pytest.approx(-3 - 35 + 9 + 1.5, abs=0.5) and peak == pytest.approx(
        track.sound.peak, abs=0.5
    )
    frames = read_frames(lambda start, count: sound[start : start + count], len(sound), RATE)
    found = ltc_reading(frames, RATE)
    assert (found.rate_name, str(found.start)) == ("25", "10:00:00:00") and found.frame_count > 130
