"""Several classes in one file: a ZIP archive of theirs."""

import io
import zipfile
from collections.abc import Iterable
from typing import Final

from tidy_trunk.core.gear.catalogue import DeviceClass, LeadClass
from tidy_trunk.equipment.files import LARGEST_CLASS_BYTES, write_class
from tidy_trunk.errors import FormatError

MOST_CLASSES: Final = 200
"""ASSUMED_ most classes in one archive."""

WRITTEN: Final = (1980, 1, 1, 0, 0, 0)
"""The earliest date that a ZIP can hold: the same classes make the same file. [PRACTICE] of software"""


def write_archive(items: Iterable[DeviceClass | LeadClass]) -> bytes:
    """A ZIP with a TOML file for each class."""
    box = io.BytesIO()
    with zipfile.ZipFile(box, "w") as archive:
        for item in items:
            entry = zipfile.ZipInfo(f"{item.id}.toml", WRITTEN)
            archive.writestr(entry, write_class(item), zipfile.ZIP_DEFLATED)
    return box.getvalue()


def read_archive(data: bytes, name: str) -> list[tuple[str, bytes]]:
    """The files in a ZIP, each with its name.

    Raises:
        FormatError: No ZIP, nothing in it, more than MOST_CLASSES, or one that is unpacked larger than a class can be.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = [entry for entry in archive.infolist() if entry.filename.lower().endswith(".toml")]
            if not entries:
                raise FormatError(f"{name}: there is no .toml file in it")
            if len(entries) > MOST_CLASSES:
                raise FormatError(f"{name}: {len(entries)} files are more than {MOST_CLASSES}: make it two archives")
            return [(f"{name}, {entry.filename}", _unpacked(archive, entry, name)) for entry in entries]
    except (zipfile.BadZipFile, RuntimeError, NotImplementedError, EOFError, OSError) as error:
        raise FormatError(f"{name}: this is no ZIP archive that can be read: {error}") from error


def _unpacked(archive: zipfile.ZipFile, entry: zipfile.ZipInfo, name: str) -> bytes:
    with archive.open(entry) as file:
        data = file.read(LARGEST_CLASS_BYTES + 1)  # whatever it says of its size
    if len(data) > LARGEST_CLASS_BYTES:
        raise FormatError(f"{name}, {entry.filename}: a class has at most {LARGEST_CLASS_BYTES // 1024} kB")
    return data
