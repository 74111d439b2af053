"""What the database knows of the files beside it: whose they are, which are listed, and which are to go."""

from collections.abc import Collection
from uuid import UUID, uuid4

from tidy_trunk.store.database import Database
from tidy_trunk.store.recordings import RecordingState


class MediaStore:
    """Every method is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._tables = database.tables

    def identity(self) -> UUID:
        """The name of these data, given when the database was made and never changed; any where an older version made it."""
        with self._database.unit_of_work():
            if not self._tables.DataIdentity.table_exists():
                return uuid4()
            found: UUID = self._tables.DataIdentity.get().id
            return found

    def count_jobs(self) -> int:
        """How many jobs these data hold."""
        with self._database.unit_of_work():
            return int(self._tables.Job.select().count())

    def server(self) -> tuple[str, int]:
        """The version of PostgreSQL, and how many bytes it keeps for these data."""
        with self._database.unit_of_work():
            asked = "select current_setting('server_version'), pg_database_size(current_database())"
            version, size = self._database.pool.execute_sql(asked).fetchone()
            return str(version), int(size)

    def listed(self) -> frozenset[UUID]:
        """All recordings of all jobs."""
        table = self._tables.Recording
        with self._database.unit_of_work():
            return frozenset(row.id for row in table.select(table.id))

    def awaited(self) -> frozenset[UUID]:
        """Recordings that are still to be read, and those that are on their way in."""
        table, upload = self._tables.Recording, self._tables.Upload
        open_states = [state for state in RecordingState if not state.is_over]
        with self._database.unit_of_work():
            reading = {row.id for row in table.select(table.id).where(table.state.in_(open_states))}
            return frozenset(reading | {row.id for row in upload.select(upload.id)})

    def unwanted(self) -> frozenset[UUID]:
        """Recordings that were deleted, and of which files may be left."""
        table = self._tables.UnwantedMedia
        with self._database.unit_of_work():
            return frozenset(row.recording_id for row in table.select())

    def forget(self, recording_ids: Collection[UUID]) -> None:
        """Their files are gone."""
        table = self._tables.UnwantedMedia
        with self._database.unit_of_work():
            table.delete().where(table.recording_id.in_(list(recording_ids))).execute()
