"""What classes and their values are called where somebody reads them."""

from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, Drive, PadPlace, Pattern, Power, Supply, built_in
from tidy_trunk.core.plan import Hazard
from tidy_trunk.words.class_facts import class_facts
from tidy_trunk.words.terms import term


def facts_of(class_id: str) -> dict[str, str]:
    return dict(class_facts(built_in().devices[class_id]))


def test_values_are_slugs_and_are_said_in_words():
    values = [*Circuit, *DeviceKind, *Drive, *PadPlace, *Pattern, *Power, *Supply, *Hazard]
    assert all(set(value) <= set("abcdefghijklmnopqrstuvwxyz0123456789-") for value in values)
    said = [
        term(value)
        for value in (DeviceKind.SWITCHER, Circuit.BALANCED_STEREO, Supply.P48, Hazard.LED, Pattern.FIGURE_8)
    ]
    assert said == ["live switcher", "balanced stereo", "P48", "LED driver", "figure of eight"]


def test_facts_are_what_a_day_asks_for():
    facts = facts_of("mirrorless-mic")
    assert facts["picture late by"] == "5 frames"  # handbook section 8: about 5 frames over HDMI on one pair
    assert facts["timecode"].startswith("lost when off") and facts["longest clip"] == "30 min"
    assert facts_of("float-recorder")["file"] == "32 bit float"
    assert class_facts(built_in().devices["ribbon"]) == (("hears", "figure of eight"),)
    assert "coarse" in facts_of("mirrorless-line")["meters"]
    assert facts_of("mirrorless-line")["one or the other"] == (
        "built-in pair off while mic socket is used, mic socket off while shoe is used, "
        "built-in pair off while shoe is used"
    )
    assert facts_of("shoe-adapter")["knobs linked in one routing"] == "in 1 with in 2"
    assert facts_of("battery-condenser")["needs"] == "P48, 2 mA or its own cell, no gauge"
