"""A day's files as simulated recorders and cameras write them, for the takes of a log, with what goes wrong on a set."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.timecode import RATES, FrameRate, at_seconds, ltc_samples
from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.log import DayFault, PlannedFault, StandInDevice, StandInTake, planned_faults
from tidy_trunk.core.plan import Plan, Role
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.simulation import LOOP_SAMPLES, RATE_HZ, Faults, NoiseLoop, Simulator, truth
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.formats import Broadcast, TakeLabels, TimecodeSpeed, write_broadcast

BEFORE_S, BEHIND_S = 1.0, 1.0
"""ASSUMED_ how long before a take devices roll, and how long behind it."""

MOST_BYTES: Final = 4_000_000_000
"""ASSUMED_ most that the files of a simulated day take: it is for trying, and a disk has other uses."""

ENDS_AT: Final = 0.4
"""ASSUMED_ share of a take after which its battery is empty."""

BREAKS_AT: Final = 0.6
"""ASSUMED_ share of a file that is on the card when that is pulled out."""

OVER_DB: Final = 6.0
"""ASSUMED_ by how much the peaks of a clipped take would stand above full scale."""

LATE_S: Final = 0.4
"""ASSUMED_ by how much a clock is off that was not jammed again: ten pictures at 25 a second."""

PICTURE: Final = (64, 36)
"""ASSUMED_ width and height of a simulated picture: nobody looks at it."""

BITS: Final = "24"
SAMPLE_BYTES: Final = 3
"""What recorders and cameras on location write. [PRACTICE]"""


@dataclass(frozen=True, slots=True)
class _Track:
    name: str
    loop: NoiseLoop
    is_timecode: bool
    is_expected: bool  # something comes to it by the plan, and is missed where it does not


@dataclass(frozen=True, slots=True)
class _Recorder:
    """What writes files. label: of its folder, too."""

    label: str
    is_picture: bool
    tracks: tuple[_Track, ...]


def write_day(
    plan: Plan,
    takes: Sequence[StandInTake],
    folder: Path,
    *,
    seed: int,
    faults: int,
    date: str,
    tell: Callable[[float], None] = lambda share: None,
) -> dict[str, Any]:
    """Files of every take by every device that records, in a folder for each device; how many, and what is wrong with which.

    Args:
        plan: As it is thought to be; devices are what they really are.
        seed: Of the faults: the same gives the same.
        faults: How many files are to have one.
        date: Of the day, ISO 8601.

    Raises:
        InputError: No take, nothing that records, or more sound than is worth it.
    """
    report = Report(trace_plan(truth(plan)))
    devices = _recorders(report)
    if not takes or not devices:
        raise InputError("there is nothing to record: log a take, and have something reach a track")
    seconds = sum(take.seconds + BEFORE_S + BEHIND_S for take in takes)
    wanted = seconds * RATE_HZ * SAMPLE_BYTES * sum(len(device.tracks) for device in devices)
    if wanted > MOST_BYTES:
        raise InputError(f"the takes are {seconds / 60:.0f} min long: their files would take {wanted / 1e9:.0f} GB")
    shown = [
        StandInDevice(
            device.label,
            device.is_picture,
            sum(track.is_expected for track in device.tracks),
            len({track.name for track in device.tracks}),
        )
        for device in devices
    ]
    planned = planned_faults(takes, shown, faults, seed)
    by_file = {(fault.device, fault.take): fault.what for fault in planned}
    rate, written = FrameRate.parse(plan.defaults.frame_rate), 0
    for device in devices:
        place = folder / device.label.replace("/", "_")
        place.mkdir(parents=True, exist_ok=True)
        for number, take in enumerate(takes, start=1):
            what = by_file.get((device.label, take.id))
            if what is not DayFault.MISSED_BUTTON:
                write = _write_movie if device.is_picture else _write_sound
                write(place, number, device, take, rate, what, date)
                written += 1
            tell((devices.index(device) + number / len(takes)) / len(devices))
    return {"folder": str(folder), "files": written, "faults": [_said(fault, takes) for fault in planned]}


def _said(fault: PlannedFault, takes: Sequence[StandInTake]) -> dict[str, str]:
    take = next(take for take in takes if take.id == fault.take)
    return {"what": fault.what, "device": fault.device, "take": f"{take.slate}-{take.number}"}


def _recorders(report: Report) -> list[_Recorder]:
    """Every device that keeps what comes to a track of its own, with the sound of its tracks."""
    simulator, index = Simulator(report.index, faults=Faults(strays=True)), report.index
    found: dict[str, list[_Track]] = {}
    for track in report.tracks:
        stage = track.trace.stage
        if not stage.feeds:
            continue
        placed = index.placed(stage.device)
        sources = [index.plan.sources[source].label for source in track.sources]
        loop = np.clip(simulator.track_sound(stage), -1.0, 1.0)
        name = ", ".join(sources) or placed.bus(stage.name).label
        is_timecode = index.role_of(stage.device, stage.name) is Role.TIMECODE
        found.setdefault(stage.device, []).append(
            _Track(name, loop, is_timecode, is_expected=not (is_timecode or track.is_silent))
        )
    pictures = {device: index.placed(device).device_class.traits.picture_mbps is not None for device in found}
    return [
        _Recorder(index.placed(device).label, pictures[device], tuple(tracks))
        for device, tracks in sorted(found.items(), key=lambda item: pictures[item[0]])
    ]


def _span(take: StandInTake, what: DayFault | None) -> tuple[float, float]:
    """When a file begins, since midnight, and how long it is."""
    seconds = take.seconds * ENDS_AT if what is DayFault.DEAD_BATTERY else take.seconds + BEHIND_S
    return take.begins_s - BEFORE_S, seconds + BEFORE_S


def _sound(
    device: _Recorder, begins_s: float, seconds: float, what: DayFault | None, rate: FrameRate
) -> NDArray[np.float32]:
    """Shape (tracks, samples): the same moment of the day gives the same on every device."""
    count, start = round(seconds * RATE_HZ), round(begins_s * RATE_HZ)
    at = (start + np.arange(count)) % LOOP_SAMPLES
    rows = []
    for track in device.tracks:
        if track.is_timecode:
            label = at_seconds(Fraction(begins_s).limit_denominator(RATE_HZ), rate)
            level = float(np.abs(track.loop).max()) or ratio_from_db(-18.0)
            made = ltc_samples(label, RATE_HZ, 0, count)
            rows.append((made * (level / max(float(np.abs(made).max()), 1e-9))).astype(np.float32))
        else:
            rows.append(track.loop[at])
    found = np.stack(rows)
    if what is DayFault.SILENT_TRACK:
        found[_first_sound(device)] = 0.0
    if what is DayFault.CLIPPED:
        row = _first_sound(device)
        peak = max(float(np.abs(found[row]).max()), 1e-6)
        found[row] = np.clip(found[row] * (ratio_from_db(OVER_DB) / peak), -1.0, 1.0)
    return found


def _first_sound(device: _Recorder) -> int:
    return next((number for number, track in enumerate(device.tracks) if track.is_expected), 0)


def _write_sound(
    place: Path, number: int, device: _Recorder, take: StandInTake, rate: FrameRate, what: DayFault | None, date: str
) -> None:
    begins_s, seconds = _span(take, what)
    samples = _sound(device, begins_s, seconds, what, rate)
    path, reference = place / f"REC_{number:03}.WAV", round(begins_s * RATE_HZ)
    names = [track.name for track in device.tracks]
    if what is DayFault.SWAPPED_NAMES:
        other = next(at for at, name in enumerate(names) if name != names[0])
        names[0], names[other] = names[other], names[0]
    labels = TakeLabels(
        scene=take.slate,
        take=str(take.number + (1 if what is DayFault.WRONG_LABEL else 0)),
        tracks=tuple(enumerate(names, start=1)),
    )
    fraction = f"{rate.ratio.numerator}/{rate.ratio.denominator}"
    with path.open("wb") as out:
        write_broadcast(
            out,
            [samples],
            rate_hz=RATE_HZ,
            channels=len(samples),
            sample_count=samples.shape[1],
            bits=BITS,
            broadcast=Broadcast(
                originator=device.label[:32],
                date="2000-01-01" if what is DayFault.WRONG_DATE else date,
                time_reference=reference,
            ),
            speed=TimecodeSpeed(rate=fraction, drop=rate.drop, rate_hz=RATE_HZ, time_reference=reference),
            labels=labels,
        )
        if what is DayFault.CUT_SHORT:
            out.truncate(round(out.tell() * BREAKS_AT))


def _write_movie(
    place: Path, number: int, device: _Recorder, take: StandInTake, rate: FrameRate, what: DayFault | None, date: str
) -> None:
    import av  # a tenth of a second: only for movies

    begins_s, seconds = _span(take, what)
    samples = _sound(device, begins_s, seconds, what, rate)
    said = begins_s - (LATE_S if what is DayFault.LATE_CLOCK else 0.0)
    if what is DayFault.WRONG_RATE:
        rate = RATES["24"] if rate != RATES["24"] else RATES["25"]
    label = at_seconds(Fraction(said % 86_400).limit_denominator(RATE_HZ), rate)
    with av.open(str(place / f"C{number:04}.MOV"), "w", format="mov") as movie:
        pictures = movie.add_stream("mpeg4", rate=rate.ratio)
        pictures.width, pictures.height = PICTURE
        pictures.pix_fmt = "yuv420p"
        pictures.metadata["timecode"] = str(label)
        pairs = [samples[at : at + 2] for at in range(0, len(samples), 2)]
        streams = [
            movie.add_stream("pcm_s24le", rate=RATE_HZ, layout="stereo" if len(pair) == 2 else "mono") for pair in pairs
        ]
        grey = av.VideoFrame.from_ndarray(np.full((PICTURE[1], PICTURE[0], 3), 90, np.uint8), format="rgb24")
        grey = grey.reformat(format="yuv420p")
        for at in range(round(seconds * rate.ratio)):
            grey.pts = at
            movie.mux(pictures.encode(grey))
        movie.mux(pictures.encode(None))
        for stream, pair in zip(streams, pairs, strict=True):
            for frame in _frames(pair):
                movie.mux(stream.encode(frame))
            movie.mux(stream.encode(None))


def _frames(pair: NDArray[np.float32]) -> Iterator[Any]:
    """A second at a time, as 32-bit integers, side by side."""
    import av

    whole = np.clip(np.rint(pair.astype(np.float64) * 2**31), -(2**31), 2**31 - 1).astype(np.int32)
    for at in range(0, whole.shape[1], RATE_HZ):
        piece = np.ascontiguousarray(whole[:, at : at + RATE_HZ].T.reshape(1, -1))
        frame = av.AudioFrame.from_ndarray(piece, format="s32", layout="stereo" if len(pair) == 2 else "mono")
        frame.sample_rate, frame.pts = RATE_HZ, at
        yield frame
