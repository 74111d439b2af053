"""Two devices and a distance: what joins them, what is set at both ends, and what could go wrong. No job is needed."""

from collections.abc import Mapping
from dataclasses import dataclass

from tidy_trunk.core.advice.adviser import ConnectionMethod
from tidy_trunk.core.advice.checks import PlacedFinding, Severity, check
from tidy_trunk.core.advice.line_up import line_up_steps
from tidy_trunk.core.base.text import spelled
from tidy_trunk.core.command import DeviceMatch, Draft, Proposal, joined, split_words
from tidy_trunk.core.gear.catalogue import DeviceClass, built_in, usual_distance_m
from tidy_trunk.core.plan import EFFORTS_DB_SPL, AddSource, Plan, SaveClass, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import TidyTrunkError, UnknownItemError


@dataclass(frozen=True, slots=True, kw_only=True)
class WantedConnection:
    """What is to be joined: classes of devices, labels of their sockets ("" for any), and how far apart they are in m."""

    sending: str
    receiving: str
    output: str = ""
    input: str = ""
    length_m: float | None = None


@dataclass(frozen=True, slots=True)
class ConnectionOption:
    """A way to join two things: the answer as to a typed line, the plan with it, what is then to be said of it, and how a tone
    arrives: as it was sent and as it is recorded, in dBFS, None where neither end is a meter. is_there: all its cables lie in the trunk."""

    proposal: Proposal
    plan: Plan
    findings: tuple[PlacedFinding, ...]
    tone: tuple[float, float] | None
    is_there: bool = False

    @property
    def grave(self) -> int:
        """How many stops and cautions it leaves."""
        return sum(placed.finding.severity is not Severity.NOTE for placed in self.findings)


@dataclass(frozen=True, slots=True)
class ConnectionOptions:
    """Ways to join two things, best first; where there is none, `problem` says why."""

    ways: tuple[ConnectionOption, ...]
    outputs: tuple[str, ...]
    inputs: tuple[str, ...]
    problem: str


def join_two(ends: WantedConnection, own: Mapping[str, DeviceClass]) -> ConnectionOptions:
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
    sender, receiver = (draft.add(name, label) for name, label in _labels(ends, own))
    if draft.index.placed(sender).device_class.capsule is not None:
        heard_by = {sender: usual_distance_m(draft.index.placed(sender).device_class)}
        draft.do(AddSource(label="Voice", average_db_spl=EFFORTS_DB_SPL["normal"], heard_by=heard_by))
    first, second = draft.index.placed(sender), draft.index.placed(receiver)
    start, end = (
        DeviceMatch(placed, tuple(split_words(label))) for placed, label in ((first, ends.output), (second, ends.input))
    )
    ways, problem = [], ""
    try:
        answers = joined(draft.plan, [start], [end], ends.length_m)
        ways = [_with_findings(draft.plan, answer) for answer in answers if not _is_unmatched(answer)]
    except TidyTrunkError as error:
        problem = error.message
    outputs = tuple(port.label for port in first.device_class.outputs)
    inputs = tuple(port.label for port in second.device_class.inputs)
    return ConnectionOptions(tuple(ways), outputs, inputs, problem)


def _is_unmatched(answer: Proposal) -> bool:
    """Whether it leaves out what ought to be set: worth knowing for a line that was typed so, and no answer to a question."""
    return answer.does is not None and answer.does.facts.get("how") is ConnectionMethod.UNMATCHED


def _labels(ends: WantedConnection, own: Mapping[str, DeviceClass]) -> list[tuple[str, str]]:
    """Each class with what a device of it is called: its kind, where that tells the two apart."""
    classes = [own.get(name) or built_in().devices[name] for name in (ends.sending, ends.receiving)]
    kinds = [spelled(item.kind) for item in classes]
    names = [kind[:1].upper() + kind[1:] for kind in kinds] if kinds[0] != kinds[1] else ["Sender", "Receiver"]
    return [(item.id, name) for item, name in zip(classes, names, strict=True)]


def _with_findings(plan: Plan, proposal: Proposal) -> ConnectionOption:
    after = apply_edits(plan, proposal.edits)
    report = Report(trace_plan(after))
    tones = ((step.sent_dbfs, step.shows_dbfs) for step in line_up_steps(report) if step.warning is None)
    findings = tuple(PlacedFinding(item, report.index) for item in check(report))
    return ConnectionOption(proposal, after, findings, next(tones, None))
