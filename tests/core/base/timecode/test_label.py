"""Labels and frames. SMPTE ST 12-1, from memory; what is counted by hand stands beside it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.base.timecode import RATES, Timecode
from tidy_trunk.errors import TimecodeError

DROP = RATES["29.97df"]


@pytest.mark.parametrize(
    ("frame_count", "text", "source"),
    [
        (0, "00:00:00;00", "where a day begins"),
        (1_799, "00:00:59;29", "60 x 30 frames, none dropped yet"),
        (1_800, "00:01:00;02", "ST 12-1: frames 00 and 01 dropped at minute 1"),
        (17_981, "00:09:59;29", "ten minutes hold 18000 - 9 x 2"),
        (17_982, "00:10:00;00", "ST 12-1: nothing dropped at every tenth minute"),
        (2_589_407, "23:59:59;29", "one drop-frame day, by hand: 144 x 17982"),
    ],
)
def test_frame_label(frame_count, text, source):
    assert str(Timecode(frame_count, DROP)) == text, source
    assert Timecode.parse(text, DROP).frame_count == frame_count, source


def test_four_labels_are_dropped_at_5994():
    assert str(Timecode(3_600, RATES["59.94df"])) == "00:01:00;04"


@given(st.sampled_from(list(RATES)), st.data())
def test_every_frame_of_a_day_has_its_own_label(name, data):
    rate = RATES[name]
    count = data.draw(st.integers(0, rate.day - 1))
    label = Timecode(count, rate)
    assert Timecode.parse(str(label), rate) == label
    assert label.plus(1).frame_count == (count + 1) % rate.day and label.plus(rate.day) == label
    hours, minutes, seconds, frames = label.fields
    assert frames < rate.nominal and hours < 24
    if rate.drop and seconds == 0 and minutes % 10:
        assert frames >= rate.dropped


@pytest.mark.parametrize(
    ("text", "rate", "says"),
    [
        ("10:01:00;00", "29.97df", "next is 10:01:00;02"),
        ("10:01:00;03", "59.94df", "next is 10:01:00;04"),
        ("10:00:00;00", "25", "drops nothing"),
        ("10:00:00:25", "25", "goes to 23:59:59:24"),
        ("24:00:00:00", "25", "does not exist"),
        ("10:60:00:00", "25", "does not exist"),
        ("ten o'clock", "25", "no timecode"),
        ("10:00:00", "25", "no timecode"),
        ("-1:00:00:00", "25", "no timecode"),
    ],
)
def test_labels_that_do_not_exist_are_refused(text, rate, says):
    with pytest.raises(TimecodeError, match=says):
        Timecode.parse(text, RATES[rate])
