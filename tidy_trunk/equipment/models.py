"""A class of device or cable as it stands in a file: one Pydantic model for each thing in it, strict, with the seam to the core.

Names are those of the core's values, so that each model turns into its value by name; what is left out has the core's
default. A figure may be a bare number: it is then a typical one, with the ± that is usual for it.
"""

from collections.abc import Callable, Mapping
from datetime import datetime
from typing import Annotated, Any, ClassVar, Final, Self

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    GetJsonSchemaHandler,
    model_validator,
)
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema

from tidy_trunk.core.gear.catalogue import (
    CONNECTORS,
    TYPICAL_TOLERANCE_DB,
    TYPICAL_TOLERANCE_PERCENT,
    Bridge,
    Bus,
    Capsule,
    Circuit,
    DeviceClass,
    DeviceKind,
    Drive,
    Feeding,
    Figure,
    Gender,
    InputMode,
    InputPort,
    LawPoint,
    LeadClass,
    OutputMode,
    OutputPort,
    PadPlace,
    Pattern,
    PlaybackLevel,
    Plug,
    Provenance,
    Side,
    Signal,
    Span,
    Supply,
    ToneTrigger,
    Traits,
    TrimKind,
    Winding,
    Wire,
    Wiring,
)
from tidy_trunk.equipment.former import of_today

MOST_PORTS: Final = 64
"""ASSUMED_ most sockets on one side of a device."""


def _moment(text: str) -> str:
    try:
        datetime.fromisoformat(text)
    except ValueError as error:
        raise ValueError(f"must be a date and time such as 2026-11-25T09:30, not {text!r}") from error
    return text


Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,60}$", description="Lower-case letters, digits and dashes")]
Channel = Annotated[str, Field(pattern=r"^[A-Za-z0-9]{1,4}$", description="As it is written beside the socket: 1, L")]
Ref = Annotated[str, Field(max_length=70, description="A channel: in1, or mic.L where one socket takes two")]
BusId = Annotated[str, Field(pattern=r"^[A-Za-z0-9][A-Za-z0-9-]{0,20}$", description="A track or mix: 1, L, mix-l")]
Since = Annotated[str, Field(max_length=40, description="Firmware from which it is there; empty: all have it")]
Cost = Annotated[
    int,
    Field(
        ge=1,
        le=5,
        description="1: a cable; 2: a box; 3: a microphone or small recorder; 4: a bag recorder; 5: a camera",
    ),
]
BranchId = Annotated[str, Field(pattern=r"^[LR]?$")]
IsoMoment = Annotated[str, Field(max_length=40), AfterValidator(_moment)]
Tested = Annotated[
    dict[Annotated[str, Field(max_length=120)], IsoMoment],
    Field(max_length=MOST_PORTS * 8, description="When each test of one's own was done, by the test"),
]
Label = Annotated[str, Field(min_length=1, max_length=80)]
Text = Annotated[str, Field(max_length=200)]
MarkedDb = Annotated[float, Field(allow_inf_nan=False, ge=-200, le=200)]
ContactName = Annotated[str, Field(min_length=1, max_length=4)]
Ohm = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1e7)]
ReadCircuit = Annotated[Circuit, BeforeValidator(of_today)]
ReadDeviceKind = Annotated[DeviceKind, BeforeValidator(of_today)]
ReadDrive = Annotated[Drive, BeforeValidator(of_today)]
ReadPadPlace = Annotated[PadPlace, BeforeValidator(of_today)]
ReadPattern = Annotated[Pattern, BeforeValidator(of_today)]
ReadSupply = Annotated[Supply, BeforeValidator(of_today)]
ReadToneTrigger = Annotated[ToneTrigger, BeforeValidator(of_today)]
SwitchPlace = Annotated[str, Field(min_length=1, max_length=40, description="Where it is switched: switch, menu, app")]


class EquipmentModel(BaseModel):
    """Nothing unknown gets in, nothing changes afterwards. `core`: what it is inside the program."""

    model_config = ConfigDict(extra="forbid", frozen=True, from_attributes=True, defer_build=True)
    core: ClassVar[Callable[..., Any]]

    def to_core(self) -> Any:
        """The core's value. Raises InputError where it contradicts itself."""
        return type(self).core(**{name: _inside(getattr(self, name)) for name in type(self).model_fields})

    @classmethod
    def from_core(cls, value: Any) -> Self:
        """The model of a core's value."""
        return cls.model_validate(value)


def _inside(value: Any) -> Any:
    if isinstance(value, EquipmentModel):
        return value.to_core()
    if isinstance(value, tuple):
        return tuple(_inside(item) for item in value)
    if isinstance(value, dict):
        return {key: _inside(item) for key, item in value.items()}
    return value


class _FigureModel(EquipmentModel):
    """A figure: a bare number, or a table that says how sure it is and where it comes from."""

    core = Figure
    value: Annotated[float, Field(allow_inf_nan=False, ge=-1e7, le=1e7)]
    tolerance: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)]
    provenance: Provenance = Provenance.TYPICAL
    source: Annotated[str, Field(min_length=1, max_length=120)] = "MEMORY"

    @model_validator(mode="before")
    @classmethod
    def _bare_number(cls, given: Any) -> Any:
        return {"value": given} if isinstance(given, int | float) and not isinstance(given, bool) else given

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return {"anyOf": [{"type": "number"}, handler(schema)]}


class LevelFigure(_FigureModel):
    """A level, a loss or a sensitivity: ± in dB."""

    tolerance: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = TYPICAL_TOLERANCE_DB


class PlainFigure(_FigureModel):
    """Any other figure: ± in percent."""

    tolerance: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = TYPICAL_TOLERANCE_PERCENT


def _between(low: float, high: float, unit: str) -> AfterValidator:
    def check(figure: _FigureModel) -> _FigureModel:
        if not low <= figure.value <= high:
            raise ValueError(f"must be between {low:,.9g} and {high:,.9g} {unit}, not {figure.value:g}")
        return figure

    return AfterValidator(check)


DbuFigure = Annotated[LevelFigure, _between(-160, 60, "dBu")]
DbfsFigure = Annotated[LevelFigure, _between(-160, 20, "dBFS")]
Bleed = Annotated[LevelFigure, _between(-140, 0, "dB")]
Decibels = Annotated[LevelFigure, _between(-60, 60, "dB")]
Loss = Annotated[LevelFigure, _between(0, 100, "dB")]
SoundLevel = Annotated[LevelFigure, _between(-10, 200, "dB SPL")]
Sensitivity = Annotated[LevelFigure, _between(0.01, 1_000, "mV/Pa")]
Impedance = Annotated[PlainFigure, _between(0.1, 1e7, "Ω")]
Volts = Annotated[PlainFigure, _between(0, 60, "V")]
Milliamperes = Annotated[PlainFigure, _between(0, 1_000, "mA")]
PpmFigure = Annotated[PlainFigure, _between(0, 10_000, "ppm")]
FramesFigure = Annotated[PlainFigure, _between(0, 120, "frames")]
Milliseconds = Annotated[PlainFigure, _between(0, 10_000, "ms")]
Watts = Annotated[PlainFigure, _between(0, 10_000, "W")]
WattHours = Annotated[PlainFigure, _between(0, 100_000, "Wh")]
Gigabytes = Annotated[PlainFigure, _between(0, 1_000_000, "GB")]
Megabits = Annotated[PlainFigure, _between(0, 100_000, "Mbit/s")]
Minutes = Annotated[PlainFigure, _between(0, 10_000, "min")]


class LawPointModel(EquipmentModel):
    core = LawPoint
    position_db: MarkedDb
    gain_db: MarkedDb


class SpanModel(EquipmentModel):
    """A knob: its range as it is marked, its steps, and where it stands on a new device."""

    core = Span
    minimum_db: MarkedDb
    maximum_db: MarkedDb
    step_db: Annotated[float, Field(allow_inf_nan=False, gt=0, le=40)]
    default_db: MarkedDb
    law: Annotated[tuple[LawPointModel, ...], Field(max_length=100)] = ()
    lowest_is_off: bool = False

    @model_validator(mode="after")
    def _can_stand(self) -> Self:
        self.to_core()
        return self


class PlugModel(EquipmentModel):
    """One end: `connector` is one of those that the program knows, `gender` is male for a plug and female for a socket."""

    core = Plug
    connector: Id
    gender: Gender

    @model_validator(mode="after")
    def _is_known(self) -> Self:
        if self.connector not in CONNECTORS:
            raise ValueError(f"there is no connector '{self.connector}': use {', '.join(CONNECTORS)}")
        return self


class InputModeModel(EquipmentModel):
    core = InputMode
    id: Id
    label: Label
    signal: Signal
    impedance_ohm: Impedance
    full_scale_dbu: DbuFigure | None = None
    clip_dbu: DbuFigure | None = None
    ein_dbu: DbuFigure | None = None
    gain: SpanModel | None = None
    supplies: Annotated[tuple[ReadSupply, ...], Field(max_length=3)] = ()
    since: Since = ""


class OutputModeModel(EquipmentModel):
    core = OutputMode
    id: Id
    label: Label
    signal: Signal
    source_ohm: Impedance = PlainFigure(value=100)
    full_scale_dbu: DbuFigure | None = None
    noise_dbu: DbuFigure | None = None
    noise_after_dbu: DbuFigure | None = None
    compander_db: Loss | None = None
    trim: SpanModel | None = None
    trim_kind: TrimKind = TrimKind.ANALOGUE
    timecode_on: Annotated[str, Field(pattern=r"^[A-Za-z0-9]{0,4}$")] = ""
    side_db: Annotated[tuple[MarkedDb, ...], Field(max_length=2)] = ()
    feeds: dict[Ref, BusId] = {}
    since: Since = ""


class _PortModel(EquipmentModel):
    id: Id
    label: Label
    plug: PlugModel
    circuit: ReadCircuit
    channels: Annotated[tuple[Channel, ...], Field(min_length=1, max_length=2)] = ("1",)


class InputPortModel(_PortModel):
    core = InputPort
    modes: Annotated[tuple[InputModeModel, ...], Field(min_length=1, max_length=12)]
    idle_noise_dbfs: DbfsFigure | None = None
    phantom_places: Annotated[tuple[SwitchPlace, ...], Field(max_length=4)] = ()
    phantom_v: Volts | None = None
    plug_in_places: Annotated[tuple[SwitchPlace, ...], Field(max_length=4)] = ()
    automatic_level_places: Annotated[tuple[SwitchPlace, ...], Field(max_length=4)] = ()
    automatic_level_default: bool = False
    pad_db: Loss | None = None
    pad_place: ReadPadPlace = PadPlace.FIRST
    low_cut_hz: Annotated[tuple[Annotated[int, Field(ge=5, le=1_000)], ...], Field(max_length=12)] = ()
    limiter_dbfs: DbfsFigure | None = None
    limiter_place: ReadPadPlace = PadPlace.BETWEEN
    digital_gain: SpanModel | None = None
    pan: tuple[Id, Id] | None = None
    bleed_db: Bleed | None = None
    linked_to: Annotated[tuple[Id, ...], Field(max_length=MOST_PORTS)] = ()
    one_knob: bool = False
    blocks: Annotated[tuple[Id, ...], Field(max_length=MOST_PORTS)] = ()


class OutputPortModel(_PortModel):
    core = OutputPort
    modes: Annotated[tuple[OutputModeModel, ...], Field(min_length=1, max_length=12)]
    is_headphone: bool = False
    drive: ReadDrive = Drive.FLOATING
    only_while_recording: bool = False


class BusModel(EquipmentModel):
    """A mix, or a track where it is recorded."""

    core = Bus
    id: BusId
    label: Label
    recorded: bool
    inputs: Annotated[tuple[Ref, ...], Field(max_length=2 * MOST_PORTS)] = ()
    needs_four_tracks: bool = False
    armed: bool | None = None
    gain: SpanModel | None = None
    automatic_level_places: Annotated[tuple[SwitchPlace, ...], Field(max_length=4)] = ()
    automatic_level_default: bool = False


class FeedingModel(EquipmentModel):
    """What it draws from the input that it is plugged into."""

    core: ClassVar[Callable[..., Any]] = Feeding
    needs: Annotated[tuple[ReadSupply, ...], Field(max_length=3)] = ()
    current_ma: Milliamperes | None = None
    cell: bool = False
    harmed_by: Annotated[tuple[ReadSupply, ...], Field(max_length=3)] = ()


class CapsuleModel(FeedingModel):
    """What makes it a microphone."""

    core: ClassVar[Callable[..., Any]] = Capsule
    sensitivity_mv_per_pa: Sensitivity
    max_db_spl: SoundLevel
    self_noise_db_a: SoundLevel | None = None
    pads_db: Annotated[tuple[Annotated[float, Field(gt=0, le=60, allow_inf_nan=False)], ...], Field(max_length=4)] = ()
    boost_db: Annotated[float, Field(ge=0, le=40, allow_inf_nan=False)] = 0.0
    pattern: ReadPattern = Pattern.OMNI


class PlaybackModel(EquipmentModel):
    """What it plays, as it is usually mastered."""

    core = PlaybackLevel
    average_dbfs: DbfsFigure
    peak_dbfs: DbfsFigure


class TraitsModel(EquipmentModel):
    """Clock, power, media and delays."""

    core = Traits
    sample_rates_hz: Annotated[tuple[Annotated[int, Field(ge=8_000, le=768_000)], ...], Field(max_length=12)] = ()
    clock_ppm: PpmFigure | None = None
    keeps_timecode_when_off: bool | None = None
    makes_timecode: bool = True
    picture_delay_frames: FramesFigure | None = None
    sdi_delay_frames: FramesFigure | None = None
    sound_delay_ms: Milliseconds | None = None
    power_w: Watts | None = None
    battery_wh: WattHours | None = None
    clip_limit_min: Minutes | None = None
    heat_limit_min: Minutes | None = None
    media_gb: Gigabytes | None = None
    picture_mbps: Megabits | None = None
    warm_up_min: Minutes | None = None
    phantom_budget_ma: Milliamperes | None = None
    media: Text = ""
    meters: Text = ""
    meter_reads_high_db: Decibels | None = None
    tone_dbfs: DbfsFigure | None = None
    tone_by: ReadToneTrigger = ToneTrigger.SWITCH
    hold: Text = ""
    bits: Annotated[int, Field(ge=8, le=64)] | None = None
    is_float: bool = False


class DeviceClassModel(EquipmentModel):
    """A class of device: its sockets, what it records, and its powering."""

    core = DeviceClass
    id: Id
    label: Label
    kind: ReadDeviceKind
    blurb: Text = ""
    also: Text = ""
    inputs: Annotated[tuple[InputPortModel, ...], Field(max_length=MOST_PORTS)] = ()
    outputs: Annotated[tuple[OutputPortModel, ...], Field(max_length=MOST_PORTS)] = ()
    buses: Annotated[tuple[BusModel, ...], Field(max_length=MOST_PORTS)] = ()
    feeds: dict[Ref, BusId] = {}
    capsule: CapsuleModel | None = None
    booster: FeedingModel | None = None
    playback: PlaybackModel | None = None
    cost: Cost | None = None
    tested: Tested = {}
    traits: TraitsModel = TraitsModel()

    @model_validator(mode="after")
    def _holds_together(self) -> Self:
        self.to_core()
        return self


class WireModel(EquipmentModel):
    """A core from a contact of the sending end to one of the receiving end."""

    core = Wire
    near: ContactName
    far: ContactName
    ohm: Ohm = 0.0
    blocks_dc: bool = False


class BridgeModel(EquipmentModel):
    core = Bridge
    end: Side
    first: ContactName
    second: ContactName
    ohm: Ohm = 0.0


class WindingModel(EquipmentModel):
    core = Winding
    near: tuple[ContactName, ContactName]
    far: tuple[ContactName, ContactName]


class WiringModel(EquipmentModel):
    """What is inside one way of a cable: cores, what bridges two contacts of one end, transformers."""

    core = Wiring
    wires: Annotated[tuple[WireModel, ...], Field(max_length=24)] = ()
    bridges: Annotated[tuple[BridgeModel, ...], Field(max_length=24)] = ()
    windings: Annotated[tuple[WindingModel, ...], Field(max_length=8)] = ()


class CableClassModel(EquipmentModel):
    """A class of cable or adapter: what is at its ends, and what joins their contacts.

    `ways` has the one way "", or the two ways L and R where two cables share one plug.
    """

    core = LeadClass
    id: Id
    label: Label
    also: Text = ""
    sending: PlugModel
    receiving: PlugModel
    balanced: bool
    short_m: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    loss_db: Loss | None = None
    replaces: Annotated[tuple[Id, ...], Field(max_length=8)] = ()
    tail: PlugModel | None = None
    characteristic_ohm: Annotated[float, Field(gt=0, le=1_000, allow_inf_nan=False)] | None = None
    cost: Cost | None = None
    tested: Tested = {}
    proposed: bool = True
    ways: Annotated[Mapping[BranchId, WiringModel], Field(min_length=1, max_length=2)]

    @model_validator(mode="after")
    def _holds_together(self) -> Self:
        self.to_core()
        return self


class WrittenWireModel(WireModel):
    """A core as it is written in a file: "2-T" where it is plain wire."""

    @model_validator(mode="before")
    @classmethod
    def _plain(cls, given: Any) -> Any:
        if not isinstance(given, str):
            return given
        near, dash, far = given.partition("-")
        if not dash:
            raise ValueError(f"must be two contacts with a dash between them, such as 2-T, not {given!r}")
        return {"near": near, "far": far}

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return {"anyOf": [{"type": "string", "pattern": "^.{1,4}-.{1,4}$"}, handler(schema)]}


class WrittenWiringModel(WiringModel):
    wires: Annotated[tuple[WrittenWireModel, ...], Field(max_length=24)] = ()


class WrittenCableModel(CableClassModel):
    """A class of cable as it is written in a file."""

    ways: Annotated[Mapping[BranchId, WrittenWiringModel], Field(min_length=1, max_length=2)]
