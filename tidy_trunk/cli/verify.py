"""`verify`: a folder's list of checksums, written, or compared with what is there."""

import sys
from pathlib import Path
from typing import Final

from tidy_trunk.cli.output import show
from tidy_trunk.media.manifests import MANIFEST, Verdict, read_manifest, verify, write_manifest

WORDS: Final = {
    Verdict.MISSING: "is missing",
    Verdict.CUT_SHORT: "is cut short",
    Verdict.DIFFERS: "differs",
    Verdict.UNREADABLE: "cannot be read",
    Verdict.NEW: "is not in the list",
}
"""What became of a file. [PRACTICE] of software"""


def verify_folder(folder: Path, manifest: Path | None, *, write: bool, as_json: bool) -> int:
    """Print what differs; 1 where a listed file is missing or not the same, else 0. `write`: the list is made anew."""
    if write:
        made = write_manifest(folder, tell_share)
        size = sum(one.size for one in made.values())
        words = f"{len(made)} files, {size / 1e9:.2f} GB: {folder / MANIFEST}"
        show({"files": len(made), "bytes": size, "manifest": str(folder / MANIFEST)}, words, as_json)
        return 0
    listed = read_manifest(manifest or folder / MANIFEST)
    found = verify(folder, listed, tell_share)
    bad = [item for item in found if item.verdict not in (Verdict.SAME, Verdict.NEW)]
    lines = [f"{item.path} {WORDS[item.verdict]}" for item in found if item.verdict is not Verdict.SAME]
    same = sum(item.verdict is Verdict.SAME for item in found)
    lines.append(f"{same} of {len(listed)} files are the same{'. Do not format the card.' if bad else ''}")
    files = [{"path": item.path, "verdict": item.verdict} for item in found]
    show({"same": same, "listed": len(listed), "files": files}, "\n".join(lines), as_json)
    return 1 if bad else 0


def tell_share(share: float) -> None:
    """How far it is, where somebody looks."""
    if sys.stderr.isatty():
        print(f"\r{share:4.0%} " if share < 1 else "\r      \r", end="", file=sys.stderr, flush=True)
