"""The demo job: casting day at a bell foundry, an invented documentary drama. It carries classic mistakes to find."""

from dataclasses import replace

from tidy_trunk.core.gear.catalogue import DeviceClass, Figure, Provenance, built_in, with_figures
from tidy_trunk.core.plan import (
    AddDevice,
    AddSource,
    Connect,
    Edit,
    Hazard,
    Part,
    Passing,
    Plan,
    PortRef,
    Role,
    RouteBus,
    SaveSetUp,
    SetBreak,
    SetControl,
    SetJam,
    SetJob,
    SetPath,
    SetRole,
    SetSource,
    Stretch,
    Weighting,
    apply_edits,
)

_FURNACE_ROOM_DB, _FURNACE_RUMBLE_DB = 48.0, 62.0


def own_equipment() -> tuple[DeviceClass, ...]:
    """My equipment of the demo: two devices of which somebody has measured a figure."""

    def measured(class_id: str, own_id: str, label: str, **figures: Figure) -> DeviceClass:
        paths = {path.replace("__", "."): figure for path, figure in figures.items()}
        return replace(with_figures(built_in().devices[class_id], paths), id=own_id, label=label)

    def read(value: float, tolerance: float) -> Figure:
        return Figure(value, tolerance, Provenance.MEASURED, "USER")

    return (
        measured(
            "dynamic-handheld", "bell-microphone", "Bell microphone", capsule__sensitivity_mv_per_pa=read(1.9, 0.5)
        ),
        measured("mirrorless-mic", "small-camera", "Small camera", inputs__mic__idle_noise_dbfs=read(-75.5, 1)),
    )


def foundry() -> Plan:
    """The plan of the demo."""
    return apply_edits(Plan(name="Casting day"), [*_job(), *_gear(), *_sources(), *_runs(), *_settings()])


def _job() -> list[Edit]:
    return [
        SetJob(
            frame_rate="25",
            target="film",
            alignment_dbfs=-20,
            mains_hz=50,
            room="works",
            room_noise_db_spl=_FURNACE_ROOM_DB,
            rumble_db_spl=_FURNACE_RUMBLE_DB,
            day_ends_min=17 * 60 + 30,
        ),
        SetBreak(label="Tea", at_min=10 * 60 + 15, length_min=15),
        SetBreak(label="Dinner", at_min=12 * 60 + 30, length_min=45),
        SetBreak(label="Second tea", at_min=15 * 60, length_min=15),
        SaveSetUp(label="1A", at_min=9 * 60, takes=3, take_min=4),  # the briefing beside the furnace
        SaveSetUp(label="1B", at_min=9 * 60 + 40, takes=2, take_min=4),
        SaveSetUp(label="2A", at_min=11 * 60, takes=1, take_min=25),  # the pour
        SaveSetUp(label="2B", at_min=11 * 60 + 45, takes=3, take_min=2),
        SaveSetUp(label="3A", at_min=13 * 60 + 50, takes=4, take_min=3),  # the first strike
        SaveSetUp(label="4A", at_min=15 * 60 + 40, takes=1, take_min=45),  # what the visitors' hall sees
    ]


def _gear() -> list[Edit]:
    wanted = (
        ("boom", "boom-shotgun", "Boom"),
        ("founder-lav", "lavalier", "Founder lav"),
        ("reporter-lav", "lavalier", "Presenter lav"),
        ("bell-mic", "dynamic-handheld", "Bell mic"),
        ("hall-mic", "battery-condenser", "Hall mic"),
        ("pack-a", "bodypack-transmitter", "Pack A"),
        ("pack-b", "bodypack-transmitter", "Pack B"),
        ("receiver-a", "receiver-one", "Receiver A"),
        ("receiver-b", "receiver-one", "Receiver B"),
        ("bag", "bag-recorder", "Bag recorder"),
        ("pocket", "pocket-recorder", "Pocket recorder"),
        ("camera-a", "cinema-xlr5", "Camera A"),
        ("camera-b", "mirrorless-mic", "Camera B"),
        ("switcher", "live-switcher", "Switcher"),
        ("box-a", "timecode-generator", "Box A"),
    )
    return [AddDevice(id=device, class_id=class_id, label=label) for device, class_id, label in wanted]


def _sources() -> list[Edit]:
    return [
        AddSource(id="founder", label="Master founder", average_db_spl=66, heard_by={"boom": 0.6, "founder-lav": 0.2}),
        AddSource(id="presenter", label="Presenter", average_db_spl=62, heard_by={"reporter-lav": 0.2}),
        AddSource(
            id="bell",
            label="Bell, first strike",
            quiet_db_spl=70,
            average_db_spl=104,
            peak_db_spl=118,
            burst_db_spl=121,
            weighting=Weighting.Z,
            heard_by={"bell-mic": 1.5},
        ),
        AddSource(id="hall", label="Visitors' hall", average_db_spl=76, heard_by={"hall-mic": 1.5}),
        AddSource(
            id="pour",
            label="The pour",
            quiet_db_spl=58,
            average_db_spl=74,
            peak_db_spl=92,
            burst_db_spl=96,
            weighting=Weighting.Z,
        ),
    ]


def _run(sending: tuple[str, str], receiving: tuple[str, str], *parts: Part) -> Edit:
    return Connect(sending=PortRef(*sending), receiving=PortRef(*receiving), parts=parts)


def _runs() -> list[Edit]:
    xlr = "xlr"
    left = Part(lead="2xlr-xlr5", length_m=0.5, branch="L", shared="camera-a-breakout")
    right = Part(lead="2xlr-xlr5", length_m=0.5, branch="R", shared="camera-a-breakout")
    return [
        _run(("boom", "out"), ("bag", "in1"), Part(lead=xlr, length_m=10)),
        _run(("founder-lav", "out"), ("pack-a", "mic")),
        _run(("pack-a", "air"), ("receiver-a", "air")),
        _run(("receiver-a", "out"), ("bag", "in2"), Part(lead=xlr, length_m=0.5)),
        _run(("reporter-lav", "out"), ("pack-b", "mic")),
        _run(("pack-b", "air"), ("receiver-b", "air")),
        _run(("receiver-b", "out"), ("bag", "in3"), Part(lead=xlr, length_m=0.5)),
        _run(("bell-mic", "out"), ("bag", "in4"), Part(lead=xlr, length_m=25)),
        _run(("bag", "out-l"), ("camera-a", "in"), Part(lead=xlr, length_m=8), left),
        _run(("bag", "out-r"), ("camera-a", "in"), Part(lead=xlr, length_m=8), right),
        # Line into a microphone socket, three metres unbalanced beside the dimmers.
        _run(("bag", "line"), ("camera-b", "mic"), Part(lead="trs", length_m=3)),
        # The lead that looks right and puts hot left, cold right; and a cell that nobody put in.
        _run(
            ("hall-mic", "out"),
            ("pocket", "in"),
            Part(lead=xlr, length_m=5),
            Part(lead="xlr-trs-one-to-one", length_m=0.3),
        ),
        _run(("camera-b", "hdmi"), ("switcher", "hdmi1"), Part(lead="hdmi", length_m=5)),
        _run(("box-a", "tc-out"), ("camera-a", "tc-in"), Part(lead="bnc", length_m=0.5)),
    ]


def _settings() -> list[Edit]:
    def put(device: str, control: str, value: str | float | bool) -> Edit:
        return SetControl(device=device, control=control, value=value)

    return [
        put("bag", "in1.phantom.menu", True),
        put("bag", "in1.mic.gain_db", 42),
        put("bag", "in2.mic.gain_db", 26),
        # Pack B was never turned up: the receiver and the recorder cannot make good what the transmitter lost.
        put("bag", "in3.mic.gain_db", 26),
        put("bag", "in4.mic.gain_db", 36),
        put("pack-a", "mic.mic.gain_db", 16),
        put("pack-b", "mic.mic.gain_db", 2),
        put("camera-a", "in.line.gain_db", 14),
        put("pocket", "in.plug_in.menu", False),
        put("pocket", "in.auto.menu", True),
        put("pocket", "in.mic.gain_db", 38),
        RouteBus(device="bag", bus="mix-l", inputs=("in1", "in4")),
        RouteBus(device="bag", bus="mix-r", inputs=("in2", "in3")),
        # The bag hangs on the mains beside the switcher: a circle through Camera B's unbalanced lead.
        put("bag", "power", "mains"),
        put("pack-a", "air.frequency_mhz", 520.125),
        put("receiver-a", "air.frequency_mhz", 520.125),
        put("pack-b", "air.frequency_mhz", 521.2),
        put("receiver-b", "air.frequency_mhz", 521.2),
        SetSource(source="bell", irreplaceable=True),
        # What the tracks are kept for: the bell is no voice, and Camera B's sound is only there to find sync.
        SetRole(device="bag", bus="4", role=Role.EFFECTS),
        SetRole(device="camera-b", bus="L", role=Role.GUIDE),
        SetRole(device="camera-b", bus="R", role=Role.GUIDE),
        *_paths(),
        # Nobody thought of jamming the box in the second half of the morning, nor after dinner.
        SetJam(device="box-a", giver="bag", at_min=(8 * 60, 12 * 60 + 30)),
        # The switcher's programme takes its sound from Camera B's picture lead.
        RouteBus(device="switcher", bus="pgm-l", inputs=("hdmi1.L",)),
        RouteBus(device="switcher", bus="pgm-r", inputs=("hdmi1.R",)),
    ]


def _paths() -> list[Edit]:
    """Where the leads lie: across the visitors' walkway, past the furnace, and by the dimmers of the set light."""
    walkway, dimmer = Passing(Hazard.WALKWAY), Passing(Hazard.DIMMER, 0.5)
    furnace, mains = Passing(Hazard.FURNACE, 3), Passing(Hazard.ACROSS_MAINS)
    paths = {
        "run-1": (Stretch(6, (walkway,)),),
        "run-8": (Stretch(17, (furnace, Passing(Hazard.HOT))), Stretch(7, (mains,))),
        "run-9": (Stretch(5, (walkway,)),),
        "run-11": (Stretch(0.9, (dimmer,)),),
    }
    return [SetPath(run=run, path=path) for run, path in paths.items()]
