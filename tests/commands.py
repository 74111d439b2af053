"""A command as a user types it, in this very process: quicker than one of its own, of which `tests/cli` tries some."""

import sys
from contextlib import redirect_stderr, redirect_stdout
from io import StringIO
from typing import NamedTuple

import pytest

from tidy_trunk.cli import main


class Printed(NamedTuple):
    status: int
    out: str
    err: str


def typed(*arguments: object) -> Printed:
    """What `./tidy` with these arguments prints, and its exit status."""
    out, err = StringIO(), StringIO()
    with pytest.MonkeyPatch.context() as patch, redirect_stdout(out), redirect_stderr(err):
        patch.setattr(sys, "argv", ["tidy", *map(str, arguments)])
        status = main.run()
    return Printed(status, out.getvalue(), err.getvalue())
