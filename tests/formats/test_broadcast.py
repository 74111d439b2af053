"""Broadcast WAV written here and read by libraries of other people: wavinfo for what it says, libsndfile for its sound."""

import io

import av
import numpy as np
import pytest
import soundfile
import wavinfo

from tests.sounds import RATE, noise, wav
from tidy_trunk.errors import FormatError
from tidy_trunk.formats import Broadcast, TimecodeSpeed, broadcast, open_recording, read_broadcast, write_broadcast

SAID = Broadcast(
    description="aligned: C0012", originator="Tidy Trunk", date="2026-11-25", time="13:00:00", time_reference=2**32 + 77
)
SPEED = TimecodeSpeed(rate="30000/1001", drop=True, rate_hz=RATE, time_reference=2**32 + 77)


def written(samples, bits="24", **more):
    box = io.BytesIO()
    pieces = (samples[:, first : first + 1000].astype(np.float32) for first in range(0, samples.shape[1], 1000))
    write_broadcast(
        box,
        pieces,
        rate_hz=RATE,
        channels=len(samples),
        sample_count=samples.shape[1],
        bits=bits,
        broadcast=SAID,
        **more,
    )
    return box.getvalue()


@pytest.mark.parametrize(("bits", "step"), [("16", 2**-15), ("24", 2**-23), ("32f", 1e-7)])
@pytest.mark.parametrize("channels", [1, 2, 3])
def test_the_sound_comes_back_as_it_was(bits, step, channels):
    sent = np.stack([noise(-20, 0.2, seed)[:4_801] for seed in range(channels)])
    read, rate = soundfile.read(io.BytesIO(written(sent, bits)), always_2d=True)
    assert rate == RATE and read.shape == (4_801, channels)
    assert np.abs(read.T - sent).max() <= step / 2 * 1.01 + 6e-8


def test_what_is_beyond_full_scale_stays_at_it_and_does_not_turn_over():
    read, _ = soundfile.read(io.BytesIO(written(np.array([[1.5, -1.5, 1.0, -1.0]]), "16")), dtype="int16")
    assert read.tolist() == [32_767, -32_768, 32_767, -32_768]


def test_another_library_reads_what_it_says(tmp_path):
    path = tmp_path / "said.wav"
    path.write_bytes(written(noise(-20, 0.5)[np.newaxis], speed=SPEED))
    info = wavinfo.WavInfoReader(str(path))
    with av.open(str(path)) as container:  # as ffprobe has it
        assert container.metadata["time_reference"] == str(SAID.time_reference)
    assert info.bext.time_reference == 2**32 + 77 and info.bext.description == "aligned: C0012"
    assert (info.bext.originator, info.bext.originator_date, info.bext.originator_time) == (
        "Tidy Trunk",
        "2026-11-25",
        "13:00:00",
    )
    assert info.fmt.sample_rate == RATE and info.fmt.bits_per_sample == 24 and info.data.frame_count == RATE // 2
    speed = info.ixml.parsed.find("SPEED")
    assert speed.findtext("TIMECODE_RATE") == "30000/1001" and speed.findtext("TIMECODE_FLAG") == "DF"
    high, low = (int(speed.findtext(f"TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_{part}")) for part in ("HI", "LO"))
    assert (high << 32) + low == 2**32 + 77


def test_our_own_reader_and_a_long_file(monkeypatch):
    data = written(noise(-20, 0.1)[np.newaxis])
    assert read_broadcast(io.BytesIO(data)) == SAID
    monkeypatch.setattr(broadcast, "LARGEST_WAV_BYTES", 1_000)
    long = written(noise(-20, 0.1)[np.newaxis])
    assert long[:4] == b"RF64" and read_broadcast(io.BytesIO(long)) == SAID
    assert soundfile.info(io.BytesIO(long)).frames == 4_800
    assert not open_recording(io.BytesIO(long)).truncated


def test_a_plain_wav_says_nothing_and_a_cut_one_neither():
    data = written(noise(-20, 0.1)[np.newaxis])
    assert read_broadcast(io.BytesIO(wav(noise(-20, 0.1)))) is None
    at = data.index(b"bext")
    for length in range(at + 600):
        assert read_broadcast(io.BytesIO(data[:length])) is None


def test_another_number_of_samples_than_announced_is_refused():
    with pytest.raises(FormatError, match="announced"):
        write_broadcast(
            io.BytesIO(),
            [np.zeros((1, 10), dtype=np.float32)],
            rate_hz=RATE,
            channels=1,
            sample_count=11,
            bits="16",
            broadcast=SAID,
        )
