"""Jobs and revisions on a real PostgreSQL."""

import threading
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from uuid import uuid4

import pytest

from tidy_trunk.errors import (
    NotFoundError,
    NothingToUndoError,
    RevisionConflictError,
    SetupError,
    StoreUnavailableError,
)
from tidy_trunk.store import Database, JobStore, migrate
from tidy_trunk.store.migrate import FOLDER

NOW = datetime(2026, 5, 4, 6, 30, tzinfo=UTC)


@pytest.fixture
def store(database):
    return JobStore(database)


def count_up(document):
    number = document["n"] + 1
    return {**document, "n": number}, document["name"], f"to {number}"


def begin(store):
    return store.create(uuid4(), "Job", {"name": "Job", "n": 0}, "New", NOW).job


def test_undo_and_redo_walk_the_edits(store):
    job = begin(store)
    for base in (1, 2, 3):
        store.edit(job, base, count_up, NOW)

    def n(record):
        return record.document["n"]

    assert n(store.undo(job, 4, NOW)) == 2
    assert n(store.undo(job, 5, NOW)) == 1
    assert n(store.redo(job, 6, NOW)) == 2
    last = store.redo(job, 7, NOW)
    assert n(last) == 3 and not last.can_redo and last.can_undo
    assert n(store.undo(job, 8, NOW)) == 2
    edited = store.edit(job, 9, count_up, NOW)
    assert n(edited) == 3 and not edited.can_redo, "a new edit ends what could be redone"
    assert n(store.undo(job, 10, NOW)) == 2
    assert [record.sentence for record in store.history(job)][:3] == ["Undo: to 3", "to 3", "Undo: to 3"]


def test_what_is_sent_again_is_done_once_and_answered_alike(store):
    job, sent = begin(store), [uuid4() for _ in range(3)]
    first, again = (store.edit(job, 1, count_up, NOW, "Ann", sent[0]) for _ in range(2))
    assert first == again and first.number == 2
    assert store.undo(job, 2, NOW, "", sent[1]) == store.undo(job, 2, NOW, "", sent[1])
    assert store.redo(job, 3, NOW, "", sent[2]) == store.redo(job, 3, NOW, "", sent[2])
    assert store.head(job) == 4
    assert store.edit(job, 1, count_up, NOW, "Ann", sent[0]).number == 2, (
        "whoever was first, and however late it is asked"
    )
    with pytest.raises(RevisionConflictError):
        store.edit(job, 1, count_up, NOW, "Ann", uuid4())


def test_what_changes_nothing_is_no_revision(store):
    job = begin(store)
    same = store.edit(job, 1, lambda document: (dict(document), "Job", "nothing"), NOW)
    assert same == store.newest(job) and store.head(job) == 1


def test_a_job_that_is_sent_again_is_one_job(store):
    ids = [uuid4()] * 3
    with ThreadPoolExecutor(3) as pool:
        made = list(pool.map(lambda job: store.create(job, "Job", {"name": "Job", "n": 0}, "New", NOW), ids))
    assert {record.number for record in made} == {1} and len(store.all()) == 1


def test_the_first_state_cannot_be_undone(store):
    job = begin(store)
    with pytest.raises(NothingToUndoError):
        store.undo(job, 1, NOW)
    with pytest.raises(NothingToUndoError):
        store.redo(job, 1, NOW)


def test_an_earlier_state_comes_back_and_can_be_undone(store):
    job = begin(store)
    for base in (1, 2, 3):
        store.edit(job, base, count_up, NOW)
    assert store.bring_back(job, 4, 2, NOW).document["n"] == 1
    assert store.undo(job, 5, NOW).document["n"] == 3


def test_an_edit_on_an_old_state_is_refused(store):
    job = begin(store)
    store.edit(job, 1, count_up, NOW)
    with pytest.raises(RevisionConflictError) as refusal:
        store.edit(job, 1, count_up, NOW)
    assert refusal.value.details["newest_revision"] == 2
    assert store.newest(job).document["n"] == 1


def test_of_many_edits_at_once_one_wins(store):
    job = begin(store)
    results = []

    def attempt():
        try:
            store.edit(job, 1, count_up, NOW)
            results.append("won")
        except RevisionConflictError:
            results.append("refused")

    threads = [threading.Thread(target=attempt) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(results) == ["refused"] * 5 + ["won"]
    assert store.newest(job).number == 2


def test_a_slow_change_locks_nobody_out(store):
    """Evaluating a large plan takes long: a row lock held meanwhile would stop everybody else, and here for ever."""
    job = begin(store)

    def slow(document):
        store.edit(job, 1, count_up, NOW)
        return count_up(document)

    with pytest.raises(RevisionConflictError):
        store.edit(job, 1, slow, NOW)
    assert store.newest(job).number == 2


def test_a_change_that_fails_leaves_nothing(store):
    job = begin(store)
    with pytest.raises(ZeroDivisionError):
        store.edit(job, 1, lambda document: 1 / 0, NOW)
    assert store.newest(job).number == 1


def test_what_is_not_there(store):
    job = begin(store)
    with pytest.raises(NotFoundError):
        store.newest(uuid4())
    with pytest.raises(NotFoundError):
        store.revision(job, 7)
    store.delete(job)
    with pytest.raises(NotFoundError):
        store.delete(job)


def test_two_starts_at_once_migrate_once(database_url):
    found, databases = [], [Database(database_url) for _ in range(2)]
    threads = [
        threading.Thread(target=lambda database=database: found.append(migrate(database))) for database in databases
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    for database in databases:
        database.close()
    assert sorted(map(len, found)) == [0, len(list(FOLDER.glob("0*.py")))], (
        "one start applies all migrations, the other finds nothing to do"
    )


def test_a_database_from_a_newer_version_is_refused(database_url):
    database = Database(database_url)
    migrate(database)
    with database.unit_of_work():
        database.pool.execute_sql("insert into schema_migration (name, applied) values ('9999_future', now())")
    with pytest.raises(SetupError, match="9999_future"):
        migrate(database)
    database.close()


@pytest.mark.parametrize(
    ("url", "error"),
    [
        ("postgresql://nobody@127.0.0.1:1/nothing", StoreUnavailableError),
        ("postgresql://nobody@127.0.0.1:1", SetupError),
        ("what is this", SetupError),
    ],
)
def test_addresses_that_lead_nowhere(url, error):
    with pytest.raises(error):
        migrate(Database(url))
