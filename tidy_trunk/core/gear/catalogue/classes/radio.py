"""Radio microphones: transmitters and receivers."""

from dataclasses import replace
from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import (
    DIGITAL_OUT,
    JACK_SOCKET,
    PHANTOM,
    STEREO,
    XLR_IN,
    XLR_OUT,
    digital_in,
    digital_out,
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

_AIR_OUT = digital_out("air", "aerial", Plug("air", Gender.MALE), Circuit.RADIO, ("1",))
_RADIO_RANGE_DBFS = Figure(-100)
_GAIN = Span(0, 30, 1, 12)

_COMPANDED_OUT = replace(_AIR_OUT, modes=(replace(DIGITAL_OUT, compander_db=Figure(55)),))
_LAVALIER_IN = InputPort(
    id="mic",
    label="mic in",
    plug=JACK_SOCKET,
    circuit=Circuit.UNBALANCED,
    limiter_dbfs=Figure(-3),
    idle_noise_dbfs=_RADIO_RANGE_DBFS,
    modes=(
        InputMode(
            id="mic",
            label="mic",
            signal=Signal.MIC,
            impedance_ohm=about(10_000),
            full_scale_dbu=Figure(-10),
            ein_dbu=Figure(-115),
            gain=_GAIN,
            supplies=(Supply.PLUG_IN,),
        ),
        InputMode(
            id="line",
            label="line",
            signal=Signal.LINE,
            impedance_ohm=about(20_000),
            full_scale_dbu=Figure(20),
            gain=_GAIN,
        ),
    ),
)


def _air_in(port_id: str, label: str) -> InputPort:
    return digital_in(port_id, label, Plug("air", Gender.FEMALE), Circuit.RADIO, ("1",))


def _out_modes() -> tuple[OutputMode, ...]:
    line = OutputMode(
        id="line",
        label="line",
        signal=Signal.LINE,
        full_scale_dbu=Figure(-10),
        noise_dbu=Figure(-112),
        noise_after_dbu=Figure(-120),
        trim=Span(-20, 0, 1, 0),
    )
    return line, replace(line, id="mic", label="mic", signal=Signal.MIC, full_scale_dbu=Figure(-30))


_BODYPACK = DeviceClass(
    id="bodypack-transmitter",
    label="Body-pack transmitter",
    kind=Kind.TRANSMITTER,
    blurb="3.5 mm input for a lavalier, gives it 5 V",
    inputs=(_LAVALIER_IN,),
    outputs=(_AIR_OUT,),
    buses=(Bus(id="air", label="on air", recorded=False, inputs=("mic",)),),
    feeds={"air": "air"},
    traits=Traits(power_w=about(0.5), battery_wh=about(4.0)),
)

RADIO: Final = (
    _BODYPACK,
    replace(
        _BODYPACK,
        id="bodypack-analogue",
        label="Body-pack transmitter, analogue with compander",
        blurb="3.5 mm input for a lavalier; its noise breathes with the voice",
        outputs=(_COMPANDED_OUT,),
    ),
    replace(
        _BODYPACK,
        id="bodypack-recording",
        label="Body-pack transmitter that records",
        blurb="3.5 mm input for a lavalier; keeps its own file where the radio fails",
        buses=(Bus(id="1", label="1", recorded=True, inputs=("mic",)), *_BODYPACK.buses),
        traits=Traits(
            sample_rates_hz=(48_000,), clock_ppm=about(2), keeps_timecode_when_off=False, power_w=about(0.7), battery_wh=about(4.0), bits=24, media="internal",
        ),
    ),
    DeviceClass(
        id="plug-on-transmitter",
        label="Plug-on transmitter",
        kind=Kind.TRANSMITTER,
        blurb="Sits on an XLR microphone, gives 48 V",
        inputs=(
            InputPort(
                id="mic",
                label="mic in",
                plug=XLR_IN,
                circuit=Circuit.BALANCED,
                phantom_places=("menu",),
                phantom_v=PHANTOM,
                limiter_dbfs=Figure(-3),
                idle_noise_dbfs=_RADIO_RANGE_DBFS,
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(10_000), full_scale_dbu=Figure(-10),
                        ein_dbu=Figure(-118), gain=_GAIN, supplies=(Supply.P48,),
                    ),
                ),
            ),
        ),
        outputs=(_AIR_OUT,),
        buses=(Bus(id="air", label="on air", recorded=False, inputs=("mic",)),),
        feeds={"air": "air"},
        traits=Traits(power_w=about(0.7), battery_wh=about(4.0)),
    ),
    DeviceClass(
        id="receiver-one",
        label="Radio receiver, one channel",
        kind=Kind.RECEIVER,
        blurb="Balanced output, line or mic",
        inputs=(_air_in("air", "aerial"),),
        outputs=(OutputPort(id="out", label="out", plug=XLR_OUT, circuit=Circuit.BALANCED, modes=_out_modes(), drive=Drive.HOT_ONLY),),
        buses=(Bus(id="air", label="received", recorded=False, inputs=("air",)),),
        feeds={"out": "air"},
        traits=Traits(power_w=about(1.2), battery_wh=about(6.0), sound_delay_ms=about(3.0)),
    ),
    DeviceClass(
        id="receiver-ta5",
        label="Radio receiver, two channels, TA5",
        kind=Kind.RECEIVER,
        blurb="Both channels balanced on one TA5 plug",
        inputs=(_air_in("air-1", "aerial 1"), _air_in("air-2", "aerial 2")),
        outputs=(
            OutputPort(
                id="out", label="out", plug=Plug("ta5", Gender.MALE), circuit=Circuit.BALANCED_STEREO, channels=STEREO, modes=_out_modes(),
                drive=Drive.HOT_ONLY,
            ),
        ),
        buses=(
            Bus(id="air-1", label="channel 1", recorded=False, inputs=("air-1",)),
            Bus(id="air-2", label="channel 2", recorded=False, inputs=("air-2",)),
        ),
        feeds={"out.L": "air-1", "out.R": "air-2"},
        traits=Traits(power_w=about(1.5), battery_wh=about(6.0), sound_delay_ms=about(4.0)),
    ),
    DeviceClass(
        id="receiver-two",
        label="Radio receiver, two channels, 3.5 mm",
        kind=Kind.RECEIVER,
        blurb="Channel 1 left, channel 2 right of one 3.5 mm socket",
        inputs=(_air_in("air-1", "aerial 1"), _air_in("air-2", "aerial 2")),
        outputs=(
            OutputPort(
                id="out", label="out", plug=JACK_SOCKET, circuit=Circuit.UNBALANCED_STEREO, channels=STEREO, modes=_out_modes()
            ),
        ),
        buses=(
            Bus(id="air-1", label="channel 1", recorded=False, inputs=("air-1",)),
            Bus(id="air-2", label="channel 2", recorded=False, inputs=("air-2",)),
        ),
        feeds={"out.L": "air-1", "out.R": "air-2"},
        traits=Traits(power_w=about(1.5), battery_wh=about(6.0), sound_delay_ms=about(5.0)),
    ),
)  # fmt: skip
"""Figures: [HANDBOOK] §12; input levels, output noise, the analogue channel and power [MEMORY]"""
