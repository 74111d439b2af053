"""The controls of a device as they stand."""

from tidy_trunk.core.gear.catalogue import Control, ControlKind, Setting, controls_of
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, law_key
from tidy_trunk.document import Value
from tidy_trunk.results.numbers import Out


class OptionOut(Out):
    value: str
    label: str


class ControlOut(Out):
    """A control as it stands; `minimum`, `maximum` and `step` in dB for a knob.

    gives_db: what a knob that was measured really gives there; mark: what the device writes there, where that is known.
    """

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
    gives_db: float | None
    mark: float | None

    @classmethod
    def from_core(cls, index: PlanIndex, placed: PlacedDevice, control: Control) -> "ControlOut":
        value = placed.device.settings.get(control.id, control.default)
        return cls(
            id=control.id,
            device=placed.device.id,
            port=control.port,
            label=control.label,
            kind=control.kind,
            value=value,
            words=control.words(value),
            options=[OptionOut(value=value, label=label) for value, label in control.options],
            minimum=control.span.minimum_db if control.span else None,
            maximum=control.span.maximum_db if control.span else None,
            step=control.span.step_db if control.span else None,
            gives_db=round(control.span.gain_db(float(value)), 2) if control.span and control.span.law else None,
            mark=_mark(index, placed, control, value),
        )


def _mark(index: PlanIndex, placed: PlacedDevice, control: Control, value: Setting) -> float | None:
    law = index.plan.gain_laws.get(law_key(placed.device.class_id, control.id))
    if law is None or law.scale is None or control.span is None:
        return None
    return round(law.scale.mark(float(value), control.span), 2)


def port_controls(index: PlanIndex, placed: PlacedDevice, port_id: str) -> list[ControlOut]:
    """The controls of one port that act as it is set now: of the knobs, those of its mode."""
    return [
        ControlOut.from_core(index, placed, control)
        for control in controls_of(placed.device_class).values()
        if control.port == port_id and placed.acts(control)
    ]
