"""Traces: every track followed back to its sources."""

from tidy_trunk.core.trace.graph import (
    Place,
    Stage,
    StageKey,
    Trace,
    Tracer,
    accept,
    run_link,
    upstream_of,
)
from tidy_trunk.core.trace.parts import KnownParts, Part, parts_on_all_ways

__all__ = [
    "KnownParts",
    "Part",
    "Place",
    "Stage",
    "StageKey",
    "Trace",
    "Tracer",
    "accept",
    "parts_on_all_ways",
    "run_link",
    "upstream_of",
]
