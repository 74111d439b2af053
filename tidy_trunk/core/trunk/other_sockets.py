"""A run that is short by way of other sockets of the same two devices, with cables that are there."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

from tidy_trunk.core.advice.adviser import ways
from tidy_trunk.core.gear.catalogue import Circuit, LeadClass
from tidy_trunk.core.plan import AddDevice, Edit, MoveRun, PlanIndex, PortRef, Run, SetParts, edited
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.trunk.covered import Covered, covered_chains
from tidy_trunk.core.trunk.stock import Piece
from tidy_trunk.errors import TidyTrunkError

MOST_PAIRS: Final = 24
"""ASSUMED_ pairs of sockets that are tried for a run: large mixers have hundreds, and the first free ones are all alike."""


@dataclass(frozen=True, slots=True)
class Moved:
    """The edits that lead a run elsewhere and set what it meets there, and what lies in it then."""

    edits: tuple[Edit, ...]
    run: Run
    covered: Covered
    report: Report


def by_other_sockets(
    report: Report, run: Run, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> Iterator[Moved]:
    """From other outputs and into other inputs that are free, those first that move one end alone.

    Each device records the same sources as before. Whether anything else is wrong with it then is for the caller to say.
    """
    before = _recorded(report)
    for sending, receiving in _pairs(report.index, run):
        for covered in covered_chains(report.index, run, sending, receiving, usable, leads):
            move = MoveRun(run=run.id, sending=sending, receiving=receiving, parts=covered.parts)
            try:
                moved = report.edited(edited(report.index.plan, [move]))
                settings = _settings(moved, run.id)
                after = moved.edited(edited(moved.index.plan, settings)) if settings else moved
            except TidyTrunkError:
                continue
            if _recorded(after) == before:
                yield Moved((move, *settings), after.index.plan.runs[run.id], covered, after)
                break


def _pairs(index: PlanIndex, run: Run) -> list[tuple[PortRef, PortRef]]:
    sender, receiver = index.unit(run.sending.device), index.unit(run.receiving.device)
    outputs = [
        ref
        for port in sender.device_class.outputs
        if port.circuit.is_analogue and not port.is_headphone
        if not index.leaving.get(ref := PortRef(run.sending.device, port.id))
    ]
    inputs = [
        ref
        for port in receiver.device_class.inputs
        if port.circuit is not Circuit.RADIO
        if not index.arriving.get(ref := PortRef(run.receiving.device, port.id))
    ]
    one_end = [*((run.sending, ref) for ref in inputs), *((ref, run.receiving) for ref in outputs)]
    return [*one_end, *product(outputs, inputs)][:MOST_PAIRS]


def _settings(moved: Report, run_id: str) -> list[Edit]:
    """Switches and knobs as they fit there, with the cables that lie there; nothing where none of them fits."""
    fitting = (way for way in ways(moved, run_id) if way.fits and not way.clips)
    for way in fitting:
        if not any(isinstance(edit, SetParts | MoveRun | AddDevice) for edit in way.edits):
            return list(way.edits)
    return []


def _recorded(report: Report) -> frozenset[tuple[str, str]]:
    """Which device has which source on a track of its own or of several."""
    return frozenset((track.trace.device, source) for track in report.tracks for source in track.sources)
