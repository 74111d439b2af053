"""One server for one database."""

import pytest

from tidy_trunk.errors import SetupError
from tidy_trunk.store import sole_use


def test_a_second_server_on_one_database_is_refused_until_the_first_has_ended(database_url):
    refused = pytest.raises(SetupError, match="another Tidy Trunk runs on this database")
    with sole_use(database_url), refused, sole_use(database_url):
        pass
    with sole_use(database_url):
        pass


def test_a_database_that_does_not_answer_is_told():
    with pytest.raises(SetupError, match="does not answer"), sole_use("postgresql://nobody@127.0.0.1:1/none"):
        pass
