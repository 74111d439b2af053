"""The saved plan as JSON: one Pydantic model for each thing in it, strict at the edge, with the seam to the core."""

from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Final, Protocol, TypeVar

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StrictStr

from tidy_trunk.core.catalogue import Figure, Provenance
from tidy_trunk.core.plan import Defaults, Device, OwnClass, Part, Plan, PortRef, Run, Source
from tidy_trunk.errors import FormatError

SCHEMA_VERSION: Final = 1
"""ASSUMED_ number of this shape of the saved plan; it rises with every change that old programs cannot read."""

Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,60}$", description="Lower-case letters, digits and dashes")]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Key = Annotated[str, Field(min_length=1, max_length=120)]
Db = Annotated[float, Field(allow_inf_nan=False, ge=-1000, le=1000)]
Metres = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1000)]
Value = StrictBool | Annotated[float, Field(allow_inf_nan=False, ge=-1000, le=1000, strict=True)] | StrictStr


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
    alignment_dbfs: Db = -20.0
    mains_hz: int = 50
    sample_rate_hz: int = 48_000
    room_noise_db_spl: Db = 35.0


class OwnClassModel(DocumentModel):
    id: Id
    label: Name
    base: Id
    figures: dict[Key, FigureModel] = {}


class DeviceModel(DocumentModel):
    id: Id
    label: Name
    class_id: Id
    settings: dict[Key, Value] = {}
    routing: dict[Key, tuple[Key, ...]] = {}
    feeds: dict[Key, Key] = {}
    figures: dict[Key, FigureModel] = {}


class SourceModel(DocumentModel):
    id: Id
    label: Name
    quiet_db_spl: Db
    average_db_spl: Db
    peak_db_spl: Db
    tolerance_db: Annotated[float, Field(allow_inf_nan=False, ge=0, le=40)] = 3.0
    heard_by: dict[Id, Metres] = {}


class RunModel(DocumentModel):
    id: Id
    number: Annotated[int, Field(ge=1, le=9999)]
    sending: PortRefModel
    receiving: PortRefModel
    parts: tuple[PartModel, ...] = ()


class PlanDocument(DocumentModel):
    """A whole job in one document. Lists keep their order; everything refers by id."""

    schema_version: Annotated[int, Field(ge=1)] = SCHEMA_VERSION
    name: Name
    defaults: DefaultsModel = DefaultsModel()
    classes: tuple[OwnClassModel, ...] = ()
    devices: tuple[DeviceModel, ...] = ()
    sources: tuple[SourceModel, ...] = ()
    runs: tuple[RunModel, ...] = ()

    def to_core(self) -> Plan:
        """The plan, not yet checked for sense. Raises FormatError where two things share one id."""
        return Plan(
            name=self.name,
            defaults=Defaults(**self.defaults.model_dump()),
            classes=_by_id("classes", (_class_to_core(item) for item in self.classes)),
            devices=_by_id("devices", (_device_to_core(item) for item in self.devices)),
            sources=_by_id("sources", (Source(**item.model_dump()) for item in self.sources)),
            runs=_by_id("runs", (_run_to_core(item) for item in self.runs)),
        )

    @classmethod
    def from_core(cls, plan: Plan) -> "PlanDocument":
        return cls(
            name=plan.name,
            defaults=DefaultsModel(**_fields(plan.defaults)),
            classes=tuple(
                OwnClassModel(**{**_fields(own), "figures": _figure_models(own.figures)})
                for own in plan.classes.values()
            ),
            devices=tuple(
                DeviceModel(
                    **{
                        **_fields(device),
                        "settings": dict(device.settings),
                        "routing": dict(device.routing),
                        "feeds": dict(device.feeds),
                        "figures": _figure_models(device.figures),
                    }
                )
                for device in plan.devices.values()
            ),
            sources=tuple(
                SourceModel(**{**_fields(source), "heard_by": dict(source.heard_by)})
                for source in plan.sources.values()
            ),
            runs=tuple(
                RunModel(
                    id=run.id,
                    number=run.number,
                    sending=PortRefModel.from_core(run.sending),
                    receiving=PortRefModel.from_core(run.receiving),
                    parts=tuple(PartModel.from_core(part) for part in run.parts),
                )
                for run in plan.runs.values()
            ),
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


def _class_to_core(item: OwnClassModel) -> OwnClass:
    return OwnClass(id=item.id, label=item.label, base=item.base, figures=_figures_to_core(item.figures))


def _device_to_core(item: DeviceModel) -> Device:
    return Device(
        id=item.id,
        label=item.label,
        class_id=item.class_id,
        settings=dict(item.settings),
        routing=dict(item.routing),
        feeds=dict(item.feeds),
        figures=_figures_to_core(item.figures),
    )


def _run_to_core(item: RunModel) -> Run:
    return Run(
        id=item.id,
        number=item.number,
        sending=item.sending.to_core(),
        receiving=item.receiving.to_core(),
        parts=tuple(part.to_core() for part in item.parts),
    )
