"""System packages from Debian: PostgreSQL and Chromium; in tests another encoder of timecode, and ngspice for the deep ones."""

import ctypes.util
import os
import shutil
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Final

from launcher.steps import StepFailed, one_at_a_time, run, say


def needed_to_serve() -> list[str]:
    # With a database of the user's own, no server of ours is started.
    return [] if os.environ.get("TIDY_TRUNK_DATABASE_URL") else ["postgresql"]


def ensure_packages(wanted: Sequence[str]) -> None:
    """Install what is missing: through apt as root, through sudo otherwise.

    Raises:
        StepFailed: No way to install; the text is the one line that says what to install.
    """
    missing = [package for package in wanted if not _is_there(package)]
    if not missing:
        return
    _require_apt(missing)
    prefix: list[str] = []
    if os.geteuid() != 0:
        if not shutil.which("sudo"):
            raise StepFailed(f"needs {' and '.join(missing)}. As root: apt-get install {' '.join(missing)}")
        prefix = ["sudo"] if sys.stdin.isatty() else ["sudo", "-n"]
    say(f"installing {' and '.join(missing)} (once)")
    with one_at_a_time():
        env = {"DEBIAN_FRONTEND": "noninteractive"}
        try:
            run("system packages", [*prefix, "apt-get", "update", "-qq"], env=env)
            run(
                "system packages",
                [*prefix, "apt-get", "install", "-y", "-qq", "--no-install-recommends", *missing],
                env=env,
            )
        except StepFailed as failure:
            raise StepFailed(f"{failure}\nInstall by hand, as root: apt-get install {' '.join(missing)}") from failure


CHROMIUM: Final = "chromium-headless-shell"
"""Chromium without its window: a page costs it half of what the whole browser takes. Measured here."""


def chromium() -> str | None:
    return shutil.which(CHROMIUM)


def _is_there(package: str) -> bool:
    if package == "postgresql":
        return any(Path("/usr/lib/postgresql").glob("*/bin/initdb")) or shutil.which("initdb") is not None
    if package == CHROMIUM:
        return chromium() is not None
    if package == "libltc11":
        return ctypes.util.find_library("ltc") is not None
    if package == "ngspice":
        return shutil.which("ngspice") is not None
    return False  # python3-venv: asked for only when it was found missing


def _require_apt(missing: Sequence[str]) -> None:
    if not shutil.which("apt-get"):
        raise StepFailed(f"needs {' and '.join(missing)}, and there is no apt-get here: install them, then run again.")
