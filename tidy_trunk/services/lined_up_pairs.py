"""Pairs that were lined up: remembered when a reading is taken over, listed and forgotten in My equipment."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from typing import Any

from tidy_trunk.core.advice.line_up import LinedUpPair, pair_of
from tidy_trunk.core.plan import LineUp, ReadFrom
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.store import LinedUpPairRecord, LinedUpPairStore


@dataclass(frozen=True, slots=True)
class LinedUpPairService:
    """One method for one thing that a user does with pairs."""

    store: LinedUpPairStore

    def all(self) -> list[LinedUpPair]:
        """The newest first."""
        return pairs_in(self.store)

    def remember(self, report: Report, readings: Sequence[LineUp]) -> None:
        """What readings say of their pairs; those that say nothing are left out."""
        pairs = [pair for reading in readings if (pair := pair_of(report, reading)) is not None]
        self.store.put(
            [
                LinedUpPairRecord(key=pair.key, body=asdict(pair), changed=datetime.fromisoformat(pair.when))
                for pair in pairs
            ]
        )

    def forget(self, key: str) -> None:
        """Raises NotFoundError: no such pair."""
        self.store.delete(key)


def pairs_in(store: LinedUpPairStore) -> list[LinedUpPair]:
    """All pairs, the newest first."""
    return [_pair(record.body) for record in store.all()]


def _pair(body: Mapping[str, Any]) -> LinedUpPair:
    values = {
        **body,
        "way": tuple(body["way"]),
        "cables": tuple(body["cables"]),
        "read_from": ReadFrom(body["read_from"]),
    }
    return LinedUpPair(**values)
