"""What the user bits of timecode hold: eight digits, or a date."""

import re
from datetime import date
from typing import Final

from tidy_trunk.core.base.timecode.ltc_bits import LtcExtras
from tidy_trunk.errors import InputError

_HEX: Final = re.compile(r"[0-9A-Fa-f]{8}")


def user_digits(text: str) -> LtcExtras:
    """Eight hexadecimal digits, the leftmost in binary group 8. Raises InputError: something else."""
    if not _HEX.fullmatch(text):
        raise InputError(f"user bits must be 8 hexadecimal digits, not '{text[:20]}'")
    return LtcExtras(user_bits=tuple(int(digit, 16) for digit in reversed(text)))


def user_hex(groups: tuple[int, ...]) -> str:
    """Binary groups 1 to 8 as eight digits, group 8 leftmost."""
    return "".join(f"{group:X}" for group in reversed(groups))


def date_digits(day: date) -> LtcExtras:
    """A date in the user bits: day, month and year, each as two digits from group 1 on, units first.

    Groups 7 and 8 hold the zone, which is left at 0. Binary-group flags 0 and 2 say that it is a date. [ST309], from memory
    """
    parts = (day.day, day.month, day.year % 100)
    groups = [digit for part in parts for digit in (part % 10, part // 10)]
    return LtcExtras(user_bits=(*groups, 0, 0), group_flags=(False, False, True))
