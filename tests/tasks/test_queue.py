"""The queue: each recording is read by a worker, in a process of its own, to its end."""

import asyncio
import os
import signal
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from functools import cache, partial
from pathlib import Path
from uuid import UUID, uuid4

import numpy as np
import psycopg
import pytest

from tests.plans import boom_in_bag
from tests.sounds import wav
from tests.waiting import wait
from tidy_trunk.services.container import services_on
from tidy_trunk.store import RecordingState
from tidy_trunk.tasks.requests import Measure
from tidy_trunk.tasks.worker import NO_LAST_WORD, end

RATE = 48_000
TONE = wav(0.1 * np.sin(2 * np.pi * 1000 * np.arange(2 * RATE) / RATE), rate=RATE)


@cache
def long():
    return wav(np.tile(np.random.default_rng(1).normal(0, 0.1, 60 * RATE), 5), rate=RATE)


"""Many times longer to read than a busy machine needs to cancel it."""


@pytest.fixture
def job(services) -> UUID:
    return services.jobs.create(boom_in_bag()).revision.job


def dropped(services, job, data, request=Measure()):  # noqa: B008, it cannot be changed
    """A recording that has arrived whole."""
    recordings = services.recordings
    record = recordings._new(job, "take.wav", len(data), request, uuid4())
    (services.media.incoming / str(record.id)).write_bytes(data)
    recordings._store.add(record, partial(recordings._queue.put, record.id))
    return lambda: recordings.get(job, record.id)


def readers():
    """Processes that this one has started to read something."""
    found = set()
    for place in Path("/proc").glob("[0-9]*"):
        with suppress(OSError):
            parent = int((place / "stat").read_text().rpartition(")")[2].split()[1])
            if parent == os.getpid() and b"tidy_trunk.tasks.reader" in (place / "cmdline").read_bytes():
                found.add(int(place.name))
    return found


def test_a_recording_is_measured_to_its_end(services, job):
    get = dropped(services, job, TONE)
    wait(lambda: get().state.is_over)
    assert get().state is RecordingState.DONE and get().progress == 1
    tone = get().result["channels"][0]["tone"]
    assert tone["level_dbfs"] == pytest.approx(-20, abs=0.05)  # AES17: a full sine is 0 dBFS
    assert not list(services.media.incoming.iterdir()) and not list(services.media.kept.iterdir())


@pytest.mark.deep
def test_what_cannot_be_read_says_why(services, job):
    get = dropped(services, job, b"RIFF")
    wait(lambda: get().state.is_over)
    assert get().state is RecordingState.FAILED and get().message not in ("", NO_LAST_WORD)


def test_a_reader_that_dies_is_told_and_not_begun_again(services, job):
    """As of a file that ends it: it would end the next one too."""
    get = dropped(services, job, long())
    wait(lambda: get().progress > 0)
    for reader in readers():
        os.kill(reader, signal.SIGKILL)
    wait(lambda: get().state.is_over)
    assert (get().state, get().message) == (RecordingState.FAILED, NO_LAST_WORD)


def test_what_is_cancelled_stops_and_what_waits_never_begins(services, job, database):
    gets = []
    for _ in range(2):
        gets.append(dropped(services, job, long()))
        wait(lambda: gets[-1]().progress > 0)
        for reader in readers():
            os.kill(reader, signal.SIGSTOP)  # however busy the machine is, it is not read to its end
    gets.append(dropped(services, job, long()))
    for get in reversed(gets):  # the one that waits first, so that it does not get the place of another
        services.recordings.cancel(job, get().id)
    wait(lambda: not readers())
    assert {get().state for get in gets} == {RecordingState.CANCELLED} and gets[2]().progress == 0
    wait(lambda: not list(services.media.incoming.iterdir()))
    with psycopg.connect(database.url) as connection:
        wait(lambda: connection.execute("select count(*) from procrastinate_jobs").fetchone() == (0,))


@pytest.mark.deep
def test_a_deleted_job_ends_what_is_read_of_it(services, job):
    """Said before: its readers worked on, and their files stayed."""
    get = dropped(services, job, long())
    wait(lambda: get().progress > 0)
    services.jobs.delete(job)
    wait(lambda: not readers())
    wait(lambda: not list(services.media.incoming.iterdir()))


@pytest.mark.deep
def test_what_an_end_of_the_program_cut_is_read_by_the_next_one(services, job, database, tmp_path):
    gets = [dropped(services, job, data) for data in (long(), TONE, TONE)]
    wait(lambda: gets[0]().progress > 0)
    cut = services.close()
    assert "take.wav" in cut and not readers()
    again = services_on(database, tmp_path, tmp_path / "recordings")
    again.start()
    wait(lambda: all(get().state is RecordingState.DONE for get in gets))
    again.close()


@pytest.mark.deep
def test_the_database_goes_away_and_nothing_is_lost(services, job, database):
    """All connections cut: the worker takes the queue up again."""
    get = dropped(services, job, long())
    wait(lambda: get().progress > 0)
    with psycopg.connect(database.url, autocommit=True) as connection:
        connection.execute(
            "select pg_terminate_backend(pid) from pg_stat_activity "
            "where datname = current_database() and pid <> pg_backend_pid()"
        )
    time.sleep(0.2)
    wait(lambda: get().state is RecordingState.DONE)


def test_a_reader_is_seen_gone_however_often_one_is_cancelled():
    """Said before, at the end of a worker: `subprocess is still running`."""

    async def cancelled_twice():
        process = await asyncio.create_subprocess_exec("sleep", "60")
        real = process.wait

        async def slow():
            await asyncio.sleep(0.05)
            return await real()

        process.wait = slow
        ending = asyncio.create_task(end(process))
        for _ in range(2):
            await asyncio.sleep(0.01)
            ending.cancel()
        await ending
        return process.returncode

    with ThreadPoolExecutor(1) as pool:  # on this thread there may be a browser's loop
        assert pool.submit(lambda: asyncio.run(cancelled_twice())).result() == -signal.SIGKILL
