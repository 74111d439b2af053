"""The same result in plain words or as one JSON object."""

import json
import math
from collections.abc import Mapping
from typing import Any, Final

from pydantic import BaseModel

from tidy_trunk.core.base.text import shown

NOTHING_FOUND: Final = 3
"""Exit status of a look that found nothing."""


def show(result: Mapping[str, Any] | BaseModel, words: str, as_json: bool) -> None:
    if isinstance(result, BaseModel):
        result = result.model_dump(mode="json")
    print(json.dumps(result, ensure_ascii=False, allow_nan=False) if as_json else shown(words))


def level(value: float, unit: str = "") -> str:
    """A level in words, with a minus sign as it is printed."""
    if not math.isfinite(value):
        return "silence"
    return f"{value:.1f} {unit}".strip().replace("-", "−")


def fields(result: BaseModel, *names: str) -> dict[str, Any]:
    """Some fields of a result as the command line gives them: what says nothing is null there."""
    found = result.model_dump(mode="json", include=set(names))
    return {name: None if found[name] == "" else found[name] for name in names}
