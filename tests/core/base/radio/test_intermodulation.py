"""Third-order products against trying all triples."""

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.base.radio import free_mhz, products

MHZ = st.integers(20_000, 20_400).map(lambda steps: round(steps * 0.025, 3))


def by_brute_force(carriers, guard):
    found = set()
    for a, b, c, d in permutations(carriers, 4):
        if abs(carriers[a] + carriers[b] - carriers[c] - carriers[d]) <= guard:
            found.add((frozenset({a, b}), c, d))
    for a, c, d in permutations(carriers, 3):
        if abs(2 * carriers[a] - carriers[c] - carriers[d]) <= guard:
            found.add((frozenset({a}), c, d))
    return found


@given(st.lists(MHZ, min_size=2, max_size=6), st.sampled_from([0.051, 0.101, 0.301]))
def test_every_product_and_no_other(frequencies, guard):
    carriers = {f"t{index}": mhz for index, mhz in enumerate(frequencies)}
    found = products(carriers, guard)
    assert {(frozenset({p.first, p.second}), p.third, p.victim) for p in found} == by_brute_force(carriers, guard)
    for product in found:
        assert product.mhz == pytest.approx(
            carriers[product.first] + carriers[product.second] - carriers[product.third]
        )
    assert [p.distance_mhz for p in found] == pytest.approx(sorted(p.distance_mhz for p in found))


def test_by_hand():
    """2 × 521 − 522 = 520 MHz, and by the same sum 2 × 521 − 520 = 522 MHz."""
    found = products({"a": 520.0, "b": 521.0, "c": 522.0})
    assert {(p.first, p.second, p.third, p.victim) for p in found} == {("b", "b", "c", "a"), ("b", "b", "a", "c")}


@given(st.lists(MHZ, min_size=1, max_size=5), MHZ)
def test_a_free_frequency_is_free(used, wanted):
    free = free_mhz(used, wanted)
    before = {f"t{index}": mhz for index, mhz in enumerate(used)}
    if free is not None:
        assert all(abs(free - mhz) > 0.2 for mhz in used)
        assert len(products({**before, "new": free})) == len(products(before))


@given(st.lists(MHZ, min_size=2, max_size=7), st.sampled_from([0.051, 0.301]))
def test_the_nearest_of_each_carrier(frequencies, guard):
    carriers = {f"t{index}": mhz for index, mhz in enumerate(frequencies)}
    every = products(carriers, guard)
    assert products(carriers, guard, 2) == [
        product
        for index, product in enumerate(every)
        if sum(other.victim == product.victim for other in every[:index]) < 2
    ]
