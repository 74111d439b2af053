"""A whole chain in one line: who is heard, the microphone, radio where it goes by radio, and where it ends."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from tidy_trunk.core.base.text import spelled
from tidy_trunk.core.command import runs
from tidy_trunk.core.command.draft import Draft
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal
from tidy_trunk.core.command.runs import joined
from tidy_trunk.core.command.things import heard_edits
from tidy_trunk.core.command.words import DeviceMatch, find_classes, find_devices, split_words, take_level
from tidy_trunk.core.gear.catalogue import DeviceClass, Port
from tidy_trunk.core.plan import PlacedDevice, Plan, PlanIndex, PortRef, message

CHAIN: Final = re.compile(r"^[^:]+:\s*\S.*\s(?:to|into|->|>|→)\s+\S")
"""Somebody, a colon, and a connection. [PRACTICE]"""

_BY_RADIO: Final = re.compile(r"[,\s]\s*(?:by|on|over|with)\s+(?:radio|wireless)\b", re.IGNORECASE)
_CALLED: Final = re.compile(r"\s+as\s+([^,]+?)(?=\s+(?:to|into|->|>|→)\s|,|$)")


def chain(plan: Plan, line: str) -> Iterator[Proposal]:
    """`ann: lavalier by radio to bag 2, 0.2 m`: all that is missing is added, and everything is one step."""
    who, _, rest = line.partition(":")
    is_by_radio = _BY_RADIO.search(rest) is not None
    start, end, distance_m = runs.ends_of(_BY_RADIO.sub("", rest))
    end, comma, more = end.partition(",")
    average_db, weighting, more = take_level(comma + more)
    end += more
    draft = Draft(plan)
    microphone, left = _device(draft, start, who=who.strip()[:1].upper() + who.strip()[1:], is_heard=True)
    placed = draft.index.placed(microphone)
    if placed.device_class.capsule is None or left:
        raise NotUnderstoodError(
            f"'{who.strip()}' is understood as somebody to be heard, but '{start.strip()}' is no microphone: say ann: lavalier to bag 2"
        )
    draft.do(*heard_edits(draft.plan, who, placed, distance_m, average_db, weighting))
    sender = draft.by_radio(microphone) if is_by_radio else microphone
    receiver, left = _device(draft, end, is_end=True)
    yield from _ending(draft, sender, receiver, left, who.strip())


def connect(plan: Plan, line: str) -> Iterator[Proposal]:
    """`boom to bag 1, 7 m`; kinds of devices that the job has none of are added first: `lavalier to camera`, `lavalier by radio
    to bag 5`."""
    start, end, length_m = runs.ends_of(line)
    if _BY_RADIO.search(start):
        yield from _with_added(plan, start, end, length_m)
        return
    try:
        yield from runs.connect(plan, line)
    except runs.UnknownEndError as error:
        try:
            yield from _with_added(plan, start, end, length_m)
        except _NoSuchKindError:
            raise error from None


class _NoSuchKindError(NotUnderstoodError):
    """Words that name no device of the job, nor any kind of one."""


def _with_added(plan: Plan, start: str, end: str, length_m: float | None) -> Iterator[Proposal]:
    """A connection of which one end, or both, is a kind of device that the job has none of yet: it is added first."""
    draft = Draft(plan)
    named = _BY_RADIO.sub("", start)
    is_by_radio = named != start
    sender, from_words = _device(draft, named, is_heard=is_by_radio)
    if is_by_radio:
        sender, from_words = _over_radio(draft, sender), ()
    receiver, to_words = _device(draft, end, is_end=True)
    yield from _ending(draft, sender, receiver, to_words, "", from_words, length_m)


def _over_radio(draft: Draft, device: str) -> str:
    """The receiver of a microphone that nothing is plugged into yet. Raises NotUnderstoodError for all else."""
    placed = draft.index.placed(device)
    if placed.device_class.capsule is None or _is_taken(draft.index, placed):
        why = "is in use" if placed.device_class.capsule is not None else "is no microphone"
        raise NotUnderstoodError(
            f"{placed.label} {why}: a radio link begins at a free microphone, such as lavalier by radio to bag 2"
        )
    return draft.by_radio(device)


def _ending(
    draft: Draft,
    sender: str,
    receiver: str,
    to_words: Sequence[str],
    who: str,
    from_words: Sequence[str] = (),
    length_m: float | None = None,
) -> Iterator[Proposal]:
    """The last cable, matched as the same line would match it where all else is there; all of it as one proposal."""
    index, before = draft.index, draft.edits
    ends = (
        [DeviceMatch(index.placed(sender), tuple(from_words))],
        [DeviceMatch(index.placed(receiver), tuple(to_words))],
    )
    added = tuple(device for device in draft.plan.devices if device not in draft.start.devices)
    for answer in joined(draft.plan, *ends, length_m):
        does = message("chain", PlanIndex(draft.plan), who=who, added=added, then=answer.does)
        yield replace(answer, plan=draft.start, edits=(*before, *answer.edits), does=does)


def _device(
    draft: Draft, text: str, *, who: str = "", is_heard: bool = False, is_end: bool = False
) -> tuple[str, Sequence[str]]:
    """A device of the job that words name, with the words that are left for a socket; else one that is added.

    who: is heard by it, and gives it its name. is_heard: a microphone is meant, and none of the job that goes somewhere already
    where its kind is named.
    is_end: the cable arrives there.

    Raises:
        _NoSuchKindError: They name neither.
    """
    called = _CALLED.search(text)
    words = split_words(_CALLED.sub("", text))
    there = find_devices(draft.index, words)
    found = [
        (spelled(item.kind) == " ".join(words[:count]), count, item)
        for count in range(len(words), 0, -1)
        for item in _classes(draft.plan, words[:count], is_heard=is_heard)[:1]
        if count == len(words) or _has_socket(item.inputs if is_end else item.outputs, words[count:])
    ]
    if there and not (is_heard and found and _is_taken(draft.index, there[0].placed)):
        return there[0].placed.device.id, there[0].rest
    if not found:
        raise _NoSuchKindError(f"no device here is called '{text.strip(' ,')}', nor any kind of one")
    _, count, item = max(found, key=lambda entry: entry[:2])
    label = f"{who} {item.label.split(',')[0].lower()}" if who else None
    return draft.add(item.id, called.group(1) if called else label), words[count:]


def _is_taken(index: PlanIndex, placed: PlacedDevice) -> bool:
    return any(index.leaving.get(PortRef(placed.device.id, port.id)) for port in placed.device_class.outputs)


def _classes(plan: Plan, words: Sequence[str], *, is_heard: bool) -> list[DeviceClass]:
    """Kinds of devices by everyday words; one that is a kind by its name stands before those that are only called so."""
    found = [item for item in find_classes(plan, words) if item.capsule is not None or not is_heard]
    said = " ".join(words)
    return sorted(
        found,
        key=lambda item: (item.id not in plan.classes, is_heard and not item.is_microphone, spelled(item.kind) != said),
    )


def _has_socket(ports: Sequence[Port], words: Sequence[str]) -> bool:
    """Whether words are the beginning or the end of the name of a socket."""
    labels = [split_words(port.label) for port in ports]
    return any([*words] in (label[: len(words)], label[-len(words) :]) for label in labels)
