"""In which order a job's gains are settled: from the microphones on, a device when all that feeds it stands."""

from collections.abc import Iterator
from dataclasses import dataclass

from tidy_trunk.core.plan import PlanIndex, PortRef, Run


@dataclass(frozen=True, slots=True)
class Group:
    """Runs that share a plug at either end, so that the knobs of one move the others."""

    runs: tuple[Run, ...]

    @property
    def outputs(self) -> tuple[PortRef, ...]:
        return tuple(dict.fromkeys(run.sending for run in self.runs))

    @property
    def inputs(self) -> tuple[PortRef, ...]:
        return tuple(dict.fromkeys(run.receiving for run in self.runs))


def devices_in_order(index: PlanIndex) -> list[str]:
    """Ids of all devices, senders before receivers; where devices feed each other, in the order of the plan."""
    feeds: dict[str, set[str]] = {device: set() for device in index.plan.devices}
    for run in index.plan.runs.values():
        if run.sending.device != run.receiving.device:
            feeds[run.receiving.device].add(run.sending.device)
    found: dict[str, None] = {}
    waiting = list(feeds)
    while waiting:
        ready = [device for device in waiting if feeds[device] <= found.keys()] or waiting[:1]
        found.update(dict.fromkeys(ready))
        waiting = [device for device in waiting if device not in found]
    return list(found)


def groups_into(index: PlanIndex, device: str) -> Iterator[Group]:
    """The groups of runs of which one at least ends at a device."""
    seen: set[str] = set()
    for run in index.plan.runs.values():
        if run.receiving.device == device and run.id not in seen:
            group = _group(index, run)
            seen |= {item.id for item in group.runs}
            yield group


def _group(index: PlanIndex, first: Run) -> Group:
    found = {first.id: first}
    waiting = [first]
    for run in waiting:
        for other in (*index.leaving.get(run.sending, ()), *index.arriving.get(run.receiving, ())):
            if other.id not in found:
                found[other.id] = other
                waiting.append(other)
    return Group(tuple(found.values()))
