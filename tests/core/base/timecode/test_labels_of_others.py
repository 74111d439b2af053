"""Labels of a whole day against two other programs: opentimelineio, and the package `timecode`."""

import opentimelineio as otio
import pytest
import timecode

from tidy_trunk.core.base.timecode import RATES, Timecode

STEP = 2_003
"""A prime, so that every second, frame and hour comes up."""


def looked_at(rate):
    """Frames all over a day, and those around every minute, where labels are dropped."""
    minute = rate.ten_minutes / 10
    edges = {round(number * minute) + beside for number in range(1_440) for beside in (-1, 0, 1)}
    return sorted({*range(0, rate.day, STEP), *(frame for frame in edges if 0 <= frame < rate.day)})


OTHERS = [name for name in RATES if name not in ("47.952", "30df")]
"""The rates that opentimelineio knows; drop-frame at 30 nobody else counts."""


@pytest.mark.parametrize("name", OTHERS)
def test_opentimelineio_names_every_frame_alike(name):
    rate = RATES[name]
    ratio = float(rate.ratio)
    for count in looked_at(rate):
        label = str(Timecode(count, rate))
        moment = otio.opentime.from_timecode(label, ratio)
        assert moment.to_frames() == count, label


@pytest.mark.parametrize("name", [name for name in RATES if name != "30df"])
def test_the_package_timecode_names_every_frame_alike(name):
    rate = RATES[name]
    for count in looked_at(rate)[:: 3 if rate.nominal > 30 else 1]:
        theirs = timecode.Timecode(name.removesuffix("df"), frames=count + 1, force_non_drop_frame=not rate.drop)
        assert str(theirs) == str(Timecode(count, rate))
