"""Bytes of other people's formats as values. Opens no file of the user's."""

from tidy_trunk.formats.broadcast import Broadcast, TimecodeSpeed, read_broadcast, write_broadcast
from tidy_trunk.formats.labels import TakeLabels, read_labels
from tidy_trunk.formats.movie import MovieFacts, movie_facts, still
from tidy_trunk.formats.photograph import LARGEST_PHOTO_BYTES, small_photograph
from tidy_trunk.formats.recording import Recording, open_recording
from tidy_trunk.formats.relabel import write_relabelled
from tidy_trunk.formats.riff import is_wave, sound_chunk
from tidy_trunk.formats.sound import LARGEST_SOUND_BYTES, SUBTYPES, read_sound, write_sound

__all__ = [
    "LARGEST_PHOTO_BYTES",
    "LARGEST_SOUND_BYTES",
    "SUBTYPES",
    "Broadcast",
    "MovieFacts",
    "Recording",
    "TakeLabels",
    "TimecodeSpeed",
    "is_wave",
    "movie_facts",
    "open_recording",
    "read_broadcast",
    "read_labels",
    "read_sound",
    "small_photograph",
    "sound_chunk",
    "still",
    "write_broadcast",
    "write_relabelled",
    "write_sound",
]
