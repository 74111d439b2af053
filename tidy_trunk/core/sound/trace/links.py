"""What the leads of a run do, with whatever else hangs on the same output."""

from tidy_trunk.core.gear.wiring import Branch, Link, branch_of, link, unmated
from tidy_trunk.core.plan import PortRef, Rig, Run


def run_link(rig: Rig, run: Run) -> Link:
    """What the leads of a run do between its ports; nothing is heard where its plugs do not mate.

    Several inputs on one output load it together, and each takes from the others.
    """
    known = rig.links.get(run.id)
    if known is None and rig.like is not None and is_shared(rig, rig.like, run.sending):
        known = rig.links[run.id] = run_link(rig.like, run)
    if known is None:
        sender, receiver = rig.unit(run.sending.device), rig.unit(run.receiving.device)
        sending, receiving = sender.output(run.sending.port), receiver.input(run.receiving.port)
        leads = [(rig.lead_of(part), part.branch) for part in run.parts]
        if unmated(sending, [lead for lead, _ in leads], receiving) is not None:
            known = Link(tuple(() for _ in receiving.channels), copper=False)
        else:
            others = [] if sending.circuit.is_digital else [run_branch(rig, other) for other in beside(rig, run)]
            sends, takes = sender.output_mode(sending), receiver.input_mode(receiving)
            known = link(sending, leads, receiving, sends, takes, others)
        rig.links[run.id] = known
    return known


def beside(rig: Rig, run: Run) -> list[Run]:
    """The other runs that begin at a run's output, and are plugged in at both ends."""
    others = rig.leaving.get(run.sending, ())
    return [other for other in others if other is not run and _mates(rig, other)] if len(others) > 1 else []


def _mates(rig: Rig, run: Run) -> bool:
    sending = rig.unit(run.sending.device).output(run.sending.port)
    receiving = rig.unit(run.receiving.device).input(run.receiving.port)
    return unmated(sending, [rig.lead_of(part) for part in run.parts], receiving) is None


def run_branch(rig: Rig, run: Run) -> Branch:
    """The way of a run from its output into its input."""
    receiver = rig.unit(run.receiving.device)
    port = receiver.input(run.receiving.port)
    return branch_of([(rig.lead_of(part), part.branch) for part in run.parts], port, receiver.input_mode(port))


def is_shared(rig: Rig, like: Rig, sending: PortRef) -> bool:
    """Whether all that hangs on an output, and the devices at both ends, are the same things in two plans."""
    if like.plan.leads is not rig.plan.leads or sending.device not in like.plan.devices:
        return False
    if rig.unit(sending.device) is not like.unit(sending.device):
        return False
    now = rig.leaving.get(sending, ())
    if rig.leaving is not like.leaving:
        then, runs = like.leaving.get(sending, ()), like.plan.runs
        if len(now) != len(then) or any(runs.get(other.id) is not other for other in now):
            return False
    return all(rig.unit(other.receiving.device) is like.unit(other.receiving.device) for other in now)
