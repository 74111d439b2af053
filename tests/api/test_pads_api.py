"""Attenuator design through the API."""

import pytest

from tests.api.test_patch_api import opened
from tests.plans import line_into_camera

WISH = {"loss_db": 25, "source_ohm": 150, "load_ohm": 2500, "layout": "u", "series": "E24", "fitting": "xlr-trs"}


def test_a_pad_is_designed_with_its_lead(client):
    """Parts as in docs/craft/matching.md."""
    pad = client.post("/api/pads", json=WISH).json()
    assert [(part["name"], part["ohms"]) for part in pad["parts"]] == [("R1", 620), ("R2", 620), ("R3", 82)]
    assert pad["loss_db"] == pytest.approx(24.84, abs=0.005) and pad["tolerance_percent"] == 5
    assert pad["worst_low_db"] < pad["sigma3_low_db"] < pad["loss_db"] < pad["sigma3_high_db"] < pad["worst_high_db"]
    judged = client.post("/api/leads/judge", json=pad["lead"]).json()
    assert judged["pictures"] and client.post("/api/pads", json={**WISH, "layout": "t"}).json()["lead"] is None


def test_the_pad_that_a_run_wants(client):
    """+10 dBu at full scale into a camera that takes −10.5 (handbook §12): 20.5 dB and the doubt of both."""
    job = opened(client, line_into_camera())["job"]
    wanted = client.get(f"/api/jobs/{job}/runs/run-2/pad").json()
    assert 21 <= wanted["loss_db"] <= 25 and wanted["fitting"] == "trs"
    assert "clips at −10.5 dBu" in wanted["why"]
    assert client.get("/api/pads/usual").json()["loss_db"] == 25
    assert client.get(f"/api/jobs/{job}/runs/run-9/pad").status_code == 404


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"loss_db": 0}, "loss_db"),
        ({"source_ohm": 0}, "source_ohm"),
        ({"fitting": "bayonet"}, "no cable 'bayonet' for a pad: use xlr"),
        ({"layout": "x"}, "layout"),
        ({"tolerance_percent": 30}, "tolerance_percent"),
        # Said before: 500.
        ({"length_m": 5e-324}, "length_m"),
        ({"loss_db": 120, "source_ohm": 1e7, "layout": "pi", "fitting": "trs"}, "must be"),
    ],
)
def test_what_cannot_be_is_refused(client, change, says):
    answer = client.post("/api/pads", json={**WISH, **change})
    assert answer.status_code == 422 and says in answer.json()["detail"]
