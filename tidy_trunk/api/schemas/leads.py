"""Leads as they are drawn and judged."""

from typing import Annotated

from pydantic import ConfigDict, Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.gear.catalogue import LeadClass
from tidy_trunk.core.plan import drawn_lead
from tidy_trunk.equipment import PlugModel, WiringModel
from tidy_trunk.results.numbers import Level, Out
from tidy_trunk.results.pictures import LeadPicture, LeadUse, RunPicture


class ContactOut(Out):
    name: str
    carries: str


class HearsOut(Out):
    """What one channel of a socket hears; `channel` is empty where there is one only."""

    channel: str
    words: str


class LeadPictureOut(Out):
    """Contacts of both ends, and what lies between."""

    label: str
    length_m: float | None
    sending: str
    receiving: str
    near: list[ContactOut]
    far: list[ContactOut]
    wiring: WiringModel

    @classmethod
    def from_core(cls, picture: LeadPicture) -> "LeadPictureOut":
        return cls(
            label=picture.label,
            length_m=picture.length_m,
            sending=picture.sending.words,
            receiving=picture.receiving.words,
            near=[ContactOut(name=name, carries=carries) for name, carries in picture.near],
            far=[ContactOut(name=name, carries=carries) for name, carries in picture.far],
            wiring=WiringModel.from_core(picture.wiring),
        )


class UseOut(Out):
    """The result of a lead, or of all leads of a run: what arrives, what of power gets through, what is wrong."""

    between: str
    hears: list[HearsOut]
    mono: str
    powers: list[str]
    faults: list[str]

    @classmethod
    def from_core(cls, use: LeadUse | RunPicture, between: str) -> "UseOut":
        return cls(
            between=between,
            hears=[HearsOut(channel=channel, words=words) for channel, words in use.hears],
            mono=use.mono,
            powers=list(use.powers),
            faults=list(use.faults),
        )


class RunPictureOut(Out):
    """A run opened."""

    leads: list[LeadPictureOut]
    use: UseOut

    @classmethod
    def from_core(cls, picture: RunPicture) -> "RunPictureOut":
        return cls(leads=[LeadPictureOut.from_core(lead) for lead in picture.leads], use=UseOut.from_core(picture, ""))


class LeadIn(In):
    """A lead of the user's own that is being drawn."""

    label: Annotated[str, Field(min_length=1, max_length=80)]
    sending: PlugModel
    receiving: PlugModel
    ways: dict[Annotated[str, Field(pattern=r"^[LR]?$")], WiringModel]
    short_m: Annotated[float, Field(allow_inf_nan=False, ge=0, le=1000)] | None = None

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        json_schema_extra={
            "examples": [
                {
                    "label": "Made last night",
                    "sending": {"connector": "xlr3", "gender": "female"},
                    "receiving": {"connector": "trs35", "gender": "male"},
                    "ways": {"": {"wires": [{"near": "2", "far": "T"}, {"near": "1", "far": "S"}]}},
                }
            ]
        },
    )

    def to_core(self) -> LeadClass:
        """Raises PlanError, RangeError: what cannot be."""
        return drawn_lead(
            id="own",
            label=self.label,
            sending=self.sending.to_core(),
            receiving=self.receiving.to_core(),
            ways={branch: way.to_core() for branch, way in self.ways.items()},
            short_m=self.short_m,
        )


class JudgedOut(Out):
    """A lead drawn, and what it does in every use."""

    pictures: dict[str, LeadPictureOut]
    balanced: bool
    loss_db: Level
    uses: list[UseOut]


class StockLeadOut(Out):
    """A lead of the catalogue, to begin one's own from."""

    id: str
    label: str
    sending: PlugModel
    receiving: PlugModel
    ways: dict[str, WiringModel]
    short_m: float | None


class EndOut(Out):
    """A kind of plug or socket that a lead of one's own may have."""

    connector: str
    label: str
    contacts: list[ContactOut]


class LeadBoxOut(Out):
    """What a lead of one's own is made of."""

    ends: list[EndOut]
    leads: list[StockLeadOut]
