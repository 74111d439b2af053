"""Of many cases alike, some for every landing and the others for the deep run."""

import os
from collections.abc import Iterable
from typing import Any

import pytest

IS_DEEP = bool(os.environ.get("TIDY_TRUNK_DEEP"))
"""Whether all of it is run, by `./tidy test --deep`: what tries the same in other circumstances, for longer or by more draws."""


def few(cases: Iterable[tuple[Any, ...]], count: int) -> list[Any]:
    """The cases for `parametrize`, each a tuple of its values; the first so many are run at every landing."""
    return [pytest.param(*case, marks=() if number < count else pytest.mark.deep) for number, case in enumerate(cases)]


def each_of(values: Iterable[Any], count: int) -> list[Any]:
    """The same for a test of one parameter."""
    return few(((value,) for value in values), count)
