"""The API's own description drawn upon for ten minutes."""

import time

import pytest

from tests.deep.contract import check, operations
from tests.served import served

FOR_S = 600
EACH = 15


@pytest.fixture
def address(services):
    with served(services, None) as address:
        yield address


def test_no_request_is_a_mistake_of_ours(services, address):
    end, turn = time.monotonic() + FOR_S, 0
    while time.monotonic() < end:
        turn += 1
        for operation in operations(services, address):
            check(operation, services, address, EACH, turn)
