"""What is asked of a gain plan."""

from typing import Annotated

from pydantic import Field

from tidy_trunk.api.schemas.jobs import In

_Name = Annotated[str, Field(min_length=1, max_length=120)]


class PinIn(In):
    device: _Name
    control: _Name


class GainIn(In):
    """Controls that are to be left as they are."""

    pins: Annotated[
        tuple[PinIn, ...],
        Field(max_length=2000, examples=[[{"device": "bag", "control": "in1.mic.gain_db"}]]),
    ] = ()
