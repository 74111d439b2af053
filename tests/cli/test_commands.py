"""The commands as a user runs them: exit status, one line on errors, one JSON object with --json."""

import json
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest

from tests.commands import typed
from tests.plans import line_into_camera, padded_plan
from tests.sounds import sine, wav
from tidy_trunk.document import write_plan

ROOT = Path(__file__).resolve().parents[2]


def tidy(*arguments, expect=0):
    done = typed(*arguments)
    assert done.status == expect, done.err
    if expect == 2:
        assert not done.out and done.err.startswith("tidy: ") and done.err.count("\n") == 1
        return done.err
    return done.out


def answer(*arguments, expect=0):
    return json.loads(tidy(*arguments, "--json", expect=expect))


@pytest.mark.parametrize(
    ("arguments", "status"), [(("delay", "--ms", "40"), 0), (("convert", "nan", "dBu", "--to", "V"), 2)]
)
def test_a_process_of_its_own_says_the_same(arguments, status):
    done = subprocess.run([sys.executable, "-m", "tidy_trunk", *arguments], cwd=ROOT, capture_output=True, text=True)
    assert (done.returncode, done.stdout, done.stderr) == typed(*arguments) and done.returncode == status


@pytest.mark.parametrize(
    ("arguments", "value", "unit"),
    [
        (("-10", "dBV", "--to", "dBu"), -7.78, "dBu"),
        (("94", "dB SPL", "--to", "Pa"), 1.0024, "Pa"),
        (("94", "dB SPL", "--to", "dbu", "--sensitivity", "20"), -31.74, "dBu"),
        (("0", "V", "--to", "dBV"), None, "dBV"),
        (("-1.5e1", "dBu", "--to", "mV"), 137.7, "mV"),
    ],
)
def test_convert(arguments, value, unit):
    """Handbook section 2 and hand calculation."""
    found = answer("convert", *arguments)
    assert found["unit"] == unit
    assert found["value"] == (None if value is None else pytest.approx(value, abs=0.06))


def test_pad():
    found = answer("pad", "--loss", 20, "--matched", 600, "--layout", "h")
    assert [part["ohms"] for part in found["resistors"]] == pytest.approx([245.45] * 4 + [121.2], abs=0.1)
    assert set(found) == {
        "layout", "loss_db_target", "loss_db_actual", "resistors", "input_impedance_ohm", "output_impedance_ohm", "thermal_noise_dbu",
    }  # fmt: skip
    again = answer("pad", "--loss", 20, "--matched", 600, "--layout", "PI", "--series", "e24")
    assert [part["role"] for part in again["resistors"]] == ["series", "shunt", "shunt"]
    words = tidy("pad", "--loss", 6, "--source", 600, "--load", 600, "--layout", "l")
    assert "less than 5 times" in words


def test_delay():
    assert answer("delay", "--frames", 5, "--fps", "29.97") == {
        "ms": pytest.approx(166.83, abs=0.01),
        "frames": 5,
        "samples": 8008,
    }
    assert answer("delay", "--ms", 40) == {"ms": 40, "frames": None, "samples": 1920}


@pytest.mark.parametrize(
    "arguments",
    [
        ("convert", "x", "dBu", "--to", "V"),
        ("convert", "nan", "dBu", "--to", "V"),
        ("convert", "1", "ell", "--to", "V"),
        ("convert", "1", "dBu"),
        ("pad", "--loss", "3", "--layout", "l"),
        ("pad", "--loss", "inf", "--matched", "600", "--layout", "t"),
        ("pad", "--loss", "3", "--matched", "600", "--source", "1", "--layout", "t"),
        ("delay", "--frames", "5"),
        ("delay", "--frames", "-5", "--fps", "25"),
        ("delay", "--frames", "5", "--fps", "twenty"),
        ("check", "no/such/plan.json"),
        ("check", "pyproject.toml"),
        ("check", "tests"),
        ("frobnicate",),
        ("serve", "--port", "99999"),
    ],
)
def test_a_bad_argument_is_one_line_and_status_2(arguments):
    tidy(*arguments, expect=2)


@pytest.fixture
def plan_file(tmp_path):
    path = tmp_path / "plan.json"
    path.write_bytes(write_plan(line_into_camera()))
    return path


def test_check_and_options_on_an_exported_plan(plan_file):
    """Shows 3: the stop with its figure, the ways best first, and clear once the best is in."""
    found = answer("check", plan_file, expect=1)
    stop = next(finding for finding in found["findings"] if finding["severity"] == "stop")
    assert stop["rule"] == "line-into-mic" and stop["measured_db"] == pytest.approx(14.1, abs=0.1)
    camera = next(track for track in found["tracks"] if track["id"] == "cam.L")
    assert camera["clips_by_db"] == pytest.approx(stop["measured_db"], abs=1e-3)
    assert camera["headroom_db"] == -camera["clips_by_db"]
    ways = answer("options", plan_file, "--run", "2")["ways"]
    assert ways[0]["label"] == "Use the 25 dB attenuator" and ways[0]["fits"]
    assert "Use the 25 dB attenuator" in tidy("options", plan_file, "--run", "run-2").splitlines()[0]
    plan_file.write_bytes(write_plan(padded_plan()))
    assert not [item for item in answer("check", plan_file)["findings"] if item["severity"] == "stop"]
    tidy("options", plan_file, "--run", "77", expect=2)


def test_help_names_every_command():
    words = tidy("--help")
    assert words.startswith("Usage: tidy [OPTIONS]"), "said before: python -m launcher.tidy"
    for command in ("convert", "pad", "delay", "check", "options", "say", "gain", "fix", "serve", "demo"):
        assert command in words


def test_a_tone_is_written_and_measured(tmp_path):
    """AES17: what it peaks at is what it reads."""
    file = tmp_path / "tone.wav"
    tidy("tone", file, "--level", "-18", "--frequency", "440", "--seconds", "4", "--bits", "16", "--ident")
    found = answer("measure", file)
    assert (found["sample_rate"], found["bits"], found["encoding"], found["duration_s"]) == (48_000, 16, "pcm", 4.0)
    left, right = found["channels"]
    for channel in (left, right):
        assert channel["tone"]["level_dbfs"] == pytest.approx(-18, abs=0.01)
        assert channel["tone"]["frequency_hz"] == pytest.approx(440, abs=0.01)
        assert channel["clipped"] == [] and channel["hum"] is None and channel["ltc"] is False
    assert right["rms_dbfs"] == pytest.approx(-18, abs=0.01)
    assert found["pairs"][0]["polarity"] == "same" and found["pairs"][0]["bleed_db"] is None
    assert "holds a tone of 440.0 Hz" in tidy("measure", file)


def test_silence_is_null_and_a_short_file_is_told(tmp_path):
    file = tmp_path / "silent.wav"
    file.write_bytes(wav(np.zeros(48_000))[:-1000])
    done = subprocess.run(
        [sys.executable, "-m", "tidy_trunk", "measure", str(file), "--json"], cwd=ROOT, capture_output=True, text=True
    )
    found = json.loads(done.stdout)
    assert done.returncode == 0 and "cut short" in done.stderr
    assert found["truncated"] is True
    assert found["channels"][0]["rms_dbfs"] is None and found["channels"][0]["noise_floor_dbfs"] is None


def test_steps_are_read_through(tmp_path):
    file = tmp_path / "steps.wav"
    tones = [np.concatenate((sine(1000, level, 1.0), np.zeros(15_000))) for level in (-30, -20, -10)]
    file.write_bytes(wav(np.concatenate(tones), bits=24))
    found = answer("steps", file, "--settings", "40,50,60", "--target", "-14")
    assert [step["level_dbfs"] for step in found["steps"]] == pytest.approx([-30, -20, -10], abs=0.05)
    assert found["best_setting"] == 60 and found["interpolated_setting"] == pytest.approx(56, abs=0.05)
    assert found["db_per_setting"] == pytest.approx(1.0, abs=0.01)
    tidy("steps", file, "--settings", "40,50", "--target", "-14", expect=2)
    tidy("steps", file, "--settings", "40,x,60", "--target", "-14", expect=2)


def test_a_name_that_a_terminal_would_obey_is_shown(tmp_path):
    path = tmp_path / "a\x1b[31mred.wav"
    path.write_bytes(b"x")
    said = tidy("measure", str(path), expect=2)
    assert "\x1b" not in said and "�[31mred.wav" in said


def test_a_file_that_never_ends_is_no_plan():
    assert "at most 4 MB" in tidy("check", "/dev/zero", expect=2)


def test_what_is_no_recording_is_one_line(tmp_path):
    file = tmp_path / "take.wav"
    file.write_bytes(b"a letter home")
    tidy("measure", file, expect=2)
    tidy("steps", file, "--settings", "1,2", "--target", "-20", expect=2)
    tidy("measure", tmp_path / "nothing.wav", expect=2)


def test_a_file_without_channels_is_no_recording(tmp_path):
    """Said before of timecode in it: "not found", with status 3."""
    file = tmp_path / "none.wav"
    sound = bytearray(wav(np.zeros(48_000)))
    sound[22:24] = b"\0\0"  # channels, in the format chunk of a WAV
    file.write_bytes(sound)
    for command in (("ltc", "read"), ("measure",), ("sync", file)):
        assert "no channels" in tidy(*command, file, expect=2)


def test_nothing_half_written_is_left(tmp_path):
    file = tmp_path / "tone.wav"
    tidy("tone", file, "--seconds", "nan", expect=2)
    tidy("tone", tmp_path / "nowhere" / "tone.wav", expect=2)
    assert list(tmp_path.iterdir()) == []
