"""Ports that many classes share, so that each class states only what is its own."""

from typing import Final

from tidy_trunk.core.gear.catalogue.connectors import Circuit, Gender, Plug
from tidy_trunk.core.gear.catalogue.devices import InputMode, InputPort, OutputMode, OutputPort, Signal, TrimKind
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.span import Span

XLR_IN: Final = Plug("xlr3", Gender.FEMALE)
XLR_OUT: Final = Plug("xlr3", Gender.MALE)
JACK_SOCKET: Final = Plug("trs35", Gender.FEMALE)
JACK_PLUG: Final = Plug("trs35", Gender.MALE)
STEREO: Final = ("L", "R")

PHANTOM: Final = about(48, 8)
"""48 ± 4 V. [IEC61938]"""

DIGITAL_IN: Final = InputMode(id="digital", label="digital", signal=Signal.DIGITAL, impedance_ohm=about(110))
DIGITAL_OUT: Final = OutputMode(id="digital", label="digital", signal=Signal.DIGITAL, source_ohm=about(110))


def microphone_out(
    source_ohm: float,
    plug: Plug = XLR_OUT,
    circuit: Circuit = Circuit.BALANCED,
    channels: tuple[str, ...] = ("1",),
) -> OutputPort:
    """The one output of a microphone; the same sound on each of its channels."""
    mode = OutputMode(id="mic", label="mic", signal=Signal.MIC, source_ohm=about(source_ohm))
    return OutputPort(id="out", label="out", plug=plug, circuit=circuit, modes=(mode,), channels=channels)


def headphone_out(
    full_scale_dbu: float,
    noise_dbu: float,
    *,
    volume: TrimKind = TrimKind.DIGITAL,
    noise_after_dbu: float | None = None,
) -> OutputPort:
    """A 3.5 mm headphone socket. Most volume knobs act before the amplifier: its noise stays. [HANDBOOK] §6"""
    return OutputPort(
        id="phones",
        label="headphones",
        plug=JACK_SOCKET,
        circuit=Circuit.UNBALANCED_STEREO,
        channels=STEREO,
        is_headphone=True,
        modes=(
            OutputMode(
                id="phones",
                label="headphones",
                signal=Signal.LINE,
                source_ohm=about(32),
                full_scale_dbu=Figure(full_scale_dbu),
                noise_dbu=Figure(noise_dbu),
                noise_after_dbu=None if noise_after_dbu is None else Figure(noise_after_dbu),
                trim=Span(-60, 0, 1, -20),
                trim_kind=volume,
            ),
        ),
    )


def digital_out(
    port_id: str, label: str, plug: Plug, circuit: Circuit, channels: tuple[str, ...] = STEREO
) -> OutputPort:
    """A digital output: its level is fixed, whatever the sender records."""
    return OutputPort(id=port_id, label=label, plug=plug, circuit=circuit, channels=channels, modes=(DIGITAL_OUT,))


def digital_in(
    port_id: str,
    label: str,
    plug: Plug,
    circuit: Circuit,
    channels: tuple[str, ...] = STEREO,
    *,
    blocks: tuple[str, ...] = (),
) -> InputPort:
    """A digital input."""
    return InputPort(
        id=port_id, label=label, plug=plug, circuit=circuit, channels=channels, modes=(DIGITAL_IN,), blocks=blocks
    )


TIMECODE_DBU: Final = Figure(-3.0)
"""A sine that peaks as timecode of 1.5 V from peak to peak does: between the 1 and 2 V that are usual. [MEMORY]"""


def timecode_in() -> InputPort:
    """A BNC socket that takes timecode."""
    return digital_in("tc-in", "timecode in", Plug("bnc", Gender.FEMALE), Circuit.TIMECODE, ("1",))


def genlock_in() -> InputPort:
    """A BNC socket that takes the beat of the frames; labels come another way."""
    return digital_in("genlock", "genlock", Plug("bnc", Gender.FEMALE), Circuit.GENLOCK, ("1",))


def genlock_out() -> OutputPort:
    """A BNC socket that gives the beat of the frames."""
    return digital_out("sync-out", "genlock out", Plug("bnc", Gender.FEMALE), Circuit.GENLOCK, ("1",))


def timecode_out() -> OutputPort:
    """A BNC socket that gives timecode: a voltage that can be recorded as sound."""
    mode = OutputMode(
        id="timecode", label="timecode", signal=Signal.LINE, source_ohm=about(75), full_scale_dbu=TIMECODE_DBU
    )
    plug = Plug("bnc", Gender.FEMALE)
    return OutputPort(id="tc-out", label="timecode out", plug=plug, circuit=Circuit.TIMECODE, modes=(mode,))
