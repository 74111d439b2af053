"""What is wrong with what arrives through a cable."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.gear.wiring import Fault

FAULT_WORDS: Final[Mapping[Fault, str]] = {
    Fault.NUMBERS: "a digital signal into an analogue input",
    Fault.VOLTAGE: "an analogue signal into a digital input",
    Fault.NOTHING: "nothing arrives",
    Fault.OPPOSITE: "the two sides are in opposite polarity",
    Fault.DIFFERENCE: "left minus right: the middle cancels",
    Fault.FIGHTING: "two outputs are joined and drive each other",
    Fault.SHORTED: "a leg of the output is shorted",
    Fault.SWAPPED: "left and right arrive on the wrong sides",
    Fault.MIXED: "left and right are summed to mono",
    Fault.INVERTED: "polarity is inverted",
    Fault.LOST: "one side is lost",
    Fault.ONE_SIDE: "one side stays silent",
}
"""Each fault in words. [HANDBOOK] §4"""
