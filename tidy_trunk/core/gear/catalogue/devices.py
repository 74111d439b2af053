"""What a device description holds: ports with modes, gain, noise and powering; buses; microphone capsules."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Final

from tidy_trunk.core.gear.catalogue.connectors import CONNECTORS, INSIDE, PINOUTS, Circuit, Plug
from tidy_trunk.core.gear.catalogue.figures import Figure, about
from tidy_trunk.core.gear.catalogue.patterns import Pattern
from tidy_trunk.core.gear.catalogue.span import Span
from tidy_trunk.errors import InputError


class DeviceKind(StrEnum):
    """What a device is for."""

    MICROPHONE = "microphone"
    TRANSMITTER = "transmitter"
    RECEIVER = "receiver"
    RECORDER = "recorder"
    MIXER = "mixer"
    PREAMP = "preamp-box"
    CAMERA = "camera"
    INTERFACE = "audio-interface"
    COMPUTER = "computer"
    PLAYER = "player"
    DELAY = "audio-delay"
    SWITCHER = "live-switcher"
    CLOCK = "timecode-generator"
    HEADPHONES = "headphones"
    SPEAKER = "powered-speaker"
    MONITOR = "picture-monitor"


class Signal(StrEnum):
    """What a mode is made for."""

    MIC = "mic"
    LINE = "line"
    DIGITAL = "digital"


class Supply(StrEnum):
    """Power over the signal contacts. Source: [IEC61938]; plug-in power [PRACTICE]"""

    P48 = "p48"
    PLUG_IN = "plug-in-power"
    T_POWER = "t-power"


class PadPlace(StrEnum):
    """Where an attenuator or a limiter sits decides whether it helps."""

    FIRST = "before-first-stage"
    BETWEEN = "before-converter"
    LAST = "behind-converter"


class Power(StrEnum):
    """Where a device gets its power: what joins it to earth, or does not."""

    BATTERY = "battery"
    MAINS = "mains"  # by an earthed plug
    ADAPTER = "wall-adapter"  # double-insulated, a camera's mains pack too
    COMPUTER = "computer-usb"  # or a monitor or hub on one
    CHARGER = "usb-charger"


class ToneTrigger(StrEnum):
    """When a device gives its tone. Source: [HANDBOOK] §3"""

    SWITCH = "switch"
    KEYS = "held-keys"
    RECORDING = "recording"  # only while it rolls, and its levels cannot be changed meanwhile


class TrimKind(StrEnum):
    """An analogue trim takes its noise down with the signal; a digital one before the converter does not."""

    ANALOGUE = "analogue"
    DIGITAL = "digital"


class Drive(StrEnum):
    """How a balanced output drives its two legs: what is left when one of them is dropped depends on it."""

    FLOATING = "floating"  # a coil or a transformer: all of it between the legs, whichever is earthed
    SYMMETRIC = "symmetric"  # each leg half, in opposite polarity, against the screen
    HOT_ONLY = "hot-only"  # all of it on the hot leg; the cold one has the same impedance and no signal


USB_POWER_W: Final = 15.0
"""Power that a USB-C socket gives at 5 V. [MEMORY]"""

ADAPTER_POWER_W: Final = 65.0
"""Power up to which wall adapters are double-insulated, without a protective earth. [MEMORY]"""

GENTLE_CUT_HZ: Final = 80
"""Low cut that leaves a voice whole. [PRACTICE]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class InputMode:
    """One position of an input's mode switch.

    full_scale_dbu: dBu at the terminals that reads 0 dBFS with gain at 0 dB; gain lowers it dB for dB.
    since: the firmware from which it is there, "" where every device has it.
    clip_dbu: dBu that clips the stage before the gain control, whatever the gain; None where none clips earlier.
    ein_dbu: equivalent input noise, 150 Ω source, 20 Hz to 20 kHz, unweighted.
    """

    id: str
    label: str
    signal: Signal
    impedance_ohm: Figure
    full_scale_dbu: Figure | None = None
    clip_dbu: Figure | None = None
    ein_dbu: Figure | None = None
    gain: Span | None = None
    supplies: tuple[Supply, ...] = ()
    since: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class OutputMode:
    """One position of an output's mode switch.

    full_scale_dbu: open-circuit dBu for a 0 dBFS sine with the trim at 0 dB (analogue devices: for their bus at clip).
    noise_dbu: own noise at the trim's 0 dB, 20 Hz to 20 kHz; an analogue trim takes it down, a digital one does not.
    noise_after_dbu: noise of what comes behind an analogue trim, which stays wherever it stands.
    compander_db: what an analogue radio channel carries between full scale and its noise, by a 2:1 compander; None for
        all else.
    timecode_on: the channel that carries timecode in place of sound; "" for none.
    side_db: by channel, by how much it is louder than the first figure says: (0, -10) for a safety track; () for all alike.
    feeds: what its channels give in this position, by channel, where that is another mix than in the others.
    since: as of an input's mode.
    """

    id: str
    label: str
    signal: Signal
    source_ohm: Figure = field(default_factory=lambda: about(100))
    full_scale_dbu: Figure | None = None
    noise_dbu: Figure | None = None
    noise_after_dbu: Figure | None = None
    compander_db: Figure | None = None
    trim: Span | None = None
    trim_kind: TrimKind = TrimKind.ANALOGUE
    timecode_on: str = ""
    side_db: tuple[float, ...] = ()
    feeds: Mapping[str, str] = field(default_factory=dict)
    since: str = ""

    def carries_what(self, other: "OutputMode") -> bool:
        """Whether both positions carry the same sounds on the same sides, if at another level: then one may stand for the
        other. Who wants both voices on both sides, a safety side or timecode says so."""
        mine, theirs = ((mode.feeds, mode.side_db, mode.timecode_on) for mode in (self, other))
        return mine == theirs


@dataclass(frozen=True, slots=True, kw_only=True)
class InputPort:
    """A socket for sound coming in. `channels` names left and right where one socket takes two.

    limiter_dbfs: what its limiter keeps peaks at; None where it has none.
    phantom_v: what it really gives where it gives phantom power; linked_to: ports whose gain follows this one's when
    that is switched on, or always where there is one knob for all (`one_knob`); blocks: ports that are off, or behind what is mounted, while this is used.
    digital_gain: of the finished numbers, behind the converter.
    pan: the two mixes between which it is panned, left first; None where it goes to all alike.
    bleed_db: at which one of its sides is heard in the other, below zero; None where nobody has measured it.
    """

    id: str
    label: str
    plug: Plug
    circuit: Circuit
    modes: tuple[InputMode, ...]
    channels: tuple[str, ...] = ("1",)
    idle_noise_dbfs: Figure | None = None
    phantom_places: tuple[str, ...] = ()
    phantom_v: Figure | None = None
    plug_in_places: tuple[str, ...] = ()
    automatic_level_places: tuple[str, ...] = ()
    automatic_level_default: bool = False
    pad_db: Figure | None = None
    pad_place: PadPlace = PadPlace.FIRST
    low_cut_hz: tuple[int, ...] = ()
    limiter_dbfs: Figure | None = None
    limiter_place: PadPlace = PadPlace.BETWEEN
    digital_gain: Span | None = None
    pan: tuple[str, str] | None = None
    bleed_db: Figure | None = None
    linked_to: tuple[str, ...] = ()
    one_knob: bool = False
    blocks: tuple[str, ...] = ()

    def switches_of(self, supply: Supply) -> tuple[str, tuple[str, ...]]:
        """What the switch of a supply is called in settings, and the places that have one; T-power has its mode alone."""
        if supply is Supply.PLUG_IN:
            return "plug_in", self.plug_in_places
        return "phantom", self.phantom_places if supply is Supply.P48 else ()

    @property
    def gentle_cut_hz(self) -> int | None:
        """The highest low cut that leaves a voice whole, else the lowest that there is; None where there is none."""
        gentle = [cut for cut in self.low_cut_hz if cut <= GENTLE_CUT_HZ]
        return max(gentle) if gentle else min(self.low_cut_hz, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class OutputPort:
    """A socket for sound going out. `drive` matters where it is balanced.

    only_while_recording: it is dead until the device rolls.
    """

    id: str
    label: str
    plug: Plug
    circuit: Circuit
    modes: tuple[OutputMode, ...]
    channels: tuple[str, ...] = ("1",)
    is_headphone: bool = False
    drive: Drive = Drive.FLOATING
    only_while_recording: bool = False

    @property
    def timecode_mode(self) -> OutputMode | None:
        """The mode that gives timecode, of a socket that can give sound too."""
        return next((mode for mode in self.modes if mode.timecode_on), None)


Port = InputPort | OutputPort


@dataclass(frozen=True, slots=True, kw_only=True)
class Bus:
    """Where inputs come together inside a device; a recorded bus is a track.

    `inputs`: channel references that feed it when nobody has changed the routing. `needs_four_tracks`: it is recorded
    only while the device's four-track mode is on. `armed`: how its record switch stands on a new device, None where it
    has none. `gain`: a knob of its own, behind those of its inputs; `automatic_level_places`: as of an input, but for this
    track alone.
    """

    id: str
    label: str
    recorded: bool
    inputs: tuple[str, ...] = ()
    needs_four_tracks: bool = False
    armed: bool | None = None
    gain: Span | None = None
    automatic_level_places: tuple[str, ...] = ()
    automatic_level_default: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Feeding:
    """What a device draws from the input that it is plugged into, and which supplies harm it. `cell`: whether it can live on
    one of its own."""

    needs: tuple[Supply, ...] = ()
    current_ma: Figure | None = None
    cell: bool = False
    harmed_by: tuple[Supply, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Capsule(Feeding):
    """What makes a microphone: sound in, voltage out.

    self_noise_db_a is A-weighted; None where only the thermal noise of its impedance counts. boost_db: what its + position
    adds; 0 where it has none.
    """

    sensitivity_mv_per_pa: Figure
    max_db_spl: Figure
    self_noise_db_a: Figure | None = None
    pads_db: tuple[float, ...] = ()
    boost_db: float = 0.0
    pattern: Pattern = Pattern.OMNI

    @property
    def positions_db(self) -> tuple[float, ...]:
        """What each position of its switch does to the level: nothing first, then its attenuators, then its + position."""
        return (0.0, *(-db for db in self.pads_db), *((self.boost_db,) if self.boost_db else ()))


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaybackLevel:
    """What a device plays that records nothing itself: music or a finished film, as it is usually mastered."""

    average_dbfs: Figure
    peak_dbfs: Figure


@dataclass(frozen=True, slots=True, kw_only=True)
class Traits:
    """Facts beside the signal path: clock, power, media, picture delay. None where a device has no such thing.

    sdi_delay_frames: of the picture over SDI, where that is another than over HDMI.
    tone_dbfs: of a tone that cannot be set to another level.
    tone_by: what gives its tone. hold: where its keys are locked, "" where they are not.
    meter_reads_high_db: by how much its meter shows more than it records; None where it is believed.
    media_gb: of one card, or of what is built in, in 10⁹ bytes; picture_mbps: what a picture takes of it, in 10⁶ bits a second.
    warm_up_min: until its clock is as good as it gets. heat_limit_min: how long it records in one go, from cold, until it switches off.
    makes_timecode: False where it takes timecode and runs on nobody else's without it.
    """

    sample_rates_hz: tuple[int, ...] = ()
    clock_ppm: Figure | None = None
    keeps_timecode_when_off: bool | None = None
    makes_timecode: bool = True
    picture_delay_frames: Figure | None = None
    sdi_delay_frames: Figure | None = None
    sound_delay_ms: Figure | None = None
    power_w: Figure | None = None
    battery_wh: Figure | None = None
    clip_limit_min: Figure | None = None
    heat_limit_min: Figure | None = None
    media_gb: Figure | None = None
    picture_mbps: Figure | None = None
    warm_up_min: Figure | None = None
    phantom_budget_ma: Figure | None = None
    media: str = ""
    meters: str = ""
    meter_reads_high_db: Figure | None = None
    tone_dbfs: Figure | None = None
    tone_by: ToneTrigger = ToneTrigger.SWITCH
    hold: str = ""
    bits: int | None = None
    is_float: bool = False

    @property
    def powers(self) -> tuple[Power, ...]:
        """How it can be powered, its usual way first; small things run from USB too."""
        if self.power_w is None:
            return ()
        battery = (Power.BATTERY,) if self.battery_wh is not None else ()
        usb = (Power.COMPUTER, Power.CHARGER) if self.power_w.value <= USB_POWER_W else ()
        adapter = (Power.ADAPTER,) if self.power_w.value <= ADAPTER_POWER_W else ()
        return (*battery, Power.MAINS, *adapter, *usb)


@dataclass(frozen=True, slots=True, kw_only=True)
class DeviceClass:
    """A plain class of device: never a make.

    also: other words by which it is called.
    cost: from 1, the price of a cable, to 5, that of a camera; None where nobody has said.
    tested: of one's own, when each test of it was done, ISO 8601, by the test.
    ports, port_of, channel_of: all ports, by id, and the inputs by channel reference. is_panned: some have a pan knob. kept: what
    has been worked out of it, by name.

    Raises:
        InputError: Ids used twice, a bus fed by a channel that is not there, or a port whose connector cannot carry
            its circuit.
    """

    id: str
    label: str
    kind: DeviceKind
    blurb: str = ""
    also: str = ""
    inputs: tuple[InputPort, ...] = ()
    outputs: tuple[OutputPort, ...] = ()
    buses: tuple[Bus, ...] = ()
    feeds: Mapping[str, str] = field(default_factory=dict)
    capsule: Capsule | None = None
    booster: Feeding | None = None
    playback: PlaybackLevel | None = None
    cost: int | None = None
    tested: Mapping[str, str] = field(default_factory=dict)
    traits: Traits = field(default_factory=Traits)
    ports: tuple[Port, ...] = field(init=False, compare=False, repr=False)
    port_of: Mapping[str, Port] = field(init=False, compare=False, repr=False)
    channel_of: Mapping[str, tuple[InputPort, int]] = field(init=False, compare=False, repr=False)
    is_panned: bool = field(init=False, compare=False, repr=False)
    kept: dict[str, Any] = field(init=False, compare=False, repr=False, default_factory=dict)

    def __post_init__(self) -> None:
        # Looked up far more often than a class is made.
        object.__setattr__(self, "ports", (*self.inputs, *self.outputs))
        object.__setattr__(self, "port_of", {port.id: port for port in self.ports})
        channels = {ref: (port, index) for port in self.inputs for index, ref in enumerate(channel_refs(port))}
        object.__setattr__(self, "channel_of", channels)
        object.__setattr__(self, "is_panned", any(port.pan is not None for port in self.inputs))
        ids = [port.id for port in self.ports]
        if len(set(ids)) != len(ids):
            raise InputError(f"class {self.id}: two ports share one id")
        bus_ids = {bus.id for bus in self.buses}
        inputs = {ref for port in self.inputs for ref in channel_refs(port)}
        outputs = {ref for port in self.outputs for ref in channel_refs(port)}
        for port in self.ports:
            if (port.plug.connector, port.circuit) not in PINOUTS:
                raise InputError(
                    f"class {self.id}, port {port.id}: {CONNECTORS[port.plug.connector].label} is not '{port.circuit}'"
                )
        for bus in self.buses:
            if not set(bus.inputs) <= inputs:
                raise InputError(f"class {self.id}, bus {bus.id}: fed by a channel that is not there")
        fed = [
            *self.feeds.items(),
            *(item for port in self.outputs for mode in port.modes for item in mode.feeds.items()),
        ]
        for channel, bus_id in fed:
            if channel not in outputs or bus_id not in bus_ids:
                raise InputError(f"class {self.id}: feed {channel} from {bus_id} is not there")
        for port in self.inputs:
            for other in (*port.linked_to, *port.blocks):
                if other not in self.port_of:
                    raise InputError(f"class {self.id}, port {port.id}: there is no port {other}")
            for bus_id in port.pan or ():
                if bus_id not in bus_ids:
                    raise InputError(f"class {self.id}, port {port.id}: panned to {bus_id}, which is not there")
        if len(bus_ids) != len(self.buses):
            raise InputError(f"class {self.id}: two tracks or mixes share one id")

    @property
    def is_microphone(self) -> bool:
        """Whether it is nothing else; recorders, cameras and transmitters may have microphones of their own."""
        return self.capsule is not None and not self.buses

    def is_capsule_out(self, port: OutputPort) -> bool:
        """Whether an output carries what its capsule gives, and not what it mixes or records."""
        return self.capsule is not None and (not self.buses or port.plug.connector == INSIDE)

    @property
    def built_in_out(self) -> OutputPort | None:
        """Where its own microphones meet its own input; None where it has none, or they are only there to be named."""
        return next((port for port in self.outputs if port.plug.connector == INSIDE), None)

    @property
    def feeding(self) -> Feeding | None:
        """What it draws from the input that it is plugged into: a microphone, or an amplifier in its lead; else None."""
        return self.capsule if self.is_microphone else self.booster

    @property
    def is_recording(self) -> bool:
        return any(bus.recorded for bus in self.buses)

    @property
    def keeps_time(self) -> bool:
        """Whether it has labels of its own, kept or lost when it is switched off."""
        return self.traits.keeps_timecode_when_off is not None


def channel_refs(port: Port) -> tuple[str, ...]:
    """References of a port's channels: `in1` for one, `mic.L` and `mic.R` for two."""
    return (port.id,) if len(port.channels) == 1 else tuple(f"{port.id}.{channel}" for channel in port.channels)
