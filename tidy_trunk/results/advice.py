"""Findings, what fixes them, matching options of a cable, a gain plan, and the answers of the typed line."""

from tidy_trunk.core.advice.adviser import JUST_DB, GainPlan, GainStep, Move, TrackChange
from tidy_trunk.core.advice.checks import Finding, Severity
from tidy_trunk.core.advice.options import MatchingOption
from tidy_trunk.core.command import LineAnswer, Proposal
from tidy_trunk.core.plan import Plan, PlanIndex, School
from tidy_trunk.core.sound.levels import TrackLevel
from tidy_trunk.document import AnyEdit, edit_document
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.words import SOURCE_WORDS, answer_words, label_of, option_words, said, sentences, why


class BeneathOut(Out):
    """What follows from a finding, and is gone with it."""

    title: str
    text: str

    @classmethod
    def from_core(cls, finding: Finding, index: PlanIndex) -> "BeneathOut":
        words = said(finding, index)
        return cls(title=words.title, text=words.text)


class FindingOut(Out):
    id: str
    rule: str
    severity: Severity
    title: str
    text: str
    source: str
    source_words: str
    verify: str
    station: str
    device: str
    run: str
    more_runs: list[str]
    track: str
    tracks: list[str]
    measured_db: Level
    has_inserted_devices: bool
    beneath: list[BeneathOut]

    @classmethod
    def from_core(cls, finding: Finding, index: PlanIndex) -> "FindingOut":
        words = said(finding, index)
        return cls(
            id=finding.id,
            rule=finding.rule,
            severity=finding.severity,
            title=words.title,
            text=words.text,
            source=finding.source,
            source_words=SOURCE_WORDS[finding.source],
            verify=words.verify,
            station=finding.station,
            device=finding.device,
            run=finding.run,
            more_runs=list(finding.more_runs),
            track=finding.track,
            tracks=list(finding.tracks),
            measured_db=finding.measured_db,
            has_inserted_devices=finding.has_inserted_devices,
            beneath=[BeneathOut.from_core(item, index) for item in finding.beneath],
        )


class FixOut(Out):
    """Edits that mend a finding, tried on the whole plan, with the sentence on the button, and one for each edit."""

    label: str
    steps: list[str]
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, plan: Plan, move: Move) -> "FixOut":
        return cls.model_construct(
            label=label_of(move),
            steps=list(sentences(plan, move.edits)),
            edits=[edit_document(edit) for edit in move.edits],
        )


class MatchingOptionOut(Out):
    """A matching option of a run, with its result in dBFS."""

    id: str
    label: str
    edits: list[AnyEdit]
    needs: str
    loses: str
    risk: str
    average_dbfs: Level
    peak_dbfs: Level
    headroom_db: Level
    noise_dbfs: Level
    below_room_db: Level
    ruled_by: str
    tolerance_db: Level
    full_scale_margin_db: Level
    clips: bool
    fits: bool
    verdict: str
    best_for: list[School]

    @classmethod
    def from_core(cls, option: MatchingOption) -> "MatchingOptionOut":
        words = option_words(option)._asdict()
        names = [name for name in cls.model_fields if name != "edits" and name not in words]
        edits = [edit_document(edit) for edit in option.edits]
        return cls(**{name: getattr(option, name) for name in names}, **words, edits=edits)


class GainStepOut(Out):
    """A control to move, and why."""

    device: str
    control: str
    label: str
    was: str
    now: str
    why: str
    edit: AnyEdit

    @classmethod
    def from_core(cls, step: GainStep) -> "GainStepOut":
        return cls(
            device=step.device,
            control=step.control,
            label=step.label,
            was=step.was,
            now=step.now,
            why=why(step.why),
            edit=edit_document(step.edit),
        )


class TrackFiguresOut(Out):
    """A track in dBFS; `clip_db` and `burst_clip_db` are null where nothing is cut."""

    average_dbfs: Level
    peak_dbfs: Level
    noise_dbfs: Level
    clip_db: Level
    burst_clip_db: Level

    @classmethod
    def from_core(cls, track: TrackLevel) -> "TrackFiguresOut":
        burst = track.sound.burst_clip
        return cls(
            average_dbfs=track.sound.average,
            peak_dbfs=track.sound.peak,
            noise_dbfs=track.sound.noise,
            clip_db=track.clips_by_db,
            burst_clip_db=burst.over_db if burst and burst.over_db >= JUST_DB else None,
        )


class TrackChangeOut(Out):
    track: str
    label: str
    before: TrackFiguresOut
    after: TrackFiguresOut

    @classmethod
    def from_core(cls, change: TrackChange) -> "TrackChangeOut":
        return cls(
            track=change.after.trace.id,
            label=change.label,
            before=TrackFiguresOut.from_core(change.before),
            after=TrackFiguresOut.from_core(change.after),
        )


class GainPlanOut(Out):
    """What to set, in the order of the work, and what each track would hold."""

    steps: list[GainStepOut]
    tracks: list[TrackChangeOut]
    stops_before: int
    stops_left: list[FindingOut]

    @classmethod
    def from_core(cls, plan: GainPlan) -> "GainPlanOut":
        return cls(
            steps=[GainStepOut.from_core(step) for step in plan.steps],
            tracks=[TrackChangeOut.from_core(change) for change in plan.tracks],
            stops_before=plan.stops_before,
            stops_left=[FindingOut.from_core(found.finding, found.index) for found in plan.stops_left],
        )


class ProposalOut(Out):
    title: str
    steps: list[str]
    outcome: str
    edits: list[AnyEdit]

    @classmethod
    def from_core(cls, proposal: Proposal) -> "ProposalOut":
        words = answer_words(proposal)
        return cls(
            title=words.title,
            steps=list(words.steps),
            outcome=words.outcome,
            edits=[edit_document(edit) for edit in proposal.edits],
        )


class AnswerOut(Out):
    """What a said line would do."""

    proposals: list[ProposalOut]
    completions: list[str]
    problem: str

    @classmethod
    def from_core(cls, answer: LineAnswer) -> "AnswerOut":
        return cls(
            proposals=[ProposalOut.from_core(proposal) for proposal in answer.proposals],
            completions=list(answer.completions),
            problem=answer.problem,
        )
