"""The sockets of a job, to be joined by pointing."""

from tidy_trunk.core.gear.catalogue import INSIDE, Port
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef
from tidy_trunk.results.numbers import Out


class SocketOut(Out):
    """is_free: nothing is plugged in."""

    port: str
    label: str
    is_free: bool


class SocketsOut(Out):
    """A device with all that can be plugged into it."""

    device: str
    label: str
    outputs: list[SocketOut]
    inputs: list[SocketOut]

    @classmethod
    def of_job(cls, index: PlanIndex) -> "list[SocketsOut]":
        return [_sockets(index, placed) for placed in index.placed_devices()]


def _sockets(index: PlanIndex, placed: PlacedDevice) -> SocketsOut:
    def out(port: Port) -> SocketOut:
        ref = PortRef(placed.device.id, port.id)
        is_free = not index.arriving.get(ref) and not index.leaving.get(ref)
        return SocketOut(port=port.id, label=port.label, is_free=is_free)

    return SocketsOut(
        device=placed.device.id,
        label=placed.label,
        outputs=[out(port) for port in placed.device_class.outputs if port.plug.connector != INSIDE],
        inputs=[out(port) for port in placed.device_class.inputs if port.plug.connector != INSIDE],
    )
