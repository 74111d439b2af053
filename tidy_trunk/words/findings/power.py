"""Powering microphones."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.advice.checks.rules.power import Harm, NoPowerReason
from tidy_trunk.core.gear.catalogue import Supply
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.terms import term

_ROUTINE: Final = "Mute, connect, switch on, wait, open."


@says
def microphone_unpowered(at: FindingPlace, *, cause: NoPowerReason, need: Supply | None) -> FindingWords:
    if need is None:
        return FindingWords(
            f"{at.sender} has no cell",
            f"{at.sender} works from its own cell, and none is in. It has no gauge: a fresh one each day, and log it.",
        )
    return FindingWords(
        f"{at.sender} has no power", f"{at.sender} needs {term(need)}, and {_why_unpowered(at, cause)}. {_ROUTINE}"
    )


def _why_unpowered(at: FindingPlace, cause: NoPowerReason) -> str:
    joint = at.joint
    if cause is NoPowerReason.ONE_OF_TWO:
        on = joint.receiver.phantom_on(joint.input)
        off = [place for place in joint.input.phantom_places if place not in on]
        return f"48 V is on in the {' and '.join(on)} but off in the {' and '.join(off)}: both must be on"
    if cause is NoPowerReason.OFF:
        return f"it is off at {at.socket}"
    if cause is NoPowerReason.BLOCKED:
        return "a cable on the way does not pass it"
    feeding = joint.sender.device_class.feeding
    cell = "put a fresh cell in" if feeding is not None and feeding.cell else "take a microphone with a cell"
    return f"{at.socket} cannot give it: {cell}, or go via a preamp box or recorder"


_HARMED: Final[Mapping[Harm, str]] = {
    Harm.NO_MICROPHONE: "an output that is not made for it",
    Harm.NOT_MADE_FOR_IT: "which it can harm",
    Harm.RIBBON: "whose ribbon then lies across {volts:.0f} V",
    Harm.COIL: "whose coil then lies across {volts:.0f} V",
    Harm.COIL_ONE_LEG: "whose coil then lies across {volts:.0f} V, because a cable ties one leg down",
}
"""What becomes of what a supply reaches. [IEC61938], [PRACTICE]"""


@says
def harmful_power(at: FindingPlace, *, harm: Harm, across_v: float) -> FindingWords:
    supply = term(Supply(at.finding.about))
    return FindingWords(
        f"{supply} where it harms",
        f"{supply} is on at {at.socket} and reaches {at.sender}, {_HARMED[harm].format(volts=across_v)}. Switch it off before plugging "
        "in, or use another input.",
    )


@says
def phantom_shorted(at: FindingPlace, *, short_ma: float) -> FindingWords:
    return FindingWords(
        "48 V meets a short",
        f"A piece of cable {at.number} ties a leg of {at.socket} to the screen: {short_ma:.0f} mA flow for nothing, "
        "and nothing at the other end is powered. Switch 48 V off there, or use a cable with both legs.",
    )


@says
def phantom_voltage(
    at: FindingPlace, *, nominal_v: float, current_ma: float, left_v: float, least_v: float
) -> FindingWords:
    return FindingWords(
        f"Too little voltage at {at.sender}",
        f"{at.socket} gives {nominal_v:g} V; at {current_ma:g} mA {left_v:.1f} V are left at "
        f"{at.sender}, and the standard promises {least_v:.1f} V. It distorts early or falls silent: use another input.",
    )


@says
def phantom_budget(at: FindingPlace, *, drawn_ma: float, budget_ma: float) -> FindingWords:
    return FindingWords(
        f"{at.device} cannot power all its microphones",
        f"The microphones at {at.device} draw {drawn_ma:g} mA at 48 V, and it gives {budget_ma:g} mA for all: the voltage "
        "sags, and with it their loudest sound. Take one off, or one with its own cell.",
    )


@says
def cell_without_gauge(at: FindingPlace) -> FindingWords:
    return FindingWords(
        f"Fresh cell for {at.sender}",
        f"{at.sender} runs on a cell and has no gauge: it fades or stops in mid-take. A fresh one each day, the day "
        "written on it, a spare in the pocket; used cells go to where cells are collected.",
    )
