"""Classes as TOML: read, with what is wrong and where in one message, and written."""

import json
import tomllib
from collections.abc import Mapping, Sequence
from difflib import get_close_matches
from typing import Any, Final, Literal, TypeVar

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    Circuit,
    DeviceClass,
    DeviceKind,
    Drive,
    InputMode,
    LeadClass,
    PadPlace,
    Pattern,
    Supply,
    ToneTrigger,
)
from tidy_trunk.equipment.models import (
    BusModel,
    DeviceClassModel,
    EquipmentModel,
    InputModeModel,
    InputPortModel,
    OutputPortModel,
    WrittenCableModel,
)
from tidy_trunk.equipment.titles import TITLES, title_of
from tidy_trunk.errors import FormatError

LARGEST_CLASS_BYTES: Final = 256 * 1024
"""ASSUMED_ largest file of one class: the largest built-in one takes five kilobytes."""

MOST_REPEATS: Final = 32
"""ASSUMED_ most sockets that are alike."""

_M = TypeVar("_M", bound=EquipmentModel)


def read_class(data: bytes, name: str) -> DeviceClass | LeadClass:
    """The class in a file: a cable where it has ways, else a device. `name`: what the file is called, for messages.

    Raises:
        FormatError: Too large, no text, no TOML, or a field that is missing, unknown or cannot be.
    """
    raw = _parsed(data, name)
    return read_cable(data, name) if "ways" in raw else read_device(data, name)


def read_document(raw: Mapping[str, Any], name: str) -> DeviceClass | LeadClass:
    """As `read_class`, from values that have been parsed."""
    model = WrittenCableModel if "ways" in raw else DeviceClassModel
    found: DeviceClass | LeadClass = _checked(model, raw, name).to_core()
    return found


def read_mode(raw: Mapping[str, Any]) -> InputMode:
    """One position of an input, from its values. Raises FormatError."""
    found: InputMode = _checked(InputModeModel, raw, "this position").to_core()
    return found


def mode_document(mode: InputMode) -> dict[str, Any]:
    """One position of an input as the values of a file."""
    found: dict[str, Any] = _shortened(InputModeModel.from_core(mode).model_dump(mode="json", exclude_defaults=True))
    return found


def document_of(item: DeviceClass | LeadClass) -> dict[str, Any]:
    """A class as the values of its file; what stands at its default is left out."""
    model = DeviceClassModel if isinstance(item, DeviceClass) else WrittenCableModel
    found: dict[str, Any] = _shortened(model.from_core(item).model_dump(mode="json", exclude_defaults=True))
    return found


def read_device(data: bytes, name: str) -> DeviceClass:
    """As `read_class`, of a device."""
    found: DeviceClass = _checked(DeviceClassModel, _written_out(_parsed(data, name), name), name).to_core()
    return found


def read_cable(data: bytes, name: str) -> LeadClass:
    """As `read_class`, of a cable."""
    found: LeadClass = _checked(WrittenCableModel, _parsed(data, name), name).to_core()
    return found


def _parsed(data: bytes, name: str) -> Mapping[str, Any]:
    if len(data) > LARGEST_CLASS_BYTES:
        raise FormatError(
            f"{name}: a class has at most {LARGEST_CLASS_BYTES // 1024} kB, this file has {len(data) / 1024:,.0f} kB: is it the right file?"
        )
    try:
        return tomllib.loads(data.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise FormatError(
            f"{name}: this is not text: byte {error.start} is not UTF-8. Is it the right file?"
        ) from error
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        raise FormatError(f"{name}: this is not TOML: {error}") from error


def _written_out(raw: Mapping[str, Any], name: str) -> Mapping[str, Any]:
    """Sockets and tracks that are alike may be written once: `repeat = 8` stands for eight, and `#` for their numbers."""
    alike = ("inputs", "outputs", "buses")
    return {
        key: _repeated(value, f"{name}: {key}") if key in alike and isinstance(value, list) else value
        for key, value in raw.items()
    }


def _repeated(items: list[Any], at: str) -> list[Any]:
    found: list[Any] = []
    for item in items:
        if not isinstance(item, Mapping) or "repeat" not in item:
            found.append(item)
            continue
        count = item["repeat"]
        if not isinstance(count, int) or isinstance(count, bool) or not 2 <= count <= MOST_REPEATS:
            raise FormatError(f"{at}: repeat must be a whole number between 2 and {MOST_REPEATS}, not {count!r}")
        once = {name: value for name, value in item.items() if name != "repeat"}
        found += [_numbered(once, str(number)) for number in range(1, count + 1)]
    return found


def _numbered(value: Any, number: str) -> Any:
    if isinstance(value, str):
        return value.replace("#", number)
    if isinstance(value, list):
        return [_numbered(item, number) for item in value]
    if isinstance(value, Mapping):
        return {name: _numbered(item, number) for name, item in value.items()}
    return value


def _checked(model: type[_M], raw: Mapping[str, Any], name: str) -> _M:
    try:
        return model.model_validate(raw)
    except ValidationError as error:
        raise FormatError(f"{name}: {complaint(error, model, raw)}", details={"file": name}) from error


def complaint(error: ValidationError, model: type[EquipmentModel], raw: Any) -> str:
    """The first thing wrong: where it stands, what is there, and what works."""
    found = error.errors(include_url=False)
    places = [item["loc"] for item in found]
    # What holds something wrong may be told as wrong too: a list without its bad entry is too short.
    found = [
        item
        for item in found
        if not any(len(place) > len(item["loc"]) and place[: len(item["loc"])] == item["loc"] for place in places)
    ]
    first = found[0]
    more = f" (and {len(found) - 1} more)" if len(found) > 1 else ""
    place = _place(first["loc"], raw)
    return f"{place}: {_what(first, model)}{more}" if place else f"{_what(first, model)}{more}"


def _what(detail: ErrorDetails, model: type[EquipmentModel]) -> str:
    if detail["type"] == "extra_forbidden":
        word = str(detail["loc"][-1])
        known = _fields_at(model, detail["loc"][:-1])
        # A name without its unit is the commonest: `full_scale` for `full_scale_dbu`.
        near = [item for item in known if item.startswith(f"{word}_")] or get_close_matches(word, known, 3, 0.6)
        return f"there is no such field; use {' or '.join(near or known)}"
    if detail["type"] == "missing":
        return "is missing"
    given, message = detail.get("input"), detail["msg"].removeprefix("Value error, ")
    message = message[0].lower() + message[1:] if message[:2] != message[:2].upper() else message
    shown = isinstance(given, str | int | float | bool) and len(repr(given)) < 60 and repr(given) not in message
    return f"{message}, not {given!r}" if shown and detail["type"] != "value_error" else message


def _fields_at(model: type[EquipmentModel], place: Sequence[int | str]) -> list[str]:
    """The names of the fields that belong there."""
    here: Any = model
    for step in place:
        fields = getattr(here, "model_fields", {})
        if step in fields:
            here = _model_in(fields[str(step)].annotation) or here
    return list(here.model_fields)


def _model_in(annotation: Any) -> type[EquipmentModel] | None:
    """The model that a field's type holds: of `tuple[InputPortModel, ...]`, that one."""
    if isinstance(annotation, type) and issubclass(annotation, EquipmentModel):
        return annotation
    found = (_model_in(item) for item in getattr(annotation, "__args__", ()))
    return next((item for item in found if item is not None), None)


def _place(where: Sequence[int | str], raw: Any) -> str:
    """A place in words that its author wrote: the ids of sockets in place of their numbers."""
    steps = []
    for step in where:
        if isinstance(step, int) and isinstance(raw, list) and step < len(raw):
            raw = raw[step]
            steps.append(str(raw.get("id", step + 1)) if isinstance(raw, Mapping) else str(step + 1))
        else:
            raw = raw.get(step) if isinstance(raw, Mapping) else None
            steps.append(str(step))
    return ".".join(steps)


def class_schema(of: Literal["device", "cable"]) -> bytes:
    """The published JSON Schema of a class file."""
    model = DeviceClassModel if of == "device" else WrittenCableModel
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **model.model_json_schema()}
    for part in (schema, *schema["$defs"].values()):
        for name, field in part.get("properties", {}).items():
            field["title"] = TITLES[name]
    plug = schema["$defs"]["PlugModel"]["properties"]
    plug["connector"]["oneOf"] = [{"const": item.id, "title": item.label} for item in CONNECTORS.values()]
    plug["gender"] = {
        "title": TITLES["gender"],
        "oneOf": [{"const": "male", "title": "plug (male)"}, {"const": "female", "title": "socket (female)"}],
    }
    for listed in (Circuit, DeviceKind, Drive, PadPlace, Pattern, Supply, ToneTrigger):
        if (choice := schema["$defs"].get(listed.__name__)) is not None:
            choice["oneOf"] = [{"const": value, "title": title_of(listed(value))} for value in choice.pop("enum")]
    for alike in (InputPortModel, OutputPortModel, BusModel) if of == "device" else ():
        properties = schema["$defs"][alike.__name__]["properties"]
        properties["repeat"] = {"type": "integer", "minimum": 2, "maximum": MOST_REPEATS}
        properties["id"]["pattern"] = properties["id"]["pattern"].replace("0-9", "0-9#")
    return (json.dumps(schema, indent=2, ensure_ascii=False) + "\n").encode()


def write_class(item: DeviceClass | LeadClass) -> bytes:
    """A class as a file that `read_class` takes; what stands at its default is left out."""
    import tomlkit  # half as slow to load as all the rest of this module, and only asked for here

    document = tomlkit.document()
    for name, value in sorted(document_of(item).items(), key=lambda entry: _is_table(*entry)):
        document.add(name, _toml(name, value))
    return tomlkit.dumps(document).encode()


_TABLES = frozenset(
    {"inputs", "outputs", "buses", "modes", "feeds", "capsule", "booster", "traits", "ways", "L", "R", ""}
)


def _is_table(name: str, value: Any) -> bool:
    """Whether it gets a heading of its own; figures, knobs and plugs stay in their line."""
    return name in _TABLES and (isinstance(value, dict) or (isinstance(value, list) and isinstance(value[0], dict)))


def _shortened(value: Any) -> Any:
    """Figures of which only the value is said as bare numbers, plain cores as text."""
    if isinstance(value, list):
        return [_shortened(item) for item in value]
    if not isinstance(value, dict):
        return value
    if value.keys() == {"value"}:
        return value["value"]
    if value.keys() == {"near", "far"} and isinstance(value["near"], str):
        return f"{value['near']}-{value['far']}"
    return {name: _shortened(item) for name, item in value.items()}


def _toml(name: str, value: Any) -> Any:
    import tomlkit

    if _is_table(name, value) and isinstance(value, list):
        tables = tomlkit.aot()
        for item in value:
            tables.append(_table(item))
        return tables
    if isinstance(value, dict):
        if _is_table(name, value):
            return _table(value)
        inline = tomlkit.inline_table()
        inline.update({key: _toml(key, item) for key, item in value.items()})
        return inline
    if isinstance(value, list):
        array = tomlkit.array()
        array.extend(_toml("", item) if not isinstance(item, dict) else _toml("-", item) for item in value)
        return array
    return int(value) if isinstance(value, float) and value.is_integer() and abs(value) < 1e9 else value


def _table(value: Mapping[str, Any]) -> Any:
    import tomlkit

    table = tomlkit.table()
    for key, item in sorted(value.items(), key=lambda entry: _is_table(*entry)):
        table.add(key, _toml(key, item))
    return table
