"""What is wrong, over the API."""

from tidy_trunk.app.demo import foundry
from tidy_trunk.document import write_plan


def test_a_symptom_in_words_leads_to_a_test_and_to_a_cause(client):
    job = client.post(
        "/api/jobs/import", content=write_plan(foundry()), headers={"Content-Type": "application/json"}
    ).json()["job"]
    address = f"/api/jobs/{job}/fault-search"
    found = client.post(address, json={"text": "distorted", "track": "camera-b.L"}).json()
    assert found["symptom"] == "distorted" and found["next"]["asks"].endswith("?")
    answers = []
    while found["next"]:
        answers.append({"test": found["next"]["id"], "yes": found["next"]["id"].startswith("look:line-into-mic")})
        found = client.post(address, json={"symptom": "distorted", "track": "camera-b.L", "answers": answers}).json()
    assert "Line into microphone" in found["cause"]["title"] and found["cause"]["edits"]["edits"]


def test_what_cannot_be_searched_is_said(client):
    job = client.post("/api/jobs", json={"name": "Empty"}).json()["job"]
    address = f"/api/jobs/{job}/fault-search"
    for body, words in (({"text": "the weather"}, "names nothing"), ({"symptom": "hum"}, "nothing is recorded")):
        answer = client.post(address, json=body)
        assert answer.status_code == 422 and words in answer.json()["detail"]
    assert client.post(address, json={"symptom": "hum", "track": "no.such"}).status_code in (404, 422)
    assert client.post(address, json={"symptom": "boom"}).status_code == 422
