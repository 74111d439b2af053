"""Clocks over a day, a second time: minute by minute, each label with the clocks that have counted it; jams by search.

The error of a label is the sum, over all clocks, of the minutes that each has counted for it times that clock's error. Two
devices are furthest apart where every clock is as wrong as it may be, on the side that drives them apart.
"""

import heapq
from collections import Counter
from collections.abc import Mapping, Sequence


def apart_over_day(
    ppm: Mapping[str, float],
    givers: Mapping[str, str],
    jams: Mapping[str, Sequence[int]],
    minutes: range,
    fps: float,
    against: str = "",
) -> list[dict[tuple[str, str], float]]:
    """For each minute, just before what is jammed in it: frames by which each pair may be apart, or only those with one.

    Args:
        ppm: By device. givers: By device that gets its time; all others count alone.
        jams: By device that is jammed; those without stay on the lead. Pairs that are not set yet are left out.
    """
    counted: dict[str, Counter | None] = {device: None if device in givers else Counter() for device in ppm}
    order = sorted(ppm, key=lambda device: _depth(givers, device))
    found = []
    for minute in minutes:
        for device in order:  # a lead hands on what its giver has
            if device in givers and device not in jams:
                counted[device] = _copied(counted[givers[device]])
        known = {device: count for device, count in counted.items() if count is not None}
        others = [against] if against else list(known)
        per_frame = 60 * 1e-6 * fps
        found.append(
            {(one, other): _worst(known[one], known[other], ppm) * per_frame for one in known for other in others}
        )
        for device in order:  # givers first
            if minute in jams.get(device, ()) or (device in givers and device not in jams):
                counted[device] = _copied(counted[givers[device]])
        for device in order:
            if counted[device] is not None and (device not in givers or device in jams):
                counted[device][device] += 1
    return found


def _copied(count: Counter | None) -> Counter | None:
    return None if count is None else Counter(count)


def _worst(one: Counter, other: Counter, ppm: Mapping[str, float]) -> float:
    return sum(abs(one[clock] - other[clock]) * ppm[clock] for clock in {*one, *other})


def _depth(givers: Mapping[str, str], device: str) -> int:
    return 1 + _depth(givers, givers[device]) if device in givers else 0


def fewest_stops(begins: int, ends: int, lasts: int, breaks: Sequence[tuple[int, int]]) -> tuple[int, int] | None:
    """Jams that stop the work, and jams in all, of the best schedule: every schedule, the cheapest first.

    breaks: (minute, length); a jam in any minute of one, or as the day begins, stops nothing.
    """
    free = {begins} | {minute for at, length in breaks for minute in range(at, at + length + 1)}
    heap, done = [(0, 1, begins)], set()
    while heap:
        stops, jams, minute = heapq.heappop(heap)
        if minute in done:
            continue
        done.add(minute)
        if minute + lasts >= ends:
            return stops, jams
        for later in range(minute + 1, minute + lasts + 1):
            if later not in done:
                heapq.heappush(heap, (stops + (later not in free), jams + 1, later))
    return None
