"""The controls of a device as they stand."""

from tidy_trunk.api.schemas.numbers import Out
from tidy_trunk.core.catalogue import Control, ControlKind, controls_of
from tidy_trunk.core.plan import Unit
from tidy_trunk.document import Value


class OptionOut(Out):
    value: str
    label: str


class ControlOut(Out):
    """A control as it stands; `minimum`, `maximum` and `step` in dB for a knob."""

    id: str
    device: str
    port: str
    label: str
    kind: ControlKind
    value: Value
    words: str
    options: list[OptionOut]
    minimum: float | None
    maximum: float | None
    step: float | None

    @classmethod
    def from_core(cls, unit: Unit, control: Control) -> "ControlOut":
        value = unit.device.settings.get(control.id, control.default)
        return cls(
            id=control.id,
            device=unit.device.id,
            port=control.port,
            label=control.label,
            kind=control.kind,
            value=value,
            words=control.words(value),
            options=[OptionOut(value=value, label=label) for value, label in control.options],
            minimum=control.span.minimum_db if control.span else None,
            maximum=control.span.maximum_db if control.span else None,
            step=control.span.step_db if control.span else None,
        )


def port_controls(unit: Unit, port_id: str) -> list[ControlOut]:
    """The controls of one port that act as it is set now: of the knobs, those of its mode."""
    return [
        ControlOut.from_core(unit, control)
        for control in controls_of(unit.device_class).values()
        if control.port == port_id and unit.acts(control)
    ]
