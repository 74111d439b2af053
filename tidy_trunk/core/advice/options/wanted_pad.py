"""Which pad a run wants: between which impedances, with how much loss, in which lead."""

import math
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.options.candidates import RunEnds
from tidy_trunk.core.gear.catalogue import FITTINGS, PAD_LOAD_OHM, PAD_SOURCE_OHM, Signal, mates
from tidy_trunk.core.plan import Message, PlanIndex, message
from tidy_trunk.core.sound.cable_chains import SHORT_M
from tidy_trunk.errors import UnknownItemError

USUAL_LOSS_DB: Final = 25.0
"""Loss of the attenuating lead from a line output to a camera. [HANDBOOK] §6"""


@dataclass(frozen=True, slots=True, kw_only=True)
class WantedPad:
    """Loss in dB, impedances in Ω, a fitting of `FITTINGS` or "", the length of the run in m, and why; None for a pad of no run."""

    loss_db: float
    source_ohm: float
    load_ohm: float
    fitting: str
    length_m: float
    why: Message | None


FREE: Final = WantedPad(
    loss_db=USUAL_LOSS_DB, source_ohm=PAD_SOURCE_OHM, load_ohm=PAD_LOAD_OHM, fitting="xlr-trs", length_m=3.0, why=None
)
"""A pad for no run: line into a camera's socket. [HANDBOOK] §6"""


def wanted_pad(index: PlanIndex, run_id: str) -> WantedPad:
    """The pad that brings the sender's full scale, with the ± of both ends, down to what the input takes.

    Raises:
        UnknownItemError: No such run.

    Source: [HANDBOOK] §6
    """
    run = index.plan.runs.get(run_id)
    if run is None:
        raise UnknownItemError(f"there is no cable '{run_id}'; the job has {', '.join(index.plan.runs) or 'none'}")
    ends = RunEnds(index, run)
    fitting = next(
        (
            item.id
            for item in FITTINGS.values()
            if mates(ends.output.plug, item.sending) and mates(item.receiving, ends.input.plug)
        ),
        "",
    )
    loss_db, why = _loss(ends)
    return WantedPad(
        loss_db=loss_db,
        source_ohm=ends.sends.source_ohm.value,
        load_ohm=ends.takes.impedance_ohm.value,
        fitting=fitting,
        length_m=max(run.length_m, SHORT_M),
        why=why,
    )


def _loss(ends: RunEnds) -> tuple[float, Message]:
    apart = ends.apart
    if apart is None or ends.takes.signal is Signal.DIGITAL:
        return USUAL_LOSS_DB, message("pad-usual", ends.index, usual_db=USUAL_LOSS_DB)
    why = message(
        "pad-for-full-scale",
        ends.index,
        sender=ends.run.sending.device,
        sends_dbu=apart.sends_dbu,
        receiver=ends.run.receiving.device,
        takes_dbu=apart.takes_dbu,
        doubt_db=apart.doubt_db,
    )
    return max(float(math.ceil(apart.loss_db)), 1.0), why
