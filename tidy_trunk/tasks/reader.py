"""Reads one file, or lays many over each other, in a process of its own: `python -m tidy_trunk.tasks.reader PATH`.

PATH is the file; of many, the folder that they are kept in. What is asked for comes as JSON on standard input.

It tells what it does as lines of JSON on standard output: `{"progress": 0.4}`, and at the end `{"result": …}` or
`{"problem": …}`. A worker starts it, reads it, and ends it when nobody wants the answer any more. Files come from anywhere: it
confines itself before it looks at one.
"""

import io
import json
import sys
import time
from base64 import b64encode
from collections.abc import Callable
from dataclasses import asdict
from fractions import Fraction
from pathlib import Path
from typing import TYPE_CHECKING, Any, Final

from tidy_trunk.errors import TidyTrunkError
from tidy_trunk.tasks.confinement import confine
from tidy_trunk.tasks.requests import (
    CopyDay,
    FindClaps,
    LookAt,
    Match,
    Measure,
    MeasureSpeech,
    PlanGain,
    PlayDay,
    Plays,
    PlayTogether,
    ReadDay,
    ReadTimecodeAtEnd,
    Request,
    Shrink,
    TakeStill,
    WriteAligned,
    request_of,
)

if TYPE_CHECKING:
    from tidy_trunk.core.plan import Plan
    from tidy_trunk.core.sound.simulation import NoiseLoop

TELL_EVERY_S: Final = 0.25
"""ASSUMED_ how often progress is told: as often as somebody looks."""


def read(path: Path, request: Request) -> dict[str, Any]:
    """What a request comes to, for the store. `path`: the file that it is about, or the folder of those.

    Raises:
        FormatError, InputError: It cannot be measured, or holds no steps where some are asked for.
    """
    told = 0.0

    def progress(share: float) -> None:
        nonlocal told
        if time.monotonic() - told >= TELL_EVERY_S:
            told = time.monotonic()
            print(json.dumps({"progress": round(share, 3)}), flush=True)

    match request:
        case Match():
            return _match(path, request, progress)
        case LookAt():
            from tidy_trunk.sync.profiles import profile_file

            return profile_file(path, progress)
        case PlanGain():
            return _plan_gain(request)
        case MeasureSpeech():
            from tidy_trunk.core.base.signal import speech_levels
            from tidy_trunk.formats import read_sound

            with path.open("rb") as stream:
                return asdict(speech_levels(*read_sound(stream, request.channel)))
        case FindClaps():
            from tidy_trunk.media.claps import claps_of

            with path.open("rb") as stream:
                return claps_of(stream)
        case ReadTimecodeAtEnd():
            from tidy_trunk.core.base.timecode import FrameRate
            from tidy_trunk.media.timecode import timecode_at_end

            with path.open("rb") as stream:
                return timecode_at_end(stream, FrameRate.parse(request.rate))
        case TakeStill():
            from tidy_trunk.formats.movie import still

            with path.open("rb") as stream:
                return {"jpeg": b64encode(still(stream, request.frame, Fraction(request.rate))).decode()}
        case Shrink():
            from tidy_trunk.formats import small_photograph

            with path.open("rb") as stream:
                return {"jpeg": b64encode(small_photograph(stream)).decode()}
        case WriteAligned():
            return _write_aligned(path, request)
        case ReadDay():
            return _read_day(path, request, progress)
        case CopyDay():
            return _copy_day(request, progress)
        case PlayDay():
            return _play_day(path, request, progress)
        case PlayTogether():
            from tidy_trunk.sync.guide_playback import played_together

            folder = Path(request.folder)
            found = played_together(folder / request.sound, folder / request.picture, request.behind_s)
            return {"wav": b64encode(found).decode()}
        case Measure(plan=dict()):
            return _simulate(request, progress)
        case Measure():
            from tidy_trunk.results.recordings import measured_recording

            result = measured_recording(lambda: path.open("rb"), request.settings, request.target_dbfs, progress)
            return result.model_dump(mode="json")


def _read_day(scratch: Path, request: ReadDay, progress: Callable[[float], None]) -> dict[str, Any]:
    from tidy_trunk.results.files import DayFileOut
    from tidy_trunk.sync.beside_recorder import read_day

    files = read_day(Path(request.folder), scratch, progress, with_sound=request.with_sound)
    return {"files": [DayFileOut.model_validate(file).model_dump(mode="json") for file in files]}


def _copy_day(request: CopyDay, progress: Callable[[float], None]) -> dict[str, Any]:
    from tidy_trunk.formats import TakeLabels
    from tidy_trunk.media.copying import CopyOrder, copy_files

    orders = []
    for order in request.orders:
        labels = order["labels"]
        if labels is not None:
            labels = TakeLabels(**{**labels, "tracks": tuple((number, name) for number, name in labels["tracks"])})
        orders.append(CopyOrder(**{**order, "labels": labels}))
    second = Path(request.second) if request.second else None
    copied = copy_files(Path(request.folder), orders, Path(request.into), second, progress)
    return {"copies": [{**asdict(file), "is_good": file.is_good} for file in copied]}


def _play_day(scratch: Path, request: PlayDay, progress: Callable[[float], None]) -> dict[str, Any]:
    from tidy_trunk.core.log import StandInTake
    from tidy_trunk.document import stored_plan
    from tidy_trunk.media.stand_in_day import write_day

    takes = [StandInTake(**take) for take in request.takes]
    return write_day(
        stored_plan(request.plan),
        takes,
        scratch / request.folder,
        seed=request.seed,
        faults=request.faults,
        date=request.date,
        tell=progress,
    )


def _match(folder: Path, request: Match, progress: Callable[[float], None]) -> dict[str, Any]:
    from tidy_trunk.sync.layout import SyncFile, match_files

    files = [SyncFile(**file, path=folder / file["id"]) for file in request.files]
    nudged = {(clip["reference"], clip["other"]): clip["nudge_samples"] for clip in request.nudged}
    found = [
        {**clip.document(), "nudge_samples": nudged.get((clip.reference, clip.other), 0)}
        for clip in match_files(files, progress)
    ]
    return {"clips": [*request.by_hand, *found]}


def _simulate(request: Measure, progress: Callable[[float], None]) -> dict[str, Any]:
    """A recording made by simulated devices, measured, with what their meter `shown` beside it."""
    from tidy_trunk.core.sound.simulation import meter_shows_dbfs, truth
    from tidy_trunk.document import stored_plan
    from tidy_trunk.media.simulated import loop_file
    from tidy_trunk.results.recordings import measured_recording

    plan = stored_plan(request.plan or {})
    data = loop_file(_recorded(truth(plan), request))
    result = measured_recording(lambda: io.BytesIO(data), request.settings, request.target_dbfs, progress)
    device = request.track.partition(".")[0]
    shown = [meter_shows_dbfs(plan, device, level) for level in result.tone_levels_dbfs]
    return {**result.model_dump(mode="json"), "shown": shown}


def _recorded(plan: "Plan", request: Measure) -> "NoiseLoop":
    from tidy_trunk.core.sound.simulation import both_sides, silence_take, tone_and_silence, tone_steps, tone_take
    from tidy_trunk.media.simulated import PAUSE_S

    if request.settings:
        return tone_steps(plan, request.track, request.device, request.control, request.settings, PAUSE_S)
    match request.plays:
        case Plays.TONE:
            return tone_take(plan, request.track)
        case Plays.SILENCE:
            return silence_take(plan, request.track)
        case Plays.TONE_AND_SILENCE:
            return tone_and_silence(plan, request.track)
        case Plays.BOTH_SIDES:
            return both_sides(plan, request.track, request.other)


def _plan_gain(request: PlanGain) -> dict[str, Any]:
    from tidy_trunk.core.advice.adviser import gain_plan
    from tidy_trunk.core.sound.levels import Report
    from tidy_trunk.core.sound.trace import trace_plan
    from tidy_trunk.document import stored_plan
    from tidy_trunk.results.advice import GainPlanOut

    pins = frozenset((device, control) for device, control in request.pins)
    made = gain_plan(Report(trace_plan(stored_plan(request.plan))), pins)
    return GainPlanOut.from_core(made).model_dump(mode="json")


def _write_aligned(folder: Path, request: WriteAligned) -> dict[str, Any]:
    from tidy_trunk.core.base.timecode import FrameRate
    from tidy_trunk.sync.copies import began_at, write_aligned

    with (folder / request.reference).open("rb") as first, (folder / request.other).open("rb") as second:
        began_s, day = began_at(first)
        with (folder / request.out).open("wb") as out:
            samples = write_aligned(
                second,
                out,
                name=request.name,
                moment_s=began_s + Fraction(request.offset_s),
                rate=FrameRate.parse(request.fps),
                drift_ppm=request.drift_ppm,
                day=day,
            )
    return {"samples": samples}


def _confine(folder: Path, request: Request) -> None:
    """It sees what it was asked to look at, and writes where it was asked to."""
    match request:
        case ReadDay() | PlayTogether():
            confine(folder, reads=[Path(request.folder)])
        case CopyDay():
            targets = [Path(name) for name in (request.into, request.second) if name]
            for target in targets:
                target.mkdir(parents=True, exist_ok=True)
            confine(folder, reads=[Path(request.folder)], writes=targets)
        case _:
            confine(folder)


def main() -> int:
    path = Path(sys.argv[1])
    try:
        request = request_of(json.load(sys.stdin))
        _confine(path if path.is_dir() else path.parent, request)  # before numpy is imported, which starts threads
        answer: dict[str, Any] = {"result": read(path, request)}
    except TidyTrunkError as error:
        answer = {"problem": error.message}
    except MemoryError:
        answer = {"problem": "the recording does not fit into memory: give a part of it"}
    except FileNotFoundError:
        answer = {"problem": "the file is not here any more: drop it in again"}
    except OSError as error:
        answer = {"problem": f"what is in it does not fit on the disk: {error.strerror or error}. Give a part of it"}
    print(json.dumps(answer, allow_nan=False), flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
