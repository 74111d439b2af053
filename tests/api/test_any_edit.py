"""Whatever is sent, the answer is a state or a problem document: never a crash, never half an edit."""

import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.few import each_of
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.command import GRAMMAR, say
from tidy_trunk.core.gear.catalogue import built_in, controls_of
from tidy_trunk.core.plan import apply_edits
from tidy_trunk.document import read_plan, write_plan

PLAN = foundry()
LINES = [form.example for form in GRAMMAR]
CONTROLS = sorted({name for item in built_in().devices.values() for name in controls_of(item)})
IDS = st.sampled_from([*PLAN.devices, *PLAN.runs, *PLAN.sources, "ghost"])
NUMBERS = st.one_of(st.floats(-1000, 1000), st.integers(-5, 100), st.sampled_from([0, 1e308, -0.0]))
VALUES = st.one_of(NUMBERS, st.booleans(), st.sampled_from(["mic", "line", "off", "", "x" * 200]))
PORTS = st.sampled_from(sorted({port.id for item in built_in().devices.values() for port in item.ports}))
REFS = st.fixed_dictionaries({"device": IDS, "port": PORTS})
PARTS = st.lists(
    st.fixed_dictionaries(
        {
            "lead": st.sampled_from([*built_in().leads, "rope"]),
            "length_m": NUMBERS,
            "branch": st.sampled_from(["", "L", "R", "Q"]),
        }
    ),
    max_size=4,
)
EDITS = st.one_of(
    st.fixed_dictionaries({"kind": st.just("set-control"), "device": IDS, "control": st.sampled_from(CONTROLS), "value": VALUES}),
    st.fixed_dictionaries({"kind": st.just("connect"), "sending": REFS, "receiving": REFS, "parts": PARTS}),
    st.fixed_dictionaries({"kind": st.just("set-parts"), "run": IDS, "parts": PARTS}),
    st.fixed_dictionaries({"kind": st.just("move-run"), "run": IDS, "sending": REFS}),
    st.fixed_dictionaries({"kind": st.just("add-device"), "class_id": st.sampled_from([*built_in().devices, "rope"])}),
    st.fixed_dictionaries({"kind": st.sampled_from(["remove-device", "disconnect", "remove-source"]), "device": IDS}),
    st.fixed_dictionaries({"kind": st.just("hear"), "source": IDS, "device": IDS, "distance_m": st.one_of(NUMBERS, st.none())}),
    st.fixed_dictionaries({"kind": st.just("set-source"), "source": IDS, "average_db_spl": NUMBERS}),
    st.fixed_dictionaries({"kind": st.just("set-job"), "alignment_dbfs": NUMBERS, "mains_hz": st.integers(40, 70)}),
    st.fixed_dictionaries({"kind": st.just("route-bus"), "device": IDS, "bus": st.sampled_from(["1", "mix-l", "L"]), "inputs": st.lists(PORTS, max_size=3)}),
)  # fmt: skip


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=30)
@given(st.lists(EDITS, min_size=1, max_size=3))
def test_any_edit(client, edits):
    if not hasattr(client, "job"):
        client.job = client.post("/api/jobs/import", json=json.loads(write_plan(PLAN))).json()
    state = client.job
    body = {"base_revision": state["revision"], "edits": edits}
    answer = client.post(f"/api/jobs/{state['job']}/edits", content=json.dumps(body))
    if answer.status_code == 200:
        client.job = answer.json()
        assert client.job["revision"] == state["revision"] + 1
        assert read_plan(json.dumps(client.job["plan"]).encode()), "what is kept can be read again"
    else:
        assert answer.status_code == 422, answer.text
        assert answer.headers["content-type"] == "application/problem+json"
        assert answer.json()["detail"]
        assert client.get(f"/api/jobs/{state['job']}").json()["revision"] == state["revision"]


def without(line: str, at: int) -> str:
    words = line.split()
    return " ".join(words[:at] + words[at + 1 :])


@given(st.one_of(st.text(max_size=60), st.builds(without, st.sampled_from(LINES), st.integers(0, 12))))
def test_any_line_is_answered_or_refused(text):
    """Whatever is typed, or an example of the help that lacks a word: what is proposed can be done, else it is said why not."""
    answer = say(PLAN, text)
    assert bool(answer.proposals) is not bool(answer.problem) or not text.strip()
    for proposal in answer.proposals:
        assert apply_edits(PLAN, proposal.edits)


@pytest.mark.parametrize(
    "line", each_of(["bag to camera b, 3 m", "remove cable 11", "set bag 1 gain 30", "break tea at 16:00, 10 min"], 2)
)
def test_a_line_gives_edits_that_can_be_sent(client, line):
    state = client.post("/api/jobs/import", json=json.loads(write_plan(PLAN))).json()
    proposals = client.post(f"/api/jobs/{state['job']}/say", json={"text": line}).json()["proposals"]
    body = {"base_revision": state["revision"], "edits": proposals[0]["edits"]}
    answer = client.post(f"/api/jobs/{state['job']}/edits", json=body)
    assert answer.status_code == 200 and answer.json()["revision"] == state["revision"] + 1
