"""A day sheet from elsewhere, as calendar and as table, and what is none."""

import pytest

from tests.api.test_patch_api import opened
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan, SetJob, apply_edits

TABLE = """what,at,minutes,takes,take_min
Crew call,7:30,,,
Scene 12C,9:00,,4,3
12D,10:00,45,,
Lunch,12:30,45,,
Company move to the tower,13:30,40,,
14,15:00,30,2,
Wrap,17:00,,,
"""


@pytest.fixture
def job(client):
    return opened(client, apply_edits(Plan(name="Day"), [SetJob(zone="Europe/Vienna", date="2026-12-01")]))["job"]


def sheet(client, job, text):
    return client.post(f"/api/jobs/{job}/day/sheet", json={"text": text})


def taken(client, job, text):
    state = client.get(f"/api/jobs/{job}").json()
    body = {"base_revision": state["revision"], "edits": sheet(client, job, text).json()["edits"]}
    return client.post(f"/api/jobs/{job}/edits", json=body).json()["plan"]


def test_a_table(client, job):
    plan = taken(client, job, TABLE)
    assert [(item["label"], item["at_min"], item["takes"], item["take_min"]) for item in plan["set_ups"]] == [
        ("12C", 540, 4, 3.0),
        ("12D", 600, 3, 13.0),  # three takes with three minutes between them fill 45
        ("14", 900, 2, 13.5),
    ]
    assert plan["breaks"][0]["label"] == "Lunch" and plan["moves"][0]["label"] == "the tower"
    assert (plan["defaults"]["day_begins_min"], plan["defaults"]["day_ends_min"]) == (450, 1020)
    again = taken(client, job, TABLE.replace("9:00", "9:15").replace(",", ";"))
    assert [item["at_min"] for item in again["set_ups"]] == [555, 600, 900]  # changed, and nothing twice


def test_each_of_the_crew_is_told_what_to_do(client):
    plan = foundry()
    alone = client.get(f"/api/jobs/{opened(client, plan)['job']}/day").json()
    assert {task["who"] for task in alone["tasks"]} == {""}
    named = apply_edits(plan, [SetJob(crew=" Ann,Ben ")])
    assert named.defaults.hands == 2
    two = client.get(f"/api/jobs/{opened(client, named)['job']}/day").json()
    assert {task["who"] for task in two["tasks"]} == {"Ann", "Ben"}
    three = apply_edits(named, [SetJob(hands=3, crew="Ann")])
    assert {task["who"] for task in client.get(f"/api/jobs/{opened(client, three)['job']}/day").json()["tasks"]} <= {
        "Ann",
        "person 2",
        "person 3",
    }


def test_a_calendar(client, job):
    events = "".join(
        f"BEGIN:VEVENT\r\nUID:{title}\r\nSUMMARY:{title}\r\nDTSTART:20261201T{begins}00Z\r\nDTEND:20261201T{ends}00Z\r\nEND:VEVENT\r\n"
        for title, begins, ends in (("Scene 3A", "0800", "0830"), ("Dinner", "1130", "1215"))
    )
    plan = taken(client, job, f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n{events}END:VCALENDAR\r\n")
    assert (plan["set_ups"][0]["label"], plan["set_ups"][0]["at_min"]) == ("3A", 9 * 60)  # an hour ahead of UTC
    assert plan["breaks"][0]["at_min"] == 750


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("what,at\n", "nothing of a day"),
        ("scene,time\n1,9:00\n", "must name columns"),
        ("what,at\n12C,noon\n", "line 2"),
        ("what,at,minutes\n12C,9:00,many\n", "line 2: 'many' is no number"),
        ("what,at,minutes\n12C,9:00,1e9\n", "line 2"),
        ("BEGIN:VCALENDAR\nnonsense", "no calendar"),
        ("what,at\n" + "12C,9:00\n" * 400, "one day at a time"),
    ],
)
def test_what_is_no_day_sheet(client, job, text, says):
    answer = sheet(client, job, text)
    assert answer.status_code == 422 and says in answer.json()["detail"], answer.text
    assert client.get(f"/api/jobs/{job}").json()["revision"] == 1
