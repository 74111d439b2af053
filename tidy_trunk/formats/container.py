"""Opening a recording or movie with FFmpeg's demuxers: those of cameras and recorders, and a file of this machine alone."""

from typing import Any, BinaryIO, Final

DEMUXERS: Final = (
    "wav,w64,aiff,caf,au,flac,mp3,aac,ogg,"  # sound
    "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mxf,mpegts,mpeg,avi,asf"  # movies
)
"""ASSUMED_ list of what cameras, telephones and recorders write. Playlists, session descriptions and their like are text that
names other places, and would be fetched from there."""

_HERE = {"format_whitelist": DEMUXERS, "protocol_whitelist": "file,fd,pipe"}


def opened(source: BinaryIO | str | int, **options: str) -> Any:
    """An `av` container to read from; use it with `with`, or close it.

    Raises `av.error.FFmpegError`, ValueError or OverflowError: it cannot be read, or is of no kind that is taken.
    """
    # A tenth of a second to import: only where something is read whole.
    import av

    return av.open(source, "r", options={**_HERE, **options})
