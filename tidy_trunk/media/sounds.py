"""The files of recordings: in a folder that carries the name of the database that lists them.

Several servers and workers may share it. Nothing is removed that a user has not deleted. What no list names is set aside, and
told.
"""

import shutil
import sys
import time
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import Final
from uuid import UUID

from tidy_trunk.store import MediaStore

BEFORE: Final = "kept"
"""ASSUMED_ folder of kept sounds of versions before these data had a name."""


LEFT_S: Final = 3600.0
"""ASSUMED_ age of what came in and nobody reads or sends any more, before it is removed."""


class Media:
    """`incoming`: recordings while they are measured; `kept`: those that a job lists; `aside`: what no list names; `stand_ins`: files
    of simulated days."""

    def __init__(self, folder: Path, store: MediaStore) -> None:
        self._store = store
        own = folder / str(store.identity())
        self.incoming, self.kept, self.aside = own / "incoming", self.kept_below(folder, own.name), own / "set-aside"
        self.stand_ins = own / "stand-ins"
        for place in (self.incoming, self.kept, self.stand_ins):
            place.mkdir(parents=True, exist_ok=True)
        self._take_over(folder / BEFORE)
        self.sweep()
        self._sweep_incoming()
        self._set_aside()

    @staticmethod
    def kept_below(folder: Path, identity: str) -> Path:
        """Where the sounds of these data lie."""
        return folder / identity / "kept"

    def find(self, recording_id: UUID) -> Path:
        """Where a recording lies, or will: kept, if whoever read it before came as far as that."""
        kept = self.kept / str(recording_id)
        return kept if kept.exists() else self.incoming / str(recording_id)

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
        self._sweep_stand_ins()

    def _sweep_stand_ins(self) -> None:
        """Simulated days that nobody lists any more; each lies in a folder that is called as its request."""
        there = list(self.stand_ins.iterdir())
        listed = self._names() if there else frozenset()
        for place in there:
            if place.name not in listed:
                shutil.rmtree(place, ignore_errors=True)

    def _sweep_incoming(self) -> None:
        """What came in and was never read to its end, as after a crash."""
        awaited = {str(recording_id) for recording_id in self._store.awaited()}
        for path in list(self.incoming.iterdir()):
            if path.name.partition(".")[0] not in awaited and time.time() - path.stat().st_mtime > LEFT_S:
                if path.is_dir():
                    shutil.rmtree(path, ignore_errors=True)
                else:
                    path.unlink(missing_ok=True)

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
