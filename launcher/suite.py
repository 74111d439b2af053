"""`./tidy test` and `./tidy bench`: what they set up and what they run."""

import os
import subprocess
import sys
import time
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from launcher import environment, frontend, system
from launcher.steps import ROOT, StepFailed, say

WEB = ROOT / "web"


DEEP = "--deep"


def _prepare(*more: str) -> dict[str, str]:
    system.ensure_packages(["postgresql", system.CHROMIUM, "libltc11", *more])
    frontend.ensure_modules()
    frontend.ensure_build()
    chromium = system.chromium()
    if chromium is None:
        raise StepFailed("step 'system packages' failed: chromium was installed but is not on the PATH")
    # Bytecode is kept, whatever the shell says: the tests start the program some sixty times, and compiling it takes longer
    # than all else that it does at its start.
    kept = {
        name: value
        for name, value in os.environ.items()
        if name not in ("PYTHONDONTWRITEBYTECODE", "PYTHONPYCACHEPREFIX")
    }
    return {
        **kept,
        "PYTHONPATH": str(ROOT),
        "TIDY_TRUNK_WEB": str(WEB / "dist"),
        "TIDY_TRUNK_CHROMIUM": chromium,
    }


def run_tests(arguments: Sequence[str]) -> int:
    """All checks, or with arguments only pytest with them. Every part runs, so that one failure does not hide the next.

    With `--deep`, what takes too long for every landing: `tests/deep`, with ngspice, and whatever is marked so; and the form of
    the front end's code, which changes nothing of what it does.
    """
    python = str(environment.python())
    if DEEP in arguments:
        others = [argument for argument in arguments if argument != DEEP]
        command = [python, "-m", "pytest", "-n", "auto", "--dist", "worksteal", *(others or ["-m", "deep"])]
        env = {**_prepare("ngspice", "ffmpeg"), "TIDY_TRUNK_DEEP": "1"}
        tested = subprocess.run(command, cwd=ROOT, env=env).returncode
        formed = _part("prettier", ["npm", "run", "--silent", "format:check"], WEB, env, quiet=True)
        return tested or int(not formed)
    # Side by side, threads of the arithmetic only wait for each other.
    env = {**_prepare(), "OPENBLAS_NUM_THREADS": "1"}
    if arguments:
        return subprocess.run([python, "-m", "pytest", *arguments], cwd=ROOT, env=env).returncode
    looks = [
        ("ruff", [python, "-m", "ruff", "check", "--quiet", "--no-cache", "."], ROOT),
        ("ruff format", [python, "-m", "ruff", "format", "--quiet", "--no-cache", "--check", "."], ROOT),
        ("mypy", [python, "-m", "mypy", "--no-error-summary"], ROOT),
        ("eslint", ["npm", "run", "--silent", "lint"], WEB),
        ("vue-tsc", ["npm", "run", "--silent", "types"], WEB),
        ("front-end units", ["npm", "run", "--silent", "test"], WEB),
    ]
    tests = [python, "-m", "pytest", "-n", "auto", "--dist", "worksteal"]
    # Whatever only looks at the code runs on one core beside the tests, which wait for a server or a browser now and then.
    with ThreadPoolExecutor(1) as beside:
        looking = {look[0]: beside.submit(_part, *look, env, quiet=True) for look in looks}
        passed = {"pytest": _part("pytest", tests, ROOT, env, quiet=False)}
        passed.update({name: look.result() for name, look in looking.items()})
    failed = [name for name, has_passed in passed.items() if not has_passed]
    if failed:
        print(f"tidy: failed: {', '.join(failed)}", file=sys.stderr)
        return 1
    return 0


def _part(name: str, command: list[str], folder: Path, env: dict[str, str], *, quiet: bool) -> bool:
    """Whether it passed. `quiet`: what it prints is shown when it has ended, and only where it failed."""
    begin = time.monotonic()
    output = subprocess.PIPE if quiet else None
    done = subprocess.run(
        command,
        cwd=folder,
        env=env,
        stdin=subprocess.DEVNULL,
        stdout=output,
        stderr=subprocess.STDOUT if quiet else None,
    )
    passed = done.returncode == 0
    if quiet and not passed:
        print(done.stdout.decode(errors="replace"), flush=True)
    say(f"{name}: {'passed' if passed else 'FAILED'} in {time.monotonic() - begin:.0f} s")
    return passed


def run_bench(arguments: Sequence[str]) -> int:
    env = _prepare()
    return subprocess.run([str(environment.python()), "scripts/bench.py", *arguments], cwd=ROOT, env=env).returncode
