"""Two hundred kills at random moments, in ten runs with data of their own."""

import pytest

from tests.app.test_server import no_leftovers  # noqa: F401, a fixture
from tests.kills import rounds


@pytest.mark.parametrize("seed", range(10))
def test_nothing_acknowledged_is_lost(home, tmp_path, seed):
    told = rounds(home, tmp_path, 20, seed=100 + seed)
    print(told)
    assert told["edits"] > 20
