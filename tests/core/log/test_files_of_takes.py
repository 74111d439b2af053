"""Files of a day against its log: each fault alone is found, and a right day has none."""

from dataclasses import replace

import pytest

from tidy_trunk.core.log import (
    ChannelHeard,
    DayFault,
    DayFile,
    DayTake,
    ExpectedFile,
    ExpectedTrack,
    FileTrouble,
    StandInDevice,
    StandInTake,
    corrected_files,
    match_files_to_takes,
    planned_faults,
)

NINE = 9 * 3600.0
TAKES = [
    DayTake(id=f"t{number}", slate="12C", number=number, begins_s=NINE + 300 * number, seconds=80.0)
    for number in (1, 2, 3)
]
TRACKS = [ExpectedTrack(names=("1", "Boom"), level_dbfs=-20.0), ExpectedTrack(names=("2", "Ann"), level_dbfs=-22.0)]
JOB = ExpectedFile(rate="25/1", drop=False, rate_hz=48_000, date="2026-12-01", tracks={"bag": TRACKS})


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


def test_a_take_that_was_cut_at_once():
    """Said before: a roll tapped by mistake, cut after 0.05 s, had no picture."""
    take = replace(TAKES[0], seconds=0.05)
    files = [replace(file, seconds=3.05) for file in right() if file.path.endswith(("-1.wav", "1.mp4"))]
    assert match_files_to_takes(files, [take], JOB).findings == ()


def test_over_midnight():
    take = DayTake(id="t", slate="1A", number=1, begins_s=86_395.0, seconds=30.0)
    file = DayFile(path="a.wav", source="bag", is_picture=False, seconds=34.0, begins_s=86_393.0)
    late = replace(file, begins_s=4.0, seconds=25.0, path="b.wav")
    job = replace(JOB, date="")
    assert match_files_to_takes([file], [take], job).findings == ()
    (found,) = match_files_to_takes([late], [take], job).findings
    assert found.what is FileTrouble.STARTS_LATE and found.facts["seconds"] == pytest.approx(9)


def heard(level=-21.0, *, peak=-8.0, clipped=0, is_timecode=False):
    return ChannelHeard(peak, level, clipped, is_timecode)


SILENT = heard(None, peak=float("-inf"))


@pytest.mark.parametrize(
    ("channels", "what", "facts"),
    [
        ((heard(), heard(clipped=3)), FileTrouble.CLIPPED, {"tracks": "2 (Ann)", "count": 3.0}),
        ((SILENT, heard()), FileTrouble.SILENT, {"tracks": "1 (Boom)"}),
        ((heard(-33.0), heard()), FileTrouble.LEVEL, {"track": "1 (Boom)", "is": -33.0, "wanted": -20.0}),
    ],
)
def test_what_a_file_holds_is_held_against_the_plan(channels, what, facts):
    files = right()
    assert match_files_to_takes([replace(files[0], heard=(heard(), heard())), *files[1:]], TAKES, JOB).findings == ()
    files[0] = replace(files[0], heard=channels)
    (found,) = match_files_to_takes(files, TAKES, JOB).findings
    assert (found.what, found.take, found.facts) == (what, "t1", facts)
    # Nobody has to speak as planned while room tone is recorded.
    quiet = [replace(TAKES[0], is_spoken=False), *TAKES[1:]]
    assert bool(match_files_to_takes(files, quiet, JOB).findings) == (what is not FileTrouble.LEVEL)


def test_tracks_that_changed_places():
    """By their names; by timecode; by a safety that is louder than what it is kept beside."""
    by_name = replace(right()[0], tracks=((1, "Ann"), (2, "Boom")))
    timed = [ExpectedTrack(names=("1",), level_dbfs=-20.0), ExpectedTrack(names=("2",), is_timecode=True)]
    safe = [
        ExpectedTrack(names=("1",), level_dbfs=-20.0),
        ExpectedTrack(names=("2",), level_dbfs=-30.0, safety_of="1"),
    ]
    plain = replace(right()[0], tracks=())
    ltc = heard(None, peak=-18.0, is_timecode=True)
    for file, tracks, is_swapped in (
        (by_name, TRACKS, True),
        (replace(plain, heard=(ltc, heard())), timed, True),
        (replace(plain, heard=(heard(), ltc)), timed, False),
        (replace(plain, heard=(heard(-30.0), heard(-20.0))), safe, True),
        (replace(plain, heard=(heard(-20.0), heard(-30.0))), safe, False),
    ):
        found = match_files_to_takes([file], TAKES[:1], replace(JOB, tracks={"bag": tracks})).findings
        assert [item.what for item in found] == [FileTrouble.SWAPPED] * is_swapped


def test_a_camera_beside_the_recorder():
    """Half a frame within a file, and a frame and a half between files, at 25 pictures a second."""
    for off_s, drift_ppm, expected in (
        (0.05, 100.0, []),
        (0.07, None, [FileTrouble.OFF_CLOCK]),
        (0.0, 300.0, [FileTrouble.DRIFT]),  # 84 s · 300 ppm · 25 = 0.63 frames
    ):
        files = right()
        files[3] = replace(files[3], off_s=off_s, drift_ppm=drift_ppm)
        assert [item.what for item in match_files_to_takes(files, TAKES, JOB).findings] == expected


def test_user_bits_that_most_files_of_a_device_do_not_have():
    files = [replace(file, user_bits="01122026") for file in right()]
    assert match_files_to_takes(files, TAKES, JOB).findings == ()
    files[1] = replace(files[1], user_bits="30112026")
    (found,) = match_files_to_takes(files, TAKES, JOB).findings
    assert (found.what, found.path) == (FileTrouble.USER_BITS, "bag/12C-2.wav")


def test_the_copy_is_called_and_says_what_the_log_says():
    files = right()
    files[0] = replace(
        files[0], path="bag/REC_1.WAV", date="2026-11-30", tracks=((1, "Tr1"), (2, "Tr2")), heard=(heard(),) * 2
    )
    files.append(replace(files[0], path="bag/REC_2.WAV", seconds=3.0))
    matched = match_files_to_takes(files, TAKES, JOB)
    found = {item.path: item for item in corrected_files(files, TAKES, matched.takes, JOB)}
    assert found["bag/REC_1.WAV"].name == "bag/12C-01.WAV" and found["bag/REC_2.WAV"].name == "bag/12C-01_2.WAV"
    assert found["bag/REC_1.WAV"].date == "2026-12-01" and found["bag/REC_1.WAV"].tracks == ((1, "Boom"), (2, "Ann"))
    assert found["bag/12C-2.wav"].name == "bag/12C-2.wav" and found["bag/12C-2.wav"].date == ""
    camera = found["cam/C0001.mp4"]
    assert (camera.name, camera.is_picture) == ("cam/C0001.mp4", True), "the edit finds pictures by their names"


def test_faults_of_a_simulated_day_are_alike_for_one_seed():
    takes = [StandInTake(f"t{number}", "1A", number, NINE + 100 * number, 5.0 + number) for number in range(1, 15)]
    devices = [StandInDevice("Bag", False, 2, 2), StandInDevice("A", True, 2, 1), StandInDevice("B", True, 0, 0)]
    kinds = set()
    for seed in range(30):
        found = planned_faults(takes, devices, 5, seed)
        assert found == planned_faults(takes, devices, 5, seed)
        assert len({(item.device, item.take) for item in found}) == len({item.what for item in found}) == 5
        kinds |= {item.what for item in found}
        short = {item.what for item in found if item.take in ("t1", "t2")}
        assert not short & {DayFault.DEAD_BATTERY, DayFault.LATE_CLOCK}
    assert kinds == set(DayFault)
    assert planned_faults(takes[:1], devices[2:], 9, 0)[0].device == "B"
