"""`./tidy doctor`."""

from pathlib import Path
from typing import Any

from tidy_trunk.cli.output import show
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.upkeep.doctor import document, examine, write_bundle

SOMETHING_TO_DO = 3
NEXT = "\n  to do: "


def show_examination(bundle: Path | None, as_json: bool) -> int:
    settings = EnvironmentSettings()
    found = examine(settings)
    lines = [f"{look.what}: {look.found}{NEXT + look.advice if look.advice else ''}" for look in found.looks]
    lines += [f"error {_words(error)}" for error in found.errors] or ["No errors in the log."]
    if bundle is not None:
        write_bundle(settings, found, bundle)
        lines.append(f"Written: {bundle}. It holds no names, keys or sound.")
    show(document(found), "\n".join(lines), as_json)
    return 0 if found.is_well else SOMETHING_TO_DO


def _words(error: dict[str, Any]) -> str:
    where = error.get("stack") or ["?"]
    what = error.get("error", f"status {error.get('status')}")
    return f"{error.get('at', '')[:19]} {error.get('event', '')} {error.get('path', '')} {what} in {where[-1]}".replace(
        "  ", " "
    )
