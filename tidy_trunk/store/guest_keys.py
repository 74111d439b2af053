"""Keys of guests: what each may do, and when it was last used. A key itself is nowhere, only what it is recognised by."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database
from tidy_trunk.store.tables import Tables


class Access(StrEnum):
    """What the holder of a key may do: all that changes jobs; marks of a checklist and the log; or look."""

    CREW = "crew"
    WALK = "walk"
    LOOK = "look"


@dataclass(frozen=True, slots=True, kw_only=True)
class GuestKeyRecord:
    """digest: what the key's secret is recognised by; seen, address: when and from where it was last used, None if never."""

    id: str
    name: str
    access: Access
    digest: str
    created: datetime
    seen: datetime | None = None
    address: str = ""


class GuestKeyStore:
    """Every method is one transaction. Keys that are not there raise NotFoundError."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._keys = Tables(database.pool).GuestKey

    def all(self) -> list[GuestKeyRecord]:
        """The newest first."""
        with self._database.unit_of_work():
            return [_record(row) for row in self._keys.select().order_by(self._keys.created.desc(), self._keys.id)]

    def find(self, key_id: str) -> GuestKeyRecord | None:
        with self._database.unit_of_work():
            row = self._keys.get_or_none(self._keys.id == key_id)
            return None if row is None else _record(row)

    def add(self, record: GuestKeyRecord) -> None:
        with self._database.unit_of_work():
            self._keys.create(
                id=record.id, name=record.name, access=record.access, digest=record.digest, created=record.created
            )

    def renew(self, key_id: str, digest: str, now: datetime) -> GuestKeyRecord:
        """Another secret for the same guest, as if it had just been made."""
        return self._change(key_id, digest=digest, created=now, seen=None, address="")

    def rename(self, key_id: str, name: str) -> GuestKeyRecord:
        return self._change(key_id, name=name)

    def seen(self, key_id: str, now: datetime, address: str) -> None:
        with self._database.unit_of_work():
            self._keys.update(seen=now, address=address).where(self._keys.id == key_id).execute()

    def revoke(self, key_id: str) -> None:
        with self._database.unit_of_work():
            if not self._keys.delete().where(self._keys.id == key_id).execute():
                raise NotFoundError(f"there is no key '{key_id[:20]}'")

    def _change(self, key_id: str, **values: Any) -> GuestKeyRecord:
        with self._database.unit_of_work():
            changed = self._keys.update(**values).where(self._keys.id == key_id).returning(self._keys)
            for row in changed.execute():
                return _record(row)
            raise NotFoundError(f"there is no key '{key_id[:20]}'")


def _record(row: Any) -> GuestKeyRecord:
    return GuestKeyRecord(
        id=row.id,
        name=row.name,
        access=Access(row.access),
        digest=row.digest,
        created=row.created,
        seen=row.seen,
        address=row.address,
    )
