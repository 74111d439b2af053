"""Classes of devices and cables of the user's own, beside all jobs."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database


@dataclass(frozen=True, slots=True, kw_only=True)
class EquipmentRecord:
    """A class, as plain values: `body` is what its file says. changed: when it was saved last."""

    id: str
    body: dict[str, Any]
    changed: datetime


class EquipmentStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._table = database.tables.Equipment

    def all(self) -> list[EquipmentRecord]:
        """All classes, by id."""
        with self._database.unit_of_work():
            return [_record(row) for row in self._table.select().order_by(self._table.id)]

    def get(self, class_id: str) -> EquipmentRecord:
        """Raises NotFoundError: no such class."""
        with self._database.unit_of_work():
            row = self._table.get_or_none(self._table.id == class_id)
            if row is None:
                raise NotFoundError(f"there is no class '{class_id}' in My equipment")
            return _record(row)

    def put(self, records: Sequence[EquipmentRecord]) -> None:
        """All of them or none; what has such an id already is replaced."""
        with self._database.unit_of_work():
            for record in records:
                values = {"id": record.id, "body": record.body, "changed": record.changed}
                self._table.insert(values).on_conflict(
                    conflict_target=[self._table.id], preserve=[self._table.body, self._table.changed]
                ).execute()

    def delete(self, class_id: str) -> None:
        """Raises NotFoundError: no such class."""
        with self._database.unit_of_work():
            if not self._table.delete().where(self._table.id == class_id).execute():
                raise NotFoundError(f"there is no class '{class_id}' in My equipment")


def _record(row: Any) -> EquipmentRecord:
    return EquipmentRecord(id=row.id, body=row.body, changed=row.changed)
