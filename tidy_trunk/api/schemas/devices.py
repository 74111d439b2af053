"""One device with all that can be seen and set on it."""

from tidy_trunk.api.schemas.controls import ControlOut
from tidy_trunk.core.gear.catalogue import (
    INSIDE,
    Circuit,
    DeviceKind,
    InputPort,
    Port,
    channel_refs,
    controls_of,
    figures_of,
)
from tidy_trunk.core.plan import PlacedDevice
from tidy_trunk.document import FigureModel
from tidy_trunk.results.evaluation import Evaluation
from tidy_trunk.results.numbers import Out
from tidy_trunk.words.class_facts import class_facts
from tidy_trunk.words.rows import input_words, output_words
from tidy_trunk.words.terms import term


class PortOut(Out):
    id: str
    label: str
    direction: str
    plug: str
    circuit: Circuit
    circuit_words: str
    takes_cable: bool
    words: str
    runs: list[str]


class NamedFigureOut(Out):
    path: str
    label: str
    unit: str
    tolerance_unit: str
    figure: FigureModel
    own: bool


class RoutingOut(Out):
    bus: str
    label: str
    recorded: bool
    inputs: list[str]


class FactOut(Out):
    name: str
    words: str


class DeviceDetailOut(Out):
    """One device with all that can be seen and set on it."""

    id: str
    label: str
    class_id: str
    class_label: str
    blurb: str
    kind: DeviceKind
    ports: list[PortOut]
    controls: list[ControlOut]
    routing: list[RoutingOut]
    channels: list[str]
    figures: list[NamedFigureOut]
    facts: list[FactOut]

    @classmethod
    def from_core(cls, evaluation: Evaluation, placed: PlacedDevice) -> "DeviceDetailOut":
        device_class, own = placed.device_class, evaluation.plan.classes.get(placed.device.class_id)
        runs = evaluation.plan.runs.values()

        def port_out(port: Port) -> PortOut:
            ref = (placed.device.id, port.id)
            return PortOut(
                id=port.id,
                label=port.label,
                direction="in" if isinstance(port, InputPort) else "out",
                plug=port.plug.words if port.plug.locks else f"{port.plug.words}, does not lock",
                circuit=port.circuit,
                circuit_words=term(port.circuit),
                takes_cable=port.plug.connector != INSIDE,
                words=input_words(placed, port) if isinstance(port, InputPort) else output_words(placed, port),
                runs=[run.id for run in runs if ref in (run.sending, run.receiving)],
            )

        return cls(
            id=placed.device.id,
            label=placed.label,
            class_id=placed.device.class_id,
            class_label=own.label if own else device_class.label,
            blurb=device_class.blurb,
            kind=device_class.kind,
            ports=[port_out(port) for port in device_class.ports],
            controls=[
                ControlOut.from_core(evaluation.index, placed, control)
                for control in controls_of(device_class).values()
                if placed.acts(control) or not control.port
            ],
            routing=[
                RoutingOut(bus=bus.id, label=bus.label, recorded=bus.recorded, inputs=list(placed.bus_inputs(bus)))
                for bus in device_class.buses
            ],
            facts=[FactOut(name=name, words=words) for name, words in class_facts(device_class)],
            channels=[ref for port in device_class.inputs for ref in channel_refs(port)],
            figures=[
                NamedFigureOut(
                    path=named.path,
                    label=named.label,
                    unit=named.unit,
                    tolerance_unit=named.tolerance_unit,
                    figure=FigureModel.from_core(named.figure),
                    own=named.path in placed.device.figures,
                )
                for named in figures_of(device_class)
            ],
        )
