"""A run that somebody wants: matched in every way that is worth trying, the best first."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import islice
from typing import Final

from tidy_trunk.core.advice.adviser.adviser import MOST_TRIED, Adviser, TriedPlan
from tidy_trunk.core.advice.adviser.gain_plan import gain_plan, small_moves
from tidy_trunk.core.advice.adviser.inserted_devices import inserted_devices
from tidy_trunk.core.advice.adviser.judge import Judgement, wrong
from tidy_trunk.core.advice.adviser.move import MAKERS, Move, behind
from tidy_trunk.core.advice.adviser.moves.levels import limiter, settled_towards
from tidy_trunk.core.advice.adviser.moves.power import MOST_BOXES
from tidy_trunk.core.advice.adviser.question import Question
from tidy_trunk.core.advice.checks import Finding, Severity
from tidy_trunk.core.gear.catalogue import controls_of
from tidy_trunk.core.plan import (
    Connect,
    Edit,
    Message,
    MoveRun,
    Plan,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    SetParts,
    edited,
    message,
)
from tidy_trunk.core.sound.trace import is_powered, upstream_of

MOST_BETTERED: Final = 6
"""ASSUMED_ rounds in which an answer is made better: low cut, limiter, the knob after them, another lead, what a gain plan sets."""

_POWER: Final = frozenset({"harmful-power", "phantom-shorted"})

SAME_DB: Final = 0.05
"""ASSUMED_ difference that is printed as none."""


class ConnectionMethod(StrEnum):
    """How a run is made."""

    PLAIN = "plain"  # with nothing set, as nothing has to be
    MATCHED = "matched"
    VIA = "via"  # another device
    UNMATCHED = "unmatched"  # with nothing set, though something ought to be


@dataclass(frozen=True, slots=True)
class MatchedRun:
    """A run with what is set for it. `stops`: what would then stand and did not before; `is_plain`: nothing is set."""

    move: Move
    plan: Plan
    stops: tuple[Finding, ...]
    is_plain: bool

    @property
    def how(self) -> ConnectionMethod:
        return _how(self.move)


_Candidate = tuple[tuple[float, ...], Move, TriedPlan]
_More = Callable[[Question, str], Iterator[tuple[Edit, ...]]]


class Matcher:
    """Tries runs in one plan."""

    def __init__(self, adviser: Adviser) -> None:
        self._adviser = adviser
        self._cable: Run | None = None

    def matched(self, run_edits: Sequence[Edit], *, keeps_cable: bool = False) -> list[MatchedRun]:
        """Ways to make a run, best first by the judge.

        Args:
            run_edits: The edits that make it.
            keeps_cable: It was asked for by name: switches and knobs are set, and no other cable is taken.
        """
        plain = Move(self._made(run_edits, ConnectionMethod.PLAIN), tuple(run_edits))
        made = self._adviser.tried(plain.edits)
        if made is None:
            return []
        before = self._adviser.plan
        run_id = next(run for run in made.question.plan.runs if run not in before.runs)
        self._cable = made.question.plan.runs[run_id] if keeps_cable else None
        choices = [*self._choices(run_edits, made, run_id), plain]
        found: list[_Candidate] = []
        for move in choices:
            tried = self._tried(move.edits)
            if tried is not None and all(tried.question.plan != other.question.plan for _, _, other in found):
                found.append((wrong(tried.judgement), move, tried))
                choices += self._limited(move, tried, run_id)
        # Of what the judge finds alike the ways are in their own order, which is that of the job's school.
        best, *others = sorted(found, key=lambda item: item[0])
        best = self._bettered(best)
        return [
            MatchedRun(
                _with_final_cables(before, move, tried.question.plan),
                tried.question.plan,
                self._adviser.new_stops(tried),
                is_plain=move.edits == plain.edits,
            )
            for _, move, tried in (best, *others)
        ]

    def _tried(self, edits: Sequence[Edit]) -> TriedPlan | None:
        """What edits come to; None where they cannot be, or take another cable than the one that was asked for."""
        tried = self._adviser.tried(edits)
        asked = self._cable
        if tried is None or asked is None:
            return tried
        run = tried.question.plan.runs.get(asked.id)
        return tried if run is not None and replace(run, strain_relief=asked.strain_relief) == asked else None

    def _bettered(self, best: _Candidate) -> _Candidate:
        """The same with every switch and knob at the sockets of its runs that makes it better still; where none does, with
        another way of a run; and where that does not either, with what a gain plan would set there."""
        move = best[1]
        does = self._made(move.edits, ConnectionMethod.MATCHED) if _how(move) is ConnectionMethod.PLAIN else move.does
        for _ in range(MOST_BETTERED):
            better = (
                self._better(does, best, _settings, tuple)
                or self._better(does, best, _ways, wrong)
                or self._better(does, best, _planned, tuple)
            )
            if better is None:
                break
            best = better
        return best

    def _better(
        self,
        does: tuple[Message, ...],
        than: _Candidate,
        more_of: _More,
        rank: Callable[[Judgement], tuple[float, ...]],
    ) -> _Candidate | None:
        """The best that an answer comes to with what may be changed at its runs; None where it is the best itself.

        rank: by which parts of the judgement; of two that are alike the answer stands.
        """
        _, move, made = than
        runs = [run for run in made.question.plan.runs if run not in self._adviser.plan.runs]
        best = than
        for edits in [behind(move.edits, more) for run_id in runs for more in more_of(made.question, run_id)]:
            tried = self._tried(edits)
            if tried is not None and rank(tried.judgement) < rank(best[2].judgement):
                best = (wrong(tried.judgement), Move(does, edits), tried)
        return None if best is than else best

    def _choices(self, run_edits: Sequence[Edit], made: TriedPlan, run_id: str) -> list[Move]:
        question = made.question
        run = question.plan.runs[run_id]
        if not is_powered(question.index, run.sending.device):
            return self._by_boxes(run_edits, made, run_id)
        found = [
            Move(
                self._made(run_edits, ConnectionMethod.MATCHED if option.edits else ConnectionMethod.PLAIN),
                behind(run_edits, option.edits),
            )
            for option in question.matching_options(run_id)[:MOST_TRIED]
        ]
        more = settled_towards(question, run_id)
        chain = Move(
            self._made(run_edits, ConnectionMethod.MATCHED if more else ConnectionMethod.PLAIN), behind(run_edits, more)
        )
        return [*found, chain] if self._leaves_others(chain) else found

    def _made(self, edits: Sequence[Edit], how: ConnectionMethod, via: Message | None = None) -> tuple[Message, ...]:
        """What is said of a run that edits make."""
        *_, run = (edit for edit in edits if isinstance(edit, Connect))
        index = self._adviser.report.index
        return (message("connect", index, sending=run.sending, receiving=run.receiving, how=how, via=via),)

    def _limited(self, move: Move, tried: TriedPlan, run_id: str) -> list[Move]:
        """The same with the limiter on at the end of the run, where a burst would go over there."""
        bursts = [item for item in tried.question.findings if item.rule == "burst-clips" and item.run == run_id]
        return [
            Move(move.does, behind(move.edits, more.edits)) for item in bursts for more in limiter(tried.question, item)
        ]

    def _leaves_others(self, move: Move) -> bool:
        """Whether every track that was heard before sounds as it did, but for mixes that the new run goes into: who asks for a
        run does not ask for that."""
        tried = self._adviser.tried(move.edits)
        if tried is None:
            return False
        old = self._adviser.plan.runs
        after = {
            track.trace.id: track.sound
            for track in tried.question.report.tracks
            if all(stage.run is None or stage.run.id in old for stage in upstream_of(track.trace.stage))
        }
        return all(
            track.is_silent or abs(after[track.trace.id].average - track.sound.average) < SAME_DB
            for track in self._adviser.report.tracks
            if track.trace.id in after
        )

    def _by_boxes(self, run_edits: Sequence[Edit], made: TriedPlan, run_id: str) -> list[Move]:
        """Where the socket cannot power the microphone: the quietest ways by a box between."""
        return [
            Move(
                self._made(run_edits, ConnectionMethod.VIA, inserted_device.does), inserted_device.edits[1:]
            )  # there is no run yet to take out
            for inserted_device in inserted_devices(made.question.report, run_id)[:MOST_BOXES]
        ]


def _with_final_cables(before: Plan, move: Move, after: Plan) -> Move:
    """The same with each new run made at once between the sockets and with the cables that it ends up with, and called by
    them: the first ones were only tried."""
    new = [run for run in after.runs.values() if run.id not in before.runs]
    connects = [edit for edit in move.edits if isinstance(edit, Connect)]
    if len(new) != len(connects):
        return move
    final = iter(new)
    names = {run.id for run in new}
    shorter = tuple(
        _as_made(edit, next(final)) if isinstance(edit, Connect) else edit
        for edit in move.edits
        if not (isinstance(edit, SetParts | MoveRun) and edit.run in names)
    )
    if edited(before, shorter) != after:
        return move
    if _how(move) is ConnectionMethod.VIA:
        return replace(move, edits=shorter)
    first, *rest = move.does
    facts = {**first.facts, "sending": new[-1].sending, "receiving": new[-1].receiving}
    return replace(move, edits=shorter, does=(replace(first, facts=facts), *rest))


def _as_made(edit: Connect, run: Run) -> Connect:
    return replace(edit, sending=run.sending, receiving=run.receiving, parts=run.parts)


def _how(move: Move) -> ConnectionMethod:
    how: ConnectionMethod = move.does[0].facts["how"]
    return how


def _ways(question: Question, run_id: str) -> Iterator[tuple[Edit, ...]]:
    """The best ways of a run's joint that change something."""
    others = (
        option.edits
        for option in question.matching_options(run_id)
        if edited(question.plan, option.edits) != question.plan
    )
    yield from islice(others, MOST_TRIED)


def _planned(question: Question, run_id: str) -> Iterator[tuple[Edit, ...]]:
    """What a gain plan of the job would set, where that is nothing but at the two sockets of a run."""
    edits = gain_plan(question.report).edits
    if _all_at(question, run_id, edits):
        yield edits


def _settings(question: Question, run_id: str) -> Iterator[tuple[Edit, ...]]:
    """What may be set at the two sockets of a run: one knob or switch, what ends a stop of it, power that it should not get,
    all knobs where they fit, with a limiter or a low cut too."""

    def here(edits: Sequence[Edit]) -> bool:
        return _all_at(question, run_id, edits)

    low_cuts = []
    for finding, edits in small_moves(question):
        if here(edits):
            yield edits
            low_cuts += [edits] if finding.rule == "rumble" else []
    for finding in question.findings:
        if finding.run == run_id and (finding.severity is Severity.STOP or finding.rule in _POWER):
            for maker in MAKERS.get(finding.rule, ()):
                yield from (move.edits for move in maker(question, finding) if here(move.edits))

    def limiters(after: Question) -> list[tuple[Edit, ...]]:
        bursts = [finding for finding in after.findings if finding.rule in ("limiter", "burst-clips")]
        return [move.edits for finding in bursts for move in limiter(after, finding) if here(move.edits)]

    yield from limiters(question)
    for before in ((), *limiters(question), *low_cuts):
        after = question.edited(before) if before else question
        knobs = tuple(edit for edit in settled_towards(after, run_id) if here((edit,)))
        if knobs:
            yield (*before, *knobs)
            yield from ((*before, *knobs, *more) for more in limiters(after.edited(knobs)))


def _all_at(question: Question, run_id: str, edits: Sequence[Edit]) -> bool:
    return all(isinstance(edit, SetControl) and _is_at(question.index, run_id, edit) for edit in edits)


def _is_at(index: PlanIndex, run_id: str, edit: SetControl) -> bool:
    """Whether a control belongs to the socket at either end of a run, to the one that leads it, or to the receiver as a
    whole."""
    run = index.plan.runs[run_id]
    receiver = index.placed(run.receiving.device)
    leader = receiver.leader_of(receiver.input(run.receiving.port)).id
    port = controls_of(index.placed(edit.device).device_class)[edit.control].port
    tracks = [bus.id for bus in receiver.device_class.buses if bus.gain is not None]
    names = (leader, "", *tracks)
    sockets = (run.sending, run.receiving, *(PortRef(device=receiver.device.id, port=name) for name in names))
    return PortRef(device=edit.device, port=port) in sockets
