"""The doors of the first page: whole rigs for a question, two things joined, and jobs made of them."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from uuid import UUID

from tidy_trunk.core.gear.catalogue import DeviceClass, LeadClass
from tidy_trunk.core.rigs import (
    Approach,
    Brief,
    ConnectionOptions,
    Reading,
    Rigs,
    WantedConnection,
    find_rigs,
    first_rig,
    join_two,
    read_brief,
)
from tidy_trunk.errors import NotFoundError
from tidy_trunk.services.jobs import JobService, JobState
from tidy_trunk.services.trunk import TrunkService
from tidy_trunk.words.rigs import TITLES, job_name

KEPT = 16
"""ASSUMED_ questions whose rigs are kept: those that one user goes back and forth between."""


@dataclass(frozen=True, slots=True)
class AnsweredQuestion:
    """A question as it was understood, with what answers it."""

    reading: Reading
    rigs: Rigs
    own: Mapping[str, DeviceClass]


class FrontDoorService:
    """One method for one thing that a user does before there is a job."""

    def __init__(
        self,
        jobs: JobService,
        own: Callable[[], Sequence[DeviceClass | LeadClass]],
        trunk: TrunkService,
    ) -> None:
        """`own`: classes of the user's own."""
        self._jobs = jobs
        self._own, self._trunk = own, trunk
        self._known: dict[Brief, tuple[Mapping[str, DeviceClass], Mapping[str, int], Rigs]] = {}

    def rigs(self, text: str, *, first_alone: bool = False) -> AnsweredQuestion:
        """Rigs for a question; none, and its gaps, where nothing is asked.

        first_alone: one of them, sooner. Raises InputError: nothing of it is understood.
        """
        own, lying = self._classes(), self._trunk.lying()
        if not text.strip():
            return AnsweredQuestion(Reading(Brief(), ()), Rigs((), frozenset(), is_open=True), own)
        reading = read_brief(text, own, lying)
        if first_alone:
            first = first_rig(reading.brief, own, lying)
            return AnsweredQuestion(reading, Rigs(() if first is None else (first,), frozenset()), own)
        return AnsweredQuestion(reading, self._rigs(reading.brief, own, lying), own)

    def take_rig(self, text: str, approach: Approach, job_id: UUID) -> JobState:
        """A job that begins with one of the rigs. Raises NotFoundError: none of them works so."""
        found = self.rigs(text)
        rig = next((rig for rig in found.rigs.rigs if rig.approach is approach), None)
        if rig is None:
            raise NotFoundError(f"no rig for this works so: {TITLES[approach].lower()}. Ask again")
        plan = replace(rig.plan, name=job_name(found.reading.brief))
        return self._jobs.create(plan, f"Rig: {TITLES[approach]}", job_id)

    def join(self, ends: WantedConnection) -> ConnectionOptions:
        """What joins two things: what lies in the trunk comes first, where it leaves no more stops and cautions than the best.

        Raises UnknownItemError: no such class.
        """
        found = join_two(ends, self._classes())
        there = self._trunk.covers([way.plan for way in found.ways])
        ways = [replace(way, is_there=is_there) for way, is_there in zip(found.ways, there, strict=True)]
        fewest = ways[0].grave if ways else 0
        ways.sort(key=lambda way: not (way.is_there and way.grave <= fewest))
        return replace(found, ways=tuple(ways))

    def take_joined(self, ends: WantedConnection, number: int, job_id: UUID) -> JobState:
        """A job that begins with two things, joined in one of the ways. Raises NotFoundError: there are not as many."""
        ways = self.join(ends).ways
        if number >= len(ways):
            raise NotFoundError(f"there are {len(ways)} ways to join these, counted from 0; {number} is none of them")
        return self._jobs.create(ways[number].plan, "Two things joined", job_id)

    def _classes(self) -> dict[str, DeviceClass]:
        return {item.id: item for item in self._own() if isinstance(item, DeviceClass)}

    def _rigs(self, brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> Rigs:
        known = self._known.get(brief)
        if known is None or known[:2] != (own, lying):
            while len(self._known) >= KEPT:
                self._known.pop(next(iter(self._known)), None)
            known = self._known[brief] = (own, lying, find_rigs(brief, own, lying))
        return known[2]
