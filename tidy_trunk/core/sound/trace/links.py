"""What the leads of a run do, with whatever else hangs on the same output."""

from tidy_trunk.core.gear.wiring import Branch, Link, branch_of, link, unmated
from tidy_trunk.core.plan import PlanIndex, PortRef, Run


def run_link(index: PlanIndex, run: Run) -> Link:
    """What the leads of a run do between its ports; nothing is heard where its plugs do not mate.

    Several inputs on one output load it together, and each takes from the others.
    """
    known = index.links.get(run.id)
    if known is None and index.like is not None and is_shared(index, index.like, run.sending):
        known = index.links[run.id] = run_link(index.like, run)
    if known is None:
        sender, receiver = index.placed(run.sending.device), index.placed(run.receiving.device)
        sending, receiving = sender.output(run.sending.port), receiver.input(run.receiving.port)
        leads = [(index.lead_of(part), part.branch) for part in run.parts]
        if unmated(sending, [lead for lead, _ in leads], receiving) is not None:
            known = Link(tuple(() for _ in receiving.channels), copper=False)
        else:
            others = [] if sending.circuit.is_digital else [run_branch(index, other) for other in beside(index, run)]
            sends, takes = sender.output_mode(sending), receiver.input_mode(receiving)
            known = link(sending, leads, receiving, sends, takes, others)
        index.links[run.id] = known
    return known


def beside(index: PlanIndex, run: Run) -> list[Run]:
    """The other runs that begin at a run's output, and are plugged in at both ends."""
    others = index.leaving.get(run.sending, ())
    return [other for other in others if other is not run and _mates(index, other)] if len(others) > 1 else []


def _mates(index: PlanIndex, run: Run) -> bool:
    sending = index.placed(run.sending.device).output(run.sending.port)
    receiving = index.placed(run.receiving.device).input(run.receiving.port)
    return unmated(sending, [index.lead_of(part) for part in run.parts], receiving) is None


def run_branch(index: PlanIndex, run: Run) -> Branch:
    """The way of a run from its output into its input."""
    receiver = index.placed(run.receiving.device)
    port = receiver.input(run.receiving.port)
    return branch_of([(index.lead_of(part), part.branch) for part in run.parts], port, receiver.input_mode(port))


def is_shared(index: PlanIndex, like: PlanIndex, sending: PortRef) -> bool:
    """Whether all that hangs on an output, and the devices at both ends, are the same things in two plans."""
    if like.plan.leads is not index.plan.leads or sending.device not in like.plan.devices:
        return False
    if index.placed(sending.device) is not like.placed(sending.device):
        return False
    now = index.leaving.get(sending, ())
    if index.leaving is not like.leaving:
        then, runs = like.leaving.get(sending, ()), like.plan.runs
        if len(now) != len(then) or any(runs.get(other.id) is not other for other in now):
            return False
    return all(index.placed(other.receiving.device) is like.placed(other.receiving.device) for other in now)
