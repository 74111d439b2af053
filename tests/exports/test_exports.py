"""Aligned files written for other programs, and read back by their own readers."""

import csv
import io
from fractions import Fraction

import opentimelineio as otio
import pytest

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.errors import InputError
from tidy_trunk.exports import PlacedFile, PlacedTimeline, edl, offsets_csv, otio_timeline

TEN = Fraction(36_000)


def placed(name, is_picture, begins, seconds, own=Fraction(0), **more):
    return PlacedFile(
        name=name, is_picture=is_picture, begins_s=Fraction(begins), seconds=Fraction(seconds), own_start_s=own, **more
    )


def timeline(rate="25", starts=TEN, files=None):
    return PlacedTimeline(title="sync-1", rate=FrameRate.parse(rate), starts_s=starts, files=tuple(files or (
        placed("BAG-T012.WAV", False, 0, 60, TEN),
        placed("CAMA_0031.MOV", True, "12.48", 20, method="waveform", confidence=0.987, drift_ppm=-3.21),
        placed("CAMB_0007.MOV", True, "20", "10.5", TEN + 20, polarity=-1, method="timecode", confidence=0.95),
        placed("CAMA_0032.MOV", True, "40", 8, method="clap", confidence=0.75),
    )))  # fmt: skip


def test_an_edit_list_is_read_back_by_another_reader():
    """At 25: 12.48 s are 312 frames, so 10:00:12:12; 20 s of it end at 10:00:32:12."""
    text = edl(timeline(files=[timeline().files[1], timeline().files[3]])).decode()
    assert "001  CAMA_003 V     C        00:00:00:00 00:00:20:00 10:00:12:12 10:00:32:12" in text
    read = otio.adapters.read_from_string(text, "cmx_3600", rate=25)
    clips = list(read.find_clips())
    assert [clip.name for clip in clips] == ["CAMA_0031.MOV", "CAMA_0032.MOV"]
    assert clips[0].source_range.duration.to_frames() == 500
    begins = clips[1].transformed_time(otio.opentime.RationalTime(0, 25), read.tracks)
    assert begins.rescaled_to(25).to_frames() == (36_000 + 40) * 25, "forty seconds after ten"


@pytest.mark.parametrize(("rate", "mode", "record"), [
    ("29.97df", "DROP FRAME", "00:01:00;02"), ("29.97", "NON-DROP FRAME", "00:01:00:00"), ("24", "NON-DROP FRAME", "00:01:15:00"),
])  # fmt: skip
def test_an_edit_list_counts_as_the_job_does(rate, mode, record):
    """1800 frames at 29.97 are 60.06 s: 00:01:00;02 with drop-frame, ST 12-1. At 24, 75 s."""
    starts = Fraction(75) if rate == "24" else Fraction(1800) / FrameRate.parse(rate).ratio
    text = edl(timeline(rate, starts, [placed("a.wav", False, 0, 10)])).decode()
    assert f"FCM: {mode}\n" in text and f" {record} " in text


def test_an_edit_list_names_the_file_and_not_its_folder():
    """Said before: reel names of the folders that lead to the file."""
    text = edl(timeline(files=[placed("/media/day 3/CAMA_0031.MOV", True, 0, 10)])).decode()
    assert "001  CAMA_003 V" in text and "* FROM CLIP NAME: CAMA_0031.MOV\n" in text


def test_an_edit_list_has_an_end():
    with pytest.raises(InputError, match="numbers 999 events"):
        edl(timeline(files=[placed(f"{number}.wav", False, number, 1) for number in range(1000)]))


def test_otio_holds_every_clip_to_a_fraction_of_a_frame():
    read = otio.adapters.read_from_string(otio_timeline(timeline()).decode(), "otio_json")
    assert read.global_start_time.to_timecode() == "10:00:00:00"
    kinds = [(track.kind, [clip.name for clip in track.find_clips()]) for track in read.tracks]
    assert kinds == [
        ("Video", ["CAMA_0031.MOV", "CAMA_0032.MOV"]), ("Video", ["CAMB_0007.MOV"]), ("Audio", ["BAG-T012.WAV"]),
    ]  # fmt: skip
    where = {clip.name: clip.range_in_parent() for track in read.tracks for clip in track.find_clips()}
    assert where["CAMA_0031.MOV"].start_time.to_seconds() == pytest.approx(12.48)
    assert where["CAMA_0032.MOV"].start_time.to_seconds() == pytest.approx(40.0)
    assert where["CAMB_0007.MOV"].duration.to_seconds() == pytest.approx(10.5)


def test_offsets_as_a_table():
    rows = list(
        csv.DictReader(
            io.StringIO(offsets_csv(timeline(files=[*timeline().files, placed("=2+2.wav", False, 1, 1)])).decode())
        )
    )
    first, second, *_, last = rows
    assert (first["starts"], first["method"], first["confidence"]) == ("10:00:00:00", "", "")
    assert (second["starts_s"], second["starts_frames"], second["drift_ppm"]) == ("12.480000", "312.000", "-3.21")
    assert rows[2]["polarity"] == "opposite" and last["file"] == "'=2+2.wav"
