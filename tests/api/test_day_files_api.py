"""The files of a day over the API: simulated, read, held against the log, put right, copied; and what cannot be."""

import csv
import io
import os
import subprocess
import time
from pathlib import Path

import pytest
from pypdf import PdfReader

from tests.api.test_log_api import log, rolled, tap
from tests.api.test_patch_api import opened
from tests.media.test_day_files import broadcast
from tests.plans import line_into_camera
from tests.waiting import wait
from tidy_trunk.formats import TakeLabels, read_labels


@pytest.fixture
def job(client):
    return opened(client, line_into_camera())["job"]


def done(client, job, part):
    """What was begun, once it is over."""
    found = {}

    def is_over():
        found.update(client.get(f"/api/jobs/{job}/files").json())
        task = found[part] if part == "read" else found[part]["task"]
        return task["state"] in ("done", "failed")

    wait(is_over)
    return found


def test_a_day_is_simulated_read_and_copied(client, job, tmp_path):
    at = f"/api/jobs/{job}/files"
    assert client.get(at).json() == {"read": None, "found": None, "copies": None, "played": None}
    log(
        client,
        job,
        *rolled("a", "1A", 1, 30, 3),
        *rolled("b", "1A", 2, 20, 3),
        tap("status", 1, take="b", status="circled"),
    )
    begun = client.post(f"{at}/simulated", json={"seed": 4, "faults": 0})
    assert begun.status_code == 202, begun.text
    played = done(client, job, "played")["played"]
    assert (played["task"]["state"], played["files"], played["faults"]) == ("done", 4, [])
    folder = played["task"]["folder"]
    client.post(f"{at}/read", json={"folder": folder})
    found = done(client, job, "read")["found"]
    assert found["summary"] == "4 recordings; 2 of 2 takes have files, no difference" and found["findings"] == []
    assert [take["take"] for take in found["takes"]] == ["1A-1", "1A-2"]
    rows = list(csv.DictReader(io.StringIO(client.get(f"{at}/for-the-edit.csv").text)))
    assert {row["take"] for row in rows} == {"1A-1", "1A-2"} and {row["kind"] for row in rows} == {"sound", "picture"}
    assert all(row["name"] and row["timecode"] for row in rows)
    assert {row["together"] for row in rows if row["kind"] == "picture"} == {"together within 0.1 ms"}
    (pair,) = found["takes"][0]["together"]
    assert pair["words"] == "together within 0.1 ms" and pair["sound"] != pair["picture"]
    sound = client.get(f"{at}/together.wav", params={"picture": pair["picture"]})
    assert sound.status_code == 200 and sound.content[:4] == b"RIFF" and len(sound.content) > 2 * 48_000 * 2
    assert client.get(f"{at}/together.wav", params={"picture": pair["sound"]}).status_code == 404
    paper = client.get(f"{at}/for-the-edit.pdf")
    text = PdfReader(io.BytesIO(paper.content)).pages[0].extract_text()
    assert "an echo is not" in text and "1A-2" in text and client.get(f"{at}/for-the-edit.pdf").content == paper.content
    into, second = tmp_path / "one", tmp_path / "two"
    client.post(f"{at}/copies", json={"into": str(into), "second": str(second)})
    copies = done(client, job, "copies")["copies"]
    assert copies["summary"] == "4 files copied twice, both copies read back without a difference.", copies
    assert copies["is_good"] and copies["task"]["folder"] == str(into)
    for place in (into, second):
        assert subprocess.run(["sha256sum", "-c", "--quiet", "sha256sum.txt"], cwd=place).returncode == 0
    circled = [path for path in into.rglob("*.WAV") if "1A-02" in path.name]
    assert circled
    with circled[0].open("rb") as stream:
        assert read_labels(stream).circled
    split = tmp_path / "split"
    client.post(f"{at}/copies", json={"into": str(split), "second": "", "mono": True})
    wait(lambda: (done(client, job, "copies")["copies"] or {"task": {"folder": ""}})["task"]["folder"] == str(split))
    rows = list(csv.DictReader(io.StringIO(client.get(f"{at}/for-the-edit.csv").text)))
    assert all((split / row["file"]).is_file() for row in rows), "the sheet calls files as the copy does"
    assert len({row["file"] for row in rows if row["kind"] == "sound"}) > 2
    client.delete(f"{at}/tasks/{played['task']['id']}")
    assert not Path(folder).exists()


@pytest.mark.deep
def test_the_log_is_put_right_by_a_file(client, job, tmp_path):
    """A take that nobody logged, and one that the recorder knows by another number."""
    taken = log(client, job, *rolled("a", "1A", 1, 90, 20))["takes"][0]
    hours, minutes, seconds, _ = (int(part) for part in taken["timecode"].split(":"))
    began = hours * 3600 + minutes * 60 + seconds
    card = tmp_path / "card"
    card.mkdir()
    (card / "stray.wav").write_bytes(broadcast(began + 40, 5, TakeLabels(scene="1A", take="7"), day=""))
    (card / "other.wav").write_bytes(broadcast(began - 1, 22, TakeLabels(scene="1A", take="3"), day=""))
    at = f"/api/jobs/{job}/files"
    client.post(f"{at}/read", json={"folder": str(card), "with_sound": False})
    found = done(client, job, "read")["found"]
    assert {item["what"]: item["can_be"] for item in found["findings"]} == {
        "no-take": "log-take",
        "labelled-otherwise": "correct-take",
    }
    mended = client.post(f"{at}/mend", json={"path": "stray.wav", "fix": "log-take"}).json()
    assert [item["what"] for item in mended["findings"]] == ["labelled-otherwise"]
    again = client.post(f"{at}/mend", json={"path": "stray.wav", "fix": "log-take"})
    assert again.status_code == 422 and "belongs to a take already" in again.json()["detail"]
    mended = client.post(f"{at}/mend", json={"path": "other.wav", "fix": "correct-take"}).json()
    assert mended["findings"] == []
    takes = client.get(f"/api/jobs/{job}/log").json()["takes"]
    assert {take["label"]: round(take["seconds"]) for take in takes} == {"1A-3": 20, "1A-7": 5}
    assert next(take for take in takes if take["label"] == "1A-3")["corrections"]


@pytest.mark.deep
def test_what_cannot_be_is_said(client, job, tmp_path):
    at = f"/api/jobs/{job}/files"
    for path, body, status, says in (
        ("read", {"folder": "card"}, 422, "by its whole path"),
        ("read", {"folder": str(tmp_path / "none")}, 422, "no such folder"),
        ("copies", {"into": str(tmp_path)}, 404, "no folder has been read yet"),
        ("simulated", {}, 422, "log one first"),
        ("simulated", {"faults": 10**6}, 422, "less than or equal to 50"),
        ("mend", {"path": "a.wav", "fix": "log-take"}, 404, "no folder has been read yet"),
    ):
        answer = client.post(f"{at}/{path}", json=body)
        assert answer.status_code == status and says in answer.json()["detail"], answer.text
    (tmp_path / "card").mkdir()
    client.post(f"{at}/read", json={"folder": str(tmp_path / "card")})
    assert done(client, job, "read")["found"]["files"] == []
    answer = client.post(f"{at}/copies", json={"into": str(tmp_path / "drive")})
    assert answer.status_code == 422 and "no file that could be copied" in answer.json()["detail"]


@pytest.mark.deep
def test_reading_is_cancelled(client, job, tmp_path):
    card = tmp_path / "card"
    card.mkdir()
    os.mkfifo(card / "never.wav")  # nothing that a list of files has
    for number in range(40):
        (card / f"{number}.wav").write_bytes(broadcast(36_000 + number, 20))
    at = f"/api/jobs/{job}/files"
    task = client.post(f"{at}/read", json={"folder": str(card)}).json()
    time.sleep(0.3)
    assert client.delete(f"{at}/tasks/{task['id']}").status_code == 204
    assert client.get(at).json()["read"] is None
