"""Faults of a cable: another one, a damaged one, a loose plug, or one in the wrong socket."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Final

from tidy_trunk.core.drill.hidden import HiddenFault
from tidy_trunk.core.gear.catalogue import Circuit, LeadClass, Plug, Port, built_in
from tidy_trunk.core.plan import Disconnect, Edit, MoveRun, Part, PlanIndex, PortRef, Run, SaveLead, SetParts

SMALL_PLUGS: Final = ("trs35", "trrs35")
"""Plugs that nothing locks. [PRACTICE]"""

_SIGNAL_PIN: Final = "2"
"""Of an XLR, the contact that carries the signal; 3 carries it reversed. [IEC60268-12]"""


def of_run(index: PlanIndex, run: Run) -> Iterator[HiddenFault]:
    sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
    output, port = sender.output(run.sending.port), receiver.input(run.receiving.port)
    if output.circuit is Circuit.TIMECODE:
        yield HiddenFault(id=f"timecode-out:{run.id}", code="timecode-out", run=run.id, edits=(Disconnect(run=run.id),))
        yield from _too_loud(index, run)
    if not output.circuit.is_analogue:
        return
    if run.parts:
        yield HiddenFault(id=f"break:{run.id}", code="break", run=run.id, edits=(Disconnect(run=run.id),))
    if any(plug.connector in SMALL_PLUGS for plug in (output.plug, port.plug)):
        yield HiddenFault(id=f"loose:{run.id}", code="loose", run=run.id)
    known = set()
    for at, part in enumerate(run.parts):
        for fault in _of_part(index, run, at, part) if not part.shared and not part.branch else ():
            # From outside nobody tells which part of a cable it is.
            called = fault.code if fault.code in ("crossed", "one-leg") else fault.id
            if called not in known:
                yield fault
            known.add(called)
    yield from _in_another_socket(index, run)


def _too_loud(index: PlanIndex, run: Run) -> Iterator[HiddenFault]:
    """Timecode that goes to a track of sound without its attenuator: its neighbour hears it. [HANDBOOK] §8"""
    for at, part in enumerate(run.parts):
        for fault in _of_part(index, run, at, part):
            if fault.code == "pad-missing":
                yield replace(fault, id=f"timecode-beside:{run.id}", code="timecode-beside")
                return


def _of_part(index: PlanIndex, run: Run, at: int, part: Part) -> Iterator[HiddenFault]:
    lead = index.lead_of(part)

    def with_lead(code: str, other: LeadClass, *before: Edit) -> HiddenFault:
        changed = Part(lead=other.id, length_m=other.short_m or part.length_m)
        parts = (*run.parts[:at], changed, *run.parts[at + 1 :])
        fault_id = f"{code}:{run.id}.{other.id}"
        return HiddenFault(id=fault_id, code=code, run=run.id, edits=(*before, SetParts(run=run.id, parts=parts)))

    for other in _alike(lead):
        yield with_lead("pad-missing" if lead.loss_db is not None else "wrong-cable", other)
    if lead.id == "xlr":
        crossed = built_in().leads["xlr-crossed"]
        yield with_lead("crossed", crossed)
    damaged = _with_one_leg(lead)
    if damaged is not None:
        yield with_lead("one-leg", damaged, SaveLead(lead=damaged))


def _with_one_leg(lead: LeadClass) -> LeadClass | None:
    """A cable of XLR plugs in which the core of pin 2 is broken; None where there is no such core."""
    way = lead.ways.get("")
    if way is None or lead.loss_db is not None or lead.sending.connector != "xlr3":
        return None
    whole = tuple(wire for wire in way.wires if wire.near != _SIGNAL_PIN)
    if len(whole) in (0, len(way.wires)):
        return None
    broken = {"": replace(way, wires=whole)}
    return replace(lead, id=f"{lead.id}-one-leg", label=f"{lead.label}, one leg lost", ways=broken, proposed=False)


def _alike(lead: LeadClass) -> Iterator[LeadClass]:
    """Cables that one grabs instead: of plugs that go in, and of an attenuator the plain one."""
    if lead.short_m is None and lead.loss_db is None:
        return
    for other in built_in().leads.values():
        if other.id == lead.id or other.sending != lead.sending or not _goes_in(other.receiving, lead.receiving):
            continue
        if other.loss_db is None and not other.isolates and len(other.ways) == 1:
            yield other
            if lead.loss_db is not None:
                return


def _goes_in(plug: Plug, other: Plug) -> bool:
    """Whether one goes in where the other does: that of a headset looks like any other small one."""
    both = {plug.connector, other.connector}
    return plug.gender is other.gender and (len(both) == 1 or both <= set(SMALL_PLUGS))


def _in_another_socket(index: PlanIndex, run: Run) -> Iterator[HiddenFault]:
    """The next free socket that the same plug goes into, at either end: on the sending side the headphones, often."""
    sender, receiver = (index.placed(end.device) for end in (run.sending, run.receiving))
    into = _next_free(run.receiving, receiver.device_class.inputs, index.arriving)
    if into is not None:
        move = MoveRun(run=run.id, receiving=into)
        yield HiddenFault(id=f"wrong-input:{run.id}", code="wrong-input", run=run.id, edits=(move,))
    out_of = _next_free(run.sending, sender.device_class.outputs, index.leaving)
    if out_of is not None:
        move = MoveRun(run=run.id, sending=out_of)
        yield HiddenFault(id=f"wrong-output:{run.id}", code="wrong-output", run=run.id, edits=(move,))


def _next_free(end: PortRef, ports: Sequence[Port], taken: Mapping[PortRef, list[Run]]) -> PortRef | None:
    """The first socket like that of an end into which nothing is plugged."""
    plug = next(port.plug for port in ports if port.id == end.port)
    alike = (PortRef(end.device, port.id) for port in ports if port.plug == plug and port.id != end.port)
    return next((ref for ref in alike if not taken.get(ref)), None)
