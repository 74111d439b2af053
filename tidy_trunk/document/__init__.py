"""The saved plan and its edits as JSON."""

from tidy_trunk.document.edits import AnyEdit, edit_document
from tidy_trunk.document.files import (
    LARGEST_PLAN_BYTES,
    plan_from_json,
    plan_schema,
    read_plan,
    stored_plan,
    write_plan,
)
from tidy_trunk.document.models import (
    SCHEMA_VERSION,
    DeviceModel,
    FigureModel,
    KnobMark,
    PartModel,
    PlanDocument,
    PortRefModel,
    StretchModel,
    Value,
)

__all__ = [
    "LARGEST_PLAN_BYTES",
    "SCHEMA_VERSION",
    "AnyEdit",
    "DeviceModel",
    "FigureModel",
    "KnobMark",
    "PartModel",
    "PlanDocument",
    "PortRefModel",
    "StretchModel",
    "Value",
    "edit_document",
    "plan_from_json",
    "plan_schema",
    "read_plan",
    "stored_plan",
    "write_plan",
]
