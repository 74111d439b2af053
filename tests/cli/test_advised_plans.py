"""`say`, `gain` and `fix` as a user runs them: what they answer, what they write, and that a bad line writes nothing."""

import pytest

from tests.cli.test_commands import answer, tidy
from tests.plans import line_into_camera
from tidy_trunk.core.plan import Plan
from tidy_trunk.document import read_plan, write_plan

LINES = ("add bag recorder as bag", "add mirrorless camera, microphone as cam", "add boom shotgun as boom", "me at boom, 0.5 m",
         "boom to bag 1", "bag line to cam, 0.5 m")  # fmt: skip


@pytest.fixture
def empty(tmp_path):
    path = tmp_path / "empty.json"
    path.write_bytes(write_plan(Plan(name="Interview")))
    return path


def test_lines_are_typed_into_a_plan(empty, tmp_path):
    out = tmp_path / "typed.json"
    answers = answer("say", empty, *LINES, "--out", out)["answers"]
    assert [item["line"] for item in answers] == list(LINES)
    assert answers[4]["title"] == "boom to bag in 1, matched" and "average −20" in answers[4]["outcome"]
    assert answers[5]["stops"] == [] and "automatic level, menu to off" in " ".join(answers[5]["steps"])
    assert len(read_plan(out.read_bytes()).runs) == 2
    assert answer("check", out)["findings"] and "matched" in tidy("say", empty, *LINES)


def test_a_line_that_is_not_understood_writes_nothing(empty, tmp_path):
    out = tmp_path / "never.json"
    tidy("say", empty, LINES[0], "frobnicate the bag", "--out", out, expect=2)
    assert not out.exists()
    tidy("fix", tmp_path / "no.json", "--out", out, expect=2)
    tidy("gain", empty, "--out", tmp_path / "no folder" / "x.json", expect=2)


def test_fixing_ends_stops_and_a_fixed_plan_is_left_alone(tmp_path):
    first, once, twice = (tmp_path / name for name in ("plan.json", "once.json", "twice.json"))
    first.write_bytes(write_plan(line_into_camera()))
    found = answer("fix", first, "--out", once)
    assert found["steps"][0]["finding"]["rule"] == "line-into-mic" and found["steps"][0]["fix"]
    judged = [tuple(step["judged"]) for step in found["steps"]]
    assert judged == sorted(judged, reverse=True), "each step is better than the one before"
    assert not [item for item in found["left"] if item["severity"] == "stop"]
    assert answer("fix", once, "--out", twice)["steps"] == []
    assert once.read_bytes() == twice.read_bytes()
    assert "nothing to fix" in tidy("fix", once)


def test_a_gain_plan_is_written(tmp_path):
    first, out = tmp_path / "plan.json", tmp_path / "gain.json"
    first.write_bytes(write_plan(line_into_camera()))
    found = answer("gain", first, "--out", out)
    assert found["steps"] and found["stops_before"] == 1 and found["stops_left"] == []
    assert found["tracks"][0]["before"].keys() == found["tracks"][0]["after"].keys() >= {"average_dbfs", "peak_dbfs"}
    assert answer("gain", out)["steps"] == [] and "stands where it should" in tidy("gain", out)
