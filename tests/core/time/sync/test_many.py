"""Many sounds with many others: made of voices that nobody else speaks, so that the truth is known."""

import pytest

from tests.core.time.sync.test_align import WITHIN_S, sound_of
from tests.sounds import RATE, noise, voice
from tidy_trunk.core.time.sync import PairOffset, match_many, timelines


def test_each_is_found_in_its_own_and_strangers_in_none():
    takes = [voice(-20, 20, seed) for seed in (11, 12, 13)]
    parts = [takes[2][5 * RATE : 15 * RATE], takes[0][2 * RATE : 12 * RATE] + noise(-26, 10, 4), voice(-20, 10, 99)]
    told: list[float] = []
    found = match_many([sound_of(take) for take in takes], [sound_of(part) for part in parts], 0.5, told.append)
    assert {(item.other, item.reference) for item in found} == {(0, 2), (1, 0)}
    begins = {item.other: item.alignment.offset_s for item in found}
    assert begins[0] == pytest.approx(5.0, abs=WITHIN_S) and begins[1] == pytest.approx(2.0, abs=WITHIN_S)
    assert told == [1 / 3, 2 / 3, 1.0]


def test_nothing_is_found_in_nothing():
    assert match_many([], [sound_of(voice(-20, 5))], 0.5, lambda _: None) == ()


def test_what_hangs_together_stands_on_one_timeline():
    """By hand: 1 begins 4 s after 0, 2 begins 1.5 s before 1; 3 hangs on nothing; a doubtful tie that says otherwise loses."""
    ties = [PairOffset(0, 1, 4.0, 0.9), PairOffset(1, 2, -1.5, 0.8), PairOffset(0, 2, 9.0, 0.6)]
    assert timelines(4, ties) == [{0: 0.0, 1: 4.0, 2: 2.5}, {3: 0.0}]
    assert timelines(2, [PairOffset(0, 1, -3.0, 1.0)]) == [{0: 3.0, 1: 0.0}], "from the earliest on"
    assert timelines(0, []) == []
