"""Edits on what must be heard: how loud, and how far from which microphone."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from tidy_trunk.core.plan.edits.base import find, free_id, put, without
from tidy_trunk.core.plan.model import (
    BURST_ABOVE_DB,
    SPEECH_PEAK_ABOVE_DB,
    SPEECH_QUIET_BELOW_DB,
    Plan,
    Source,
    Weighting,
)
from tidy_trunk.errors import PlanError

_UNITS = {Weighting.A: "dB(A)", Weighting.Z: "dB SPL"}


@dataclass(frozen=True, slots=True, kw_only=True)
class AddSource:
    """Somebody or something to be heard. Quiet, peak and burst are those of speech where they are not given."""

    label: str
    average_db_spl: float
    quiet_db_spl: float | None = None
    peak_db_spl: float | None = None
    burst_db_spl: float | None = None
    heard_by: Mapping[str, float] = field(default_factory=dict)
    off_axis_deg: Mapping[str, float] = field(default_factory=dict)
    id: str | None = None
    weighting: Weighting = Weighting.A

    def apply(self, plan: Plan) -> Plan:
        source_id = self.id or free_id(self.label, plan.sources)
        if source_id in plan.sources:
            raise PlanError(f"there is a source '{source_id}' already: give the new one another id")
        peak = self.average_db_spl + SPEECH_PEAK_ABOVE_DB if self.peak_db_spl is None else self.peak_db_spl
        source = Source(
            id=source_id,
            label=self.label.strip(),
            average_db_spl=self.average_db_spl,
            quiet_db_spl=self.average_db_spl - SPEECH_QUIET_BELOW_DB
            if self.quiet_db_spl is None
            else self.quiet_db_spl,
            peak_db_spl=peak,
            burst_db_spl=peak + BURST_ABOVE_DB if self.burst_db_spl is None else self.burst_db_spl,
            heard_by=dict(self.heard_by),
            off_axis_deg=dict(self.off_axis_deg),
            weighting=self.weighting,
        )
        return replace(plan, sources=put(plan.sources, source_id, source))


@dataclass(frozen=True, slots=True, kw_only=True)
class SetSource:
    """Name and levels of a source; what is None stays, and a burst keeps its distance from the peaks."""

    source: str
    label: str | None = None
    quiet_db_spl: float | None = None
    average_db_spl: float | None = None
    peak_db_spl: float | None = None
    burst_db_spl: float | None = None
    irreplaceable: bool | None = None
    tolerance_db: float | None = None
    weighting: Weighting | None = None

    def apply(self, plan: Plan) -> Plan:
        source = find(plan.sources, self.source, "source")
        peak = source.peak_db_spl if self.peak_db_spl is None else self.peak_db_spl
        burst = source.burst_db_spl + peak - source.peak_db_spl if self.burst_db_spl is None else self.burst_db_spl
        changed = replace(
            source,
            label=source.label if self.label is None else self.label.strip(),
            quiet_db_spl=source.quiet_db_spl if self.quiet_db_spl is None else self.quiet_db_spl,
            average_db_spl=source.average_db_spl if self.average_db_spl is None else self.average_db_spl,
            peak_db_spl=peak,
            burst_db_spl=burst,
            irreplaceable=source.irreplaceable if self.irreplaceable is None else self.irreplaceable,
            tolerance_db=source.tolerance_db if self.tolerance_db is None else self.tolerance_db,
            weighting=source.weighting if self.weighting is None else self.weighting,
        )
        return replace(plan, sources=put(plan.sources, source.id, changed))


@dataclass(frozen=True, slots=True, kw_only=True)
class Hear:
    """Put a microphone at a distance from a source, and beside its axis; None takes it away.

    off_axis_deg: None leaves the angle as it is.
    """

    source: str
    device: str
    distance_m: float | None
    off_axis_deg: float | None = None

    def apply(self, plan: Plan) -> Plan:
        source = find(plan.sources, self.source, "source")
        heard = without(source.heard_by, self.device)
        if self.distance_m is not None:
            heard[self.device] = self.distance_m
        angles = without(source.off_axis_deg, self.device)
        angle_deg = source.off_axis_deg.get(self.device, 0.0) if self.off_axis_deg is None else self.off_axis_deg
        if self.distance_m is not None and angle_deg:
            angles[self.device] = angle_deg
        changed = replace(source, heard_by=heard, off_axis_deg=angles)
        return replace(plan, sources=put(plan.sources, source.id, changed))


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveSource:
    """A source that is not needed."""

    source: str

    def apply(self, plan: Plan) -> Plan:
        source = find(plan.sources, self.source, "source")
        return replace(plan, sources=without(plan.sources, source.id))
