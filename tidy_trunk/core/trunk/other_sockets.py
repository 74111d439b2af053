"""A run that is short by way of other sockets of the same two devices, with cables that are there."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import product
from typing import Final

from tidy_trunk.core.advice.adviser import matching_options
from tidy_trunk.core.gear.catalogue import Circuit, LeadClass
from tidy_trunk.core.plan import Edit, MoveRun, Part, PlanIndex, PortRef, Run, SetControl, SetParts, edited
from tidy_trunk.core.sound.cable_chains import find_cable_chains
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.trunk.covered import pieces_for
from tidy_trunk.core.trunk.stock import Piece
from tidy_trunk.errors import TidyTrunkError

SHORTEST_M: Final = 0.5
"""ASSUMED_ length of a run between devices that stand side by side."""

MOST_PAIRS: Final = 24
"""ASSUMED_ pairs of sockets that are tried for a run: large mixers have hundreds, and the first free ones are all alike."""


@dataclass(frozen=True, slots=True)
class CoveredWay:
    """The edits that make a run so and set what it meets there, and the pieces that lie in it then."""

    edits: tuple[Edit, ...]
    pieces: tuple[str, ...]
    report: Report


def by_other_sockets(
    report: Report, run: Run, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> Iterator[CoveredWay]:
    """From other outputs and into other inputs that are free, those first that move one end alone.

    Each device records the same sources as before. Whether anything else is wrong with it then is for the caller to say.
    """
    before = _recorded(report)
    for sending, receiving in _pairs(report.index, run):
        parts = _usual_parts(report.index, run, sending, receiving)
        if parts is None:
            continue
        move = MoveRun(run=run.id, sending=sending, receiving=receiving, parts=parts)
        try:
            moved = report.edited(edited(report.index.plan, [move]))
            found = next(covered_ways(moved, run.id, usable, leads), None)
        except TidyTrunkError:
            continue
        if found is not None and _recorded(found.report) == before:
            lying = found.report.index.plan.runs[run.id].parts
            settings = (edit for edit in found.edits if isinstance(edit, SetControl))
            yield CoveredWay((replace(move, parts=lying), *settings), found.pieces, found.report)


def covered_ways(
    report: Report, run_id: str, usable: Sequence[Piece], leads: Mapping[str, LeadClass]
) -> Iterator[CoveredWay]:
    """A run between its sockets with attenuators, switches and knobs as they fit, of which every cable is there."""
    for option in matching_options(report, run_id):
        if not option.fits or option.clips or not all(isinstance(edit, SetParts | SetControl) for edit in option.edits):
            continue
        after = report.edited(edited(report.index.plan, option.edits))
        pieces = pieces_for(after.index.plan.runs[run_id].parts, run_id, usable, leads)
        if pieces:
            yield CoveredWay(option.edits, pieces, after)


def _usual_parts(index: PlanIndex, run: Run, sending: PortRef, receiving: PortRef) -> tuple[Part, ...] | None:
    """The best cables between two sockets, whether they are there or not; None where none brings the right signal."""
    output = index.placed(sending.device).output(sending.port)
    port = index.placed(receiving.device).input(receiving.port)
    length_m = max(run.length_m, SHORTEST_M)
    chains = find_cable_chains(output, port, length_m=length_m, own=index.plan.leads)
    return next((chain.parts for chain in chains if chain.is_right and chain.parts), None)


def _pairs(index: PlanIndex, run: Run) -> list[tuple[PortRef, PortRef]]:
    sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
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


def _recorded(report: Report) -> frozenset[tuple[str, str]]:
    """Which device has which source on a track of its own or of several."""
    return frozenset((track.trace.device, source) for track in report.tracks for source in track.sources)
