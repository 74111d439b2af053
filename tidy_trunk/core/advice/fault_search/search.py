"""The shortest order of search: which test halves what is left for the least time, worked out anew after each answer."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.checks import Finding
from tidy_trunk.core.advice.fault_search.suspects import Chain, Suspect, suspects
from tidy_trunk.core.advice.fault_search.symptoms import Symptom
from tidy_trunk.core.gear.catalogue import DeviceKind, Power
from tidy_trunk.core.plan import PlacedDevice, PortRef
from tidy_trunk.core.sound.levels import Report, TrackLevel

MINUTES: Final[Mapping[str, float]] = {
    "listen": 0.5,
    "meter": 0.3,
    "look": 0.3,
    "swap": 2.0,
    "battery": 1.0,
    "lamps": 1.0,
    "play-back": 2.0,
}
"""ASSUMED_ how long a test takes with everything at hand, in minutes; by common practice, and not measured."""

SURE: Final = 0.8
"""ASSUMED_ share of what is left from which one suspect is taken for the cause."""

HEARD: Final = frozenset(
    {Symptom.HUM, Symptom.HISS, Symptom.DISTORTED, Symptom.DROPOUTS, Symptom.QUIET, Symptom.ONE_SIDE}
)
"""Symptoms that one can listen for at a point of the chain. [PRACTICE]"""

SWAPPED: Final = frozenset({"screen", "break", "plug", "small-plug", "pad-missing", "pad-off", "wrong-lead"})
"""Faults that are gone with another cable. [HANDBOOK] §4"""

PICKED_UP: Final = frozenset({"beside-mains", "unbalanced-too-long"})
"""Faults that are gone when lamps, dimmers and smart plugs are off. [HANDBOOK] §7"""

UNPOWERED: Final = frozenset({"mains", "hum-loop"})
"""Faults that are gone when a device runs from its battery. [HANDBOOK] §9"""


@dataclass(frozen=True, slots=True, kw_only=True)
class FaultTest:
    """Something to try. yes: ids of the suspects of which the answer would be yes; of all others it would be no."""

    code: str
    device: str = ""
    run: str = ""
    suspect: str = ""
    minutes: float
    yes: frozenset[str]

    @property
    def id(self) -> str:
        return f"{self.code}:{self.suspect or self.run or self.device}"


@dataclass(frozen=True, slots=True, kw_only=True)
class SearchAnswer:
    """What came of a test; None where nobody could tell."""

    test: str
    yes: bool | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Search:
    """How far a search is. left: suspects with their share, the likeliest first; next: the test to do now, None where none would
    tell more; cause: the one that is left, or is likely enough."""

    symptom: Symptom
    track: str
    left: tuple[tuple[Suspect, float], ...]
    next: FaultTest | None
    cause: Suspect | None


def search(
    report: Report, findings: Sequence[Finding], symptom: Symptom, track: TrackLevel, answers: Sequence[SearchAnswer]
) -> Search:
    """What is left after some answers, and which test to do next.

    The next test is the one that takes most of the uncertainty away for each minute: suspects with their weights are a
    distribution, and a test parts it in two. Source: [SHANNON48] entropy; of order, not of numbers, common practice.
    """
    chain = Chain(report, track)
    found = suspects(report, findings, symptom, track)
    tests = {test.id: test for test in _tests(chain, symptom, found)}
    left = list(found)
    for answer in answers:
        test = tests.get(answer.test)
        if test is None or answer.yes is None:
            continue
        kept = [suspect for suspect in left if (suspect.id in test.yes) is answer.yes]
        left = kept or left  # answers that contradict each other leave what there was
    total = sum(suspect.weight for suspect in left)
    shares = tuple((suspect, suspect.weight / total) for suspect in left)
    asked = {answer.test for answer in answers}
    following = max(
        (test for test in tests.values() if test.id not in asked and _gain(test, shares) > 0),
        key=lambda test: (_gain(test, shares) / test.minutes, -test.minutes),
        default=None,
    )
    is_known = bool(shares) and (len(shares) == 1 or following is None or (bool(answers) and shares[0][1] >= SURE))
    return Search(
        symptom=symptom,
        track=track.trace.id,
        left=shares,
        next=None if is_known else following,
        cause=shares[0][0] if is_known else None,
    )


def _gain(test: FaultTest, shares: Sequence[tuple[Suspect, float]]) -> float:
    """By how many bits its answer lessens the uncertainty: the entropy of yes and no, as its answer is certain for each suspect."""
    yes = sum(share for suspect, share in shares if suspect.id in test.yes)
    return sum(-part * math.log2(part) for part in (yes, 1 - yes) if 0 < part < 1)


def _tests(chain: Chain, symptom: Symptom, found: Sequence[Suspect]) -> Iterator[FaultTest]:
    if symptom in HEARD:
        for placed in chain.placed_devices()[:-1]:
            yield from _heard_at(chain, placed, found)
    for run in chain.runs:
        gone = frozenset(item.id for item in found if item.run == run.id and item.code in SWAPPED)
        if gone and run.parts:
            yield FaultTest(code="swap", run=run.id, minutes=MINUTES["swap"], yes=gone)
    for placed in chain.placed_devices():
        gone = frozenset(
            item.id for item in found if item.code in UNPOWERED and placed.device.id in {item.device, *item.others}
        )
        if gone and placed.power is not Power.BATTERY and Power.BATTERY in placed.device_class.traits.powers:
            yield FaultTest(code="battery", device=placed.device.id, minutes=MINUTES["battery"], yes=gone)
    picked_up = frozenset(item.id for item in found if item.code in PICKED_UP)
    if picked_up:
        yield FaultTest(code="lamps", device=chain.devices[-1], minutes=MINUTES["lamps"], yes=picked_up)
    for suspect in found:
        if suspect.code not in SWAPPED | UNPOWERED | PICKED_UP | {"noise", "place", "too-hot"}:
            yield FaultTest(
                code="look",
                device=suspect.device,
                run=suspect.run,
                suspect=suspect.id,
                minutes=MINUTES["look"],
                yes=frozenset({suspect.id}),
            )


def _heard_at(chain: Chain, placed: PlacedDevice, found: Sequence[Suspect]) -> Iterator[FaultTest]:
    """Listening where there is a socket for it: what comes in before is heard there, and what comes behind is not."""
    here = chain.at[placed.device.id]
    before = frozenset(item.id for item in found if item.at <= here)
    device = placed.device.id
    if any(
        port.is_headphone and not chain.index.leaving.get(PortRef(device, port.id))
        for port in placed.device_class.outputs
    ):
        yield FaultTest(code="listen", device=device, minutes=MINUTES["listen"], yes=before)
    elif placed.device_class.is_recording and placed.device_class.kind is not DeviceKind.CAMERA:
        yield FaultTest(code="play-back", device=device, minutes=MINUTES["play-back"], yes=before)
