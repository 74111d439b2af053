"""What goes wrong, in the data folder: one JSON object a line, without names, keys or sound, so that it can be handed on."""

import json
import logging
import time
import traceback
from datetime import UTC, datetime
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import Any, Final

FOLDER: Final = "log"
"""ASSUMED_ folder below the data folder."""

SERVER, WORKER = "tidy.log", "worker.log"
"""ASSUMED_ names of what a server writes, and a worker beside it."""

LARGEST_BYTES: Final = 1_000_000
"""ASSUMED_ size at which a new file is begun."""

MOST_FILES: Final = 5
"""ASSUMED_ files that are kept: the last few thousand lines."""

DEEPEST: Final = 12
"""ASSUMED_ places of a call stack that are told, the innermost ones: enough to find a fault."""

_logger = logging.getLogger("tidy_trunk")


class _Line(logging.Formatter):
    def format(self, record: logging.LogRecord) -> str:
        return json.dumps(record.msg, separators=(",", ":"))


def open_log(home: Path, name: str = SERVER) -> logging.Handler:
    """From now on `note` writes below this data folder. The handler is to be closed at the end."""
    folder = home / FOLDER
    folder.mkdir(parents=True, exist_ok=True)
    handler = RotatingFileHandler(
        folder / name, maxBytes=LARGEST_BYTES, backupCount=MOST_FILES - 1, encoding="utf-8", delay=True
    )
    handler.setFormatter(_Line())
    _logger.setLevel(logging.INFO)
    _logger.propagate = False
    _logger.addHandler(handler)
    return handler


def close_log(handler: logging.Handler) -> None:
    _logger.removeHandler(handler)
    handler.close()


def note(event: str, error: BaseException | None = None, **facts: Any) -> None:
    """One line. Of an error its kind and where it came from are kept, not its words: they may name what a user typed.

    facts: numbers, and words of the program's own.
    """
    line: dict[str, Any] = {"at": datetime.now(UTC).isoformat(timespec="milliseconds"), "event": event, **facts}
    if error is not None:
        line["error"] = type(error).__name__
        line["stack"] = [
            f"{Path(frame.filename).name}:{frame.lineno} {frame.name}"
            for frame in traceback.extract_tb(error.__traceback__)[-DEEPEST:]
        ]
    _logger.info(line)


def last_lines(home: Path, most: int) -> list[dict[str, Any]]:
    """The newest lines of the newest file; those that a crash cut off are left out."""
    path = home / FOLDER / SERVER
    found = []
    for line in path.read_text(encoding="utf-8").splitlines()[-most:] if path.exists() else []:
        try:
            found.append(json.loads(line))
        except ValueError:
            continue
    return found


def since(start: float) -> int:
    """Milliseconds since a moment of `time.monotonic`."""
    return round((time.monotonic() - start) * 1000)
