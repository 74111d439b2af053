"""The second model stands on its own: it knows plan documents and classes, and nothing of how the program works them out."""

import ast
from pathlib import Path

ALLOWED = ("tidy_trunk.core.gear.catalogue", "tests.reference", "numpy", "scipy")
MODEL = ("circuit.py", "clocks.py", "late.py", "sound.py", "spice.py")


def test_it_shares_no_line_with_what_it_checks():
    folder = Path(__file__).parent
    for name in MODEL:
        tree = ast.parse((folder / name).read_text())
        for node in ast.walk(tree):
            modules = [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
            modules += [node.module] if isinstance(node, ast.ImportFrom) else []
            for module in modules:
                ours = module.startswith(("tidy_trunk", "tests"))
                assert not ours or module.startswith(ALLOWED), (name, module)
