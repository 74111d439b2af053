"""Bytes of other people's formats as values. Opens no file."""

from tidy_trunk.formats.sound import LARGEST_SOUND_BYTES, read_sound

__all__ = ["LARGEST_SOUND_BYTES", "read_sound"]
