"""Writes web/src/api/schema.d.ts from the server's OpenAPI; a test says whether it is up to date."""

import json
import subprocess
import tempfile
from hashlib import sha256
from pathlib import Path
from typing import Any
from unittest.mock import Mock

from tidy_trunk.api import create_app

ROOT = Path(__file__).resolve().parent.parent
TARGET = ROOT / "web" / "src" / "api" / "schema.d.ts"


def heading(openapi: dict[str, Any]) -> str:
    """Of which description the types below are."""
    return f"// Of the description {sha256(json.dumps(openapi, sort_keys=True).encode()).hexdigest()}\n"


def types_of(openapi: dict[str, Any]) -> str:
    """The types of all requests and answers, in TypeScript, below their heading."""
    with tempfile.TemporaryDirectory() as folder:
        source, made = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        source.write_text(json.dumps(openapi))
        command = ["node_modules/.bin/openapi-typescript", str(source), "-o", str(made)]
        subprocess.run(command, cwd=ROOT / "web", capture_output=True, check=True)
        return heading(openapi) + made.read_text()


if __name__ == "__main__":
    TARGET.write_text(types_of(create_app(Mock(), web=None).openapi()))
