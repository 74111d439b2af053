"""Trunk: pieces assigned to runs, and paper."""

import io
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from random import Random
from statistics import median

from pypdf import PdfReader

from tidy_trunk.app.demo import foundry
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.trunk import CableNeed, Piece, PieceKind, assign, cable_needs
from tidy_trunk.reports import patch_pdf, settings_sheet
from tidy_trunk.results.patch import patch_of, settings_of

NEEDS, PIECES = 60, 300
"""Of the large trunk. ASSUMED_"""

KINDS = ("xlr", "trs", "xlr-trs-pad-25", "bnc", "hdmi", "trs-extension", "xlr-2xlr", "trs635")
LENGTHS = (0.5, 1.0, 2.0, 3.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0)
MADE = datetime(2026, 1, 1, tzinfo=UTC)


def trunk(large: Plan, timed: Callable[[Callable[[], object], int], list[float]]) -> Iterator[tuple[str, float, str]]:
    """Name, milliseconds and goal of each line."""
    leads, by = built_in().leads, Random(3)
    needs = [
        CableNeed(
            id=str(number),
            runs=(str(number),),
            lead=leads[by.choice(KINDS)],
            length_m=by.choice(LENGTHS),
            is_once=by.random() < 0.3,
        )
        for number in range(NEEDS)
    ]
    pieces = [
        Piece(
            id=str(number),
            kind=PieceKind.CABLE,
            label="",
            what=by.choice(KINDS),
            length_m=by.choice(LENGTHS),
            tested=by.choice(("", "2026-01-01")),
        )
        for number in range(PIECES)
    ]
    yield (
        f"{NEEDS} runs and {PIECES} pieces assigned",
        median(timed(lambda: assign(needs, pieces, leads), 5)),
        "2000 ms",
    )
    own = cable_needs(Report(trace_plan(foundry())))
    yield "the demo's cables assigned", median(timed(lambda: assign(own, pieces, leads), 5)), "200 ms"
    report = Report(trace_plan(large))
    patch = patch_of(report.index)
    words = f"patch of {len(patch.devices)} devices and {len(patch.runs)} runs as PDF"
    yield words, median(timed(lambda: patch_pdf(patch, paper="a3", made=MADE), 5)), "2000 ms"
    settings = settings_of(report)
    data = settings_sheet("Bench", patch, settings, paper="a4", made=MADE)
    count = len(PdfReader(io.BytesIO(data)).pages)
    taken = timed(lambda: settings_sheet("Bench", patch, settings, paper="a4", made=MADE), 3)
    yield f"{count} pages of settings as PDF", median(taken), "3000 ms for 40"
