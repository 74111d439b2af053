"""Plans of older versions, brought to the shape of today: one step for each version, from dict to dict."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any, Final

from tidy_trunk.core.gear.catalogue import built_in, with_figures
from tidy_trunk.core.plan import drawn_lead
from tidy_trunk.document.models import SCHEMA_VERSION, FigureModel
from tidy_trunk.equipment import CableClassModel, DeviceClassModel
from tidy_trunk.errors import FormatError, NewerSchemaError

Raw = dict[str, Any]


def brought_up(raw: Raw) -> Raw:
    """A plan in the shape of today; the one given is left as it is. A plan that states no version is of today.

    Raises:
        FormatError: A version that is no whole number, or below 1.
        NewerSchemaError: A version that this program does not know yet.
    """
    version = raw.get("schema_version", SCHEMA_VERSION)
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise FormatError(f"schema_version must be a whole number from 1 on, not {version!r}")
    if version > SCHEMA_VERSION:
        raise NewerSchemaError(
            f"this plan has schema version {version}; this program reads up to {SCHEMA_VERSION}: update the program"
        )
    for step in range(version, SCHEMA_VERSION):
        raw = {**_STEPS[step](raw), "schema_version": step + 1}
    return raw


def _own_leads_and_paths(raw: Raw) -> Raw:
    """1 → 2: leads of one's own, paths, strain relief and what happens only once came in; none of them was there.

    Audio settings kept their names. AES3 runs by plain XLR leads stay what they were: the checks now say so.
    """
    return {"leads": [], **raw}


def _bursts(raw: Raw) -> Raw:
    """2 → 3: what comes unannounced came in; it was nowhere stated, so it is taken as 10 dB above the peaks."""
    sources = raw.get("sources", [])
    if not isinstance(sources, list):
        return raw
    return {**raw, "sources": [_with_burst(source) for source in sources]}


def _with_burst(source: Any) -> Any:
    peak = source.get("peak_db_spl") if isinstance(source, dict) else None
    return source if not isinstance(peak, int | float) else {"burst_db_spl": peak + 10, **source}


def _targets_and_rumble(raw: Raw) -> Raw:
    """3 → 4: targets of one's own, what a track is kept for, rumble and angles came in; none of them was there."""
    return {"targets": [], **raw}


def _line_ups(raw: Raw) -> Raw:
    """4 → 5: what was found when a chain was lined up came in; nothing had been."""
    return {"line_ups": [], **raw}


def _measured(raw: Raw) -> Raw:
    """5 → 6: what was measured of knobs and meters came in; nothing had been."""
    return {"gain_laws": [], "meters": [], **raw}


def _clocks(raw: Raw) -> Raw:
    """6 → 7: the day, its breaks, jams and measured pairs of clocks came in; none of them was there."""
    return {"breaks": [], "pair_drifts": [], **raw}


def _weighting(raw: Raw) -> Raw:
    """7 → 8: what a source's levels are stated in came in; they had been asked for A-weighted, and are that now."""
    sources = raw.get("sources", [])
    if not isinstance(sources, list):
        return raw
    return {**raw, "sources": [{"weighting": "A", **item} if isinstance(item, dict) else item for item in sources]}


def _whole_classes(raw: Raw) -> Raw:
    """8 → 9: a class of the user's own was one that is built in with other figures; it is described whole now."""
    classes = raw.get("classes", [])
    if not isinstance(classes, list):
        return raw
    return {**raw, "classes": [_whole(item) if isinstance(item, dict) else item for item in classes]}


def _whole(own: Raw) -> Raw:
    base = built_in().devices.get(str(own.get("base")))
    if base is None:
        raise FormatError(f"class '{own.get('id')}': there is no class '{own.get('base')}' that it could be a copy of")
    figures = {path: FigureModel.model_validate(figure).to_core() for path, figure in own.get("figures", {}).items()}
    item = replace(with_figures(base, figures), id=str(own.get("id")), label=str(own.get("label")))
    return DeviceClassModel.from_core(item).model_dump(mode="json", exclude_defaults=True)


def _whole_cables(raw: Raw) -> Raw:
    """9 → 10: of a cable of the user's own its contacts were kept; it is described whole now."""
    leads = raw.get("leads", [])
    if not isinstance(leads, list):
        return raw
    return {**raw, "leads": [_whole_cable(item) if isinstance(item, dict) else item for item in leads]}


def _whole_cable(own: Raw) -> Raw:
    written = CableClassModel.model_validate({**own, "balanced": False}).to_core()
    item = drawn_lead(
        id=written.id,
        label=written.label,
        sending=written.sending,
        receiving=written.receiving,
        ways=written.ways,
        short_m=written.short_m,
    )
    return CableClassModel.from_core(item).model_dump(mode="json", exclude_defaults=True)


def _shooting(raw: Raw) -> Raw:
    """10 → 11: set-ups, takes and company moves came in; none was planned."""
    return {"set_ups": [], "moves": [], **raw}


def _crew_and_heat(raw: Raw) -> Raw:
    """11 → 12: names of the crew, and how long a camera records before it gets too hot; nobody had said either."""
    return raw


_FORMER: Final[Mapping[str, Mapping[str, str]]] = {
    "power": {"wall adapter": "wall-adapter", "computer USB": "computer-usb", "USB charger": "usb-charger"},
    "what": {"beside mains": "beside-mains", "across mains": "across-mains", "LED driver": "led-driver"},
    "read_from": {"bench": "simulation"},
}
"""Values of a device's power, of what a path passes and of where a reading comes from, as they were until version 12."""


def _slugs(raw: Raw) -> Raw:
    """12 → 13: values became slugs; those of classes are read under both names."""
    return {name: _with_slugs(name, value) for name, value in raw.items()}


def _with_slugs(name: str, value: Any) -> Any:
    if isinstance(value, str):
        return _FORMER.get(name, {}).get(value, value)
    if isinstance(value, dict):
        return {key: _with_slugs(key, item) for key, item in value.items()}
    return [_with_slugs(name, item) for item in value] if isinstance(value, list) else value


_STEPS: Final[Mapping[int, Callable[[Raw], Raw]]] = {
    1: _own_leads_and_paths,
    2: _bursts,
    3: _targets_and_rumble,
    4: _line_ups,
    5: _measured,
    6: _clocks,
    7: _weighting,
    8: _whole_classes,
    9: _whole_cables,
    10: _shooting,
    11: _crew_and_heat,
    12: _slugs,
}
