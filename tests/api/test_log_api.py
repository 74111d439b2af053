"""The log over the API: taps that arrive late, twice and from two at once; the day that is planned by them; the report."""

import csv
import io
import json
import subprocess
import zipfile
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import numpy as np
import opentimelineio as otio
import pytest
from pypdf import PdfReader

from tests.api.test_patch_api import opened
from tests.commands import typed
from tests.photographs import photograph
from tests.sounds import RATE, wav
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.base.timecode import RATES, Timecode, ltc_samples
from tidy_trunk.core.log import NOTES
from tidy_trunk.core.plan import Plan, SetJob, apply_edits
from tidy_trunk.document import plan_from_json


@pytest.fixture
def job(client):
    return opened(client, apply_edits(foundry(), [SetJob(zone="Europe/Vienna")]))["job"]


def tap(act, seconds_ago=0.0, **more):
    made = datetime.now(UTC) - timedelta(seconds=seconds_ago)
    return {"id": str(uuid4()), "made": made.isoformat(), "act": act, **more}


def log(client, job, *entries, status=200, **more):
    answer = client.post(f"/api/jobs/{job}/log", json={"entries": entries, **more})
    assert answer.status_code == status, answer.text
    return answer.json()


def rolled(take, slate, number, ago, length=None, **more):
    found = [tap("roll", ago, take=take, slate=slate, number=number, **more)]
    return found if length is None else [*found, tap("cut", ago - length, take=take)]


def seconds_of(clock):
    hours, minutes, seconds = map(int, clock.split(":"))
    return (hours * 60 + minutes) * 60 + seconds


def test_three_taps_a_take(client, job):
    before = client.get(f"/api/jobs/{job}/log").json()
    assert before["next"]["label"] == "1A-1" and before["next_set_up"]["label"] == "1B-1" and before["seq"] == 0
    roll, cut = rolled("a", "1A", 1, 90, 82)
    running = log(client, job, roll)
    assert running["running"] == "a" and running["takes"][0]["length"] == ""
    done = log(client, job, cut, tap("status", 5, take="a", status="circled"))
    (take,) = done["takes"]
    assert (take["label"], take["length"], take["status_words"], done["running"]) == ("1A-1", "1:22", "circled", "")
    ahead_s = (seconds_of(take["timecode"][:8]) - seconds_of(take["clock"])) % 86_400
    assert ahead_s <= 1, "the nearest frame may be the first of the next second"
    assert done["next"]["label"] == "1A-2"
    assert done["summary"] == "1 take, 1 circled, 1 min recorded"
    assert client.get(f"/api/jobs/{job}/log/seq").json()["seq"] == done["seq"] > 0


def test_timecode_comes_in_through_a_sound_input(client, job):
    """Two seconds of it, begun 0.3 frames into a frame: the label at their end, 50 frames later. [ST12-1]"""
    at = f"/api/jobs/{job}/log/timecode"
    whole = ltc_samples(Timecode.parse("10:20:30:05", RATES["25"]), RATE, 0, 3 * RATE)[576 : 576 + 2 * RATE]

    def heard(samples):
        return client.post(at, content=wav(0.2 * samples), headers={"content-type": "audio/wav"})

    assert heard(whole).json() == {"timecode": "10:20:32:05"}
    silence = heard(np.zeros(2 * RATE))
    assert silence.status_code == 422 and "no timecode is heard" in silence.json()["detail"]
    other = heard(ltc_samples(Timecode.parse("10:20:30:05", RATES["30"]), RATE, 0, 2 * RATE))
    assert other.status_code == 422 and "the job at 25" in other.json()["detail"]
    read = log(client, job, tap("clock", 60, timecode="10:20:32:05", who="Ann"))["read"]
    assert (read["timecode"], read["who"]) == ("10:20:32:05", "Ann")


def test_marks_of_a_scene_from_rehearsal(client, job):
    """Peaks 16 dB below those of the plan: the knob goes up by as much. [HANDBOOK] §6"""
    at = f"/api/jobs/{job}/log/scene?slate=1B"
    assert client.get(at).json()["parts"] == []
    mark = {"slate": "1", "text": "she whispers", "track": "bag.1"}
    log(
        client,
        job,
        tap("mark", 20, level_dbfs=-22, **mark),
        tap("mark", 10, level_dbfs=0, **{**mark, "track": "bag.2"}),
    )
    notes = client.get(at).json()
    assert notes["scene"] == "1" and notes["playback_ready"] is False and len(notes["stream"]) == 2
    (part,) = notes["parts"]
    boom, radio = part["marks"]
    assert (boom["mark"], boom["knob"], boom["trouble"]) == ("+58 dB", "gain, now +42", None)
    assert radio["trouble"] == "at-full-scale" and radio["mark"] == ""
    assert client.get(f"/api/jobs/{job}/log/scene?slate=2A").json()["parts"] == []
    log(client, job, tap("unmark", 0, **mark), tap("unmark", 0, **{**mark, "track": "bag.2"}))
    assert client.get(at).json()["parts"] == []
    nameless = log(client, job, tap("mark", 5, slate="1", track="bag.1", level_dbfs=-20), status=422)
    assert "its scene, its part and its track" in nameless["detail"]
    log(client, job, tap("mark", 5, level_dbfs=3, **mark), status=422)


@pytest.mark.deep
def test_photographs_of_settings(client, job):
    at = f"/api/jobs/{job}/log/photos"
    log(client, job, *rolled("a", "1A", 1, 60, 20))
    made = (datetime.now(UTC) - timedelta(seconds=50)).isoformat()
    asked = {"id": str(uuid4()), "made": made, "take": "a", "device": "bag", "text": "gain of 2", "who": "Ann"}

    def sent(data, **more):
        return client.post(at, params={**asked, **more}, content=data, headers={"content-type": "image/jpeg"})

    for _ in range(2):
        (photo,) = sent(photograph(2000, 1500)).json()["photos"]
        assert (photo["what"], photo["text"], photo["who"]) == ("Bag recorder, 1A-1", "gain of 2", "Ann")
    one = f"{at}/{asked['id']}"
    shown = client.get(one)
    assert shown.headers["content-type"] == "image/jpeg" and shown.content[:2] == b"\xff\xd8"
    names = zipfile.ZipFile(io.BytesIO(client.get(f"/api/jobs/{job}/log/report.zip").content)).namelist()
    assert f"photographs/{asked['id']}.jpg" in names
    letter = sent(b"a letter home", id=str(uuid4()))
    assert letter.status_code == 422 and "no photograph" in letter.json()["detail"]
    without = log(client, job, tap("photo", take="a"), status=422)
    assert "comes with its picture" in without["detail"]
    assert client.delete(one).json()["photos"] == []
    assert client.get(one).status_code == client.delete(one).status_code == 404


def test_what_is_sent_again_is_the_same_and_late_taps_find_their_place(client, job):
    first, second = rolled("a", "1A", 1, 300, 60), rolled("b", "1A", 2, 200, 60)
    log(client, job, *second)
    for _ in range(3):
        found = log(client, job, *first, tap("note", 270, take="a", text="plane"))
    assert [take["label"] for take in found["takes"]] == ["1A-1", "1A-2"] and len(found["takes"][0]["notes"]) == 3
    assert log(client, job, *first, *second)["seq"] == found["seq"]
    orphan = log(client, job, tap("note", 10, take="c", text="rustle"))
    assert len(orphan["takes"]) == 2
    late = log(client, job, *rolled("c", "1B", 1, 20, 5))
    assert late["takes"][-1]["notes"][0]["text"] == "rustle"


def test_a_telephone_whose_clock_is_wrong(client, job):
    """An hour ahead: its moments are put right by what it says the time is now."""
    ahead = datetime.now(UTC) + timedelta(hours=1)
    roll = {**tap("roll", take="a", slate="1A", number=1), "made": (ahead - timedelta(seconds=30)).isoformat()}
    (take,) = log(client, job, roll, sent=ahead.isoformat())["takes"]
    began = datetime.fromisoformat(take["begins"])
    assert abs((datetime.now(UTC) - began).total_seconds() - 30) < 5


@pytest.mark.deep
def test_two_at_once_lose_nothing(client, job):
    log(client, job, *rolled("a", "1A", 1, 600))
    with ThreadPoolExecutor(8) as pool:
        taps = [tap("note", at, take="a", text=f"n{at}", who=("Ann", "Bo")[at % 2]) for at in range(40)]
        list(pool.map(lambda one: log(client, job, one), taps))
    (take,) = client.get(f"/api/jobs/{job}/log").json()["takes"]
    assert [note["text"] for note in take["notes"]] == [f"n{at}" for at in reversed(range(40))]


def test_what_was_the_gain_in_take_seven(client, job):
    """Each take stands on the plan as it was when it began, also where it arrives later."""
    gain = {"kind": "set-control", "device": "bag", "control": "in1.mic.gain_db"}
    then = client.get(f"/api/jobs/{job}").json()
    log(client, job, *rolled("before", "1A", 1, 0))
    state = client.post(
        f"/api/jobs/{job}/edits", json={"base_revision": then["revision"], "edits": [{**gain, "value": 12}]}
    ).json()
    found = log(client, job, *rolled("after", "1A", 2, 0))
    assert [take["revision"] for take in found["takes"]] == [then["revision"], state["revision"]]
    was, now = (
        {item["id"]: item for item in client.get(f"/api/jobs/{job}/log/takes/{take}/plan").json()["plan"]["devices"]}
        for take in ("before", "after")
    )
    assert was["bag"]["settings"]["in1.mic.gain_db"] != now["bag"]["settings"]["in1.mic.gain_db"] == 12
    assert client.get(f"/api/jobs/{job}/log/takes/nothing/plan").status_code == 404


def test_timecode_goes_on_from_what_was_read(client, job):
    read = tap("clock", 60, timecode="10:00:00:00")
    (take,) = log(client, job, read, tap("roll", 30, take="a", slate="1A", number=1))["takes"]
    assert take["timecode"] in ("10:00:29:24", "10:00:30:00", "10:00:30:01")
    typed_in = log(client, job, tap("correct", take="a", timecode="01:02:03:04"))["takes"][0]
    assert typed_in["timecode"] == "01:02:03:04" and typed_in["corrections"][0]["what"] == "timecode"


@pytest.mark.parametrize(
    ("entry", "says"),
    [
        ({"act": "roll", "take": "a", "slate": "", "number": 1}, "wants a slate"),
        ({"act": "note", "take": "a", "text": "  "}, "wants words"),
        ({"act": "cut"}, "say which one"),
        ({"act": "done", "kind": "dance"}, "nothing that is done in a day"),
        ({"act": "holds", "kind": "battery", "left": 2}, "left"),
        ({"act": "note", "take": "a", "text": "x", "made": "1970-01-01T00:00:00Z"}, "look at the clock"),
        ({"act": "clock", "timecode": "25 past ten"}, "timecode"),
    ],
)
def test_what_says_nothing_is_refused_whole(client, job, entry, says):
    good = rolled("good", "1A", 1, 5)[0]
    answer = client.post(f"/api/jobs/{job}/log", json={"entries": [good, {**tap("note"), **entry}]})
    assert answer.status_code == 422 and says in answer.text
    assert client.get(f"/api/jobs/{job}/log").json()["takes"] == []


def test_the_rest_of_the_day_follows_the_log(client):
    """Call an hour ago, and fourteen hours of day: what was done is not asked for again, and half a battery counts as half."""
    now = datetime.now(UTC)
    minute = now.hour * 60 + now.minute
    begins = max(minute - 60, 0)
    plan = apply_edits(foundry(), [SetJob(zone="UTC", day_begins_min=begins, day_ends_min=begins + 14 * 60)])
    shift = minute + 30 - 9 * 60
    plan = apply_edits(plan, [_moved(item, shift) for item in plan.set_ups.values()])
    job = opened(client, plan)["job"]
    whole = client.get(f"/api/jobs/{job}/day").json()
    assert whole["begins_min"] == begins and any(task["id"] == "check" for task in whole["tasks"])
    log(
        client,
        job,
        tap("done", 60, kind="check", text="check"),
        tap("holds", 30, kind="battery", device="pack-a", left=0.5),
    )
    rest = client.get(f"/api/jobs/{job}/day", params={"rest": True}).json()
    assert rest["begins_min"] >= minute and all(task["id"] != "check" for task in rest["tasks"])
    least = {
        day: next(
            item["least_min"] - item["begins_min"]
            for item in found["holdings"]
            if item["device"] == "pack-a" and item["kind"] == "battery"
        )
        for day, found in (("whole", whole), ("rest", rest))
    }
    off = max(0, minute - 30 - begins)  # until an hour before the first take
    assert least["rest"] == pytest.approx((least["whole"] - off) / 2, abs=1.5)
    first = client.get(f"/api/jobs/{job}/day", params={"rest": True, "first": True}).json()
    assert first["interruptions"] >= rest["interruptions"]


def _moved(item, by_min):
    from tidy_trunk.core.plan import SaveSetUp

    return SaveSetUp(
        id=item.id,
        label=item.label,
        at_min=item.at_min + by_min,
        takes=item.takes,
        take_min=item.take_min,
        between_min=item.between_min,
    )


@pytest.mark.deep
def test_the_report_as_paper_table_text_and_json(client, job, tmp_path):
    log(client, job, *rolled("a", "1A", 1, 900, 60), tap("note", 870, take="a", text="plane", track="bag.1"))
    log(client, job, *rolled("b", "1A", 2, 800, 90), tap("status", 700, take="b", status="circled"))
    log(client, job, *rolled("c", "1A", 3, 600, 5), tap("status", 590, take="c", status="false-start"))
    at = f"/api/jobs/{job}/log/report"
    for paper in ("a4", "letter"):
        answer = client.get(f"{at}.pdf", params={"paper": paper})
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)
        for wanted in (
            "Sound report: Casting day",
            "1A-2",
            "circled",
            "plane (Bag recorder track 1)",
            "Totals",
            "2.6 min",
        ):
            assert wanted in text, wanted
        assert client.get(f"{at}.pdf", params={"paper": paper}).content == answer.content
    rows = list(csv.DictReader(io.StringIO(client.get(f"{at}.csv").text)))
    assert [(row["take"], row["status"], round(float(row["length_s"]))) for row in rows] == [
        ("1A-1", "", 60), ("1A-2", "circled", 90), ("1A-3", "false start", 5),
    ]  # fmt: skip
    assert "1A-2" in client.get(f"{at}.txt").text
    path = tmp_path / "log.json"
    path.write_bytes(client.get(f"{at}.json").content)
    done = typed("report", path, "--pdf", tmp_path / "r.pdf", "--csv", tmp_path / "r.csv")
    assert done.status == 0 and "Sound report: Casting day" in done.out
    assert (tmp_path / "r.csv").read_bytes() == client.get(f"{at}.csv").content
    path.write_text(json.dumps({"seq": 1}))
    refused = typed("report", path)
    assert (refused.status, refused.out) == (2, "") and "this is no log, at summary" in refused.err


def test_a_package_holds_all_papers_and_is_the_same_again(client, job, tmp_path):
    log(client, job, *rolled("a", "1A", 1, 900, 60), tap("status", 1, take="a", status="circled"))
    at = f"/api/jobs/{job}/log/report.zip"
    data = client.get(at).content
    assert client.get(at).content == data
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        assert archive.testzip() is None
        archive.extractall(tmp_path)
    done = subprocess.run(
        ["sha256sum", "--check", "--strict", "sha256sum.txt"], cwd=tmp_path, capture_output=True, text=True
    )
    assert done.returncode == 0 and done.stdout.count(": OK") == 14
    assert plan_from_json(json.loads((tmp_path / "plan.json").read_text())).name == "Casting day"


def test_what_the_edit_does_with_each_track(client, job):
    """The foundry's small camera is a guide; boom and lavalier of one voice are no safety of each other."""
    edits = {
        f"{track['device']} {track['track']}": track["edit"]
        for track in client.get(f"/api/jobs/{job}/log").json()["tracks"]
    }
    assert edits["Camera B L"].startswith("guide: mute it") and edits["Bag recorder 4"] == "effects"
    assert edits["Bag recorder 1"] == edits["Bag recorder 2"] == ""


def test_circled_takes_as_edit_list_and_timeline(client, job):
    """Read back by OpenTimelineIO: both circled takes, each with two seconds before and behind it."""
    log(client, job, tap("clock", 1000, timecode="10:00:00:00"))
    at = f"/api/jobs/{job}/log/report"
    assert client.get(f"{at}.edl").status_code == 422
    for take, number, ago, length, status in (
        ("a", 1, 900, 60, "circled"),
        ("b", 2, 700, 30, "good"),
        ("c", 3, 500, 20, "circled"),
    ):
        log(client, job, *rolled(take, "1A", number, ago, length), tap("status", 1, take=take, status=status))
    timeline = otio.adapters.read_from_string(client.get(f"{at}.edl").text, "cmx_3600", rate=25)
    clips = list(timeline.find_clips())
    assert [clip.name for clip in clips] == ["1A-1", "1A-3"]
    assert [round(clip.source_range.duration.to_seconds(), 1) for clip in clips] == [64, 24]
    starts = [clip.source_range.start_time.to_timecode() for clip in clips]
    assert starts[0][:8] in ("10:01:37", "10:01:38") and starts[1][:8] in ("10:08:17", "10:08:18")
    same = otio.adapters.read_from_string(client.get(f"{at}.otio").text, "otio_json")
    assert [clip.name for clip in same.find_clips()] == ["1A-1", "1A-3"]


def test_every_common_note_is_one_word():
    assert len(set(NOTES)) == len(NOTES) and all(note.isalpha() for note in NOTES)


def test_a_job_that_is_not_there(client):
    nowhere = "00000000-0000-0000-0000-000000000000"
    assert client.get(f"/api/jobs/{nowhere}/log").status_code == 404
    assert log(client, nowhere, tap("clock", timecode="10:00:00:00"), status=404)
    assert client.get(f"/api/jobs/{opened(client, Plan(name='Empty'))['job']}/day").json()["tasks"] == []
