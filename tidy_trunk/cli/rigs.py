"""`rigs`: whole rigs for a job said in a line or two."""

import textwrap

from tidy_trunk.cli.output import show
from tidy_trunk.core.rigs import find_rigs, read_brief
from tidy_trunk.results.rigs import RigsOut

WIDTH = 100
"""ASSUMED_ letters of a line on a terminal."""


def show_rigs(text: str, as_json: bool) -> int:
    """Exit status 3 where no rig does it. Raises InputError: nothing of the question is understood."""
    reading = read_brief(text, {})
    found = RigsOut.from_core(reading, find_rigs(reading.brief, {}), {})
    told = [f"understood: {found.question}", *found.problems]
    for number, rig in enumerate(found.rigs, 1):
        told += [
            "",
            f"{number}  {rig.title}",
            *textwrap.wrap(rig.reason, WIDTH, initial_indent="   ", subsequent_indent="   "),
        ]
        told += [f"   {row.label}: {cell}" for row, cell in zip(found.rows, rig.cells, strict=True)]
    result = found.model_dump(mode="json")
    show(result, "\n".join(told).replace("−", "-"), as_json)
    return 0 if found.rigs else 3
