"""Files of a day against its log: each fault alone is found, and a right day has none."""

from dataclasses import replace

import pytest

from tidy_trunk.core.log import DayFile, DayTake, Expected, FileTrouble, match_files_to_takes

NINE = 9 * 3600.0
TAKES = [
    DayTake(id=f"t{number}", slate="12C", number=number, begins_s=NINE + 300 * number, seconds=80.0)
    for number in (1, 2, 3)
]
JOB = Expected(rate="25/1", drop=False, rate_hz=48_000, date="2026-12-01", tracks={"bag": ["1", "2", "Boom", "Ann"]})


def right():
    """A recorder's and a camera's files of three takes, rolled a second before the log's taps and cut two after."""
    sounds = [
        DayFile(
            path=f"bag/12C-{take.number}.wav", source="bag", is_picture=False, seconds=83.0, begins_s=take.begins_s - 1,
            scene="12C", take=str(take.number), rate="25/1", rate_hz=48_000, date="2026-12-01",
            tracks=((1, "Boom"), (2, "Ann")),
        )
        for take in TAKES
    ]  # fmt: skip
    movies = [
        DayFile(path=f"cam/C000{take.number}.mp4", source="cam", is_picture=True, seconds=84.0, begins_s=take.begins_s - 2, rate="25/1")
        for take in TAKES
    ]  # fmt: skip
    return [*sounds, *movies]


def test_a_right_day_has_no_difference():
    matched = match_files_to_takes(right(), TAKES, JOB)
    assert matched.findings == ()
    assert [file.path for file in matched.takes["t2"]] == ["bag/12C-2.wav", "cam/C0002.mp4"]


@pytest.mark.parametrize(
    ("number", "change", "what", "take"),
    [
        (1, None, FileTrouble.NO_FILE, "t2"),  # the record button that was missed
        (1, {"is_cut_short": True, "seconds": 40.0}, FileTrouble.CUT_SHORT, "t2"),
        (1, {"seconds": 60.0}, FileTrouble.ENDS_EARLY, "t2"),  # 19 s of the take are missing
        (1, {"begins_s": NINE + 612, "seconds": 71.0}, FileTrouble.STARTS_LATE, "t2"),
        (1, {"scene": "12D", "take": "9"}, FileTrouble.LABELLED_OTHERWISE, "t2"),
        (1, {"rate": "24/1"}, FileTrouble.RATE, ""),
        (1, {"drop": True}, FileTrouble.FLAG, ""),
        (1, {"rate_hz": 44_100}, FileTrouble.SAMPLE_RATE, ""),
        (1, {"date": "2026-11-30"}, FileTrouble.DATE, ""),
        (1, {"tracks": ((1, "Tr1"), (2, "Ann"))}, FileTrouble.TRACKS, ""),
        (1, {"problem": "it is no WAV", "seconds": 0.0}, FileTrouble.UNREADABLE, ""),
    ],
)
def test_each_fault_alone_is_found(number, change, what, take):
    files = right()
    files[number : number + 1] = [] if change is None else [replace(files[number], **change)]
    found = match_files_to_takes(files, TAKES, JOB).findings
    # A file that cannot be read leaves its take without one.
    beside = [(FileTrouble.NO_FILE, "t2")] if what is FileTrouble.UNREADABLE else []
    assert [(item.what, item.take) for item in found] == [*beside, (what, take)]


def test_a_file_that_nobody_logged():
    stray = DayFile(path="bag/room.wav", source="bag", is_picture=False, seconds=60.0, begins_s=NINE + 5000)
    (found,) = match_files_to_takes([*right(), stray], TAKES, JOB).findings
    assert (found.what, found.path) == (FileTrouble.NO_TAKE, "bag/room.wav")


def test_parts_of_one_take():
    """A recorder that is full after forty seconds goes on in a second file; a hole between both is a fault."""
    files = right()
    first = replace(files[1], seconds=40.0, path="bag/12C-2_1.wav")
    for begins, what in ((NINE + 639.0, None), (NINE + 641.0, FileTrouble.GAP), (NINE + 637.0, FileTrouble.OVERLAP)):
        second = replace(first, begins_s=begins, seconds=44.0, path="bag/12C-2_2.wav")
        found = match_files_to_takes([files[0], first, second, *files[2:]], TAKES, JOB).findings
        assert [item.what for item in found] == ([] if what is None else [what])


@pytest.mark.parametrize("name", ["12C-2.WAV", "12c_T02.wav", "12C take 2.wav", "bell 12C_2_1.wav"])
def test_without_timecode_and_labels_the_name_tells(name):
    files = [replace(file, begins_s=None, scene="", take="") for file in right()[:1]]
    named = replace(files[0], path=f"bag/{name}")
    assert match_files_to_takes([named], TAKES, JOB).takes["t2"] == (named,)
    other = replace(files[0], path="bag/12C-20.wav")
    assert FileTrouble.NO_TAKE in {item.what for item in match_files_to_takes([other], TAKES, JOB).findings}


def test_over_midnight():
    take = DayTake(id="t", slate="1A", number=1, begins_s=86_395.0, seconds=30.0)
    file = DayFile(path="a.wav", source="bag", is_picture=False, seconds=34.0, begins_s=86_393.0)
    late = replace(file, begins_s=4.0, seconds=25.0, path="b.wav")
    job = replace(JOB, date="")
    assert match_files_to_takes([file], [take], job).findings == ()
    (found,) = match_files_to_takes([late], [take], job).findings
    assert found.what is FileTrouble.STARTS_LATE and found.facts["seconds"] == pytest.approx(9)
