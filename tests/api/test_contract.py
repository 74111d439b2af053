"""No request, however malformed, ends in a mistake of ours or in an answer that is not described."""

import pytest

from tests.contract import changes, check, operations
from tests.served import served

BRIEFLY = 1


@pytest.fixture
def address(services):
    with served(services, None) as address:
        yield address


def test_every_look_keeps_what_it_promises(services, address):
    """Operations that change something are held against it in the deep run: each needs something there to change."""
    found = [operation for operation in operations(services, address) if not changes(operation)]
    assert len(found) > 50
    failed = []
    for operation in found:
        try:
            check(operation, services, address, BRIEFLY)
        except (Exception, BaseExceptionGroup) as error:
            failed.append(f"{operation.label}: {error!r}"[:1500])
    assert not failed, "\n\n".join(failed)
