"""A camera beside several recorders: one that was cut off still tells where the camera lies, one that heard others does not."""

import numpy as np
import pytest

from tests.few import each_of
from tests.sounds import RATE, voice, wav
from tidy_trunk.core.log import ChannelHeard, DayFile
from tidy_trunk.sync.beside_recorder import held_against_recorder

HEARD = (ChannelHeard(peak_dbfs=-6.0, level_dbfs=-20.0, clipped=0, is_timecode=False),)


def kept(folder, name, samples, begins_s, *, is_picture=False):
    (folder / name).write_bytes(wav(samples))
    return DayFile(
        path=name, source="", is_picture=is_picture, seconds=len(samples) / RATE, begins_s=begins_s, heard=HEARD
    )


@pytest.mark.parametrize("late_s", each_of([0.4, 0.0], 1))
def test_a_recorder_that_was_cut_off_is_asked_too(tmp_path, late_s):
    spoken, elsewhere = voice(-20, 18, seed=1), voice(-20, 18, seed=2)
    files = [
        kept(tmp_path, "bag.wav", spoken[: 8 * RATE], 100.0),
        kept(tmp_path, "hall.wav", elsewhere, 100.0),
        kept(tmp_path, "camera.wav", 0.2 * spoken, 100.0 - late_s, is_picture=True),
    ]
    scratch = tmp_path / "scratch"
    scratch.mkdir()
    *_, camera = held_against_recorder(tmp_path, files, scratch)
    assert camera.off_s == pytest.approx(late_s, abs=0.001) and list(scratch.iterdir()) == []


@pytest.mark.deep
def test_nobody_who_heard_the_same_says_nothing(tmp_path):
    files = [
        kept(tmp_path, "hall.wav", voice(-20, 18, seed=2), 100.0),
        kept(tmp_path, "camera.wav", voice(-20, 18, seed=1), 100.0, is_picture=True),
    ]
    scratch = tmp_path / "scratch"
    scratch.mkdir()
    *_, camera = held_against_recorder(tmp_path, files, scratch)
    assert camera.off_s is None and np.isfinite(camera.seconds)
