"""Measurements of made sounds. References: numpy and scipy.signal; ITU-R BS.1770 and EBU Tech 3341 for true peak."""

from itertools import groupby

import numpy as np
import pytest
import scipy
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.few import each_of
from tests.sounds import RATE, measured, noise, ratio, sine, timecode_sound, voice
from tidy_trunk.core.base.signal import Meter, NoiseFrom, Polarity, SignalSeverity, meanings
from tidy_trunk.core.base.signal.clipping import ClipTracker, has_flat_tops
from tidy_trunk.core.base.signal.true_peak import PHASES, TruePeak
from tidy_trunk.errors import InputError
from tidy_trunk.words import heard


def one(*channels, **how):
    return measured(*channels, **how).channels[0]


@pytest.mark.parametrize(("hertz", "dbfs"), [(1000, -20), (997, -18), (440, -6), (50, -12), (12_000, -20), (63.5, -40)])
def test_a_tone_reads_its_level_and_frequency(hertz, dbfs):
    """AES17: a sine that peaks at a level reads it as RMS."""
    found = one(sine(hertz, dbfs, 4))
    assert found.tone.frequency_hz == pytest.approx(hertz, abs=0.01)
    assert found.tone.level_dbfs == pytest.approx(dbfs, abs=0.01)
    assert found.peak_dbfs == pytest.approx(dbfs, abs=0.1)
    assert found.rms_dbfs == pytest.approx(dbfs, abs=0.02)
    assert not found.clipped and found.hum is None and not found.has_flat_tops


@pytest.mark.parametrize("rate", [44_100, 96_000, 192_000])
@pytest.mark.parametrize("bits", [0, 16, 24])
def test_every_rate_and_width_reads_alike(rate, bits):
    found = one(sine(1000, -20, 1.5, rate), rate=rate, bits=bits)
    assert found.tone.level_dbfs == pytest.approx(-20, abs=0.01)
    assert found.tone.thd_n_db < -75, "16 bits without dither: some 80 dB below a tone at -20"


@pytest.mark.parametrize(
    ("divisor", "degrees"), [(4, 45.0), (6, 60.0), (8, 67.5)], ids=["a quarter", "a sixth", "an eighth"]
)
def test_true_peak_of_the_published_tones(divisor, degrees):
    """EBU Tech 3341, cases 15 to 18 (from memory): tones whose samples miss their peaks, +0.2/-0.4 dB."""
    wave = sine(RATE / divisor, -6, 2, phase=np.radians(degrees))
    wave[:4800] *= np.linspace(0, 1, 4800)  # a tone that begins at once has a true peak of its own
    found = one(wave)
    assert -6.4 <= round(found.true_peak_dbtp, 1) <= -5.8, "as a meter reads it, to a tenth"
    assert found.peak_dbfs < -6.4


def test_true_peak_is_as_a_general_resampler_has_it():
    """scipy.signal.resample_poly by 16, on noise below 10 kHz where every fair filter agrees."""
    taps = scipy.signal.firwin(201, 10_000, fs=RATE)
    wave = scipy.signal.lfilter(taps, 1, noise(-12, 3, seed=4))
    reference = 20 * np.log10(np.abs(scipy.signal.resample_poly(wave, 16, 1)).max())
    assert one(wave).true_peak_dbtp == pytest.approx(reference, abs=0.15)


@settings(max_examples=30, deadline=None)
@given(st.integers(1, 400), st.lists(st.integers(1, 90), min_size=1, max_size=12), st.integers(0, 99))
def test_true_peak_is_the_filters_however_the_recording_is_cut(count, sizes, seed):
    """numpy.convolve of the same 48 taps on the whole, which knows no pieces."""
    samples = np.random.default_rng(seed).standard_normal(count).astype(np.float32)
    wanted = max(np.abs(np.convolve(samples, taps)[:count]).max() for taps in PHASES)
    peak, at = TruePeak(), 0
    for size in sizes * count:
        piece = samples[at : at + size]
        if len(piece):
            blocks = [np.abs(piece[start : start + 7]).max() for start in range(0, len(piece), 7)]
            peak.add(piece, np.array(blocks), 7)
        at += size
    assert peak.highest() == pytest.approx(wanted, rel=1e-5)


def test_rms_peak_and_dc_are_numpys():
    wave = noise(-30, 2.03, seed=1) + 0.01
    found = one(wave)
    assert found.rms_dbfs == pytest.approx(20 * np.log10(np.std(wave) * np.sqrt(2)), abs=0.01)
    assert found.peak_dbfs == pytest.approx(20 * np.log10(np.abs(wave).max()), abs=0.001)
    assert found.dc_dbfs == pytest.approx(20 * np.log10(abs(wave.mean())), abs=0.01)


@pytest.mark.parametrize("floor", [-80, -65, -50])
def test_noise_is_found_in_the_pauses_and_under_a_tone(floor):
    """White noise: 20 Hz to 20 kHz of 24 kHz is 0.8 dB less, A-weighting takes 2.1 dB off that (IEC 61672 by numpy)."""
    hiss = noise(floor, 12, seed=2)
    spoken = one(voice(-26, 12) + hiss)
    assert spoken.noise.found is NoiseFrom.PAUSES
    assert spoken.noise.flat_dbfs == pytest.approx(floor - 0.8, abs=0.5)
    assert spoken.noise.a_dbfs - spoken.noise.flat_dbfs == pytest.approx(-2.1, abs=0.15)
    toned = one(sine(1000, -20, 5) + hiss[: 5 * RATE])
    assert toned.noise.found is NoiseFrom.TONE
    assert toned.noise.flat_dbfs == pytest.approx(floor - 0.8, abs=0.1)
    assert toned.tone.thd_n_db == pytest.approx(floor - 0.8 + 20, abs=0.1)
    alone = one(hiss)
    assert alone.noise.flat_dbfs == pytest.approx(floor - 0.8, abs=0.1) and alone.tone is None


def test_distortion_is_as_it_was_made():
    wave = sine(1000, -12, 3) + sine(2000, -52, 3) + sine(3000, -62, 3)
    assert one(wave).tone.thd_n_db == pytest.approx(10 * np.log10(1e-4 + 1e-5), abs=0.02)


@pytest.mark.parametrize("mains", [50, 60])
@pytest.mark.parametrize("under", ["tone", "voice", "nothing"])
def test_hum_is_the_sum_of_its_lines(mains, under):
    lines = [(1, -60), (2, -66), (3, -64), (5, -70)]
    hum = sum(sine(mains * number, level, 8, phase=number) for number, level in lines)
    over = {"tone": sine(1000, -20, 8), "voice": voice(-26, 8), "nothing": 0.0}[under]
    found = one(over + hum + noise(-82, 8))
    expected = 10 * np.log10(sum(10 ** (level / 10) for _, level in lines))
    assert found.hum.mains_hz == mains
    assert found.hum.level_dbfs == pytest.approx(expected, abs=0.3)
    assert (found.tone is not None) == (under == "tone")


@settings(max_examples=8, deadline=None)
@given(st.integers(0, 10_000))
def test_nothing_is_heard_that_is_not_there(seed):
    """Pink noise by scipy's filter of a random walk's half, and words over noise: no hum, tone, click or creeping noise."""
    walk = scipy.signal.lfilter([0.05, -0.0959, 0.0506, -0.0044], [1, -2.4949, 2.0173, -0.5222], noise(-50, 6, seed))
    for channel in measured(walk, voice(-26, 6, seed) + noise(-65, 6, seed + 1)).channels:
        assert channel.hum is None and channel.tone is None and not channel.is_ltc
        assert channel.ticks is None
        assert not channel.clicks and not channel.creeps_db and not channel.clipped and not channel.has_flat_tops


def naive_runs(values):
    """Every stretch of three and more at the highest or the lowest value, by the standard library."""
    found, at = [], 0
    for value, group in groupby(values):
        length = len(list(group))
        if length >= 3 and value in (max(values), min(values)):
            found.append((at, length))
        at += length
    return found


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(-3, 3), min_size=1, max_size=60), st.lists(st.integers(1, 20), min_size=1, max_size=20))
def test_flat_tops_are_found_however_the_recording_is_cut(values, sizes):
    samples = np.array(values, dtype=np.float32) / 4
    tracker, at = ClipTracker(step=0.0), 0
    for size in sizes * len(values):
        piece = samples[at : at + size]
        if len(piece):
            tracker.add(piece, float(piece.max()), float(piece.min()))
        at += size
    # By the definition alone, but that a constant is no wave, and that nothing is cut off at zero.
    wanted = [(start, length) for start, length in naive_runs(values) if values[start] != 0 and len(set(values)) > 1]
    wanted = [
        (start, length) for start, length in wanted if values[start] * (1 if values[start] == max(values) else -1) > 0
    ]
    assert [(run.start, run.samples) for run in tracker.runs()] == wanted


@pytest.mark.deep
@settings(max_examples=10, deadline=None)
@given(st.integers(2_400, 60_000))
def test_the_pieces_make_no_difference(pieces):
    waves = [voice(-20, 2.31, seed) + 0.02 for seed in (1, 2)]
    whole, cut = (measured(*waves, pieces=size) for size in (10 * RATE, pieces))
    for first, second in zip(whole.channels, cut.channels, strict=True):
        assert second.peak_dbfs == first.peak_dbfs
        assert second.rms_dbfs == pytest.approx(first.rms_dbfs, abs=1e-4)
        assert second.true_peak_dbtp == pytest.approx(first.true_peak_dbtp, abs=1e-3)
        assert second.noise.flat_dbfs == first.noise.flat_dbfs


def test_clipping_is_seen_at_full_scale_below_it_and_under_noise():
    loud = voice(-3, 8)
    assert one(np.clip(loud, -1, 1)).clipped_count > 20
    padded = one(np.clip(loud, -0.7, 0.7) * ratio(-20))
    assert padded.clipped_count > 20
    lowered = measured(np.clip(loud, -0.7, 0.7) * 0.1)
    assert "before something turned it down" in heard(meanings(lowered)[0], lowered)
    noisy = one(np.clip(loud, -0.7, 0.7) * ratio(-20) + noise(-75, 8))
    assert not noisy.clipped and noisy.has_flat_tops
    tone = np.clip(sine(1000, 1.0, 3), -1, 1) * ratio(-14) + noise(-75, 3)
    assert one(tone).has_flat_tops
    slow = one(sine(31.25, -20, 3), bits=16)
    assert not slow.clipped, "a slow wave stands still at its top for some samples of 16 bits, and is whole"
    assert not one(sine(1000, 6, 3), bits=0).clipped, "float files have room above full scale"


def mains_hum(dbfs, seconds):
    hum = sum(sine(50 * number, -6 * number, seconds, phase=number) for number in (1, 2, 3, 5))
    return hum * ratio(dbfs) / (np.std(hum) * np.sqrt(2))


@pytest.mark.parametrize("over", [3, 6, 12])
@pytest.mark.parametrize("after", ["hiss", "hum"])
def test_clipping_is_seen_where_hiss_or_hum_came_after_it(over, after):
    """What was added behind the stage that clips: hiss of −45 dBFS, hum of −42. The same voice whole is not told."""
    loud = voice(-20, 8)
    loud *= 0.7 / np.abs(loud).max()
    added = noise(-45, 8, 7) if after == "hiss" else mains_hum(-42, 8)
    found = measured(np.clip(loud * ratio(over), -0.7, 0.7) + added)
    assert meanings(found)[0].what == "clipping" and meanings(found)[0].weight is SignalSeverity.STOP
    assert not one(loud + added).has_flat_tops


@settings(max_examples=40, deadline=None)
@given(st.floats(40, 9_000), st.floats(-12, 0), st.sampled_from([-np.inf, -80.0, -60.0, -45.0]), st.integers(0, 99))
def test_a_rounded_top_is_no_flat_one(hertz, level, floor, seed):
    """A sine, and one that swells by a twentieth, under any noise: neither was cut off."""
    hiss = noise(floor, 1, seed)
    for swell in (0.0, 0.05):
        wave = sine(hertz, level, 1) * (1 + swell * sine(3, 0, 1))
        assert not has_flat_tops(wave + hiss, ratio(floor) / np.sqrt(2))


@pytest.mark.parametrize("every_ms", each_of([1, 2, 4], 1))
@pytest.mark.parametrize("under", ["voice", "tone", "nothing"])
def test_ticks_of_a_computers_power_are_told(every_ms, under):
    """Lines at each multiple of what USB 2.0 polls at, below 8 kHz."""
    lines = [(1_000 * number / every_ms, -55 - number / every_ms) for number in range(1, 8 * every_ms)]
    comb = sum(sine(hertz, level, 8, phase=hertz) for hertz, level in lines)
    over = {"voice": voice(-26, 8), "tone": sine(440, -20, 8), "nothing": 0.0}[under]
    found = measured(over + comb + noise(-80, 8))
    assert found.channels[0].ticks.every_ms == every_ms
    expected = 10 * np.log10(sum(10 ** (level / 10) for _, level in lines))
    assert found.channels[0].ticks.level_dbfs == pytest.approx(expected, abs=0.3)
    assert "ticks" in [item.what for item in meanings(found)]


def test_ticks_as_they_sound():
    """Six samples of 48 kHz are 125 µs."""
    ticks = np.zeros(8 * RATE)
    for sample in range(6):
        ticks[sample::48] = ratio(-45)
    assert one(voice(-26, 8) + ticks + noise(-75, 8)).ticks.every_ms == 1
    assert "ticks" in [item.what for item in meanings(measured(ticks + noise(-75, 8)))]
    assert "tone" not in [item.what for item in meanings(measured(ticks + noise(-75, 8)))]


@pytest.mark.deep
def test_a_distorted_tone_and_a_dimmer_are_no_ticks():
    """A dimmer's buzz has lines at all multiples of the mains: those of 50 Hz are also at 250, 500 and 1,000 Hz."""
    clipped = np.clip(sine(1000, -10, 4), -0.25, 0.25) + noise(-80, 4)
    buzz = sum(sine(50 * number, -60, 8, phase=number**2) for number in range(1, 160)) + noise(-80, 8)
    assert one(clipped).ticks is None and one(buzz).ticks is None


@pytest.mark.parametrize(
    ("slope", "shape"), [(0, "electronics"), (-1.5, "both"), (-3, "room"), (-4, "room"), (-6, "room")]
)
def test_noise_is_named_by_its_shape(slope, shape):
    """Common practice: electronics are level to 20 kHz, rooms fall above 2 kHz. Slopes in dB an octave, laid on with an FFT."""
    hiss = noise(0, 12, 3)
    hertz = np.maximum(np.fft.rfftfreq(len(hiss), 1 / RATE), 20)
    shaped = np.fft.irfft(np.fft.rfft(hiss) * (hertz / 1000) ** (slope / 6.0206), len(hiss))
    shaped *= ratio(-45) / (np.std(shaped) * np.sqrt(2))
    assert one(voice(-20, 12) + shaped).noise.shape == shape


@pytest.mark.parametrize(("sign", "polarity"), [(1, Polarity.SAME), (-1, Polarity.OPPOSITE)])
@pytest.mark.parametrize("late", [0, 576])
def test_polarity_and_delay_of_a_pair(sign, polarity, late):
    sound = voice(-26, 6)
    other = sign * ratio(-6) * np.concatenate((np.zeros(late), sound[: len(sound) - late]))
    pair = measured(sound + noise(-70, 6, 1), other + noise(-70, 6, 2)).pairs[0]
    reference = scipy.signal.correlate(other, sound, method="fft")
    assert np.argmax(np.abs(reference)) - (len(sound) - 1) == late
    assert pair.polarity is polarity
    assert pair.delay_ms == pytest.approx(late / RATE * 1000, abs=0.03)
    if not late:
        assert pair.correlation == pytest.approx(sign, abs=0.01)


def test_unrelated_channels_are_unrelated():
    pair = measured(voice(-26, 6, 1), voice(-26, 6, 2)).pairs[0]
    assert pair.polarity is Polarity.UNRELATED and pair.bleed_db is None and abs(pair.correlation) < 0.05


@pytest.mark.parametrize("bleed", each_of([-40, -30, -50], 1))
def test_bleed_is_told_from_the_channels_own_sound(bleed):
    first, second = voice(-26, 12, 1), voice(-26, 12, 2)
    for source, own in ((first, second), (first, 0 * second), (sine(1000, -20, 12), 0 * second)):
        sounds = (source + noise(-90, 12, 3), own + ratio(bleed) * source + noise(-90, 12, 4))
        for channels, into in ((sounds, 2), (sounds[::-1], 1)):
            pair = measured(*channels).pairs[0]
            assert pair.bleed_db == pytest.approx(bleed, abs=0.5)
            assert pair.bleeds_into == into


def test_a_safety_track_is_no_bleed():
    sound = voice(-20, 6)
    assert measured(sound + noise(-70, 6, 1), ratio(-12) * sound + noise(-70, 6, 2)).pairs[0].bleed_db is None


@pytest.mark.deep
def test_noise_that_creeps_up_is_automatic_level():
    """A gain that rises by 15 dB/s up to 20 dB while nobody speaks, and falls at once when somebody does."""
    sound = voice(-26, 20)
    loud = np.convolve(sound**2, np.ones(2400) / 2400, "same") > ratio(-45) ** 2
    gain_db, gains = 0.0, []
    for block in range(0, len(sound), 480):
        gain_db = max(gain_db - 3, 0.0) if loud[block] else min(gain_db + 0.15, 20.0)
        gains.append(gain_db)
    gain = ratio(np.repeat(gains, 480)[: len(sound)])
    plain = sound + noise(-65, 20)
    assert one(plain * gain).creeps_db > 5
    assert one(plain).creeps_db == 0
    assert any(item.what == "automatic-level" for item in meanings(measured(plain * gain)))


def test_clicks_are_told_by_their_place():
    wave = voice(-26, 8) + noise(-70, 8)
    quiet = np.flatnonzero(np.convolve(np.abs(voice(-26, 8)), np.ones(9600), "same") == 0)
    at = int(quiet[len(quiet) // 2])
    wave[at : at + 24] += 0.2 * np.hanning(24)
    assert one(wave).clicks == (pytest.approx(at / RATE, abs=0.06),)


def test_timecode_is_known_by_its_sync_words():
    for sound in (timecode_sound(50), timecode_sound(50)[::-1], -timecode_sound(50, dbfs=-50) + noise(-80, 2)):
        found = one(np.ascontiguousarray(sound))
        assert found.is_ltc and not found.clipped
    square = np.sign(sine(2000, -18, 2)) * 0.1
    assert not one(square).is_ltc


def test_a_left_ident_on_the_right_is_a_swapped_pair():
    tone = sine(1000, -20, 10)
    marked = tone.copy()
    for start in (1.4, 4.4, 7.4):
        marked[round(start * RATE) : round((start + 0.25) * RATE)] = 0
    assert "swapped" not in [item.what for item in meanings(measured(marked, tone))]
    swapped = meanings(measured(tone, marked))
    assert swapped[0].what == "swapped" and swapped[0].weight is SignalSeverity.STOP


def test_a_dead_channel_is_told():
    found = measured(voice(-20, 2), np.zeros(2 * RATE))
    assert found.channels[1].rms_dbfs == -np.inf and meanings(found)[0].what == "silence"
    assert found.channels[1].noise.flat_dbfs == -np.inf


@pytest.mark.deep
def test_the_overview_holds_the_extremes():
    wave = voice(-30, 70)
    overview = measured(wave).overview
    assert len(overview.highest[0]) <= 1000
    assert max(overview.highest[0]) == pytest.approx(wave.max(), abs=1e-4)
    assert min(overview.lowest[0]) == pytest.approx(wave.min(), abs=1e-4)


@pytest.mark.parametrize(("rate", "channels"), [(4_000, 1), (48_000, 0), (48_000, 200), (10**9, 1)])
def test_what_no_recording_has_is_refused(rate, channels):
    with pytest.raises(InputError, match="cannot be measured"):
        Meter(rate, channels, step=0)


@pytest.mark.parametrize("value", [np.nan, np.inf, 1e30])
def test_numbers_that_are_none_are_refused(value):
    wave = sine(1000, -20, 1)
    wave[7] = value
    with pytest.raises(InputError, match="not finite"):
        measured(wave, bits=0)
    with pytest.raises(InputError, match="empty"):
        measured(np.zeros(0))


@pytest.mark.parametrize(("channels", "told"), [
    ((voice(-20, 12) + noise(-75, 12, 3),), set()),
    ((voice(-60, 12) + noise(-90, 12, 3),), {("level", (1,))}),
    ((noise(-75, 12, 3), noise(-75, 12, 5)), {("no-voice", (1,)), ("no-voice", (2,))}),
    ((voice(-20, 12) + noise(-75, 12, 3), noise(-75, 12, 5)), {("dead-side", (2,))}),
    ((voice(-20, 12) + noise(-75, 12, 3), voice(-24, 12, 9) + noise(-75, 12, 5)), set()),
])  # fmt: skip
def test_a_voice_that_is_low_lost_or_on_one_side(channels, told):
    """Common practice: peaks below −30 dBFS reach no target; a side 30 dB below the other carries nothing."""
    assert {(item.what, item.channels) for item in meanings(measured(*channels))} == told
