"""Who looks at a job hears when it changes: one listener at the database for all windows of this process."""

import asyncio
import threading
from collections.abc import AsyncIterator
from contextlib import suppress
from uuid import UUID

from tidy_trunk.store import ChangedPart, Database, News, listen

OpenWindow = tuple[asyncio.AbstractEventLoop, "asyncio.Queue[News | None]"]
"""Where a window waits for news; None ends it."""


class NewsService:
    """Listens from the first window on."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._windows: dict[UUID, set[OpenWindow]] = {}
        self._lock = threading.RLock()  # a signal may close it while this very thread holds it
        self._listener: threading.Thread | None = None
        self._is_over = False

    async def of(self, job_id: UUID, seconds: float | None = None) -> AsyncIterator[News]:
        """What changes of a job, until the window or the program is closed. First that one should look.

        `seconds`: for no longer than that; a window that is still there asks again.
        """
        window: OpenWindow = (asyncio.get_running_loop(), asyncio.Queue())
        with self._lock:
            if self._is_over:
                return
            self._windows.setdefault(job_id, set()).add(window)
            if self._listener is None:
                self._listener = threading.Thread(target=self._listen, name="news", daemon=True)
                self._listener.start()
        try:
            yield News(job_id, ChangedPart.LOOK)
            end = None if seconds is None else window[0].time() + seconds
            with suppress(TimeoutError):
                while True:
                    async with asyncio.timeout_at(end):
                        news = await window[1].get()
                    if news is None:
                        break
                    yield news
        finally:
            with self._lock:
                self._windows[job_id].discard(window)

    def close(self) -> None:
        """The windows are told that nothing more comes."""
        self._is_over = True
        self._tell(None)

    def _listen(self) -> None:
        listen(self._database, self._tell, lambda: self._is_over)

    def _tell(self, news: News | None) -> None:
        with self._lock:
            every = news is None or news.job is None
            found = [
                window
                for job_id, windows in self._windows.items()
                if every or (news is not None and job_id == news.job)
                for window in windows
            ]
        for loop, queue in found:
            if not loop.is_closed():
                loop.call_soon_threadsafe(queue.put_nowait, news)
