"""Measures one file in a process of its own: `python -m tidy_trunk.services.reader FILE ASKED`.

It tells what it does as lines of JSON on standard output: `{"progress": 0.4}`, and at the end `{"result": …}` or
`{"problem": …}`. The server starts it, reads it, and ends it when nobody wants the answer any more.
"""

import json
import sys
import time
from pathlib import Path
from typing import Any, Final

from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.services.documents import asked_document

TELL_EVERY_S: Final = 0.25
"""ASSUMED_ how often progress is told: as often as somebody looks."""


def read(path: Path, asked: dict[str, Any]) -> dict[str, Any]:
    """What is found in a file, for the store.

    Raises:
        FormatError, InputError: It cannot be measured, or holds no steps where some are asked for.
    """
    told = 0.0

    def progress(share: float) -> None:
        nonlocal told
        if time.monotonic() - told >= TELL_EVERY_S:
            told = time.monotonic()
            print(json.dumps({"progress": round(share, 3)}), flush=True)

    return asked_document(lambda: path.open("rb"), asked, progress)


def main() -> int:
    try:
        answer: dict[str, Any] = {"result": read(Path(sys.argv[1]), json.loads(sys.argv[2]))}
    except TidyTrunkError as error:
        answer = {"problem": error.message}
    except MemoryError:
        answer = {"problem": "the recording does not fit into memory: give a part of it"}
    print(json.dumps(answer, allow_nan=False), flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
