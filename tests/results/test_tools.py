"""Answers of the tools in one line: no more digits than anybody sets, and a time to jam again in that is never too late."""

import pytest

from tidy_trunk.results.tools import converted, drifted, timecoded


@pytest.mark.parametrize(
    ("ppm", "often"),
    [
        ((1, 20), "jam again every 15 min"),  # half a frame of 25 is 20 ms; 21 ppm take 952 s for it
        ((1, 1), "jam again every 2.7 h"),  # 10,000 s
        ((50, 5000), "jam again every 3 s"),
        ((0, 0), "they never part"),
    ],
)
def test_when_to_jam_again_is_said_as_one_sets_an_alarm(ppm, often):
    assert often in drifted(*ppm, "25", 10, 0.5).words


def test_levels_are_told_to_the_hundredth_and_moments_without_noughts():
    assert converted(-10, "dBV", "dBu", None).words == "-7.78 dBu"
    assert converted(4, "dBu", "V", None).words == "1.228 V"
    assert converted(0, "V", "dBu", None).words == "silence (dBu)"
    assert timecoded("10:00:00:00", "25", None, None).words.endswith("frame 900000, 36000 s of real time")
