"""Traces: every track followed back to its sources."""

from tidy_trunk.core.trace.contacts import Arrival, Mismatch, arrivals, unmated
from tidy_trunk.core.trace.graph import (
    Place,
    Stage,
    StageKey,
    Trace,
    Tracer,
    accept,
    run_arrivals,
    upstream_of,
)

__all__ = [
    "Arrival",
    "Mismatch",
    "Place",
    "Stage",
    "StageKey",
    "Trace",
    "Tracer",
    "accept",
    "arrivals",
    "run_arrivals",
    "unmated",
    "upstream_of",
]
