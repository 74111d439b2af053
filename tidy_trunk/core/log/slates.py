"""What comes after a slate: by the rules of both schools, scene and letter, or numbers in a row."""

import re
from typing import Final

from tidy_trunk.core.plan import Slating

LETTERS: Final = "ABCDEFGHJKLMNPQRSTUVWXYZ"
"""Letters of set-ups: I and O are left out, as they are read as 1 and 0. [PRACTICE]"""

LONGEST_SLATE: Final = 24
"""ASSUMED_ letters of a slate."""

_ENDING: Final = re.compile(r"(?P<scene>.*?\d)(?P<letters>[^\W\d_]*)")


def next_slate(slate: str, slating: Slating) -> str:
    """The slate of the next set-up: `12C` → `12D`, `12` → `12A`, `12Z` → `12AA`; by numbers `231` → `232`.

    One that ends otherwise stays as it is: somebody has named it.
    """
    found = _ENDING.fullmatch(slate.strip())
    if found is None:
        return slate
    scene, letters = found["scene"], found["letters"].upper()
    if slating is Slating.NUMBERS:
        head, digits = re.fullmatch(r"(.*?)(\d+)", scene).groups()  # type: ignore[union-attr]  # it ends with a digit
        return f"{head}{int(digits) + 1:0{len(digits)}}"
    return scene + _after(letters)


def scene_of(slate: str, slating: Slating) -> str:
    """The scene that a slate is of: `12C` → `12`; numbers in a row do not tell, there each slate is one of its own."""
    found = _ENDING.fullmatch(slate.strip())
    return slate.strip() if found is None or slating is Slating.NUMBERS else found["scene"]


def _after(letters: str) -> str:
    """The next in A, B, … Z, AA, AB, …; letters that are left out count as the one before them."""
    digits = [
        max(LETTERS.find(letter), 0) if letter in LETTERS else LETTERS.index(chr(ord(letter) - 1)) for letter in letters
    ]
    at = len(digits) - 1
    while at >= 0:
        if digits[at] < len(LETTERS) - 1:
            digits[at] += 1
            return "".join(LETTERS[digit] for digit in digits)
        digits[at] = 0
        at -= 1
    return LETTERS[0] * (len(letters) + 1)
