"""Leads, adapters and pads: what is at the ends, and what joins the contacts inside."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.gear.catalogue.connectors import Gender, Plug
from tidy_trunk.core.gear.catalogue.cores import Winding, Wire, Wiring
from tidy_trunk.core.gear.catalogue.figures import Figure
from tidy_trunk.core.gear.catalogue.padded import FITTINGS, TRS_F, TRS_M, XLR_F, XLR_M, padded
from tidy_trunk.core.gear.pads import bridging_arms

PAD_SOURCE_OHM: Final = 150.0
"""Source that a lead's pad is designed for. [PRACTICE]"""

PAD_LOAD_OHM: Final = 2_500.0
"""Load that a lead's pad is designed for: a microphone socket. [MEMORY]"""

PAD_TOLERANCE_DB: Final = 0.5
"""± of the loss of a lead's pad, from 1 % to 5 % resistors. [MEMORY]"""

LEAD_LOSSES_DB: Final = (15, 20, 25, 30, 35, 40, 50)
"""Losses in which attenuating leads are made here. [HANDBOOK]"""

AES3_OHM: Final = 110.0
"""Characteristic impedance of a lead for AES3. [AES3]"""

COAX_OHM: Final = 75.0
"""Characteristic impedance of a coaxial lead for pictures. [MEMORY]"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadClass:
    """A kind of lead. `ways` by branch: "" where it has one, "L" and "R" where two share one plug.

    balanced: whether the signal stays balanced on it, so that it may be long.
    loss_db: of the pad inside, from PAD_SOURCE_OHM into PAD_LOAD_OHM; None where it has none.
    short_m: length that is usual for it; None where it is ordered to length.
    replaces: leads of the same plugs in whose place it goes as a pad; the first is its plain twin.
    characteristic_ohm: for digital signals; None for a lead made for voltages.
    also: other words by which it is called.
    """

    id: str
    label: str
    sending: Plug
    receiving: Plug
    ways: Mapping[str, Wiring]
    balanced: bool
    loss_db: Figure | None = None
    short_m: float | None = None
    replaces: tuple[str, ...] = ()
    characteristic_ohm: float | None = None
    also: str = ""

    @property
    def is_adapter(self) -> bool:
        return self.short_m is not None

    @property
    def isolates(self) -> bool:
        """Whether no copper goes through it: an isolating transformer."""
        return any(way.windings and not way.wires for way in self.ways.values())


_M, _F = Gender.MALE, Gender.FEMALE
_BNC = Plug("bnc", _M)
_ADAPTER_M = 0.3


def _cores(*pairs: str) -> Wiring:
    """Plain cores from words such as "1-S 2-T"."""
    ends = [pair.split("-") for word in pairs for pair in word.split()]
    return Wiring(tuple(Wire(near, far) for near, far in ends))


def _one(*pairs: str) -> dict[str, Wiring]:
    return {"": _cores(*pairs)}


_XLR_STRAIGHT = _cores("1-1 2-2 3-3")
_TRS_STRAIGHT = _cores("T-T R-R S-S")
_XLR_LEFT, _XLR_RIGHT = _cores("1-S 2-T 3-S"), _cores("1-S 2-R 3-S")


def _loss(db: float) -> Figure:
    return Figure(db, PAD_TOLERANCE_DB)


def _attenuating() -> list[LeadClass]:
    leads = []
    for db in LEAD_LOSSES_DB:
        arms = bridging_arms(db, PAD_SOURCE_OHM, PAD_LOAD_OHM)
        leads += [
            LeadClass(
                id=f"trs-pad-{db}", label=f"3.5 mm cable with {db} dB", sending=TRS_M, receiving=TRS_M,
                ways={"": padded(FITTINGS["trs"], "l", arms)}, balanced=False, loss_db=_loss(db), short_m=_ADAPTER_M, replaces=("trs",),
            ),
            LeadClass(
                id=f"xlr-trs-pad-{db}", label=f"XLR to 3.5 mm with {db} dB, mono to both sides", also="hot on tip and ring", sending=XLR_F, receiving=TRS_M,
                ways={"": padded(FITTINGS["xlr-trs"], "u", arms)}, balanced=False, loss_db=_loss(db),
                short_m=_ADAPTER_M, replaces=("xlr-trs-open", "xlr-trs", "xlr-trs-one-to-one"),
            ),
            LeadClass(
                id=f"xlr-pad-{db}", label=f"XLR barrel with {db} dB", sending=XLR_F, receiving=XLR_M,
                ways={"": padded(FITTINGS["xlr"], "u", arms)}, balanced=True, loss_db=_loss(db), short_m=0.1,
            ),
        ]  # fmt: skip
    return leads


def _one_side(far: str) -> Wiring:
    """One of two XLR in one side of a stereo plug, 25 dB down."""
    arms = bridging_arms(25, PAD_SOURCE_OHM, PAD_LOAD_OHM)
    return padded(replace(FITTINGS["xlr-trs"], hots=(("2", far),), also=""), "u", arms)


def _timecode_as_sound() -> Wiring:
    arms = bridging_arms(35, PAD_SOURCE_OHM, PAD_LOAD_OHM)
    return padded(replace(FITTINGS["trs"], hots=(("T", "T"),)), "l", arms)


LEADS: Final[Mapping[str, LeadClass]] = {
    lead.id: lead
    for lead in (
        LeadClass(id="xlr", label="XLR", sending=XLR_F, receiving=XLR_M, ways={"": _XLR_STRAIGHT}, balanced=True),
        LeadClass(
            id="aes3", label="XLR 110 Ω for AES3", sending=XLR_F, receiving=XLR_M, ways={"": _XLR_STRAIGHT}, balanced=True,
            characteristic_ohm=AES3_OHM,
        ),
        LeadClass(
            id="xlr-crossed", label="XLR, 2 and 3 crossed", sending=XLR_F, receiving=XLR_M, ways=_one("1-1 2-3 3-2"), balanced=True,
            short_m=0.2,
        ),
        LeadClass(
            id="xlr-2xlr", label="XLR to two XLR, the same on both", sending=XLR_F, receiving=XLR_M,
            ways={"L": _XLR_STRAIGHT, "R": _XLR_STRAIGHT}, balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="xlr-isolator", label="XLR isolating transformer", sending=XLR_F, receiving=XLR_M,
            ways={"": Wiring((), (), (Winding(("2", "3"), ("2", "3")),))}, balanced=True, short_m=0.2,
        ),
        LeadClass(id="trs", label="3.5 mm TRS", sending=TRS_M, receiving=TRS_M, ways={"": _TRS_STRAIGHT}, balanced=False),
        LeadClass(
            id="trs-extension", label="3.5 mm extension", sending=TRS_F, receiving=TRS_M, ways={"": _TRS_STRAIGHT}, balanced=False,
        ),
        LeadClass(
            id="trs-both", label="3.5 mm adapter, mono to both sides", sending=TRS_F, receiving=TRS_M, ways=_one("T-T T-R S-S"),
            balanced=False, short_m=0.1,
        ),
        LeadClass(
            id="trs-isolator", label="3.5 mm isolating transformer, two channels", sending=TRS_F, receiving=TRS_M,
            ways={"": Wiring((), (), (Winding(("T", "S"), ("T", "S")), Winding(("R", "S"), ("R", "S"))))}, balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="xlr-trs", label="XLR to 3.5 mm, mono to both sides", also="hot on tip and ring", sending=XLR_F, receiving=TRS_M, ways=_one("1-S 2-T 2-R 3-S"),
            balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="xlr-trs-open", label="XLR to 3.5 mm, mono to both sides, pin 3 not connected", also="hot on tip and ring, cold open", sending=XLR_F, receiving=TRS_M,
            ways=_one("1-S 2-T 2-R"), balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="xlr-trs-one-to-one", label="XLR to 3.5 mm, straight", also="one to one", sending=XLR_F, receiving=TRS_M, ways=_one("1-S 2-T 3-R"),
            balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="xlr-trs-left", label="XLR to 3.5 mm, mono to the left side", also="hot on tip alone", sending=XLR_F, receiving=TRS_M, ways=_one("1-S 2-T 3-S"),
            balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="trs-xlr", label="3.5 mm to XLR, straight", also="one to one", sending=TRS_M, receiving=XLR_M, ways=_one("S-1 T-2 R-3"), balanced=False,
            short_m=0.5,
        ),
        LeadClass(
            id="trs-xlr-mono", label="3.5 mm to XLR, tip to hot", sending=TRS_M, receiving=XLR_M, ways=_one("S-1 S-3 T-2"), balanced=False,
            short_m=0.5,
        ),
        LeadClass(
            id="trs-xlr-joined", label="3.5 mm to XLR, tip and ring joined", sending=TRS_M, receiving=XLR_M, ways=_one("S-1 S-3 T-2 R-2"),
            balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="trs-2xlr", label="3.5 mm to two XLR", sending=TRS_M, receiving=XLR_M,
            ways={"L": _cores("S-1 S-3 T-2"), "R": _cores("S-1 S-3 R-2")}, balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="2xlr-trs", label="two XLR to 3.5 mm, one side each", sending=XLR_F, receiving=TRS_M,
            ways={"L": _XLR_LEFT, "R": _XLR_RIGHT}, balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="2xlr-trs-pad-25", label="two XLR to 3.5 mm with 25 dB, one side each", sending=XLR_F, receiving=TRS_M,
            ways={"L": _one_side("T"), "R": _one_side("R")},
            balanced=False, loss_db=_loss(25), short_m=_ADAPTER_M, replaces=("2xlr-trs",),
        ),
        LeadClass(
            id="2trs-trs", label="two 3.5 mm to one, one side each", sending=TRS_M, receiving=TRS_M,
            ways={"L": _cores("S-S T-T"), "R": _cores("S-S T-R")}, balanced=False, short_m=_ADAPTER_M,
        ),
        LeadClass(
            id="2xlr-xlr5", label="two XLR to XLR-5", sending=XLR_F, receiving=Plug("xlr5", _M),
            ways={"L": _cores("1-1 2-2 3-3"), "R": _cores("1-1 2-4 3-5")}, balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="ta5-2xlr", label="TA5 to two XLR", sending=Plug("ta5", _F), receiving=XLR_M,
            ways={"L": _cores("1-1 2-2 3-3"), "R": _cores("1-1 4-2 5-3")}, balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="multi-2xlr", label="multi-pin to two XLR", sending=Plug("multi", _F), receiving=XLR_M,
            ways={"L": _cores("1-1 2-2 3-3"), "R": _cores("1-1 4-2 5-3")}, balanced=True,
        ),
        LeadClass(
            id="trs635-xlr", label="6.35 mm TRS to XLR", sending=Plug("trs635", _M), receiving=XLR_M, ways=_one("T-2 R-3 S-1"), balanced=True,
        ),
        LeadClass(
            id="ts635-xlr", label="6.35 mm TS to XLR", sending=Plug("ts635", _M), receiving=XLR_M, ways=_one("T-2 S-3 S-1"), balanced=False,
        ),
        LeadClass(
            id="trs635-trs", label="6.35 mm to 3.5 mm TRS", sending=Plug("trs635", _M), receiving=TRS_M, ways={"": _TRS_STRAIGHT},
            balanced=False, short_m=0.5,
        ),
        LeadClass(
            id="ta3-xlr", label="TA3 to XLR", sending=Plug("ta3", _F), receiving=XLR_M, ways={"": _XLR_STRAIGHT}, balanced=True, short_m=0.5,
        ),
        LeadClass(
            id="rca-trs", label="RCA to 3.5 mm", sending=Plug("rca", _M), receiving=TRS_M, ways=_one("T-T T-R S-S"), balanced=False, short_m=1.0,
        ),
        LeadClass(
            id="headset-trs", label="headset plug (TRRS) to 3.5 mm TRS", sending=Plug("trrs35", _F), receiving=TRS_M,
            ways=_one("S-T S-R R2-S"), balanced=False, short_m=0.1,
        ),
        LeadClass(
            id="headset-older-trs", label="headset plug, older order, to 3.5 mm TRS", sending=Plug("trrs35-older", _F), receiving=TRS_M,
            ways=_one("R2-T R2-R S-S"), balanced=False, short_m=0.1,
        ),
        LeadClass(
            id="trs-headset", label="3.5 mm TRS to headset socket (TRRS)", sending=TRS_F, receiving=Plug("trrs35", _M),
            ways=_one("T-S S-R2"), balanced=False, short_m=0.1,
        ),
        LeadClass(
            id="trs-timecode-bnc", label="3.5 mm to BNC, timecode", sending=TRS_M, receiving=_BNC, ways=_one("T-T S-S"), balanced=False,
        ),
        LeadClass(
            id="bnc", label="BNC", sending=_BNC, receiving=_BNC, ways=_one("T-T S-S"), balanced=False, characteristic_ohm=COAX_OHM,
        ),
        LeadClass(
            id="bnc-trs-pad-35", label="BNC to 3.5 mm tip with 35 dB, timecode as sound", sending=_BNC, receiving=TRS_M,
            ways={"": _timecode_as_sound()}, balanced=False, loss_db=_loss(35), short_m=0.5,
        ),
        LeadClass(
            id="hdmi", label="HDMI", sending=Plug("hdmi", _M), receiving=Plug("hdmi", _M), ways=_one("all-all"), balanced=False,
        ),
        LeadClass(
            id="usb-c", label="USB-C", sending=Plug("usb-c", _M), receiving=Plug("usb-c", _M), ways=_one("all-all"), balanced=False,
        ),
        LeadClass(
            id="radio", label="radio link", sending=Plug("air", _F), receiving=Plug("air", _M), ways=_one("all-all"), balanced=True, short_m=0.0,
        ),
        LeadClass(
            id="shoe", label="hot shoe", sending=Plug("shoe", _F), receiving=Plug("shoe", _M), ways=_one("all-all"), balanced=True, short_m=0.0,
        ),
        *_attenuating(),
    )
}  # fmt: skip
"""The leads by id. [HANDBOOK] for what they do, [MEMORY] for usual lengths"""
