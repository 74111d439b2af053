"""`check` and `options`: a plan file, worked out."""

from pathlib import Path
from typing import Any, Final

from tidy_trunk.cli.output import fields, level, show
from tidy_trunk.core.advice.adviser import Adviser, inserted_devices
from tidy_trunk.core.advice.checks import Severity
from tidy_trunk.core.base.units import finite
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import UnknownItemError
from tidy_trunk.media.plan_files import load_plan
from tidy_trunk.results.advice import FindingOut, MatchingOptionOut
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.words import label_of, option_words
from tidy_trunk.words.numbers import many

_FINDING: Final = ("rule", "severity", "title", "text", "source", "device", "run", "track", "measured_db")
_WAY: Final = tuple(name for name in MatchingOptionOut.model_fields if name != "edits")


def check_plan(path: Path, as_json: bool) -> int:
    """Print findings and tracks; 1 where a finding is a stop, else 0."""
    evaluation = Evaluation(load_plan(path))
    fixes = Adviser(evaluation.report).all_fixes() if as_json else {}
    findings = [
        {
            **fields(FindingOut.from_core(finding, evaluation.index), *_FINDING),
            "fixes": [label_of(fix) for fix in fixes.get(finding.id, ())],
        }
        for finding in evaluation.findings
    ]
    tracks = [_track(evaluation, index) for index in range(len(evaluation.report.tracks))]
    tracks = [track for track in tracks if track["connected"]]
    lines = [f"{finding['severity']}: {_ended(str(finding['title']))} {finding['text']}" for finding in findings]
    for track in tracks:
        lines.append(_track_words(track))
    stops = evaluation.count(Severity.STOP)
    lines.append(", ".join(many(evaluation.count(severity), severity) for severity in Severity))
    show({"name": evaluation.plan.name, "findings": findings, "tracks": tracks}, "\n".join(lines), as_json)
    return 1 if stops else 0


def _track(evaluation: Evaluation, index: int) -> dict[str, Any]:
    track = evaluation.report.tracks[index]
    return {
        "id": track.trace.id,
        "device": evaluation.index.placed(track.trace.device).label,
        "track": track.trace.bus,
        "connected": bool(track.trace.stage.feeds),
        "sources": [evaluation.plan.sources[source].label for source in track.sources],
        "average_dbfs": finite(track.sound.average),
        "peak_dbfs": finite(track.sound.peak),
        "headroom_db": finite(track.headroom_db),
        "clips_by_db": track.clips_by_db,
        "noise_dbfs": finite(track.sound.noise),
        "noise_dbfs_a": finite(track.sound.noise_a),
        "ruled_by": track.ruling_noise.name if track.ruling_noise else None,
        "tolerance_db": track.sound.tolerance_db,
        "provenance": track.provenance,
    }


def _ended(title: str) -> str:
    """A title as a sentence; some are questions."""
    return title if title.endswith("?") else f"{title}."


def _track_words(track: dict[str, Any]) -> str:
    where = f"{track['device']} track {track['track']}"
    if track["average_dbfs"] is None:
        return f"{where}: silent"
    clips = f", clips by {track['clips_by_db']:.1f} dB" if track["clips_by_db"] else ""
    return (
        f"{where}: {' and '.join(track['sources'])}, average {level(track['average_dbfs'])} ±{track['tolerance_db']:.0f}, "
        f"peak {level(track['peak_dbfs'])} dBFS, noise {level(track['noise_dbfs'])} ({track['ruled_by']}){clips}"
    )


def find_run(plan: Plan, name: str) -> str:
    """A run by id or by the number on its tape. Raises UnknownItemError."""
    if name in plan.runs:
        return name
    for run in plan.runs.values():
        if str(run.number) == name:
            return run.id
    known = ", ".join(f"{run.number} ({run.id})" for run in plan.runs.values()) or "none"
    raise UnknownItemError(f"there is no cable '{name}'; the plan has {known}")


def show_options(path: Path, name: str, as_json: bool) -> None:
    plan = load_plan(path)
    run_id = find_run(plan, name)
    report = Report(trace_plan(plan))
    options = [*Adviser(report).matching_options(run_id), *inserted_devices(report, run_id)]
    found = [(option, option_words(option)) for option in options]
    result = [fields(MatchingOptionOut.from_core(option), *_WAY) for option, _ in found]
    lines = [
        f"{number}. {words.label}: average {level(option.average_dbfs)}, peak {level(option.peak_dbfs)} dBFS, gear noise "
        f"{level(option.noise_dbfs)}; {words.verdict}; needs {words.needs or 'nothing'}"
        f"{f'; takes away {words.loses}' if words.loses else ''}{f'; risk: {words.risk}' if words.risk else ''}"
        for number, (option, words) in enumerate(found, 1)
    ]
    show({"run": run_id, "ways": result}, "\n".join(lines) or "no way that this program knows", as_json)
