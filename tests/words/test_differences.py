"""What is said of what tells two states apart."""

from hypothesis import given, settings

from tests.plans import boom_in_bag, line_into_camera, made, padded_plan, put
from tests.strategies import plans
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.plan import (
    FeedOutput,
    Hazard,
    Passing,
    RemoveDevice,
    RouteBus,
    SetFigure,
    SetJob,
    SetPath,
    SetSource,
    SetStrainRelief,
    Stretch,
    differences,
)
from tidy_trunk.words import difference_sentences


def test_what_changed_is_said():
    before = line_into_camera()
    after = made(
        SetJob(name="Second day", target="broadcast", slack_share=0.2),
        put("bag", "in1.mic.gain_db", 44),
        RouteBus(device="bag", bus="mix-r", inputs=()),
        FeedOutput(device="bag", channel="line.R", bus="mix-l"),
        SetFigure(device="cam", path="inputs.mic.modes.mic.full_scale_dbu", figure=Figure(-11, 0.5)),
        SetSource(source="voice", peak_db_spl=90, irreplaceable=True),
        SetPath(run="run-2", path=(Stretch(2, (Passing(Hazard.WALKWAY),)),)),
        SetStrainRelief(run="run-2", on=True),
        base=padded_plan(25),
    )
    assert difference_sentences(before, after) == (
        "the job is called Second day, not Test",
        "level target broadcast, was level target film",
        "spare cable 20 %, was spare cable 10 %",
        "bag in 1: gain +44 dB, was +50 dB",
        "bag: track mix R from nothing, was from in 1, in 2, in 3, in 4, in 5, in 6, in 7, in 8",
        "bag: line out R from track mix L, was from track mix R",
        "cam mic socket mic, full scale: −11 dBu, typical",
        "source Voice: peak 90, was 74, burst 100, was 84, irreplaceable",
        "cable 2 by 0.3 m 3.5 mm cable with 25 dB, was 0.3 m 3.5 mm TRS",
        "cable 2: 2 m past walkway, was path not known",
        "cable 2: strain relief fitted",
    )


def test_what_is_new_and_what_is_gone():
    found = difference_sentences(boom_in_bag(), line_into_camera())
    assert found == (
        "cam is new: Mirrorless camera, microphone socket only",
        "cable 2, bag line out to cam mic socket is new, by 0.3 m 3.5 mm TRS",
    )
    back = difference_sentences(line_into_camera(), made(RemoveDevice(device="cam"), base=line_into_camera()))
    assert back == ("cam is gone", "cable 2, bag line out to cam mic socket is gone")


@settings(max_examples=20)
@given(plans(), plans())
def test_two_states_differ_in_words_if_they_differ(one, other):
    assert not list(differences(one, one)) and difference_sentences(one, one) == ()
    assert bool(difference_sentences(one, other)) == (one != other)
