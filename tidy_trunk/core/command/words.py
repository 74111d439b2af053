"""Finding devices, ports, sources and classes by the words that a user types: beginnings of words are enough."""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from typing import Final, Protocol, TypeVar

from tidy_trunk.core.gear.catalogue import DeviceClass, Port, built_in
from tidy_trunk.core.plan import EFFORTS_DB_SPL, PlacedDevice, Plan, PlanIndex, Run, Source, Weighting

_LENGTH = re.compile(r"(?:^|[,\s])\s*(?:with\s+)?(\d+(?:[.,]\d+)?)\s*(c?m)\b")

ANGLE: Final = re.compile(r"[,\s]\s*(\d+(?:[.,]\d+)?)\s*(?:°|deg(?:rees?)?\b)(?:\s*off(?:\s*axis)?)?", re.IGNORECASE)
"""ASSUMED_ form of an angle off a microphone's axis in a line: `30°`, `30 degrees off`."""

LEVEL: Final = re.compile(r"[,\s]\s*(\d+(?:[.,]\d+)?)\s*db(?:\s*\(?[az]\)?(?![a-z])|\b)(?:\s*spl)?", re.IGNORECASE)
"""A sound level in a line."""

UNWEIGHTED: Final = re.compile(r"\bunweighted\b|\bdb\s*\(?z\)?(?![a-z])", re.IGNORECASE)
"""That a level in a line is not A-weighted. [IEC61672-1]"""

ALIKE: Final = 0.75
"""ASSUMED_ likeness of two words, 1 for equal ones, from which one may be the other with a slip of the thumb."""

_JOINING: Final = frozenset({"a", "an", "and", "with"})


def number(text: str) -> float:
    """A number with point or comma."""
    return float(text.replace(",", "."))


def take_length(text: str) -> tuple[float | None, str]:
    """The first length in a text, in m, and the text without it; None where there is none."""
    found = _LENGTH.search(text)
    if not found:
        return None, text
    metres = number(found.group(1)) / (100 if found.group(2) == "cm" else 1)
    return metres, text[: found.start()] + text[found.end() :]


def take_level(text: str) -> tuple[float | None, Weighting, str]:
    """How loud somebody is who is heard, in dB at 1 m, as a number or a vocal effort (`very loud`), and the text without it; None
    where it is not said."""
    level = LEVEL.search(text)
    effort = next((name for name in reversed(list(EFFORTS_DB_SPL)) if re.search(rf"\b{name}\b", text)), "")
    average = number(level.group(1)) if level else EFFORTS_DB_SPL.get(effort)
    weighting = Weighting.Z if UNWEIGHTED.search(text) else Weighting.A
    rest = UNWEIGHTED.sub("", LEVEL.sub("", text))
    return average, weighting, rest.replace(effort, "") if effort else rest


def split_words(text: str) -> list[str]:
    """Lower-case words and numbers; "in1" is two of them."""
    return re.findall(r"[a-zà-ÿ]+|\d+(?:[.,]\d+)?", text.lower())


def matches(typed: Sequence[str], *names: str) -> bool:
    """Whether each typed word begins a word of the names; a word of the names serves once."""
    left = [word for name in names for word in split_words(name)]
    for word in typed:
        hit = next((name for name in left if name == word), None) or next(
            (name for name in left if name.startswith(word) and not word.isdigit()), None
        )
        if hit is None:
            return False
        left.remove(hit)
    return True


@dataclass(frozen=True, slots=True)
class DeviceMatch:
    """A device that words may mean, and the words after it, which say which port."""

    placed: PlacedDevice
    rest: tuple[str, ...]


def find_devices(index: PlanIndex, typed: Sequence[str]) -> list[DeviceMatch]:
    """Devices whose label or id the first words begin, the longest match first, exact labels before others."""
    found: list[tuple[tuple[int, bool], DeviceMatch]] = []
    for placed in index.placed_devices():
        for count in range(len(typed), 0, -1):
            if matches(typed[:count], placed.label) or matches(typed[:count], placed.device.id):
                exact = list(typed[:count]) in (split_words(placed.label), split_words(placed.device.id))
                found.append(((-count, not exact), DeviceMatch(placed, tuple(typed[count:]))))
                break
    found.sort(key=lambda item: item[0])
    if found and not found[0][0][1]:
        found = [item for item in found if not item[0][1] or item[0][0] < found[0][0][0]]
    return [match for _, match in found]


def find_ports(ports: Iterable[Port], typed: Sequence[str]) -> list[Port]:
    """Ports of just that name; where there is none, those whose label or id the words begin, which is all for no words."""
    found = [port for port in ports if matches(typed, port.label, port.id)]
    return [port for port in found if split_words(port.label) == [*typed]] or found


def find_sources(plan: Plan, typed: Sequence[str]) -> list[Source]:
    return [source for source in plan.sources.values() if matches(typed, source.label) or matches(typed, source.id)]


def find_classes(plan: Plan, typed: Sequence[str]) -> list[DeviceClass]:
    """Classes whose name, kind or id the words begin, those that begin with the first word first; behind them those that are
    also called so. Those of the user's own stand before the built-in ones. A word that joins others need not be in a name."""
    typed = [word for word in typed if word not in _JOINING] or typed
    classes = [*plan.classes.values(), *built_in().devices.values()]
    found = [item for item in classes if matches(typed, item.label, item.id, item.kind)]
    called = [
        item for item in classes if item not in found and matches(typed, item.label, item.id, item.kind, item.also)
    ]
    own = plan.classes
    found.sort(key=lambda item: (item.id not in own, not split_words(item.label)[0].startswith(typed[0])))
    return [*found, *called]


def near_classes(typed: Sequence[str]) -> list[DeviceClass]:
    """Built-in classes that share most of the words, or words much like them; none where they share nothing."""
    named = {item.id: (split_words(item.label), split_words(item.also)) for item in built_in().devices.values()}
    known = sorted({word for labels, others in named.values() for word in (*labels, *others)})
    meant = [word for said in typed for word in _alike(said, known)]
    # Its label says more of it than what it is called besides.
    shared = {
        item: 2 * sum(map(meant.count, set(labels))) + sum(map(meant.count, set(others)))
        for item, (labels, others) in named.items()
    }
    most = max(shared.values())
    return [built_in().devices[item] for item, count in shared.items() if count == most] if most else []


def _alike(said: str, known: Sequence[str]) -> Sequence[str]:
    return [word for word in known if word.startswith(said)] or get_close_matches(said, known, 1, ALIKE)


class _Labelled(Protocol):
    @property
    def label(self) -> str: ...


_L = TypeVar("_L", bound=_Labelled)


def find_leads(leads: Mapping[str, _L], typed: Sequence[str]) -> list[_L]:
    """Leads whose name the words begin; none for no words."""
    return [lead for lead in leads.values() if typed and matches(typed, lead.label, getattr(lead, "also", ""))]


def named_run(plan: Plan, text: str) -> tuple[Run, str] | None:
    """The run of which a line begins with the number, and what follows it; None where there is none."""
    found = re.match(r"\s*(?:cable\s+)?(\d+)\b\s*:?\s*(.*)$", text, re.IGNORECASE)
    run = next((run for run in plan.runs.values() if found and run.number == int(found.group(1))), None)
    return (run, found.group(2)) if run is not None and found else None
