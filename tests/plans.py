"""Plans for tests, made by the same edits that a user makes."""

from tidy_trunk.core.advice.adviser import Adviser, Move
from tidy_trunk.core.advice.checks import Finding
from tidy_trunk.core.plan import (
    AddDevice,
    AddSource,
    Connect,
    Edit,
    Part,
    Plan,
    PortRef,
    SetControl,
    SetParts,
    Weighting,
    apply_edits,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

XLR_7 = (Part(lead="xlr", length_m=7),)


def made(*edits: Edit, base: Plan | None = None) -> Plan:
    return apply_edits(base or Plan(name="Test"), edits)


def device(class_id: str, name: str) -> Edit:
    return AddDevice(class_id=class_id, id=name, label=name)


def run(sending: str, receiving: str, *parts: Part | str) -> Edit:
    """`bag.line` to `cam.mic` through parts; a lead's name stands for 0.3 m of it."""
    given = tuple(part if isinstance(part, Part) else Part(lead=part, length_m=0.3) for part in parts)
    first, second = sending.split("."), receiving.split(".")
    return Connect(sending=PortRef(first[0], first[1]), receiving=PortRef(second[0], second[1]), parts=given)


def put(device_id: str, control: str, value: str | float | bool) -> Edit:
    return SetControl(device=device_id, control=control, value=value)


def unweighted(**given) -> Edit:
    """A source stated in dB SPL as they are, so that voltages follow by hand."""
    return AddSource(**given, weighting=Weighting.Z)


def boom_in_bag() -> Plan:
    """A voice of 66 dB SPL, unweighted, at the boom, which is in a bag recorder, averaging about -20 dBFS."""
    return made(
        device("boom-shotgun", "boom"),
        device("bag-recorder", "bag"),
        unweighted(id="voice", label="Voice", average_db_spl=60, heard_by={"boom": 0.5}),
        run("boom.out", "bag.in1", *XLR_7),
        put("bag", "in1.phantom.menu", True),
        put("bag", "in1.mic.gain_db", 50),
    )


def line_into_camera(class_id: str = "mirrorless-mic") -> Plan:
    """The classic mistake: the bag's line output, 3.5 mm to 3.5 mm, into a camera's microphone socket."""
    return made(
        device(class_id, "cam"),
        run("bag.line", "cam.mic", "trs"),
        put("cam", "mic.auto.menu", False),
        base=boom_in_bag(),
    )


def padded_plan(db: int = 25, length_m: float = 0.3) -> Plan:
    """The mistake mended: an attenuating lead in the camera's run."""
    parts = (Part(lead=f"trs-pad-{db}", length_m=length_m),)
    return made(SetParts(run="run-2", parts=parts), base=line_into_camera())


def fixes(plan: Plan, finding: Finding) -> tuple[Move, ...]:
    """What the adviser offers for a finding about a plan."""
    return Adviser(Report(trace_plan(plan))).fixes(finding)
