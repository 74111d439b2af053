"""Timecode that is read: what was sent comes back, through whatever happens to it on the way."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.base.timecode.test_ltc_encode import SLOW, label
from tests.sounds import noise, sine
from tidy_trunk.core.base.timecode import RATES, LtcExtras, ltc_reading, ltc_samples, read_frames, user_digits, user_hex

RATE = 48_000


def read(samples, rate_hz=RATE, wanted=None):
    wave = np.asarray(samples, dtype=np.float32)
    frames = read_frames(lambda start, count: wave[start : start + count], len(wave), rate_hz)
    return ltc_reading(frames, rate_hz, None if wanted is None else RATES[wanted])


def sent(name="25", text="10:00:58:10", seconds=4.0, rate_hz=RATE, cut=0, **more):
    return 0.1 * ltc_samples(label(text, name), rate_hz, cut, round(seconds * rate_hz), **more)


def assert_read(found, name="25", text="10:00:58:10", seconds=4.0):
    first = label(text, name)
    frames = int(seconds * RATES[name].ratio)
    assert found.rate_name == name and found.gaps == () and not found.notes
    assert found.first.timecode == first and found.start == first
    assert found.last.timecode == first.plus(frames - 1) and found.frame_count == frames


@pytest.mark.parametrize("name", SLOW)
def test_every_rate_is_told(name):
    """29.97 and 30 have the same numbers: the duration tells them apart."""
    found = read(sent(name))
    assert_read(found, name)
    frame = RATE / RATES[name].ratio
    assert found.first.sample == pytest.approx(0, abs=2)
    assert found.last.sample == pytest.approx(float(frame * (found.frame_count - 1)), abs=2)


@pytest.mark.parametrize("rate_hz", [8_000, 11_025, 16_000, 22_050, 44_100, 96_000, 192_000])
@pytest.mark.parametrize("name", ["24", "30"])
def test_every_sample_rate_is_read(rate_hz, name):
    assert_read(read(sent(name, rate_hz=rate_hz), rate_hz), name)


@pytest.mark.parametrize(
    ("what", "spoilt"),
    [
        ("opposite polarity", lambda wave: -wave),
        ("50 dB below full scale", lambda wave: wave * 10 ** (-30 / 20)),
        ("noise 12 dB below it", lambda wave: wave + noise(-32, 4)),
        ("DC five times as large", lambda wave: wave + 0.5),
        ("steps of 16 bits, very faint", lambda wave: np.round(wave * 0.03 * 32_768) / 32_768),
        ("cut off at half of it", lambda wave: np.clip(wave, -0.05, 0.05)),
    ],
)
def test_whatever_happens_on_the_way(what, spoilt):
    assert_read(read(spoilt(sent())))


def test_hum_that_is_twice_as_loud_costs_the_frames_at_the_ends_and_no_more():
    found = read(sent() + sine(50, -14, 4) + sine(150, -20, 4))
    assert found.start == label("10:00:58:10", "25") and found.frame_count >= 98 and found.gaps == ()


@settings(max_examples=12, deadline=None)
@given(st.sampled_from(SLOW), st.integers(1, 3_000), st.floats(0.0, 0.3), st.booleans())
def test_it_begins_anywhere(name, cut, hum, upside_down):
    """Positions are those of the bit cells, to a quarter of a bit."""
    wave = sent(name, cut=cut) + sine(50, -20, 4) * hum
    found = read(-wave if upside_down else wave)
    frame = float(RATE / RATES[name].ratio)
    start = label("10:00:58:10", name)
    # A frame that began less than a quarter of a bit before the file counts as whole.
    whole = int(-(-(cut - frame / 80 / 4) // frame))
    assert found.first.timecode == start.plus(whole)
    assert found.first.sample == pytest.approx(whole * frame - cut, abs=frame / 80 / 4)
    assert found.start == start.plus(int(cut // frame))
    assert found.start_offset_s == pytest.approx(cut % frame / RATE, abs=frame / 80 / 4 / RATE)


@pytest.mark.parametrize("name", ["25", "29.97df"])
def test_a_sound_that_runs_backwards(name):
    found = read(sent(name)[::-1])
    first = label("10:00:58:10", name)
    count = int(4 * RATES[name].ratio)
    assert found.is_reversed and found.rate_name == name and found.gaps == ()
    assert found.last.timecode == first and found.first.timecode == first.plus(found.frame_count - 1)
    assert found.frame_count >= count - 1


@pytest.mark.parametrize("speed", [0.9, 1.1])
@pytest.mark.parametrize(("name", "wanted"), [("25", None), ("29.97df", None), ("29.97", "29.97"), ("24", "24")])
def test_another_speed_is_read_and_told(speed, name, wanted):
    found = read(sent(name, rate_hz=round(RATE * speed)), RATE, wanted)
    assert found.rate_name == name and found.speed == pytest.approx(1 / speed, rel=1e-4)
    assert any("of its speed" in note for note in found.notes)
    assert found.first.timecode == label("10:00:58:10", name)


def test_a_dropout_and_a_jump_are_reported():
    """Ten frames of silence are at most twelve frames lost; the jump to another hour is counted by its labels."""
    start, frame = label("10:00:00:00", "25"), RATE // 25
    wave = sent(text="10:00:00:00")
    wave[20 * frame : 30 * frame] = 0
    gap = read(wave).gaps
    assert len(gap) == 1 and 10 <= gap[0].frames_lost <= 12 and gap[0].after.frame_count - start.frame_count in (18, 19)
    assert gap[0].sample == pytest.approx(30 * frame, abs=frame + 2)
    jumped = np.concatenate((sent(text="10:00:00:00", seconds=2), sent(text="10:00:08:00", seconds=2)))
    (gap,) = read(jumped).gaps
    assert gap.frames_lost == 6 * 25 and gap.sample == pytest.approx(2 * RATE, abs=2)
    (gap,) = read(np.concatenate((sent(text="10:00:08:00", seconds=2), sent(text="10:00:00:00", seconds=2)))).gaps
    assert gap.frames_lost == -(10 * 25) - 1 + 1


def test_a_day_begins_again_without_a_gap():
    found = read(sent("29.97df", "23:59:58:10"))
    assert found.gaps == () and str(found.last.timecode).startswith("00:00:02")


def test_another_rate_than_the_jobs_and_a_wrong_flag_are_told():
    assert read(sent("25"), wanted="50").notes == ("each label stands for two frames of the job's 50",)
    assert any("runs at 29.97, and the job at 25" in note for note in read(sent("29.97"), wanted="25").notes)
    assert any("no drop-frame, and the job is" in note for note in read(sent("29.97"), wanted="29.97df").notes)
    assert not read(sent("29.97"), wanted="29.97").notes


def test_user_bits_come_back():
    extras = user_digits("1234ABCD")
    assert user_hex(read(sent(extras=extras)).user_bits) == "1234ABCD"
    assert user_hex(LtcExtras().user_bits) == "00000000"


@pytest.mark.parametrize("sound", [noise(-20, 4), sine(1000, -6, 4), np.zeros(RATE), np.zeros(0), sent(seconds=0.05)])
def test_what_holds_none_says_so(sound):
    assert read(sound) is None


def test_it_is_found_below_a_voice_that_is_as_loud():
    """A neighbour that bleeds in at a sixth of it."""
    assert_read(read(sent() + noise(-20, 4, 5) * np.repeat(np.linspace(0, 0.3, 400), 480)))
