"""A plan from bytes and to bytes; every refusal names the place and the reason."""

import json
from typing import Any, Final

from pydantic import ValidationError

from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document.migrations import brought_up
from tidy_trunk.document.models import PlanDocument
from tidy_trunk.errors import FormatError

LARGEST_PLAN_BYTES: Final = 4 * 1024 * 1024
"""ASSUMED_ largest plan file: a thousand runs take well under one megabyte."""


def read_plan(data: bytes) -> Plan:
    """The plan in a file, accepted: well formed and without circles.

    Raises:
        FormatError: Not JSON, too large, a newer schema, or a field that is missing, unknown or cannot be.
        PlanError, InputError: A plan that contradicts itself.
    """
    if len(data) > LARGEST_PLAN_BYTES:
        raise FormatError(f"a plan has at most {LARGEST_PLAN_BYTES / 1e6:.0f} MB: is it the right file?")
    try:
        raw = json.loads(data.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise FormatError(f"this is no text: byte {error.start} is not UTF-8. Is it the right file?") from error
    except json.JSONDecodeError as error:
        raise FormatError(f"this is no JSON: line {error.lineno}, column {error.colno}: {error.msg}") from error
    except RecursionError as error:
        raise FormatError("this JSON is nested too deeply to be a plan") from error
    return plan_from_json(raw)


def plan_from_json(raw: Any) -> Plan:
    """As `read_plan`, from a value that has been parsed."""
    if not isinstance(raw, dict):
        raise FormatError("a plan is a JSON object with schema_version, name, devices, sources and runs")
    plan = stored_plan(raw)
    trace_plan(plan)
    return plan


def stored_plan(raw: Any) -> Plan:
    """The plan of a document that was accepted when it was stored: its shape is read, its sense is not asked again.

    Raises:
        FormatError: A field that is missing, unknown or cannot be.
        NewerSchemaError: Written by a newer program.
    """
    try:
        return PlanDocument.model_validate(brought_up(raw)).to_core()
    except ValidationError as error:
        raise FormatError(_first_complaint(error)) from error


def _first_complaint(error: ValidationError) -> str:
    """The first thing wrong, as place and reason."""
    first = error.errors(include_url=False)[0]
    place = ".".join(str(part) for part in first["loc"]) or "the plan"
    more = error.error_count() - 1
    given = first.get("input")
    shown = f", not {given!r}" if isinstance(given, str | int | float | bool) and len(repr(given)) < 60 else ""
    reason = first["msg"].lower().removeprefix("value error, ")
    return f"{place}: {reason}{shown}" + (f" (and {more} more)" if more else "")


def write_plan(plan: Plan) -> bytes:
    """The plan as a file: JSON with two spaces, readable in a text editor."""
    return (
        json.dumps(PlanDocument.from_core(plan).model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"
    ).encode()


def plan_schema() -> bytes:
    """The published JSON Schema of a plan file."""
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **PlanDocument.model_json_schema()}
    return (json.dumps(schema, indent=2, ensure_ascii=False) + "\n").encode()
