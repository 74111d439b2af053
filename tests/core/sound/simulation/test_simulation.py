"""The simulation against the prediction: the same plan once as levels and once as sound, measured as a recording is."""

from itertools import combinations

import numpy as np
import pytest
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, line_into_camera, made, put, run
from tests.sounds import measured, noise, sine, voice
from tests.strategies import chains
from tidy_trunk.core.base.signal import dbfs_of_powers, speech_levels
from tidy_trunk.core.base.units import a_weighting_db, sum_powers_db
from tidy_trunk.core.plan import SetJob, apply_edits
from tidy_trunk.core.sound.levels import LevelSolver, Report, low_cut_db
from tidy_trunk.core.sound.simulation import Play, Simulator
from tidy_trunk.core.sound.simulation.wave import WavePassage
from tidy_trunk.core.sound.trace import StageKind, trace_plan, upstream_of
from tidy_trunk.core.time.clock import timecode_tracks

COUNT, RATE = 2**15, 48_000
WITHIN_DB = 0.5
WEIGHTS = np.array([10 ** (a_weighting_db(float(hertz)) / 10) for hertz in np.fft.rfftfreq(COUNT, 1 / RATE)])


def level(loop: np.ndarray) -> float:
    return float(dbfs_of_powers(np.mean(np.square(loop, dtype=np.float64))))


def a_level(loop: np.ndarray) -> float:
    """By numpy's transform and the curve of IEC 61672."""
    powers = 2 * np.abs(np.fft.rfft(loop.astype(np.float64)) / len(loop)) ** 2
    return float(dbfs_of_powers(powers @ WEIGHTS))


def is_steady(report: Report, stage) -> bool:
    """Whether nothing on the way follows the sound: no automatic level, limiter or compander."""
    for item in upstream_of(stage):
        placed = report.index.placed(item.device)
        if item.kind is StageKind.INPUT:
            port = placed.input(item.name)
            if placed.automatic_level_on(port) or placed.limiter_dbfs(port) is not None:
                return False
        if item.kind is StageKind.OUTPUT and placed.output_mode(placed.output(item.name)).compander_db is not None:
            return False
    return True


def mixes_partly_alike(stage) -> bool:
    """Whether two mixes that have only some of their sounds in common meet on the way: they are added by power, which
    docs/architecture.md names as a simplification, and are not predicted where they cancel."""
    for item in upstream_of(stage):
        for (one, _), (other, _) in combinations(item.feeds, 2):
            shared = {at.key for at in upstream_of(one)} & {at.key for at in upstream_of(other)}
            if one.origin != other.origin and shared:
                return True
    return False


def is_below_every_ceiling(simulator: Simulator, stage) -> bool:
    """The noises of a plan that makes no sense may clip by themselves, of which the prediction says nothing."""
    levels = [simulator.level(item) for item in upstream_of(stage)]
    return all(np.abs(item.sound).max() < 10 ** (item.ceiling / 20) for item in levels)


@pytest.mark.deep
def test_what_is_heard_is_what_was_predicted():
    noises, averages = [], []

    # Not made smaller: each try renders a whole plan.
    @settings(max_examples=200, phases=[Phase.generate], suppress_health_check=list(HealthCheck))
    @given(chains(), st.floats(20, 60), st.sampled_from([0.0, 60.0]))
    def compare(plan, room, rumble):
        plan = apply_edits(plan, [SetJob(room_noise_db_spl=round(room, 1), rumble_db_spl=rumble)])
        report = Report(trace_plan(plan))
        crowd, nobody = (Simulator(report.index, play, sample_count=COUNT) for play in (Play.CROWD, Play.NOBODY))
        timecode = {item.track for item in timecode_tracks(report)}  # which runs on when nobody speaks
        for track in report.tracks:
            stage, sound = track.trace.stage, track.sound
            if track.trace.id in timecode or not is_steady(report, stage) or sound.noise < -150:
                continue
            if mixes_partly_alike(stage):
                continue
            if is_below_every_ceiling(nobody, stage):
                silence = nobody.track_sound(stage)
                noises.append(sound.noise)
                assert level(silence) == pytest.approx(sound.noise, abs=WITHIN_DB)
                assert a_level(silence) == pytest.approx(sound.noise_a, abs=WITHIN_DB)
            if sound.clip is None and sound.average > -150 and is_below_every_ceiling(crowd, stage):
                averages.append(sound.average)
                both = sum_powers_db((sound.average, sound.noise))
                assert level(crowd.track_sound(stage)) == pytest.approx(both, abs=WITHIN_DB)

    compare()
    assert len(noises) > 100 and len(averages) > 50, "the plans do reach their tracks"


def test_two_mixes_of_nothing_make_one_noise():
    """Left less right of a stereo line out: what both mixes make alike goes, and the hiss of each side stays."""
    plan = made(
        device("bag-recorder", "bag"), device("two-input-recorder-tc", "rec"), put("rec", "in1.auto.menu", False),
        run("bag.line", "rec.in1", "trs-xlr", "xlr"),
    )  # fmt: skip
    report = Report(trace_plan(plan))
    simulator = Simulator(report.index, Play.NOBODY, sample_count=COUNT)
    track = report.known_track("rec.1")
    assert level(simulator.track_sound(track.trace.stage)) == pytest.approx(track.sound.noise, abs=WITHIN_DB)


def test_a_voice_has_the_levels_of_the_plan():
    """ITU-T P.56, simplified, finds what was put in; the peak is the expected one."""
    plan = boom_in_bag()
    report = Report(trace_plan(plan))
    source = next(iter(plan.sources.values()))
    simulator = Simulator(report.index)
    loop = simulator.level(upstream_of(report.tracks[0].trace.stage)[-1]).sound
    heard = speech_levels(loop.astype(np.float64) / 1e6, RATE)
    shift = 20 * np.log10(1e6) - 20 * np.log10(1 / source.heard_by["boom"])
    assert heard.average_dbfs + shift == pytest.approx(source.average_db_spl, abs=0.5)
    assert heard.peak_dbfs + shift == pytest.approx(source.peak_db_spl, abs=0.1)
    assert heard.noise_dbfs is None or heard.noise_dbfs < heard.average_dbfs - 40, "nothing is said in the pauses"


def test_a_clipped_track_is_heard_as_clipped():
    report = Report(trace_plan(line_into_camera()))
    track = report.track("cam.L")
    assert track.sound.clip is not None
    loop = Simulator(report.index).track_sound(track.trace.stage)
    found = measured(loop.astype(np.float64)).channels[0]
    assert found.clipped_count > 50 or found.has_flat_tops
    assert np.abs(loop).max() <= 1.0


def test_tone_from_a_device_is_where_levels_say():
    report = Report(trace_plan(boom_in_bag()))
    stage = report.tracks[0].trace.stage
    tone = {"bag": -20.0}
    loop = Simulator(report.index, oscillators=tone).track_sound(stage)
    assert level(loop) == pytest.approx(-20, abs=0.001)
    assert LevelSolver(report.index, oscillators=tone).track_sound(stage).average == -20


def passage_of(loop: np.ndarray) -> WavePassage:
    return WavePassage(loop.astype(np.float32), ("bus", "d", "1", 0), RATE)


@pytest.mark.parametrize("cut_hz", [80, 160])
@pytest.mark.parametrize("hertz", [46.875, 93.75, 187.5, 1500])
def test_a_low_cut_leaves_what_levels_say(cut_hz, hertz):
    passage = passage_of(np.sin(2 * np.pi * hertz * np.arange(COUNT) / RATE))
    passage.low_cut(cut_hz)
    assert level(passage.sound) == pytest.approx(low_cut_db(hertz, cut_hz), abs=0.01)


def test_a_limiter_lets_nothing_through_and_leaves_the_rest():
    loop = voice(-20, 8)
    passage = passage_of(loop)
    passage.limit(-12)
    assert np.abs(passage.sound).max() <= 10 ** (-12 / 20) + 1e-6
    quiet = passage_of(loop / 100)
    quiet.limit(-12)
    assert np.array_equal(quiet.sound, (loop / 100).astype(np.float32))


def test_automatic_level_turns_the_pauses_up_and_is_found():
    loop = voice(-20, 12) + noise(-70, 12)
    passage = passage_of(loop)
    passage.ride(-20.0, 20.0)
    before, after = (measured(sound.astype(np.float64)).channels[0] for sound in (loop, passage.sound))
    assert before.creeps_db == 0 and after.creeps_db > 3
    assert after.peak_dbfs == pytest.approx(before.peak_dbfs, abs=1.5), "words were at its target already"


def test_a_companders_noise_breathes_with_the_voice():
    """A channel of 60 dB: the expander halves its own gain, so that the noise under a tone is half as far up as the tone."""
    for tone_dbfs in (-10, -40):
        passage = passage_of(sine(1500, tone_dbfs, COUNT / RATE))
        before = passage.sound
        passage.compand("pack", 60)
        assert level(passage.sound - before) == pytest.approx(tone_dbfs / 2 - 60, abs=0.3)
