"""Lines about devices and sources as such: add, copy, rename, remove; who is heard by what."""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from tidy_trunk.core.advice.options import Trial, Upstream, built_in_run, by_hand
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal, single
from tidy_trunk.core.command.words import (
    ANGLE,
    DeviceMatch,
    find_classes,
    find_devices,
    find_leads,
    find_sources,
    named_run,
    near_classes,
    number,
    split_words,
    take_length,
    take_level,
)
from tidy_trunk.core.gear.catalogue import usual_distance_m
from tidy_trunk.core.plan import (
    EFFORTS_DB_SPL,
    AddDevice,
    AddSource,
    CopyDevice,
    Disconnect,
    Edit,
    Hear,
    PlacedDevice,
    Plan,
    PlanIndex,
    RemoveDevice,
    RemoveLead,
    RemoveSource,
    RenameDevice,
    SetSource,
    Source,
    Weighting,
    edited,
    message,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

_LIST = re.compile(r"\s*,\s*|\s+and\s+")


def add(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`bag recorder as bag`, `lavalier as lav a, lav b`."""
    wanted, labels = _split_where([(rest, ""), *_splits(rest)], lambda old: _is_class(plan, old))
    classes = find_classes(plan, split_words(wanted))
    if not classes:
        near = near_classes(split_words(wanted))
        nearest = ", ".join(repr(item.label.lower()) for item in near[:3])
        hint = f"the nearest: {nearest}" if near else "Equipment lists them all"
        raise NotUnderstoodError(f"no device is called '{wanted.strip()}': {hint}")
    names = [label for label in _LIST.split(labels.strip()) if label] or [None]
    for found in classes:
        proposal = single(plan, *(AddDevice(class_id=found.id, label=label) for label in names))
        if len(classes) > 1:  # one is told from the other by its whole name
            called = tuple(label for label in names if label)
            proposal = replace(proposal, does=message("add-class", PlanIndex(plan), class_id=found.id, called=called))
        yield proposal


def _is_class(plan: Plan, text: str) -> bool:
    """Whether a text names a class. With an "as" in it, it has to be one that is called so, word for word."""
    found = find_classes(plan, split_words(text))
    if re.search(r"\sas\s", text) is None:
        return bool(found)
    return any(item.label.lower().startswith(text.lower().strip()) for item in found)


def copy(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera b as camera c`: a second device with the settings of the first."""
    old, new = _two_names(plan, rest, "copy camera b as camera c")
    for match in find_devices(PlanIndex(plan), split_words(old)):
        if not match.rest:
            yield single(plan, CopyDevice(device=match.placed.device.id, label=new))


def rename(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera 2 as camera b`."""
    old, new = _two_names(plan, rest, "rename camera 2 as camera b")
    for match in find_devices(PlanIndex(plan), split_words(old)):
        if not match.rest:
            yield single(plan, RenameDevice(device=match.placed.device.id, label=new))
    for source in find_sources(plan, split_words(old)):
        yield single(plan, SetSource(source=source.id, label=new))


def _two_names(plan: Plan, rest: str, example: str) -> tuple[str, str]:
    splits = _splits(rest)
    if not splits:
        raise NotUnderstoodError(f"'{rest.strip()}' is understood as the old name; say the new one too: {example}")
    return _split_where(splits, lambda old: _is_known(plan, old))


def _is_known(plan: Plan, text: str) -> bool:
    words = split_words(text)
    return any(not match.rest for match in find_devices(PlanIndex(plan), words)) or bool(find_sources(plan, words))


def _splits(text: str) -> list[tuple[str, str]]:
    """What stands before and after each `as` of a text, the last one first: a name may hold one too."""
    found = [(text[: match.start()], text[match.end() :].strip()) for match in re.finditer(r"\s+as\s+", text)]
    return [(old, new) for old, new in reversed(found) if new]


def _split_where(splits: Sequence[tuple[str, str]], is_known: Callable[[str], bool]) -> tuple[str, str]:
    """The longest name that is known, with what follows it; the shortest where none is."""
    return next(((old, new) for old, new in splits if is_known(old)), splits[-1])


def remove(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`cable 4`, `camera b`, `founder`, a lead of one's own."""
    run = named_run(plan, rest)
    if run is not None:
        yield single(plan, Disconnect(run=run[0].id))
        return
    words = split_words(rest)
    for match in find_devices(PlanIndex(plan), words):
        if not match.rest:
            yield single(plan, RemoveDevice(device=match.placed.device.id))
    for source in find_sources(plan, words):
        yield single(plan, RemoveSource(source=source.id))
    for lead in find_leads(plan.leads, words):
        yield single(plan, RemoveLead(lead=lead.id))


def hear(plan: Plan, line: str) -> Iterator[Proposal]:
    """`founder at boom, 0.5 m, raised`: a source, new or known, at a microphone."""
    who, _, where = line.partition(" at ")
    distance_m, where = take_length(where)
    angle = ANGLE.search(where)
    off_axis_deg = number(angle.group(1)) if angle else None
    where = ANGLE.sub("", where)
    average, weighting, rest = take_level(where)
    words = split_words(rest)
    found = find_devices(PlanIndex(plan), words)
    microphones = [match.placed for match in found if match.placed.device_class.capsule and not match.rest]
    if not microphones:
        raise NotUnderstoodError(
            f"'{who.strip()}' is understood as somebody to be heard, but {_no_microphone(found, words)}"
        )
    for edits in _heard(plan, who, microphones, distance_m, off_axis_deg, average, weighting):
        yield single(plan, *edits, *_own_knob(plan, edits))


def _own_knob(plan: Plan, edits: Sequence[Edit]) -> Iterator[Edit]:
    """The gain of a built-in microphone that somebody now speaks into, by hand and where its track is wanted."""
    state = edited(plan, edits)
    report = Report(trace_plan(state))
    for edit in edits:
        device = (
            edit.device
            if isinstance(edit, Hear)
            else next(iter(edit.heard_by), "")
            if isinstance(edit, AddSource)
            else ""
        )
        run = built_in_run(report.index, device) if device else None
        if run is None:
            continue
        placed = report.index.placed(device)
        manual = by_hand(placed, placed.input(run.receiving.port))
        yield from manual
        turn = Trial(edited(state, manual), run, Upstream(report, device)).fitting_gain()
        if turn is not None:
            yield turn


def heard_edits(
    plan: Plan,
    who: str,
    placed: PlacedDevice,
    distance_m: float | None,
    average_db: float | None = None,
    weighting: Weighting = Weighting.A,
) -> list[Edit]:
    """What makes somebody, new or known, be heard at a microphone; where no distance is said, at its usual one."""
    return next(_heard(plan, who, [placed], distance_m, None, average_db, weighting))


def _heard(
    plan: Plan,
    who: str,
    microphones: Sequence[PlacedDevice],
    distance_m: float | None,
    off_axis_deg: float | None,
    average: float | None,
    weighting: Weighting,
) -> Iterator[list[Edit]]:
    """What makes a source be heard at each of some microphones: a new one, or one that is known."""
    known = find_sources(plan, split_words(who))
    for placed in microphones:
        away_m = usual_distance_m(placed.device_class) if distance_m is None else distance_m
        if not known:
            level_db = EFFORTS_DB_SPL["normal"] if average is None else average
            label = who.strip()[:1].upper() + who.strip()[1:]
            mic = placed.device.id
            angles = {mic: off_axis_deg} if off_axis_deg else {}
            yield [
                AddSource(
                    label=label,
                    average_db_spl=level_db,
                    heard_by={mic: away_m},
                    off_axis_deg=angles,
                    weighting=weighting,
                )
            ]
        for source in known:
            edits: list[Edit] = [
                Hear(source=source.id, device=placed.device.id, distance_m=away_m, off_axis_deg=off_axis_deg)
            ]
            if average is not None:
                edits.append(louder(source, average))
            yield edits


def _no_microphone(found: Sequence[DeviceMatch], words: Sequence[str]) -> str:
    if not found:
        return f"no microphone here is called '{' '.join(words)}'"
    placed, rest = found[0].placed, " ".join(found[0].rest)
    if placed.device_class.capsule is None:
        return f"{placed.label} is no microphone"
    return f"'{rest}' after {placed.label} is no distance and no level: say 0.5 m, raised or 66 dB"


def louder(source: Source, average_db_spl: float) -> SetSource:
    """Another average; quiet and peak keep their distance from it."""
    shift = average_db_spl - source.average_db_spl
    return SetSource(
        source=source.id,
        quiet_db_spl=source.quiet_db_spl + shift,
        average_db_spl=average_db_spl,
        peak_db_spl=source.peak_db_spl + shift,
    )
