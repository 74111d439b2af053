"""Traces: every track followed back to its sources."""

from tidy_trunk.core.sound.trace.graph import (
    Stage,
    StageKey,
    StageKind,
    Trace,
    Tracer,
    trace_plan,
    upstream_of,
)
from tidy_trunk.core.sound.trace.links import is_shared, run_link
from tidy_trunk.core.sound.trace.parts import KnownParts, PlanPart, parts_on_all_ways
from tidy_trunk.core.sound.trace.powering import is_powered, run_delivery

__all__ = [
    "KnownParts",
    "PlanPart",
    "Stage",
    "StageKey",
    "StageKind",
    "Trace",
    "Tracer",
    "is_powered",
    "is_shared",
    "parts_on_all_ways",
    "run_delivery",
    "run_link",
    "trace_plan",
    "upstream_of",
]
