"""Keys of guests: what each may do, and when it was last used. A key itself is nowhere, only what it is recognised by."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any

import peewee

from tidy_trunk.errors import NotFoundError
from tidy_trunk.store.database import Database


class Access(StrEnum):
    """What the holder of a key may do: all that changes jobs; marks of a checklist and the log; or look."""

    CREW = "crew"
    WALK = "walk"
    LOOK = "look"


@dataclass(frozen=True, slots=True, kw_only=True)
class GuestKeyRecord:
    """link: what the secret of the link is recognised by, which lets a telephone in; digest: the same of what that telephone was
    given then, empty before; created, entered: when the link was made, and first used; seen, address: when and from where the
    telephone was here last."""

    id: str
    name: str
    access: Access
    link: str
    created: datetime
    digest: str = ""
    entered: datetime | None = None
    seen: datetime | None = None
    address: str = ""


class GuestKeyStore:
    """Every method is one transaction. Keys that are not there raise NotFoundError."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._keys = database.tables.GuestKey

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
                id=record.id, name=record.name, access=record.access, link=record.link, created=record.created
            )

    def renew(self, key_id: str, link: str, now: datetime) -> GuestKeyRecord:
        """Another link for the same guest, as if it had just been made; the telephone that was let in is out."""
        return self._change(key_id, link=link, digest="", created=now, entered=None, seen=None, address="")

    def enter(self, key_id: str, digest: str, now: datetime) -> GuestKeyRecord:
        """A telephone is let in; one that was before is out."""
        entered = peewee.fn.coalesce(self._keys.entered, now)
        return self._change(key_id, digest=digest, entered=entered)

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
        link=row.link,
        digest=row.digest,
        created=row.created,
        entered=row.entered,
        seen=row.seen,
        address=row.address,
    )
