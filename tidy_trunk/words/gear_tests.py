"""Tests of one's own gear in words: what to do, what to answer, and what was found."""

from collections.abc import Callable, Mapping
from typing import Final, NamedTuple

from tidy_trunk.core.advice.gear_tests import (
    FigureFound,
    GearFinding,
    GearTest,
    GearTestKind,
    KnobFound,
    LegsFound,
    LowestFound,
    MeterFound,
    PadFound,
    lets_own_microphones_in,
)
from tidy_trunk.core.gear.catalogue import FIGURE_WORDS, PadPlace
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.words.names import begun
from tidy_trunk.words.numbers import listed, many, marked, plain


class GearQuestion(NamedTuple):
    """What is to be seen or heard, and the two answers."""

    asks: str
    yes: str
    no: str


class GearTestWords(NamedTuple):
    """title: what is found out; why: what hangs on it; does: what to do, step by step; value: what may be typed, "" for nothing."""

    title: str
    why: str
    does: tuple[str, ...]
    question: GearQuestion | None = None
    value: str = ""


def gear_test_words(test: GearTest, index: PlanIndex) -> GearTestWords:
    """A test in words. `index`: of the plan that it is of."""
    return _WORDS[test.kind](test, index)


def _read_at(test: GearTest, index: PlanIndex) -> str:
    """The track that is read, with its device where that is another one."""
    device, _, bus = test.track.partition(".")
    placed = index.placed(device)
    return placed.place_label(bus) if device == test.device else placed.bus_label(bus)


def _send(test: GearTest, index: PlanIndex) -> str:
    return f"Send 1 kHz at {plain(index.tone_dbfs(test.sender))} dBFS from {index.placed(test.sender).label}."


def _socket(test: GearTest, index: PlanIndex) -> str:
    return index.placed(test.device).port(test.at).label


def _unplug(test: GearTest, index: PlanIndex) -> str:
    placed = index.placed(test.device)
    if lets_own_microphones_in(placed, placed.input(test.at)):
        return (
            f"Put a shorted plug into {_socket(test, index)} (empty, the device hears by its own microphones), "
            "automatic level off"
        )
    return f"Unplug {_socket(test, index)}, automatic level off"


def _knob_label(test: GearTest, index: PlanIndex) -> str:
    """As it is named beside its device."""
    label = test.knob.label if test.knob is not None else ""
    return begun(label.removeprefix(f"{index.placed(test.device).label} "))


def _lowest(test: GearTest, index: PlanIndex) -> GearTestWords:
    lowest = marked(test.knob.span.minimum_db) if test.knob is not None else "0"
    return GearTestWords(
        f"{_knob_label(test, index)}: lowest position",
        "On many devices the lowest position is off. A plan must not put a track there.",
        (
            _send(test, index),
            f"Set it to {marked(test.gain_db or 0.0)} dB: {_read_at(test, index)} must show the tone.",
            f"Turn it to its lowest, {lowest} dB, and record five seconds.",
        ),
        GearQuestion("Is the tone gone?", "Gone: lowest is off", "Still there"),
    )


def _attenuator(test: GearTest, index: PlanIndex) -> GearTestWords:
    return GearTestWords(
        f"{begun(_socket(test, index))}: where its attenuator sits",
        "An attenuator behind the converter turns down what is cut off already: it does not help.",
        (
            _send(test, index),
            f"Attenuator off, gain to {marked(test.gain_db or 0.0)} dB: the tone must be over the top of {_read_at(test, index)}.",
            "Switch the attenuator on and record five seconds.",
        ),
        GearQuestion("How does it look?", "Flat tops at a lower level", "A clean tone"),
    )


def _legs(test: GearTest, index: PlanIndex) -> GearTestWords:
    placed, other = index.placed(test.device), test.other.partition(".")[2]
    left, right = (index.plan.runs[run].number for run in test.runs)
    first = placed.place_label(test.track.partition(".")[2])
    return GearTestWords(
        f"Cables {left} and {right}: which leg is which",
        "Colours and marks on splitters mislead.",
        (
            _send(test, index),
            f"Pull the leg of cable {right}, marked right; leave that of cable {left}, marked left.",
            f"Look at the meters, or record five seconds of {listed([first, placed.place_label(other)])} in one file.",
        ),
        GearQuestion("Which one still shows the tone?", begun(first), begun(placed.place_label(other))),
    )


def _bleed(test: GearTest, index: PlanIndex) -> GearTestWords:
    placed, other = index.placed(test.device), test.other.partition(".")[2]
    right = index.plan.runs[test.runs[1]].number
    return GearTestWords(
        f"{begun(_socket(test, index))}: bleed between its sides",
        "It tells how much use the neighbour of a timecode track is, and whether two voices stay apart.",
        (
            _send(test, index),
            f"Pull the leg of cable {right}.",
            f"Record five seconds of {listed([_read_at(test, index), placed.place_label(other)])} in one file.",
        ),
        value="Other side lower by, dB",
    )


def _idle_noise(test: GearTest, index: PlanIndex) -> GearTestWords:
    gain = "" if test.gain_db is None else f", gain to {marked(test.gain_db)} dB"
    return GearTestWords(
        f"{begun(_socket(test, index))}: noise without sound",
        "It is the floor of every recording on this input.",
        (f"{_unplug(test, index)}{gain}.", f"Record ten seconds of {_read_at(test, index)}."),
        value="Noise, dBFS, unweighted",
    )


def _input_noise(test: GearTest, index: PlanIndex) -> GearTestWords:
    return GearTestWords(
        f"{begun(_socket(test, index))}: noise of its preamp",
        "It decides how quiet a microphone, or how low a line level, this input can take.",
        (
            f"{_unplug(test, index)}, gain to {marked(test.gain_db or 0.0)} dB.",
            f"Record ten seconds of {_read_at(test, index)}.",
        ),
        value="Noise, dBFS, unweighted",
    )


def _meter(test: GearTest, index: PlanIndex) -> GearTestWords:
    return GearTestWords(
        f"Meter of {_read_at(test, index)}",
        "A meter that reads high or low puts every line-up off by as much.",
        (
            _send(test, index),
            "Keep it clear of the top. Note what its meter shows, then record five seconds without touching anything.",
            "Type the reading, then drop the recording.",
        ),
        value="Its meter shows, dBFS",
    )


def _knob(test: GearTest, index: PlanIndex) -> GearTestWords:
    marks = listed([marked(position) for position in test.positions])
    return GearTestWords(
        f"{_knob_label(test, index)}: what its marks give",
        "Knobs of cameras seldom give what is written beside them.",
        (
            _send(test, index),
            f"Record {_read_at(test, index)} while you set it to {marks} dB, two seconds each.",
        ),
    )


def _picture(test: GearTest, index: PlanIndex) -> GearTestWords:
    return GearTestWords(
        "Picture delay",
        "A picture that comes late on a screen or in a switcher wants the sound delayed with it.",
        (
            "Film a clap with the picture of this device beside it on a screen, the two in one shot.",
            "Count the frames from the clap to the clap on the screen, and take off what the screen itself is late by.",
        ),
        value="Late by, frames",
    )


_WORDS: Final[Mapping[GearTestKind, Callable[[GearTest, PlanIndex], GearTestWords]]] = {
    GearTestKind.LOWEST: _lowest,
    GearTestKind.ATTENUATOR: _attenuator,
    GearTestKind.LEGS: _legs,
    GearTestKind.BLEED: _bleed,
    GearTestKind.IDLE_NOISE: _idle_noise,
    GearTestKind.INPUT_NOISE: _input_noise,
    GearTestKind.METER: _meter,
    GearTestKind.KNOB: _knob,
    GearTestKind.PICTURE: _picture,
}


def found_words(found: GearFinding) -> str:
    """What was found out, as a sentence."""
    match found:
        case LowestFound(is_off=True):
            return "Its lowest position is off."
        case LowestFound():
            return "Its lowest position is not off."
        case PadFound(place=PadPlace.LAST):
            return "It sits behind the converter: leave it off, and turn the sender down instead."
        case PadFound():
            return "It sits before the converter: it helps."
        case LegsFound(are_as_marked=True):
            return "The legs are as the plan has them."
        case LegsFound():
            return "The legs are the other way round; the plan has them so now."
        case MeterFound(high_db=high_db) if abs(high_db) < 0.05:
            return "It reads right."
        case MeterFound(high_db=high_db):
            return f"It reads {abs(high_db):.1f} dB too {'high' if high_db > 0 else 'low'}."
        case KnobFound(marks=marks):
            return f"Measured at {many(marks, 'mark')}."
        case FigureFound(path=path, figure=figure, is_at_most=is_at_most):
            words, unit = FIGURE_WORDS[path.rsplit(".", 1)[-1]]
            within = "" if is_at_most or unit == "frames" else f" ±{figure.tolerance:g}"
            return f"{begun(words)}: {'at most ' if is_at_most else ''}{plain(figure.value)} {unit}{within}."
