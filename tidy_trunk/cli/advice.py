"""`say`, `gain` and `fix`: a plan file changed as the program advises, and written only where all of it could be done."""

from pathlib import Path
from typing import Any, Final

from tidy_trunk.cli.output import fields, level, show
from tidy_trunk.core.advice.adviser import GainPlan, fixed, gain_plan
from tidy_trunk.core.advice.checks import PlacedFinding, Severity, check
from tidy_trunk.core.command import say
from tidy_trunk.core.plan import Plan, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document import write_plan
from tidy_trunk.errors import InputError
from tidy_trunk.media.files import new_file
from tidy_trunk.media.plan_files import load_plan
from tidy_trunk.results.advice import FindingOut, GainPlanOut, ProposalOut
from tidy_trunk.words import headline, label_of, why

MOST_MEANT: Final = 3
"""ASSUMED_ other lines that one message offers."""


def say_lines(path: Path, lines: tuple[str, ...], out: Path | None, as_json: bool) -> None:
    """Take the first answer of each line. Raises InputError: a line that is not understood."""
    plan = load_plan(path)
    answers: list[dict[str, Any]] = []
    for line in lines:
        answer = say(plan, line)
        if not answer.proposals:
            meant = "".join(f"; try '{text}'" for text in answer.completions[:MOST_MEANT])
            raise InputError(f"'{line}': {answer.problem}{meant}")
        first, before = answer.proposals[0], _stops(plan)
        plan = apply_edits(plan, first.edits)
        new = [headline(found) for key, found in _stops(plan).items() if key not in before]
        words = ProposalOut.from_core(first).model_dump(include={"title", "steps", "outcome"})
        answers.append({"line": line, **words, "stops": new})
    _write(out, plan)
    told: list[str] = []
    for given in answers:
        told.append(f"{given['title']}: {given['outcome']}" if given["outcome"] else str(given["title"]))
        told += [f"  {step}" for step in given["steps"]]
        told += [f"  stop: {stop}" for stop in given["stops"]]
    show({"answers": answers}, "\n".join(told), as_json)


def plan_gain(path: Path, out: Path | None, as_json: bool) -> None:
    """Where every knob should stand."""
    plan = load_plan(path)
    found = gain_plan(Report(trace_plan(plan)))
    if found.edits:
        plan = apply_edits(plan, found.edits)
    _write(out, plan)
    shown = GainPlanOut.from_core(found)
    result = {
        **shown.model_dump(mode="json", include={"tracks", "stops_before"}),
        "steps": [fields(step, "device", "control", "label", "was", "now", "why") for step in shown.steps],
        "stops_left": [_finding(left) for left in found.stops_left],
    }
    show(result, "\n".join(_gain_words(found)), as_json)


def fix_plan(path: Path, out: Path | None, as_json: bool) -> None:
    """First fixes, the gravest finding first, until none is left."""
    plan, taken = fixed(load_plan(path))
    left = _found(plan)
    _write(out, plan)
    steps = [
        {"finding": _finding(step.ended), "fix": label_of(step.move), "judged": list(step.judged)} for step in taken
    ]
    words = [f"{headline(step.ended)}: {label_of(step.move)}" for step in taken] or ["nothing to fix"]
    words += [f"left, {found.finding.severity}: {headline(found)}" for found in left]
    show({"steps": steps, "left": [_finding(found) for found in left]}, "\n".join(words), as_json)


def _write(out: Path | None, plan: Plan) -> None:
    if out is not None:
        with new_file(out) as stream:
            stream.write(write_plan(plan))


def _found(plan: Plan) -> list[PlacedFinding]:
    report = Report(trace_plan(plan))
    return [PlacedFinding(finding, report.index) for finding in check(report)]


def _stops(plan: Plan) -> dict[str, PlacedFinding]:
    return {found.finding.id: found for found in _found(plan) if found.finding.severity is Severity.STOP}


def _finding(found: PlacedFinding) -> dict[str, Any]:
    return fields(FindingOut.from_core(found.finding, found.index), "id", "rule", "severity", "title")


def _gain_words(found: GainPlan) -> list[str]:
    words = [f"{step.label}: {step.was} to {step.now}; {why(step.why)}" for step in found.steps]
    words = words or ["every knob stands where it should"]
    for change in found.tracks:
        before, after = change.before.sound, change.after.sound
        words.append(
            f"{change.label}: average {level(before.average)} to {level(after.average)}, peak {level(before.peak)} to "
            f"{level(after.peak)} dBFS"
        )
    return [*words, *(f"left: {headline(left)}" for left in found.stops_left)]
