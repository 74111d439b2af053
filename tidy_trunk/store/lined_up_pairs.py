"""Pairs of devices that were lined up in any job, beside all jobs."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database


@dataclass(frozen=True, slots=True, kw_only=True)
class LinedUpPairRecord:
    """A pair, as plain values. changed: when it was read last."""

    key: str
    body: dict[str, Any]
    changed: datetime


class LinedUpPairStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._table = database.tables.LinedUpPair

    def all(self) -> list[LinedUpPairRecord]:
        """All pairs, the newest first."""
        with self._database.unit_of_work():
            rows = self._table.select().order_by(self._table.changed.desc())
            return [LinedUpPairRecord(key=row.key, body=row.body, changed=row.changed) for row in rows]

    def put(self, records: Sequence[LinedUpPairRecord]) -> None:
        """What has such a key already is replaced."""
        with self._database.unit_of_work():
            for record in records:
                values = {"key": record.key, "body": record.body, "changed": record.changed}
                self._table.insert(values).on_conflict(
                    conflict_target=[self._table.key], preserve=[self._table.body, self._table.changed]
                ).execute()

    def delete(self, key: str) -> None:
        """Raises NotFoundError: no such pair."""
        with self._database.unit_of_work():
            if not self._table.delete().where(self._table.key == key).execute():
                raise NotFoundError("there is no such pair any more")
