"""`./tidy test` and `./tidy bench`: what they set up and what they run."""

import os
import subprocess
import sys
import time
from collections.abc import Sequence
from pathlib import Path

from launcher import environment, frontend, system
from launcher.steps import ROOT, StepFailed, say

WEB = ROOT / "web"


DEEP = "--deep"


def _prepare(*more: str) -> dict[str, str]:
    system.ensure_packages(["postgresql", "chromium", "libltc11", *more])
    frontend.ensure_modules()
    frontend.ensure_build()
    chromium = system.chromium()
    if chromium is None:
        raise StepFailed("step 'system packages' failed: chromium was installed but is not on the PATH")
    return {
        **os.environ,
        "PYTHONPATH": str(ROOT),
        "PYTHONDONTWRITEBYTECODE": "1",
        "TIDY_TRUNK_WEB": str(WEB / "dist"),
        "TIDY_TRUNK_CHROMIUM": chromium,
    }


def run_tests(arguments: Sequence[str]) -> int:
    """All checks, or with arguments only pytest with them. Every part runs, so that one failure does not hide the next.

    With `--deep`, what takes too long for every landing: `tests/deep`, with ngspice.
    """
    python = str(environment.python())
    if DEEP in arguments:
        others = [argument for argument in arguments if argument != DEEP]
        command = [python, "-m", "pytest", "-n", "auto", "tests/deep", *others]
        return subprocess.run(command, cwd=ROOT, env={**_prepare("ngspice"), "TIDY_TRUNK_DEEP": "1"}).returncode
    env = _prepare()
    if arguments:
        return subprocess.run([python, "-m", "pytest", *arguments], cwd=ROOT, env=env).returncode
    parts: list[tuple[str, list[str], Path]] = [
        ("ruff", [python, "-m", "ruff", "check", "--quiet", "--no-cache", "."], ROOT),
        ("ruff format", [python, "-m", "ruff", "format", "--quiet", "--no-cache", "--check", "."], ROOT),
        ("mypy", [python, "-m", "mypy", "--no-error-summary"], ROOT),
        ("generated types", [python, "scripts/make_api_types.py", "--check"], ROOT),
        ("eslint", ["npm", "run", "--silent", "lint"], WEB),
        ("prettier", ["npm", "run", "--silent", "format:check"], WEB),
        ("vue-tsc", ["npm", "run", "--silent", "types"], WEB),
        ("front-end units", ["npm", "run", "--silent", "test"], WEB),
        ("pytest", [python, "-m", "pytest", "-n", "auto", "--dist", "worksteal"], ROOT),
    ]
    failed = []
    for name, command, folder in parts:
        begin = time.monotonic()
        if subprocess.run(command, cwd=folder, env=env, stdin=subprocess.DEVNULL).returncode:
            failed.append(name)
        say(f"{name}: {'FAILED' if name in failed else 'passed'} in {time.monotonic() - begin:.0f} s")
    if failed:
        print(f"tidy: failed: {', '.join(failed)}", file=sys.stderr)
        return 1
    return 0


def run_bench(arguments: Sequence[str]) -> int:
    env = _prepare()
    return subprocess.run([str(environment.python()), "scripts/bench.py", *arguments], cwd=ROOT, env=env).returncode
