"""Drill: a new one, a sound of it, and the shortest order."""

from collections.abc import Callable, Iterator
from statistics import median

from tidy_trunk.core.drill import DrillLevel, EarTask, RigFaults, draw_drill, ear_sound
from tidy_trunk.core.sound.simulation import Faults, Play, Simulator, audible, points_of
from tidy_trunk.services.drills import SOUND_SAMPLES

SEEDS = range(8)


def drill(timed: Callable[[Callable[[], object], int], list[float]]) -> Iterator[tuple[str, float, str]]:
    """Name, milliseconds and goal of each line."""
    yield (
        "a drill drawn, night shoot, the slowest of 8",
        max(timed(lambda seed=seed: draw_drill(seed, level=DrillLevel.NIGHT_SHOOT), 1)[0] for seed in SEEDS),
        "1000 ms",
    )
    found = max((draw_drill(seed, level=DrillLevel.NIGHT_SHOOT) for seed in SEEDS), key=lambda one: len(one.rig.chain))
    words = f"shortest order, {len(found.rig.chain)} devices, {len(found.found.faults)} faults, all of it"
    yield words, median(timed(lambda: _order(RigFaults(found.rig)), 3)), "2000 ms"
    paired = draw_drill(SEEDS[0], level=DrillLevel.NIGHT_SHOOT, most=2).found
    words = f"shortest order, {len(paired.shown[paired.rig.probes[0].id])} possibilities of up to two faults"
    yield words, median(timed(lambda: _order(RigFaults(paired.rig, 2)), 3)), "2000 ms"
    yield "a sound of it", median(timed(lambda: _sound(found), 3)), "500 ms"
    yield "a sound of ear training", median(timed(lambda: ear_sound(EarTask.HUM, 3, 0, 0, 6.0), 5)), "500 ms"


def _order(found: RigFaults) -> float:
    for name in found.order.all:
        found.order.steps_to(name)
    return found.order.expected_minutes()


def _sound(drill) -> object:  # type: ignore[no-untyped-def]
    faulty = drill.faulty
    track = next(
        track
        for placed in drill.rig.chain[::-1]
        for track in faulty.report.tracks_of(placed.device.id)
        if not track.is_silent
    )
    bench = Simulator(faulty.index, Play.VOICE, faults=Faults(strays=True), sample_count=SOUND_SAMPLES)
    return audible(bench, points_of(faulty.report, track.trace.stage)[-1], is_track=True)
