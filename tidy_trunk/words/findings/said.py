"""The register of what is said of each finding, and the place that its sentences name."""

from collections.abc import Callable
from functools import cached_property
from typing import Final, NamedTuple

from tidy_trunk.core.advice.checks import Finding, Joint, PlacedFinding
from tidy_trunk.core.plan import PlacedDevice, PlanIndex


class FindingWords(NamedTuple):
    """A finding in words: a title without a stop, a text of sentences, and how to verify it ("" where that is plain)."""

    title: str
    text: str
    verify: str = ""


class FindingPlace:
    """Where a finding is, by the names that the user gave. `index`: of the plan in which it was found."""

    def __init__(self, index: PlanIndex, finding: Finding) -> None:
        self.index, self.finding = index, finding

    @cached_property
    def placed(self) -> PlacedDevice:
        return self.index.placed(self.finding.device)

    @cached_property
    def joint(self) -> Joint:
        return Joint(self.index, self.index.plan.runs[self.finding.run])

    @property
    def db(self) -> float:
        """What was measured or worked out, in dB; 0 where nothing was."""
        return self.finding.measured_db or 0.0

    @property
    def device(self) -> str:
        return self.placed.label

    @property
    def sender(self) -> str:
        return self.joint.sender.label

    @property
    def receiver(self) -> str:
        return self.joint.receiver.label

    @property
    def output(self) -> str:
        return f"{self.sender} {self.joint.output.label}"

    @property
    def socket(self) -> str:
        return self.joint.socket

    @property
    def number(self) -> int:
        """What is taped to the cable."""
        return self.joint.run.number

    @property
    def bus(self) -> str:
        """The id of the first track that it names, without its device."""
        return self.finding.track.partition(".")[2]

    def label(self, device_id: str) -> str:
        return self.index.placed(device_id).label

    def source(self, source_id: str) -> str:
        return self.index.plan.sources[source_id].label


FindingSayer = Callable[..., FindingWords]
"""Says a finding at its place; its keyword arguments are the facts that the rule gives. [PRACTICE] of software"""

SAYERS: Final[dict[str, FindingSayer]] = {}
"""By rule, what says its findings. [PRACTICE] of software"""


def says(function: FindingSayer) -> FindingSayer:
    """Register what says the findings of a rule, under the rule's name with underscores."""
    SAYERS[function.__name__.replace("_", "-")] = function
    return function


def said(finding: Finding, index: PlanIndex) -> FindingWords:
    """A finding in words. `index`: of the plan in which it was found."""
    return SAYERS[finding.rule](FindingPlace(index, finding), **finding.facts)


def headline(found: PlacedFinding) -> str:
    """The title of a finding, which names what stands in the plan that it was found in."""
    return said(found.finding, found.index).title
