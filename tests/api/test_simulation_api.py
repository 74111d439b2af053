"""The simulation through the API: heard, seen, and set as the job is."""

import io

import numpy as np
import pytest
import soundfile

from tests.api.test_patch_api import opened
from tests.plans import padded_plan


@pytest.fixture
def job(client):
    return opened(client, padded_plan())["job"]


def test_every_point_is_heard_and_seen(client, job):
    address = f"/api/jobs/{job}/simulation/cam.L/points"
    points = client.get(address).json()
    assert points[0]["label"] == "air at boom" and points[-1]["label"] == "cam track L"
    assert [point["unit"] for point in points][:2] == ["dB SPL", "dBu"]
    for point in points:
        seen = client.get(f"{address}/{point['number']}").json()
        samples, _ = soundfile.read(io.BytesIO(client.get(f"{address}/{point['number']}/sound.wav").content))
        full_scale = {"dBFS": 0.0, "dBu": 24.0, "dB SPL": 120.0}[point["unit"]]
        heard = 20 * np.log10(np.std(samples) * np.sqrt(2))
        assert heard == pytest.approx(seen["level"] - full_scale, abs=0.01)
        bands = 10 * np.log10(sum(10 ** (band["level"] / 10) for band in seen["bands"]))
        assert bands == pytest.approx(seen["level"], abs=0.1), "third octaves hold all of it"


def test_a_moved_knob_is_heard(client, job):
    address = f"/api/jobs/{job}/simulation/cam.L/points"
    last = len(client.get(address).json()) - 1

    def level(**query):
        return client.get(f"{address}/{last}", params=query).json()["level"]

    before, tone = level(), level(play="nobody", tone=True)
    edit = {"kind": "set-control", "device": "bag", "control": "line.line.trim_db", "value": -6}
    client.post(f"/api/jobs/{job}/edits", json={"base_revision": 1, "edits": [edit]})
    assert level() == pytest.approx(before - 6, abs=0.2)
    assert level(play="nobody", tone=True) == pytest.approx(tone - 6, abs=0.05)
    assert level(play="nobody") < before - 20


def test_what_is_not_there_is_refused(client, job):
    assert client.get(f"/api/jobs/{job}/simulation/cam.X/points").status_code == 404
    assert client.get(f"/api/jobs/{job}/simulation/cam.L/points/99").status_code == 404
    assert client.get(f"/api/jobs/{job}/simulation/cam.L/points/0", params={"play": "loudly"}).status_code == 422
    assert client.get(f"/api/jobs/{job}/simulation/bag.1/points/0", params={"tone": True}).status_code == 422
