"""What tells two states of a job apart, in sentences."""

from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import Any, Final

from tidy_trunk.core.gear.catalogue import CELL_KEY, controls_of, figures_of
from tidy_trunk.core.plan import Difference, Jam, Part, Plan, PlanIndex, differences
from tidy_trunk.words.names import (
    default_words,
    drift_words,
    error_words,
    knob_words,
    meter_words,
    path_words,
    times_words,
    track_words,
)
from tidy_trunk.words.numbers import plain

_ITEMS: Final = {
    "classes": "class",
    "leads": "cable of your own",
    "targets": "target",
    "sources": "source",
    "set_ups": "set-up",
    "moves": "company move",
    "breaks": "break",
}
"""Things of which only the name is told, and what about them is new. [PRACTICE] of software"""


def difference_sentences(before: Plan, after: Plan) -> tuple[str, ...]:
    """What changes from one state to another, in the order in which a job is read; empty where nothing does.

    Both plans must be well formed.
    """
    told: list[str] = []
    states = _States(before, after)
    for (part, key), found in groupby(differences(before, after), key=lambda item: (item.part, item.key)):
        if part in _ITEMS:
            told += states.item(_ITEMS[part], list(found))
        else:
            told += dict.fromkeys(states.one(part, key, item) for item in found)
    return tuple(told)


class _States:
    """Two states, and what is said of their differences by the names that things have in them."""

    def __init__(self, before: Plan, after: Plan) -> None:
        self.before, self.after = before, after
        self.first, self.second = PlanIndex(before), PlanIndex(after)

    def item(self, what: str, found: Sequence[Difference]) -> Iterator[str]:
        one = found[0]
        if not one.what:
            yield f"{what} {(one.now or one.was).label} is {'new' if one.was is None else 'gone'}"
            return
        label = getattr(self.after, one.part)[one.key].label
        yield f"{what} {label}: {', '.join(_field(item.what, item.was, item.now) for item in found)}"

    def one(self, part: str, key: str, item: Difference) -> str:
        """A difference of which a whole sentence is made."""
        match part:
            case "name":
                return f"the job is called {item.now}, not {item.was}"
            case "defaults":
                return f"{default_words(key, item.now)}, was {default_words(key, item.was)}"
            case "devices":
                return self._device(key, item)
            case "runs":
                return self._run(key, item)
        return self._measured(part, item.was, item.now)

    def _device(self, key: str, item: Difference) -> str:
        if item.now is None and not item.what:
            return f"{item.was.label} is gone"
        placed = self.second.placed(key)
        if item.was is None and not item.what:
            return f"{placed.label} is new: {placed.device_class.label}"
        kind, _, name = item.what.partition(".")
        match kind:
            case "label":
                return f"{item.was} is called {item.now}"
            case "class_id":
                was = self.first.placed(key).device_class.label
                return f"{placed.label} is of class {placed.device_class.label}, was {was}"
            case "settings":
                control = controls_of(placed.device_class)[name]
                port = f" {where}" if (where := placed.where_label(control.port)) else ""
                then, here = (control.words(control.default if x is None else x) for x in (item.was, item.now))
                label = "cell" if control.id == CELL_KEY else control.label
                return f"{placed.label}{port}: {label} {here}, was {then}"
            case "fed":
                now, was = (", ".join(map(placed.place_label, places)) or "nothing" for places in (item.now, item.was))
                return f"{placed.label}: {placed.place_label(name)} from {now}, was from {was}"
            case "roles":
                return f"{placed.bus_label(name)} is for {item.now}, was for {item.was}"
            case "jam":
                return f"{placed.label} is jammed {_jam(self.second, item.now)}, was {_jam(self.first, item.was)}"
            case "place":
                return f"{placed.label} stands at {item.now or 'the cart'}, was at {item.was or 'the cart'}"
        named = next(named for named in figures_of(placed.device_class) if named.path == name)
        return f"{placed.label} {named.label}: {_plain(named.figure.value)} {named.unit}, {named.figure.provenance}"

    def _run(self, key: str, item: Difference) -> str:
        if item.now is None and not item.what:
            return f"{self.first.run_label(item.was)} is gone"
        run = self.after.runs[key]
        if item.was is None and not item.what:
            return f"{self.second.run_label(run)} is new, by {_parts(self.second, run.parts)}"
        label = f"cable {run.number}"
        match item.what:
            case "number":
                return f"cable {item.was} has number {item.now}"
            case "sending" | "receiving":
                return f"{label} goes from {self.second.port_label(run.sending)} to {self.second.port_label(run.receiving)}"
            case "parts":
                return f"{label} by {_parts(self.second, item.now)}, was {_parts(self.first, item.was)}"
            case "path":
                return f"{label}: {path_words(item.now)}, was {path_words(item.was)}"
        return f"{label}: {'strain relief fitted' if item.now else 'no strain relief'}"

    def _measured(self, part: str, was: Any, now: Any) -> str:
        plan, one = (self.before, was) if now is None else (self.after, now)
        match part:
            case "line_ups":
                track = track_words(plan, one.track)
                if now is None:
                    return f"{track} is no longer lined up"
                then = f", was {_plain(was.read_dbfs)}" if was else ""
                return f"{track} is lined up: {_plain(now.read_dbfs)} dBFS for {_plain(now.sent_dbfs)}{then}"
            case "gain_laws":
                knob = knob_words(plan, one.class_id, one.control)
                return f"{knob} is {'as it is marked again' if now is None else f'measured at {len(now.points)} positions'}"
            case "meters":
                return (
                    f"{meter_words(plan, one.class_id)} {'is no longer corrected' if now is None else error_words(now)}"
                )
        first, second = (plan.devices[name].label for name in (one.first, one.second))
        measured = "as good as their classes again" if now is None else f"measured, {drift_words(now.ppm)}"
        return f"the clocks of {first} and {second} are {measured}"


def _field(name: str, old: object, new: object) -> str:
    words = name.replace("_db_spl", "").replace("_", " ")
    if isinstance(new, bool):
        return words if new else f"not {words}"
    if isinstance(old, int | float | str) and isinstance(new, int | float | str):
        return f"{words} {_plain(new)}, was {_plain(old)}"
    return f"{words} changed"


def _plain(value: float | str) -> str:
    return value if isinstance(value, str) else plain(value)


def _jam(index: PlanIndex, jam: Jam | None) -> str:
    return "not at all" if jam is None else f"from {index.placed(jam.giver).label} at {times_words(jam.at_min)}"


def _parts(index: PlanIndex, parts: Sequence[Part]) -> str:
    return " and ".join(f"{part.length_m:g} m {index.lead_of(part).label}" for part in parts) or "no cable"
