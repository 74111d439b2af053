"""The edit on what holds for the whole job."""

from dataclasses import dataclass, replace

from tidy_trunk.core.plan.model import Defaults, Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class SetJob:
    """Name and defaults of the job; what is None stays."""

    name: str | None = None
    frame_rate: str | None = None
    target: str | None = None
    alignment_dbfs: float | None = None
    mains_hz: int | None = None
    room_noise_db_spl: float | None = None

    def _changes(self) -> dict[str, object]:
        named = ("frame_rate", "target", "alignment_dbfs", "mains_hz", "room_noise_db_spl")
        return {name: getattr(self, name) for name in named if getattr(self, name) is not None}

    def apply(self, plan: Plan) -> Plan:
        values = {name: getattr(plan.defaults, name) for name in Defaults.__dataclass_fields__}
        defaults = Defaults(**{**values, **self._changes()})
        return replace(plan, name=plan.name if self.name is None else self.name.strip(), defaults=defaults)

    def sentence(self, plan: Plan) -> str:
        parts = [f"name {self.name.strip()}"] if self.name is not None else []
        words = {
            "frame_rate": "frame rate",
            "alignment_dbfs": "tone",
            "mains_hz": "mains",
            "room_noise_db_spl": "room noise",
        }
        parts += [f"{words.get(name, name)} {value}" for name, value in self._changes().items()]
        return f"Job: {', '.join(parts) or 'nothing changed'}"
