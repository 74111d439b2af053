"""Jobs: open, edit, undo, look back, and ask what an edit would do."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager, suppress
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any, Final
from uuid import UUID, uuid4

from tidy_trunk.core.advice.adviser import Adviser, GainPlan, Move, Pins, gain_plan, inserted_devices
from tidy_trunk.core.advice.options import MatchingOption, WantedPad, wanted_pad
from tidy_trunk.core.base.signal import SpeechLevels
from tidy_trunk.core.command import (
    DeviceMatch,
    LineAnswer,
    NotUnderstoodError,
    Proposal,
    joined,
    propose_leads,
    say,
    split_words,
)
from tidy_trunk.core.gear.catalogue import DeviceClass, LeadClass, built_in
from tidy_trunk.core.gear.wiring import Fault
from tidy_trunk.core.plan import (
    Edit,
    LineUp,
    Plan,
    PlanIndex,
    PortRef,
    RemoveLead,
    SaveClass,
    SaveLead,
    SetParts,
    TakeLineUp,
    apply_edits,
)
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.sound.levels import HeardSource, Report, heard_at
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document import PlanDocument, plan_from_json, stored_plan, write_plan
from tidy_trunk.errors import InputError, NotFoundError, RevisionConflictError, TidyTrunkError
from tidy_trunk.media.sounds import Media
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.results.pictures import RunPicture, run_picture
from tidy_trunk.services.shared import SharedAnswers
from tidy_trunk.services.wanted import is_wanted
from tidy_trunk.store import HistoryRecord, JobRecord, JobStore, RevisionRecord
from tidy_trunk.words import difference_sentences, in_one
from tidy_trunk.words.rows import parts_words


@dataclass(frozen=True, slots=True)
class JobState:
    """A revision of a job, worked out."""

    revision: RevisionRecord
    evaluation: Evaluation


@dataclass(frozen=True, slots=True)
class FixesByFinding:
    """What mends the findings of a revision: moves on its plan, best first, by id of the finding.

    is_whole: for all of them; not where the job moved on, or nobody waited any more.
    """

    revision: int
    plan: Plan
    fixes: Mapping[str, tuple[Move, ...]]
    is_whole: bool = True


LOOSE_FILES: Final = UUID("10052f11-e500-4000-8000-000000000000")
"""Of the job that files lie in that belong to none; it is not listed."""

MOST_ADVICE: Final = 8
"""ASSUMED_ jobs whose newest advice is kept: those that are open at one time."""

MOST_CABLE_CHAINS: Final = 4
"""ASSUMED_ how many other leads are shown: a longer list is no choice."""


@dataclass(frozen=True, slots=True)
class CableChainChoice:
    """Other leads for a run, with what is wrong with what they bring, and the edit that takes them."""

    label: str
    faults: tuple[Fault, ...]
    unbalanced_m: float
    edit: SetParts


class JobService:
    """One method for one thing that a user does."""

    def __init__(
        self,
        store: JobStore,
        media: Media,
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
        own: Callable[[], Sequence[DeviceClass | LeadClass]] = tuple,
        lined_up: Callable[[Report, Sequence[LineUp]], None] = lambda report, readings: None,
    ) -> None:
        """`own`: the classes in My equipment; `lined_up`: hears of each reading that is taken over."""
        self._own = own
        self._lined_up = lined_up
        self._store = store
        self._media = media
        self._now = now
        self._advice: SharedAnswers[tuple[UUID, int], FixesByFinding] = SharedAnswers(MOST_ADVICE)

    def all(self) -> list[JobRecord]:
        return [record for record in self._store.all() if record.id != LOOSE_FILES]

    def loose_files(self) -> JobState:
        """Where files lie that belong to no job: checked, or synced, as in one."""
        try:
            return self.newest(LOOSE_FILES)
        except NotFoundError:
            return self.create(Plan(name="Files without a job"), job_id=LOOSE_FILES)

    def create(self, plan: Plan, sentence: str = "New job", job_id: UUID | None = None) -> JobState:
        """A job that begins with a plan. Raises PlanError or InputError where the plan cannot be.

        `job_id`: the id that its sender gave it; sent again it is the same job.
        """
        Evaluation(plan)
        return _state(self._store.create(job_id or uuid4(), plan.name, plan_document(plan), sentence, self._now()))

    def import_plan(self, raw: Any, job_id: UUID | None = None) -> JobState:
        """A job from a plan file; as `create`. Raises FormatError, PlanError or InputError."""
        return self.create(plan_from_json(raw), "Read from a plan file", job_id)

    def delete(self, job_id: UUID) -> None:
        """A job with its history, its recordings and their sounds."""
        self._store.delete(job_id)
        self._media.sweep()

    def newest(self, job_id: UUID) -> JobState:
        return _state(self._store.newest(job_id))

    def at(self, job_id: UUID, number: int) -> JobState:
        """An earlier state, to look at."""
        return _state(self._store.revision(job_id, number))

    def export(self, job_id: UUID) -> bytes:
        return write_plan(_plan(self._store.newest(job_id)))

    def history(self, job_id: UUID) -> list[HistoryRecord]:
        return self._store.history(job_id)

    def differences(self, job_id: UUID, before: int, after: int) -> tuple[str, ...]:
        """What changes from one state to another, in words."""
        first, second = (_plan(self._store.revision(job_id, number)) for number in (before, after))
        return difference_sentences(first, second)

    def would_change(self, job_id: UUID, raw: Any) -> tuple[Evaluation, tuple[str, ...]]:
        """What a plan file would change if it took the place of the job's plan; nothing is kept.

        Raises FormatError, PlanError or InputError where the file is no plan.
        """
        plan = plan_from_json(raw)
        return Evaluation(plan), difference_sentences(_plan(self._store.newest(job_id)), plan)

    def replace(self, job_id: UUID, base: int, raw: Any, who: str = "", request: UUID | None = None) -> JobState:
        """A plan file in the place of the job's plan, as one revision. Raises as `edit` and `import_plan`."""
        plan = plan_from_json(raw)

        def change(document: dict[str, Any]) -> tuple[dict[str, Any], str, str]:
            return plan_document(plan), plan.name, "Read from a plan file"

        with self._both_versions(job_id, base, lambda _: f"the plan file {plan.name}"):
            return _state(self._store.edit(job_id, base, change, self._now(), who, request))

    def edit(
        self, job_id: UUID, base: int, edits: Sequence[Edit], who: str = "", request: UUID | None = None
    ) -> JobState:
        """Apply edits as one revision: all or none.

        Args:
            who: Name of the one who does it, as far as known.
            request: The id that the sender gave it: sent again it is not done again, and the answer is the same.

        Raises:
            RevisionConflictError: The job has moved on since `base`; details hold both versions in words.
            PlanError, InputError: An edit that cannot be done.
        """
        if not edits:
            raise InputError("there is no edit to do: give at least one")
        made: list[Evaluation] = []

        def change(document: dict[str, Any]) -> tuple[dict[str, Any], str, str]:
            before = stored_plan(document)
            plan = apply_edits(before, edits)
            made.append(Evaluation(plan))
            return plan_document(plan), plan.name, in_one(before, edits)

        with self._both_versions(job_id, base, lambda plan: in_one(plan, edits)):
            revision = self._store.edit(job_id, base, change, self._now(), who, request)
        if not made:
            return _state(revision)
        readings = [edit.line_up for edit in edits if isinstance(edit, TakeLineUp)]
        if readings:
            self._lined_up(made[0].report, readings)
        return JobState(revision, made[0])

    def undo(self, job_id: UUID, base: int, who: str = "", request: UUID | None = None) -> JobState:
        return _state(self._store.undo(job_id, base, self._now(), who, request))

    def redo(self, job_id: UUID, base: int, who: str = "", request: UUID | None = None) -> JobState:
        return _state(self._store.redo(job_id, base, self._now(), who, request))

    def bring_back(self, job_id: UUID, base: int, number: int, who: str = "", request: UUID | None = None) -> JobState:
        with self._both_versions(job_id, base, lambda _: f"Restore revision {number}"):
            return _state(self._store.bring_back(job_id, base, number, self._now(), who, request))

    @contextmanager
    def _both_versions(self, job_id: UUID, base: int, yours: Callable[[Plan], str]) -> Iterator[None]:
        """Adds to a conflict what each side did: `yours`, a sentence, made from the plan of state `base`; `theirs`, what has
        changed since. A base that never was, or on which the edit could not be done, tells nothing."""
        try:
            yield
        except RevisionConflictError as conflict:
            with suppress(TidyTrunkError):
                before, newest = _plan(self._store.revision(job_id, base)), self._store.newest(job_id)
                conflict.details["theirs"] = list(difference_sentences(before, _plan(newest)))
                conflict.details["by"] = newest.who
                conflict.details["yours"] = yours(before)
            raise

    def preview(self, job_id: UUID, edits: Sequence[Edit]) -> Evaluation:
        """What edits would give, with nothing kept."""
        plan = apply_edits(_plan(self._store.newest(job_id)), edits)
        return Evaluation(plan)

    def heard(self, job_id: UUID, track_id: str, heard: SpeechLevels) -> HeardSource:
        """What a recording of a track says of its source; nothing is kept. Raises NotFoundError: no such track."""
        report = self.report(job_id)
        return heard_at(report, report.known_track(track_id), heard)

    def plan(self, job_id: UUID) -> Plan:
        """The newest state, not worked out."""
        return _plan(self._store.newest(job_id))

    def report(self, job_id: UUID) -> Report:
        """Traces and levels of the newest state."""
        return Report(trace_plan(_plan(self._store.newest(job_id))))

    def say(self, job_id: UUID, text: str) -> LineAnswer:
        """What a typed line would do. My equipment is known too, and comes along with the first device or cable of it."""
        plan = _plan(self._store.newest(job_id))
        own = {item.id: taken_into_job(item) for item in self._own() if item.id not in (*plan.classes, *plan.leads)}
        if not own:
            return say(plan, text)
        answer = say(apply_edits(plan, own.values()), text)
        edits = [edit for item in answer.proposals for edit in item.edits]
        if any(isinstance(edit, RemoveLead) and edit.lead in own for edit in edits):
            return say(plan, text)  # what is not in the job cannot be taken out of it
        return replace(answer, proposals=tuple(_with_classes(item, own) for item in answer.proposals))

    def joined(self, job_id: UUID, sending: PortRef, receiving: PortRef, length_m: float | None) -> LineAnswer:
        """What joins two sockets, as the line that names them would have it. Raises UnknownItemError: no such socket."""
        plan = _plan(self._store.newest(job_id))
        index = PlanIndex(plan)
        ends = []
        for ref in (sending, receiving):
            placed = index.placed(ref.device)
            ends.append(DeviceMatch(placed, tuple(split_words(placed.port(ref.port).label))))
        try:
            return LineAnswer(tuple(joined(plan, ends[:1], ends[1:], length_m)), (), "")
        except NotUnderstoodError as error:
            return LineAnswer((), (), error.message)

    def cable_chains(self, job_id: UUID, run_id: str) -> list[CableChainChoice]:
        """What else the catalogue has to join the two ports of a run, best first."""
        plan = self._with_run(job_id, run_id)
        run = plan.runs[run_id]
        index = PlanIndex(plan)
        output = index.placed(run.sending.device).output(run.sending.port)
        port = index.placed(run.receiving.device).input(run.receiving.port)
        two_way = next((part for part in run.parts if part.branch), None)
        joins = find_cable_chains(
            output,
            port,
            length_m=sum(part.length_m for part in run.parts),
            branch=two_way.branch if two_way else "",
            shared=two_way.shared if two_way else "",
            own=index.plan.leads,
        )
        return [
            CableChainChoice(
                parts_words(index, join.parts) or "plug in directly",
                join.faults,
                join.unbalanced_m,
                SetParts(run=run_id, parts=join.parts),
            )
            for join in joins
            if join.parts != run.parts and (not join.faults or len(join.parts) == 1)
        ][:MOST_CABLE_CHAINS]

    def with_lead(self, job_id: UUID, run_id: str, lead_id: str) -> tuple[Edit, ...]:
        """The edits that put a lead into a run. Raises NotFoundError: no such run or lead; InputError: it does not fit."""
        plan = self._with_run(job_id, run_id)
        index, run = PlanIndex(plan), plan.runs[run_id]
        lead = index.plan.leads.get(lead_id) or built_in().leads.get(lead_id)
        if lead is None:
            raise NotFoundError(f"there is no cable '{lead_id}': neither the job's own nor one of the catalogue")
        found = propose_leads(plan, run, (lead_id,))
        if not found:
            raise InputError(f"{lead.label} does not fit cable {run.number}, {index.run_label(run).split(', ', 1)[1]}")
        return found[0].edits

    def matching_options(self, job_id: UUID, run_id: str) -> list[MatchingOption]:
        return Adviser(Report(trace_plan(self._with_run(job_id, run_id)))).matching_options(run_id)

    def wanted_pad(self, job_id: UUID, run_id: str) -> WantedPad:
        """The pad that a run wants."""
        return wanted_pad(PlanIndex(self._with_run(job_id, run_id)), run_id)

    def gain_plan(self, job_id: UUID, pins: Pins) -> GainPlan:
        """Where every knob of a job should stand; nothing is kept."""
        return gain_plan(self.report(job_id), pins)

    def advice(self, job_id: UUID) -> FixesByFinding:
        """What mends each finding of the newest state.

        Each fix is tried, which takes a while: several that ask wait for one answer, and when the job moves on meanwhile, the
        rest is left, as nobody wants it.
        """
        record = self._store.newest(job_id)
        return self._advice.get((job_id, record.number), lambda: self._advise(record), lambda advice: advice.is_whole)

    def _advise(self, record: RevisionRecord) -> FixesByFinding:
        adviser = Adviser(Report(trace_plan(_plan(record))))
        fixes: dict[str, tuple[Move, ...]] = {}
        for finding in adviser.findings:
            if self._store.head(record.job) != record.number or not is_wanted():
                return FixesByFinding(record.number, adviser.plan, fixes, is_whole=False)
            fixes[finding.id] = adviser.fixes(finding)
        return FixesByFinding(record.number, adviser.plan, fixes)

    def inserted_devices(self, job_id: UUID, run_id: str) -> list[MatchingOption]:
        """Ways of a run by another box between its ends, quiet ones first."""
        return inserted_devices(Report(trace_plan(self._with_run(job_id, run_id))), run_id)

    def picture(self, job_id: UUID, run_id: str) -> RunPicture:
        """A run opened: its contacts, and the result."""
        plan = self._with_run(job_id, run_id)
        return run_picture(PlanIndex(plan), plan.runs[run_id])

    def _with_run(self, job_id: UUID, run_id: str) -> Plan:
        plan = _plan(self._store.newest(job_id))
        if run_id not in plan.runs:
            raise NotFoundError(f"the job has no cable '{run_id}'")
        return plan


def plan_document(plan: Plan) -> dict[str, Any]:
    """A plan as plain JSON values."""
    return PlanDocument.from_core(plan).model_dump(mode="json")


def taken_into_job(item: DeviceClass | LeadClass) -> Edit:
    """The edit that takes a class of My equipment into a job, or brings the job's copy up to date."""
    return SaveClass(device_class=item) if isinstance(item, DeviceClass) else SaveLead(lead=item)


def _with_classes(proposal: Proposal, own: Mapping[str, Edit]) -> Proposal:
    """An answer that brings along what its devices and cables are of."""
    named = [
        class_id
        for edit in proposal.edits
        for class_id in (getattr(edit, "class_id", None), *(part.lead for part in getattr(edit, "parts", None) or ()))
    ]
    wanted = dict.fromkeys(key for key in named if key in own)
    return replace(proposal, edits=(*(own[key] for key in wanted), *proposal.edits))


def _plan(record: RevisionRecord) -> Plan:
    return stored_plan(record.document)


def _state(record: RevisionRecord) -> JobState:
    return JobState(record, Evaluation(_plan(record)))
