"""What stands around cameras and recorders: switcher, delay, timecode, listening."""

from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import (
    JACK_PLUG,
    JACK_SOCKET,
    STEREO,
    XLR_IN,
    XLR_OUT,
    digital_in,
    digital_out,
    genlock_out,
    headphone_out,
    timecode_in,
    timecode_out,
)
from tidy_trunk.core.gear.catalogue.connectors import Circuit, Gender, Plug
from tidy_trunk.core.gear.catalogue.devices import (
    Bus,
    DeviceClass,
    Drive,
    InputMode,
    InputPort,
    Kind,
    OutputMode,
    OutputPort,
    Signal,
    Supply,
    Traits,
)
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.span import Span

_HDMI = Plug("hdmi", Gender.FEMALE)


def _delay_side(side: str) -> tuple[InputPort, OutputPort, Bus]:
    name = side.lower()
    line_in = InputMode(
        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(20_000), full_scale_dbu=Figure(22, 1)
    )
    line_out = OutputMode(
        id="line",
        label="line",
        signal=Signal.LINE,
        source_ohm=about(75),
        full_scale_dbu=Figure(22, 1),
        noise_dbu=Figure(-88),
    )
    return (
        InputPort(
            id=f"in-{name}",
            label=f"in {side}",
            plug=XLR_IN,
            circuit=Circuit.BALANCED,
            modes=(line_in,),
            idle_noise_dbfs=Figure(-105),
        ),
        OutputPort(
            id=f"out-{name}",
            label=f"out {side}",
            plug=XLR_OUT,
            circuit=Circuit.BALANCED,
            modes=(line_out,),
            drive=Drive.SYMMETRIC,
        ),
        Bus(id=name, label=side, recorded=False, inputs=(f"in-{name}",)),
    )


_LEFT, _RIGHT = _delay_side("L"), _delay_side("R")

LIVE: Final = (
    DeviceClass(
        id="audio-delay",
        label="Audio delay unit",
        kind=Kind.DELAY,
        blurb="Two line channels, delays sound to late pictures",
        inputs=(_LEFT[0], _RIGHT[0]),
        outputs=(_LEFT[1], _RIGHT[1]),
        buses=(_LEFT[2], _RIGHT[2]),
        feeds={"out-l": "l", "out-r": "r"},
        # What it is set to stands in its figures: it begins with nothing.
        traits=Traits(sound_delay_ms=about(0), power_w=about(5)),
    ),
    DeviceClass(
        id="live-switcher",
        label="Live switcher",
        kind=Kind.SWITCHER,
        blurb="HDMI pictures with their sound, 3.5 mm mic/line in; the programme counts as a track",
        inputs=(
            *(digital_in(f"hdmi{number}", f"HDMI {number}", _HDMI, Circuit.HDMI) for number in (1, 2, 3, 4)),
            *(digital_in(f"sdi{number}", f"SDI {number}", Plug("bnc", Gender.FEMALE), Circuit.SDI) for number in (1, 2)),
            InputPort(
                id="audio",
                label="audio in",
                plug=JACK_SOCKET,
                circuit=Circuit.UNBALANCED_STEREO,
                channels=STEREO,
                plug_in_places=("menu",),
                idle_noise_dbfs=Figure(-82),
                modes=(
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(6), gain=Span(-20, 6, 1, 0)
                    ),
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(2_200), full_scale_dbu=Figure(-16), clip_dbu=Figure(-12),
                        ein_dbu=Figure(-108), gain=Span(0, 30, 1, 6), supplies=(Supply.PLUG_IN,),
                    ),
                ),
            ),
        ),
        outputs=(digital_out("pgm", "programme out", _HDMI, Circuit.HDMI), headphone_out(4, -80)),
        buses=(
            Bus(id="pgm-l", label="L", recorded=True, inputs=("audio.L",)),
            Bus(id="pgm-r", label="R", recorded=True, inputs=("audio.R",)),
        ),
        feeds={"pgm.L": "pgm-l", "pgm.R": "pgm-r", "phones.L": "pgm-l", "phones.R": "pgm-r"},
        traits=Traits(sample_rates_hz=(48_000,), power_w=about(18), picture_delay_frames=about(2), bits=16),
    ),
    DeviceClass(
        id="timecode-generator",
        label="Timecode generator",
        kind=Kind.CLOCK,
        blurb="Jams by BNC, temperature compensated",
        inputs=(timecode_in(),),
        outputs=(timecode_out(), genlock_out()),
        traits=Traits(clock_ppm=about(1), keeps_timecode_when_off=False, power_w=about(0.3), battery_wh=about(4)),
    ),
    DeviceClass(
        id="picture-monitor",
        label="Picture monitor",
        kind=Kind.MONITOR,
        blurb="Shows a picture late; somebody beside it hears the sound of the set",
        inputs=(
            digital_in("hdmi", "HDMI in", _HDMI, Circuit.HDMI),
            digital_in("sdi", "SDI in", Plug("bnc", Gender.FEMALE), Circuit.SDI),
        ),
        traits=Traits(power_w=about(20), battery_wh=about(50), picture_delay_frames=about(2)),
    ),
    DeviceClass(
        id="headphones",
        label="Headphones, closed",
        kind=Kind.HEADPHONES,
        blurb="For listening at the last point there is",
        inputs=(
            InputPort(
                id="plug", label="plug", plug=JACK_PLUG, circuit=Circuit.UNBALANCED_STEREO, channels=STEREO,
                modes=(InputMode(id="phones", label="headphones", signal=Signal.LINE, impedance_ohm=about(64)),),
            ),
        ),
    ),
)  # fmt: skip
"""Figures: all [MEMORY]"""
