"""A whole chain in one line, and connections to what the job does not have yet. How they are made is common practice."""

import pytest

from tests.core.command.test_say import do
from tidy_trunk.core.command import say
from tidy_trunk.core.plan import Plan, PlanIndex, apply_edits, edited
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import answer_words

BAG = ("add bag recorder, eight as bag",)


def classes(plan: Plan) -> list[str]:
    return [device.class_id for device in plan.devices.values()]


def test_somebody_by_radio_in_one_line_is_one_step():
    plan = do(Plan(name="Chain"), *BAG)
    answer = say(plan, "ann: lavalier by radio to bag 2, 0.2 m").proposals[0]
    after = apply_edits(plan, answer.edits)
    assert classes(after) == ["bag-recorder", "lavalier", "bodypack-transmitter", "receiver-one"]
    assert [source.label for source in after.sources.values()] == ["Ann"]
    assert list(after.sources["ann"].heard_by.values()) == [0.2]
    track = Report(trace_plan(after)).track("bag.2")
    assert track.sources == ("ann",) and -20.5 <= track.sound.average <= -12, "on the job's target, film"
    assert answer_words(answer).title.startswith("Ann: add Ann lavalier")


def test_each_line_brings_a_microphone_of_its_own():
    plan = do(
        Plan(name="Chain"),
        *BAG,
        "ann: lavalier by radio to bag 1",
        "ben: lavalier by radio to bag",
        "ann: boom to bag 3, 0.6 m",
    )
    tracks = {track.trace.bus: track.sources for track in Report(trace_plan(plan)).tracks if track.sources}
    assert {tracks[bus] for bus in "123"} == {("ann",), ("ben",)}
    assert plan.sources["ann"].heard_by.keys() == {"ann-lavalier", "ann-boom-shotgun"}


def test_a_microphone_that_is_there_and_free_is_used():
    plan = do(Plan(name="Chain"), *BAG, "add boom shotgun as boom", "ann: boom to bag 1, 5 m")
    assert classes(plan).count("boom-shotgun") == 1


@pytest.mark.parametrize(
    ("line", "added"),
    [
        ("lavalier to camera", ["lavalier", "mirrorless-mic"]),
        ("boom to bag recorder 1, 7 m", ["boom-shotgun", "bag-recorder"]),
        ("handheld to mixer in 1", None),
        ("founder: handheld to mixer in 1", ["dynamic-handheld", "field-mixer"]),
        ("ann: lavalier as lav to phone", ["lavalier", "phone-camera"]),
        ("lavalier by radio to bag recorder 5", ["lavalier", "bodypack-transmitter", "receiver-one", "bag-recorder"]),
    ],
)
def test_kinds_stand_where_devices_do(line, added):
    answers = say(Plan(name="Empty"), line).proposals
    assert answers
    if added:
        assert classes(apply_edits(Plan(name="Empty"), answers[0].edits)) == added


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("ann: bag to camera", "is no microphone"),
        ("ann: frob to bag", "nor any kind of one"),
        ("frob to bag", "no device here is called 'frob'"),
        ("ann: lavalier to frob", "nor any kind of one"),
    ],
)
def test_what_is_no_chain_is_said(line, words):
    answer = say(do(Plan(name="Chain"), *BAG), line)
    assert not answer.proposals and words in answer.problem


def test_the_second_radio_into_a_recorder_is_set_as_the_first():
    """Said before: its transmitter stayed at its lowest gain, because the mix did not sound as it had."""
    plan = Plan(name="Two radios")
    for line in ("ann: lavalier by radio to bag 1, 0.2 m", "bob: lavalier by radio to bag 2, 0.2 m"):
        plan = edited(plan, say(plan, line).proposals[0].edits)
    first, second = (plan.devices[f"{who}-lavalier-transmitter"].settings for who in ("ann", "bob"))
    assert first == second != {}
    assert (
        plan.devices["bag-recorder"].settings["in1.mic.gain_db"]
        == plan.devices["bag-recorder"].settings["in2.mic.gain_db"]
    )


def test_a_cable_that_does_not_fit_is_refused_by_its_name():
    """Said before: that the mixer goes into the mixer's own inputs."""
    plan = do(Plan(name="Hall"), "add field mixer as mix", "add cinema camera as cam")
    assert say(plan, "mix to cam, 10 m by trs").problem == (
        "3.5 mm TRS does not fit mix out L and cam XLR-5 in. Leave the cable out, and one that fits is found"
    )
    assert say(plan, "mix to cam, 10 m").proposals


def test_two_by_the_same_words_are_numbered_by_what_they_are():
    """What belongs to the first, its transmitter and its receiver, is not counted."""
    plan = do(Plan(name="Chain"), *BAG, "lavalier by radio to bag 1", "lavalier by radio to bag 2")
    labels = [device.label for device in plan.devices.values() if device.class_id == "lavalier"]
    assert labels == ["Lavalier", "Lavalier 2"]


def test_how_loud_somebody_is_can_stand_in_the_line():
    plan = do(Plan(name="Chain"), "singer: handheld to mixer 1, 0.05 m, very loud")
    (singer,) = plan.sources.values()
    assert singer.average_db_spl == 78 and list(singer.heard_by.values()) == [0.05]  # ISO 9921, from memory


def test_a_recorder_with_digital_outputs_gives_its_analogue_ones_where_none_is_named():
    """Said before: no cable fits, as both channels of an AES3 output were taken for the two sides of the camera's socket."""
    plan = do(
        Plan(name="AES3"), "add bag recorder, six inputs as bag", "add cinema camera as cam", "ann: boom to bag 1, 5 m"
    )
    _, run = do(plan, "bag to cam, 5 m").runs.values()
    assert run.sending.port == "out-l" and [part.lead for part in run.parts] == ["xlr", "2xlr-xlr5"]


def test_an_answer_is_called_by_the_sockets_that_it_takes():
    """Said before: `bag out L to cam`, of one that plugs into an AES3 output."""
    plan = do(Plan(name="AES3"), "add bag recorder, six inputs as bag", "add cinema camera as cam")
    answers = say(plan, "bag to cam, 5 m").proposals
    titles = [answer_words(answer).title for answer in answers]
    assert len(set(titles)) == len(titles)
    for answer, title in zip(answers, titles, strict=True):
        (run,) = apply_edits(plan, answer.edits).runs.values()
        assert title.startswith(PlanIndex(plan).port_label(run.sending))
