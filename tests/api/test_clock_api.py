"""The clocks of a job through the API and on the screen."""

import pytest

from tests.api.test_patch_api import opened
from tests.core.clock.test_clock import jammed


@pytest.fixture
def job(client):
    return opened(client, jammed())["job"]


def test_the_clocks_of_a_job(client, job):
    found = client.get(f"/api/jobs/{job}/clock", params={"hours": 10}).json()
    film = next(keeper for keeper in found["keepers"] if keeper["device"] == "film")
    assert film["giver"] == "tc" and film["parts_ms"] == pytest.approx(216) and film["forgets"] is False
    assert {(pair["camera"], pair["recorder"]): pair["by"] for pair in found["pairs"]}["cam", "bag"] == [
        "the same sound"
    ]
    assert found["switchers"] == [] and found["rate"] == "25"


@pytest.mark.parametrize("hours", ["0", "-3", "nan", "1e9", "noon"])
def test_a_day_that_cannot_be_is_refused(client, job, hours):
    assert client.get(f"/api/jobs/{job}/clock", params={"hours": hours}).status_code == 422
