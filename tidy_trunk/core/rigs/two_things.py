"""Two devices and a distance: what joins them, what is set at both ends, and what could go wrong. No job is needed."""

from collections.abc import Mapping
from dataclasses import dataclass

from tidy_trunk.core.advice.checks import PlacedFinding, check
from tidy_trunk.core.command import Draft, Match, Proposal, joined, split_words
from tidy_trunk.core.gear.catalogue import DeviceClass, built_in
from tidy_trunk.core.plan import EFFORTS_DB_SPL, AddSource, Plan, SaveClass, apply_edits
from tidy_trunk.core.rigs.distances import usual_distance_m
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import TidyTrunkError, UnknownItemError


@dataclass(frozen=True, slots=True, kw_only=True)
class Ends:
    """What is to be joined: classes of devices, labels of their sockets ("" for any), and how far apart they are in m."""

    sending: str
    receiving: str
    output: str = ""
    input: str = ""
    length_m: float | None = None


@dataclass(frozen=True, slots=True)
class JoinedThings:
    """A way to join two things: the answer as to a typed line, the plan with it, and what is then to be said of it."""

    proposal: Proposal
    plan: Plan
    findings: tuple[PlacedFinding, ...]


@dataclass(frozen=True, slots=True)
class TwoThings:
    """Ways to join two things, best first; where there is none, `problem` says why."""

    ways: tuple[JoinedThings, ...]
    outputs: tuple[str, ...]
    inputs: tuple[str, ...]
    problem: str


def join_two(ends: Ends, own: Mapping[str, DeviceClass]) -> TwoThings:
    """What joins two devices, as the same line typed in a job would have it.

    A microphone has somebody speaking at its usual distance; of everything else full scales are matched.

    Raises:
        UnknownItemError: No such class.
    """
    draft = Draft(Plan(name="Two things"))
    used = dict.fromkeys((ends.sending, ends.receiving))
    draft.do(*(SaveClass(device_class=own[name]) for name in used if name in own))
    for name in used:
        if name not in own and name not in built_in().devices:
            raise UnknownItemError(f"there is no class of device '{name}': choose one of the list")
    sender, receiver = (draft.add(name) for name in (ends.sending, ends.receiving))
    if draft.index.unit(sender).device_class.capsule is not None:
        heard_by = {sender: usual_distance_m(ends.sending)}
        draft.do(AddSource(label="Voice", average_db_spl=EFFORTS_DB_SPL["normal"], heard_by=heard_by))
    first, second = draft.index.unit(sender), draft.index.unit(receiver)
    start, end = (
        Match(unit, tuple(split_words(label))) for unit, label in ((first, ends.output), (second, ends.input))
    )
    ways, problem = [], ""
    try:
        ways = [_with_findings(draft.plan, answer) for answer in joined(draft.plan, [start], [end], ends.length_m)]
    except TidyTrunkError as error:
        problem = error.message
    outputs = tuple(port.label for port in first.device_class.outputs)
    inputs = tuple(port.label for port in second.device_class.inputs)
    return TwoThings(tuple(ways), outputs, inputs, problem)


def _with_findings(plan: Plan, proposal: Proposal) -> JoinedThings:
    after = apply_edits(plan, proposal.edits)
    report = Report(trace_plan(after))
    return JoinedThings(proposal, after, tuple(PlacedFinding(item, report.index) for item in check(report)))
