"""The tools that need no job: the same answers as the commands."""

import io
import json

import pytest
import soundfile

from tests.commands import typed

SAME = [
    ("convert", {"value": -10, "unit": "dBV", "to": "dBu"}, ("convert", "-10", "dBV", "--to", "dBu")),
    ("timecode", {"timecode": "00:00:59:29", "fps": "29.97df", "add": "1"}, ("timecode", "00:00:59:29", "--fps", "29.97df", "--add", "1")),
    ("drift", {"a": 1, "b": 20, "fps": "25", "hours": 10}, ("drift", "--ppm", "1", "--ppm", "20", "--fps", "25", "--hours", "10")),
    ("delay", {"frames": 5, "fps": "29.97"}, ("delay", "--frames", "5", "--fps", "29.97")),
]  # fmt: skip


@pytest.mark.parametrize(("tool", "asked", "command"), SAME, ids=[tool for tool, _, _ in SAME])
def test_a_tool_says_what_its_command_says(client, tool, asked, command):
    found = client.get(f"/api/tools/{tool}", params=asked).json()
    printed = json.loads(typed(*command, "--json").out)
    assert {name: found[name] for name in printed} == printed
    assert found["words"].startswith(typed(*command).out.strip().replace("−", "-"))


def test_a_metre_of_air_is_three_milliseconds(client):
    """343 m/s at 20 °C: 2.9 ms a metre. [handbook 8]"""
    found = client.get("/api/tools/delay", params={"metres": 1}).json()
    assert found["ms"] == pytest.approx(1000 / 343, abs=1e-3) and found["samples"] == 140
    assert client.get("/api/tools/delay", params={"ms": found["ms"]}).json()["metres"] == pytest.approx(1, abs=1e-3)


def test_tone_and_timecode_are_sound(client):
    samples, rate = soundfile.read(
        io.BytesIO(client.get("/api/tools/tone.wav", params={"level": -20, "seconds": 1}).content)
    )
    assert rate == 48_000 and max(abs(samples)) == pytest.approx(0.1, abs=1e-3), (
        "a sine at -20 dBFS peaks at a tenth [AES17]"
    )
    sound = client.get("/api/tools/timecode.wav", params={"start": "10:00:00:00", "fps": "25", "seconds": 1})
    assert soundfile.info(io.BytesIO(sound.content)).frames == 48_000


@pytest.mark.parametrize(
    "address",
    [
        "convert?value=nan&unit=dBu&to=V", "convert?value=1&unit=furlong&to=V", "delay?frames=1&ms=1", "delay",
        "timecode?timecode=99:99:99:99", "drift?a=1&b=inf", "tone.wav?level=20", "timecode.wav?start=x",
    ],
)  # fmt: skip
def test_what_a_tool_cannot_do_is_said(client, address):
    answer = client.get(f"/api/tools/{address}")
    assert answer.status_code == 422 and answer.json()["detail"]
