"""Recorders."""

from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import (
    JACK_SOCKET,
    PHANTOM,
    STEREO,
    XLR_IN,
    XLR_OUT,
    digital_out,
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
    TrimKind,
)
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.span import Span


def _line_out(
    port_id: str, label: str, plug: Plug, circuit: Circuit, channels: tuple[str, ...], mode: OutputMode
) -> OutputPort:
    return OutputPort(
        id=port_id, label=label, plug=plug, circuit=circuit, channels=channels, modes=(mode,), drive=Drive.SYMMETRIC
    )


_BAG_LINE = OutputMode(
    id="line", label="line", signal=Signal.LINE, source_ohm=about(100), full_scale_dbu=Figure(10, 1), noise_dbu=Figure(-85),
    trim=Span(-48, 0, 0.5, 0), trim_kind=TrimKind.DIGITAL,
)  # fmt: skip


def _bag_input(number: int) -> InputPort:
    return InputPort(
        id=f"in{number}",
        label=f"in {number}",
        plug=XLR_IN,
        circuit=Circuit.BALANCED,
        phantom_places=("menu",),
        phantom_v=PHANTOM,
        low_cut_hz=(40, 80, 120, 160),
        limiter_dbfs=Figure(-3),
        idle_noise_dbfs=Figure(-118),
        modes=(
            InputMode(
                id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(4_000), full_scale_dbu=Figure(10, 1),
                clip_dbu=Figure(0, 1), ein_dbu=Figure(-125), gain=Span(10, 75, 1, 40), supplies=(Supply.P48,),
            ),
            InputMode(
                id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(24, 1),
                gain=Span(-6, 30, 1, 0),
            ),
        ),
    )  # fmt: skip


_BAG_INPUTS = tuple(_bag_input(number) for number in range(1, 9))
_BAG_REFS = tuple(port.id for port in _BAG_INPUTS)

RECORDERS: Final = (
    DeviceClass(
        id="pocket-recorder",
        label="Pocket recorder, two tracks",
        kind=Kind.RECORDER,
        blurb="3.5 mm microphone and line input, automatic level when new",
        inputs=(
            InputPort(
                id="in",
                label="mic/line in",
                plug=JACK_SOCKET,
                circuit=Circuit.UNBALANCED_STEREO,
                channels=STEREO,
                plug_in_places=("menu",),
                automatic_level_places=("menu",),
                automatic_level_default=True,
                limiter_dbfs=Figure(-3),
                idle_noise_dbfs=Figure(-88),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(2_000), full_scale_dbu=Figure(-6),
                        clip_dbu=Figure(-6), ein_dbu=Figure(-112), gain=Span(0, 40, 1, 20), supplies=(Supply.PLUG_IN,),
                    ),
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(6),
                        gain=Span(-12, 12, 1, 0),
                    ),
                ),
            ),
        ),
        outputs=(headphone_out(4, -84, volume=TrimKind.ANALOGUE, noise_after_dbu=-98),),
        buses=(
            Bus(id="L", label="L", recorded=True, inputs=("in.L",)),
            Bus(id="R", label="R", recorded=True, inputs=("in.R",)),
        ),
        feeds={"phones.L": "L", "phones.R": "R"},
        traits=Traits(sample_rates_hz=(44_100, 48_000), tone_dbfs=Figure(-12, 0.0), clock_ppm=about(30), keeps_timecode_when_off=False, power_w=about(0.5), media="one card", battery_wh=about(4), bits=24),
    ),
    DeviceClass(
        id="handheld-recorder",
        label="Handheld recorder with line output",
        kind=Kind.RECORDER,
        blurb="Two combo inputs with 48 V, line out with digital trim",
        inputs=tuple(
            InputPort(
                id=f"in{number}",
                label=f"in {number}",
                plug=Plug("combo", Gender.FEMALE),
                circuit=Circuit.BALANCED,
                phantom_places=("switch", "menu"),
                phantom_v=PHANTOM,
                automatic_level_places=("menu",),
                low_cut_hz=(80, 120),
                limiter_dbfs=Figure(-3),
                idle_noise_dbfs=Figure(-100),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(4),
                        clip_dbu=Figure(-3), ein_dbu=Figure(-120), gain=Span(7, 60, 1, 30), supplies=(Supply.P48,),
                    ),
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(22),
                        gain=Span(-10, 20, 1, 0),
                    ),
                ),
            )
            for number in (1, 2)
        ),
        outputs=(
            _line_out(
                "line", "line out", JACK_SOCKET, Circuit.UNBALANCED_STEREO, STEREO,
                OutputMode(
                    id="line", label="line", signal=Signal.LINE, source_ohm=about(200), full_scale_dbu=Figure(4), noise_dbu=Figure(-88),
                    trim=Span(-30, 0, 1, 0), trim_kind=TrimKind.DIGITAL,
                ),
            ),
            digital_out("usb", "USB audio", Plug("usb-c", Gender.FEMALE), Circuit.USB),
            headphone_out(4, -80),
        ),
        buses=(
            Bus(id="1", label="1", recorded=True, inputs=("in1",)),
            Bus(id="2", label="2", recorded=True, inputs=("in2",)),
        ),
        feeds={"line.L": "1", "line.R": "2", "usb.L": "1", "usb.R": "2", "phones.L": "1", "phones.R": "2"},
        traits=Traits(sample_rates_hz=(44_100, 48_000, 96_000), tone_dbfs=Figure(-6, 0.0), clock_ppm=about(20), keeps_timecode_when_off=False, power_w=about(2), media="one card", battery_wh=about(8), bits=24, phantom_budget_ma=about(12)),
    ),
    DeviceClass(
        id="bag-recorder",
        label="Bag recorder, eight inputs",
        kind=Kind.RECORDER,
        blurb="Eight XLR inputs, mix left and right, line out with digital trim, timecode",
        inputs=(*_BAG_INPUTS, timecode_in()),
        outputs=(
            _line_out("line", "line out", JACK_SOCKET, Circuit.UNBALANCED_STEREO, STEREO, _BAG_LINE),
            _line_out("out-l", "out L", XLR_OUT, Circuit.BALANCED, ("1",), _BAG_LINE),
            _line_out("out-r", "out R", XLR_OUT, Circuit.BALANCED, ("1",), _BAG_LINE),
            digital_out("aes", "AES3 out", XLR_OUT, Circuit.AES3),
            headphone_out(10, -76.5),
            timecode_out(),
        ),
        buses=(
            *(Bus(id=str(number), label=str(number), recorded=True, inputs=(f"in{number}",)) for number in range(1, 9)),
            Bus(id="mix-l", label="mix L", recorded=True, inputs=_BAG_REFS),
            Bus(id="mix-r", label="mix R", recorded=True, inputs=_BAG_REFS),
        ),
        feeds={
            "line.L": "mix-l", "line.R": "mix-r", "out-l": "mix-l", "out-r": "mix-r",
            "aes.L": "mix-l", "aes.R": "mix-r", "phones.L": "mix-l", "phones.R": "mix-r",
        },
        traits=Traits(
            sample_rates_hz=(48_000, 96_000, 192_000), clock_ppm=about(1), keeps_timecode_when_off=True, power_w=about(9), media="internal and one card, both at once", battery_wh=about(98), bits=24, phantom_budget_ma=about(80),
        ),
    ),
    DeviceClass(
        id="float-recorder",
        label="Body-worn recorder, 32-bit float",
        kind=Kind.RECORDER,
        blurb="One lavalier, two converters, only a digital gain; headphone socket can give timecode",
        inputs=(
            InputPort(
                id="mic",
                label="mic in",
                plug=JACK_SOCKET,
                circuit=Circuit.UNBALANCED,
                digital_gain=Span(-20, 40, 1, 0),
                idle_noise_dbfs=Figure(-130),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(10_000), full_scale_dbu=Figure(-2),
                        clip_dbu=Figure(8), ein_dbu=Figure(-116), supplies=(Supply.PLUG_IN,),
                    ),
                ),
            ),
        ),
        outputs=(
            OutputPort(
                id="phones", label="headphones/timecode", plug=JACK_SOCKET, circuit=Circuit.UNBALANCED_STEREO, channels=STEREO,
                is_headphone=True,
                modes=(
                    OutputMode(id="phones", label="headphones", signal=Signal.LINE, source_ohm=about(32), full_scale_dbu=Figure(0),
                               noise_dbu=Figure(-80), trim=Span(-60, 0, 1, -20)),
                    OutputMode(id="timecode", label="timecode left, sound right", signal=Signal.LINE, source_ohm=about(32),
                               full_scale_dbu=Figure(-6), noise_dbu=Figure(-80), timecode_on="L"),
                ),
            ),
        ),
        buses=(Bus(id="1", label="1", recorded=True, inputs=("mic",)),),
        feeds={"phones.L": "1", "phones.R": "1"},
        traits=Traits(
            sample_rates_hz=(48_000,), clock_ppm=about(1), keeps_timecode_when_off=False, power_w=about(0.4), media="internal", battery_wh=about(4), bits=32, is_float=True,
        ),
    ),
)  # fmt: skip
"""Figures: [HANDBOOK] §12; what it does not name (full scale at 0 dB gain, impedances, power) [MEMORY]"""
