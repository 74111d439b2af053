"""What changes in the database, told by itself: to every process that listens, once it is committed."""

import json
import time
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Final
from uuid import UUID

import psycopg

from tidy_trunk.store.database import NEWS, Database

LOOK_S: Final = 1.0
"""ASSUMED_ how often a listener looks whether anybody still listens, and after a break whether the server is back."""


class ChangedPart(StrEnum):
    """What of a job has changed. LOOK: nobody knows, as nothing could be heard for a while."""

    PLAN = "plan"
    RECORDINGS = "recordings"
    LOG = "log"
    LOOK = "look"


@dataclass(frozen=True, slots=True)
class News:
    """`job`: None for all of them; `revision`: the newest one, for a plan."""

    job: UUID | None
    what: ChangedPart
    revision: int = 0


def listen(database: Database, tell: Callable[[News], None], is_over: Callable[[], bool]) -> None:
    """Tell what changes until it is over. Where the server goes away, it is waited for."""
    while not is_over():
        try:
            with psycopg.connect(database.url, autocommit=True) as connection:
                connection.execute(f"listen {NEWS}")
                tell(News(None, ChangedPart.LOOK))
                while not is_over():
                    for notice in connection.notifies(timeout=LOOK_S):
                        job, what, revision = json.loads(notice.payload)
                        tell(News(UUID(job), ChangedPart(what), revision))
        except psycopg.OperationalError:
            time.sleep(LOOK_S)
