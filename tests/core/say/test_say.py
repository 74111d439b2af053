"""The sentence line: what is typed, and what it would do."""

import pytest

from tests.plans import boom_in_bag, device, made
from tidy_trunk.core.plan import Plan, apply_edits
from tidy_trunk.core.say import say
from tidy_trunk.core.trace import accept


def do(plan: Plan, *lines: str) -> Plan:
    for line in lines:
        answer = say(plan, line)
        assert answer.proposals, f"{line}: {answer.problem}"
        plan, _ = apply_edits(plan, answer.proposals[0].edits)
        accept(plan)
    return plan


def test_a_plan_by_typing():
    plan = do(
        Plan(name="Typed"),
        "add boom shotgun as Boom",
        "add bag recorder as Bag",
        "add mirrorless camera, mic as Camera B",
        "founder at boom, 0,6 m, raised",
        "boom to bag 1, 7 m",
        "set bag 1 gain 41",
        "name camera b as Second camera",
    )
    assert plan.sources["founder"].average_db_spl == 66  # ISO 9921, raised
    assert plan.sources["founder"].heard_by == {"boom": 0.6}
    assert plan.devices["bag"].settings["in1.mic.gain_db"] == 41
    assert plan.devices["bag"].settings["in1.phantom.menu"] is True, "a shotgun gets its 48 V"
    assert plan.devices["camera-b"].label == "Second camera"
    assert [part.length_m for part in plan.runs["run-1"].parts] == [7]


def test_both_the_matched_and_the_plain_run_are_offered():
    plan = made(device("mirrorless-mic", "cam"), base=boom_in_bag())
    matched, plain = say(plan, "bag line to cam, 3 m").proposals[:2]
    assert "dB" in " ".join(matched.steps) and "clips" not in matched.outcome
    assert plain.outcome == "track L: clips by 14.1 dB"
    assert len(plain.steps) == 1


def test_long_runs_go_balanced():
    plan = made(device("mirrorless-mic", "cam"), base=boom_in_bag())
    assert "XLR and XLR to 3.5 mm" in say(plan, "bag to cam, 6 m").proposals[0].steps[0]


def test_two_sides_share_one_breakout():
    plan = do(made(device("cinema-xlr5", "cam"), base=boom_in_bag()), "bag out l to cam, 8 m", "bag out r to cam, 8 m")
    last = [run.parts[-1] for run in plan.runs.values() if run.receiving.device == "cam"]
    assert [part.branch for part in last] == ["L", "R"]
    assert last[0].shared == last[1].shared != ""


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("frob to bag", "no device here is called 'frob'"),
        ("boom to bag 9", "nothing joins"),
        ("boom to bag 2", "run 1, boom to bag in 1 holds that plug: say remove run 1 first"),
        ("add gramophone", "no class of device"),
        ("founder at bag", "no microphone here"),
        ("hello", "is not understood"),
        ("set nothing gain 3", "say which device"),
        ("set bag 1 colour 3", "nothing here answers"),
        ("remove run 99", "nothing here answers"),
        ("name ghost as spirit", "nothing here answers"),
        ("set bag 1 gain 4000", "goes from 10 to 75"),
    ],
)
def test_what_is_not_understood_is_said(line, says):
    answer = say(boom_in_bag(), line)
    assert not answer.proposals
    assert says in answer.problem


def test_completions_go_on_from_what_is_typed():
    assert say(boom_in_bag(), "bo").completions == ("boom to ",)
    assert say(boom_in_bag(), "boom to b").completions == ("boom to boom", "boom to bag")
    assert say(Plan(name="x"), "").completions == ("add ",)
    assert "add bag recorder, eight inputs" in say(Plan(name="x"), "add ba").completions


def test_things_are_removed_by_name_or_number():
    plan = do(boom_in_bag(), "remove run 1", "remove voice", "remove boom")
    assert not plan.runs and not plan.sources and list(plan.devices) == ["bag"]
