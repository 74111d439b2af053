"""Writes web/src/api/schema.d.ts from the server's OpenAPI; with --check only says whether it is up to date."""

import json
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest.mock import Mock

from tidy_trunk.api import create_app

ROOT = Path(__file__).resolve().parent.parent
TARGET = ROOT / "web" / "src" / "api" / "schema.d.ts"


def main() -> int:
    openapi = create_app(Mock(), web=None).openapi()
    with tempfile.TemporaryDirectory() as folder:
        source, made = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        source.write_text(json.dumps(openapi))
        command = ["npm", "run", "--silent", "api-types", "--", str(source), "-o", str(made)]
        done = subprocess.run(command, cwd=ROOT / "web", capture_output=True, text=True)
        if done.returncode:
            print(done.stdout + done.stderr, file=sys.stderr)
            return 1
        text = made.read_text()
    if "--check" not in sys.argv[1:]:
        TARGET.write_text(text)
        return 0
    if not TARGET.exists() or TARGET.read_text() != text:
        print("web/src/api/schema.d.ts is out of date: run scripts/make_api_types.py", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
