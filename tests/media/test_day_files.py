"""The heads of a day's files: written by us, read back by wavinfo, held against a log on the command line."""

import io
import json

import numpy as np
import pytest
from wavinfo import WavInfoReader

from tests.commands import typed
from tidy_trunk.formats import Broadcast, TakeLabels, TimecodeSpeed, read_labels, write_broadcast
from tidy_trunk.media.day_files import day_files

RATE = 48_000
LABELS = TakeLabels(
    scene="12C", take="4", tape="SR001", note="plane & <rustle>", circled=True, tracks=((1, "Boom"), (2, "Ann é"))
)


def broadcast(begins_s, seconds, labels=None, rate="25/1", day="2026-12-01"):
    box, count = io.BytesIO(), round(seconds * RATE)
    write_broadcast(
        box,
        [np.zeros((2, count), dtype=np.float32)],
        rate_hz=RATE,
        channels=2,
        sample_count=count,
        bits="16",
        broadcast=Broadcast(originator="Bag", date=day, time_reference=round(begins_s * RATE)),
        speed=TimecodeSpeed(rate=rate, drop=False, rate_hz=RATE, time_reference=round(begins_s * RATE)),
        labels=labels,
    )
    return box.getvalue()


def test_labels_are_read_by_another_reader(tmp_path):
    path = tmp_path / "take.wav"
    path.write_bytes(broadcast(36_000, 2, LABELS))
    with path.open("rb") as stream:
        assert read_labels(stream) == TakeLabels(**{**vars_of(LABELS), "rate": "25/1"})
    ixml = WavInfoReader(str(path)).ixml
    assert (ixml.scene, ixml.take, ixml.tape) == ("12C", "4", "SR001")
    assert [(track.channel_index, track.name) for track in ixml.track_list] == [("1", "Boom"), ("2", "Ann é")]


def vars_of(labels):
    return {name: getattr(labels, name) for name in labels.__dataclass_fields__}


@pytest.mark.parametrize(
    "xml",
    [
        b"<BWFXML><SCENE>12C",
        b'<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><BWFXML><SCENE>&b;</SCENE></BWFXML>',
        b'<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><BWFXML><SCENE>&a;</SCENE></BWFXML>',
        b"\xff\xfe\x00",
        b"",
    ],
)
def test_a_description_that_is_none_says_nothing(xml):
    body = xml + b"\0" * (len(xml) % 2)
    chunk = b"iXML" + len(xml).to_bytes(4, "little") + body
    whole = broadcast(0, 0.1)
    at = whole.index(b"iXML")
    size = int.from_bytes(whole[at + 4 : at + 8], "little")
    made = whole[:at] + chunk + whole[at + 8 + size + size % 2 :]
    assert read_labels(io.BytesIO(made)) is None


def log_of(*takes):
    slate, since = (
        {"slate": "1", "number": 1, "label": "1-1"},
        {"room_tone_min": None, "line_up_min": None, "jam_min": None},
    )
    head = {
        "seq": 1,
        "summary": "",
        "job": "J",
        "day": "2026-12-01",
        "zone": "",
        "rate": "25",
        "sample_rate_hz": RATE,
        "running": "",
    }
    rows = [
        {
            "id": f"t{number}", "label": f"12C-{number}", "slate": "12C", "number": number, "begins": "2026-12-01T10:00:00+00:00",
            "ends": "", "clock": "", "timecode": timecode, "end_timecode": "", "seconds": seconds, "length": "", "status": "good",
            "status_words": "good", "text": "", "who": "", "struck": False, "revision": 1, "notes": [], "corrections": [],
        }
        for number, timecode, seconds in takes
    ]  # fmt: skip
    return {**head, "next": slate, "next_set_up": slate, "since": since, "takes": rows, "tracks": [], "findings": []}


def test_a_folder_against_a_log(tmp_path):
    bag = tmp_path / "day" / "bag"
    bag.mkdir(parents=True)
    for number, begins in ((4, 36_000), (5, 36_100)):
        labels = TakeLabels(scene="12C", take=str(number))
        (bag / f"12C-{number}.wav").write_bytes(broadcast(begins - 1, 12, labels))
    whole = broadcast(36_199, 12, TakeLabels(scene="12C", take="6"))
    (bag / "12C-6.wav").write_bytes(whole[: len(whole) // 2])
    (bag / "12C-7.wav").write_bytes(broadcast(36_299, 12, TakeLabels(scene="12C", take="7"), rate="24/1"))
    (bag / "letter.wav").write_bytes(b"Dear editor")
    (bag / "notes.txt").write_text("no recording")
    path = tmp_path / "log.json"
    takes = [
        (4, "10:00:00:00", 10.0),
        (5, "10:01:40:00", 10.0),
        (6, "10:03:20:00", 10.0),
        (7, "10:05:00:00", 10.0),
        (8, "10:07:00:00", 10.0),
    ]
    path.write_text(json.dumps(log_of(*takes)))
    done = typed("files", tmp_path / "day", "--log", path, "--json")
    found = json.loads(done.out)
    assert done.status == 1 and len(found["files"]) == 5
    assert {(item["what"], item["path"] or item["take"]) for item in found["findings"]} == {
        ("no-file", "12C-8"),
        ("cut-short", "bag/12C-6.wav"),
        ("rate", "bag/12C-7.wav"),
        ("unreadable", "bag/letter.wav"),
    }
    assert {item["take"]: item["files"] for item in found["takes"]}["12C-5"] == ["bag/12C-5.wav"]
    words = typed("files", tmp_path / "day", "--log", path).out
    assert "bag has no file of 12C-8" in words and "4 of 5 takes have files, 4 differences" in words
    assert typed("files", tmp_path / "day").status == 0
    (tmp_path / "none").mkdir()
    assert typed("files", tmp_path / "none").status == 3
    assert [file.problem for file in day_files(tmp_path / "day")].count("") == 4
