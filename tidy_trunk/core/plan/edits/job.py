"""The edit on what holds for the whole job."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.model import Defaults, Plan, School, crew_names
from tidy_trunk.core.plan.shooting import Slating


@dataclass(frozen=True, slots=True, kw_only=True)
class SetJob:
    """Name and defaults of the job; what is None stays. Where the crew is named, there are so many hands."""

    name: str | None = None
    frame_rate: str | None = None
    target: str | None = None
    effects_target: str | None = None
    guide_target: str | None = None
    timecode_target: str | None = None
    school: School | None = None
    room: str | None = None
    alignment_dbfs: float | None = None
    mains_hz: int | None = None
    room_noise_db_spl: float | None = None
    rumble_db_spl: float | None = None
    sample_rate_hz: int | None = None
    slack_share: float | None = None
    slack_end_m: float | None = None
    frequencies_cleared: bool | None = None
    radio_guard_mhz: float | None = None
    day_begins_min: int | None = None
    day_ends_min: int | None = None
    drift_limit_frames: float | None = None
    date: str | None = None
    zone: str | None = None
    temperature_c: float | None = None
    hands: int | None = None
    crew: str | None = None
    slating: Slating | None = None
    walk_min: float | None = None

    @property
    def changes(self) -> dict[str, object]:
        named = (name for name in Defaults.__dataclass_fields__)
        return {name: getattr(self, name) for name in named if getattr(self, name) is not None}

    def apply(self, plan: Plan) -> Plan:
        values = {name: getattr(plan.defaults, name) for name in Defaults.__dataclass_fields__}
        named = len(crew_names(self.crew or ""))
        defaults = Defaults(**{**values, **({"hands": named} if named else {}), **self.changes})
        return replace(plan, name=plan.name if self.name is None else self.name.strip(), defaults=defaults)
