"""A made plan for measuring: 60 devices and 152 runs in one long chain of bags, mixers and cameras."""

from tidy_trunk.core.plan import (
    AddDevice,
    AddSource,
    Connect,
    Edit,
    Part,
    Plan,
    PortRef,
    RouteBus,
    SetControl,
    apply_edits,
)

CELLS = 11
_XLR = Part(lead="xlr", length_m=5)


def large_plan() -> Plan:
    """Eleven cells of bag, mixer, receiver and camera, each mixer into the next bag; 13 booms and 3 switchers."""
    edits: list[Edit] = []
    for cell in range(CELLS):
        edits += _cell(cell)
    for switcher in range(3):
        edits.append(AddDevice(id=f"switcher-{switcher}", class_id="live-switcher"))
    for cell in range(CELLS):
        edits.append(
            _run(f"cam-{cell}.hdmi", f"switcher-{cell // 4}.hdmi{cell % 4 + 1}", Part(lead="hdmi", length_m=5))
        )
    return apply_edits(Plan(name="Made to measure"), edits)


RADIOS = 24


def with_radios(plan: Plan) -> Plan:
    """A plan with 24 radio microphones beside it, on two frequencies: each is in the way of all others."""
    edits: list[Edit] = []
    for number in range(RADIOS):
        pack, receiver, mhz = f"pack-{number}", f"radio-{number}", (520.125, 521.2)[number % 2]
        edits += [
            AddDevice(id=pack, class_id="bodypack-transmitter"),
            AddDevice(id=receiver, class_id="receiver-one"),
            Connect(sending=PortRef(pack, "air"), receiving=PortRef(receiver, "air")),
            SetControl(device=pack, control="air.frequency_mhz", value=mhz),
            SetControl(device=receiver, control="air.frequency_mhz", value=mhz),
        ]
    return apply_edits(plan, edits)


RECORDERS = 290


def recorders_in_a_row() -> Plan:
    """As many as a plan may hold, each into the next by a cable that fits neither: a plan with more findings than cables."""
    edits: list[Edit] = [AddDevice(id=f"r{number}", class_id="bag-recorder") for number in range(RECORDERS)]
    edits += [
        _run(f"r{number}.line", f"r{number + 1}.in1", Part(lead="bnc", length_m=3)) for number in range(RECORDERS - 1)
    ]
    return apply_edits(Plan(name="In a row"), edits)


def _cell(cell: int) -> list[Edit]:
    bag, mixer, receiver, camera = f"bag-{cell}", f"mixer-{cell}", f"receiver-{cell}", f"cam-{cell}"
    edits: list[Edit] = [
        AddDevice(id=bag, class_id="bag-recorder"),
        AddDevice(id=mixer, class_id="field-mixer"),
        AddDevice(id=receiver, class_id="receiver-two"),
        AddDevice(id=camera, class_id="shoulder-camcorder"),
    ]
    for boom in range(2 if cell < 2 else 1):
        microphone, port = f"boom-{cell}-{boom}", f"in{boom + 1}"
        edits += [
            AddDevice(id=microphone, class_id="boom-shotgun"),
            AddSource(id=f"voice-{cell}-{boom}", label="Voice", average_db_spl=60, heard_by={microphone: 0.5}),
            _run(f"{microphone}.out", f"{bag}.{port}", _XLR),
            SetControl(device=bag, control=f"{port}.phantom.menu", value=True),
            SetControl(device=bag, control=f"{port}.mic.gain_db", value=50),
        ]
    edits += _pair(f"{receiver}.out", f"{bag}.in3", f"{bag}.in4")
    edits += [_run(f"{bag}.out-l", f"{mixer}.in1", _XLR), _run(f"{bag}.out-r", f"{mixer}.in2", _XLR)]
    edits += _pair(f"{bag}.phones", f"{mixer}.in3", f"{mixer}.in4")
    edits += _pair(f"{bag}.line", f"{camera}.in1", f"{camera}.in2")
    for number, gain_db in ((1, 12), (2, 12), (3, 20), (4, 20)):
        edits += _line_in(mixer, number, "line", gain_db)
    for number, gain_db in ((5, -6), (6, -6), (7, 24), (8, 24)):
        edits += _line_in(bag, number, "line", gain_db)
    edits += _line_in(camera, 1, "line0", 3) + _line_in(camera, 2, "line0", 3)
    edits += [
        RouteBus(device=bag, bus="mix-l", inputs=("in1", "in5")),
        RouteBus(device=bag, bus="mix-r", inputs=("in1", "in6")),
        RouteBus(device=mixer, bus="mix-l", inputs=("in1",)),
        RouteBus(device=mixer, bus="mix-r", inputs=("in2",)),
        SetControl(device=mixer, control="in1.pan", value="left"),
        SetControl(device=mixer, control="in2.pan", value="right"),
    ]
    if cell:
        before = f"mixer-{cell - 1}"
        edits += [_run(f"{before}.out-l", f"{bag}.in5", _XLR), _run(f"{before}.out-r", f"{bag}.in6", _XLR)]
        edits += _pair(f"{before}.phones", f"{bag}.in7", f"{bag}.in8")
    return edits


def _line_in(device: str, number: int, mode: str, gain_db: float) -> list[Edit]:
    return [
        SetControl(device=device, control=f"in{number}.mode", value=mode),
        SetControl(device=device, control=f"in{number}.{mode}.gain_db", value=gain_db),
    ]


def _pair(sending: str, left: str, right: str) -> list[Edit]:
    """Both sides of a 3.5 mm socket into two XLR inputs by one two-way lead."""
    name = sending.replace(".", "-")
    return [
        _run(sending, target, Part(lead="trs-2xlr", length_m=0.5, branch=side, shared=name))
        for side, target in (("L", left), ("R", right))
    ]


def _run(sending: str, receiving: str, part: Part) -> Edit:
    first, second = sending.split("."), receiving.split(".")
    return Connect(sending=PortRef(first[0], first[1]), receiving=PortRef(second[0], second[1]), parts=(part,))
