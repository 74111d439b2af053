"""Level marks: what was read in rehearsal taken back through the way, and forward to where the knob goes."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, made, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.scene_notes import MarkTrouble, can_be_marked, level_mark, playbacks, stream_feeds
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

TRACK = "bag.1"


def report(*edits, base=None):
    return Report(trace_plan(made(*edits, base=base or boom_in_bag())))


AS_PLANNED = report()


@given(st.floats(-30, -1))
def test_a_knob_adds_what_it_is_turned(read_dbfs):
    """Decibels add: what is then recorded is what was read, and what the knob was turned by since. [HANDBOOK] §3"""
    mark = level_mark(AS_PLANNED, AS_PLANNED, TRACK, read_dbfs)
    assert mark.trouble is None and mark.stands_db == 50
    assert mark.peak_dbfs == pytest.approx(read_dbfs + mark.mark_db - mark.stands_db, abs=0.05)
    assert -20.5 <= mark.average_dbfs <= -11.5 and mark.peak_dbfs <= -3


@given(st.floats(-30, -1), st.integers(-10, 10))
def test_a_mark_is_where_the_knob_goes_wherever_it_stood(read_dbfs, turned_db):
    """Read at another setting than today's, or turned since: how loud the part is stays."""
    then = report(put("bag", "in1.mic.gain_db", 50 + turned_db))
    mark = level_mark(AS_PLANNED, then, TRACK, read_dbfs)
    if mark.trouble is None:
        assert mark.peak_dbfs == pytest.approx(read_dbfs - turned_db + mark.mark_db - mark.stands_db, abs=0.05)
        assert level_mark(then, then, TRACK, read_dbfs).louder_db == pytest.approx(mark.louder_db)


def test_what_fits_already_stays():
    peak = AS_PLANNED.known_track(TRACK).sound.peak
    mark = level_mark(AS_PLANNED, AS_PLANNED, TRACK, peak)
    assert mark.louder_db == pytest.approx(0) and mark.mark_db == mark.stands_db


@pytest.mark.parametrize(
    ("edits", "read_dbfs", "trouble"),
    [
        ([], 0.0, MarkTrouble.AT_FULL_SCALE),
        ([], -90.0, MarkTrouble.BEYOND_REASON),
        ([], -45.0, MarkTrouble.OUT_OF_REACH),
        ([put("bag", "in1.limiter", True)], -1.0, MarkTrouble.HELD),
    ],
)
def test_what_a_reading_cannot_say(edits, read_dbfs, trouble):
    at = report(*edits)
    assert level_mark(at, at, TRACK, read_dbfs).trouble is trouble


def test_a_shout_that_clips_before_the_knob_is_told():
    """The transmitter's own gain comes first: nothing that is turned behind it brings back what it cut. [PRACTICE]"""
    rehearsed = report(put("pack-a", "mic.mic.gain_db", 0), base=foundry())
    shout_dbfs = rehearsed.known_track("bag.2").sound.peak + 20
    now = report(put("pack-a", "mic.mic.gain_db", 30), base=foundry())
    mark = level_mark(now, rehearsed, "bag.2", shout_dbfs)
    assert mark.louder_db == pytest.approx(20) and mark.mark_db < mark.stands_db
    assert mark.trouble is MarkTrouble.CLIPS and mark.clip.device == "pack-a"
    # Where it was read behind the clipped transmitter, nobody knows how loud it was.
    low = report(put("pack-a", "mic.mic.gain_db", 30), put("bag", "in2.mic.gain_db", 10), base=foundry())
    assert level_mark(low, low, "bag.2", low.known_track("bag.2").sound.peak).trouble is MarkTrouble.HELD


def test_of_a_mix_nobody_can_say_whose_level_it_is():
    at = report(base=foundry())
    mixes = [track for track in at.tracks if len(track.sources) > 1]
    assert mixes and not any(can_be_marked(track) for track in mixes)
    assert level_mark(at, at, mixes[0].trace.id, -12).trouble is MarkTrouble.NOTHING_PLANNED


def test_who_could_hear_a_take_again():
    free = playbacks(AS_PLANNED)
    assert [(way.output, way.listener) for way in free] == [(("bag", "phones"), "")]
    heard = playbacks(
        report(
            device("headphones", "cans"),
            device("powered-speaker", "box"),
            run("bag.phones", "cans.plug"),
            run("bag.out-l", "box.in", "xlr"),
        )
    )
    assert [(way.output.port, way.listener) for way in heard] == [("out-l", "box"), ("phones", "cans")]


def test_what_goes_out_live():
    assert stream_feeds(AS_PLANNED) == ()
    feeds = stream_feeds(Report(trace_plan(foundry())))
    assert [(feed.bus, feed.sources) for feed in feeds] == [
        ("pgm-l", ("founder", "bell")),
        ("pgm-r", ("founder", "presenter")),
    ]
