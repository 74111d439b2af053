"""Who only serves the application fetches no packages for tests: what is built must not ask for one."""

import json
import re
from pathlib import Path

WEB = Path(__file__).resolve().parents[2] / "web"
IMPORT = re.compile(r"""(?:from|import)\s+'((?:@[\w-]+/)?[\w][\w.-]*)(?:[/?][^']*)?'""")


def test_what_is_built_needs_no_package_for_tests():
    served = json.loads((WEB / "package.json").read_text())["dependencies"]
    built = [
        WEB / "vite.config.ts",
        *(path for path in (WEB / "src").rglob("*") if path.suffix in (".ts", ".vue", ".css")),
    ]
    asked = {
        (package, path.relative_to(WEB))
        for path in built
        if not path.name.endswith((".test.ts", ".testing.ts", ".d.ts")) and "testing" not in path.parts
        for package in IMPORT.findall(path.read_text())
        if not package.startswith(("node", "@/"))
    }
    assert {"vue", "vite", "primevue", "@vitejs/plugin-vue"} <= {package for package, _ in asked}
    assert not [(package, path) for package, path in asked if package not in served]
