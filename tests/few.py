"""Of many cases alike, some for every landing and the others for the deep run."""

from collections.abc import Iterable
from typing import Any

import pytest


def few(cases: Iterable[tuple[Any, ...]], count: int) -> list[Any]:
    """The cases for `parametrize`, each a tuple of its values; the first so many are run at every landing."""
    return [pytest.param(*case, marks=() if number < count else pytest.mark.deep) for number, case in enumerate(cases)]
