"""Ear training over the API: a session played by a listener with a known threshold."""

import io
from uuid import UUID, uuid4

import numpy as np
import pytest
import soundfile

from tidy_trunk.core.drill import has_more


@pytest.fixture
def session(client):
    answer = client.post("/api/ear", json={"id": str(uuid4()), "task": "level", "who": "Ann"})
    assert answer.status_code == 201
    return answer.json()


def heard(client, session, trial, which):
    answer = client.get(f"/api/ear/{session['id']}/pairs/{trial}/{which}.wav")
    assert answer.status_code == 200
    return soundfile.read(io.BytesIO(answer.content))[0]


@pytest.mark.deep
def test_a_session_ends_at_the_difference_that_a_listener_hears(client, session):
    """It measures both files, and guesses where they differ by less than 3 dB: it must come to rest about there."""
    at, guess = f"/api/ear/{session['id']}", 0
    while session["threshold_db"] is None:
        levels = [np.mean(np.square(heard(client, session, session["trial"], which))) for which in (0, 1)]
        guess = 1 - guess
        sure = abs(10 * np.log10(levels[0] / levels[1])) >= 3
        which = int(levels[1] > levels[0]) if sure else guess
        body = {"which": which, "number": session["trial"]}
        session = client.post(f"{at}/answer", json=body).json()
        again = client.post(f"{at}/answer", json=body).json()
        assert again == session, "sent again it counts once"
    assert 1 < session["threshold_db"] < 5
    task = next(one for one in client.get("/api/ear").json() if one["task"] == "level")
    assert [(one["who"], one["threshold_db"]) for one in task["found"]] == [("Ann", session["threshold_db"])]
    over = client.post(f"{at}/answer", json={"which": 0, "number": session["trial"]})
    assert over.status_code == 422 and "is over" in over.json()["detail"]


def test_what_cannot_be_is_refused(client, session):
    at = f"/api/ear/{session['id']}"
    assert client.get(f"{at}/pairs/1/0.wav").status_code == 404, "that pair has not come yet"
    assert client.get(f"{at}/pairs/0/2.wav").status_code == 422
    assert client.post(f"{at}/answer", json={"which": 2, "number": 0}).status_code == 422
    ahead = client.post(f"{at}/answer", json={"which": 1, "number": 5})
    assert ahead.status_code == 422 and "another window" in ahead.json()["detail"]
    assert client.post("/api/ear", json={"id": str(uuid4()), "task": "smell"}).status_code == 422
    assert client.get(f"/api/ear/{uuid4()}").status_code == 404


def test_the_answer_is_not_in_what_is_sent(client, session):
    told = client.get(f"/api/ear/{session['id']}").json()
    assert set(told) == set(session) and told["was_right"] is None
    seed = UUID(session["id"]).int % 1_000_000
    first = client.post(f"/api/ear/{session['id']}/answer", json={"which": has_more(seed, 0), "number": 0}).json()
    assert first["was_right"] is True
