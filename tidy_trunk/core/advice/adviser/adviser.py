"""The adviser: moves for a finding, each tried on the whole plan, and only what the judge calls better."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import islice
from typing import Final

from tidy_trunk.core.advice.adviser.gain_plan import gain_plan, settled
from tidy_trunk.core.advice.adviser.judge import Judgement, judge, tracks_marks, wrong
from tidy_trunk.core.advice.adviser.move import MAKERS, Move
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import LOOKS_AT, Finding, PlacedFinding, Severity
from tidy_trunk.core.advice.options import AS_IT_IS, MatchingOption
from tidy_trunk.core.plan import Aspect, Edit, Plan, School, message
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan, upstream_of
from tidy_trunk.errors import TidyTrunkError

MOST_FIXES: Final = 3
"""ASSUMED_ fixes of one finding: a longer list is no choice."""

MOST_FOLLOWED: Final = 2
"""ASSUMED_ how many findings that a move brings are mended with it: a move that brings more is the wrong one."""

MOST_AT_ONCE: Final = 3
"""ASSUMED_ changes that somebody still oversees: a fix of more is set beside one of two moves."""

MOST_TRIED_WITH: Final = 3
"""ASSUMED_ moves that are tried against each finding that a move brings: the makers give the likeliest first."""

MOST_TRIED: Final = 3
"""ASSUMED_ ways to match a run that are tried on the whole job: the best ones of their joint."""

MOST_KEPT: Final = 24
"""ASSUMED_ tried plans that are kept: those of one finding and its neighbours. All of a large job's would fill the memory."""

_ORDER: Final = {Severity.NOTE: 0, Severity.CAUTION: 1, Severity.STOP: 2}


Rank = tuple[float, ...]
"""What comes first among fixes: less is better."""


@dataclass
class TriedPlan:
    """A plan with what the rules and the judge say of it."""

    question: Question

    @cached_property
    def judgement(self) -> Judgement:
        return judge(self.question.report, self.question.findings)

    @cached_property
    def by_id(self) -> Mapping[str, Finding]:
        return {finding.id: finding for finding in self.question.findings}

    def still(self, finding: Finding) -> Finding | None:
        """A finding of another plan where it stands here too, be it about more tracks; else None."""
        if finding.id in self.by_id or not finding.tracks:
            return self.by_id.get(finding.id)
        tracks = set(finding.tracks)
        return next(
            (item for item in self.question.findings if item.is_like(finding) and tracks <= {*item.tracks}), None
        )


class Adviser:
    """Answers about one plan. Every plan that it tries is worked out once.

    A fix is offered only if the finding is then gone or milder, no stop or caution stands that did not stand before, and
    the judge calls the plan better. A stop that else the gain plan alone ends may leave a caution in its place: the fix says which.
    Each fix taken makes the judgement less, so that taking them comes to an end.
    """

    def __init__(self, report: Report, *, question: Question | None = None, settled: Plan | None = None) -> None:
        """`question`, `settled`: about the report's plan, where somebody has worked them out already."""
        self._now = TriedPlan(question or Question(report.index.plan, report))
        self._now.question.settle = self._settle
        self._settled = settled
        self._known: dict[str, TriedPlan | None] = {}

    @property
    def findings(self) -> tuple[Finding, ...]:
        return self._now.question.findings

    @property
    def plan(self) -> Plan:
        return self._now.question.plan

    @property
    def report(self) -> Report:
        return self._now.question.report

    @property
    def judgement(self) -> Judgement:
        return self._now.judgement

    def fixes(self, finding: Finding) -> tuple[Move, ...]:
        """What mends a finding, best first; nothing where nothing does.

        Moves that have to be followed by others are not even tried where one mends it alone by a few changes, nor for a note,
        which is not worth it.
        """
        alone: list[tuple[Rank, Move, Plan]] = []
        others: list[Move] = []
        for move in self._moves(self._now.question, finding):
            tried = self.tried(move.edits)
            if tried is None:
                continue
            if self._fresh(tried):
                others += [move] if finding.severity is not Severity.NOTE else []
            elif self._mends(finding, tried):
                alone.append((self._rank(finding, move, tried), move, tried.question.plan))
                if finding.severity is not Severity.STOP and self._is_beyond_doubt(finding, move):
                    break
        if any(len(move.edits) <= MOST_AT_ONCE for _, move, _ in alone):
            return _first(alone)
        followed = [
            (self._rank(finding, whole, tried), whole, tried.question.plan)
            for move in others
            for whole, tried in self._with_what_it_brings(finding, move, MOST_FOLLOWED)
            if self._mends(finding, tried)
        ]
        return _first([*alone, *followed]) or self._instead_of_a_stop(finding, others)

    def _instead_of_a_stop(self, finding: Finding, moves: Sequence[Move]) -> tuple[Move, ...]:
        """Where nothing but a gain plan ends a stop: moves that leave new cautions in its place, as a clipped voice is lost and a
        hiss is only heard; and the gain plan itself, which moves more at once than any of them."""
        if finding.severity is not Severity.STOP or not moves:
            return ()
        planned = self.tried(self._gain_plan.edits)
        if planned is None or not self._mends(finding, planned):
            return ()
        found = []
        for move in (*moves, self._gain_plan):
            tried = self.tried(move.edits)
            if tried is None or self.new_stops(tried) or not self._mends(finding, tried):
                continue
            brings = tuple(PlacedFinding(item, tried.question.index) for item in self._fresh(tried))
            found.append((self._rank(finding, move, tried), replace(move, brings=brings), tried.question.plan))
        return _first(found)

    def matching_options(self, run_id: str) -> list[MatchingOption]:
        """Ways to match a run: the best of its joint by what they do to the whole job, then the others.

        Raises UnknownItemError: no such run.
        """
        found = self._now.question.matching_options(run_id)
        # One that changes nothing is the one that stands.
        same = [option for option in found if option.id != AS_IT_IS and self.tried(option.edits) is None]
        liked = {school for option in same for school in option.best_for}
        found = [
            self._as_it_is(option, liked) if option.id == AS_IT_IS else option for option in found if option not in same
        ]
        first = [option for at, option in enumerate(found) if at < MOST_TRIED or option.id == AS_IT_IS]

        def rank(option: MatchingOption) -> tuple[float, ...]:
            tried = self.tried(option.edits)
            judged = self.judgement if tried is None else tried.judgement
            return (*wrong(judged), float(option.id != AS_IT_IS))

        return [*sorted(first, key=rank), *(option for option in found if option not in first)]

    def _as_it_is(self, option: MatchingOption, schools: set[School]) -> MatchingOption:
        """What stands, as some schools more would take it first; automatic level is switched off only if that is no worse."""
        tried = self.tried(option.edits)
        edits = () if tried is None or wrong(self.judgement) < wrong(tried.judgement) else option.edits
        liked = tuple(school for school in School if school in {*option.best_for, *schools})
        return replace(option, edits=edits, best_for=liked)

    def all_fixes(self) -> dict[str, tuple[Move, ...]]:
        """By id of the finding, what mends it."""
        return {finding.id: self.fixes(finding) for finding in self.findings}

    def first_fix(self) -> tuple[Finding, Move] | None:
        """The gravest finding that something mends, with what mends it best; None where nothing is left to do."""
        for finding in self.findings:
            fixes = self.fixes(finding)
            if fixes:
                return finding, fixes[0]
        return None

    def after(self, move: Move) -> "Adviser":
        """An adviser on the plan with a move. Raises PlanError or InputError where it cannot be so."""
        question = self._now.question.edited(move.edits)
        # What the settled job is does not hang on where the knobs stand now.
        same = not question.changed & ~Aspect.LEVELS
        return Adviser(question.report, question=question, settled=self._settled if same else None)

    def _moves(self, question: Question, finding: Finding) -> Iterable[Move]:
        for maker in MAKERS.get(finding.rule, ()):
            yield from maker(question, finding)

    def _with_what_it_brings(self, finding: Finding, move: Move, most: int) -> list[tuple[Move, TriedPlan]]:
        """The move where it brings no new stop or caution; else with the moves that mend what it brings, and leave the finding
        mended: the best for the whole job, and the smallest."""
        tried = self.tried(move.edits)
        if tried is None:
            return []
        fresh = self._fresh(tried)
        if not fresh:
            return [(move, tried)]
        # A caution that was there before and only shows now is mended where nothing else has to be.
        owed = [x for x in fresh if x.severity is Severity.STOP or not self._is_revealed(x)] or fresh
        found = []
        follow = islice(self._moves(tried.question, owed[0]), MOST_TRIED_WITH) if len(owed) <= most else ()
        for more in follow:
            whole = move.then(more)
            found += [
                item for item in self._with_what_it_brings(finding, whole, most - 1) if self._mends(finding, item[1])
            ]
        if not found and all(self._is_revealed(item) for item in owed):
            return [(move, tried)]
        if not found:
            return []
        best = min(found, key=lambda item: (item[1].judgement, len(item[0].edits)))
        smallest = min(found, key=lambda item: (len(item[0].edits), item[1].judgement))
        return [best] if best is smallest else [best, smallest]

    def tried(self, edits: Sequence[Edit]) -> TriedPlan | None:
        """The plan with edits; None where it cannot be so, or nothing changes."""
        key = repr(edits)
        if key not in self._known:
            while len(self._known) >= MOST_KEPT:
                del self._known[next(iter(self._known))]
            self._known[key] = self._work_out(edits)
        return self._known[key]

    def new_stops(self, tried: TriedPlan) -> tuple[Finding, ...]:
        """The stops of a tried plan that do not stand now."""
        return tuple(finding for finding in self._fresh(tried) if finding.severity is Severity.STOP)

    def _work_out(self, edits: Sequence[Edit]) -> TriedPlan | None:
        now = self._now.question
        try:
            tried = now.edited(edits)
        except TidyTrunkError:
            return None
        return None if tried.plan == now.plan else TriedPlan(tried)

    def _fresh(self, tried: TriedPlan) -> list[Finding]:
        """Stops and cautions that did not stand before, or not as gravely."""
        before = self._now.by_id
        return [
            finding
            for finding in tried.question.findings
            if finding.severity is not Severity.NOTE
            and (finding.id not in before or _ORDER[before[finding.id].severity] < _ORDER[finding.severity])
        ]

    def _is_revealed(self, finding: Finding) -> bool:
        """Whether it is about tracks that were silent or ruined, or the level of a silent run: nothing is said of those. Nor
        is it new where the same was told of its other tracks, or a caution where a stop was told of the run or of a track of
        it."""
        if finding.tracks:
            told = {track for item in self.findings if _is_told_by(finding, item) for track in item.tracks}
            return not (self._sound - told) & set(finding.tracks)
        if finding.severity is not Severity.STOP and finding.run in self._stopped:
            return True
        run = self.plan.runs.get(finding.run)
        if run is None or not LOOKS_AT[finding.rule] & Aspect.LEVELS:
            return False
        tracks = {track.trace.id for track in self._now.question.tracks_of(run.id)}
        return not self._sound & tracks if tracks else self._now.question.is_silent(run)

    @cached_property
    def _stopped(self) -> frozenset[str]:
        """The runs that a stop names, or of which a stop names a track."""
        named = {item.run for item in self.findings if item.severity is Severity.STOP and item.run}
        question = self._now.question
        into = {
            run
            for run in question.plan.runs
            if any(track.trace.id in self._ruined for track in question.tracks_of(run))
        }
        return frozenset(named | into)

    @cached_property
    def _ruined(self) -> frozenset[str]:
        """The tracks that a stop names."""
        return frozenset(track for item in self.findings if item.severity is Severity.STOP for track in item.tracks)

    @cached_property
    def _sound(self) -> frozenset[str]:
        """The tracks on which something is heard, that no stop names, and that lack no microphone for want of power."""
        dead = {
            self.plan.runs[item.run].sending.device for item in self.findings if item.rule == "microphone-unpowered"
        }
        return frozenset(
            track.trace.id
            for track in self._now.question.report.tracks
            if not track.is_silent
            and track.trace.id not in self._ruined
            and not (dead and dead & {stage.device for stage in upstream_of(track.trace.stage)})
        )

    @cached_property
    def _gain_plan(self) -> Move:
        return Move((message("gain-plan", self._now.question.index),), gain_plan(self.report).edits)

    def _settle(self) -> Plan:
        """The whole job with every knob where it fits, worked out once for all questions about it."""
        if self._settled is None:
            self._settled = settled(self._now.question)
        return self._settled

    def _rank(self, finding: Finding, move: Move, tried: TriedPlan) -> Rank:
        """What a fix leaves wrong with what the finding is about, what it costs, and how much it changes; all else last.

        Whatever it mends elsewhere comes last: what was asked for is mended by the smallest change that does it as well.
        """
        after, now = tried.judgement, self.judgement
        there = tried.still(finding)
        local = tracks_marks(tried.question.report, finding.tracks)
        dearer = max(after.cost - now.cost, 0.0)
        # Of the stops that are gone only the one that was asked about counts.
        ruined = max(after.ruined, now.ruined - (finding.severity is Severity.STOP))
        grave = (after.harmed, ruined, float(there is not None))
        return (*grave, *local, dearer, after.knobs_db, float(len(move.edits)), *after)

    def _is_beyond_doubt(self, finding: Finding, move: Move) -> bool:
        """Whether one change mends a finding that is no stop, leaves nothing wrong with its tracks, and costs nothing."""
        tried = self.tried(move.edits)
        if tried is None or len(move.edits) != 1 or tried.still(finding) is not None:
            return False
        after, now = tried.judgement, self.judgement
        wrong = tracks_marks(tried.question.report, finding.tracks)
        return not any(wrong) and after.cost <= now.cost and after.knobs_db <= now.knobs_db

    def _mends(self, finding: Finding, tried: TriedPlan) -> bool:
        after = tried.still(finding)
        return (after is None or _is_milder(after, finding)) and tried.judgement < self.judgement


def _first(found: Iterable[tuple[Rank, Move, Plan]]) -> tuple[Move, ...]:
    """The best of some fixes, those apart that come to the same plan."""
    best: list[tuple[Move, Plan]] = []
    for _, move, plan in sorted(found, key=lambda item: item[0]):
        if len(best) < MOST_FIXES and not any(plan == other for _, other in best):
            best.append((move, plan))
    return tuple(move for move, _ in best)


def _is_told_by(finding: Finding, before: Finding) -> bool:
    return before.is_like(finding) and _ORDER[before.severity] >= _ORDER[finding.severity]


def _is_milder(after: Finding, before: Finding) -> bool:
    if after.severity is not before.severity:
        return _ORDER[after.severity] < _ORDER[before.severity]
    if after.measured_db is None or before.measured_db is None:
        return False
    return abs(after.measured_db) < abs(before.measured_db) - 0.5


@dataclass(frozen=True, slots=True)
class TakenFix:
    """A fix that was taken, what it ended, and what the judge says of the plan with it."""

    ended: PlacedFinding
    move: Move
    judged: Judgement


def fixed(plan: Plan) -> tuple[Plan, list[TakenFix]]:
    """A plan with first fixes taken, the gravest finding first, until none is left; and what was taken.

    It comes to an end: each fix makes the judgement less, and a plan that was there cannot come again.
    """
    adviser = Adviser(Report(trace_plan(plan)))
    taken = []
    while (first := adviser.first_fix()) is not None:
        finding, move = first
        ended = PlacedFinding(finding, adviser.report.index)
        adviser = adviser.after(move)
        taken.append(TakenFix(ended, move, adviser.judgement))
    return adviser.plan, taken
