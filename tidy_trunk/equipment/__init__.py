"""Classes of devices and cables as files: the built-in ones, and those of one's own."""

from tidy_trunk.equipment.archive import MOST_CLASSES, read_archive, write_archive
from tidy_trunk.equipment.built_in import read_built_in
from tidy_trunk.equipment.files import (
    class_schema,
    document_of,
    mode_document,
    read_class,
    read_document,
    read_mode,
    write_class,
)
from tidy_trunk.equipment.models import CableClassModel, DeviceClassModel, PlugModel, WiringModel
from tidy_trunk.equipment.titles import title_of

__all__ = [
    "MOST_CLASSES",
    "CableClassModel",
    "DeviceClassModel",
    "PlugModel",
    "WiringModel",
    "class_schema",
    "document_of",
    "mode_document",
    "read_archive",
    "read_built_in",
    "read_class",
    "read_document",
    "read_mode",
    "title_of",
    "write_archive",
    "write_class",
]
