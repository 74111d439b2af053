"""`drill`: a rig with a hidden fault, for whoever teaches it or tests it."""

from pathlib import Path

from tidy_trunk.cli.output import show
from tidy_trunk.core.drill import DrillLevel, draw_drill
from tidy_trunk.media.plan_files import load_plan
from tidy_trunk.results.drill import best_done, drill_out


def show_drill(seed: int, plan_file: Path | None, level: str, kind: str, most: int, reveal: bool, as_json: bool) -> int:
    """The rig and what can be done on it; with `reveal` the fault too, and the shortest order to find it.

    Raises RangeError, PlanError: no such number, or the plan is not fit for a drill.
    """
    plan = None if plan_file is None else load_plan(plan_file)
    drill = draw_drill(seed, plan, level=DrillLevel(level), kind=kind, most=most)
    title = "Drawn rig" if plan_file is None else drill.rig.index.plan.name
    done = best_done(drill) if reveal else []
    found = drill_out(str(seed), title, drill, done, (), drill.truth if reveal else None)
    order = drill.found.order
    told = [
        f"{title}: {', '.join(found.devices)}",
        *found.cables,
        f"{len(found.answers)} possible answers, {len(found.probes)} things to do; the shortest order takes "
        f"{order.expected_minutes():.1f} min on average, looking at everything in turn {order.in_turn_minutes():.1f} min",
    ]
    if found.judged is not None:
        told += ["", f"fault: {found.judged.truth}"]
        steps = iter(found.judged.best)
        for number, seen in enumerate(found.seen, 1):
            took = f" ({seen.minutes:g} min, {next(steps).left} left)" if seen.minutes else ""
            told.append(f"{number}  {seen.label}{took}: {'; '.join(seen.lines)}")
        told += [f"checklist: {line}" for line in found.judged.prevents]
    show(found, "\n".join(told).replace("−", "-"), as_json)
    return 0
