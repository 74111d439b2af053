"""Levels of made recordings whose parts are known: tone for the voice, noise for the place (numpy); AES17 for dBFS."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, line_into_camera, made, put, run
from tidy_trunk.core.base.signal import SpeechLevels, speech_levels
from tidy_trunk.core.plan import Plan, SetJob, apply_edits
from tidy_trunk.core.sound.levels import Report, heard_at
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError

RATE = 48_000


def recording(voice_dbfs: float = -20, noise_dbfs: float = -60, seconds: int = 6) -> np.ndarray:
    """A second of tone, a second of noise, and so on."""
    time = np.arange(RATE * seconds) / RATE
    tone = 10 ** (voice_dbfs / 20) * np.sin(2 * np.pi * 997 * time)
    noise = 10 ** (noise_dbfs / 20) / np.sqrt(2) * np.random.default_rng(3).standard_normal(len(time))
    return np.where(time.astype(int) % 2 == 0, tone, noise)


def heard(**levels) -> SpeechLevels:
    usual = {"average_dbfs": -22.0, "quiet_dbfs": -34.0, "peak_dbfs": -8.0, "noise_dbfs": -50.0, "noise_a_dbfs": -54.0}
    return SpeechLevels(**{**usual, "is_clipped": False, "seconds": 10.0, **levels})


def track(plan: Plan, track_id: str = "bag.1"):
    report = Report(trace_plan(plan))
    return report, report.track(track_id)


@pytest.mark.parametrize(("voice", "noise"), [(-20, -60), (-32, -50), (-6, -90)])
def test_voice_and_pauses_are_told_apart(voice, noise):
    found = speech_levels(recording(voice, noise), RATE)
    assert found.average_dbfs == pytest.approx(voice, abs=0.1)
    assert found.peak_dbfs == pytest.approx(voice, abs=0.1)
    assert found.noise_dbfs == pytest.approx(noise, abs=1.0), "the quietest pauses; 20 kHz of 24"
    assert found.noise_a_dbfs - found.noise_dbfs == pytest.approx(-2.1, abs=0.15), "A-weighting of white noise"
    assert not found.is_clipped


def test_flat_tops_are_seen():
    assert speech_levels(np.clip(recording(-6) * 4, -1, 1), RATE).is_clipped
    assert speech_levels(np.clip(recording(-6) * 4, -0.7, 0.7), RATE).is_clipped, (
        "also where something turned it down afterwards"
    )


@pytest.mark.parametrize("samples", [np.zeros(RATE * 2), np.ones(100), np.full(RATE * 2, np.nan)])
def test_what_tells_nothing_is_refused(samples):
    with pytest.raises(InputError):
        speech_levels(samples, RATE)


@given(st.floats(-40, -15), st.floats(20, 55))
def test_what_was_recorded_is_what_the_plan_then_says(average, gain_db):
    """Back through the chain and forth again: the track holds what the file holds."""
    plan = made(put("bag", "in1.mic.gain_db", round(gain_db)), base=boom_in_bag())
    report, at = track(plan)
    found = heard_at(report, at, heard(average_dbfs=average, quiet_dbfs=average - 10, peak_dbfs=average + 12))
    again = apply_edits(plan, found.edits)
    sound = track(again)[1].sound
    assert sound.average == pytest.approx(average, abs=0.06)
    assert sound.quiet == pytest.approx(average - 10, abs=0.11)


def test_the_place_is_read_from_the_pauses_without_the_gear():
    plan = made(SetJob(room_noise_db_spl=20, rumble_db_spl=55), base=boom_in_bag())
    report, at = track(plan)
    found = heard_at(report, at, heard(noise_a_dbfs=-50.0))
    sound = track(apply_edits(plan, found.room_edits))[1].sound
    assert sound.noise_a == pytest.approx(-50, abs=0.1)
    assert heard_at(report, at, heard(noise_a_dbfs=-95.0)).room_noise_db_a is None, "quieter than the gear alone"
    assert heard_at(report, at, heard(noise_a_dbfs=None)).room_edits == ()


@pytest.mark.parametrize(
    ("plan", "track_id", "what"),
    [
        (boom_in_bag(), "bag.2", "one source"),
        (line_into_camera(), "cam.L", "it clips"),
        (
            made(device("shoulder-camcorder", "cam"), run("bag.line", "cam.in1", "trs-xlr"), base=boom_in_bag()),
            "cam.1",
            "one source",
        ),
        (made(put("bag", "in1.limiter", True), base=boom_in_bag()), "bag.1", "limiter"),
    ],
)
def test_a_way_that_is_not_linear_tells_nothing(plan, track_id, what):
    report, at = track(plan, track_id)
    with pytest.raises(InputError, match=what):
        heard_at(report, at, heard())
    with pytest.raises(InputError, match="clipped"):
        heard_at(*track(boom_in_bag()), heard(is_clipped=True))
