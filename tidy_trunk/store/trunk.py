"""The trunk of the user, beside all jobs; what jobs have claimed of it, and what was packed for them."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from enum import StrEnum
from typing import Any
from uuid import UUID

from tidy_trunk.core.trunk import MOST_PIECES, Piece, PieceKind
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.store.database import Database


class PackingState(StrEnum):
    """Where a line of the packing list is."""

    OPEN = "open"
    PACKED = "packed"
    BACK = "back"  # in the trunk again, at the end of the day
    MISSING = "missing"  # looked for at the end of the day, and not found


@dataclass(frozen=True, slots=True, kw_only=True)
class TickRecord:
    """item: id of a line; made: when somebody ticked it, which may be long before it arrived here."""

    item: str
    state: PackingState
    who: str
    made: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class ClaimRecord:
    """A piece that a job uses on a day. need: of the job, that it serves."""

    piece: str
    day: str
    job: UUID
    job_name: str
    need: str


class TrunkStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def all(self) -> list[Piece]:
        """Every piece, in the order in which they came."""
        table = self._tables.TrunkPiece
        with self._database.unit_of_work():
            return [_piece(row) for row in table.select().order_by(table.seq)]

    def add(self, pieces: Sequence[Piece], now: datetime) -> None:
        """All of them or none; one that is there already stays as it is, so that they may be sent again.

        Raises InputError: more than a trunk holds.
        """
        table = self._tables.TrunkPiece
        with self._database.unit_of_work():
            if table.select().count() + len(pieces) > MOST_PIECES:
                raise InputError(f"a trunk holds at most {MOST_PIECES} pieces: write cells and tape as one line")
            for piece in pieces:
                row = {"id": UUID(piece.id), "body": _body(piece), "changed": now}
                table.insert(row).on_conflict_ignore().execute()

    def put(self, pieces: Sequence[Piece], now: datetime) -> None:
        """Pieces that are there, changed. Raises NotFoundError: one that is not."""
        table = self._tables.TrunkPiece
        with self._database.unit_of_work():
            for piece in pieces:
                if not table.update(body=_body(piece), changed=now).where(table.id == UUID(piece.id)).execute():
                    raise NotFoundError(f"there is no piece {piece.id} in the trunk")

    def remove(self, ids: Sequence[UUID]) -> None:
        """Those that are there; with what was claimed of them."""
        table = self._tables.TrunkPiece
        with self._database.unit_of_work():
            table.delete().where(table.id.in_(list(ids))).execute()

    def photographed(self) -> frozenset[str]:
        """Ids of the pieces of which there is a photograph."""
        table = self._tables.PiecePhoto
        with self._database.unit_of_work():
            return frozenset(str(row.piece_id) for row in table.select(table.piece))

    def put_photo(self, piece_id: UUID, jpeg: bytes) -> None:
        """In place of the one before. Raises NotFoundError: there is no such piece."""
        table, pieces = self._tables.PiecePhoto, self._tables.TrunkPiece
        with self._database.unit_of_work():
            if not pieces.select().where(pieces.id == piece_id).exists():
                raise NotFoundError(f"there is no piece {piece_id} in the trunk")
            insert = table.insert(piece=piece_id, jpeg=jpeg)
            insert.on_conflict(conflict_target=[table.piece], update={"jpeg": jpeg}).execute()

    def photo(self, piece_id: UUID) -> bytes:
        """Raises NotFoundError."""
        table = self._tables.PiecePhoto
        with self._database.unit_of_work():
            row = table.get_or_none(table.piece == piece_id)
            if row is None:
                raise NotFoundError(f"there is no photograph of piece {piece_id}")
            return bytes(row.jpeg)

    def remove_photo(self, piece_id: UUID) -> None:
        """Raises NotFoundError."""
        table = self._tables.PiecePhoto
        with self._database.unit_of_work():
            if not table.delete().where(table.piece == piece_id).execute():
                raise NotFoundError(f"there is no photograph of piece {piece_id}")

    def claims(self, day: str) -> list[ClaimRecord]:
        """What is claimed for a day."""
        table, job = self._tables.TrunkClaim, self._tables.Job
        with self._database.unit_of_work():
            rows = table.select(table, job.id, job.name).join(job).where(table.day == day).order_by(table.piece)
            return [
                ClaimRecord(piece=str(row.piece_id), day=row.day, job=row.job.id, job_name=row.job.name, need=row.need)
                for row in rows
            ]

    def claim(self, job_id: UUID, day: str, pieces: Sequence[tuple[UUID, str]]) -> None:
        """The pieces that a job uses on a day, with what each serves, in place of those that it had claimed before.

        Raises InputError: another job has claimed one of them meanwhile.
        """
        table = self._tables.TrunkClaim
        with self._database.unit_of_work():
            table.delete().where(table.job == job_id).execute()
            for piece, need in pieces:
                row = {"piece": piece, "day": day, "job": job_id, "need": need}
                if not list(table.insert(row).on_conflict_ignore().returning(table.piece).execute()):
                    raise InputError("another job has claimed one of these pieces for that day: look again")

    def release(self, job_id: UUID) -> None:
        """Nothing is claimed by a job any more."""
        table = self._tables.TrunkClaim
        with self._database.unit_of_work():
            table.delete().where(table.job == job_id).execute()

    def ticks(self, job_id: UUID) -> list[TickRecord]:
        table = self._tables.PackingTick
        with self._database.unit_of_work():
            rows = table.select().where(table.job == job_id).order_by(table.item)
            return [
                TickRecord(item=row.item, state=PackingState(row.state), who=row.who, made=row.made) for row in rows
            ]

    def tick(self, job_id: UUID, ticks: Sequence[TickRecord]) -> None:
        """Each counts if it was made after the one that stands there: so they may arrive in any order.

        Raises NotFoundError: no such job.
        """
        table = self._tables.PackingTick
        with self._database.unit_of_work():
            if not self._tables.Job.select().where(self._tables.Job.id == job_id).exists():
                raise NotFoundError(f"there is no job {job_id}")
            for tick in ticks:
                values = {"state": tick.state, "who": tick.who, "made": tick.made}
                insert = table.insert(job=job_id, item=tick.item, **values)
                newer = table.made <= tick.made
                insert.on_conflict(conflict_target=[table.job, table.item], update=values, where=newer).execute()


def _body(piece: Piece) -> dict[str, Any]:
    return {name: value for name, value in asdict(piece).items() if name != "id"}


def _piece(row: Any) -> Piece:
    return Piece(id=str(row.id), **{**row.body, "kind": PieceKind(row.body["kind"])})
