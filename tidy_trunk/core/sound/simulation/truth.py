"""What the devices of the simulation really are: near what their class says, and not the same, as devices are."""

import zlib
from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from tidy_trunk.core.gear.catalogue import (
    ControlKind,
    DeviceKind,
    Figure,
    LawPoint,
    Provenance,
    controls_of,
    figures_of,
)
from tidy_trunk.core.plan import GainLaw, Plan, PlanIndex, ReadFrom

STRAYING: Final = frozenset(
    {"full_scale_dbu", "ein_dbu", "noise_dbu", "noise_after_dbu", "idle_noise_dbfs", "bleed_db"}
)
"""ASSUMED_ figures in which one device differs from the next of its class: levels, all in decibels."""

TURNED_BY_HAND: Final = frozenset({DeviceKind.CAMERA, DeviceKind.PREAMP})
"""ASSUMED_ kinds of device of which the gain is not what is written beside it; measured knobs of recorders keep to it."""

BENT_BY: Final = 0.05
"""ASSUMED_ share by which such a knob gives more or less for a mark than it says, at most."""

FURTHEST: Final = 0.8
"""ASSUMED_ share of its tolerance by which a figure strays at most: a class promises no more than it keeps."""


def truth(plan: Plan) -> Plan:
    """The plan with each device as it really is in the simulation: always the same for one device, whatever is thought of it.

    What was found by lining up, and measured of knobs and meters, is left out of it: the simulation is what one measures.
    """
    index = PlanIndex(plan)
    devices = {}
    for device_id, device in plan.devices.items():
        base = index.class_of(device.class_id)
        strayed = {
            named.path: _strayed(device_id, named.path, named.figure)
            for named in figures_of(base)
            if named.path.rsplit(".", 1)[-1] in STRAYING
        }
        devices[device_id] = replace(device, figures={**device.figures, **strayed})
    laws = {law.key: law for class_id in _classes(plan) for law in _laws(index, class_id)}
    return replace(plan, devices=devices, line_ups={}, gain_laws=laws, meters={})


def _classes(plan: Plan) -> tuple[str, ...]:
    return tuple(dict.fromkeys(device.class_id for device in plan.devices.values()))


def _laws(index: PlanIndex, class_id: str) -> Iterator[GainLaw]:
    """What the knobs of a class really give: right in their middle, and a little more or less to either side."""
    device = index.class_of(class_id)
    if device.kind not in TURNED_BY_HAND:
        return
    for control in controls_of(device).values():
        if control.span is None or control.kind is not ControlKind.KNOB:
            continue
        low, high = control.span.minimum_db, control.span.maximum_db
        middle, slope = (low + high) / 2, 1 + BENT_BY * _share(f"{class_id} {control.id}")
        points = tuple(LawPoint(position, round(middle + slope * (position - middle), 3)) for position in (low, high))
        yield GainLaw(class_id=class_id, control=control.id, points=points, read_from=ReadFrom.SIMULATION, when=NEVER)


NEVER: Final = "2000-01-01"
"""ASSUMED_ date of what nobody has measured: it is the simulation itself."""

COARSE_DB: Final = 2.0
"""ASSUMED_ step of a camera's meter. [PRACTICE]: coarse"""

FINE_DB: Final = 0.5
"""ASSUMED_ step in which any other meter is read."""

METER_OFF_DB: Final = 3.0
"""ASSUMED_ furthest that a camera's meter shows something else than it records."""


def meter_shows_dbfs(plan: Plan, device_id: str, level_dbfs: float) -> float:
    """What the meter of a device in the simulation shows for a level: those of cameras are coarse, and a little wrong."""
    index = PlanIndex(plan)
    placed = index.placed(device_id)
    is_camera = placed.device_class.kind is DeviceKind.CAMERA
    off_db = METER_OFF_DB * _share(f"{placed.device.class_id} meter") if is_camera else 0.0
    step_db = COARSE_DB if is_camera else FINE_DB
    return round((level_dbfs + off_db) / step_db) * step_db


def _share(name: str) -> float:
    """From -1 to 1, by chance, and always the same for one name."""
    return zlib.crc32(name.encode()) / 0xFFFF_FFFF * 2 - 1


def _strayed(device_id: str, path: str, figure: Figure) -> Figure:
    value = round(figure.value + _share(f"{device_id} {path}") * FURTHEST * figure.tolerance, 2)
    return Figure(value, figure.tolerance, Provenance.TYPICAL, figure.source)
