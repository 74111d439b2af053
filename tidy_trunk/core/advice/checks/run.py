"""All findings about a plan, in a stable order."""

import importlib
import pkgutil
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Final

from tidy_trunk.core.advice.checks import rules
from tidy_trunk.core.advice.checks.rule import RULES, Finding, Severity, Situation
from tidy_trunk.core.sound.levels import Report

for _module in pkgutil.iter_modules(rules.__path__):
    importlib.import_module(f"{rules.__name__}.{_module.name}")

_ORDER: Final = {Severity.STOP: 0, Severity.CAUTION: 1, Severity.NOTE: 2}


def check(report: Report) -> list[Finding]:
    """Every finding about a plan: stops first, then by the order of its devices and runs."""
    situation = Situation(report.index.plan, report)
    return in_order(situation, by_rule(situation))


def by_rule(situation: Situation, known: Mapping[str, Sequence[Finding]] | None = None) -> dict[str, Sequence[Finding]]:
    """What each rule finds, before what follows from another is put beneath it. `known`: what some are known to find."""
    known = known or {}
    return {name: known[name] if name in known else list(function(situation)) for name, function in RULES.items()}


def in_order(situation: Situation, found: Mapping[str, Sequence[Finding]]) -> list[Finding]:
    """As `check`, from what each rule has found."""
    devices = {device: index for index, device in enumerate(situation.plan.devices)}
    return sorted(
        _folded(situation, [finding for findings in found.values() for finding in findings]),
        key=lambda finding: (_ORDER[finding.severity], devices.get(finding.device, -1), finding.id),
    )


_NOTHING_ARRIVES: Final = frozenset({"track-without-source", "nothing-to-sync-by"})

_FOLLOW: Final[Mapping[str, frozenset[str]]] = {
    "microphone-unpowered": frozenset(
        {"off-target", "gear-above-room", "track-without-source", "automatic-level", "limiter", "mono-into-stereo"}
    ),
    "mic-into-line": frozenset({"off-target", "gear-above-room", "burst-clips", "loud-place"}),
    "line-into-mic": frozenset({"clipping", "off-target", "gear-above-room", "burst-clips", "camera-gain"}),
    "clipping": frozenset({"camera-gain", "burst-clips"}),
    "knob-is-off": frozenset({"off-target", "gear-above-room"}),
    "transmitter-low": frozenset({"off-target", "gear-above-room"}),
    "track-not-armed": frozenset({"mic-into-line", "line-into-mic", "limiter"}),
    "four-track-mode": frozenset({"mic-into-line", "line-into-mic", "limiter"}),
    "plugs-do-not-mate": _NOTHING_ARRIVES,
    "wrong-lead": _NOTHING_ARRIVES,
    "digital-mode": _NOTHING_ARRIVES,
}
"""What a finding brings with it: told beneath it, and counted once. [PRACTICE]: one cause is mended once"""


def _folded(situation: Situation, found: list[Finding]) -> list[Finding]:
    """Findings that follow from another, about the same tracks or the same run, beneath it."""
    beneath: dict[str, list[Finding]] = {}
    for rule, follows in _FOLLOW.items():
        roots = [finding for finding in found if finding.rule == rule]
        reach = [(root, {*root.tracks, *_behind(situation, root.run)}) for root in roots]
        for finding in found if roots else ():
            if finding.rule in follows and (root := _root(situation, reach, finding)) is not None:
                beneath.setdefault(root.id, []).append(finding)
    hidden = {finding.id for findings in beneath.values() for finding in findings}
    return [_with(finding, beneath.get(finding.id, [])) for finding in found if finding.id not in hidden]


def _root(situation: Situation, reach: Sequence[tuple[Finding, set[str]]], finding: Finding) -> Finding | None:
    """The first that a finding follows from: about the same run, or about nothing but tracks it names or its socket feeds.

    `reach`: each root with those tracks.
    """
    if finding.run:
        return next((root for root, _ in reach if root.run == finding.run), None)
    # What names no track is about all that its device records.
    tracks = set(finding.tracks) or {track.trace.id for track in situation.report.tracks_of(finding.device)}
    return next((root for root, reached in reach if tracks and tracks <= reached), None)


def _behind(situation: Situation, run_id: str) -> set[str]:
    """The tracks that take the socket into which a run goes, whether anything arrives there or not."""
    run = situation.plan.runs.get(run_id)
    if run is None:
        return set()
    device, port = run.receiving
    return {
        track.trace.id
        for track in situation.report.tracks_of(device)
        if any(
            stage.name == port for stage in (*(feed for feed, _ in track.trace.stage.feeds), *track.trace.stage.idle)
        )
    }


def _with(root: Finding, beneath: list[Finding]) -> Finding:
    """A finding with what follows from it; it names all tracks that those name."""
    if not beneath:
        return root
    tracks = (*root.tracks, *(track for finding in beneath for track in finding.tracks))
    return replace(root, beneath=tuple(beneath), tracks=tuple(dict.fromkeys(tracks)))
