"""What the devices of the bench really are: near what their class says, and not the same, as devices are."""

import zlib
from dataclasses import replace
from typing import Final

from tidy_trunk.core.catalogue import Figure, Provenance, figures_of
from tidy_trunk.core.plan import Plan, Rig

STRAYING: Final = frozenset({"full_scale_dbu", "ein_dbu", "noise_dbu", "noise_after_dbu", "idle_noise_dbfs"})
"""ASSUMED_ figures in which one device differs from the next of its class: levels, all in decibels."""

FURTHEST: Final = 0.8
"""ASSUMED_ share of its tolerance by which a figure strays at most: a class promises no more than it keeps."""


def truth(plan: Plan) -> Plan:
    """The plan with each device as it really is on the bench: always the same for one device, whatever is thought of it.

    What was found by lining up is left out of it: the bench is what one lines up.
    """
    rig = Rig(plan)
    devices = {}
    for device_id, device in plan.devices.items():
        base = rig.class_of(device.class_id)
        strayed = {
            named.path: _strayed(device_id, named.path, named.figure)
            for named in figures_of(base)
            if named.path.rsplit(".", 1)[-1] in STRAYING
        }
        devices[device_id] = replace(device, figures={**device.figures, **strayed})
    return replace(plan, devices=devices, line_ups={})


def _strayed(device_id: str, path: str, figure: Figure) -> Figure:
    share = zlib.crc32(f"{device_id} {path}".encode()) / 0xFFFF_FFFF * 2 - 1
    value = round(figure.value + share * FURTHEST * figure.tolerance, 2)
    return Figure(value, figure.tolerance, Provenance.TYPICAL, figure.source)
