"""A whole database into a file and out of it, by PostgreSQL's own tools."""

import os
import subprocess
from pathlib import Path

from psycopg.conninfo import conninfo_to_dict

from tidy_trunk.errors import SetupError
from tidy_trunk.store.cluster import binaries


def dump(url: str, path: Path) -> None:
    """All of a database as it is at one moment. Raises SetupError."""
    _run("pg_dump", url, ["--format=custom", "--no-owner", "--no-privileges", f"--file={path}"])


def load(url: str, path: Path) -> None:
    """What was dumped, into an empty database: all of it or nothing. Raises SetupError."""
    _run("pg_restore", url, ["--no-owner", "--no-privileges", "--single-transaction", "--exit-on-error", str(path)])


def _run(tool: str, url: str, arguments: list[str]) -> None:
    found = conninfo_to_dict(url)
    secret = {"PGPASSWORD": str(found.pop("password"))} if "password" in found else {}
    address = " ".join(f"{name}={value}" for name, value in found.items())
    command = [str(binaries() / tool), f"--dbname={address}", *arguments]
    done = subprocess.run(command, capture_output=True, text=True, env={**os.environ, **secret, "LC_ALL": "C.UTF-8"})
    if done.returncode:
        reason = done.stderr.strip().splitlines()
        raise SetupError(f"{tool} failed: {reason[-1] if reason else f'exit status {done.returncode}'}")
