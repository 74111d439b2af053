"""What was measured of a class of devices: what its knobs really give, and by how much its meter is wrong."""

from dataclasses import dataclass, replace
from statistics import median
from typing import Final, NamedTuple

from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, LawPoint, Provenance, Span
from tidy_trunk.core.plan.line_ups import READ_WITHIN_DB, ReadFrom

MOST_LAW_POINTS: Final = 200
"""ASSUMED_ most positions of a knob that are measured: as many as one recording of steps holds."""


class Scale(NamedTuple):
    """What a device writes at the two ends of a knob, where that is no dB: 0 and 100, or 1 and 31."""

    lowest_mark: float
    highest_mark: float

    def position_db(self, mark: float, span: Span) -> float:
        """Where a mark lies on the knob as the plan has it; the marks are taken as evenly spaced."""
        share = (mark - self.lowest_mark) / (self.highest_mark - self.lowest_mark)
        return span.minimum_db + share * (span.maximum_db - span.minimum_db)

    def mark(self, position_db: float, span: Span) -> float:
        """The mark at a position; the other way about."""
        share = (position_db - span.minimum_db) / (span.maximum_db - span.minimum_db)
        return self.lowest_mark + share * (self.highest_mark - self.lowest_mark)


@dataclass(frozen=True, slots=True, kw_only=True)
class GainLaw:
    """What a knob of a class of devices gives, as one recording of tone at several of its positions showed.

    control: id of the knob; points: lowest position first, rising; scale: None where the device writes dB beside it.
    noisy_from_db: position from which on it brings more noise than level; None where it does not.
    when: date and time, ISO 8601.
    """

    class_id: str
    control: str
    points: tuple[LawPoint, ...]
    scale: Scale | None = None
    noisy_from_db: float | None = None
    read_from: ReadFrom = ReadFrom.RECORDING
    when: str

    @property
    def key(self) -> str:
        """There is one law for each knob of a class."""
        return law_key(self.class_id, self.control)


def law_key(class_id: str, control: str) -> str:
    return f"{class_id} {control}"


class MeterPair(NamedTuple):
    """What a meter showed, and what the recording of that very moment holds; dBFS."""

    shown_dbfs: float
    measured_dbfs: float


METER_TEST: Final = "meter"
"""ASSUMED_ name of the test by which a meter is known, as a class keeps it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MeterError:
    """How a meter of a class of devices reads. when: date and time, ISO 8601."""

    class_id: str
    pairs: tuple[MeterPair, ...]
    when: str

    @property
    def reads_high_db(self) -> float:
        """By how much it shows more than there is: the middle of all pairs."""
        return round(median(pair.shown_dbfs - pair.measured_dbfs for pair in self.pairs), 2)

    @property
    def within_db(self) -> float:
        """How far one reading may be off that: never less than an eye reads."""
        strays = (abs(pair.shown_dbfs - pair.measured_dbfs - self.reads_high_db) for pair in self.pairs)
        return max(READ_WITHIN_DB[ReadFrom.METER], *strays)


def meter_of_class(device: DeviceClass) -> MeterError | None:
    """How the meter of a class reads, as the class itself says; None where it says nothing."""
    high = device.traits.meter_reads_high_db
    if high is None:
        return None
    return MeterError(class_id=device.id, pairs=(MeterPair(high.value, 0.0),), when=device.tested.get(METER_TEST, ""))


def with_meter(device: DeviceClass, meter: MeterError) -> DeviceClass:
    """A class that says itself how its meter was found to read."""
    figure = Figure(meter.reads_high_db, round(meter.within_db, 2), Provenance.MEASURED, "USER")
    traits = replace(device.traits, meter_reads_high_db=figure)
    return replace(device, traits=traits, tested={**device.tested, METER_TEST: meter.when})
