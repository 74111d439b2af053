"""The Python environment, from locks with hashes."""

import os
import sys
from pathlib import Path

from launcher.steps import (
    ROOT,
    StepFailed,
    built_beside,
    fingerprint,
    is_current,
    one_at_a_time,
    or_as_it_is,
    put_back,
    run,
    say,
)

VENV = ROOT / ".venv"
STAMP = VENV / ".made-from"


def python() -> Path:
    return VENV / "bin" / "python"


def is_running_in_it() -> bool:
    return Path(sys.prefix) == VENV


def ensure_runtime() -> None:
    """What the application itself needs. The environment for tests holds it too and serves as well."""
    put_back(VENV)
    if not is_current(STAMP, _mark("requirements.lock")) and not is_current(STAMP, _mark("requirements-dev.lock")):
        or_as_it_is(STAMP, lambda: _build("requirements.lock"))


def ensure_development() -> None:
    if not is_current(STAMP, _mark("requirements-dev.lock")):
        _build("requirements-dev.lock")


def _mark(lock: str) -> str:
    # The locks are small and change together: one mark for both keeps a stale runtime from passing as current.
    return fingerprint([ROOT / "requirements.lock", ROOT / lock], sys.version, str(ROOT))


def _build(lock: str) -> None:
    with one_at_a_time():
        mark = _mark(lock)
        if is_current(STAMP, mark):
            return
        try:
            import ensurepip  # noqa: F401
        except ImportError:
            from launcher.system import ensure_packages

            ensure_packages(["python3-venv"])
        say("making the Python environment (once; about a minute)")
        if VENV.exists() and not os.access(VENV, os.W_OK):
            raise StepFailed(f"{VENV} belongs to another user: remove it, or use a checkout of your own.")
        with built_beside(VENV) as fresh:
            # Made by the Python that the one in use was made from: that one is taken away.
            base = getattr(sys, "_base_executable", sys.executable)
            run("Python environment", [base, "-m", "venv", str(fresh)])
            pip = [str(fresh / "bin" / "python"), "-m", "pip", "install", "--quiet", "--no-input", "--require-hashes"]
            run("Python environment", [*pip, "-r", str(ROOT / lock)])
            (fresh / STAMP.name).write_text(mark)
