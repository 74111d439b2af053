"""What a job needs from the trunk: a cable for every part of every run, the devices, and what its day uses up."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from tidy_trunk.core.day import DayPlan, TaskKind
from tidy_trunk.core.gear.catalogue import INSIDE, LeadClass
from tidy_trunk.core.plan import Plan, PlanIndex
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import upstream_of
from tidy_trunk.core.trunk.stock import PieceKind


@dataclass(frozen=True, slots=True, kw_only=True)
class CableNeed:
    """One cable or adapter that has to lie in a run. id: of it within the job; runs: two of them for a cable with two ways.

    is_once: a source that cannot be repeated hangs on it, so that a spare is wanted.
    """

    id: str
    runs: tuple[str, ...]
    lead: LeadClass
    length_m: float
    is_once: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class OtherNeed:
    """So many of something: devices of a class, batteries for a device, cards. device: whose, "" of devices themselves.

    wh: that a battery has in it, None where nobody has said; names: by which one that fits may be called.
    """

    kind: PieceKind
    what: str
    label: str
    count: int
    device: str = ""
    wh: float | None = None
    names: tuple[str, ...] = ()


WITHOUT_LEAD = frozenset({"radio", "shoe", INSIDE})
"""What is no piece of a trunk: nothing lies there. [PRACTICE]"""


def cable_needs(report: Report) -> tuple[CableNeed, ...]:
    """Every part of every run, in the order of their numbers; a cable with two ways once."""
    plan, index = report.index.plan, report.index
    once = _once(report)
    found: dict[str, CableNeed] = {}
    for run in sorted(plan.runs.values(), key=lambda one: one.number):
        for number, part in enumerate(run.parts):
            lead = index.lead_of(part)
            if lead.id in WITHOUT_LEAD:
                continue
            key = f"{part.shared}/{part.lead}" if part.shared else f"{run.id}/{number}"
            before = found.get(key)
            runs = (*before.runs, run.id) if before is not None else (run.id,)
            is_once = run.id in once or (before is not None and before.is_once)
            length_m = max(part.length_m, before.length_m if before is not None else 0.0)
            found[key] = CableNeed(id=key, runs=runs, lead=lead, length_m=length_m, is_once=is_once)
    return tuple(found.values())


def _once(report: Report) -> frozenset[str]:
    """Runs on the way from what happens only once to a track."""
    plan = report.index.plan
    sources = {source.id for source in plan.sources.values() if source.irreplaceable}
    found = set()
    for track in report.tracks:
        if sources & set(track.sources):
            found |= {stage.run.id for stage in upstream_of(track.trace.stage) if stage.run is not None}
    return frozenset(found)


def device_needs(plan: Plan) -> tuple[OtherNeed, ...]:
    """Devices by their class."""
    classes = Counter(device.class_id for device in plan.devices.values())
    index = PlanIndex(plan)
    labels = {device.class_id: index.placed(device.id).device_class.label for device in plan.devices.values()}
    return tuple(
        OtherNeed(kind=PieceKind.DEVICE, what=class_id, label=labels[class_id], count=count)
        for class_id, count in classes.items()
    )


def day_needs(index: PlanIndex, day: DayPlan) -> tuple[OtherNeed, ...]:
    """Batteries and cards that the day's plan puts in place of others, beside those that are in the devices."""
    swaps = Counter((task.kind, task.device) for task in day.tasks if task.kind in (TaskKind.BATTERY, TaskKind.MEDIA))
    found = []
    for (kind, device), count in sorted(swaps.items(), key=lambda item: (item[0][0], item[0][1])):
        placed = index.placed(device)
        is_battery = kind is TaskKind.BATTERY
        if not is_battery and placed.device_class.traits.media == "internal":
            continue  # it is emptied, and nothing is put in its place
        what = "battery" if is_battery else "card"
        found.append(
            OtherNeed(
                kind=PieceKind.BATTERY if is_battery else PieceKind.CARD,
                what="",
                label=f"{what} for {placed.label}",
                count=count,
                device=device,
                wh=stated.value if is_battery and (stated := placed.device_class.traits.battery_wh) else None,
                names=(placed.label, placed.device_class.label),
            )
        )
    return tuple(found)


def cell_needs(index: PlanIndex) -> tuple[OtherNeed, ...]:
    """A fresh cell for each microphone that runs on one. [PRACTICE]"""
    running = tuple(
        placed.label
        for placed in index.placed_devices()
        if (placed.device_class.capsule is not None and placed.device_class.capsule.cell)
        or (placed.device_class.feeding is not None and placed.device_class.feeding.cell)
    )
    if not running:
        return ()
    label = f"{'cell' if len(running) == 1 else 'cells'} for {', '.join(running)}"
    return (OtherNeed(kind=PieceKind.CELL, what="", label=label, count=len(running), names=running),)


def by_length(needs: Sequence[CableNeed]) -> list[CableNeed]:
    """The longest first: it has the fewest pieces that could do."""
    return sorted(needs, key=lambda need: (-need.length_m, need.id))
