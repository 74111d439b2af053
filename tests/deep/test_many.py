"""`./tidy test --deep`: what takes too long for every landing. ngspice itself, and thousands of rigs drawn at random."""

import pytest

from tests.reference.rigs import drawn
from tests.reference.test_levels import agree
from tests.reference.test_wirings import ours
from tests.reference.wirings import drawn as drawn_wiring
from tests.reference.wirings import told

BLOCK = 250


@pytest.mark.parametrize("first", range(0, 4_000, BLOCK))
def test_thousands_of_rigs(first):
    assert sum(agree(drawn(seed))[1] for seed in range(first, first + BLOCK)) > 3 * BLOCK


@pytest.mark.parametrize("first", range(1_000, 1_400, 50))
def test_wirings_that_nobody_has_asked_ngspice_yet(first):
    cases = [case for seed in range(first, first + 50) if (case := drawn_wiring(seed))["ways"]]
    for case in cases:
        *expected, _ = told(case)
        for row, wanted in zip(ours(case), expected, strict=True):
            assert row == pytest.approx(wanted, abs=1e-4, rel=2e-4), case
