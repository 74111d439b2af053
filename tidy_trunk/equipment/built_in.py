"""The built-in classes: the files of this package, read once and kept beside its byte code."""

import os
import pickle
import tomllib
from hashlib import blake2b
from pathlib import Path
from typing import Final

from tidy_trunk.core.gear.catalogue import Catalogue
from tidy_trunk.equipment.files import read_cable, read_device

HERE: Final = Path(__file__).resolve().parent
DEVICES: Final = HERE / "devices"
CABLES: Final = HERE / "cables"
ORDER: Final = HERE / "order.toml"
_MODEL: Final = HERE.parent / "core" / "gear" / "catalogue"


def read_built_in() -> Catalogue:
    """All built-in classes, each checked as a file from anybody is; from what was kept where nothing has changed since.

    What is kept lies where Python keeps its byte code, which is trusted alike, and is left out where nothing can be
    written there.

    Raises:
        FormatError: A file that is not as it must be.
    """
    kept = HERE / "__pycache__" / f"built-in-{_state()}.pickle"
    try:
        found = pickle.loads(kept.read_bytes())
        if isinstance(found, Catalogue):
            return found
    except (OSError, pickle.UnpicklingError, EOFError, AttributeError, ImportError, IndexError, ValueError):
        pass  # not there, or cut short: it is made again
    catalogue = _read()
    _keep(catalogue, kept)
    return catalogue


def _read() -> Catalogue:
    order = tomllib.loads(ORDER.read_text())
    devices = [read_device((DEVICES / f"{name}.toml").read_bytes(), f"{name}.toml") for name in order["devices"]]
    cables = [read_cable((CABLES / f"{name}.toml").read_bytes(), f"{name}.toml") for name in order["cables"]]
    return Catalogue(devices={item.id: item for item in devices}, leads={item.id: item for item in cables})


def _state() -> str:
    """What tells that a file, or what it is read into, has changed."""
    seen = blake2b(digest_size=8)
    places = (HERE.rglob("*.toml"), HERE.glob("*.py"), _MODEL.glob("*.py"))
    for path in sorted(path for found in places for path in found):
        about = path.stat()
        seen.update(f"{path.name} {about.st_size} {about.st_mtime_ns}\n".encode())
    return seen.hexdigest()


def _keep(catalogue: Catalogue, kept: Path) -> None:
    try:
        kept.parent.mkdir(exist_ok=True)
        for old in kept.parent.glob("built-in-*.pickle"):
            old.unlink(missing_ok=True)
        part = kept.with_name(f"{kept.name}.{os.getpid()}")
        part.write_bytes(pickle.dumps(catalogue))
        part.replace(kept)
    except OSError:
        return  # a folder that cannot be written to: it is read anew each time
