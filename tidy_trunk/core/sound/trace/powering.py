"""Power at the beginning of a run: what its inputs give a microphone, and whether that is what it needs."""

from tidy_trunk.core.gear.catalogue import Supply
from tidy_trunk.core.gear.wiring import SUPPLY_V, DeliveredSupply, Feed, delivery, unmated
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef, Run
from tidy_trunk.core.sound.trace.links import beside, is_shared, run_branch


def run_delivery(index: PlanIndex, run: Run, supply: Supply) -> DeliveredSupply | None:
    """How a supply of a run's input, were it on, stands at the run's sender; None where no contacts carry it.

    Other inputs on the same output add what they give now. Source: [IEC61938]
    """
    sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
    output, port = sender.output(run.sending.port), receiver.input(run.receiving.port)
    leads = [(index.lead_of(part), part.branch) for part in run.parts]
    if not (output.circuit.is_analogue and port.circuit.is_analogue):
        return None
    if unmated(output, [lead for lead, _ in leads], port) is not None:
        return None
    feeding = sender.device_class.feeding
    current = feeding.current_ma if feeding is not None and supply in feeding.needs else None
    return delivery(
        output,
        leads,
        port,
        supply,
        volts=_volts(receiver, run, supply),
        draw_ma=current.value if current else 0.0,
        beside=[_feed(index, other) for other in beside(index, run)],
    )


def is_powered(index: PlanIndex, device: str) -> bool:
    """Whether a microphone gets what it needs, from its cell or through the leads of any of its runs.

    One that is plugged in nowhere gets nothing; what is no microphone, or needs no power, is always ready.
    """
    known = index.powered.get(device)
    if known is None:
        known = index.powered[device] = _is_powered(index, device)
    return known


def _is_powered(index: PlanIndex, device: str) -> bool:
    placed = index.placed(device)
    feeding = placed.device_class.feeding
    if feeding is None or (feeding.cell and placed.has_cell_in):
        return True
    if not feeding.needs:
        return not feeding.cell
    refs = [PortRef(device, port.id) for port in placed.device_class.outputs]
    if index.like is not None and all(is_shared(index, index.like, ref) for ref in refs):
        return is_powered(index.like, device)
    runs = [run for ref in refs for run in index.leaving.get(ref, [])]
    return any(_gives(index, run, need) for run in runs for need in feeding.needs)


def _gives(index: PlanIndex, run: Run, need: Supply) -> bool:
    receiver = index.placed(run.receiving.device)
    if need not in receiver.supplies(receiver.input(run.receiving.port)):
        return False
    given = run_delivery(index, run, need)
    return given is not None and given.passes


def _feed(index: PlanIndex, run: Run) -> Feed:
    receiver = index.placed(run.receiving.device)
    port = receiver.input(run.receiving.port)
    supply = next(iter(receiver.supplies(port)), None)
    return Feed(run_branch(index, run), supply, _volts(receiver, run, supply) if supply is not None else 0.0)


def _volts(receiver: PlacedDevice, run: Run, supply: Supply) -> float:
    real = receiver.input(run.receiving.port).phantom_v if supply is Supply.P48 else None
    return SUPPLY_V[supply] if real is None else real.value
