"""Edits as JSON: one model for each command, told apart by `kind`."""

from collections.abc import Mapping
from typing import Annotated, Any, ClassVar, Final, Literal, cast

from pydantic import Field

from tidy_trunk.core import plan as core
from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, LeadClass, Plug, Wiring
from tidy_trunk.document.models import (
    Db,
    Degrees,
    DelayFrames,
    DocumentModel,
    FigureModel,
    GainLawModel,
    Key,
    LineUpModel,
    Megahertz,
    MeterErrorModel,
    Metres,
    Minute,
    Name,
    PairDriftModel,
    PartModel,
    PortRefModel,
    StretchModel,
    Value,
)
from tidy_trunk.equipment import CableClassModel, DeviceClassModel, PlugModel, WiringModel
from tidy_trunk.equipment.models import BranchId, Id

Path = Annotated[tuple[StretchModel, ...], Field(max_length=20)]


class EditModel(DocumentModel):
    """A command whose fields have the names of its core counterpart."""

    command: ClassVar[type]

    def to_core(self) -> core.Edit:
        values = {name: _to_core(getattr(self, name)) for name in type(self).model_fields if name != "kind"}
        edit: core.Edit = self.command(**values)
        return edit


class SetJobModel(EditModel):
    command = core.SetJob
    kind: Literal["set-job"] = "set-job"
    name: Name | None = None
    frame_rate: Key | None = None
    target: Id | None = None
    effects_target: Id | None = None
    guide_target: Id | None = None
    timecode_target: Id | None = None
    school: core.School | None = None
    room: Id | None = None
    alignment_dbfs: Db | None = None
    mains_hz: int | None = None
    room_noise_db_spl: Db | None = None
    rumble_db_spl: Db | None = None
    sample_rate_hz: int | None = None
    slack_share: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)] | None = None
    slack_end_m: Metres | None = None
    frequencies_cleared: bool | None = None
    radio_guard_mhz: Megahertz | None = None
    day_begins_min: Minute | None = None
    day_ends_min: Minute | None = None
    drift_limit_frames: DelayFrames | None = None
    date: Annotated[str, Field(max_length=10)] | None = None
    zone: Annotated[str, Field(max_length=60)] | None = None
    temperature_c: Annotated[float, Field(allow_inf_nan=False, ge=-50, le=60)] | None = None
    hands: Annotated[int, Field(ge=1, le=core.MOST_HANDS)] | None = None
    crew: Annotated[str, Field(max_length=400)] | None = None
    walk_min: Annotated[float, Field(allow_inf_nan=False, ge=0, le=60)] | None = None
    slating: core.Slating | None = None


class AddDeviceModel(EditModel):
    command = core.AddDevice
    kind: Literal["add-device"] = "add-device"
    class_id: Id
    label: Name | None = None
    id: Id | None = None


class CopyDeviceModel(EditModel):
    command = core.CopyDevice
    kind: Literal["copy-device"] = "copy-device"
    device: Id
    label: Name


class RenameDeviceModel(EditModel):
    command = core.RenameDevice
    kind: Literal["rename-device"] = "rename-device"
    device: Id
    label: Name


class RemoveDeviceModel(EditModel):
    command = core.RemoveDevice
    kind: Literal["remove-device"] = "remove-device"
    device: Id


class SetControlModel(EditModel):
    command = core.SetControl
    kind: Literal["set-control"] = "set-control"
    device: Id
    control: Key
    value: Value


class RouteBusModel(EditModel):
    command = core.RouteBus
    kind: Literal["route-bus"] = "route-bus"
    device: Id
    bus: Key
    inputs: Annotated[tuple[Key, ...], Field(max_length=64)]


class FeedOutputModel(EditModel):
    command = core.FeedOutput
    kind: Literal["feed-output"] = "feed-output"
    device: Id
    channel: Key
    bus: Key


class AddSourceModel(EditModel):
    command = core.AddSource
    kind: Literal["add-source"] = "add-source"
    label: Name
    average_db_spl: Db
    quiet_db_spl: Db | None = None
    peak_db_spl: Db | None = None
    burst_db_spl: Db | None = None
    heard_by: dict[Id, Metres] = Field(default_factory=dict)
    off_axis_deg: dict[Id, Degrees] = Field(default_factory=dict)
    id: Id | None = None
    weighting: core.Weighting = core.Weighting.A


class SetSourceModel(EditModel):
    command = core.SetSource
    kind: Literal["set-source"] = "set-source"
    source: Id
    label: Name | None = None
    quiet_db_spl: Db | None = None
    average_db_spl: Db | None = None
    peak_db_spl: Db | None = None
    burst_db_spl: Db | None = None
    irreplaceable: bool | None = None
    tolerance_db: Annotated[float, Field(allow_inf_nan=False, ge=0, le=40)] | None = None
    weighting: core.Weighting | None = None


class HearModel(EditModel):
    command = core.Hear
    kind: Literal["hear"] = "hear"
    source: Id
    device: Id
    distance_m: Metres | None
    off_axis_deg: Degrees | None = None


class SaveTargetModel(EditModel):
    command = core.SaveTarget
    kind: Literal["save-target"] = "save-target"
    label: Name
    low_dbfs: Db
    high_dbfs: Db
    of_peaks: bool = False
    id: Id | None = None


class RemoveTargetModel(EditModel):
    command = core.RemoveTarget
    kind: Literal["remove-target"] = "remove-target"
    target: Id


class SetRoleModel(EditModel):
    command = core.SetRole
    kind: Literal["set-role"] = "set-role"
    device: Id
    bus: Key
    role: core.Role


class RemoveSourceModel(EditModel):
    command = core.RemoveSource
    kind: Literal["remove-source"] = "remove-source"
    source: Id


class ConnectModel(EditModel):
    command = core.Connect
    kind: Literal["connect"] = "connect"
    sending: PortRefModel
    receiving: PortRefModel
    parts: Annotated[tuple[PartModel, ...], Field(max_length=8)] = ()
    id: Id | None = None
    path: Path = ()


class SetPathModel(EditModel):
    command = core.SetPath
    kind: Literal["set-path"] = "set-path"
    run: Id
    path: Path


class SetStrainReliefModel(EditModel):
    command = core.SetStrainRelief
    kind: Literal["set-strain-relief"] = "set-strain-relief"
    run: Id
    on: bool


class SaveLeadModel(EditModel):
    command = core.SaveLead
    kind: Literal["save-lead"] = "save-lead"
    lead: CableClassModel


class DrawLeadModel(EditModel):
    command = core.DrawLead
    kind: Literal["draw-lead"] = "draw-lead"
    label: Name
    sending: PlugModel
    receiving: PlugModel
    ways: dict[BranchId, WiringModel]
    short_m: Metres | None = None
    id: Id | None = None


class RemoveLeadModel(EditModel):
    command = core.RemoveLead
    kind: Literal["remove-lead"] = "remove-lead"
    lead: Id


class SetPartsModel(EditModel):
    command = core.SetParts
    kind: Literal["set-parts"] = "set-parts"
    run: Id
    parts: Annotated[tuple[PartModel, ...], Field(max_length=8)]


class MoveRunModel(EditModel):
    command = core.MoveRun
    kind: Literal["move-run"] = "move-run"
    run: Id
    sending: PortRefModel | None = None
    receiving: PortRefModel | None = None
    parts: Annotated[tuple[PartModel, ...], Field(max_length=8)] | None = None


class DisconnectModel(EditModel):
    command = core.Disconnect
    kind: Literal["disconnect"] = "disconnect"
    run: Id


class SetFigureModel(EditModel):
    command = core.SetFigure
    kind: Literal["set-figure"] = "set-figure"
    device: Id
    path: Key
    figure: FigureModel | None


class CopyClassModel(EditModel):
    command = core.CopyClass
    kind: Literal["copy-class"] = "copy-class"
    device: Id
    label: Name


class SaveClassModel(EditModel):
    command = core.SaveClass
    kind: Literal["save-class"] = "save-class"
    device_class: DeviceClassModel


class RemoveClassModel(EditModel):
    command = core.RemoveClass
    kind: Literal["remove-class"] = "remove-class"
    class_id: Id


class TakeLineUpModel(EditModel):
    command = core.TakeLineUp
    kind: Literal["take-line-up"] = "take-line-up"
    line_up: LineUpModel


class DropLineUpModel(EditModel):
    command = core.DropLineUp
    kind: Literal["drop-line-up"] = "drop-line-up"
    track: Key


class TakeGainLawModel(EditModel):
    command = core.TakeGainLaw
    kind: Literal["take-gain-law"] = "take-gain-law"
    law: GainLawModel


class DropGainLawModel(EditModel):
    command = core.DropGainLaw
    kind: Literal["drop-gain-law"] = "drop-gain-law"
    class_id: Id
    control: Key


class TakeMeterErrorModel(EditModel):
    command = core.TakeMeterError
    kind: Literal["take-meter-error"] = "take-meter-error"
    meter: MeterErrorModel


class DropMeterErrorModel(EditModel):
    command = core.DropMeterError
    kind: Literal["drop-meter-error"] = "drop-meter-error"
    class_id: Id


class SetJamModel(EditModel):
    command = core.SetJam
    kind: Literal["set-jam"] = "set-jam"
    device: Id
    giver: Id | None
    over: core.JamOver = core.JamOver.LEAD
    at_min: Annotated[tuple[Minute, ...], Field(max_length=core.MOST_JAMS)] = ()


class SetBreakModel(EditModel):
    command = core.SetBreak
    kind: Literal["set-break"] = "set-break"
    label: Name
    at_min: Minute
    length_min: Minute
    id: Id | None = None


class RemoveBreakModel(EditModel):
    command = core.RemoveBreak
    kind: Literal["remove-break"] = "remove-break"
    id: Id


class SaveSetUpModel(EditModel):
    command = core.SaveSetUp
    kind: Literal["save-set-up"] = "save-set-up"
    label: Name
    at_min: Minute
    takes: Annotated[int, Field(ge=1, le=core.MOST_TAKES)]
    take_min: Annotated[float, Field(allow_inf_nan=False, gt=0, le=core.LONGEST_TAKE_MIN)]
    between_min: Annotated[float, Field(allow_inf_nan=False, ge=0, le=24 * 60)] = core.BETWEEN_TAKES_MIN
    id: Id | None = None


class RemoveSetUpModel(EditModel):
    command = core.RemoveSetUp
    kind: Literal["remove-set-up"] = "remove-set-up"
    id: Id


class SaveMoveModel(EditModel):
    command = core.SaveMove
    kind: Literal["save-move"] = "save-move"
    label: Name
    at_min: Minute
    length_min: Minute
    id: Id | None = None


class RemoveMoveModel(EditModel):
    command = core.RemoveMove
    kind: Literal["remove-move"] = "remove-move"
    id: Id


class ShiftDayModel(EditModel):
    command = core.ShiftDay
    kind: Literal["shift-day"] = "shift-day"
    from_min: Minute
    by_min: Annotated[int, Field(ge=-24 * 60, le=24 * 60)]


class AddTakeModel(EditModel):
    command = core.AddTake
    kind: Literal["add-take"] = "add-take"
    set_up: Id


class PlaceDeviceModel(EditModel):
    command = core.PlaceDevice
    kind: Literal["place-device"] = "place-device"
    device: Id
    place: Annotated[str, Field(max_length=80)]


class TakePairDriftModel(EditModel):
    command = core.TakePairDrift
    kind: Literal["take-pair-drift"] = "take-pair-drift"
    drift: PairDriftModel


class DropPairDriftModel(EditModel):
    command = core.DropPairDrift
    kind: Literal["drop-pair-drift"] = "drop-pair-drift"
    first: Id
    second: Id


AnyEdit = Annotated[
    SetJobModel
    | AddDeviceModel
    | CopyDeviceModel
    | RenameDeviceModel
    | RemoveDeviceModel
    | SetControlModel
    | RouteBusModel
    | FeedOutputModel
    | AddSourceModel
    | SetSourceModel
    | HearModel
    | RemoveSourceModel
    | ConnectModel
    | SetPartsModel
    | MoveRunModel
    | DisconnectModel
    | SetPathModel
    | SetStrainReliefModel
    | SaveLeadModel
    | DrawLeadModel
    | RemoveLeadModel
    | SetFigureModel
    | CopyClassModel
    | SaveClassModel
    | RemoveClassModel
    | SaveTargetModel
    | RemoveTargetModel
    | SetRoleModel
    | TakeLineUpModel
    | DropLineUpModel
    | TakeGainLawModel
    | DropGainLawModel
    | TakeMeterErrorModel
    | DropMeterErrorModel
    | SetJamModel
    | SetBreakModel
    | RemoveBreakModel
    | SaveSetUpModel
    | RemoveSetUpModel
    | SaveMoveModel
    | RemoveMoveModel
    | ShiftDayModel
    | AddTakeModel
    | PlaceDeviceModel
    | TakePairDriftModel
    | DropPairDriftModel,
    Field(discriminator="kind"),
]

_MODELS: Final[Mapping[type, type[EditModel]]] = {model.command: model for model in EditModel.__subclasses__()}


def edit_document(edit: core.Edit) -> AnyEdit:
    """A core edit as its model."""
    model = _MODELS[type(edit)]
    names = [name for name in model.model_fields if name != "kind"]
    return cast(AnyEdit, model.model_validate({name: _from_core(getattr(edit, name)) for name in names}))


_SEAMS: Final[Mapping[type, Any]] = {
    core.PortRef: PortRefModel,
    core.Part: PartModel,
    core.Stretch: StretchModel,
    core.LineUp: LineUpModel,
    core.GainLaw: GainLawModel,
    core.MeterError: MeterErrorModel,
    core.PairDrift: PairDriftModel,
    DeviceClass: DeviceClassModel,
    LeadClass: CableClassModel,
    Figure: FigureModel,
    Plug: PlugModel,
    Wiring: WiringModel,
}


def _to_core(value: Any) -> Any:
    if isinstance(value, tuple):
        return tuple(_to_core(item) for item in value)
    if isinstance(value, dict):
        return {key: _to_core(item) for key, item in value.items()}
    return value.to_core() if hasattr(value, "to_core") else value


def _from_core(value: Any) -> Any:
    if type(value) in _SEAMS:
        return _SEAMS[type(value)].from_core(value)
    if isinstance(value, tuple):
        return tuple(_from_core(item) for item in value)
    if isinstance(value, Mapping):
        return {key: _from_core(item) for key, item in value.items()}
    return value
