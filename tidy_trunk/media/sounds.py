"""The files of recordings: in a folder that carries the name of the database that lists them.

Nothing is removed that a user has not deleted. What no list names is set aside, and told.
"""

import shutil
import sys
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import Final
from uuid import UUID

from tidy_trunk.store import MediaStore

BEFORE: Final = "kept"
"""ASSUMED_ folder of kept sounds of versions before these data had a name."""


class Media:
    """`incoming`: recordings while they are measured; `kept`: those that a job lists; `aside`: what no list names."""

    def __init__(self, folder: Path, store: MediaStore) -> None:
        self._store = store
        own = folder / str(store.identity())
        self.incoming, self.kept, self.aside = own / "incoming", self.kept_below(folder, own.name), own / "set-aside"
        shutil.rmtree(self.incoming, ignore_errors=True)  # a start is the end of whatever was being measured
        for place in (self.incoming, self.kept):
            place.mkdir(parents=True, exist_ok=True)
        self._take_over(folder / BEFORE)
        self.sweep()
        self._set_aside()

    @staticmethod
    def kept_below(folder: Path, identity: str) -> Path:
        """Where the sounds of these data lie."""
        return folder / identity / "kept"

    def keep(self, recording_id: UUID) -> None:
        """What came in of a recording stays, with all that was laid beside it."""
        for part in self._parts(self.incoming, recording_id):
            part.replace(self.kept / part.name)
        if recording_id not in self._store.listed():
            self._remove([recording_id])  # it was deleted while it was measured

    def throw_away(self, recording_id: UUID) -> None:
        """What came in of a recording is not wanted any more."""
        for part in self._parts(self.incoming, recording_id):
            part.unlink(missing_ok=True)

    def sweep(self) -> None:
        """Remove the files of recordings that were deleted: at once, and after a crash at the next start."""
        unwanted = self._store.unwanted()
        # One that is still being measured may come to be kept in this moment: it stays written down until it is gone.
        measured = {recording_id for recording_id in unwanted if any(self._parts(self.incoming, recording_id))}
        if unwanted:
            self._remove(unwanted)
            self._store.forget(unwanted - measured)

    def close(self) -> None:
        shutil.rmtree(self.incoming, ignore_errors=True)

    def _remove(self, recording_ids: Iterable[UUID]) -> None:
        for recording_id in recording_ids:
            for part in self._parts(self.kept, recording_id):
                part.unlink(missing_ok=True)

    def _parts(self, place: Path, recording_id: UUID) -> Iterator[Path]:
        return place.glob(f"{recording_id}*")

    def _take_over(self, before: Path) -> None:
        """What an older version kept, as far as these data list it; the rest may be another database's."""
        if before.is_dir():
            listed = self._names()
            for path in list(before.iterdir()):
                if path.name.partition(".")[0] in listed:
                    path.replace(self.kept / path.name)
            left = len(list(before.iterdir()))
            if left:
                _tell(f"{left} sounds in {before} are of no recording here: they stay where they are")

    def _set_aside(self) -> None:
        listed = self._names()
        strange = [path for path in self.kept.iterdir() if path.name.partition(".")[0] not in listed]
        if strange:
            self.aside.mkdir(exist_ok=True)
            for path in strange:
                path.replace(self.aside / path.name)
            _tell(f"{len(strange)} sounds that no job lists were set aside in {self.aside}")

    def _names(self) -> frozenset[str]:
        return frozenset(str(recording_id) for recording_id in self._store.listed())


def _tell(message: str) -> None:
    print(f"tidy: {message}", file=sys.stderr, flush=True)
