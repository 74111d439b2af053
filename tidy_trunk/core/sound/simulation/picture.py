"""When a clap is heard, and when its picture is seen, in the simulation."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.core.sound.simulation.materials import CLAP_S, NoiseLoop
from tidy_trunk.core.time.clock import programme_late_frames

EDGE_SHARE: Final = 0.5
"""ASSUMED_ share of its peak at which a clap begins: its first edge, and not the room's answer."""


BLOCK_S: Final = 0.01
"""ASSUMED_ stretch in which the loudest moment is looked for: a clap has died by then to a third."""

STANDS_OUT: Final = 2.5
"""ASSUMED_ how far a clap must stand above what else is heard: 8 dB."""


@dataclass(frozen=True, slots=True)
class Clap:
    """Moments at which a clap is heard and seen, in seconds of the loop; early_ms: of the sound, positive."""

    heard_s: float
    seen_s: float

    @property
    def early_ms(self) -> float:
        return (self.seen_s - self.heard_s) * 1000


def clap_at(index: PlanIndex, device: str, sound: NoiseLoop, rate_hz: int) -> Clap | None:
    """A clap on the programme of a live switcher; None where no picture comes in, or nothing is heard.

    The pictures of a camera are in step with the sound in its own file: they are late only where they come out.
    """
    late, first = programme_late_frames(index, device), _first_edge(sound, rate_hz)
    if late is None or first is None:
        return None
    frame_s = float(1 / FrameRate.parse(index.plan.defaults.frame_rate).ratio)
    return Clap(first / rate_hz, CLAP_S + float(late) * frame_s)


def _first_edge(sound: NoiseLoop, rate_hz: int) -> int | None:
    """The sample at which a clap begins; None where nothing stands out of what else is heard."""
    size = round(BLOCK_S * rate_hz)
    loud = np.sqrt(np.mean(np.square(sound[: len(sound) // size * size].reshape(-1, size)), axis=1))
    block = int(np.argmax(loud))
    if loud[block] <= STANDS_OUT * np.median(loud):
        return None
    begin = max((block - 1) * size, 0)
    near = np.abs(sound[begin : begin + 2 * size])
    return begin + int(np.argmax(near >= EDGE_SHARE * near.max()))
