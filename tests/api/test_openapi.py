"""What the server says of itself, and what is made from that."""

from scripts.make_api_types import TARGET, types_of
from tests.served import openapi


def test_the_front_ends_types_are_those_of_the_server():
    is_current = types_of(openapi()) == TARGET.read_text()
    assert is_current, "run scripts/make_api_types.py"


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
