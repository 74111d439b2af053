"""`sync` with several files: recorder files and camera files laid over each other all at once."""

import tempfile
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from fractions import Fraction
from pathlib import Path
from typing import Any

from tidy_trunk.cli.output import NOTHING_FOUND, show
from tidy_trunk.core.timecode import FrameRate
from tidy_trunk.errors import InputError
from tidy_trunk.exports import EXPORTS, PlacedTimeline
from tidy_trunk.services.files import at_file, new_file, reading
from tidy_trunk.services.matching import CAMERA, RECORDER, Clip, Layout, SyncFile, lay_out, match_files, placed_file
from tidy_trunk.services.profiles import profile_file


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
    names = {file.id: file for file in files}
    documents = [_document(names[clip.other], names[clip.reference], clip, rate) for clip in layout.clips.values()]
    lost = [file.name for file in files if file.side == CAMERA and file.id not in layout.clips]
    words = "\n".join([*map(_words, documents), *(f"{name}: not found in anything" for name in lost)])
    show({"files": documents, "not_found": lost}, words, as_json)
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
        starts_s=Fraction(line.starts_s).limit_denominator(10**9),
        files=tuple(placed_file(file, layout, line) for file in files if file.id in line.begins_s),
    )
    with new_file(out) as stream:
        stream.write(EXPORTS[out.suffix.removeprefix(".")](made))


def _document(file: SyncFile, reference: SyncFile, clip: Clip, rate: FrameRate | None) -> dict[str, Any]:
    return {
        "file": file.name,
        "reference": reference.name,
        "offset_s": clip.offset_s,
        "offset_samples": round(clip.offset_s * reference.rate_hz),
        "offset_frames": None if rate is None else clip.offset_s * float(rate.ratio),
        "drift_ppm": clip.drift_ppm,
        "polarity": "same" if clip.polarity > 0 else "opposite",
        "method": str(clip.method),
        "confidence": clip.confidence,
    }


def _words(found: dict[str, Any]) -> str:
    drifting = "" if found["drift_ppm"] is None else f", its clock {found['drift_ppm']:+.1f} ppm"
    upside = "" if found["polarity"] == "same" else ", opposite polarity"
    return (
        f"{found['file']} begins {found['offset_s']:+.6f} s from {found['reference']}{drifting}{upside}; "
        f"by {found['method']}, confidence {found['confidence']:.2f}"
    )
