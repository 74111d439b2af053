"""Leads, adapters and pads: what is at the ends and how the contacts are joined."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.catalogue.connectors import Gender, Plug
from tidy_trunk.core.catalogue.figures import Figure

Wires = tuple[tuple[str, str], ...]
"""Pairs of contacts joined: (at the sending end, at the receiving end). [HANDBOOK]"""

PAD_SOURCE_OHM: Final = 150.0
"""Source that a lead's pad is designed for. [PRACTICE]"""

PAD_LOAD_OHM: Final = 2_500.0
"""Load that a lead's pad is designed for: a microphone socket. [MEMORY]"""

PAD_TOLERANCE_DB: Final = 0.5
"""± of the loss of a lead's pad, from 1 % to 5 % resistors. [MEMORY]"""

LEAD_LOSSES_DB: Final = (15, 20, 25, 30, 35, 40, 50)
"""Losses in which attenuating leads are made here. [HANDBOOK]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadClass:
    """A kind of lead. `wires` by branch: "" where it has one way, "L" and "R" where two ways share one plug.

    balanced: whether the signal stays balanced on it, so that it may be long.
    loss_db: of the pad inside, from PAD_SOURCE_OHM into PAD_LOAD_OHM; None where it has none.
    short_m: length that is usual for it; None where it is ordered to length.
    """

    id: str
    label: str
    sending: Plug
    receiving: Plug
    wires: Mapping[str, Wires]
    balanced: bool
    loss_db: Figure | None = None
    short_m: float | None = None

    @property
    def is_adapter(self) -> bool:
        return self.short_m is not None


_M, _F = Gender.MALE, Gender.FEMALE
XLR_M, XLR_F = Plug("xlr3", _M), Plug("xlr3", _F)
TRS_M = Plug("trs35", _M)
_XLR_STRAIGHT: Wires = (("1", "1"), ("2", "2"), ("3", "3"))
_TRS_STRAIGHT: Wires = (("T", "T"), ("R", "R"), ("S", "S"))
_HOT_TO_BOTH: Wires = (("1", "S"), ("2", "T"), ("2", "R"))
_ONE_TO_ONE: Wires = (("1", "S"), ("2", "T"), ("3", "R"))
_ADAPTER_M = 0.3


def _one_way(wires: Wires) -> dict[str, Wires]:
    return {"": wires}


def _loss(db: float) -> Figure:
    return Figure(db, PAD_TOLERANCE_DB)


def _attenuating() -> list[LeadClass]:
    leads = []
    for db in LEAD_LOSSES_DB:
        leads += [
            LeadClass(
                id=f"trs-pad-{db}", label=f"3.5 mm lead with {db} dB", sending=TRS_M, receiving=TRS_M,
                wires=_one_way(_TRS_STRAIGHT), balanced=False, loss_db=_loss(db), short_m=_ADAPTER_M,
            ),
            LeadClass(
                id=f"xlr-trs-pad-{db}", label=f"XLR to 3.5 mm with {db} dB, hot on tip and ring", sending=XLR_F,
                receiving=TRS_M, wires=_one_way(_HOT_TO_BOTH), balanced=False, loss_db=_loss(db), short_m=_ADAPTER_M,
            ),
            LeadClass(
                id=f"xlr-pad-{db}", label=f"XLR barrel with {db} dB", sending=XLR_F, receiving=XLR_M,
                wires=_one_way(_XLR_STRAIGHT), balanced=True, loss_db=_loss(db), short_m=0.1,
            ),
        ]  # fmt: skip
    return leads


LEADS: Final[Mapping[str, LeadClass]] = {
    lead.id: lead
    for lead in (
        LeadClass(id="xlr", label="XLR", sending=XLR_F, receiving=XLR_M, wires=_one_way(_XLR_STRAIGHT), balanced=True),
        LeadClass(
            id="xlr-crossed", label="XLR, 2 and 3 crossed", sending=XLR_F, receiving=XLR_M,
            wires=_one_way((("1", "1"), ("2", "3"), ("3", "2"))), balanced=True, short_m=0.2,
        ),
        LeadClass(id="trs", label="3.5 mm TRS", sending=TRS_M, receiving=TRS_M, wires=_one_way(_TRS_STRAIGHT), balanced=False),
        LeadClass(
            id="trs-extension", label="3.5 mm extension", sending=Plug("trs35", _F), receiving=TRS_M,
            wires=_one_way(_TRS_STRAIGHT), balanced=False,
        ),
        LeadClass(
            id="xlr-trs", label="XLR to 3.5 mm, hot on tip and ring", sending=XLR_F, receiving=TRS_M,
            wires=_one_way(_HOT_TO_BOTH), balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="xlr-trs-one-to-one", label="XLR to 3.5 mm, one to one", sending=XLR_F, receiving=TRS_M,
            wires=_one_way(_ONE_TO_ONE), balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="trs-xlr", label="3.5 mm to XLR, one to one", sending=TRS_M, receiving=XLR_M,
            wires=_one_way((("S", "1"), ("T", "2"), ("R", "3"))), balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="trs-xlr-mono", label="3.5 mm to XLR, tip to hot", sending=TRS_M, receiving=XLR_M,
            wires=_one_way((("S", "1"), ("S", "3"), ("T", "2"))), balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="trs-2xlr", label="3.5 mm to two XLR", sending=TRS_M, receiving=XLR_M,
            wires={"L": (("S", "1"), ("S", "3"), ("T", "2")), "R": (("S", "1"), ("S", "3"), ("R", "2"))},
            balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="2xlr-trs", label="two XLR to 3.5 mm, one side each", sending=XLR_F, receiving=TRS_M,
            wires={"L": (("1", "S"), ("2", "T")), "R": (("1", "S"), ("2", "R"))}, balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="2xlr-trs-pad-25", label="two XLR to 3.5 mm with 25 dB, one side each", sending=XLR_F, receiving=TRS_M,
            wires={"L": (("1", "S"), ("2", "T")), "R": (("1", "S"), ("2", "R"))},
            balanced=False, loss_db=_loss(25), short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="2trs-trs", label="two 3.5 mm to one, one side each", sending=TRS_M, receiving=TRS_M,
            wires={"L": (("S", "S"), ("T", "T")), "R": (("S", "S"), ("T", "R"))}, balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="2xlr-xlr5", label="two XLR to XLR-5", sending=XLR_F, receiving=Plug("xlr5", _M),
            wires={"L": (("1", "1"), ("2", "2"), ("3", "3")), "R": (("1", "1"), ("2", "4"), ("3", "5"))},
            balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="trs635-xlr", label="6.35 mm TRS to XLR", sending=Plug("trs635", _M), receiving=XLR_M,
            wires=_one_way((("T", "2"), ("R", "3"), ("S", "1"))), balanced=True,
        ),
        LeadClass(
            id="trs635-trs", label="6.35 mm to 3.5 mm TRS", sending=Plug("trs635", _M), receiving=TRS_M,
            wires=_one_way(_TRS_STRAIGHT), balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="ta3-xlr", label="TA3 to XLR", sending=Plug("ta3", _F), receiving=XLR_M,
            wires=_one_way(_XLR_STRAIGHT), balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="rca-trs", label="RCA to 3.5 mm", sending=Plug("rca", _M), receiving=TRS_M,
            wires=_one_way((("T", "T"), ("T", "R"), ("S", "S"))), balanced=False, short_m=1.0,
        ),
        LeadClass(
            id="headset-trs", label="headset plug (TRRS) to 3.5 mm TRS", sending=Plug("trrs35", _F), receiving=TRS_M,
            wires=_one_way((("S", "T"), ("S", "R"), ("R2", "S"))), balanced=False, short_m=0.1,
        ),
        LeadClass(
            id="trs-timecode-bnc", label="3.5 mm to BNC, timecode", sending=TRS_M, receiving=Plug("bnc", _M),
            wires=_one_way((("T", "T"), ("S", "S"))), balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="bnc", label="BNC", sending=Plug("bnc", _M), receiving=Plug("bnc", _M),
            wires=_one_way((("T", "T"), ("S", "S"))), balanced=False,
        ),
        LeadClass(
            id="bnc-trs-pad-35", label="BNC to 3.5 mm tip with 35 dB, timecode as sound", sending=Plug("bnc", _M),
            receiving=TRS_M, wires=_one_way((("T", "T"), ("S", "S"))), balanced=False, loss_db=_loss(35), short_m=0.5,
        ),
        LeadClass(
            id="hdmi", label="HDMI", sending=Plug("hdmi", _M), receiving=Plug("hdmi", _M),
            wires=_one_way((("all", "all"),)), balanced=False,
        ),
        LeadClass(
            id="radio", label="radio link", sending=Plug("air", _F), receiving=Plug("air", _M),
            wires=_one_way((("all", "all"),)), balanced=True, short_m=0.0,
        ),
        LeadClass(
            id="shoe", label="hot shoe", sending=Plug("shoe", _F), receiving=Plug("shoe", _M),
            wires=_one_way((("all", "all"),)), balanced=True, short_m=0.0,
        ),
        *_attenuating(),
    )
}  # fmt: skip
"""The leads by id. [HANDBOOK] for what they do, [MEMORY] for usual lengths"""
