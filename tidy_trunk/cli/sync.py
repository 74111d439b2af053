"""`sync`: one file laid over another, or recorder files and camera files all at once."""

import tempfile
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, Final

from tidy_trunk.cli.output import NOTHING_FOUND, show
from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.errors import InputError
from tidy_trunk.exports import EXPORTS, PlacedTimeline
from tidy_trunk.media.files import at_file, new_file, reading
from tidy_trunk.sync.copies import began_at, write_aligned
from tidy_trunk.sync.layout import (
    CAMERA,
    RECORDER,
    Clip,
    Layout,
    SyncFile,
    clock_offset_s,
    exact_s,
    lay_out,
    match_files,
    placed_file,
)
from tidy_trunk.sync.methods import SyncResult
from tidy_trunk.sync.profiles import profile_file

LOOK: Final = "Look at picture and sound before you trust it."
"""Beside whatever was found: a number is no look."""

NOWHERE: Final = {
    **dict.fromkeys(
        ("offset_s", "offset_samples", "offset_frames", "drift_ppm", "polarity", "method", "timecode_s"),
    ),
    "confidence": 0.0,
}
"""The answer about two files that have nothing in common."""


def show_pair(reference: Path, other: Path, fps: str | None, out: Path | None, stretch: bool, as_json: bool) -> int:
    """Print where one file lies in another; status 3 where nobody can say.

    `out`: for a copy that says where it begins; `stretch`: with its drift taken out.
    """
    rate = None if fps is None else FrameRate.parse(fps)
    if stretch and out is None:
        raise InputError("--stretch wants --write: it is the copy whose drift is taken out")
    if out is not None and rate is None:
        raise InputError("--write wants --fps: the copy says at which rate its timecode counts")
    if out is not None and out.exists() and any(out.samefile(path) for path in (reference, other) if path.exists()):
        raise InputError(f"{out} is one of the recordings: give another name, a recording is never written over")
    found = _pair(reference, other)
    if out is not None and rate is not None and found is not None and found.is_found:
        if stretch and found.drift_ppm is None:
            raise InputError("their drift cannot be told: files of a minute and more that both hear the same tell it")
        drift_ppm = (found.drift_ppm or 0.0) if stretch else 0.0
        _write_copy(reference, other, out, found.offset_s, rate, drift_ppm)
    if found is not None and found.is_found:
        show(_document(found, rate), f"{_words(found, rate, str(other), str(reference))}. {LOOK}", as_json)
        return 0
    words = "not found: they have nothing in common"
    if found is not None:
        words = f"not found: the likeliest place has a confidence of {found.confidence:.2f}"
    show(NOWHERE if found is None else _document(found, rate), words, as_json)
    return NOTHING_FOUND


def _pair(reference: Path, other: Path) -> SyncResult | None:
    """Where one file most likely lies in another; None where nothing at all can be said.

    Raises:
        FormatError, InputError: One of them, which is named, is no recording or an empty one, or has neither sound nor a clock.
    """
    with tempfile.TemporaryDirectory() as folder:
        files = first, second = _looked_at([reference], [other], Path(folder))
        silent = next((file for file in files if not file.has_sound), None)
        if silent is not None and clock_offset_s(first, second) is None:
            raise InputError(f"{silent.name}: it has no sound, and not both have timecode: nothing tells where it lies")
        layout = lay_out(files, match_files(files, lambda _: None, sure=0.0))
    clip = layout.clips.get(second.id)
    return None if clip is None else _synced(clip, first, layout)


def _write_copy(reference: Path, other: Path, out: Path, offset_s: float, rate: FrameRate, drift_ppm: float) -> None:
    with reading(reference) as first, reading(other) as second, at_file(other), new_file(out) as stream:
        began_s, day = began_at(first)
        moment_s = began_s + exact_s(offset_s)
        write_aligned(second, stream, name=other.name, moment_s=moment_s, rate=rate, drift_ppm=drift_ppm, day=day)


def show_many(
    references: Sequence[Path], others: Sequence[Path], fps: str | None, outs: Sequence[Path], as_json: bool
) -> int:
    """Print where each of the others lies; status 3 where not one was found. `outs`: CSV, EDL or OTIO by their ends."""
    rate = None if fps is None else FrameRate.parse(fps)
    if outs and rate is None:
        raise InputError("--export wants --fps: it counts in frames")
    for out in outs:
        if out.suffix.removeprefix(".") not in EXPORTS:
            raise InputError(
                f"{out}: nothing is written as that: end it in {', '.join(f'.{kind}' for kind in EXPORTS)}"
            )
    with tempfile.TemporaryDirectory() as folder:
        files = _looked_at(references, others, Path(folder))
        clips = match_files(files, lambda _: None)
        layout = lay_out(files, clips)
    if rate is not None:
        for out in outs:
            _export(files, layout, rate, out)
    by_id = {file.id: file for file in files}
    placed = [(by_id[clip.other].name, by_id[clip.reference], clip) for clip in layout.clips.values()]
    found = [(name, reference.name, _synced(clip, reference, layout)) for name, reference, clip in placed]
    lost = [file.name for file in files if file.side == CAMERA and file.id not in layout.clips]
    documents = [{"file": name, "reference": where, **_document(item, rate)} for name, where, item in found]
    lines = [_words(item, rate, name, where) for name, where, item in found]
    lines += [f"{name}: not found in anything" for name in lost]
    if found:
        lines.append(LOOK)
    show({"files": documents, "not_found": lost}, "\n".join(lines), as_json)
    return 0 if layout.clips else NOTHING_FOUND


def _looked_at(references: Sequence[Path], others: Sequence[Path], folder: Path) -> list[SyncFile]:
    """Every file with what was found in it; what is kept of each lies in a folder that goes again."""
    sides = [(path, RECORDER) for path in references] + [(path, CAMERA) for path in others]

    def look(item: tuple[int, tuple[Path, str]]) -> SyncFile:
        number, (path, side) = item
        with reading(path):
            link = folder / str(number)
            link.symlink_to(path.resolve())
            with at_file(path):
                facts = profile_file(link, lambda _: None)
        return SyncFile(id=str(number), name=str(path), side=side, path=link, facts=facts)

    with ThreadPoolExecutor(2) as pool:
        return list(pool.map(look, enumerate(sides)))


def _export(files: Sequence[SyncFile], layout: Layout, rate: FrameRate, out: Path) -> None:
    """The timeline with the most files in it."""
    line = max(layout.timelines, key=lambda item: len(item.begins_s))
    made = PlacedTimeline(
        title=out.stem,
        rate=rate,
        starts_s=exact_s(line.starts_s),
        files=tuple(placed_file(file, layout, line) for file in files if file.id in line.begins_s),
    )
    with new_file(out) as stream:
        stream.write(EXPORTS[out.suffix.removeprefix(".")](made))


def _synced(clip: Clip, reference: SyncFile, layout: Layout) -> SyncResult:
    return SyncResult(
        offset_s=clip.offset_s,
        drift_ppm=clip.drift_ppm,
        polarity=clip.polarity,
        method=clip.method,
        confidence=clip.confidence,
        reference_hz=reference.rate_hz,
        timecode_s=layout.disputed.get(clip.other),
    )


def _document(found: SyncResult, rate: FrameRate | None) -> dict[str, Any]:
    return {
        "offset_s": found.offset_s,
        "offset_samples": found.offset_samples,
        "offset_frames": None if rate is None else found.offset_s * float(rate.ratio),
        "drift_ppm": found.drift_ppm,
        "polarity": "same" if found.polarity > 0 else "opposite",
        "method": str(found.method),
        "confidence": round(found.confidence, 4),
        "timecode_s": found.timecode_s,
    }


def _words(found: SyncResult, rate: FrameRate | None, other: str, reference: str) -> str:
    in_samples = "" if found.offset_samples is None else f", {found.offset_samples} samples"
    in_frames = "" if rate is None else f", {found.offset_s * float(rate.ratio):.3f} frames"
    drifting = "" if found.drift_ppm is None else f", its clock {found.drift_ppm:+.1f} ppm"
    upside = ", opposite polarity" if found.polarity < 0 else ""
    disputed = (
        "" if found.timecode_s is None else f"; their timecode says {found.timecode_s:+.3f} s: a jam was forgotten"
    )
    return (
        f"{other} begins {found.offset_s:+.6f} s from {reference}{in_samples}{in_frames}{drifting}{upside};"
        f" by {found.method}, confidence {found.confidence:.2f}{disputed}"
    )
