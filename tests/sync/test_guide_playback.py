"""Guide and recorder's sound in one: what fits is one voice, what does not is an echo, and timecode is never heard."""

import io

import numpy as np
import pytest

from tests.sounds import RATE, voice, wav
from tidy_trunk.core.base.timecode import RATES, Timecode, ltc_samples
from tidy_trunk.core.log import DayFile
from tidy_trunk.errors import InputError
from tidy_trunk.formats import read_sound
from tidy_trunk.sync.beside_recorder import FilePair
from tidy_trunk.sync.guide_playback import HEARD_S, played_together

VOICE = np.concatenate([np.zeros(5 * RATE), voice(-20, 15)])
BEHIND_S = 1.5


@pytest.fixture
def files(tmp_path):
    timecode = 0.2 * ltc_samples(Timecode.parse("10:00:00:00", RATES["25"]), RATE, 0, len(VOICE))
    guide = VOICE[round(BEHIND_S * RATE) :] * 0.1
    (tmp_path / "sound.wav").write_bytes(wav(VOICE, timecode))
    (tmp_path / "picture.wav").write_bytes(wav(guide, timecode[: len(guide)]))
    return tmp_path / "sound.wav", tmp_path / "picture.wav"


def heard(files, behind_s):
    samples, rate_hz = read_sound(io.BytesIO(played_together(*files, behind_s)), 1)
    assert rate_hz == RATE and len(samples) == HEARD_S * RATE and np.abs(samples).max() <= 10 ** (-3 / 20)
    return samples


def echo(samples, lag_s):
    """The autocorrelation at a lag, as a share of the power."""
    lag = round(lag_s * RATE)
    return float(np.dot(samples[lag:], samples[:-lag]) / np.dot(samples, samples))


def test_one_voice_or_an_echo(files):
    together, apart = heard(files, BEHIND_S), heard(files, BEHIND_S + 0.08)
    # It is the voice alone, from one of the seconds behind the silence: no timecode is in it.
    stretches = [
        VOICE[at:][: len(together)] for at in range(round(BEHIND_S * RATE), len(VOICE) - len(together) + 1, RATE)
    ]
    alike = [np.dot(together, one) / np.linalg.norm(together) / np.linalg.norm(one) for one in stretches]
    assert max(alike) > 0.999 and int(np.argmax(alike)) >= 3
    assert abs(echo(together, 0.08)) < 0.1 < 0.3 < echo(apart, 0.08)


@pytest.mark.parametrize(
    ("recorder_s", "camera_s", "offset_s", "is_enough"),
    [
        (6, 14, 4.6, False),
        (12, 5, 9.9, False),
        (60, 55, 4.6, True),
        (60, 20, 45, True),
        (60, 20, -15, False),
        (2, 60, 5, False),
    ],
)
def test_a_few_words_alike_make_no_clock_wrong(recorder_s, camera_s, offset_s, is_enough):
    """By hand: 1.4 of 6 seconds, 2.1 of 5, 55, 15 of 20, 5 of 20, and 2, which is too short for anything."""
    recorder = DayFile(path="a", source="", is_picture=False, seconds=recorder_s, begins_s=0)
    camera = DayFile(path="b", source="", is_picture=True, seconds=camera_s, begins_s=0)
    assert FilePair(recorder, camera).says_enough(offset_s) is is_enough


def test_what_did_not_run_at_one_time_is_refused(files):
    with pytest.raises(InputError, match="did not run at one time"):
        played_together(*files, 100.0)
