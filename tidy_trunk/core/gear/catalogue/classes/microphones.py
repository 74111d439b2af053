"""Microphones."""

from typing import Final

from tidy_trunk.core.gear.catalogue.classes._parts import JACK_PLUG, STEREO, microphone_out
from tidy_trunk.core.gear.catalogue.connectors import Circuit, Gender, Plug
from tidy_trunk.core.gear.catalogue.devices import Capsule, DeviceClass, Kind, Supply, Traits
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.patterns import Pattern

MICROPHONES: Final = (
    DeviceClass(
        id="boom-shotgun",
        label="Boom shotgun",
        kind=Kind.MICROPHONE,
        blurb="Directional condenser on a boom, 48 V",
        outputs=(microphone_out(150),),
        capsule=Capsule(
            pattern=Pattern.SHOTGUN,
            sensitivity_mv_per_pa=Figure(20),
            self_noise_db_a=Figure(14),
            max_db_spl=Figure(130),
            needs=(Supply.P48,),
            current_ma=about(3),
            harmed_by=(Supply.T_POWER,),
        ),
    ),
    DeviceClass(
        id="lavalier",
        label="Lavalier",
        kind=Kind.MICROPHONE,
        blurb="Small omnidirectional electret on clothing, 3.5 mm plug, 2 to 5 V",
        outputs=(microphone_out(2000, JACK_PLUG, Circuit.UNBALANCED),),
        capsule=Capsule(
            sensitivity_mv_per_pa=Figure(8),
            self_noise_db_a=Figure(26),
            max_db_spl=Figure(120),
            needs=(Supply.PLUG_IN,),
            current_ma=about(0.3),
            harmed_by=(Supply.P48,),
        ),
    ),
    DeviceClass(
        id="dynamic-handheld",
        label="Dynamic handheld",
        kind=Kind.MICROPHONE,
        blurb="Moving coil, needs no power",
        outputs=(microphone_out(300),),
        capsule=Capsule(pattern=Pattern.CARDIOID, sensitivity_mv_per_pa=Figure(1.8), max_db_spl=Figure(150)),
    ),
    DeviceClass(
        id="ribbon",
        label="Ribbon, passive",
        kind=Kind.MICROPHONE,
        blurb="Figure of eight, kept away from phantom power",
        outputs=(microphone_out(300),),
        capsule=Capsule(
            pattern=Pattern.FIGURE_8,
            sensitivity_mv_per_pa=Figure(1.5),
            max_db_spl=Figure(140),
            harmed_by=(Supply.P48, Supply.T_POWER),
        ),
    ),
    DeviceClass(
        id="battery-condenser",
        label="Battery condenser",
        kind=Kind.MICROPHONE,
        blurb="Condenser on 48 V or one cell; the cell has no gauge",
        outputs=(microphone_out(200),),
        capsule=Capsule(
            pattern=Pattern.CARDIOID,
            sensitivity_mv_per_pa=Figure(6),
            self_noise_db_a=Figure(20),
            max_db_spl=Figure(125),
            needs=(Supply.P48,),
            current_ma=about(2),
            cell=True,
            harmed_by=(Supply.T_POWER,),
        ),
        traits=Traits(battery_wh=about(2.0)),
    ),
    DeviceClass(
        id="headset-microphone",
        label="Phone headset microphone",
        kind=Kind.MICROPHONE,
        blurb="Small electret with a headset plug, common order: made for phones, not for cameras",
        outputs=(microphone_out(2000, Plug("trrs35", Gender.MALE), Circuit.UNBALANCED),),
        capsule=Capsule(
            sensitivity_mv_per_pa=Figure(6),
            self_noise_db_a=Figure(30),
            max_db_spl=Figure(115),
            needs=(Supply.PLUG_IN,),
            current_ma=about(0.3),
            harmed_by=(Supply.P48, Supply.T_POWER),
        ),
    ),
    DeviceClass(
        id="t-power-shotgun",
        label="Boom shotgun, T-power",
        kind=Kind.MICROPHONE,
        blurb="Old directional condenser, 12 V between the legs: not for 48 V",
        outputs=(microphone_out(150),),
        capsule=Capsule(
            pattern=Pattern.SHOTGUN,
            sensitivity_mv_per_pa=Figure(18),
            self_noise_db_a=Figure(16),
            max_db_spl=Figure(124),
            needs=(Supply.T_POWER,),
            current_ma=about(5),
            harmed_by=(Supply.P48,),
        ),
    ),
    DeviceClass(
        id="on-camera-microphone",
        label="On-camera microphone",
        kind=Kind.MICROPHONE,
        blurb="Short directional microphone in the camera's shoe, own cell, 3.5 mm plug",
        outputs=(microphone_out(200, JACK_PLUG, Circuit.UNBALANCED_STEREO, STEREO),),
        capsule=Capsule(
            pattern=Pattern.SUPERCARDIOID,
            sensitivity_mv_per_pa=Figure(12),
            self_noise_db_a=Figure(18),
            max_db_spl=Figure(120),
            cell=True,
            pads_db=(10.0,),
        ),
        traits=Traits(battery_wh=about(2.0)),
    ),
)
"""Figures: [HANDBOOK] §12, except headset, T-power and the largest sound pressure of dynamic, ribbon, battery and on-camera [MEMORY]"""
