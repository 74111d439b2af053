"""The saved plan as JSON: one Pydantic model for each thing in it, strict at the edge, with the seam to the core."""

from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Final, Protocol, TypeVar

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictStr

from tidy_trunk.core.base.radio import GUARD_MHZ
from tidy_trunk.core.base.timecode import HALF_A_FRAME
from tidy_trunk.core.gear.catalogue import (
    Figure,
    LawPoint,
    Provenance,
)
from tidy_trunk.core.plan import (
    BETWEEN_TAKES_MIN,
    DAY_BEGINS_MIN,
    DAY_ENDS_MIN,
    LAST_MIN,
    LONGEST_TAKE_MIN,
    MOST_HANDS,
    MOST_JAMS,
    MOST_LAW_POINTS,
    MOST_TAKES,
    OPEN,
    SLACK_END_M,
    SLACK_SHARE,
    SURE_WITHIN_PPM,
    WALK_MIN,
    WARM_C,
    Break,
    CompanyMove,
    Defaults,
    Device,
    GainLaw,
    Hazard,
    Jam,
    JamOver,
    LineUp,
    MeterError,
    MeterPair,
    PairDrift,
    Part,
    Passing,
    Plan,
    PortRef,
    ReadFrom,
    Role,
    Run,
    Scale,
    School,
    SetUp,
    Slating,
    Source,
    Stretch,
    Target,
    Weighting,
    law_key,
    pair_key,
)
from tidy_trunk.equipment import CableClassModel, DeviceClassModel
from tidy_trunk.equipment.models import Id
from tidy_trunk.errors import FormatError

SCHEMA_VERSION: Final = 13
"""ASSUMED_ number of this shape of the saved plan; it rises with every change that old programs cannot read."""

Name = Annotated[str, Field(min_length=1, max_length=80)]
Key = Annotated[str, Field(min_length=1, max_length=120)]
Db = Annotated[float, Field(allow_inf_nan=False, ge=-1000, le=1000)]
KnobMark = Annotated[float, Field(allow_inf_nan=False, ge=-1e6, le=1e6)]
When = Annotated[str, Field(max_length=40, description="Date and time, ISO 8601")]
Metres = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1000)]
Degrees = Annotated[float, Field(allow_inf_nan=False, ge=0, le=180)]
Megahertz = Annotated[float, Field(allow_inf_nan=False, ge=0.001, le=10)]
Minute = Annotated[int, Field(ge=0, le=LAST_MIN, description="After midnight")]
DelayFrames = Annotated[float, Field(allow_inf_nan=False, gt=0, le=1000)]
SignedPpm = Annotated[float, Field(allow_inf_nan=False, ge=-10_000, le=10_000)]
Value = StrictBool | Annotated[float, Field(allow_inf_nan=False, ge=-10_000, le=10_000, strict=True)] | StrictStr


class DocumentModel(BaseModel):
    """Nothing unknown gets in, nothing changes afterwards."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class FigureModel(DocumentModel):
    value: Annotated[float, Field(allow_inf_nan=False, ge=-1e7, le=1e7)]
    tolerance: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 3.0
    provenance: Provenance = Provenance.MEASURED
    source: Key = "USER"

    def to_core(self) -> Figure:
        return Figure(self.value, self.tolerance, self.provenance, self.source)

    @classmethod
    def from_core(cls, figure: Figure) -> "FigureModel":
        return cls(value=figure.value, tolerance=figure.tolerance, provenance=figure.provenance, source=figure.source)


class PortRefModel(DocumentModel):
    device: Id
    port: Id

    def to_core(self) -> PortRef:
        return PortRef(self.device, self.port)

    @classmethod
    def from_core(cls, ref: PortRef) -> "PortRefModel":
        return cls(device=ref.device, port=ref.port)


class PartModel(DocumentModel):
    lead: Id
    length_m: Metres
    branch: Annotated[str, Field(max_length=4)] = ""
    shared: Annotated[str, Field(max_length=61)] = ""

    def to_core(self) -> Part:
        return Part(lead=self.lead, length_m=self.length_m, branch=self.branch, shared=self.shared)

    @classmethod
    def from_core(cls, part: Part) -> "PartModel":
        return cls(lead=part.lead, length_m=part.length_m, branch=part.branch, shared=part.shared)


class DefaultsModel(DocumentModel):
    frame_rate: Key = "25"
    target: Id = "film"
    effects_target: Id = "wide"
    guide_target: Id = "guide"
    timecode_target: Id = "timecode"
    school: School = School.CLEAN
    room: Id = OPEN
    alignment_dbfs: Db = -20.0
    mains_hz: int = 50
    sample_rate_hz: int = 48_000
    room_noise_db_spl: Db = 35.0
    rumble_db_spl: Db = 0.0
    slack_share: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)] = SLACK_SHARE
    slack_end_m: Metres = SLACK_END_M
    frequencies_cleared: bool = False
    radio_guard_mhz: Megahertz = GUARD_MHZ
    day_begins_min: Minute = DAY_BEGINS_MIN
    day_ends_min: Minute = DAY_ENDS_MIN
    drift_limit_frames: DelayFrames = HALF_A_FRAME
    date: Annotated[str, Field(max_length=10)] = ""
    zone: Annotated[str, Field(max_length=60)] = ""
    temperature_c: Annotated[float, Field(allow_inf_nan=False, ge=-50, le=60)] = WARM_C
    hands: Annotated[int, Field(ge=1, le=MOST_HANDS)] = 1
    crew: Annotated[str, Field(max_length=400)] = ""
    slating: Slating = Slating.SCENE
    walk_min: Annotated[float, Field(allow_inf_nan=False, ge=0, le=60)] = WALK_MIN


class PassingModel(DocumentModel):
    what: Hazard
    metres: Metres | None = None


class StretchModel(DocumentModel):
    length_m: Metres
    passes: Annotated[tuple[PassingModel, ...], Field(max_length=12)] = ()

    def to_core(self) -> Stretch:
        return Stretch(self.length_m, tuple(Passing(item.what, item.metres) for item in self.passes))

    @classmethod
    def from_core(cls, stretch: Stretch) -> "StretchModel":
        return cls(
            length_m=stretch.length_m,
            passes=tuple(PassingModel(what=item.what, metres=item.metres) for item in stretch.passes),
        )


class JamModel(DocumentModel):
    giver: Id
    over: JamOver = JamOver.LEAD
    at_min: Annotated[tuple[Minute, ...], Field(max_length=MOST_JAMS)] = ()


class SetUpModel(DocumentModel):
    id: Id
    label: Name
    at_min: Minute
    takes: Annotated[int, Field(ge=1, le=MOST_TAKES)]
    take_min: Annotated[float, Field(allow_inf_nan=False, gt=0, le=LONGEST_TAKE_MIN)]
    between_min: Annotated[float, Field(allow_inf_nan=False, ge=0, le=24 * 60)] = BETWEEN_TAKES_MIN
    first_take: Annotated[int, Field(ge=1, le=9999)] = 1


class MoveModel(DocumentModel):
    id: Id
    label: Name
    at_min: Minute
    length_min: Minute


class BreakModel(DocumentModel):
    id: Id
    label: Name
    at_min: Minute
    length_min: Minute


class PairDriftModel(DocumentModel):
    first: Id
    second: Id
    ppm: SignedPpm
    within_ppm: Annotated[float, Field(allow_inf_nan=False, ge=0, le=10_000)] = SURE_WITHIN_PPM
    when: When

    def to_core(self) -> PairDrift:
        return PairDrift(**self.model_dump())

    @classmethod
    def from_core(cls, drift: PairDrift) -> "PairDriftModel":
        return cls(**_fields(drift))


class DeviceModel(DocumentModel):
    id: Id
    label: Name
    class_id: Id
    settings: dict[Key, Value] = {}
    routing: dict[Key, tuple[Key, ...]] = {}
    feeds: dict[Key, Key] = {}
    roles: dict[Key, Role] = {}
    figures: dict[Key, FigureModel] = {}
    jam: JamModel | None = None
    place: Annotated[str, Field(max_length=80)] = ""


class SourceModel(DocumentModel):
    id: Id
    label: Name
    quiet_db_spl: Db
    average_db_spl: Db
    peak_db_spl: Db
    burst_db_spl: Db
    tolerance_db: Annotated[float, Field(allow_inf_nan=False, ge=0, le=40)] = 3.0
    heard_by: dict[Id, Metres] = {}
    off_axis_deg: dict[Id, Degrees] = {}
    irreplaceable: bool = False
    weighting: Weighting = Weighting.A


class TargetModel(DocumentModel):
    id: Id
    label: Name
    low_dbfs: Db
    high_dbfs: Db
    of_peaks: bool = False


class RunModel(DocumentModel):
    id: Id
    number: Annotated[int, Field(ge=1, le=9999)]
    sending: PortRefModel
    receiving: PortRefModel
    parts: tuple[PartModel, ...] = ()
    path: tuple[StretchModel, ...] = ()
    strain_relief: bool = False


class LineUpModel(DocumentModel):
    track: Key
    sender: Id
    sent_dbfs: Db
    read_dbfs: Db
    predicted_dbfs: Db
    way: Annotated[tuple[Key, ...], Field(max_length=400)] = ()
    read_from: ReadFrom
    when: When

    def to_core(self) -> LineUp:
        return LineUp(**self.model_dump())

    @classmethod
    def from_core(cls, found: LineUp) -> "LineUpModel":
        return cls(**_fields(found))


class GainLawModel(DocumentModel):
    class_id: Id
    control: Key
    points: Annotated[tuple[tuple[Db, Db], ...], Field(min_length=2, max_length=MOST_LAW_POINTS)]
    scale: tuple[KnobMark, KnobMark] | None = None
    noisy_from_db: Db | None = None
    read_from: ReadFrom
    when: When

    def to_core(self) -> GainLaw:
        values = self.model_dump(exclude={"points", "scale"})
        points = tuple(LawPoint(*point) for point in self.points)
        return GainLaw(**values, points=points, scale=None if self.scale is None else Scale(*self.scale))

    @classmethod
    def from_core(cls, law: GainLaw) -> "GainLawModel":
        return cls(**_fields(law))


class MeterErrorModel(DocumentModel):
    class_id: Id
    pairs: Annotated[tuple[tuple[Db, Db], ...], Field(min_length=1, max_length=MOST_LAW_POINTS)]
    when: When

    def to_core(self) -> MeterError:
        return MeterError(class_id=self.class_id, pairs=tuple(MeterPair(*pair) for pair in self.pairs), when=self.when)

    @classmethod
    def from_core(cls, meter: MeterError) -> "MeterErrorModel":
        return cls(**_fields(meter))


class PlanDocument(DocumentModel):
    """A whole job in one document. Lists keep their order; everything refers by id."""

    schema_version: Annotated[int, Field(ge=1)] = SCHEMA_VERSION
    name: Name
    defaults: DefaultsModel = DefaultsModel()
    classes: tuple[DeviceClassModel, ...] = ()
    leads: tuple[CableClassModel, ...] = ()
    targets: tuple[TargetModel, ...] = ()
    devices: tuple[DeviceModel, ...] = ()
    sources: tuple[SourceModel, ...] = ()
    runs: tuple[RunModel, ...] = ()
    line_ups: tuple[LineUpModel, ...] = ()
    gain_laws: tuple[GainLawModel, ...] = ()
    meters: tuple[MeterErrorModel, ...] = ()
    set_ups: tuple[SetUpModel, ...] = ()
    moves: tuple[MoveModel, ...] = ()
    breaks: tuple[BreakModel, ...] = ()
    pair_drifts: tuple[PairDriftModel, ...] = ()

    def to_core(self) -> Plan:
        """The plan, not yet checked for sense. Raises FormatError where two things share one id."""
        return Plan(
            name=self.name,
            defaults=Defaults(**self.defaults.model_dump()),
            classes=_by_id("classes", (item.to_core() for item in self.classes)),
            leads=_by_id("leads", (item.to_core() for item in self.leads)),
            targets=_by_id("targets", (Target(**item.model_dump()) for item in self.targets)),
            devices=_by_id("devices", (_device_to_core(item) for item in self.devices)),
            sources=_by_id("sources", (Source(**item.model_dump()) for item in self.sources)),
            runs=_by_id("runs", (_run_to_core(item) for item in self.runs)),
            line_ups={item.track: item.to_core() for item in self.line_ups},
            gain_laws={law_key(item.class_id, item.control): item.to_core() for item in self.gain_laws},
            meters={item.class_id: item.to_core() for item in self.meters},
            set_ups=_by_id("set_ups", (SetUp(**item.model_dump()) for item in self.set_ups)),
            moves=_by_id("moves", (CompanyMove(**item.model_dump()) for item in self.moves)),
            breaks=_by_id("breaks", (Break(**item.model_dump()) for item in self.breaks)),
            pair_drifts={pair_key(item.first, item.second): item.to_core() for item in self.pair_drifts},
        )

    @classmethod
    def from_core(cls, plan: Plan) -> "PlanDocument":
        return cls(
            name=plan.name,
            defaults=DefaultsModel(**_fields(plan.defaults)),
            classes=tuple(DeviceClassModel.from_core(item) for item in plan.classes.values()),
            leads=tuple(CableClassModel.from_core(item) for item in plan.leads.values()),
            targets=tuple(TargetModel(**_fields(target)) for target in plan.targets.values()),
            devices=tuple(
                DeviceModel(
                    **{
                        **_fields(device),
                        "settings": dict(device.settings),
                        "routing": dict(device.routing),
                        "feeds": dict(device.feeds),
                        "roles": dict(device.roles),
                        "figures": _figure_models(device.figures),
                        "jam": None if device.jam is None else JamModel(**_fields(device.jam)),
                    }
                )
                for device in plan.devices.values()
            ),
            sources=tuple(
                SourceModel(
                    **{
                        **_fields(source),
                        "heard_by": dict(source.heard_by),
                        "off_axis_deg": dict(source.off_axis_deg),
                    }
                )
                for source in plan.sources.values()
            ),
            runs=tuple(
                RunModel(
                    id=run.id,
                    number=run.number,
                    sending=PortRefModel.from_core(run.sending),
                    receiving=PortRefModel.from_core(run.receiving),
                    parts=tuple(PartModel.from_core(part) for part in run.parts),
                    path=tuple(StretchModel.from_core(stretch) for stretch in run.path),
                    strain_relief=run.strain_relief,
                )
                for run in plan.runs.values()
            ),
            line_ups=tuple(LineUpModel.from_core(found) for found in plan.line_ups.values()),
            gain_laws=tuple(GainLawModel.from_core(law) for law in plan.gain_laws.values()),
            meters=tuple(MeterErrorModel.from_core(meter) for meter in plan.meters.values()),
            set_ups=tuple(SetUpModel(**_fields(item)) for item in plan.set_ups.values()),
            moves=tuple(MoveModel(**_fields(item)) for item in plan.moves.values()),
            breaks=tuple(BreakModel(**_fields(item)) for item in plan.breaks.values()),
            pair_drifts=tuple(PairDriftModel.from_core(drift) for drift in plan.pair_drifts.values()),
        )


class _HasId(Protocol):
    @property
    def id(self) -> str: ...


_Item = TypeVar("_Item", bound=_HasId)


def _by_id(what: str, items: Iterable[_Item]) -> dict[str, _Item]:
    found: dict[str, _Item] = {}
    for item in items:
        if item.id in found:
            raise FormatError(f"{what}: two share the id '{item.id}': give one another id", code="id-twice")
        found[item.id] = item
    return found


def _fields(value: Any) -> dict[str, Any]:
    return {name: getattr(value, name) for name in value.__dataclass_fields__}


def _figure_models(figures: Mapping[str, Figure]) -> dict[str, FigureModel]:
    return {path: FigureModel.from_core(figure) for path, figure in figures.items()}


def _figures_to_core(figures: Mapping[str, FigureModel]) -> dict[str, Figure]:
    return {path: figure.to_core() for path, figure in figures.items()}


def _device_to_core(item: DeviceModel) -> Device:
    return Device(
        id=item.id,
        label=item.label,
        class_id=item.class_id,
        settings=dict(item.settings),
        routing=dict(item.routing),
        feeds=dict(item.feeds),
        roles=dict(item.roles),
        figures=_figures_to_core(item.figures),
        jam=None if item.jam is None else Jam(**item.jam.model_dump()),
        place=item.place,
    )


def _run_to_core(item: RunModel) -> Run:
    return Run(
        id=item.id,
        number=item.number,
        sending=item.sending.to_core(),
        receiving=item.receiving.to_core(),
        parts=tuple(part.to_core() for part in item.parts),
        path=tuple(stretch.to_core() for stretch in item.path),
        strain_relief=item.strain_relief,
    )
