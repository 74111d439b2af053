"""A worker: takes what waits in the queue, a few at once, and has each read in a process of its own.

Every server has one on a thread; `./tidy worker` is one more, on this machine or another. One that dies leaves what it had begun
to the others.
"""

import asyncio
import json
import logging
import sys
import threading
from contextlib import suppress
from dataclasses import replace
from pathlib import Path
from typing import Any, Final
from uuid import UUID

from procrastinate import App, JobContext
from procrastinate.exceptions import ConnectorException, JobAborted
from procrastinate.job_context import AbortReason
from procrastinate.jobs import Job
from procrastinate.retry import BaseRetryStrategy, RetryDecision
from procrastinate.worker import Worker as QueueWorker
from psycopg import Error as DatabaseError
from psycopg_pool import PoolTimeout

from tidy_trunk.errors import StoreUnavailableError
from tidy_trunk.media.sounds import Media
from tidy_trunk.settings import AT_ONCE
from tidy_trunk.store import Database, RecordingRecord, RecordingState, RecordingStore
from tidy_trunk.tasks.queue import TASK, queue_app
from tidy_trunk.tasks.requests import (
    CopyDay,
    Match,
    Measure,
    PlanGain,
    PlayDay,
    ReadDay,
    Request,
    request_document,
    request_of,
)
from tidy_trunk.upkeep.log import note

LONGEST_S: Final = 1800.0
"""ASSUMED_ time after which a reader is ended: four hours of eight channels take a tenth of it."""

LONGEST_OF_DAY_S: Final = 12 * 3600.0
"""ASSUMED_ time for the files of a whole day: two terabytes over a slow bus."""

MOST_BEGINS: Final = 5
"""ASSUMED_ times that one recording is begun, where whoever read it died over it."""

ALIVE_S: Final = 2.0
"""ASSUMED_ how often a worker says that it is alive."""

DEAD_S: Final = 10.0
"""ASSUMED_ silence after which a worker counts as dead, and others begin anew what it had: five times that."""

AGAIN_S: Final = 1.0
"""ASSUMED_ time between two tries to reach the database."""

LARGEST_RESULT_BYTES: Final = 64_000_000
"""ASSUMED_ largest result of one request: that of 200 files takes a hundredth."""

NO_LAST_WORD: Final = "it could not be read to its end: try a part of it"

BEGUN_TOO_OFTEN: Final = f"whoever read it was ended {MOST_BEGINS} times over it: drop it in again"

TOO_LONG: Final = f"it took longer than {LONGEST_S / 60:.0f} minutes: give a part of it"

logging.getLogger("procrastinate").setLevel(logging.CRITICAL)  # what matters of it is noted in our own log


class Worker:
    """Works on a thread from `start` until `stop`, and waits for the database where that is away."""

    def __init__(self, database: Database, media: Media, at_once: int = AT_ONCE) -> None:
        """`at_once`: recordings that are read at once; with 0 this one does nothing, and leaves them to others."""
        self._database = database
        self._store = RecordingStore(database)
        self._media = media
        self._at_once = at_once
        self._reading: dict[UUID, str] = {}
        self._thread: threading.Thread | None = None
        self._running: QueueWorker | None = None
        self._is_over = threading.Event()
        self._lock = threading.Lock()

    def start(self) -> None:
        """Begin, unless it has."""
        with self._lock:
            if self._thread is None and self._at_once and not self._is_over.is_set():
                self._thread = threading.Thread(target=self.run, name="worker", daemon=True)
                self._thread.start()

    @property
    def reading(self) -> list[str]:
        """Names of what is being read now."""
        return list(self._reading.values())

    def stop(self) -> list[str]:
        """End; names of what is cut, and begun anew by the next worker."""
        self._is_over.set()
        cut = self.reading
        with suppress(RuntimeError):  # its loop ended in this very moment
            if self._running is not None:
                self._running.stop()  # type: ignore[no-untyped-call]
        if self._thread is not None:
            self._thread.join()
        return cut

    def run(self) -> None:
        """On this thread, until `stop` is called from another."""
        while not self._is_over.is_set():
            try:
                asyncio.run(self._work())
            except (ConnectorException, DatabaseError, PoolTimeout, StoreUnavailableError) as error:
                note("the queue does not answer", error)
            self._is_over.wait(AGAIN_S)

    async def _work(self) -> None:
        app = queue_app(self._database, connections=self._at_once + 3)
        app.task(name=TASK, pass_context=True, retry=_UnlessItFailed())(self._read)
        async with app.open_async():
            self._running = QueueWorker(
                app=app,
                concurrency=self._at_once,
                install_signal_handlers=False,
                shutdown_graceful_timeout=0,
                delete_jobs="always",
                update_heartbeat_interval=ALIVE_S,
                stalled_worker_timeout=DEAD_S,
            )
            rescue = asyncio.create_task(_rescue(app))
            try:
                if not self._is_over.is_set():
                    await self._running.run()  # type: ignore[no-untyped-call]
            finally:
                self._running = None
                rescue.cancel()

    async def _read(self, context: JobContext, recording_id: str) -> None:
        record = await asyncio.to_thread(self._store.begin, UUID(recording_id))
        if record is None:
            self._media.throw_away(UUID(recording_id))
            return
        self._reading[record.id] = record.name
        is_day = isinstance(request_of(record.asked), ReadDay | CopyDay)
        try:
            if context.job.attempts >= MOST_BEGINS:
                answer: dict[str, Any] = {"problem": BEGUN_TOO_OFTEN}
            else:
                async with asyncio.timeout(LONGEST_OF_DAY_S if is_day else LONGEST_S):
                    answer = await self._answer(record)
            await asyncio.to_thread(self._finish, record, answer)
        except TimeoutError:
            await asyncio.to_thread(self._finish, record, {"problem": TOO_LONG})
        except asyncio.CancelledError:
            if context.abort_reason() is AbortReason.USER_REQUEST:
                self._media.throw_away(record.id)
                raise JobAborted from None
            raise
        finally:
            self._reading.pop(record.id, None)

    async def _answer(self, record: RecordingRecord) -> dict[str, Any]:
        """The last word of the process that reads a recording."""
        request = request_of(record.asked)
        path = self._place(record.id, request)
        process = await asyncio.create_subprocess_exec(
            *(sys.executable, "-m", "tidy_trunk.tasks.reader", str(path)),
            stdin=asyncio.subprocess.PIPE,
            stdout=asyncio.subprocess.PIPE,
            stderr=asyncio.subprocess.DEVNULL,
            limit=LARGEST_RESULT_BYTES,
            cwd=Path(__file__).parents[2],
        )
        assert process.stdin is not None and process.stdout is not None  # asked for
        try:
            with suppress(BrokenPipeError, ConnectionResetError):  # it has ended already
                process.stdin.write(json.dumps(request_document(request)).encode())
                process.stdin.close()
            async for line in process.stdout:
                told: dict[str, Any] = json.loads(line)
                if "progress" not in told:
                    return told
                if not await asyncio.to_thread(self._store.progress, record.id, told["progress"]):
                    return {}  # nobody wants it any more
            return {"problem": NO_LAST_WORD}
        finally:
            await end(process)

    def _place(self, recording_id: UUID, request: Request) -> Path:
        """The file that a request is about; of those that are about none, the folder that its reader may write in."""
        match request:
            case Match() | PlanGain():
                return self._media.kept
            case ReadDay() | CopyDay():
                return self._media.incoming
            case PlayDay():
                return self._media.stand_ins
        return self._media.find(recording_id)

    def _finish(self, record: RecordingRecord, answer: dict[str, Any]) -> None:
        # Where its sound lies is settled before anybody is told that it is over.
        if "result" in answer and request_of(record.asked).keep:
            self._media.keep(record.id)
        self._media.throw_away(record.id)
        if "result" in answer:
            result, request = answer["result"], request_of(record.asked)
            if isinstance(request, Measure) and request.plan is not None:
                # The plan was there to be simulated; what the meters showed belongs to what is asked of them.
                request = replace(request, plan=None, shown=tuple(result.pop("shown")))
            self._store.finish(record.id, RecordingState.DONE, result=result, asked=request_document(request))
        elif "problem" in answer:
            self._store.finish(record.id, RecordingState.FAILED, answer["problem"])


async def end(process: asyncio.subprocess.Process) -> None:
    """Kill a process, and see it gone, even where whoever waits is cancelled once more by the end of the worker: it takes a moment."""
    with suppress(ProcessLookupError):
        process.kill()
    while process.returncode is None:
        with suppress(asyncio.CancelledError):
            await process.wait()


class _UnlessItFailed(BaseRetryStrategy):
    """What was cut short by the end of a worker or of the database is begun anew; what came to an end is over."""

    def get_retry_decision(self, *, exception: BaseException, job: Job) -> RetryDecision | None:
        is_cut = isinstance(exception, (asyncio.CancelledError, StoreUnavailableError))
        return RetryDecision() if is_cut else None


async def _rescue(app: App) -> None:
    """What a dead worker has left goes back into the queue."""
    while True:
        with suppress(ConnectorException):  # it was rescued by another in this moment; or the worker ends of it too
            for job in await app.job_manager.get_stalled_jobs(seconds_since_heartbeat=DEAD_S):
                await app.job_manager.retry_job(job)
        await asyncio.sleep(ALIVE_S)
