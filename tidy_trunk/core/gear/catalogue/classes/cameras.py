"""Cameras: each with the one thing about its sound input that spoils or saves a recording."""

from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import (
    JACK_SOCKET,
    PHANTOM,
    STEREO,
    XLR_IN,
    digital_in,
    digital_out,
    genlock_in,
    headphone_out,
    timecode_in,
)
from tidy_trunk.core.gear.catalogue.connectors import Circuit, Gender, Plug
from tidy_trunk.core.gear.catalogue.devices import (
    Bus,
    DeviceClass,
    InputMode,
    InputPort,
    Kind,
    PadPlace,
    Signal,
    Supply,
    Traits,
)
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.span import Span

_HDMI_OUT = digital_out("hdmi", "HDMI out", Plug("hdmi", Gender.FEMALE), Circuit.HDMI)
_LEFT_RIGHT = (
    Bus(id="L", label="L", recorded=True, inputs=("mic.L",)),
    Bus(id="R", label="R", recorded=True, inputs=("mic.R",)),
)
_SMALL_CAMERA_TRAITS = Traits(
    sample_rates_hz=(48_000,), clock_ppm=about(30), keeps_timecode_when_off=False, picture_delay_frames=about(5), power_w=about(7), battery_wh=about(16),
    clip_limit_min=about(30), bits=16, media="one card",
    meters="coarse, in steps of several dB: measure the file",
)  # fmt: skip

_SPREAD_DB: Final = 3.5
"""± of a microphone socket's full scale: one camera wanted −20.5 dB of trim for the tone of a recorder, another −17. [PRACTICE]"""

_SMALL_MIC_MODE = InputMode(
    id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(2_500),
    # -10.5 dBu is full scale one step above the lowest gain, and what the input stage takes at any gain.
    full_scale_dbu=Figure(-9, _SPREAD_DB), clip_dbu=Figure(-10.5, _SPREAD_DB), ein_dbu=Figure(-108), gain=Span(0, 46.5, 1.5, 1.5),
    supplies=(Supply.PLUG_IN,),
)  # fmt: skip
_SMALL_LINE_MODE = InputMode(
    id="line",
    label="line",
    signal=Signal.LINE,
    impedance_ohm=about(10_000),
    full_scale_dbu=Figure(6, 2),
    gain=Span(-6, 12, 1.5, 0),
)


def _small_socket(modes: tuple[InputMode, ...], *, pad: PadPlace | None = None) -> InputPort:
    return InputPort(
        id="mic",
        label="mic socket",
        plug=JACK_SOCKET,
        circuit=Circuit.UNBALANCED_STEREO,
        channels=STEREO,
        plug_in_places=("menu",),
        automatic_level_places=("menu",),
        automatic_level_default=True,
        idle_noise_dbfs=Figure(-73),
        pad_db=None if pad is None else Figure(20, 1),
        pad_place=pad or PadPlace.FIRST,
        modes=modes,
    )


CAMERAS: Final = (
    DeviceClass(
        id="mirrorless-mic",
        label="Mirrorless camera, microphone socket only",
        kind=Kind.CAMERA,
        blurb="One 3.5 mm microphone socket, automatic level when new, no headphones",
        inputs=(_small_socket((_SMALL_MIC_MODE,)),),
        outputs=(_HDMI_OUT,),
        buses=_LEFT_RIGHT,
        feeds={"hdmi.L": "L", "hdmi.R": "R"},
        traits=_SMALL_CAMERA_TRAITS,
    ),
    *(
        DeviceClass(
            id=class_id,
            label=f"Mirrorless camera, attenuator {place}",
            kind=Kind.CAMERA,
            blurb=blurb,
            inputs=(_small_socket((_SMALL_MIC_MODE,), pad=place),),
            outputs=(_HDMI_OUT,),
            buses=_LEFT_RIGHT,
            feeds={"hdmi.L": "L", "hdmi.R": "R"},
            traits=_SMALL_CAMERA_TRAITS,
        )
        for class_id, place, blurb in (
            ("mirrorless-pad-first", PadPlace.FIRST, "One 3.5 mm microphone socket; its 20 dB attenuator saves the input"),
            (
                "mirrorless-pad-between",
                PadPlace.BETWEEN,
                "One 3.5 mm microphone socket; its 20 dB attenuator saves the converter, not the first stage",
            ),
            (
                "mirrorless-pad-behind",
                PadPlace.LAST,
                "One 3.5 mm microphone socket; its 20 dB attenuator acts on the file, too late to save the input",
            ),
        )
    ),
    DeviceClass(
        id="mirrorless-line",
        label="Mirrorless camera, mic/line switch and headphones",
        kind=Kind.CAMERA,
        blurb="3.5 mm socket for mic or line, headphone socket, digital shoe",
        inputs=(
            _small_socket((_SMALL_MIC_MODE, _SMALL_LINE_MODE)),
            digital_in("shoe", "shoe", Plug("shoe", Gender.FEMALE), Circuit.HDMI, blocks=("mic",)),
        ),
        outputs=(headphone_out(2, -78), _HDMI_OUT),
        buses=(
            Bus(id="L", label="L", recorded=True, inputs=("mic.L", "shoe.L")),
            Bus(id="R", label="R", recorded=True, inputs=("mic.R", "shoe.R")),
        ),
        feeds={"phones.L": "L", "phones.R": "R", "hdmi.L": "L", "hdmi.R": "R"},
        traits=_SMALL_CAMERA_TRAITS,
    ),
    DeviceClass(
        id="mirrorless-four-track",
        label="Mirrorless camera, four-track mode with a shoe adapter",
        kind=Kind.CAMERA,
        blurb="Digital shoe on tracks 1 and 2; its own 3.5 mm socket on 3 and 4, only in four-track mode",
        inputs=(
            _small_socket((_SMALL_MIC_MODE, _SMALL_LINE_MODE)),
            digital_in("shoe", "shoe", Plug("shoe", Gender.FEMALE), Circuit.HDMI),
        ),
        outputs=(headphone_out(2, -78), _HDMI_OUT),
        buses=(
            Bus(id="1", label="1", recorded=True, inputs=("shoe.L",)),
            Bus(id="2", label="2", recorded=True, inputs=("shoe.R",)),
            Bus(id="3", label="3", recorded=True, inputs=("mic.L",), needs_four_tracks=True),
            Bus(id="4", label="4", recorded=True, inputs=("mic.R",), needs_four_tracks=True),
        ),
        feeds={"phones.L": "1", "phones.R": "2", "hdmi.L": "1", "hdmi.R": "2"},
        traits=_SMALL_CAMERA_TRAITS,
    ),
    DeviceClass(
        id="phone-camera",
        label="Phone as a camera, headset socket",
        kind=Kind.CAMERA,
        blurb="One headset socket (TRRS), where a cable for a camera brings nothing, or USB-C",
        inputs=(
            InputPort(
                id="headset",
                label="headset socket",
                plug=Plug("trrs35", Gender.FEMALE),
                circuit=Circuit.UNBALANCED,
                plug_in_places=("app",),
                automatic_level_places=("app",),
                automatic_level_default=True,
                idle_noise_dbfs=Figure(-76),
                modes=(
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(2_200), full_scale_dbu=Figure(-18),
                        clip_dbu=Figure(-18), ein_dbu=Figure(-106), gain=Span(0, 30, 1, 10), supplies=(Supply.PLUG_IN,),
                    ),
                ),
            ),
            digital_in("usb", "USB-C", Plug("usb-c", Gender.FEMALE), Circuit.USB, blocks=("headset",)),
        ),
        buses=(Bus(id="1", label="1", recorded=True, inputs=("headset", "usb.L")),),
        traits=Traits(
            sample_rates_hz=(44_100, 48_000), clock_ppm=about(20), keeps_timecode_when_off=False, power_w=about(3), battery_wh=about(15),
            bits=16, media="internal",
        ),
    ),
    DeviceClass(
        id="shoulder-camcorder",
        label="Shoulder camcorder, two XLR and built-in pair",
        kind=Kind.CAMERA,
        blurb="Two XLR inputs, line level chosen in a menu, built-in pair on tracks 3 and 4",
        inputs=(
            *(
                InputPort(
                    id=f"in{number}",
                    label=f"in {number}",
                    plug=XLR_IN,
                    circuit=Circuit.BALANCED,
                    phantom_places=("switch",),
                    phantom_v=PHANTOM,
                    automatic_level_places=("switch", "menu"),
                    automatic_level_default=True,
                    low_cut_hz=(80,),
                    limiter_dbfs=Figure(-3),
                    idle_noise_dbfs=Figure(-90),
                    modes=(
                        InputMode(
                            id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(-22, 2),
                            clip_dbu=Figure(-20, 2), ein_dbu=Figure(-120), gain=Span(0, 38, 1, 10), supplies=(Supply.P48,),
                        ),
                        InputMode(
                            id="line4", label="line +4 dBu", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(24, 1),
                            gain=Span(-6, 12, 1, 0),
                        ),
                        InputMode(
                            id="line0", label="line 0 dB", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(12, 1),
                            gain=Span(-6, 12, 1, 0),
                        ),
                    ),
                )
                for number in (1, 2)
            ),
            InputPort(
                id="built-in",
                label="built-in pair",
                plug=Plug("inside", Gender.MALE),
                circuit=Circuit.UNBALANCED_STEREO,
                channels=STEREO,
                automatic_level_places=("menu",),
                automatic_level_default=True,
                modes=(InputMode(id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(-40)),),
            ),
            timecode_in(),
            genlock_in(),
        ),
        outputs=(headphone_out(4, -80), _HDMI_OUT),
        buses=(
            Bus(id="1", label="1", recorded=True, inputs=("in1",)),
            Bus(id="2", label="2", recorded=True, inputs=("in2",)),
            Bus(id="3", label="3", recorded=True, inputs=("built-in.L",)),
            Bus(id="4", label="4", recorded=True, inputs=("built-in.R",)),
        ),
        feeds={"phones.L": "1", "phones.R": "2", "hdmi.L": "1", "hdmi.R": "2"},
        traits=Traits(
            sample_rates_hz=(48_000,), clock_ppm=about(5), keeps_timecode_when_off=True, picture_delay_frames=about(2), power_w=about(20), battery_wh=about(95),
            bits=24, media="two cards, one after the other or both at once",
        ),
    ),
    DeviceClass(
        id="cinema-xlr5",
        label="Cinema camera, XLR-5",
        kind=Kind.CAMERA,
        blurb="One XLR-5 for two channels at mic, line or AES3; 48 V in switch and menu",
        inputs=(
            InputPort(
                id="in",
                label="XLR-5 in",
                plug=Plug("xlr5", Gender.FEMALE),
                circuit=Circuit.BALANCED_STEREO,
                channels=("1", "2"),
                phantom_places=("switch", "menu"),
                phantom_v=PHANTOM,
                automatic_level_places=("menu",),
                low_cut_hz=(80,),
                limiter_dbfs=Figure(-3),
                idle_noise_dbfs=Figure(-100),
                modes=(
                    InputMode(
                        id="line", label="line", signal=Signal.LINE, impedance_ohm=about(10_000), full_scale_dbu=Figure(24, 1),
                        gain=Span(-12, 24, 0.5, 0),
                    ),
                    InputMode(
                        id="mic", label="mic", signal=Signal.MIC, impedance_ohm=about(3_000), full_scale_dbu=Figure(-16, 2),
                        clip_dbu=Figure(-14, 2), ein_dbu=Figure(-120), gain=Span(0, 48, 0.5, 12), supplies=(Supply.P48,),
                    ),
                    InputMode(id="aes3", label="AES3", signal=Signal.DIGITAL, impedance_ohm=about(110)),
                ),
            ),
            timecode_in(),
            genlock_in(),
        ),
        outputs=(headphone_out(4, -80), _HDMI_OUT, digital_out("sdi", "SDI out", Plug("bnc", Gender.FEMALE), Circuit.SDI)),
        buses=(
            Bus(id="1", label="1", recorded=True, inputs=("in.1",)),
            Bus(id="2", label="2", recorded=True, inputs=("in.2",)),
        ),
        feeds={"phones.L": "1", "phones.R": "2", "hdmi.L": "1", "hdmi.R": "2", "sdi.L": "1", "sdi.R": "2"},
        traits=Traits(
            sample_rates_hz=(48_000,), clock_ppm=about(5), keeps_timecode_when_off=True, picture_delay_frames=about(3), sdi_delay_frames=about(3), power_w=about(60), battery_wh=about(150),
            bits=24, media="two cards, one after the other or both at once",
        ),
    ),
)  # fmt: skip
"""Figures: [HANDBOOK] §12; impedances, knob ranges, phone, camcorder and cinema first stages [MEMORY]"""
