"""Levels, noise, clipping and headroom of every track, a second time: from the plan document, the classes and physics.

Sound is a sum of atoms, each with a spectrum in third octaves and an amplitude by band: what a microphone hears of its
sources, and every noise where it is made. Amplitudes of one atom add with their signs, atoms by power. What is cut off
becomes an atom of its own. Beside it goes the same sum as if nothing had ever been cut, of which headroom is told.
"""

import itertools
import json
import math
from dataclasses import dataclass, field, replace

import numpy as np
import scipy

from tests.reference import circuit
from tidy_trunk.core.gear.catalogue import (
    Circuit,
    Figure,
    InputPort,
    PadPlace,
    Pattern,
    Provenance,
    Signal,
    Supply,
    TrimKind,
    built_in,
    with_figures,
)

BANDS = 10.0 ** (np.arange(13, 44) / 10)
"""Middles of the third octaves from 20 Hz to 20 kHz, IEC 61260-1."""

SPEECH = np.array(
    [0, 0, 0, 0, 20, 38.6, 43.5, 54.4, 57.7, 56.8, 60.2, 60.3, 59.0, 62.1, 62.1, 60.5, 56.8, 53.7, 53.0, 52.0, 48.7, 48.1, 46.8, 45.6, 44.5,
     44.3, 43.7, 43.4, 41.3, 40.7, 37.0]
)  # fmt: skip
"""Long-term average speech, Byrne et al. 1994, both sexes, dB of 70 in all; below 63 Hz and at 20 kHz from memory."""

BOLTZMANN = 1.380649e-23
DBU_V = math.sqrt(0.6)
NOISE_PEAK = 10**0.9
"""Power of four standard deviations above the mean square, levels being those of sines: 12 dB less 3."""

ROOMS = {
    "open": (0, 0), "stage": (1_000, 0.5), "furnished": (75, 0.5), "office": (100, 0.9), "hall": (2_000, 1.6), "church": (8_000, 4.0),
    "works": (5_000, 2.5),
}  # fmt: skip
"""Volume in m³ and reverberation in s, as docs/craft says of each place."""

AGC_DBFS, AGC_RANGE_DB = -20.0, 30.0
LEADING = {Supply.P48: "phantom", Supply.PLUG_IN: "plug_in", Supply.T_POWER: "phantom"}


def power(db) -> float:
    return 10.0 ** (db / 10)


def db(value: float) -> float:
    return 10 * math.log10(value) if value > 0 else -math.inf


def a_weighting(hertz: np.ndarray) -> np.ndarray:
    """Power by band, IEC 61672-1, from the design goal's poles."""
    f = hertz**2
    ratio = 12_194.0**2 * f**2 / ((f + 20.6**2) * np.sqrt((f + 107.7**2) * (f + 737.9**2)) * (f + 12_194.0**2))
    return (ratio * 10 ** (2.0 / 20)) ** 2


def high_pass(cut_hz: float) -> np.ndarray:
    """Amplitude and phase by band behind a Butterworth of the second order."""
    return scipy.signal.freqs(*scipy.signal.butter(2, cut_hz, "highpass", analog=True), BANDS)[1]


def shape(levels: np.ndarray) -> np.ndarray:
    """Powers by band that add up to 1; of the outermost bands half lies outside."""
    powers = 10 ** (np.asarray(levels, dtype=float) / 10)
    powers[[0, -1]] /= 10**0.301
    return powers / powers.sum()


VOICE, FLAT, ROOM, RUMBLE = shape(SPEECH), shape(np.arange(31.0)), shape(np.zeros(31)), shape(-2.0 * np.arange(31))
WEIGHT = a_weighting(BANDS)


def a_change_db(spectrum: np.ndarray) -> float:
    return db(float((spectrum * WEIGHT).sum()))


@dataclass(frozen=True)
class Atom:
    """A sound of its own, at amplitude 1: powers of its average and peaks, or of a noise; and its spectrum."""

    name: str
    spectrum: np.ndarray = field(compare=False)
    noise: float = field(default=0.0, compare=False)
    average: float = field(default=0.0, compare=False)
    peak: float = field(default=0.0, compare=False)


@dataclass
class Wave:
    """Amplitudes by band of each atom as it is, and as if nothing had been cut.

    partial: somewhere two ways met that have only some of their sound or noise in common, which the program adds by power;
        or one of them is cut off and the other is not.
    folded: several ways of one sound have met, each with noise of its own.
    top, free_top: power above which the peaks of all together cannot be, because that has been cut off or limited.
    """

    parts: dict
    free: dict
    headroom_db: float = math.inf
    cut_db: float = 0.0
    top: float = math.inf
    free_top: float = math.inf
    partial: bool = False
    folded: bool = False

    def copy(self) -> "Wave":
        return replace(self, parts=dict(self.parts), free=dict(self.free))

    def turn(self, by_db: float) -> None:
        self.top *= power(by_db)
        self.free_top *= power(by_db)
        self.filter(10 ** (by_db / 20))

    def filter(self, gains) -> None:
        self.parts = {atom: gain * gains for atom, gain in self.parts.items()}
        self.free = {atom: gain * gains for atom, gain in self.free.items()}

    def hear(self, name: str, spectrum: np.ndarray, level: float) -> None:
        if level > -math.inf:
            atom = Atom(name, spectrum, noise=power(level))
            self.parts[atom] = self.free[atom] = np.ones(31)
            self.top += NOISE_PEAK * atom.noise
            self.free_top += NOISE_PEAK * atom.noise

    def loudest(self) -> float:
        return min(loud(self.parts), self.top)

    def free_loudest(self) -> float:
        return min(loud(self.free), self.free_top)

    def average(self) -> float:
        return total(self.parts, "average")

    def noise(self) -> float:
        return total(self.parts, "noise")

    def cut(self, ceiling: float) -> None:
        """Cut off at a ceiling: what is left is a sound of its own, and never comes back."""
        self.headroom_db = min(self.headroom_db, ceiling - db(self.free_loudest()))
        over = db(self.loudest()) - ceiling
        if over > 0:
            if over > 0.05 and not self.cut_db:
                self.cut_db = over
            self.parts, self.top = squeezed(self.parts, ceiling), power(ceiling)

    def limit(self, threshold: float) -> None:
        if db(self.loudest()) > threshold:
            self.parts, self.top = squeezed(self.parts, threshold), power(threshold)
        if db(self.free_loudest()) > threshold:
            self.free, self.free_top = squeezed(self.free, threshold), power(threshold)

    def ride(self) -> None:
        """To one level what is heard, with the voice in it and in the pauses, as far as it reaches."""
        both, noise = (db(power) for power in (self.average() + self.noise(), self.noise()))
        by, lift = (
            min(max(AGC_DBFS - level, -AGC_RANGE_DB), AGC_RANGE_DB) if level > -math.inf else 0.0
            for level in (both, noise)
        )
        for name in ("parts", "free"):
            parts = getattr(self, name)
            setattr(
                self, name, {atom: gain * 10 ** ((lift if atom.noise else by) / 20) for atom, gain in parts.items()}
            )
        self.top = max(self.top * power(by), loud(self.parts)) if self.top < math.inf else self.top
        self.free_top = max(self.free_top * power(by), loud(self.free)) if self.free_top < math.inf else self.free_top


def total(parts: dict, what: str) -> float:
    return sum(getattr(atom, what) * float((atom.spectrum * np.abs(gain) ** 2).sum()) for atom, gain in parts.items())


def loud(parts: dict) -> float:
    """Power of the peaks of all of it together."""
    return total(parts, "peak") + NOISE_PEAK * total(parts, "noise")


def squeezed(parts: dict, ceiling: float) -> dict:
    """Peaks, average and noise each no higher than a ceiling; the peaks of all together neither."""
    top = power(ceiling)
    average, peak, noise = (min(total(parts, what), top) for what in ("average", "peak", "noise"))
    whole = total(parts, "noise")
    scale = math.sqrt(noise / whole) if whole else 0.0
    kept = {atom: gain * scale for atom, gain in parts.items() if atom.noise}
    if peak:
        # The same sound cut at the same ceiling is the same sound again, upside down where it was.
        voices = sorted((atom.name, complex(gain.mean())) for atom, gain in parts.items() if not atom.noise)
        sign = math.copysign(1.0, voices[0][1].real)
        name = " ".join(f"{name} {sign * gain / math.sqrt(top):.5g}" for name, gain in voices)
        kept[Atom(f"({name} cut)", VOICE, average=average, peak=peak)] = sign * np.ones(31)
    return kept


def directivity(pattern: Pattern) -> float:
    """Power over all directions of a + (1 - a)·cos, or of two of them in a row."""
    shares = {
        Pattern.OMNI: (1.0,), Pattern.CARDIOID: (0.5,), Pattern.SUPERCARDIOID: (0.37,), Pattern.FIGURE_8: (0.0,), Pattern.SHOTGUN: (0.37, 0.5),
    }[pattern]  # fmt: skip

    def squared(cosine: float) -> float:
        return math.prod((share + (1 - share) * cosine) ** 2 for share in shares)

    return 2 / scipy.integrate.quad(squared, -1, 1)[0]


def off_axis(pattern: Pattern, degrees: float) -> float:
    cosine = math.cos(math.radians(degrees))
    axis = {
        Pattern.OMNI: 1.0, Pattern.CARDIOID: 0.5 + 0.5 * cosine, Pattern.SUPERCARDIOID: 0.37 + 0.63 * cosine, Pattern.FIGURE_8: cosine,
        Pattern.SHOTGUN: (0.37 + 0.63 * cosine) * (0.5 + 0.5 * cosine),
    }[pattern]  # fmt: skip
    return max(20 * math.log10(max(abs(axis), 1e-12)), -25.0)


class Model:
    """One plan document, worked out."""

    def __init__(self, document: bytes | str) -> None:
        self.plan = json.loads(document)
        self.devices = {item["id"]: item for item in self.plan["devices"]}
        self.classes = {
            name: with_figures(built_in().devices[item["class_id"]], figures(item))
            for name, item in self.devices.items()
        }
        self.known: dict = {}

    # What stands where.

    def setting(self, device: str, key: str, default=None):
        return self.devices[device]["settings"].get(key, default)

    def port(self, device: str, name: str):
        return next(port for port in (*self.classes[device].inputs, *self.classes[device].outputs) if port.id == name)

    def mode(self, device: str, port):
        wanted = self.setting(device, f"{port.id}.mode")
        return next((mode for mode in port.modes if mode.id == wanted), port.modes[0])

    def leader(self, device: str, port):
        for other in self.classes[device].inputs:
            if port.id in other.linked_to and (other.one_knob or self.setting(device, f"{other.id}.linked", False)):
                return other
        return port

    def gain_db(self, device: str, port) -> float:
        port = self.leader(device, port)
        mode = self.mode(device, port)
        return 0.0 if mode.gain is None else self.knob_db(device, f"{port.id}.{mode.id}.gain_db", mode.gain)

    def knob_db(self, device: str, key: str, span) -> float:
        mark = self.setting(device, key, span.default_db)
        return span.minimum_db - 100.0 if span.lowest_is_off and mark <= span.minimum_db else mark

    def runs(self, end: str, device: str, port: str) -> list[dict]:
        return [run for run in self.plan["runs"] if (run[end]["device"], run[end]["port"]) == (device, port)]

    def supplies(self, run: dict) -> list[Supply]:
        device = run["receiving"]["device"]
        port = self.port(device, run["receiving"]["port"])
        found = []
        for supply in self.mode(device, port).supplies:
            places = port.plug_in_places if supply is Supply.PLUG_IN else port.phantom_places
            if all(self.setting(device, f"{port.id}.{LEADING[supply]}.{place}", False) for place in places):
                found.append(supply)
        return found

    def ways(self, device: str, port: str) -> list[dict]:
        """Runs from an output whose plugs all mate."""
        sending = self.port(device, port)
        return [
            run
            for run in self.runs("sending", device, port)
            if circuit.mates(sending, run["parts"], self.receiving(run))
        ]

    def receiving(self, run: dict) -> InputPort:
        return self.port(run["receiving"]["device"], run["receiving"]["port"])

    def is_powered(self, device: str) -> bool:
        key = ("powered", device)
        if key not in self.known:
            self.known[key] = self._is_powered(device)
        return self.known[key]

    def _is_powered(self, device: str) -> bool:
        capsule = self.classes[device].capsule or self.classes[device].booster
        if capsule is None:
            return True
        if capsule.cell and self.setting(device, "capsule.cell", False):
            return True
        if not capsule.needs:
            return not capsule.cell
        for port in self.classes[device].outputs:
            runs = [run for run in self.ways(device, port.id) if circuit.is_analogue(self.receiving(run).circuit)]
            for run in runs:
                for need in set(self.supplies(run)) & set(capsule.needs):
                    others = [self.feed(other) for other in runs if other is not run]
                    own = self.feed(run, need)
                    hot, cold = circuit.volts_at(port, [own, *others])
                    nominal = own[3]
                    enough = {Supply.P48: min(hot, cold), Supply.T_POWER: hot - cold, Supply.PLUG_IN: hot}[need]
                    if enough >= 0.9 * nominal:
                        return True
        return False

    def feed(self, run: dict, supply: Supply | None = None):
        given = supply or next(iter(self.supplies(run)), None)
        port = self.receiving(run)
        volts = 0.0 if given is None else circuit.SUPPLY_V[given]
        if given is Supply.P48 and port.phantom_v is not None:
            volts = port.phantom_v.value
        return run["parts"], port, given, volts

    def ratios(self, device: str, port_id: str) -> dict:
        """For each run from an output, by channel of its input: sending channels with their ratio."""
        key = ("ratios", device, port_id)
        if key not in self.known:
            port, runs = self.port(device, port_id), self.ways(device, port_id)
            if port.circuit.is_digital:
                self.known[key] = {
                    run["id"]: [
                        {at: 1.0} if at < len(port.channels) else {}
                        for at, _ in enumerate(self.receiving(run).channels)
                    ]
                    for run in runs
                }
            else:
                loads = [self.mode(run["receiving"]["device"], self.receiving(run)).impedance_ohm.value for run in runs]
                ways = [(run["parts"], self.receiving(run)) for run in runs]
                found = circuit.arrivals(port, self.mode(device, port).source_ohm.value, ways, loads)
                self.known[key] = {run["id"]: item for run, item in zip(runs, found, strict=True)}
        return self.known[key]

    def turn(self, settings: dict[tuple[str, str], float]) -> None:
        """Other positions of knobs, as (device, control): levels are worked out anew, circuits are not."""
        for (device, key), value in settings.items():
            self.devices[device]["settings"][key] = value
        self.known = {known: value for known, value in self.known.items() if known[0] in ("ratios", "powered")}

    def is_capsule(self, device: str, port) -> bool:
        """Whether an output is that of a microphone: a microphone's, or of one that is built into something else."""
        device_class = self.classes[device]
        return device_class.capsule is not None and (not device_class.buses or port.plug.connector == "inside")

    def is_off(self, device: str, port_id: str) -> bool:
        """Whether a plug in another socket turns this one off."""
        return any(
            port_id in port.blocks and self.runs("receiving", device, port.id) for port in self.classes[device].inputs
        )

    def hears_itself(self, device: str, port) -> bool:
        """Whether an input is that of the device's own microphones, with somebody before them."""
        has_own = any(out.plug.connector == "inside" for out in self.classes[device].outputs)
        heard = any(device in source["heard_by"] for source in self.plan["sources"])
        return has_own and heard and port.plug.connector == "inside" and not self.is_off(device, port.id)

    # From sound to track.

    def microphone(self, device: str) -> Wave:
        """What the capsule hears, in dB SPL."""
        device_class, defaults = self.classes[device], self.plan["defaults"]
        volume, reverberation = ROOMS[defaults["room"]]
        q = directivity(device_class.capsule.pattern)
        average = peak = 0.0
        for source in self.plan["sources"]:
            if device not in source["heard_by"]:
                continue
            metres, degrees = source["heard_by"][device], source["off_axis_deg"].get(device, 0.0)
            back = reverberation / (0.057**2 * volume * q) if reverberation else 0.0
            heard = power(off_axis(device_class.capsule.pattern, degrees)) / metres**2 + back
            heard *= power(-a_change_db(VOICE)) if source["weighting"] == "A" else 1.0
            average += power(source["average_db_spl"]) * heard
            peak += power(source["peak_db_spl"]) * heard
        wave = Wave({}, {})
        if peak:
            atom = Atom(f"voices at {device}", VOICE, average=average, peak=peak)
            wave.parts[atom] = wave.free[atom] = np.ones(31)
        wave.hear(f"room|{device}", ROOM, defaults["room_noise_db_spl"] - db(q) - a_change_db(ROOM))
        if defaults["rumble_db_spl"]:
            wave.hear(f"low-frequency noise|{device}", RUMBLE, defaults["rumble_db_spl"])
        if device_class.capsule.self_noise_db_a is not None:
            wave.hear(f"{device} self-noise", FLAT, device_class.capsule.self_noise_db_a.value - a_change_db(FLAT))
        wave.cut(device_class.capsule.max_db_spl.value)
        return wave

    def output(self, device: str, port_id: str, channel: int) -> Wave | None:
        """What leaves an output, cut at what it can give; None where nothing feeds it."""
        key = ("output", device, port_id, channel)
        if key not in self.known:
            self.known[key] = self._output(device, port_id, channel)
        found = self.known[key]
        return None if found is None else found.copy()

    def _output(self, device: str, port_id: str, channel: int) -> Wave | None:
        device_class, port = self.classes[device], self.port(device, port_id)
        mode = self.mode(device, port)
        if not self.is_powered(device):
            return Wave({}, {})
        if self.is_capsule(device, port):
            wave = self.microphone(device)
            sensitivity = (
                device_class.capsule.sensitivity_mv_per_pa.value / 1000 * 20e-6 / DBU_V
            )  # of 0 dB SPL, re 0 dBu
            wave.turn(20 * math.log10(sensitivity) - float(self.setting(device, "capsule.pad_db", "0")))
            if device_class.capsule.self_noise_db_a is None:
                wave.hear(f"{device} coil", FLAT, thermal_dbu(mode.source_ohm.value))
            wave.turn(dict(enumerate(mode.side_db)).get(channel, 0.0))
            return wave
        timecode = port.circuit is Circuit.TIMECODE or port.channels[channel] == mode.timecode_on
        if device_class.playback is not None:
            wave = Wave({}, {})
            levels = {
                "average": device_class.playback.average_dbfs.value,
                "peak": device_class.playback.peak_dbfs.value,
            }
            atom = Atom(
                f"{device} {port_id} plays {channel}", VOICE, **{name: power(db_) for name, db_ in levels.items()}
            )
            wave.parts[atom] = wave.free[atom] = np.ones(31)
        elif timecode:
            wave = Wave({}, {})
            atom = Atom(f"timecode of {device}", VOICE, average=1.0, peak=1.0)
            wave.parts[atom] = wave.free[atom] = np.ones(31)
        else:
            ref = port.id if len(port.channels) == 1 else f"{port.id}.{port.channels[channel]}"
            bus = self.devices[device]["feeds"].get(ref, mode.feeds.get(ref, device_class.feeds.get(ref)))
            if bus is None:
                return None
            wave = self.bus(device, bus)
        if mode.full_scale_dbu is None:
            if mode.compander_db is not None:
                channel_db = mode.compander_db.value
                wave.hear(f"{device} compander", FLAT, max(db(wave.noise()) / 2, -channel_db) - channel_db)
            wave.cut(0.0)
            return wave
        trim = 0.0 if mode.trim is None else self.setting(device, f"{port.id}.{mode.id}.trim_db", mode.trim.default_db)
        wave.turn(mode.full_scale_dbu.value)
        hiss = -math.inf if mode.noise_dbu is None else mode.noise_dbu.value
        name = f"{device} {port.label} hiss {channel}"
        if mode.trim_kind is TrimKind.ANALOGUE:
            wave.hear(name, FLAT, hiss)
        wave.turn(trim)
        if mode.trim_kind is TrimKind.DIGITAL:
            wave.hear(name, FLAT, hiss)
        if mode.noise_after_dbu is not None:
            wave.hear(f"{device} {port.label} amplifier {channel}", FLAT, mode.noise_after_dbu.value)
        side = dict(enumerate(mode.side_db)).get(channel, 0.0)
        wave.turn(side)
        if not timecode:
            wave.cut(mode.full_scale_dbu.value + trim + side)
        return wave

    def input(self, device: str, port_id: str, channel: int) -> tuple[Wave, bool]:
        """What an input makes of what arrives; and whether anything does."""
        key = ("input", device, port_id, channel)
        if key not in self.known:
            self.known[key] = self._input(device, port_id, channel)
        wave, arrives = self.known[key]
        return wave.copy(), arrives

    def _input(self, device: str, port_id: str, channel: int) -> tuple[Wave, bool]:
        port = self.port(device, port_id)
        mode, waves, microphone, numbers = self.mode(device, port), [], False, False
        for run in () if self.is_off(device, port_id) else self.runs("receiving", device, port_id):
            sender = run["sending"]
            sending = self.port(sender["device"], sender["port"])
            if not circuit.mates(sending, run["parts"], port):
                continue
            for sent, ratio in self.ratios(sender["device"], sender["port"])[run["id"]][channel].items():
                wave = self.output(sender["device"], sender["port"], sent)
                if wave is None:
                    continue
                sends = self.mode(sender["device"], sending)
                from_capsule = self.is_capsule(sender["device"], sending)
                is_number = sends.full_scale_dbu is None and not from_capsule
                numbers |= is_number
                microphone |= from_capsule
                if is_number is not (mode.signal is Signal.DIGITAL):
                    waves.append(Wave({}, {}))  # numbers and voltages do not meet
                else:
                    wave.filter(ratio)
                    wave.top *= ratio**2
                    wave.free_top *= ratio**2
                    waves.append(wave)
        if self.hears_itself(device, port):
            own = next(out for out in self.classes[device].outputs if out.plug.connector == "inside")
            waves.append(self.output(device, own.id, channel))
            microphone = True
        wave = together(waves)
        if numbers or mode.full_scale_dbu is None:
            wave.cut(0.0)
        else:
            self.convert(wave, device, port, mode, f"{port_id} {channel}", microphone)
        return wave, bool(waves)

    def convert(self, wave: Wave, device: str, port, mode, where: str, microphone: bool) -> None:
        """Attenuator, first stage, gain, low cut, limiter, converter, and what follows it."""
        pad = port.pad_db.value if port.pad_db is not None and self.setting(device, f"{port.id}.pad", False) else 0.0
        wave.turn(-pad if port.pad_place is PadPlace.FIRST else 0.0)
        if mode.clip_dbu is not None:
            wave.cut(mode.clip_dbu.value)
        if mode.ein_dbu is not None:
            own = power(mode.ein_dbu.value) - (power(thermal_dbu(150)) if microphone else 0.0)
            wave.hear(f"{device} preamp {where}", FLAT, db(own))
        wave.turn(self.gain_db(device, port) - (pad if port.pad_place is PadPlace.BETWEEN else 0.0))
        cut = self.setting(device, f"{port.id}.low_cut", "off")
        if cut != "off" and port.low_cut_hz:
            wave.filter(high_pass(float(cut)))
            wave.top = wave.free_top = math.inf  # what is left peaks otherwise
        wave.turn(-mode.full_scale_dbu.value)
        limits = port.limiter_dbfs is not None and self.setting(device, f"{port.id}.limiter", False)
        if limits and port.limiter_place is not PadPlace.LAST:
            wave.limit(port.limiter_dbfs.value)
        else:
            wave.cut(0.0)
        if limits and port.limiter_place is PadPlace.LAST:
            wave.limit(port.limiter_dbfs.value)
        if port.idle_noise_dbfs is not None:
            wave.hear(f"{device} converter {where}", FLAT, port.idle_noise_dbfs.value)
        wave.turn(-pad if port.pad_place is PadPlace.LAST else 0.0)
        if port.digital_gain is not None:
            wave.turn(self.setting(device, f"{port.id}.digital_gain_db", port.digital_gain.default_db))
        places = port.automatic_level_places
        if any(self.setting(device, f"{port.id}.auto.{place}", port.automatic_level_default) for place in places):
            wave.ride()

    def bus(self, device: str, bus_id: str) -> Wave:
        """A mix or track, cut at full scale unless it is float."""
        key = ("bus", device, bus_id)
        if key not in self.known:
            device_class, waves = self.classes[device], []
            bus = next(bus for bus in device_class.buses if bus.id == bus_id)
            for ref in self.devices[device]["routing"].get(bus_id, bus.inputs):
                port, channel = channel_of(device_class, ref)
                pan = self.pan(device, port, bus_id)
                wave, arrives = self.input(device, port.id, channel)
                hisses = circuit.is_analogue(port.circuit) and port.plug.connector != "inside"
                audible = arrives or (hisses and not self.is_off(device, port.id))
                if pan is not None and audible:
                    wave.turn(pan)
                    waves.append(wave)
            wave = together(waves)
            if bus.gain is not None:
                wave.turn(self.knob_db(device, f"{bus_id}.gain_db", bus.gain))
            places = bus.automatic_level_places
            if any(self.setting(device, f"{bus_id}.auto.{place}", bus.automatic_level_default) for place in places):
                wave.ride()
            if not device_class.traits.is_float:
                wave.cut(0.0)
            self.known[key] = wave
        return self.known[key].copy()

    def pan(self, device: str, port, bus_id: str) -> float | None:
        if port.pan is None or bus_id not in port.pan:
            return 0.0
        stands = self.setting(device, f"{port.id}.pan", "centre")
        if stands == "centre":
            return -3.0
        return 0.0 if port.pan[0 if stands == "left" else 1] == bus_id else None


def together(waves: list[Wave]) -> Wave:
    """Waves on one wire: the same atom adds as a voltage, different ones by power."""
    found = Wave({}, {})
    if any(wave.top < math.inf for wave in waves):
        found.top = sum(math.sqrt(wave.loudest()) for wave in waves) ** 2
    if any(wave.free_top < math.inf for wave in waves):
        found.free_top = sum(math.sqrt(wave.free_loudest()) for wave in waves) ** 2
    shared = any(one.free.keys() & other.free.keys() for one, other in itertools.combinations(waves, 2))
    found.folded = shared or any(wave.folded for wave in waves)
    found.partial = any(wave.partial or (shared and wave.folded) for wave in waves) or any(
        one.free.keys() & other.free.keys()
        and (
            not voices(one.free)
            or any(voices(getattr(one, kind)) != voices(getattr(other, kind)) for kind in ("free", "parts"))
        )
        for one, other in itertools.combinations(waves, 2)
    )
    for wave in waves:
        for mine, theirs in ((found.parts, wave.parts), (found.free, wave.free)):
            for atom, gain in theirs.items():
                mine[atom] = mine.get(atom, 0.0) + gain
        found.headroom_db = min(found.headroom_db, wave.headroom_db)
        found.cut_db = found.cut_db or wave.cut_db
    return found


def voices(parts: dict) -> set:
    return {atom for atom in parts if not atom.noise}


def channel_of(device_class, ref: str):
    for port in device_class.inputs:
        for at, channel in enumerate(port.channels):
            if ref == (port.id if len(port.channels) == 1 else f"{port.id}.{channel}"):
                return port, at
    raise KeyError(ref)


def figures(device: dict) -> dict:
    """Figures of a device's own, as the classes have them."""
    found = {}
    for path, item in device.get("figures", {}).items():
        found[path] = Figure(item["value"], item["tolerance"], Provenance(item["provenance"]), item["source"])
    return found


def thermal_dbu(ohm: float) -> float:
    """4kTRB, 293.15 K, 20 Hz to 20 kHz: Nyquist 1928."""
    return 10 * math.log10(4 * BOLTZMANN * 293.15 * ohm * 19_980 / 0.6)
