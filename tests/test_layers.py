"""Imports point down the ladder, never up: read from the import statements themselves."""

import ast
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PACKAGE = ROOT / "tidy_trunk"

OUTER = {
    "cli": 4,
    "api": 4,
    "services": 3,
    "settings": 2,
    "store": 2,
    "document": 2,
    "exports": 2,
    "formats": 2,
    "core": 1,
    "errors": 0,
}
CORE = {
    "say": 11, "compare": 11, "advice": 10, "checks": 9, "ways": 8, "clock": 8, "hum": 8, "simulation": 9, "line_up": 8, "walk": 9, "levels": 7, "joins": 7, "trace": 6, "plan": 5, "wiring": 4,
    "catalogue": 3, "pads": 2, "radio": 2, "timecode": 2, "signal": 3, "sync": 3, "units": 1, "words": 1,
}  # fmt: skip
CORE_MAY_USE = {
    "abc", "bisect", "collections", "dataclasses", "datetime", "difflib", "enum", "fractions", "functools", "importlib", "itertools", "math", "numpy", "pkgutil", "re", "statistics", "typing", "zlib",
}  # fmt: skip


def imports():
    for path in PACKAGE.rglob("*.py"):
        place = path.relative_to(ROOT).with_suffix("").parts
        for node in ast.walk(ast.parse(path.read_text())):
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
        # The server starts the application that it serves: the one place where a service builds the API.
        if place[1:] == ("services", "server") and target[1] == "api":
            continue
        if OUTER[place[1]] <= OUTER[target[1]]:
            wrong.append((".".join(place), ".".join(target)))
    assert not wrong


def test_core_arrows_point_down_and_to_packages():
    wrong = []
    for place, target in imports():
        if place[1] != "core" or target[:2] != ["tidy_trunk", "core"] or len(target) < 3 or len(place) < 4:
            continue
        if place[2] == target[2]:
            continue
        if CORE[place[2]] <= CORE[target[2]] or len(target) > 3:
            wrong.append((".".join(place), ".".join(target)))
    assert not wrong


def test_core_is_pure():
    used = {target[0] for place, target in imports() if place[1] == "core" and target[0] != "tidy_trunk"}
    assert used <= CORE_MAY_USE


def test_only_decibels_takes_logarithms_for_levels():
    for path in (PACKAGE / "core").rglob("*.py"):
        if path.name != "decibels.py":
            assert "log10" not in path.read_text(), path
