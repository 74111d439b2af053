"""Moments that telephones tell."""

from datetime import datetime
from typing import Annotated, Final

from pydantic import AfterValidator, AwareDatetime

EARLIEST_YEAR: Final = 2000
"""ASSUMED_ year before which a clock is wrong: devices without one begin in 1970 or 1980."""


def _not_before(made: datetime) -> datetime:
    if made.year < EARLIEST_YEAR:
        raise ValueError(f"nobody used this program before {EARLIEST_YEAR}: look at the clock of the device")
    return made


Moment = Annotated[AwareDatetime, AfterValidator(_not_before)]
