"""Day and Log: a long day planned and planned anew, a report of many takes, a folder's checksums."""

import hashlib
import os
import shutil
import statistics
import tempfile
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from uuid import uuid4

import numpy as np
import xxhash

from tidy_trunk.app.demo import foundry
from tidy_trunk.core.day import plan_day
from tidy_trunk.core.plan import Plan, RemoveBreak, RemoveSetUp, SaveSetUp, SetJob, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.formats import Broadcast, TakeLabels, write_broadcast
from tidy_trunk.media.copying import CopyOrder, copy_files
from tidy_trunk.media.day_files import day_files
from tidy_trunk.media.manifests import write_manifest
from tidy_trunk.reports import report_sheet
from tidy_trunk.results.log import LogOut

SET_UPS, TAKES, FILES = 40, 200, 300
"""Of the day, of the report and of the day's folders. ASSUMED_"""


def long_day(takes: int, between_min: float) -> Plan:
    """The demo's rig through forty set-ups without a break, from seven in the morning to ten at night."""
    made: list[object] = [RemoveSetUp(id=key) for key in foundry().set_ups]
    made += [RemoveBreak(id=key) for key in foundry().breaks]
    made.append(SetJob(day_begins_min=7 * 60, day_ends_min=22 * 60))
    for number in range(SET_UPS):
        made.append(
            SaveSetUp(
                label=f"{number + 1}A", at_min=8 * 60 + 20 * number, takes=takes, take_min=1.4, between_min=between_min
            )
        )
    return apply_edits(foundry(), made)  # type: ignore[arg-type]


def days(timed: Callable[[Callable[[], object], int], list[float]]) -> Iterator[tuple[str, float, str]]:
    """Name, milliseconds and goal of each line."""
    for words, plan in (("five takes each", long_day(5, 1.5)), ("back to back", long_day(12, 0.1))):
        report = Report(trace_plan(plan))
        name = f"a day of {SET_UPS} set-ups, {words}"
        yield (
            f"{name}: first answer",
            statistics.median(timed(lambda at=report: plan_day(at, is_first=True), 5)),
            "300 ms",
        )  # type: ignore[misc]
        yield f"{name}: the best one", statistics.median(timed(lambda at=report: plan_day(at), 5)), "1000 ms"  # type: ignore[misc]
    log = many_takes()
    made = datetime(2026, 1, 1, tzinfo=UTC)
    yield (
        f"a report of {TAKES} takes as PDF",
        statistics.median(timed(lambda: report_sheet(log, paper="a4", made=made), 3)),
        "3000 ms",
    )


def many_takes() -> LogOut:
    began = datetime(2026, 1, 1, 8, tzinfo=UTC)
    takes = []
    for number in range(TAKES):
        at = began + timedelta(minutes=3 * number)
        label = f"{number // 5 + 1}A"
        note = {
            "at": at.isoformat(),
            "clock": "",
            "text": "plane",
            "where": "Bag recorder track 1",
            "is_fault": False,
            "who": "",
        }
        takes.append(
            {
                "id": str(uuid4()), "label": f"{label}-{number % 5 + 1}", "slate": label, "number": number % 5 + 1,
                "begins": at.isoformat(), "ends": at.isoformat(), "clock": "", "timecode": f"{at:%H:%M:%S}:00",
                "end_timecode": f"{at:%H:%M:%S}:00", "seconds": 82.0, "length": "1:22", "status": "circled",
                "status_words": "circled", "text": "", "who": "", "struck": False, "revision": 1,
                "notes": [note] * (number % 3), "corrections": [],
            }
        )  # fmt: skip
    slate = {"slate": "1A", "number": 1, "label": "1A-1"}
    since = {"room_tone_min": None, "line_up_min": None, "jam_min": None}
    head = {
        "seq": 1,
        "summary": "",
        "job": "Bench",
        "day": "2026-01-01",
        "zone": "",
        "rate": "25",
        "sample_rate_hz": 48_000,
    }
    return LogOut.model_validate(
        {
            **head,
            "running": "",
            "next": slate,
            "next_set_up": slate,
            "since": since,
            "takes": takes,
            "tracks": [],
            "findings": [],
        }
    )


def heads() -> float:
    """Milliseconds for the heads of three hundred recordings, each read in a process of its own."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name) / "Bag"
        folder.mkdir()
        silence = [np.zeros((2, 48_000), dtype=np.float32)]
        for number in range(FILES):
            with (folder / f"R{number:03}.WAV").open("wb") as stream:
                write_broadcast(
                    stream,
                    silence,
                    rate_hz=48_000,
                    channels=2,
                    sample_count=48_000,
                    bits="24",
                    broadcast=Broadcast(date="2026-01-01", time_reference=number * 96_000),
                    labels=TakeLabels(scene="1A", take=str(number + 1)),
                )
        began = time.perf_counter()
        day_files(Path(name))
        return 1000 * (time.perf_counter() - began)


def checksums() -> Iterator[tuple[str, float, str]]:
    """Megabytes a second of a manifest, beside the two hashes alone."""
    data = os.urandom(1 << 20)
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        with (folder / "take.wav").open("wb") as stream:
            for _ in range(512):
                stream.write(data)
        began = time.perf_counter()
        xx, sha = xxhash.xxh3_128(), hashlib.sha256()
        for _ in range(512):
            xx.update(data)
            sha.update(data)
        alone = 512 / (time.perf_counter() - began)
        began = time.perf_counter()
        write_manifest(folder)
        yield (
            "checksums of a folder, MB a second",
            512 / (time.perf_counter() - began),
            f"{alone / 2:.0f}, half of both hashes",
        )
        began = time.perf_counter()
        copy_files(folder, [CopyOrder(path="take.wav", name="take.wav")], folder.parent / f"{folder.name}-copy")
        yield "a copy that is read back, MB a second", 512 / (time.perf_counter() - began), "none is set"
        shutil.rmtree(folder.parent / f"{folder.name}-copy")
