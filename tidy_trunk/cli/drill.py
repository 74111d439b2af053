"""`drill`: a rig with a hidden fault, for whoever teaches it or tests it."""

from pathlib import Path

from tidy_trunk.cli.output import show
from tidy_trunk.core.drill import DrillLevel, draw_drill
from tidy_trunk.media.plan_files import load_plan
from tidy_trunk.results.drill import drill_out


def show_drill(seed: int, plan_file: Path | None, level: str, kind: str, reveal: bool, as_json: bool) -> int:
    """The rig and what can be done on it; with `reveal` the fault too, and the shortest order to find it.

    Raises RangeError, PlanError: no such number, or the plan is not fit for a drill.
    """
    drill = draw_drill(seed, None if plan_file is None else load_plan(plan_file), level=DrillLevel(level), kind=kind)
    steps = drill.found.order.steps_to(drill.truth) if reveal else ()
    title = "Drawn rig" if plan_file is None else drill.rig.index.plan.name
    done = [step.probe.id for step in steps]
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
        for number, (step, seen) in enumerate(zip(found.judged.best, found.seen, strict=True), 1):
            told.append(f"{number}  {step.label} ({step.minutes:g} min, {step.left} left): {'; '.join(seen.lines)}")
        told += [f"checklist: {found.judged.prevents}"] if found.judged.prevents else []
    show(found, "\n".join(told).replace("−", "-"), as_json)
    return 0
