"""`./tidy day`: text, JSON, calendar, table and paper, each read back by another library."""

import csv
import io
import json
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from icalendar import Calendar
from pypdf import PdfReader

from tests.commands import typed
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan, SaveSetUp, SetJob, apply_edits
from tidy_trunk.document import write_plan
from tidy_trunk.exports import Entry, read_calendar, write_calendar
from tidy_trunk.exports.calendar import moment


@pytest.fixture
def foundry_file(tmp_path):
    path = tmp_path / "foundry.json"
    path.write_bytes(write_plan(apply_edits(foundry(), [SetJob(date="2026-12-01", zone="Europe/Vienna")])))
    return path


def test_the_day_of_the_foundry(foundry_file, tmp_path):
    done = typed(
        "day",
        foundry_file,
        "--json",
        "--ics",
        tmp_path / "d.ics",
        "--pdf",
        tmp_path / "d.pdf",
        "--csv",
        tmp_path / "d.csv",
    )
    assert done.status == 1  # its small camera stops in the live feed
    day = json.loads(done.out)
    assert [item["what"] for item in day["unkept"]] == ["clip-limit"] and day["interruptions"] == 0 and day["is_best"]
    assert len(day["takes"]) == 14 and day["tasks"][0]["what"] == "Switch on Box A"
    calendar = Calendar.from_ical((tmp_path / "d.ics").read_bytes())
    events = {str(event["summary"]): event.decoded("dtstart") for event in calendar.walk("VEVENT")}
    assert events["Set-up 2A"] == datetime(2026, 12, 1, 11, tzinfo=ZoneInfo("Europe/Vienna"))
    assert len(events) >= len({task["what"] for task in day["tasks"]}) and "Switch on Box A" in events
    pages = [page.extract_text() for page in PdfReader(tmp_path / "d.pdf").pages]
    assert "Casting day: the day" in pages[0] and "Change the battery of Receiver A" in " ".join(pages)
    assert "Camera B stops after 30 min" in pages[0]
    rows = list(csv.DictReader(io.StringIO((tmp_path / "d.csv").read_text())))
    assert [row["what"] for row in rows] == [task["what"] for task in day["tasks"]]


def test_the_sheet_is_the_same_byte_for_byte_and_comes_on_two_papers(foundry_file, tmp_path):
    sizes = {}
    for paper in ("a4", "letter"):
        typed("day", foundry_file, "--pdf", tmp_path / paper, "--paper", paper)
        sizes[paper] = [round(float(side)) for side in PdfReader(tmp_path / paper).pages[0].mediabox[2:]]
    assert sizes == {"a4": [595, 842], "letter": [612, 792]}  # ISO 216 in points, and 8.5 × 11 in


@pytest.mark.parametrize(
    ("edits", "options", "says"),
    [
        ((), (), "no set-up is planned"),
        (
            (SaveSetUp(label="1A", at_min=600, takes=1, take_min=5),),
            ("--pdf", "out.pdf", "--paper", "a5"),
            "no paper is called 'a5'",
        ),
    ],
)
def test_what_is_no_day_is_refused(tmp_path, monkeypatch, edits, options, says):
    monkeypatch.chdir(tmp_path)
    (tmp_path / "p.json").write_bytes(write_plan(apply_edits(Plan(name="Day"), edits)))
    done = typed("day", "p.json", *options)
    assert (done.status, done.out) == (2, "") and says in done.err and done.err.count("\n") == 1
    assert sorted(item.name for item in tmp_path.iterdir()) == ["p.json"]


def test_the_night_in_which_clocks_are_set_back():
    """In Vienna on 25 October 2026 the hour from two to three comes twice: 26 h after midnight of the 24th it is two, again at 27 h."""
    day = datetime(2026, 10, 24).date()
    late = [moment(day, "Europe/Vienna", hours * 60) for hours in (26, 27, 28)]
    assert [at.hour for at in late] == [2, 2, 3] and [at.fold for at in late] == [0, 1, 0]
    assert late[2].astimezone(ZoneInfo("UTC")) - late[0].astimezone(ZoneInfo("UTC")) == timedelta(hours=2)


def test_a_calendar_is_read_by_the_clock_of_the_place():
    text = (
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:12C\r\n"
        "DTSTART:20261201T093000Z\r\nDTEND:20261201T100000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    (entry,) = read_calendar(text.encode(), datetime(2026, 12, 1).date(), "Europe/Vienna")
    assert (entry.title, entry.at_min, entry.length_min) == ("12C", 10 * 60 + 30, 30)


@example(0, 180, "2026-10-25")  # said before: an hour too short, as it ends in the hour that comes twice
@given(
    st.integers(0, 47 * 60),
    st.integers(1, 300),
    st.sampled_from(["2026-10-24", "2026-10-25", "2026-03-28", "2026-12-01"]),
)
def test_a_calendar_that_was_written_is_read_the_same(at_min, length_min, text):
    """Also over both nights in which clocks are changed."""
    day, now = datetime.fromisoformat(text).date(), datetime(2026, 1, 1, tzinfo=ZoneInfo("UTC"))
    entry = Entry(id="1", title="12C", text="", at_min=at_min, length_min=length_min)
    (found,) = read_calendar(write_calendar("d", day, "Europe/Vienna", [entry], now), day, "Europe/Vienna")
    assert (found.at_min, found.length_min) == (at_min, length_min)
