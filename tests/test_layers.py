"""Imports point down the ladder, never up, and a type has a name of its own: read from the statements themselves."""

import ast
import re
from collections import defaultdict
from functools import cache
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PACKAGE = ROOT / "tidy_trunk"

OUTER = {
    "cli": 10,
    "app": 9,
    "api": 8,
    "services": 7,
    "tasks": 6,
    "upkeep": 5,
    "sync": 5,
    "reports": 6,
    "results": 5,
    "media": 4,
    "words": 3,
    "settings": 3,
    "store": 3,
    "document": 3,
    "exports": 3,
    "formats": 3,
    "equipment": 2,
    "core": 1,
    "errors": 0,
}
CORE = (
    "supply", "base.text", "base.samples", "base.units", "base.radio", "base.timecode", "base.signal", "gear.pads", "gear.catalogue", "gear.wiring", "plan",
    "sound.trace", "sound.cable_chains", "sound.levels", "sound.hum", "time.sync", "time.clock", "sound.simulation",
    "advice.line_up", "advice.options", "advice.gear_tests", "advice.walk", "advice.checks", "advice.fault_search", "advice.adviser", "advice.compare", "advice.scene_notes", "day", "log", "command", "rigs", "trunk", "drill",
)  # fmt: skip
"""Rooms of the core and what is in them, from the ground up: each uses only what stands before it."""
CORE_MAY_USE = {
    "abc", "bisect", "collections", "dataclasses", "datetime", "difflib", "enum", "fractions", "functools", "importlib", "itertools", "math", "numpy", "pkgutil", "random", "re", "scipy", "statistics", "typing", "zlib",
}  # fmt: skip


@cache
def modules() -> dict[Path, ast.Module]:
    return {path: ast.parse(path.read_text()) for path in PACKAGE.rglob("*.py")}


@cache
def imports() -> tuple[tuple[tuple[str, ...], list[str]], ...]:
    return tuple(read_imports())


def statements(body):
    """All that stand below each other; none lies inside an expression, where most of a tree is."""
    for node in body:
        yield node
        for part in ("body", "orelse", "finalbody", "handlers", "cases"):
            yield from statements(getattr(node, part, ()))


def read_imports():
    for path, module in modules().items():
        place = path.relative_to(ROOT).with_suffix("").parts
        for node in statements(module.body):
            names = []
            if isinstance(node, ast.Import):
                names = [alias.name for alias in node.names]
            elif isinstance(node, ast.ImportFrom) and node.module:
                names = [node.module]
            for name in names:
                yield place, name.split(".")


def test_outer_arrows_point_down():
    wrong = []
    for place, target in imports():
        if target[0] != "tidy_trunk" or len(target) < 2 or len(place) < 3 or place[1] == target[1]:
            continue
        if OUTER[place[1]] <= OUTER[target[1]]:
            wrong.append((".".join(place), ".".join(target)))
    assert not wrong


def part_of_core(module: tuple[str, ...]) -> str:
    """`sound.levels` of tidy_trunk.core.sound.levels.budget; a room without parts is one itself."""
    room, *rest = module[2:]
    return room if room in CORE else ".".join((room, *rest[:1]))


def test_core_arrows_point_down_and_to_packages():
    wrong = []
    for place, target in imports():
        if place[1] != "core" or target[:2] != ["tidy_trunk", "core"] or len(target) < 3:
            continue
        here, there = part_of_core(place), part_of_core(tuple(target))
        if here != there and (CORE.index(here) <= CORE.index(there) or ".".join(target[2:]) != there):
            wrong.append((".".join(place), ".".join(target)))
    assert not wrong


def test_core_is_pure():
    used = {target[0] for place, target in imports() if place[1] == "core" and target[0] != "tidy_trunk"}
    assert used <= CORE_MAY_USE


def types_of(module: ast.Module):
    """Classes and aliases of types at the top of a module; constants are in capitals, all else is in small letters."""
    for node in module.body:
        if isinstance(node, ast.ClassDef):
            yield node.name
        elif isinstance(node, ast.Assign):
            names = [target.id for target in node.targets if isinstance(target, ast.Name)]
            yield from (name for name in names if name[0].isupper() and not name.isupper())


def test_a_name_of_a_type_has_one_meaning():
    places = defaultdict(list)
    for path, module in modules().items():
        for name in types_of(module):
            places[name].append(str(path.relative_to(ROOT)))
    assert len(places) > 1_000, "the types of the program were found"
    assert not {name: found for name, found in places.items() if len(found) > 1}


def test_a_name_of_a_type_of_the_front_end_has_one_meaning():
    """Those in the file that is made of the API document are the program's own."""
    places = defaultdict(list)
    for path in (ROOT / "web" / "src").rglob("*.*"):
        if path.suffix in (".ts", ".vue") and not path.name.endswith(".d.ts"):
            for name in re.findall(r"^(?:export )?(?:type|interface|class) ([A-Z]\w*)", path.read_text(), re.MULTILINE):
                places[name].append(path.name)
    assert len(places) > 100 and not {name: found for name, found in places.items() if len(found) > 1}


def test_a_type_is_known_by_its_own_name():
    renamed = [
        (path.relative_to(ROOT), alias.name)
        for path, module in modules().items()
        for node in statements(module.body)
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("tidy_trunk")
        for alias in node.names
        if alias.asname and alias.name[0].isupper()
    ]
    assert not renamed


def test_only_decibels_takes_logarithms_for_levels():
    for path in (PACKAGE / "core").rglob("*.py"):
        if path.name != "decibels.py":
            assert "log10" not in path.read_text(), path
