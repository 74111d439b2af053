"""What befalls a chain in the simulation beside what a plan can set: hum, clicks, bleed, a loose plug."""

import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from tidy_trunk.core.base.units import SILENCE_DB, db_from_ratio, ratio_from_db, sum_powers_db
from tidy_trunk.core.plan import FIELDS, Hazard, PlanIndex, Run, passed
from tidy_trunk.core.sound.cable_chains import unbalanced_length_m
from tidy_trunk.core.sound.hum import Grade, loops, ties
from tidy_trunk.core.sound.simulation.materials import NoiseLoop

LOOP_HUM_DBU: Final = {Grade.COMPUTER: -60.0, Grade.EARTH: -60.0, Grade.ADAPTERS: -90.0}
"""ASSUMED_ hum of a loop through an unbalanced lead: plain beside a quiet voice at line level, worse behind a pad; of what
leaks through double-insulated adapters hardly any."""

CLICK_DBU: Final = -40.0
"""ASSUMED_ peak of the clicks that a computer's supply drives round a loop."""

CLICKS_PER_S: Final = 3.0
"""ASSUMED_ how often it clicks."""

FIELD_HUM_DBU: Final = -80.0
"""ASSUMED_ hum that a metre of unbalanced lead picks up from a dimmer or a furnace a metre away, or along a mains lead."""

BALANCED_KEEPS_OUT_DB: Final = 40.0
"""ASSUMED_ how much less a balanced lead picks up: what an input of common quality rejects."""

NEAREST_M: Final = 0.1
"""ASSUMED_ nearest that a lead lies to anything; also where nobody has said how near, 1 m is taken."""

BLEED_DB: Final = -46.0
"""ASSUMED_ what one side of a camera's stereo socket hears of the other."""

DROPOUTS: Final = (6, 12)
"""ASSUMED_ fewest and most times in a loop that a loose plug lets go."""

DROPOUT_S: Final = (0.004, 0.12)
"""ASSUMED_ shortest and longest of these."""

CRACKLE_SHARE: Final = 0.3
"""ASSUMED_ height of the crackle as a plug lets go and takes hold, as a share of the sound's own peak."""


@dataclass(frozen=True, slots=True)
class Faults:
    """strays: hum and clicks where the plan has a mains loop or leads near what radiates, and bleed between sides.

    clocks: each device counts by its own clock, so that a loop does not quite close.
    loose: id of the run whose plug is loose, "" for none.
    """

    strays: bool = False
    clocks: bool = False
    loose: str = ""


NO_FAULTS: Final = Faults()
"""ASSUMED_ faults of a chain that does what is said of it."""


@dataclass(frozen=True, slots=True)
class Stray:
    """What a run picks up: level of the hum in dBu, -inf for none, and whether a computer clicks into it."""

    hum_dbu: float
    clicks: bool


def strays(index: PlanIndex) -> Mapping[str, Stray]:
    """By run, what its lead picks up; runs that pick up nothing are not in it. Source: [HANDBOOK] §§4, 9"""
    circles = {loop.run: loop for loop in loops(ties(index))}
    found = {}
    for run in index.plan.runs.values():
        if not index.placed(run.sending.device).output(run.sending.port).circuit.is_analogue:
            continue
        circle = circles.get(run.id)
        levels = [*_fields(index, run), LOOP_HUM_DBU[circle.grade] if circle is not None else SILENCE_DB]
        hum_dbu = sum_powers_db(levels)
        if hum_dbu > SILENCE_DB:
            found[run.id] = Stray(hum_dbu, circle is not None and circle.grade is Grade.COMPUTER)
    return found


def _fields(index: PlanIndex, run: Run) -> list[float]:
    """Of each thing that a lead passes, what it picks up there in dBu."""
    unbalanced_m = unbalanced_length_m(index.placed(run.sending.device).output(run.sending.port), index.leads_of(run))
    length_m, keeps_out_db = (unbalanced_m, 0.0) if unbalanced_m > 0 else (run.length_m, BALANCED_KEEPS_OUT_DB)
    if length_m <= 0:
        return []
    levels = []
    for what, metres in passed(run):
        if what in FIELDS:
            near_m = max(1.0 if metres is None else metres, NEAREST_M)
            levels.append(FIELD_HUM_DBU - keeps_out_db + db_from_ratio(length_m) - db_from_ratio(near_m))
        elif what is Hazard.BESIDE_MAINS and metres:
            levels.append(FIELD_HUM_DBU - keeps_out_db + db_from_ratio(min(metres, length_m)))
    return levels


HUM_HARMONICS: Final = 20
"""ASSUMED_ harmonics of hum: the twentieth of 50 Hz is 1 kHz, where dimmers are still heard."""

EVEN_SHARE: Final = 0.4
"""ASSUMED_ how loud an even harmonic is beside an odd one."""


def mains_hum(level_db: float, mains_hz: int, sample_count: int, rate_hz: int) -> NDArray[np.float64]:
    """Hum of the mains with its harmonics at a level re a sine of amplitude 1.0; a loop without a seam."""
    times = np.arange(sample_count) * (round(mains_hz * sample_count / rate_hz) / sample_count) * 2 * np.pi
    # Odd harmonics are the stronger ones, as rectifiers and dimmers make them.
    parts = [(number, (1.0 if number % 2 else EVEN_SHARE) / number) for number in range(1, HUM_HARMONICS + 1)]
    hum = sum(share * np.sin(number * times + number) for number, share in parts)
    return np.asarray(hum / np.sqrt(2 * np.mean(np.square(hum))) * ratio_from_db(level_db))


def picked_up(stray: Stray, name: str, mains_hz: int, sample_count: int, rate_hz: int) -> NoiseLoop:
    """Hum with its harmonics, and clicks, in volts re 0 dBu; a loop without a seam."""
    hum = mains_hum(stray.hum_dbu, mains_hz, sample_count, rate_hz)
    if stray.clicks:
        random = _random(f"{name} clicks")
        for at in random.integers(0, sample_count - 64, round(CLICKS_PER_S * sample_count / rate_hz)):
            hum[at : at + 48] += ratio_from_db(CLICK_DBU) * random.choice((-1, 1)) * np.exp(-np.arange(48) / 8.0)
    return np.asarray(hum, dtype=np.float32)


def through_loose_plug(sound: NoiseLoop, name: str, rate_hz: int) -> NoiseLoop:
    """The sound with holes in it, and a crackle at both ends of each."""
    random = _random(f"{name} loose")
    held = np.ones(len(sound))
    crackle = np.zeros(len(sound))
    height = CRACKLE_SHARE * float(np.abs(sound).max(initial=0.0))
    for _ in range(random.integers(*DROPOUTS, endpoint=True)):
        length = round(random.uniform(*DROPOUT_S) * rate_hz)
        at = int(random.integers(0, len(sound) - length - 128))
        held[at : at + length] = 0.0
        for edge in (at, at + length):
            crackle[edge : edge + 96] += height * _crackle(random)
    return np.asarray(sound * held + crackle, dtype=np.float32)


def _crackle(random: np.random.Generator) -> NDArray[np.float64]:
    return np.asarray(random.uniform(-1, 1, 96) * np.exp(-np.arange(96) / 24.0))


def _random(name: str) -> np.random.Generator:
    """Chance that is always the same for one name."""
    return np.random.default_rng(zlib.crc32(name.encode()))
