"""Recordings by libsndfile, by the standard library and by PyAV; whole, cut at every offset, and made to lie."""

import io
import socket
import struct

import av
import numpy as np
import pytest
import soundfile

from tests.sounds import RATE, sine, wav
from tidy_trunk.core.base.text import is_plain
from tidy_trunk.errors import FormatError, InputError
from tidy_trunk.formats import movie_facts, open_recording, write_sound
from tidy_trunk.media.measuring import measure_stream

TONE = np.stack([sine(1000, -20, 1.2), sine(1000, -26, 1.2)])

KINDS = [
    ("WAV", "PCM_U8", 8, "pcm"), ("WAV", "PCM_16", 16, "pcm"), ("WAV", "PCM_24", 24, "pcm"), ("WAV", "PCM_32", 32, "pcm"),
    ("WAV", "FLOAT", 32, "float"), ("WAV", "DOUBLE", 64, "float"), ("WAVEX", "PCM_24", 24, "pcm"),
    ("RF64", "PCM_24", 24, "pcm"), ("FLAC", "PCM_24", 24, "pcm"), ("OGG", "VORBIS", None, "lossy"),
]  # fmt: skip


def made(kind: str, subtype: str, rate: int = RATE, samples: np.ndarray = TONE) -> bytes:
    box = io.BytesIO()
    soundfile.write(box, samples.T, rate, format=kind, subtype=subtype)
    return box.getvalue()


def movie(codec: str, tracks: int = 1, *, picture: bool = True, rate: int = RATE) -> bytes:
    """A camera movie: a second of black, and sound tracks of two channels each."""
    box = io.BytesIO()
    with av.open(box, "w", format="mov") as container:
        video = container.add_stream("mpeg4", rate=25) if picture else None
        if video is not None:
            video.width = video.height = 64
        streams = [container.add_stream(codec, rate=rate, layout="stereo") for _ in range(tracks)]
        if video is not None:
            frame = av.VideoFrame.from_ndarray(np.zeros((64, 64, 3), dtype=np.uint8), format="rgb24")
            container.mux(video.encode(frame.reformat(format="yuv420p")) + video.encode(None))
        for stream in streams:
            kind = stream.codec_context.format.name
            whole = np.round(TONE * 32767).astype(np.int16)
            packed = np.ascontiguousarray(whole.T.reshape(1, -1))
            sound = av.AudioFrame.from_ndarray(packed, format="s16", layout="stereo")
            sound.sample_rate = rate
            for part in [*av.AudioResampler(format=kind).resample(sound)]:
                fifo = av.AudioFifo()
                fifo.write(part)
                size = stream.codec_context.frame_size or 1024
                while (piece := fifo.read(size, partial=True)) is not None:
                    container.mux(stream.encode(piece))
            container.mux(stream.encode(None))
    return box.getvalue()


@pytest.mark.parametrize(("kind", "subtype", "bits", "encoding"), KINDS)
def test_every_kind_reads_its_tone(kind, subtype, bits, encoding):
    found = measure_stream(io.BytesIO(made(kind, subtype)))
    assert (found.bits, found.encoding, found.truncated) == (bits, encoding, False)
    levels = [channel.tone.level_dbfs for channel in found.measurement.channels]
    assert levels == pytest.approx([-20, -26], abs=0.3 if encoding == "lossy" else 0.05 if bits == 8 else 0.01)
    assert found.measurement.seconds == pytest.approx(1.2, abs=0.001)


@pytest.mark.parametrize("bits", [16, 24, 32])
def test_the_standard_librarys_files_read_alike(bits):
    found = measure_stream(io.BytesIO(wav(*TONE, bits=bits)))
    assert found.bits == bits
    assert found.measurement.channels[1].tone.level_dbfs == pytest.approx(-26, abs=0.05)


@pytest.mark.parametrize(
    ("codec", "bits", "encoding"), [("pcm_s16le", 16, "pcm"), ("pcm_s24le", 24, "pcm"), ("aac", None, "lossy")]
)
@pytest.mark.parametrize("tracks", [1, 2])
def test_a_movies_sound_tracks_stand_side_by_side(codec, bits, encoding, tracks):
    found = measure_stream(io.BytesIO(movie(codec, tracks)))
    assert (found.bits, found.encoding) == (bits, encoding)
    levels = [channel.rms_dbfs for channel in found.measurement.channels]
    assert levels == pytest.approx([-20, -26] * tracks, abs=0.5 if encoding == "lossy" else 0.01)


@pytest.mark.parametrize("rate", [8_000, 11_025, 22_050, 47_952, 48_048])
def test_rates_that_divide_into_no_whole_blocks_read_alike(rate):
    """Pulled-down rates and old ones: a twentieth of a second is no whole number of samples there."""
    tone = np.stack([sine(997, -20, 7.3, rate), sine(997, -26, 7.3, rate)])
    found = measure_stream(io.BytesIO(made("WAV", "PCM_24", rate, tone))).measurement
    assert [channel.rms_dbfs for channel in found.channels] == pytest.approx([-20, -26], abs=0.01)
    assert [channel.tone.level_dbfs for channel in found.channels] == pytest.approx([-20, -26], abs=0.01)
    assert found.channels[0].tone.seconds == pytest.approx(7.3, abs=0.15)
    assert found.seconds == pytest.approx(7.3, abs=0.001)


def test_a_movie_without_sound_is_refused():
    with pytest.raises(FormatError, match="no sound"):
        open_recording(io.BytesIO(movie("pcm_s16le", 0)))


def test_a_file_cut_at_any_place_is_measured_as_far_as_it_goes():
    whole = made("WAV", "PCM_24")
    begin = whole.index(b"data") + 8
    for end in [*range(begin + 9), len(whole) // 3, len(whole) - 1]:
        if end <= begin + 5:
            with pytest.raises((FormatError, InputError)):
                measure_stream(io.BytesIO(whole[:end]))
        else:
            assert measure_stream(io.BytesIO(whole[:end])).truncated
    assert not measure_stream(io.BytesIO(whole)).truncated
    long = made("RF64", "PCM_24")
    assert measure_stream(io.BytesIO(long[:-3000])).truncated


@pytest.mark.parametrize(
    ("place", "form", "value"),
    [
        (22, "<H", 0),
        (22, "<H", 2000),
        (24, "<I", 0),
        (24, "<I", 100),
        (24, "<I", 4_000_000_000),
        (34, "<H", 0),
        (40, "<I", 0),
    ],
    ids=["no channels", "channels", "no rate", "rate", "absurd rate", "no bits", "no sound"],
)
def test_headers_that_lie_are_refused(place, form, value):
    data = bytearray(made("WAV", "PCM_24"))
    struct.pack_into(form, data, place, value)
    with pytest.raises((FormatError, InputError)) as caught:
        measure_stream(io.BytesIO(bytes(data)))
    assert "\n" not in caught.value.message


@pytest.mark.parametrize("data", [b"", b"RIFF", b"scene, take, sound\n" * 50, bytes(5000)])
def test_what_is_no_recording_is_refused(data):
    with pytest.raises(FormatError, match=r"no recording|is empty"):
        open_recording(io.BytesIO(data))


@pytest.mark.parametrize(
    "text",
    [
        "v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nt=0 0\nm=audio 5004 RTP/AVP 0\n",
        "#EXTM3U\n#EXT-X-TARGETDURATION:9\n#EXTINF:9,\nhttp://127.0.0.1:{port}/a.ts\n#EXT-X-ENDLIST\n",
        "ffconcat version 1.0\nfile http://127.0.0.1:{port}/a.wav\n",
    ],
    ids=["session description", "playlist", "list of files"],
)
def test_a_text_that_names_another_place_is_not_followed(tmp_path, text):
    """Said before: a socket for RTP, and 20 s of waiting; `measure x.m3u8` fetched the address in it."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        listener.listen()
        listener.setblocking(False)
        path = tmp_path / "x.m3u8"
        path.write_text(text.format(port=listener.getsockname()[1]))
        for read in (open_recording, movie_facts):
            with path.open("rb") as stream, pytest.raises(FormatError):
                read(stream)
        with pytest.raises(BlockingIOError):
            listener.accept()


def test_words_are_whole_and_nothing_that_a_screen_obeys():
    assert is_plain("میکروفون‌ها") and is_plain("👩‍🎤 radio")
    assert not any(is_plain(f"a{mark}b") for mark in "\0\x1b\n\u202e\u2066")


@pytest.mark.parametrize("bits", ["16", "24", "32f"])
def test_what_is_written_is_read(bits):
    box = io.BytesIO()
    pieces = [TONE[:, start : start + 10_000] for start in range(0, TONE.shape[1], 10_000)]
    write_sound(box, pieces, rate_hz=RATE, channels=2, sample_count=TONE.shape[1], bits=bits)
    samples, rate = soundfile.read(io.BytesIO(box.getvalue()))
    assert rate == RATE and np.abs(samples.T - TONE).max() < 1e-4


@pytest.mark.parametrize("subtype", ["PCM_16", "PCM_24", "PCM_32"])
@pytest.mark.parametrize("kind", ["WAV", "WAVEX", "RF64"])
def test_whole_numbers_are_read_alike_by_the_quick_way_and_by_libsndfile(tmp_path, kind, subtype):
    """Sample by sample, in pieces of any size, and from a file as from memory, which goes the other way."""
    samples = np.random.default_rng(5).uniform(-1, 1, (30_011, 3))
    path = tmp_path / "three.wav"
    soundfile.write(path, samples, 48_000, subtype=subtype, format=kind)
    truth = soundfile.read(path, dtype="float32")[0].T
    for stream in (path.open("rb"), io.BytesIO(path.read_bytes())):
        with stream:
            recording = open_recording(stream)
            assert (np.concatenate(list(recording.pieces(4_096)), axis=1) == truth).all()
            assert (recording.read(20_000, 500) == truth[:, 20_000:20_500]).all()
            sizes = [piece.shape[1] for piece in recording.again(30_000)]
            assert sizes == [30_000, 11]
            recording.close()
