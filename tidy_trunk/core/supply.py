"""What the core is given, as it opens no files itself."""

from collections.abc import Callable
from typing import Any

_readers: list[Callable[[], Any]] = []


def supply_catalogue(reader: Callable[[], Any]) -> None:
    """Say who reads the built-in classes, as a `Catalogue`; asked once, when the first of them is needed."""
    _readers[:] = [reader]


def read_catalogue() -> Any:
    """The built-in classes, as a `Catalogue`."""
    return _readers[0]()
