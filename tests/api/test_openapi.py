"""What the server says of itself: what is made from that, and who may do which of it."""

import re
from uuid import uuid4

import pytest

from scripts.make_api_types import TARGET, heading, types_of
from tests.api.test_guests import NETWORK, guest, made
from tests.few import each_of
from tests.served import openapi
from tidy_trunk.api.rights import KEEPS_NOTHING, OF_A_WALK, needed
from tidy_trunk.store import Access


def test_the_front_ends_types_are_of_what_the_server_says():
    assert TARGET.read_text().startswith(heading(openapi())), "run scripts/make_api_types.py"


@pytest.mark.deep
def test_nobody_changed_the_front_ends_types_by_hand():
    is_made = types_of(openapi()) == TARGET.read_text()
    assert is_made, "run scripts/make_api_types.py"


def test_every_body_has_an_example_and_every_path_words():
    schema = openapi()
    models = schema["components"]["schemas"]
    for path, operations in schema["paths"].items():
        for name, operation in operations.items():
            assert operation.get("description"), f"{name} {path} says nothing"
            body = operation.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema", {})
            if body:
                model = models.get(body.get("$ref", "").rsplit("/", 1)[-1], body)
                fields = model.get("properties", {}).values()
                assert model.get("examples") or any(field.get("examples") for field in fields), f"{path}: no example"


def addresses():
    """Every operation, with the pattern of its address below /api and an address that fits it."""
    for address, methods in openapi()["paths"].items():
        for method in methods:
            yield method.upper(), address.removeprefix("/api"), re.sub(r"{\w+}", lambda _: str(uuid4()), address)


@pytest.mark.parametrize("access", each_of([Access.WALK, Access.LOOK, Access.CREW], 1))
def test_each_role_at_every_operation(services, access):
    """Refused for lack of rights, or let through to say that there is no such job: nothing between."""
    phone = guest(services, key=made(services, access).key)
    allowed = {Access.LOOK: {Access.LOOK}, Access.WALK: {Access.LOOK, Access.WALK}, Access.CREW: set(Access)}[access]
    counted = 0
    for method, pattern, address in addresses():
        if pattern.endswith("/news"):
            continue  # never ends
        answer = phone.request(method, address, headers={"origin": NETWORK.address})
        is_refused = answer.status_code == 403 and answer.json()["code"] == "not-allowed"
        assert is_refused == (needed(method, pattern) not in allowed), (
            f"{access} {method} {pattern}: {answer.status_code}"
        )
        counted += is_refused
    assert counted > 4


def test_the_table_names_operations_that_there_are():
    every = {(method, pattern) for method, pattern, _ in addresses()}
    assert every >= KEEPS_NOTHING | OF_A_WALK
    least = {(method, pattern): needed(method, pattern) for method, pattern in every}
    assert {pattern for (_, pattern), access in least.items() if access is None} == {
        *("/guests", "/guests/{key_id}", "/guests/{key_id}/name", "/guests/{key_id}/renew"),
        *("/copies", "/copies/{name}", "/everything"),
        *(
            f"/jobs/{{job_id}}/files{rest}"
            for rest in (
                "",
                "/read",
                "/copies",
                "/simulated",
                "/mend",
                "/tasks/{task_id}",
                "/for-the-edit.{kind}",
                "/together.wav",
            )
        ),
    }
    assert least["DELETE", "/jobs/{job_id}"] is Access.CREW and least["GET", "/jobs"] is Access.LOOK
