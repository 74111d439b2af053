"""Attenuator design."""

from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.api.schemas.leads import LeadIn
from tidy_trunk.core.advice.options import WantedPad
from tidy_trunk.core.gear.catalogue import FITTINGS
from tidy_trunk.core.gear.pads import Pad
from tidy_trunk.equipment import PlugModel, WiringModel
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.services.pads import PadDesign, PadWish
from tidy_trunk.words import worded

_Ohm = Annotated[float, Field(allow_inf_nan=False, ge=0.1, le=1e7)]


class PadIn(In):
    """What is asked of a pad. Layouts l and u bridge; t, h, pi and o stand between `source_ohm` on both sides."""

    loss_db: Annotated[float, Field(allow_inf_nan=False, ge=0.1, le=120)]
    source_ohm: _Ohm
    load_ohm: _Ohm
    layout: Literal["l", "u", "t", "h", "pi", "o"] = "u"
    series: Literal["exact", "E12", "E24", "E96"] = "E24"
    tolerance_percent: Annotated[float, Field(allow_inf_nan=False, gt=0, le=20)] | None = None
    fitting: Annotated[str, Field(max_length=20)] = ""
    length_m: Annotated[float, Field(allow_inf_nan=False, ge=0.01, le=1000)] = 3.0

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={"examples": [{"loss_db": 25, "source_ohm": 150, "load_ohm": 2500, "fitting": "xlr-trs"}]},
    )

    def to_core(self) -> PadWish:
        return PadWish(**self.model_dump())


class ResistorOut(Out):
    """One resistor: as worked out, and as it is bought."""

    name: str
    role: str
    exact_ohm: float
    ohms: float


class MetOut(Out):
    """The loss with another impedance at one side."""

    ohms: float
    loss_db: Level


class PadOut(Out):
    """A pad with its parts; losses in dB, impedances in Ω, noise in dBu, corners in Hz."""

    parts: list[ResistorOut]
    loss_db: Level
    worst_low_db: Level
    worst_high_db: Level
    sigma3_low_db: Level
    sigma3_high_db: Level
    tolerance_percent: float
    input_impedance_ohm: float
    output_impedance_ohm: float
    thermal_noise_dbu: Level
    corner_at_receiver_hz: float
    corner_at_sender_hz: float
    over_loads: list[MetOut]
    over_sources: list[MetOut]
    advice: list[str]
    lead: LeadIn | None

    @classmethod
    def from_core(cls, design: PadDesign) -> "PadOut":
        chosen, lead = design.chosen, design.lead
        return cls(
            parts=list(_parts(design.exact, chosen)),
            loss_db=chosen.loss_db_actual,
            worst_low_db=design.range.worst_low_db,
            worst_high_db=design.range.worst_high_db,
            sigma3_low_db=design.range.sigma3_low_db,
            sigma3_high_db=design.range.sigma3_high_db,
            tolerance_percent=design.tolerance_percent,
            input_impedance_ohm=chosen.input_impedance_ohm,
            output_impedance_ohm=chosen.output_impedance_ohm,
            thermal_noise_dbu=chosen.thermal_noise_dbu,
            corner_at_receiver_hz=design.corner.at_receiver_hz,
            corner_at_sender_hz=design.corner.at_sender_hz,
            over_loads=[MetOut(ohms=ohms, loss_db=loss) for ohms, loss in design.over_loads],
            over_sources=[MetOut(ohms=ohms, loss_db=loss) for ohms, loss in design.over_sources],
            advice=list(design.advice),
            lead=LeadIn(
                label=lead.label,
                sending=PlugModel.from_core(lead.sending),
                receiving=PlugModel.from_core(lead.receiving),
                ways={branch: WiringModel.from_core(way) for branch, way in lead.ways.items()},
                short_m=lead.short_m,
            )
            if lead is not None
            else None,
        )


def _parts(exact: Pad, chosen: Pad) -> list[ResistorOut]:
    return [
        ResistorOut(name=part.name, role=part.role, exact_ohm=ideal.ohms, ohms=part.ohms)
        for ideal, part in zip(exact.resistors, chosen.resistors, strict=True)
    ]


class FittingOut(Out):
    id: str
    label: str
    layouts: list[str]


class WantedPadOut(Out):
    """The pad that a run wants, and the leads that one can be built into; `fitting` is empty where none fits."""

    loss_db: float
    source_ohm: float
    load_ohm: float
    fitting: str
    length_m: float
    why: str
    fittings: list[FittingOut]

    @classmethod
    def from_core(cls, wanted: WantedPad) -> "WantedPadOut":
        names = [name for name in cls.model_fields if name not in ("why", "fittings")]
        return cls(
            **{name: getattr(wanted, name) for name in names},
            why=worded(wanted.why) if wanted.why else "",
            fittings=[
                FittingOut(id=item.id, label=item.label, layouts=list(item.layouts)) for item in FITTINGS.values()
            ],
        )
