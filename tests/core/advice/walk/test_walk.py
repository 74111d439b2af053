"""The walk of handbook §§4 to 7: everything that one forgotten switch can spoil, in the order of the chain."""

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.walk import walk_items
from tidy_trunk.core.plan import Hazard, Part, Passing, Plan, SetPath, Stretch
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan


def walk(plan: Plan):
    return walk_items(Report(trace_plan(plan)))


def texts(plan: Plan) -> str:
    return "\n".join(f"{item.text} {item.why}" for item in walk(plan))


def test_devices_come_in_the_order_of_the_sound():
    groups = list(dict.fromkeys(item.group for item in walk(foundry())))
    for before, after in (
        ("Pack A", "Receiver A"),
        ("Receiver A", "Bag recorder"),
        ("Bag recorder", "Camera B"),
        ("Camera B", "Switcher"),
    ):
        assert groups.index(before) < groups.index(after)
    assert groups[-1] == "At the end"


def test_ids_are_each_once_and_stay():
    first, second = walk(foundry()), walk(foundry())
    assert len({item.id for item in first}) == len(first)
    assert first == second


def test_every_switch_is_named_as_it_must_stand():
    found = texts(padded_plan())
    assert "In 1: 48 V is on, its lamp lit. Mute, connect, switch on, wait, open." in found
    assert "automatic level, menu is off" in found and "Look in both places" in found
    assert "gain +50 dB" in found and "strain relief fitted" in found and "Set them low" in found
    assert "shows −24.7 dBFS for tone at −20.0. Not lined up yet" in found


def test_no_line_affirms_what_a_finding_calls_wrong():
    on = texts(made(put("cam", "mic.auto.menu", True), base=padded_plan()))
    assert "automatic level, menu is on" not in on and "The plan still has it on" in on


def test_a_camera_without_a_cable_has_its_lines():
    """Double system: power, card, its own microphone, rolling, and a clap."""
    plan = made(device("mirrorless-mic", "second"), base=padded_plan())
    mine = [item.id for item in walk(plan) if item.group == "second"]
    assert mine == ["second.power", "second.card", "second.own-microphone", "second.rolling"]
    assert "end.clap" in [item.id for item in walk(plan)]


def test_what_looks_alike_is_looked_at():
    """An attenuating lead, the legs of a two-way lead, the two sockets of a small recorder. [PRACTICE]"""
    assert "Its attenuator goes to the receiving end" in texts(padded_plan())
    pocket = made(
        device("pocket-recorder", "pk"), run("pk.phones", "cam.mic", "trs"), base=made(device("mirrorless-mic", "cam"))
    )
    assert "Mic/line in beside it looks the same" in texts(pocket)
    legs = [
        run(f"bag.out-{side.lower()}", "cam.in", Part(lead="2xlr-xlr5", length_m=1, branch=side, shared="x"))
        for side in "LR"
    ]
    two = made(device("cinema-xlr5", "cam"), *legs, base=boom_in_bag())
    assert [item.id for item in walk(two) if item.id.endswith(".leg")] == ["run-3.leg"]


def test_leads_where_people_walk_are_taped():
    stretch = Stretch(5.0, (Passing(Hazard.WALKWAY),))
    assert "taped or ramped" not in texts(padded_plan())
    assert "taped or ramped" in texts(made(SetPath(run="run-1", path=(stretch,)), base=padded_plan()))


def test_a_tone_that_clips_is_no_item():
    assert "dBFS for tone" not in texts(line_into_camera())
    assert "dBFS for tone" not in texts(made(put("cam", "mic.auto.menu", True), base=padded_plan()))


def test_what_comes_from_nowhere_is_passed_by():
    assert walk(Plan(name="Empty")) == ()


def test_two_clocks_are_read_at_the_same_moment():
    items = [item.text for item in walk(foundry()) if item.group == "Timecode"]
    assert "Camera A and Box A show the same label." in items
    assert "Box A and Bag recorder show the same label, jammed at 08:00, 12:30." in items
    assert "Camera A: timecode at 25, free run." in items
