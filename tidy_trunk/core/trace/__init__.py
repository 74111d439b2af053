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

__all__ = [
    "Place",
    "Stage",
    "StageKey",
    "Trace",
    "Tracer",
    "accept",
    "run_link",
    "upstream_of",
]
