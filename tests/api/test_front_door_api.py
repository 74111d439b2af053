"""What is asked before there is a job, over the API."""

import uuid

import pytest

QUESTION = "two people, two lavs on radio, bag recorder, camera mic socket only"


def test_rigs_and_a_job_of_one(client):
    found = client.get("/api/rigs", params={"text": QUESTION}).json()
    assert [len(rig["cells"]) for rig in found["rigs"]] == [len(found["rows"])] * len(found["rigs"])
    first = client.get("/api/rigs", params={"text": QUESTION, "first": True}).json()
    assert first["rigs"][0]["approach"] in [rig["approach"] for rig in found["rigs"]]
    job = uuid.uuid4()
    body = {"text": QUESTION, "approach": found["rigs"][0]["approach"], "id": str(job)}
    made = client.post("/api/rigs/job", json=body)
    assert made.status_code == 201 and made.json()["plan"]["name"] == "Two people talking"
    assert client.post("/api/rigs/job", json=body).json()["job"] == str(job), "sent again it is the same job"


def test_an_empty_question_gives_its_gaps(client):
    found = client.get("/api/rigs").json()
    assert found["rigs"] == [] and found["question"] == "one person talking"
    assert [gap["id"] for gap in found["gaps"]][:3] == ["who", "where", "microphones"]


@pytest.mark.deep
def test_what_cannot_be_answered_is_a_problem(client):
    nothing = client.get("/api/rigs", params={"text": "xyzzy"})
    assert nothing.status_code == 422 and "xyzzy" in nothing.json()["detail"]
    assert client.get("/api/rigs", params={"text": "x" * 501}).status_code == 422
    missing = client.post(
        "/api/rigs/job",
        json={"text": "phantom shotgun, mirrorless camera", "approach": "straight", "id": str(uuid.uuid4())},
    )
    assert missing.status_code == 404
    for wrong in ({"length_m": -1}, {"length_m": 1e9}, {"sending": "no-such"}, {"number": 3}):
        body = {"sending": "boom-shotgun", "receiving": "bag-recorder", **wrong}
        assert 400 <= client.post("/api/two-things", json=body).status_code < 500, wrong


def test_two_things_that_no_cable_joins(client):
    found = client.post("/api/two-things", json={"sending": "boom-shotgun", "receiving": "headphones"}).json()
    assert found["ways"] == [] and "headphones" in found["problem"].lower()
    made = client.post(
        "/api/two-things/job",
        json={"sending": "boom-shotgun", "receiving": "bag-recorder", "number": 0, "id": str(uuid.uuid4())},
    )
    assert made.status_code == 201 and len(made.json()["plan"]["runs"]) == 1
    beyond = client.post(
        "/api/two-things/job",
        json={"sending": "boom-shotgun", "receiving": "bag-recorder", "number": 9, "id": str(uuid.uuid4())},
    )
    assert beyond.status_code == 404


def test_files_without_a_job_are_in_none_that_is_listed(client):
    one, two = (client.post("/api/loose-files").json()["job"] for _ in range(2))
    assert one == two
    assert one not in [job["id"] for job in client.get("/api/jobs").json()]
