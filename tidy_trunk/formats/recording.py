"""Recordings of every kind that comes from a set, read piece by piece: WAV and its kin, and the sound of movies."""

import os
import tempfile
from collections.abc import Iterator
from typing import Any, BinaryIO, Final, Protocol

import numpy as np
import soundfile
from numpy.typing import NDArray

from tidy_trunk.errors import FormatError
from tidy_trunk.formats.container import opened
from tidy_trunk.formats.plain import can_be_read, plain_pieces
from tidy_trunk.formats.riff import find_sound

ChannelSamples = NDArray[np.float32]
"""Shape (channels, sample_count), full scale 1.0. [AES17]"""

LONGEST_S: Final = 24 * 3600
"""ASSUMED_ longest recording that is read: a day."""


class Recording(Protocol):
    """A recording that can be read from beginning to end, and then here and there once more.

    sample_count: as far as it is known before it has been read. bits: None where the sound is lossy. encoding: "pcm",
    "float" or "lossy". truncated: there is less of it than its header promises.
    """

    rate_hz: int
    channels: int
    sample_count: int
    bits: int | None
    encoding: str
    truncated: bool

    def pieces(self, size: int) -> Iterator[ChannelSamples]:
        """All of it, in pieces of that many samples; the last one is shorter.

        Raises:
            FormatError: It cannot be decoded.
        """

    def again(self, size: int) -> Iterator[ChannelSamples]:
        """All of it in pieces, once it can be read anywhere: after `prepare`, as often as wanted.

        Raises:
            FormatError: It cannot be decoded.
        """

    def prepare(self) -> None:
        """Make `read` and the true `sample_count` ready without looking at the pieces: a movie is decoded, once.

        Raises:
            FormatError: It cannot be decoded.
        """

    def read(self, start: int, count: int) -> ChannelSamples:
        """A stretch of it; after `prepare`, or once `pieces` has come to its end."""

    def close(self) -> None:
        """Let go of everything."""


PCM_BITS: Final = {"PCM_S8": 8, "PCM_U8": 8, "PCM_16": 16, "PCM_24": 24, "PCM_32": 32}
"""Whole numbers, by libsndfile's name. [PRACTICE]"""

PLAIN: Final = ("PCM_16", "PCM_24", "PCM_32")
"""What is read the quick way from a WAV, by libsndfile's name. [PRACTICE]"""

FLOAT_BITS: Final = {"FLOAT": 32, "DOUBLE": 64}
"""Numbers with an exponent, by libsndfile's name. [PRACTICE]"""


def open_recording(stream: BinaryIO) -> Recording:
    """A recording from a binary stream that can be sought in; it stays the caller's to close, after the recording.

    Raises:
        FormatError: Empty, no recording at all, without sound, or of a shape that no recording has.
    """
    if not stream.seek(0, 2):
        raise FormatError("the file is empty: copy it from its card again")
    stream.seek(0)
    try:
        return SoundRecording(stream)
    except soundfile.LibsndfileError:
        stream.seek(0)
        return MovieRecording(stream)


class SoundRecording:
    """What libsndfile reads: WAV, BWF, RF64, W64, AIFF, FLAC and more."""

    def __init__(self, stream: BinaryIO) -> None:
        chunk = find_sound(stream)
        self._file = soundfile.SoundFile(_handle(stream))
        self.rate_hz = int(self._file.samplerate)
        self.channels = int(self._file.channels)
        self.sample_count = int(self._file.frames)
        kind = self._file.subtype
        self.bits = PCM_BITS.get(kind) or FLOAT_BITS.get(kind)
        self.encoding = "pcm" if kind in PCM_BITS else "float" if kind in FLOAT_BITS else "lossy"
        self.truncated = chunk is not None and chunk.is_cut_short
        self._stream = stream
        is_plain = chunk is not None and chunk.promised is not None and not self.truncated and kind in PLAIN
        self._is_plain = is_plain and can_be_read(stream)
        self._whole: NDArray[np.int32] | None = None  # filled again and again: new memory costs as much as reading
        _check(self.rate_hz, self.sample_count, self.channels)

    def pieces(self, size: int) -> Iterator[ChannelSamples]:
        if self._is_plain:
            yield from plain_pieces(self._stream, self.channels, size)
            return
        self._file.seek(0)
        while True:
            piece = self._next(size)
            if piece.shape[1]:
                yield piece
            if piece.shape[1] < size:
                return

    def again(self, size: int) -> Iterator[ChannelSamples]:
        return self.pieces(size)

    def prepare(self) -> None:
        """It can be read anywhere as it is."""

    def read(self, start: int, count: int) -> ChannelSamples:
        self._file.seek(start)
        return self._next(count)

    def _next(self, count: int) -> ChannelSamples:
        try:
            # Whole numbers are read as such: libsndfile takes half as long again for turning them into floats.
            if self.encoding == "pcm":
                if self._whole is None or len(self._whole) < count:
                    self._whole = np.empty((count, self.channels), dtype=np.int32)
                whole = self._file.read(out=self._whole[:count], dtype="int32", always_2d=True)
                return np.asarray(np.multiply(whole.T, np.float32(2.0**-31), dtype=np.float32, order="C"))
            return np.ascontiguousarray(self._file.read(count, dtype="float32", always_2d=True).T)
        except soundfile.LibsndfileError as error:
            raise FormatError(f"the recording breaks off at {self._file.tell() / self.rate_hz:.1f} s") from error

    def close(self) -> None:
        self._file.close()


def _handle(stream: BinaryIO) -> BinaryIO | int:
    """A file by the system's own handle, which libsndfile closes: else it asks Python for every few kilobytes."""
    try:
        handle = os.dup(stream.fileno())
    except OSError:
        return stream
    os.lseek(handle, 0, os.SEEK_SET)
    return handle


class MovieRecording:
    """The sound of a camera movie: all its sound tracks side by side, as channels."""

    def __init__(self, stream: BinaryIO) -> None:
        import av  # a tenth of a second: only for movies

        self._av: Any = av
        try:
            self._container: Any = opened(stream)
        except (av.error.FFmpegError, ValueError, OverflowError) as error:
            raise FormatError("this is no recording that can be read: give a WAV or a camera movie") from error
        self._streams = list(self._container.streams.audio)
        if not self._streams:
            self.close()
            raise FormatError("the movie has no sound: choose a clip that was recorded with sound")
        if any(track.codec_context is None for track in self._streams):
            self.close()
            raise FormatError("the sound is in a form that cannot be read: export it as WAV")
        first = self._streams[0].codec_context
        self.rate_hz = int(first.sample_rate or 0)
        if any(other.codec_context.sample_rate != self.rate_hz for other in self._streams):
            self.close()
            raise FormatError("the movie's sound tracks have different sample rates: take them apart first")
        self.channels = sum(track.codec_context.channels for track in self._streams)
        length: int | None = self._container.duration
        self.sample_count = round(length / av.time_base * self.rate_hz) if length and self.rate_hz else 0
        self.bits, self.encoding = _codec(first)
        self.truncated = False
        self._is_decoded = False
        # Decoded once, and kept for the second look where no name leads to it: it goes when it is closed.
        self._decoded = tempfile.TemporaryFile()  # noqa: SIM115, closed in `close`
        try:
            _check(self.rate_hz, self.sample_count, self.channels)
        except FormatError:
            self.close()
            raise

    def pieces(self, size: int) -> Iterator[ChannelSamples]:
        waiting: list[list[NDArray[np.float32]]] = [[] for _ in self._streams]
        total = 0
        for frames in self._frames():
            for kept, new in zip(waiting, frames, strict=True):
                kept += new
            while min(sum(part.shape[1] for part in kept) for kept in waiting) >= size:
                piece = self._cut(waiting, size)
                total += piece.shape[1]
                if total > self.rate_hz * LONGEST_S:
                    raise FormatError("the recording is longer than a day: give a part of it")
                yield self._keep(piece)
        rest = min(sum(part.shape[1] for part in kept) for kept in waiting)
        self.sample_count, self._is_decoded = total + rest, True
        if rest:
            yield self._keep(self._cut(waiting, rest))

    def _frames(self) -> Iterator[list[list[Any]]]:
        """Decoded samples of each stream, packet by packet; what follows a damaged one is not there."""
        resamplers = [self._av.AudioResampler(format="fltp") for _ in self._streams]
        order = {track.index: number for number, track in enumerate(self._streams)}
        try:
            for packet in self._container.demux(self._streams):
                found: list[list[Any]] = [[] for _ in self._streams]
                number = order[packet.stream.index]
                for frame in packet.decode():
                    found[number] += [part.to_ndarray() for part in resamplers[number].resample(frame)]
                yield found
        except self._av.error.FFmpegError:
            self.truncated = True

    @staticmethod
    def _cut(waiting: list[list[NDArray[np.float32]]], size: int) -> ChannelSamples:
        taken = []
        for index, kept in enumerate(waiting):
            whole = np.concatenate(kept, axis=1)
            taken.append(whole[:, :size])
            waiting[index] = [whole[:, size:]]
        return np.ascontiguousarray(np.concatenate(taken), dtype=np.float32)

    def _keep(self, piece: ChannelSamples) -> ChannelSamples:
        self._decoded.write(np.ascontiguousarray(piece.T).tobytes())
        return piece

    def prepare(self) -> None:
        if not self._is_decoded:
            for _ in self.pieces(self.rate_hz):
                pass

    def again(self, size: int) -> Iterator[ChannelSamples]:
        for first in range(0, self.sample_count, size):
            yield self.read(first, min(size, self.sample_count - first))

    def read(self, start: int, count: int) -> ChannelSamples:
        width = 4 * self.channels
        self._decoded.seek(start * width)
        values = np.frombuffer(self._decoded.read(count * width), dtype=np.float32)
        return np.ascontiguousarray(values.reshape(-1, self.channels).T)

    def close(self) -> None:
        self._container.close()
        if hasattr(self, "_decoded"):
            self._decoded.close()


def _codec(context: Any) -> tuple[int | None, str]:
    """Bits and encoding of a movie's sound, by the name of its codec."""
    name = str(context.name)
    if name.startswith(("pcm_f32", "pcm_f64")):
        return int(name[5:7]), "float"
    if name.startswith(("pcm_s", "pcm_u")) and name[5:7].rstrip("lbp").isdigit():
        return int(name[5:7].rstrip("lbp")), "pcm"
    if name in ("alac", "flac"):
        # Whether 24 or 32 of the bits are used, nobody tells.
        return 16 if context.format.bits == 16 else None, "pcm"
    return None, "lossy"


def _check(rate_hz: int, sample_count: int, channels: int) -> None:
    if channels < 1:
        raise FormatError("the recording claims to have no channels: export it again")
    if rate_hz <= 0:
        raise FormatError("the recording has no sample rate: export it again")
    if sample_count > rate_hz * LONGEST_S:
        raise FormatError("the recording is longer than a day: give a part of it")
