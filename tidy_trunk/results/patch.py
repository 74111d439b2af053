"""A whole job as it is patched: every device with its sockets, every run from socket to socket, what each device is set to."""

from tidy_trunk.core.advice.walk import short_walk_items, walk_items
from tidy_trunk.core.gear.catalogue import INSIDE, Circuit, Gender, Port
from tidy_trunk.core.plan import PlacedDevice, PlanIndex, PortRef, Run
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.results.numbers import Out
from tidy_trunk.results.rows import lead_row
from tidy_trunk.words.walk import walk_words


class PatchSocketOut(Out):
    id: str
    label: str


class PatchDeviceOut(Out):
    """inputs, outputs: those that a run goes into, or comes from."""

    id: str
    label: str
    kind: str
    place: str
    inputs: list[PatchSocketOut]
    outputs: list[PatchSocketOut]


class PatchRunOut(Out):
    """tape: colours of its number, one for each digit [IEC60062]; cable: what it is made of; is_air: nothing lies on the floor."""

    id: str
    number: int
    tape: list[str]
    sender: str
    output: str
    receiver: str
    input: str
    begins: str
    ends: str
    cable: str
    plugs: str
    length_m: float
    is_air: bool


class PatchOut(Out):
    job: str
    devices: list[PatchDeviceOut]
    runs: list[PatchRunOut]


class SettingLineOut(Out):
    text: str
    why: str


class UsedSocketOut(Out):
    """A socket of a device, and the numbers of the cables in it; connector, is_male: what it looks like."""

    label: str
    connector: str
    is_male: bool
    is_input: bool
    runs: list[int]


class SettingsOut(Out):
    """A device with what it is set to, in the order in which that is done."""

    device: str
    label: str
    kind: str
    place: str
    sockets: list[UsedSocketOut]
    lines: list[SettingLineOut]


def patch_of(index: PlanIndex) -> PatchOut:
    plan = index.plan
    return PatchOut(
        job=plan.name,
        devices=[_device(index, placed) for placed in index.placed_devices()],
        runs=[_run(index, run) for run in sorted(plan.runs.values(), key=lambda one: one.number)],
    )


def _device(index: PlanIndex, placed: PlacedDevice) -> PatchDeviceOut:
    own = placed.device.id
    return PatchDeviceOut(
        id=own,
        label=placed.label,
        kind=placed.device_class.label,
        place=placed.device.place,
        inputs=[_socket(port) for port in placed.device_class.inputs if index.arriving.get(PortRef(own, port.id))],
        outputs=[_socket(port) for port in placed.device_class.outputs if index.leaving.get(PortRef(own, port.id))],
    )


def _socket(port: Port) -> PatchSocketOut:
    return PatchSocketOut(id=port.id, label=port.label)


def _run(index: PlanIndex, run: Run) -> PatchRunOut:
    row = lead_row(index, run)
    sender = index.placed(run.sending.device)
    return PatchRunOut(
        id=run.id,
        number=run.number,
        tape=list(row.tape),
        sender=run.sending.device,
        output=run.sending.port,
        receiver=run.receiving.device,
        input=run.receiving.port,
        begins=index.port_label(run.sending),
        ends=index.port_label(run.receiving),
        cable=row.label,
        plugs=row.plugs,
        length_m=row.length_m,
        is_air=sender.port(run.sending.port).circuit is Circuit.RADIO,
    )


def settings_of(report: Report) -> list[SettingsOut]:
    """Every device that anything is set or looked at on, in the order of the sound."""
    index = report.index
    found: dict[str, list[SettingLineOut]] = {}
    for item in walk_items(report):
        if item.device and item.group == item.device:
            words = walk_words(item, index)
            found.setdefault(item.device, []).append(SettingLineOut(text=words.text, why=words.why))
    return [
        SettingsOut(
            device=device,
            label=index.placed(device).label,
            kind=index.placed(device).device_class.label,
            place=index.placed(device).device.place,
            sockets=_sockets(index, index.placed(device)),
            lines=lines,
        )
        for device, lines in found.items()
    ]


def _sockets(index: PlanIndex, placed: PlacedDevice) -> list[UsedSocketOut]:
    """What can be plugged into, inputs first."""
    found = []
    for ports, joined in ((placed.device_class.inputs, index.arriving), (placed.device_class.outputs, index.leaving)):
        found += [
            UsedSocketOut(
                label=port.label,
                connector=port.plug.connector,
                is_male=port.plug.gender is Gender.MALE,
                is_input=joined is index.arriving,
                runs=sorted({run.number for run in joined.get(PortRef(placed.device.id, port.id), [])}),
            )
            for port in ports
            if port.plug.connector not in (INSIDE, "air")
        ]
    return found


def must_be_right(report: Report) -> list[str]:
    """The short checklist: what ruins a take where it is forgotten."""
    return [walk_words(item, report.index).text for item in short_walk_items(report)]
