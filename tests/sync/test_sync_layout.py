"""Files of both sides laid over each other at once."""

from tests.sounds import RATE, noise, voice, wav, with_time_reference
from tidy_trunk.sync.layout import SyncFile, match_files
from tidy_trunk.sync.profiles import profile_file


def test_progress_counts_files_that_clocks_place_and_those_that_are_heard(tmp_path):
    """Of four clips the first two lie where their clocks say; the third is heard, the fourth is a stranger."""
    source = voice(-20, 30, 7)
    parts = [source[at * RATE : (at + 12) * RATE] for at in (2, 9, 15)]
    sounds = {
        "bag": with_time_reference(wav(source), 36_000 * RATE),
        "one": with_time_reference(wav(parts[0]), 36_002 * RATE),
        "two": with_time_reference(wav(parts[1]), 36_009 * RATE),
        "three": wav(parts[2]),
        "four": wav(noise(-30, 12, 5)),
    }
    files = []
    for name, data in sounds.items():
        (tmp_path / name).write_bytes(data)
        facts = profile_file(tmp_path / name, lambda _: None)
        side = "recorder" if name == "bag" else "camera"
        files.append(SyncFile(id=name, name=name, side=side, path=tmp_path / name, facts=facts))
    told: list[float] = []
    found = match_files(files, told.append)
    assert [(clip.other, clip.method) for clip in found] == [
        ("one", "timecode"),
        ("two", "timecode"),
        ("three", "waveform"),
    ]
    assert told == sorted(told) and {0.25, 0.5, 0.75, 1.0} == set(told)
