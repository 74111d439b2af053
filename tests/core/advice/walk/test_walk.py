"""The walk of handbook §§4 to 7: everything that one forgotten switch can spoil, in the order of the chain."""

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.walk import WalkItem, short_walk_items, walk_items
from tidy_trunk.core.plan import Hazard, Part, Passing, Plan, SetPath, Stretch
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan


def walk(plan: Plan) -> tuple[WalkItem, ...]:
    return walk_items(Report(trace_plan(plan)))


def of_kind(plan: Plan, what: str) -> list[WalkItem]:
    return [item for item in walk(plan) if item.what == what]


def test_devices_come_in_the_order_of_the_sound():
    groups = list(dict.fromkeys(item.group for item in walk(foundry())))
    for before, after in (
        ("pack-a", "receiver-a"),
        ("receiver-a", "bag"),
        ("bag", "camera-b"),
        ("camera-b", "switcher"),
    ):
        assert groups.index(before) < groups.index(after)
    assert groups[-1] == "end"


def test_ids_are_each_once_and_stay():
    first, second = walk(foundry()), walk(foundry())
    assert len({item.id for item in first}) == len(first)
    assert first == second


def test_every_switch_is_named_as_it_must_stand():
    plan = padded_plan()
    (phantom,) = (item for item in of_kind(plan, "phantom") if item.device == "bag")
    assert phantom.facts == {"port": "in1", "is_on": True}
    assert [(item.device, item.facts["is_on"]) for item in of_kind(plan, "automatic-level")] == [("cam", False)]
    assert "in1.mic.gain_db" in {control.id for item in of_kind(plan, "settings") for control in item.facts["controls"]}
    assert of_kind(plan, "strain-relief") and of_kind(plan, "listen")
    # By hand: tone at -20 dBFS out of a recorder at +18 dBu full scale, 25 dB less, into a camera at its lowest.
    tone = next(item for item in of_kind(plan, "tone") if item.device == "cam")
    assert round(tone.facts["shows_dbfs"], 1) == -24.7 and tone.facts["sent_dbfs"] == -20 and not tone.facts["is_done"]


def test_no_line_affirms_what_a_finding_calls_wrong():
    (item,) = of_kind(made(put("cam", "mic.auto.menu", True), base=padded_plan()), "automatic-level")
    assert item.facts["is_on"] and not item.facts["is_for_guide"]


def test_a_camera_without_a_cable_has_its_lines():
    """Double system: power, card, its own microphone, rolling, and a clap."""
    plan = made(device("mirrorless-mic", "second"), base=padded_plan())
    mine = [item.id for item in walk(plan) if item.group == "second"]
    assert mine == ["second.power", "second.card", "second.own-microphone", "second.rolling"]
    assert "end.clap" in [item.id for item in walk(plan)]


def test_what_looks_alike_is_looked_at():
    """An attenuating lead, the legs of a two-way lead, the two sockets of a small recorder. [PRACTICE]"""
    assert any(item.facts["has_pad"] for item in of_kind(padded_plan(), "cable"))
    pocket = made(
        device("pocket-recorder", "pk"), run("pk.phones", "cam.mic", "trs"), base=made(device("mirrorless-mic", "cam"))
    )
    assert [item.facts["alike"] for item in of_kind(pocket, "cable")] == ["in"]
    legs = [
        run(f"bag.out-{side.lower()}", "cam.in", Part(lead="2xlr-xlr5", length_m=1, branch=side, shared="x"))
        for side in "LR"
    ]
    two = made(device("cinema-xlr5", "cam"), *legs, base=boom_in_bag())
    assert [item.id for item in of_kind(two, "leg")] == ["run-3.leg"]


def test_leads_where_people_walk_are_taped():
    stretch = Stretch(5.0, (Passing(Hazard.WALKWAY),))
    assert not of_kind(padded_plan(), "taped")
    assert of_kind(made(SetPath(run="run-1", path=(stretch,)), base=padded_plan()), "taped")


def test_a_tone_that_clips_is_no_item():
    assert "cam" not in {item.device for item in of_kind(line_into_camera(), "tone")}
    automatic = made(put("cam", "mic.auto.menu", True), base=padded_plan())
    assert "cam" not in {item.device for item in of_kind(automatic, "tone")}


def test_what_comes_from_nowhere_is_passed_by():
    assert walk(Plan(name="Empty")) == ()


def test_two_clocks_are_read_at_the_same_moment():
    labels = {item.device: item.facts for item in of_kind(foundry(), "timecode-label")}
    assert labels["camera-a"]["giver"] == "box-a" and not labels["camera-a"]["jams_min"]
    assert (labels["box-a"]["giver"], labels["box-a"]["jams_min"]) == ("bag", (480, 750))


def test_the_short_one_has_at_most_fifteen_lines_and_leaves_no_device_out():
    """What ruins takes most often is common practice: power, card, arming, automatic level, 48 V, tone left on, nothing played back."""
    for plan in (foundry(), line_into_camera()):
        report = Report(trace_plan(plan))
        short, whole = short_walk_items(report), walk_items(report)
        assert 0 < len(short) <= 15
        powered = {item.device for item in whole if item.what == "power"}
        (power,) = (item for item in short if item.what == "all-power")
        assert {item.device for item in power.facts["items"]} == powered
        assert short[-1].what == "clap" and {"roles", "played", "counter"} <= {item.what for item in short}
    assert short_walk_items(Report(trace_plan(Plan(name="Empty")))) == ()
