"""Edits on runs: from where to where, through which leads."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.edits.base import find, free_id, put, without
from tidy_trunk.core.plan.model import Part, Plan, PortRef, Run, Stretch
from tidy_trunk.errors import PlanError


@dataclass(frozen=True, slots=True, kw_only=True)
class Connect:
    """A run from an output to an input through parts; it gets the lowest free number."""

    sending: PortRef
    receiving: PortRef
    parts: tuple[Part, ...] = ()
    id: str | None = None
    path: tuple[Stretch, ...] = ()

    def apply(self, plan: Plan) -> Plan:
        taken = {run.number for run in plan.runs.values()}
        number = next(count for count in range(1, len(taken) + 2) if count not in taken)
        run_id = self.id or free_id(f"run {number}", plan.runs)
        if run_id in plan.runs:
            raise PlanError(f"there is a cable '{run_id}' already: give the new one another id")
        run = Run(
            id=run_id,
            number=number,
            sending=self.sending,
            receiving=self.receiving,
            parts=self.parts,
            path=self.path,
        )
        return replace(plan, runs=put(plan.runs, run_id, run))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetParts:
    """Other leads for a run."""

    run: str
    parts: tuple[Part, ...]

    def apply(self, plan: Plan) -> Plan:
        run = find(plan.runs, self.run, "cable")
        return replace(plan, runs=put(plan.runs, run.id, replace(run, parts=self.parts)))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetPath:
    """Where the lead of a run lies; no stretch at all forgets it."""

    run: str
    path: tuple[Stretch, ...]

    def apply(self, plan: Plan) -> Plan:
        run = find(plan.runs, self.run, "cable")
        return replace(plan, runs=put(plan.runs, run.id, replace(run, path=self.path)))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetStrainRelief:
    """Its ends are tied up, or no longer."""

    run: str
    on: bool

    def apply(self, plan: Plan) -> Plan:
        run = find(plan.runs, self.run, "cable")
        return replace(plan, runs=put(plan.runs, run.id, replace(run, strain_relief=self.on)))


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveRun:
    """Another output or input for a run, and other leads where its plugs change."""

    run: str
    sending: PortRef | None = None
    receiving: PortRef | None = None
    parts: tuple[Part, ...] | None = None

    def apply(self, plan: Plan) -> Plan:
        run = find(plan.runs, self.run, "cable")
        moved = replace(
            run,
            sending=self.sending or run.sending,
            receiving=self.receiving or run.receiving,
            parts=run.parts if self.parts is None else self.parts,
        )
        return replace(plan, runs=put(plan.runs, run.id, moved))


@dataclass(frozen=True, slots=True, kw_only=True)
class Disconnect:
    """Take a run out."""

    run: str

    def apply(self, plan: Plan) -> Plan:
        run = find(plan.runs, self.run, "cable")
        return replace(plan, runs=without(plan.runs, run.id))
