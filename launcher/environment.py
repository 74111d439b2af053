"""The Python environment, from locks with hashes."""

import os
import shutil
import sys
from pathlib import Path

from launcher.steps import ROOT, StepFailed, fingerprint, is_current, one_at_a_time, run, say

VENV = ROOT / ".venv"
STAMP = VENV / ".made-from"
OLDEST_PYTHON = (3, 11)


def python() -> Path:
    return VENV / "bin" / "python"


def is_running_in_it() -> bool:
    return Path(sys.prefix) == VENV


def ensure_runtime() -> None:
    """What the application itself needs. The environment for tests holds it too and serves as well."""
    if not is_current(STAMP, _mark("requirements.lock")) and not is_current(STAMP, _mark("requirements-dev.lock")):
        _build("requirements.lock")


def ensure_development() -> None:
    if not is_current(STAMP, _mark("requirements-dev.lock")):
        _build("requirements-dev.lock")


def _mark(lock: str) -> str:
    # The locks are small and change together: one mark for both keeps a stale runtime from passing as current.
    return fingerprint([ROOT / "requirements.lock", ROOT / lock], sys.version, str(ROOT))


def _build(lock: str) -> None:
    if is_running_in_it():
        # It cannot be taken away from under our feet: the Python that it was made from does that.
        base = shutil.which(Path(sys._base_executable).name, path=str(Path(sys._base_executable).parent)) or "python3"
        os.execvp(base, [base, "-m", "launcher", *sys.argv[1:]])
    if sys.version_info < OLDEST_PYTHON:
        raise StepFailed(
            f"needs Python 3.11 or newer; this is {sys.version.split()[0]}. Start it with a newer python3."
        )
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
        STAMP.unlink(missing_ok=True)
        if VENV.exists() and not os.access(VENV, os.W_OK):
            raise StepFailed(f"{VENV} belongs to another user: remove it, or use a checkout of your own.")
        shutil.rmtree(VENV, ignore_errors=True)
        run("Python environment", [sys.executable, "-m", "venv", str(VENV)])
        run(
            "Python environment",
            [
                str(python()),
                "-m",
                "pip",
                "install",
                "--quiet",
                "--no-input",
                "--require-hashes",
                "-r",
                str(ROOT / lock),
            ],
        )
        STAMP.write_text(mark)
