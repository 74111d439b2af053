"""What several ask for at once is worked out once."""

import threading
from collections.abc import Callable, Hashable
from concurrent.futures import Future
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class SharedAnswers(Generic[K, V]):
    """Answers by what was asked: whoever asks for one that is being worked out waits for it, and the newest few are kept."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._known: dict[K, Future[V]] = {}
        self._lock = threading.Lock()

    def get(self, key: K, make: Callable[[], V], is_whole: Callable[[V], bool] = lambda _: True) -> V:
        """The answer to `key`. One that is not whole, as its asker went away, is not kept. Raises as `make`."""
        with self._lock:
            known = self._known.get(key)
            mine: Future[V] = Future()
            if known is None:
                self._known[key] = mine
                while len(self._known) > self._most:
                    del self._known[next(iter(self._known))]
        if known is not None:
            answer = known.result()
            return answer if is_whole(answer) else make()
        try:
            answer = make()
        except BaseException as error:
            self._forget(key, mine)
            mine.set_exception(error)
            raise
        if not is_whole(answer):
            self._forget(key, mine)
        mine.set_result(answer)
        return answer

    def _forget(self, key: K, mine: "Future[V]") -> None:
        with self._lock:
            if self._known.get(key) is mine:
                del self._known[key]
