"""Mixers and preamp boxes: they record nothing themselves. Their bus is counted down from its own clip point."""

from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import JACK_SOCKET, PHANTOM, STEREO, XLR_IN, XLR_OUT, headphone_out
from tidy_trunk.core.gear.catalogue.connectors import Circuit, Gender, Plug
from tidy_trunk.core.gear.catalogue.devices import (
    Bus,
    DeviceClass,
    Feeding,
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

_MIXER_REFS = ("in1", "in2", "in3", "in4")
_MIXER_OUT_MODES = (
    OutputMode(
        id="line",
        label="line +4 dBu",
        signal=Signal.LINE,
        source_ohm=about(100),
        full_scale_dbu=Figure(22, 1),
        noise_dbu=Figure(-88),
    ),
    OutputMode(
        id="mic",
        label="mic",
        signal=Signal.MIC,
        source_ohm=about(150),
        full_scale_dbu=Figure(-18, 1),
        noise_dbu=Figure(-125),
    ),
)


def _shoe_modes() -> tuple[InputMode, ...]:
    def mic(gain_id: str, label: str, full_scale_dbu: float) -> InputMode:
        return InputMode(
            id=gain_id, label=label, signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(full_scale_dbu),
            clip_dbu=Figure(full_scale_dbu + 6), ein_dbu=Figure(-122), gain=Span(-20, 20, 1, 0), supplies=(Supply.P48,),
        )  # fmt: skip

    line = InputMode(
        id="line",
        label="line",
        signal=Signal.LINE,
        impedance_ohm=about(10_000),
        full_scale_dbu=Figure(22),
        gain=Span(-20, 20, 1, 0),
    )
    return (
        mic("mic", "mic, gain 0", -30),
        mic("mic-minus", "mic, gain -20", -10),
        mic("mic-plus", "mic, gain +20", -50),
        line,
    )


MIXERS: Final = (
    DeviceClass(
        id="field-mixer",
        label="Field mixer with meters and tone",
        kind=Kind.MIXER,
        blurb="Four inputs, limiters, tone, outputs at line or mic",
        inputs=tuple(
            InputPort(
                id=ref,
                label=f"in {ref[-1]}",
                plug=XLR_IN,
                circuit=Circuit.BALANCED,
                phantom_places=("switch",),
                phantom_v=PHANTOM,
                low_cut_hz=(80, 160),
                limiter_dbfs=Figure(-3),
                pan=("mix-l", "mix-r"),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(2_000), full_scale_dbu=Figure(22),
                        clip_dbu=Figure(0), ein_dbu=Figure(-126), gain=Span(15, 75, 1, 45), supplies=(Supply.P48,),
                    ),
                    InputMode(
                        id="mic-t", label="mic, T-power", signal=Signal.MIC, impedance_ohm=about(2_000), full_scale_dbu=Figure(22),
                        clip_dbu=Figure(0), ein_dbu=Figure(-126), gain=Span(15, 75, 1, 45), supplies=(Supply.T_POWER,),
                    ),
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(22),
                        gain=Span(-20, 20, 1, 0),
                    ),
                ),
            )
            for ref in _MIXER_REFS
        ),
        outputs=(
            OutputPort(id="out-l", label="out L", plug=XLR_OUT, circuit=Circuit.BALANCED, modes=_MIXER_OUT_MODES),
            OutputPort(id="out-r", label="out R", plug=XLR_OUT, circuit=Circuit.BALANCED, modes=_MIXER_OUT_MODES),
            OutputPort(
                id="multi", label="multi-pin out", plug=Plug("multi", Gender.MALE), circuit=Circuit.BALANCED_STEREO, channels=STEREO,
                modes=_MIXER_OUT_MODES,
            ),
            headphone_out(14, -82),
        ),
        buses=(
            Bus(id="mix-l", label="mix L", recorded=False, inputs=_MIXER_REFS),
            Bus(id="mix-r", label="mix R", recorded=False, inputs=_MIXER_REFS),
        ),
        feeds={"out-l": "mix-l", "out-r": "mix-r", "multi.L": "mix-l", "multi.R": "mix-r", "phones.L": "mix-l", "phones.R": "mix-r"},
        traits=Traits(power_w=about(4), battery_wh=about(20), phantom_budget_ma=about(30)),
    ),
    DeviceClass(
        id="preamp-box",
        label="Preamp box for a camera shoe",
        kind=Kind.PREAMP,
        blurb="Two XLR inputs with 48 V, 3.5 mm out at microphone level",
        inputs=tuple(
            InputPort(
                id=f"in{number}",
                label=f"in {number}",
                plug=Plug("combo", Gender.FEMALE),
                circuit=Circuit.BALANCED,
                phantom_places=("switch",),
                phantom_v=PHANTOM,
                limiter_dbfs=Figure(-3),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(10),
                        clip_dbu=Figure(-5), ein_dbu=Figure(-123), gain=Span(10, 60, 1, 30), supplies=(Supply.P48,),
                    ),
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(22),
                        gain=Span(-10, 10, 1, 0),
                    ),
                ),
            )
            for number in (1, 2)
        ),
        outputs=(
            OutputPort(
                id="out", label="camera out", plug=JACK_SOCKET, circuit=Circuit.UNBALANCED_STEREO, channels=STEREO,
                modes=(
                    OutputMode(id="mic", label="mic", signal=Signal.MIC, source_ohm=about(150), full_scale_dbu=Figure(-10),
                               noise_dbu=Figure(-110), noise_after_dbu=Figure(-122), trim=Span(-30, 0, 1, 0), trim_kind=TrimKind.ANALOGUE),
                ),
            ),
            headphone_out(6, -84),
        ),
        buses=(
            Bus(id="L", label="L", recorded=False, inputs=("in1",)),
            Bus(id="R", label="R", recorded=False, inputs=("in2",)),
        ),
        feeds={"out.L": "L", "out.R": "R", "phones.L": "L", "phones.R": "R"},
        traits=Traits(power_w=about(1.5), battery_wh=about(6), phantom_budget_ma=about(7)),
    ),
    DeviceClass(
        id="inline-amplifier",
        label="Inline amplifier, 20 dB",
        kind=Kind.PREAMP,
        blurb="In the cable of a dynamic or ribbon: lives on the 48 V of the input behind it, and lets none through",
        inputs=(
            InputPort(
                id="in", label="in", plug=XLR_IN, circuit=Circuit.BALANCED,
                modes=(InputMode(id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(10_000), full_scale_dbu=Figure(-12), ein_dbu=Figure(-127)),),
            ),
        ),
        outputs=(
            OutputPort(
                id="out", label="out", plug=XLR_OUT, circuit=Circuit.BALANCED,
                modes=(OutputMode(id="mic", label="mic", signal=Signal.MIC, source_ohm=about(150), full_scale_dbu=Figure(8)),),
            ),
        ),
        buses=(Bus(id="out", label="out", recorded=False, inputs=("in",)),),
        feeds={"out": "out"},
        booster=Feeding(needs=(Supply.P48,), current_ma=about(3), harmed_by=(Supply.T_POWER,)),
    ),
    DeviceClass(
        id="shoe-adapter",
        label="Camera hot-shoe XLR adapter",
        kind=Kind.PREAMP,
        blurb="Two combo inputs, mic, line and 48 V, digital through the shoe",
        inputs=tuple(
            InputPort(
                id=f"in{number}",
                label=f"in {number}",
                plug=Plug("combo", Gender.FEMALE),
                circuit=Circuit.BALANCED,
                phantom_places=("switch",),
                phantom_v=PHANTOM,
                linked_to=("in2",) if number == 1 else (),
                automatic_level_places=("switch",),
                low_cut_hz=(16, 160),
                idle_noise_dbfs=Figure(-96),
                modes=_shoe_modes(),
            )
            for number in (1, 2)
        ),
        outputs=(
            OutputPort(
                id="shoe", label="shoe", plug=Plug("shoe", Gender.MALE), circuit=Circuit.HDMI, channels=STEREO,
                modes=(OutputMode(id="digital", label="digital", signal=Signal.DIGITAL),),
            ),
        ),
        buses=(
            Bus(id="L", label="1", recorded=False, inputs=("in1",)),
            Bus(id="R", label="2", recorded=False, inputs=("in2",)),
        ),
        feeds={"shoe.L": "L", "shoe.R": "R"},
    ),
)  # fmt: skip
"""Figures: [HANDBOOK] §12; gains, impedances and the preamp box [MEMORY]"""
