"""Six kills at random moments; two hundred in the deep run."""

from tests.app.test_server import no_leftovers  # noqa: F401, a fixture
from tests.kills import rounds


def test_nothing_acknowledged_is_lost(home, tmp_path):
    told = rounds(home, tmp_path, 6, seed=1)
    assert told["edits"] > 5 and told["sounds"] and told["deleted"]
