"""Hum loops against every circle of small graphs, found by brute force. Rule: handbook §9."""

from itertools import permutations

from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.sound.hum import COMPUTER, EARTH, Grade, Tie, loops

NODES = ["a", "b", "c", "d", EARTH]
TIES = st.lists(
    st.tuples(st.sampled_from(NODES), st.sampled_from(NODES), st.booleans(), st.booleans()).filter(
        lambda tie: tie[0] != tie[1]
    ),
    max_size=7,
)


def circles(ties):
    """Every circle as the set of its ties: all orders of all choices of nodes, and every tie between neighbours."""
    found = set()
    for count in range(2, len(NODES) + 1):
        for nodes in permutations(NODES, count):
            steps = [
                {i for i, tie in enumerate(ties) if {tie.first, tie.second} == {one, other}}
                for one, other in zip(nodes, nodes[1:] + nodes[:1], strict=True)
            ]
            ways = [frozenset()]
            for step in steps:
                ways = [way | {i} for way in ways for i in step if i not in way]
            found |= set(ways)
    return found


@given(TIES)
def test_a_run_is_told_if_a_circle_through_the_mains_goes_through_it(drawn):
    ties = [
        Tie(first, second, f"run-{index}", unbalanced and EARTH not in (first, second), insulated)
        for index, (first, second, unbalanced, insulated) in enumerate(drawn)
    ]
    every = [circle for circle in circles(ties) if any(EARTH in ties[index][:2] for index in circle)]
    told = {loop.run: loop for loop in loops(ties)}
    for index, tie in enumerate(ties):
        through = [circle for circle in every if index in circle]
        assert (tie.run in told) == (tie.unbalanced and bool(through))
        if tie.run in told:
            loop = told[tie.run]
            assert frozenset(ties.index(item) for item in loop.ties) in through
            earthed = any(not any(ties[step].insulated for step in circle) for circle in through)
            assert loop.grade is (Grade.EARTH if earthed else Grade.ADAPTERS), "the worst of all its circles"
            assert EARTH in loop.nodes and len(set(loop.nodes)) == len(loop.nodes) == len(loop.ties)


def test_two_devices_on_one_computer():
    ties = [Tie("a", "b", "run-1", True), Tie("a", COMPUTER), Tie("b", COMPUTER)]
    assert [loop.nodes for loop in loops(ties)] == [("b", COMPUTER, "a")]


def test_a_computer_is_worse_than_an_earth():
    ties = [Tie("a", "b", "run-1", True), Tie("a", COMPUTER), Tie(COMPUTER, EARTH), Tie("b", EARTH, insulated=True)]
    assert [loop.grade for loop in loops(ties)] == [Grade.COMPUTER]
    assert [loop.grade for loop in loops([*ties, Tie("a", EARTH)])] == [Grade.COMPUTER]
    assert [loop.grade for loop in loops([ties[0], Tie("a", EARTH), ties[3]])] == [Grade.ADAPTERS]


def test_two_leads_side_by_side_are_no_hum_loop():
    assert loops([Tie("a", "b", "left", True), Tie("a", "b", "right", True), Tie("a", EARTH)]) == []
