"""The front end: npm ci from the lock, then a build; each only when its inputs changed."""

import shutil
import subprocess

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

WEB = ROOT / "web"
PACKAGES = WEB / "node_modules"
MODULES = PACKAGES / ".made-from"
DIST = WEB / "dist"
BUILD = DIST / ".made-from"
LOCKS = [WEB / name for name in ("package.json", "package-lock.json", ".npmrc")]
SOURCES = [
    WEB / name for name in ("src", "public", "index.html", "package.json", "package-lock.json", "vite.config.ts")
]
BUILDING, TESTING = "build", "test"
NODES = "20.19 or newer, or 22.12 or newer"


def ensure_modules() -> None:
    """All packages of the front end, those for its tests too."""
    _ensure_packages(TESTING)


def ensure_build() -> None:
    """The built front end. Where it cannot be brought up to date, the former one goes on."""
    put_back(DIST)
    if not is_current(BUILD, _mark_of_build()):
        or_as_it_is(BUILD, _build)


def require_node_to_build() -> None:
    """Asked before anything is installed for it. Raises StepFailed: a build is wanted, and nothing can build."""
    if not BUILD.exists():
        _require_node()


def _mark_of_build() -> str:
    return fingerprint(path for path in SOURCES if path.exists())


def _build() -> None:
    _ensure_packages(BUILDING)
    with one_at_a_time():
        mark = _mark_of_build()
        if is_current(BUILD, mark):
            return
        say("building the front end (once)")
        with built_beside(DIST) as fresh:
            run("front-end build", ["npm", "run", "--silent", "build", "--", "--outDir", str(fresh)], cwd=WEB)
            (fresh / BUILD.name).write_text(mark)


def _ensure_packages(wanted: str) -> None:
    """Those that a build needs, or all. All of them serve for a build as well."""
    put_back(PACKAGES)
    marks = {kind: fingerprint((path for path in LOCKS if path.exists()), kind) for kind in (BUILDING, TESTING)}
    if is_current(MODULES, marks[wanted]) or is_current(MODULES, marks[TESTING]):
        return
    _require_node()
    with one_at_a_time():
        if is_current(MODULES, marks[wanted]):
            return
        say("fetching the front end's packages (once)")
        stage = WEB / "node_modules.stage"
        shutil.rmtree(stage, ignore_errors=True)
        stage.mkdir()
        try:
            for path in LOCKS:
                if path.exists():
                    shutil.copy(path, stage)
            command = ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"]
            command += ["--omit=dev"] if wanted == BUILDING else []
            with built_beside(PACKAGES) as fresh:
                run("front-end packages", command, cwd=stage)
                (stage / PACKAGES.name).rename(fresh)
                (fresh / MODULES.name).write_text(marks[wanted])
        finally:
            shutil.rmtree(stage, ignore_errors=True)


def _require_node() -> None:
    node = shutil.which("node")
    if not node or not shutil.which("npm"):
        raise StepFailed(f"needs Node {NODES}, with npm: install nodejs and npm, then run again.")
    version = subprocess.run([node, "--version"], capture_output=True, text=True).stdout.strip()
    major, minor = ([int(part) for part in version.lstrip("v").split(".")[:2] if part.isdigit()] + [0, 0])[:2]
    if not ((major, minor) >= (22, 12) or (major == 20 and minor >= 19)):
        raise StepFailed(
            f"needs Node {NODES}; this is {version}. Where Debian's own is older, take the one of a newer Debian, or of "
            "the Node project, and put its bin folder first on the PATH."
        )
