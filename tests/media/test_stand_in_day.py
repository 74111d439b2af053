"""A simulated day from its takes to its files, listened to and held against its log: each fault is found, and nothing else."""

import pytest

from tests.plans import line_into_camera
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.log import DayFault, DayTake, FileTrouble, StandInTake, match_files_to_takes
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.media import stand_in_day
from tidy_trunk.media.stand_in_day import write_day
from tidy_trunk.results.files import expected_of
from tidy_trunk.results.log import LogOut
from tidy_trunk.services.log import logged_tracks
from tidy_trunk.sync.beside_recorder import read_day

SHOWS_AS = {
    DayFault.MISSED_BUTTON: FileTrouble.NO_FILE,
    DayFault.DEAD_BATTERY: FileTrouble.ENDS_EARLY,
    DayFault.WRONG_RATE: FileTrouble.RATE,
    DayFault.CLIPPED: FileTrouble.CLIPPED,
    DayFault.SILENT_TRACK: FileTrouble.SILENT,
    DayFault.CUT_SHORT: FileTrouble.CUT_SHORT,
    DayFault.WRONG_LABEL: FileTrouble.LABELLED_OTHERWISE,
    DayFault.WRONG_DATE: FileTrouble.DATE,
    DayFault.SWAPPED_NAMES: FileTrouble.SWAPPED,
    DayFault.LATE_CLOCK: FileTrouble.OFF_CLOCK,
}
TAKES = [StandInTake(f"t{number}", "12C", number, 36_000.0 + 60 * number, 9.0 + number) for number in range(1, 4)]


def differences(plan, folder, tmp_path):
    log = LogOut.model_construct(
        rate=plan.defaults.frame_rate,
        sample_rate_hz=48_000,
        day="2026-12-01",
        tracks=logged_tracks(Report(trace_plan(plan))),
    )
    takes = [DayTake(id=t.id, slate=t.slate, number=t.number, begins_s=t.begins_s, seconds=t.seconds) for t in TAKES]
    files = read_day(folder, tmp_path, lambda share: None, with_sound=True)
    return match_files_to_takes(files, takes, expected_of(log)).findings


@pytest.mark.deep
def test_every_fault_of_the_foundrys_day_is_found_and_nothing_else(tmp_path):
    plan = foundry()
    made = write_day(plan, TAKES, tmp_path / "day", seed=3, faults=10, date="2026-12-01")
    said = {(SHOWS_AS[fault["what"]], fault["take"]) for fault in made["faults"]}
    labels = {take.id: f"{take.slate}-{take.number}" for take in TAKES}
    whose = {f"REC_{number:03}": label for number, label in enumerate(labels.values(), start=1)}
    whose |= {f"C{number:04}": label for number, label in enumerate(labels.values(), start=1)}
    found = differences(plan, tmp_path / "day", tmp_path)
    shown = {
        (item.what, labels[item.take] if item.take else whose[item.path.rpartition("/")[2].partition(".")[0]])
        for item in found
    }
    assert (
        shown == said and len(said) >= 8 and made["files"] == 15 - (FileTrouble.NO_FILE in {what for what, _ in said})
    )


def test_a_day_without_faults_agrees_with_its_log(tmp_path):
    plan = line_into_camera()
    made = write_day(plan, TAKES[:2], tmp_path / "day", seed=1, faults=0, date="2026-12-01")
    assert made["faults"] == [] and made["files"] == 4
    assert {item.take for item in differences(plan, tmp_path / "day", tmp_path)} == {"t3"}, "of which there is no file"


@pytest.mark.deep
def test_what_cannot_be_simulated_is_said(tmp_path, monkeypatch):
    with pytest.raises(InputError, match="nothing to record"):
        write_day(Plan(name="Empty"), TAKES, tmp_path, seed=1, faults=0, date="")
    monkeypatch.setattr(stand_in_day, "MOST_BYTES", 1_000)
    with pytest.raises(InputError, match="would take"):
        write_day(foundry(), TAKES, tmp_path, seed=1, faults=0, date="")
