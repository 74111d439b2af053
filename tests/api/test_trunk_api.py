"""The trunk over the API: typed, read in, claimed by two jobs of one day, tested, packed."""

import io
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from pypdf import PdfReader

from tests.api.test_patch_api import opened
from tests.photographs import photograph
from tests.plans import boom_in_bag, device, line_into_camera, made, run
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import Part, Plan, SetJob, apply_edits

DAY = "2026-12-01"


@pytest.fixture
def trunk(client):
    return lambda line: client.post("/api/trunk", json={"line": line})


def job_on(client, day=DAY, plan=None):
    return opened(client, apply_edits(plan or boom_in_bag(), [SetJob(date=day)]))["job"]


def of(client, job):
    return client.get(f"/api/jobs/{job}/trunk").json()


def test_a_trunk_is_typed_and_a_job_takes_out_of_it(client, trunk):
    job = job_on(client)
    empty = of(client, job)
    assert empty["summary"].startswith("1 cable needed") and not empty["has_stock"]
    preview = client.post("/api/trunk/preview", json={"line": "2 XLR 10 m, blue case"}).json()
    assert [(one["count"], one["words"], one["case"]) for one in preview] == [(2, "10 m XLR", "blue case")]
    assert client.get("/api/trunk").json()["pieces"] == []
    stock = trunk("2 XLR 10 m, blue case, 3 cells").json()
    assert stock["summary"] == "3 pieces, 2 cables and adapters" and stock["cases"] == ["blue case"]
    found = of(client, job)
    (one,) = found["served"]
    assert (one["words"], one["is_short"], one["runs"]) == ("10 m XLR, 3 m too many (blue case)", False, [1])
    assert {line["label"] for line in found["packing"]} == {"10 m XLR", "cells"}
    assert {(item["label"], item["needed"], item["owned"]) for item in found["devices"]} >= {
        ("Bag recorder, eight inputs", 1, 0)
    }
    refused = trunk("frobnicator 3 m")
    assert refused.status_code == 422 and "no cable is called" in refused.json()["detail"]


def test_two_jobs_of_one_day_that_want_the_same_cable_are_told(client, trunk):
    first, second, later = job_on(client), job_on(client), job_on(client, "2026-12-02")
    trunk("1 XLR 10 m")
    claimed = client.post(f"/api/jobs/{first}/trunk/claim", json={"chosen": {}}).json()
    assert claimed["claimed"] and not claimed["served"][0]["is_short"]
    found = of(client, second)
    assert found["served"][0]["is_short"] and found["wanted"][0]["words"] == "7.5 m XLR"
    (held,) = found["held"]
    assert (held["count"], held["words"], held["job"]) == (1, "10 m XLR", first)
    assert not of(client, later)["served"][0]["is_short"], "on another day it is free"
    chosen = {"chosen": {"run-1/0": claimed["served"][0]["pieces"]}}
    taken = client.post(f"/api/jobs/{second}/trunk/claim", json=chosen)
    assert taken.status_code == 422 and "another job has it" in taken.json()["detail"]
    trunk("1 XLR 7.5 m")  # solved: bought, or
    assert not of(client, second)["served"][0]["is_short"]
    client.request("DELETE", f"/api/jobs/{first}/trunk/claim")
    assert of(client, second)["held"] == []


def test_the_plan_is_changed_so_that_nothing_is_bought(client, trunk):
    """A cable of 3.5 mm is short; another output of the recorder is reached with what is there."""
    state = opened(client, line_into_camera())
    job = state["job"]
    trunk("1 XLR 10 m, 1 xlr to 3.5 mm mono to both sides pin 3 not connected")
    found = of(client, job)
    assert [one["is_short"] for one in found["served"]] == [False, True]
    (way,) = found["other_ways"]
    assert way["run"] == 2 and "from bag out L to cam mic socket" in way["words"]
    body = {"base_revision": state["revision"], "edits": way["edits"]}
    assert client.post(f"/api/jobs/{job}/edits", json=body).status_code == 200
    after = of(client, job)
    assert not any(one["is_short"] for one in after["served"]) and after["other_ways"] == after["wanted"] == []


def test_a_faulty_cable_is_found_and_taken_out(client, trunk):
    job = job_on(client)
    (piece,) = trunk("1 XLR 10 m").json()["pieces"]
    at = f"/api/trunk/pieces/{piece['id']}"
    right = client.get(f"{at}/test").json()
    assert right["sending"] == ["1", "2", "3"] and len(right["right"]) == 3
    whole = client.post(f"{at}/test", json={"pairs": right["right"]}).json()
    assert whole == {"fault": "", "faults": []} and not of(client, job)["served"][0]["is_short"]
    shown = client.post(f"{at}/stand-in", json={"fault": "swapped", "seed": 3}).json()
    told = client.post(f"{at}/test", json={"pairs": shown}).json()
    assert told["faults"] == ["swapped"] and "have changed places" in told["fault"]
    assert client.get("/api/trunk").json()["summary"].endswith("1 with a fault")
    assert of(client, job)["served"][0]["is_short"]
    client.put(at, json={"fault": "", "number": "X1", "case": "red case"})
    assert of(client, job)["served"][0]["words"] == "10 m XLR no. X1, 3 m too many (red case)"
    assert client.put(f"/api/trunk/pieces/{uuid4()}", json={"case": "x"}).status_code == 404
    assert client.put(at, json={"tested": "soon"}).status_code == 422


def test_a_table_is_looked_at_before_it_is_read(client):
    text = "count,what,length_m,case\n6,XLR,5,blue case\n"
    preview = client.post("/api/trunk/table/preview", json={"text": text}).json()
    assert [(one["count"], one["words"]) for one in preview] == [(6, "5 m XLR")]
    assert client.get("/api/trunk").json()["pieces"] == []
    wrong = client.post("/api/trunk/table", json={"text": text + "1,nonsense,3,\n"})
    assert wrong.status_code == 422 and "line 3, what" in wrong.json()["detail"]
    assert client.get("/api/trunk").json()["pieces"] == [], "nothing is half read"
    assert len(client.post("/api/trunk/table", json={"text": text}).json()["pieces"]) == 6
    assert client.get("/api/trunk/table.csv").text.splitlines()[1].startswith("6,XLR,5")
    ids = [piece["id"] for piece in client.get("/api/trunk").json()["pieces"]]
    assert client.post("/api/trunk/remove", json={"pieces": ids}).json()["pieces"] == []


def test_lines_are_ticked_late_and_twice(client, trunk):
    job = job_on(client)
    trunk("1 XLR 10 m, blue case")
    line = of(client, job)["packing"][0]
    now = datetime.now(UTC)

    def tick(state, seconds_ago):
        made = (now - timedelta(seconds=seconds_ago)).isoformat()
        body = {"ticks": [{"item": line["id"], "state": state, "who": "Ann", "made": made}]}
        return client.put(f"/api/jobs/{job}/trunk/ticks", json=body).json()

    assert tick("packed", 10)["packed"] == 1
    tick("open", 60)  # from a telephone that had no connection
    found = tick("packed", 10)
    assert [(item["state"], item["who"]) for item in found["packing"] if item["id"] == line["id"]] == [
        ("packed", "Ann")
    ]
    assert tick("missing", 1)["packed"] == 0


def test_what_lies_in_the_trunk_is_offered_first(client, trunk):
    """Two ways to join a line to a microphone socket; the one that is owned comes first, and is promised to no other run."""
    plan = made(
        device("bag-recorder", "bag"),
        device("mirrorless-mic", "cam"),
        run("bag.out-l", "cam.mic", Part(lead="xlr", length_m=3), "xlr-trs"),
    )
    job, (run_id,) = opened(client, plan)["job"], plan.runs
    at = f"/api/jobs/{job}/runs/{run_id}/cable-chains"
    before = client.get(at).json()
    assert before and not any(one["in_trunk"] for one in before)
    last = before[-1]["label"]
    lying = [part["lead"] for part in before[-1]["edits"][0]["parts"]]
    for lead in lying:
        label = built_in().leads[lead].label
        assert trunk(f"1 {label.replace(',', '')} 3 m").status_code == 200, label
    after = client.get(at).json()
    assert after[0]["label"] == last and after[0]["in_trunk"] and len(after) == len(before)


def test_papers_of_a_job(client):
    job = job_on(client)
    at = f"/api/jobs/{job}/paper"
    for name in ("patch.svg", "patch.pdf?paper=a3", "settings.pdf", "runs.pdf?paper=letter", "runs.csv", "card.pdf"):
        answer = client.get(f"{at}/{name}")
        assert answer.status_code == 200 and answer.content == client.get(f"{at}/{name}").content, name
    labels = {item["id"] for item in client.get(f"{at}/labels").json()}
    assert "tape-12" in labels and client.get(f"{at}/labels.pdf?label=tape-12").content[:5] == b"%PDF-"
    assert client.get(f"{at}/labels.pdf?label=a5").status_code == 422
    packing = client.get(f"/api/jobs/{job}/trunk/packing.pdf?paper=letter")
    assert packing.content[:5] == b"%PDF-" and packing.headers["content-type"] == "application/pdf"
    assert client.get(f"{at}/soup.pdf").status_code == client.get(f"{at}/card.svg").status_code == 404


def test_an_empty_job_needs_nothing(client, trunk):
    trunk("1 XLR 10 m")
    job = opened(client, Plan(name="Empty"))["job"]
    assert of(client, job)["served"] == []


def test_two_things_are_joined_by_what_lies_in_the_trunk_first(client, trunk):
    ends = {"sending": "bag-recorder", "receiving": "mirrorless-mic"}
    before = client.post("/api/two-things", json=ends).json()["ways"]
    assert len(before) > 1 and not any(way["is_there"] for way in before)
    assert before[0]["cable"].startswith("3.5 mm cable with")
    first, second = ((way["cable"], False) for way in before)
    trunk("XLR to 3.5 mm with 25 dB mono to both sides, XLR 5 m")
    after = client.post("/api/two-things", json=ends).json()["ways"]
    assert [(way["cable"], way["is_there"]) for way in after] == [(second[0], True), first]


def test_what_is_used_up_is_counted_down(client, trunk):
    job = job_on(client)
    trunk("2 AA cells, 1 XLR 10 m, blue case")
    lines = {line["label"]: line["used_up"] for line in of(client, job)["packing"]}
    assert lines["10 m XLR"] == [] and len(lines["AA cells"]) == 1
    at = f"/api/trunk/pieces/{lines['AA cells'][0]}/used"
    for count, left in ((2, [1]), (2, [1]), (1, []), (1, [])):  # each sent twice
        pieces = client.post(at, json={"count": count}).json()["pieces"]
        assert [piece["count"] for piece in pieces if piece["kind"] == "cell"] == left
    assert client.post(at, json={"count": 5}).status_code == 404
    assert client.post(at, json={"count": 0}).status_code == 422


@pytest.mark.deep
def test_a_photograph_of_a_piece(client, trunk):
    (piece,) = trunk("1 XLR 10 m").json()["pieces"]
    at = f"/api/trunk/pieces/{piece['id']}/photo"
    image = {"content-type": "image/jpeg"}
    assert piece["has_photo"] is False and client.get(at).status_code == 404
    for size in (1600, 800):  # in place of the one before
        (now,) = client.post(at, content=photograph(size, 600), headers=image).json()["pieces"]
        assert now["has_photo"] is True and client.get(at).content[:2] == b"\xff\xd8"
    assert client.post(at, content=b"a letter home", headers=image).status_code == 422
    nobody = f"/api/trunk/pieces/{uuid4()}/photo"
    assert client.post(nobody, content=photograph(80, 60), headers=image).status_code == 404
    (without,) = client.delete(at).json()["pieces"]
    assert without["has_photo"] is False and client.delete(at).status_code == 404
    client.post(at, content=photograph(80, 60), headers=image)
    client.post("/api/trunk/remove", json={"pieces": [piece["id"]]})
    assert client.get(at).status_code == 404


def test_each_of_the_crew_has_a_kit_of_their_own(client, trunk):
    job = job_on(client)
    client.post(
        f"/api/jobs/{job}/edits",
        json={"base_revision": 1, "edits": [{"kind": "set-job", "crew": "Ann, Ben"}]},
    )
    trunk("1 XLR 10 m, Ben's bag, gaffer tape, blue case")
    kits = {line["label"]: line["kit"] for line in of(client, job)["packing"]}
    assert kits == {"10 m XLR": "Ben", "gaffer tape": ""}
    paper = client.get(f"/api/jobs/{job}/trunk/packing.pdf").content
    text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(paper)).pages)
    assert "Ben: Ben's bag" in text and "Everybody: blue case" in text
