"""The front end: npm ci from the lock, then a build; each only when its inputs changed."""

import shutil
import subprocess

from launcher.steps import ROOT, StepFailed, fingerprint, is_current, one_at_a_time, run, say

WEB = ROOT / "web"
MODULES = WEB / "node_modules" / ".made-from"
BUILD = WEB / "dist" / ".made-from"
SOURCES = [
    WEB / name for name in ("src", "public", "index.html", "package.json", "package-lock.json", "vite.config.ts")
]
OLDEST_NODE = 20


def ensure_modules() -> None:
    mark = fingerprint([WEB / "package.json", WEB / "package-lock.json"])
    if is_current(MODULES, mark):
        return
    _require_node()
    with one_at_a_time():
        if is_current(MODULES, mark):
            return
        say("fetching the front end's packages (once)")
        run("front-end packages", ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"], cwd=WEB)
        MODULES.write_text(mark)


def ensure_build() -> None:
    mark = fingerprint(path for path in SOURCES if path.exists())
    if is_current(BUILD, mark):
        return
    ensure_modules()
    with one_at_a_time():
        if is_current(BUILD, mark):
            return
        say("building the front end (once)")
        run("front-end build", ["npm", "run", "--silent", "build"], cwd=WEB)
        BUILD.write_text(mark)


def _require_node() -> None:
    node = shutil.which("node")
    if not node or not shutil.which("npm"):
        raise StepFailed(f"needs Node {OLDEST_NODE} or newer with npm: install nodejs and npm, then run again.")
    version = subprocess.run([node, "--version"], capture_output=True, text=True).stdout.strip()
    if int(version.lstrip("v").split(".")[0] or 0) < OLDEST_NODE:
        raise StepFailed(f"needs Node {OLDEST_NODE} or newer; this is {version}.")
