"""The user's trunk: what lies in it, and what a job takes out of it."""

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from datetime import UTC, date, datetime
from typing import Any, Final
from uuid import UUID, uuid4

from tidy_trunk.core.command import NotUnderstoodError
from tidy_trunk.core.day import plan_day
from tidy_trunk.core.gear.catalogue import LeadClass, Side, built_in
from tidy_trunk.core.plan import Plan, crew_names
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.trunk import (
    CONSUMED,
    Assignment,
    CableNeed,
    OtherNeed,
    PackingLine,
    Piece,
    PieceKind,
    PieceLine,
    assign,
    cable_faults,
    cable_needs,
    cell_needs,
    class_of,
    day_needs,
    described,
    device_needs,
    kit_of,
    left_for,
    other_ways,
    packing_list,
    pairs_of,
    pieces_for,
    pieces_of,
    reaches,
    stand_in_test,
    wanted,
    weight_kg,
)
from tidy_trunk.core.trunk.tester import CableFault
from tidy_trunk.document import edit_document
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.exports import read_stock_table, write_stock_table
from tidy_trunk.reports import packing_sheet
from tidy_trunk.results.trunk import (
    CableTestOut,
    ContactPairOut,
    CountOut,
    DescribedOut,
    HeldOut,
    OtherWayOut,
    PackedOut,
    PieceOut,
    ServedOut,
    StockOut,
    TestedOut,
    TrunkOut,
    WantedOut,
)
from tidy_trunk.services.jobs import CableChainChoice, JobService
from tidy_trunk.store import ClaimRecord, PackingState, TickRecord, TrunkStore
from tidy_trunk.words.numbers import many
from tidy_trunk.words.trunk import cable_fault_words, other_way_words, piece_words, served_words

NO_DAY: Final = "any day"
"""What a job without a date claims pieces for: then two such jobs are at one time. ASSUMED_"""

CHANGEABLE: Final = ("number", "case", "tested", "fault", "length_m", "count", "wh", "weight_kg", "label")
"""What can be changed of a piece. ASSUMED_"""


class TrunkService:
    """One method for one thing that a user does with the trunk."""

    def __init__(
        self,
        jobs: JobService,
        store: TrunkStore,
        own: Callable[[], Plan],
        now: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        """`own`: a plan with the user's own classes, by whose names pieces are found."""
        self._jobs = jobs
        self._store = store
        self._own = own
        self.now = now

    def stock(self) -> StockOut:
        """Everything that lies in the trunk."""
        return _stock(self._store.all(), self._store.photographed())

    def lying(self) -> dict[str, int]:
        """By class of device or cable, how many whole ones lie in the trunk."""
        return dict(Counter(piece.what for piece in self._store.all() if piece.what and piece.is_whole))

    def covers(self, plans: Sequence[Plan]) -> list[bool]:
        """Of each plan, whether there is a piece for every cable; not where nothing lies in the trunk, or nothing is needed."""
        pieces = self._store.all()
        return [bool(pieces) and _is_covered(plan, pieces) for plan in plans]

    def would_add(self, line: str) -> list[DescribedOut]:
        """What a line means; nothing is kept. Raises InputError: it is not understood."""
        return [_described(one) for one in self._said(line)]

    def add(self, line: str) -> StockOut:
        """Put what a line says into the trunk. Raises InputError: it is not understood, or there is too much of it."""
        self._store.add(pieces_of(self._said(line), iter(lambda: str(uuid4()), "")), self.now())
        return self.stock()

    def would_read(self, data: bytes) -> list[DescribedOut]:
        """What a table holds; nothing is kept. Raises FormatError, with line and column."""
        return [_described(one) for one in read_stock_table(self._own(), data)]

    def read(self, data: bytes) -> StockOut:
        """Put what a table says into the trunk, all of it or nothing. Raises FormatError, InputError."""
        found = read_stock_table(self._own(), data)
        taken = {piece.number for piece in self._store.all() if piece.number}
        twice = next((one.piece.number for one in found if one.piece.number in taken), "")
        if twice:
            raise InputError(f"a piece has the number '{twice[:20]}' already: nothing was read in")
        self._store.add(pieces_of(found, iter(lambda: str(uuid4()), "")), self.now())
        return self.stock()

    def table(self) -> bytes:
        """The trunk as a table."""
        return write_stock_table(self._store.all())

    def change(self, piece_id: UUID, values: Mapping[str, Any]) -> StockOut:
        """Change what is said of a piece. Raises NotFoundError, InputError."""
        piece = self._piece(piece_id)
        changed = replace(piece, **{name: value for name, value in values.items() if name in CHANGEABLE})
        if changed.tested:
            _check_date(changed.tested)
        numbers = {one.number for one in self._store.all() if one.id != piece.id and one.number}
        if changed.number in numbers:
            raise InputError(f"another piece has the number '{changed.number[:20]}'")
        self._store.put([changed], self.now())
        return self.stock()

    def remove(self, ids: Sequence[UUID]) -> StockOut:
        """Take pieces out of the trunk for good."""
        self._store.remove(ids)
        return self.stock()

    def put_photo(self, piece_id: UUID, jpeg: bytes) -> StockOut:
        """A photograph of a piece, in place of the one before. Raises NotFoundError."""
        self._store.put_photo(piece_id, jpeg)
        return self.stock()

    def photo(self, piece_id: UUID) -> bytes:
        """As JPEG. Raises NotFoundError."""
        return self._store.photo(piece_id)

    def remove_photo(self, piece_id: UUID) -> StockOut:
        """Raises NotFoundError."""
        self._store.remove_photo(piece_id)
        return self.stock()

    def use(self, piece_id: UUID, count: int) -> StockOut:
        """One is used up of so many as there were; sent again it counts once. The last one leaves the trunk. Raises NotFoundError."""
        piece = next((one for one in self._store.all() if one.id == str(piece_id)), None)
        if piece is None and count == 1:
            return self.stock()  # it was the last one, and is gone already
        piece = self._piece(piece_id)
        if piece.count == count == 1:
            return self.remove([piece_id])
        if piece.count == count:
            self._store.put([replace(piece, count=count - 1)], self.now())
        return self.stock()

    def tester(self, piece_id: UUID) -> CableTestOut:
        """What a tester shows on a whole cable of that class. Raises NotFoundError, InputError: it is no cable."""
        lead = self._cable(self._piece(piece_id))
        ends = sorted(
            (near, far)
            for pair in reaches(lead)
            if (sides := dict(pair)) and len(sides) == 2
            for near, far in [(sides[Side.SENDING], sides[Side.RECEIVING])]
        )
        contacts = [
            {name for way in lead.ways.values() for where, name in way.contacts() if where is side} for side in Side
        ]
        return CableTestOut(
            sending=sorted(contacts[0]),
            receiving=sorted(contacts[1]),
            right=[ContactPairOut(near=near, far=far) for near, far in ends],
        )

    def tested(self, piece_id: UUID, pairs: Sequence[tuple[str, str]]) -> TestedOut:
        """Which contact was found to reach which: a cable that is whole is tested from now on, another has its fault.

        Raises NotFoundError, InputError.
        """
        piece = self._piece(piece_id)
        lead = self._cable(piece)
        faults = cable_faults(lead, pairs_of(lead, pairs))
        words = cable_fault_words(faults)
        self._store.put([replace(piece, tested=self.now().date().isoformat(), fault=words)], self.now())
        return TestedOut(fault=words, faults=[fault.what for fault in faults])

    def stand_in(self, piece_id: UUID, fault: CableFault | None, seed: int) -> list[ContactPairOut]:
        """What a tester would show on this cable with a fault, drawn by the seed. Raises NotFoundError, InputError."""
        found = stand_in_test(self._cable(self._piece(piece_id)), fault, seed)
        ends = sorted((dict(pair)[Side.SENDING], dict(pair)[Side.RECEIVING]) for pair in found)
        return [ContactPairOut(near=near, far=far) for near, far in ends]

    def for_job(self, job_id: UUID, chosen: Mapping[str, Sequence[str]] | None = None) -> TrunkOut:
        """What a job needs, which piece serves what, what is short, what is packed.

        chosen: by need, pieces that are to serve it.

        Raises NotFoundError: no such job; InputError: a piece that cannot be chosen.
        """
        state = self._jobs.newest(job_id)
        report = state.evaluation.report
        plan = report.index.plan
        day = plan.defaults.date or NO_DAY
        pieces, claims = self._store.all(), self._store.claims(day)
        elsewhere = {claim.piece: claim for claim in claims if claim.job != job_id}
        free = [piece for piece in pieces if piece.id not in elsewhere]
        fixed = _fixed(chosen or {}, free)
        leads = {**built_in().leads, **plan.leads}
        needs = cable_needs(report)
        found = assign(needs, free, leads, fixed)
        others = (*device_needs(plan), *cell_needs(report.index), *self._of_day(report))
        packed = packing_list(found, others, free)
        ticks = {tick.item: tick for tick in self._store.ticks(job_id)}
        kilograms, unknown = weight_kg(packed)
        held = _held(needs, elsewhere, pieces, leads, found)
        is_claimed = any(claim.job == job_id for claim in claims)
        return TrunkOut(
            summary=_summary(found, bool(pieces)),
            day="" if day == NO_DAY else day,
            claimed=is_claimed,
            has_stock=bool(pieces),
            served=[_served(report, one, pieces, fixed) for one in found.served],
            wanted=[
                WantedOut(
                    count=item.count,
                    words=item.lead.label if item.lead.is_adapter else f"{item.length_m:g} m {item.lead.label}",
                    runs=_numbers(plan, item.runs),
                )
                for item in wanted(found.short)
            ],
            other_ways=[
                OtherWayOut(
                    run=way.run.number,
                    words=other_way_words(way, report.index),
                    edits=[edit_document(edit) for edit in way.edits],
                )
                for way in (other_ways(report, found, free, leads) if pieces else ())
            ],
            held=held,
            devices=_counts(packed, others) if pieces else [],
            packing=[_packed(plan, line, ticks) for line in packed if not line.missing] if pieces else [],
            weight=_weight(kilograms, unknown),
            packed=sum(ticks[line.id].state is PackingState.PACKED for line in packed if line.id in ticks),
        )

    def owned_first(
        self, job_id: UUID, run_id: str, choices: Sequence[CableChainChoice]
    ) -> list[tuple[CableChainChoice, bool]]:
        """Other cables for a run, those first of which every piece lies in the trunk and is promised to no other run.

        Raises NotFoundError: no such job.
        """
        report = self._jobs.report(job_id)
        plan = report.index.plan
        pieces = self._free(job_id, plan)
        if not pieces:
            return [(choice, False) for choice in choices]
        leads = {**built_in().leads, **plan.leads}
        usable = left_for(assign(cable_needs(report), pieces, leads), run_id, pieces)
        told = [(choice, bool(pieces_for(choice.edit.parts, run_id, usable, leads))) for choice in choices]
        return sorted(told, key=lambda one: not one[1])

    def packing_paper(self, job_id: UUID, paper: str) -> bytes:
        """The packing list as PDF. Raises NotFoundError, InputError."""
        state = self._jobs.newest(job_id)
        made = state.revision.created.replace(microsecond=0)
        return packing_sheet(state.evaluation.plan.name, self.for_job(job_id), paper=paper, made=made)

    def _free(self, job_id: UUID, plan: Plan) -> list[Piece]:
        """What no other job has claimed for that day."""
        claims = self._store.claims(plan.defaults.date or NO_DAY)
        elsewhere = {claim.piece for claim in claims if claim.job != job_id}
        return [piece for piece in self._store.all() if piece.id not in elsewhere]

    def claim(self, job_id: UUID, chosen: Mapping[str, Sequence[str]] | None = None) -> TrunkOut:
        """Hold the pieces that serve a job for its day, so that no other job of that day is promised them.

        Raises NotFoundError: no such job; InputError: another job was quicker.
        """
        told = self.for_job(job_id, chosen)
        pieces = [(UUID(piece), one.need) for one in told.served for piece in one.pieces]
        self._store.claim(job_id, told.day or NO_DAY, pieces)
        return self.for_job(job_id, chosen)

    def release(self, job_id: UUID) -> TrunkOut:
        """Hold nothing for a job any more. Raises NotFoundError."""
        self._jobs.plan(job_id)
        self._store.release(job_id)
        return self.for_job(job_id)

    def tick(self, job_id: UUID, ticks: Sequence[TickRecord]) -> TrunkOut:
        """What was packed, or came back, in any order. Raises NotFoundError: no such job."""
        self._store.tick(job_id, ticks)
        return self.for_job(job_id)

    def _of_day(self, report: Report) -> tuple[OtherNeed, ...]:
        if not report.index.plan.set_ups:
            return ()
        return day_needs(report.index, plan_day(report, is_first=True))

    def _said(self, line: str) -> list[PieceLine]:
        try:
            return described(self._own(), line)
        except NotUnderstoodError as error:
            raise InputError(error.message) from error

    def _piece(self, piece_id: UUID) -> Piece:
        piece = next((one for one in self._store.all() if one.id == str(piece_id)), None)
        if piece is None:
            raise NotFoundError(f"there is no piece {piece_id} in the trunk")
        return piece

    def _cable(self, piece: Piece) -> LeadClass:
        lead = class_of(self._own(), piece)
        if not isinstance(lead, LeadClass):
            raise InputError(f"{piece.label} is no cable, and has no contacts to be tested")
        return lead


def _is_covered(plan: Plan, pieces: Sequence[Piece]) -> bool:
    needs = cable_needs(Report(trace_plan(plan)))
    return bool(needs) and not assign(needs, pieces, {**built_in().leads, **plan.leads}).short


def _check_date(text: str) -> None:
    try:
        date.fromisoformat(text)
    except ValueError as error:
        raise InputError(f"'{text[:20]}' is no date: write 2026-11-28") from error


def _stock(pieces: Sequence[Piece], photographed: frozenset[str]) -> StockOut:
    cables = sum(piece.kind is PieceKind.CABLE for piece in pieces)
    faulty = sum(not piece.is_whole for piece in pieces)
    told = (
        f"{many(len(pieces), 'piece')}, {many(cables, 'cable')} and adapters" if pieces else "Nothing lies in it yet."
    )
    return StockOut(
        summary=told + (f", {faulty} with a fault" if faulty else ""),
        pieces=[_piece_out(piece, piece.id in photographed) for piece in pieces],
        cases=sorted({piece.case for piece in pieces if piece.case}),
    )


def _piece_out(piece: Piece, has_photo: bool) -> PieceOut:
    fields = (
        "id",
        "kind",
        "label",
        "what",
        "count",
        "length_m",
        "number",
        "case",
        "tested",
        "fault",
        "wh",
        "weight_kg",
    )
    return PieceOut(words=piece_words(piece), has_photo=has_photo, **{name: getattr(piece, name) for name in fields})


def _described(one: PieceLine) -> DescribedOut:
    return DescribedOut(count=one.count, words=piece_words(one.piece), kind=one.piece.kind, case=one.piece.case)


def _fixed(chosen: Mapping[str, Sequence[str]], free: Sequence[Piece]) -> dict[str, tuple[str, ...]]:
    known = {piece.id for piece in free}
    twice = [piece for piece, count in Counter(one for mine in chosen.values() for one in mine).items() if count > 1]
    if twice:
        raise InputError("one piece cannot serve two runs: choose another one")
    for pieces in chosen.values():
        if not set(pieces) <= known:
            raise InputError("a piece that was chosen is not there, or another job has it: choose another one")
    return {need: tuple(pieces) for need, pieces in chosen.items() if pieces}


def _served(report: Report, one: Any, pieces: Sequence[Piece], fixed: Mapping[str, Sequence[str]]) -> ServedOut:
    by_id = {piece.id: piece for piece in pieces}
    need: CableNeed = one.need
    return ServedOut(
        need=need.id,
        runs=_numbers(report.index.plan, need.runs),
        label=need.lead.label if need.lead.is_adapter else f"{need.length_m:g} m {need.lead.label}",
        length_m=need.length_m,
        words=served_words(one, by_id),
        pieces=list(one.pieces),
        is_short=not one.pieces,
        is_once=need.is_once,
        spare=piece_words(by_id[one.spare]) if one.spare else "",
        is_unspared=bool(one.pieces) and need.is_once and not one.spare,
        chosen=need.id in fixed,
    )


def _numbers(plan: Plan, runs: Sequence[str]) -> list[int]:
    return sorted({plan.runs[run].number for run in runs})


def _summary(found: Assignment, has_stock: bool) -> str:
    needed = len(found.served)
    if not has_stock:
        return f"{many(needed, 'cable')} needed. Say what you own, and each run gets its piece."
    short, unspared = len(found.short), len(found.unspared)
    told = f"{needed - short} of {many(needed, 'cable')} are there"
    told += f", {short} short" if short else ""
    return told + (f"; {many(unspared, 'spare')} missing for what happens only once" if unspared else "") + "."


def _held(
    needs: Sequence[CableNeed],
    elsewhere: Mapping[str, ClaimRecord],
    pieces: Sequence[Piece],
    leads: Mapping[str, LeadClass],
    found: Assignment,
) -> list[HeldOut]:
    """Pieces of other jobs of that day which this one would use if it could have them."""
    by_id = {piece.id: piece for piece in pieces}
    wished = assign(needs, pieces, leads)
    if not elsewhere or len(wished.short) >= len(found.short):
        return []
    held = [elsewhere[piece] for one in wished.served for piece in one.pieces if piece in elsewhere]
    alike = Counter((piece_words(by_id[claim.piece]), str(claim.job), claim.job_name) for claim in held)
    return [HeldOut(count=count, words=words, job=job, job_name=name) for (words, job, name), count in alike.items()]


def _counts(packed: Sequence[PackingLine], others: Sequence[OtherNeed]) -> list[CountOut]:
    """What else the job needs, with how much of it is there."""
    missing = {line.label: line.missing for line in packed if line.missing}
    return [
        CountOut(label=need.label, kind=need.kind, needed=need.count, owned=need.count - missing.get(need.label, 0))
        for need in others
    ]


def _packed(plan: Plan, line: PackingLine, ticks: Mapping[str, TickRecord]) -> PackedOut:
    tick = ticks.get(line.id)
    return PackedOut(
        id=line.id,
        label=line.label,
        count=line.count,
        case=line.case,
        kind=line.kind,
        runs=_numbers(plan, [run for run in line.runs if run in plan.runs]),
        used_up=list(line.pieces) if line.kind in CONSUMED else [],
        kit=kit_of(line.case, crew_names(plan.defaults.crew)),
        is_spare=line.is_spare,
        warning="over 100 Wh: ask the airline before a flight" if line.wants_leave else "",
        state=tick.state if tick is not None else PackingState.OPEN,
        who=tick.who if tick is not None else "",
    )


def _weight(kilograms: float, unknown: int) -> str:
    if not kilograms:
        return ""
    return f"{kilograms:.1f} kg" + (f", and {many(unknown, 'line')} that nobody has weighed" if unknown else "")
