"""Two things joined: each way with what it does and what could go wrong."""

from tidy_trunk.core.advice.checks import PlacedFinding, Severity
from tidy_trunk.core.rigs import ConnectionOption, ConnectionOptions
from tidy_trunk.results.numbers import Out
from tidy_trunk.words import said
from tidy_trunk.words.two_things import joined_words


class RiskOut(Out):
    severity: Severity
    title: str
    text: str

    @classmethod
    def from_core(cls, placed: PlacedFinding) -> "RiskOut":
        words = said(placed.finding, placed.index)
        return cls(severity=placed.finding.severity, title=words.title, text=words.text)


class JoinedOut(Out):
    """A way to join two things: the cable, from where to where, what is set, what arrives, and what could go wrong.

    is_there: all its cables lie in the trunk.
    """

    cable: str
    route: str
    settings: list[str]
    arrives: str
    risks: list[RiskOut]
    is_there: bool

    @classmethod
    def from_core(cls, way: ConnectionOption) -> "JoinedOut":
        words = joined_words(way)
        return cls(
            cable=words.cable,
            route=words.route,
            settings=list(words.settings),
            arrives=words.arrives,
            risks=[RiskOut.from_core(item) for item in way.findings],
            is_there=way.is_there,
        )


class TwoThingsOut(Out):
    """Best first; outputs and inputs: the sockets to choose from; problem: why there is no way."""

    ways: list[JoinedOut]
    outputs: list[str]
    inputs: list[str]
    problem: str

    @classmethod
    def from_core(cls, found: ConnectionOptions) -> "TwoThingsOut":
        return cls(
            ways=[JoinedOut.from_core(way) for way in found.ways],
            outputs=list(found.outputs),
            inputs=list(found.inputs),
            problem=found.problem,
        )
