"""Questions in everyday words, and the rigs that answer them. Ways to work are common practice (docs/handbook, section 13)."""

from dataclasses import replace

import pytest

from tests.few import each_of, few
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.advice.walk import walk_items
from tidy_trunk.core.gear.catalogue import DeviceClass, DeviceKind, built_in
from tidy_trunk.core.rigs import (
    MOST_RIGS,
    Approach,
    Brief,
    Delivery,
    Microphone,
    SourcePlacing,
    Subject,
    SyncMethod,
    Wish,
    find_rigs,
    first_rig,
    read_brief,
)
from tidy_trunk.errors import InputError
from tidy_trunk.results.rigs import RigsOut
from tidy_trunk.words.rigs import gaps, problem_words, question, reason, rows

LAV = Microphone("lavalier", by_radio=True)
BOOM = Microphone("boom-shotgun")
INTERVIEW = "interview, two people, two lavs on radio, boom, bag recorder, 1 camera mic socket only, once"

QUESTIONS = {
    INTERVIEW: Brief(
        people=2, microphones=(LAV, LAV, BOOM), recorders=("bag-recorder",), cameras=("mirrorless-mic",), once=True
    ),
    "this camera has only a microphone socket, I own this recorder and two radios, one person, an interview that happens once": Brief(
        microphones=(LAV,), recorders=("handheld-recorder",), cameras=("mirrorless-mic",), once=True
    ),
    "I record two people talking with lavaliers on radio and a boom into bag recorder, picture on 1 camera, mic socket only. "
    "It happens once, I work alone, and it is edited later.": Brief(
        people=2, microphones=(LAV, LAV, BOOM), recorders=("bag-recorder",), cameras=("mirrorless-mic",), once=True,
        alone=True, delivery=Delivery.LATER,
    ),
    "recorder into a camera with microphone socket only": Brief(
        recorders=("handheld-recorder",), cameras=("mirrorless-mic",), in_camera=True
    ),
    "two radios into one camera, a side each": Brief(people=2, microphones=(LAV, LAV), cameras=("mirrorless-mic",)),
    "phone and lavalier": Brief(microphones=(Microphone("lavalier"),), cameras=("phone-camera",)),
    "phantom-powered shotgun and mirrorless camera": Brief(microphones=(BOOM,), cameras=("mirrorless-mic",)),
    "three hours that happen once, two cameras": Brief(cameras=("mirrorless-mic",) * 2, once=True),
    "recorder and two cameras without timecode": Brief(
        recorders=("handheld-recorder",), cameras=("mirrorless-mic",) * 2, no_timecode=True
    ),
    "timecode box and a microphone socket": Brief(cameras=("mirrorless-mic",), devices=("timecode-generator",)),
    "switcher with late pictures, 2 cameras, desk": Brief(cameras=("mirrorless-mic",) * 2, devices=("live-switcher", "desk-mixer")),
    "band, stereo pair, bag recorder, two cinema cameras": Brief(
        subject=Subject.MUSIC, microphones=(Microphone("pencil-condenser"),) * 2, recorders=("bag-recorder",),
        cameras=("cinema-xlr5",) * 2,
    ),
    "3 people walking, wireless, camera with mic/line, delivered tonight": Brief(
        people=3, placing=SourcePlacing.WALKING, microphones=(LAV,) * 3, cameras=("mirrorless-line",), delivery=Delivery.TONIGHT
    ),
    "podcast, two usb microphones, computer, no camera": Brief(
        people=2, microphones=(Microphone("usb-microphone"),) * 2, recorders=("computer",), cameras=()
    ),
    "boom, two-input recorder that takes timecode, timecode boxes, camcorder": Brief(
        microphones=(BOOM,), recorders=("two-input-recorder-tc",), cameras=("shoulder-camcorder",),
        devices=("timecode-generator",),
    ),
    "two condensers, bag recorder, cinema camera": Brief(
        microphones=(Microphone("pencil-condenser"),) * 2, recorders=("bag-recorder",), cameras=("cinema-xlr5",)
    ),
    "a ribbon and a 3.5 mm camera, separate tracks": Brief(
        microphones=(Microphone("ribbon"),), cameras=("mirrorless-mic",), separate=True
    ),
}  # fmt: skip


@pytest.mark.parametrize("text", QUESTIONS)
def test_a_question_is_understood(text):
    reading = read_brief(text, {})
    assert reading.brief == QUESTIONS[text]
    assert reading.problems == ()


@pytest.mark.parametrize("text", QUESTIONS)
def test_what_was_understood_reads_the_same_when_it_is_typed(text):
    brief = read_brief(text, {}).brief
    assert read_brief(question(brief, {}), {}).brief == brief


def test_whatever_a_gap_offers_fills_it():
    for gap in gaps(Brief(people=2), {}):
        for phrase in gap.options:
            reading = read_brief(f"two people talking, {phrase}", {})
            if gap.id != "who":
                assert {found.id: found.phrase for found in gaps(reading.brief, {})}[gap.id] == phrase.replace(
                    "lavaliers", "two lavaliers"
                ).replace("clip-on", "two clip-on").replace("handheld microphones", "two handheld microphones")
            assert reading.problems == (), phrase


def test_what_is_not_understood_is_said():
    reading = read_brief("interview on a unicycle, forty cameras", {})
    assert [(problem.code, dict(problem.facts)) for problem in reading.problems] == [
        ("not-understood", {"words": "unicycle"}),
        ("too-many", {"what": "cameras", "said": 40, "most": 4}),
    ]
    (digital,) = read_brief("AES3 into a camera with mic socket only", {}).problems
    assert (digital.code, digital.facts["class_id"]) == ("aes3-into-analogue", "mirrorless-mic")
    assert "analogue" in problem_words(digital)
    assert read_brief("AES3 into a cinema camera", {}).problems == ()


@pytest.mark.deep
def test_more_people_than_microphones_are_told():
    reading = read_brief("panel of four people, two handheld mics, bag recorder", {})
    assert [(item.code, dict(item.facts)) for item in reading.problems] == [
        ("too-few-microphones", {"people": 4, "microphones": 2})
    ]
    assert reading.brief.people == 2 and "boom" in problem_words(reading.problems[0])
    assert find_rigs(reading.brief, {}).rigs


def test_absurd_numbers_are_only_too_many():
    reading = read_brief(
        "999999999999 cameras, 88888888888 mixers, 7777777777777 booms, 12345678901234567890 people", {}
    )
    assert {item.code for item in reading.problems} == {"too-many"}
    assert len(reading.brief.cameras) == 4 and len(reading.brief.microphones) == 8


@pytest.mark.parametrize("text", ["xyzzy", "", "x" * 501])
def test_a_question_of_which_nothing_is_understood_is_refused(text):
    with pytest.raises(InputError):
        read_brief(text, {})


JOBS = {
    INTERVIEW: [Approach.FEED, Approach.RECORDER, Approach.PREAMP, Approach.STRAIGHT],
    "phantom-powered shotgun and mirrorless camera": [Approach.PREAMP, Approach.RECORDER, Approach.FEED],
    "band, stereo pair, bag recorder, two cinema cameras": [
        Approach.TIMECODE, Approach.RECORDER, Approach.FEED, Approach.STRAIGHT,
    ],
    "phone and lavalier": [Approach.STRAIGHT, Approach.BODY_WORN, Approach.PREAMP, Approach.FEED],
}  # fmt: skip


@pytest.mark.parametrize("text", each_of(JOBS, 2))
def test_unlike_jobs_get_the_ways_to_work_that_suit_them(text):
    found = find_rigs(read_brief(text, {}).brief, {})
    assert [rig.approach for rig in found.rigs] == JOBS[text]
    for rig in found.rigs:
        findings = check(rig.built.report)
        assert not [item for item in findings if item.severity is Severity.STOP]
        assert rig.figures.headroom_db > 0
        assert walk_items(rig.built.report), "taken as a job it can be walked"


@pytest.mark.deep
def test_an_interview_that_happens_once():
    feed, recorder, preamp, straight = find_rigs(read_brief(INTERVIEW, {}).brief, {}).rigs
    assert (feed.figures.apart, feed.figures.copies, feed.figures.sync) == (3, 2, SyncMethod.SOUND)
    assert feed.met == {Wish.TWICE}, "recorded twice, as what happens once ought to be"
    assert [lead.loss_db.value for lead in feed.figures.cables_to_get] == [25], "line into a microphone socket"
    assert feed.figures.automatic_off == ("camera",)
    assert (recorder.figures.copies, recorder.figures.sync, recorder.figures.cost) == (
        1,
        SyncMethod.CAMERA_MICROPHONE,
        0,
    )
    assert preamp.figures.sync is straight.figures.sync is SyncMethod.NONE
    assert straight.figures.left_out == ("boom",), "a stereo socket takes two"
    levels = {track.trace.id: track.sound.average for track in straight.built.report.tracks}
    assert levels["camera.L"] == pytest.approx(levels["camera.R"], abs=0.5)


def test_a_phantom_microphone_reaches_a_small_camera_by_a_box_alone():
    rigs = find_rigs(read_brief("phantom-powered shotgun and mirrorless camera", {}).brief, {}).rigs
    assert Approach.STRAIGHT not in [rig.approach for rig in rigs]


def test_a_lavalier_by_cable_gets_its_power_out_of_48_v_by_an_adapter():
    rigs = find_rigs(read_brief("two people, lavaliers, bag recorder, camera with xlr", {}).brief, {}).rigs
    recorder = next(rig for rig in rigs if rig.approach is Approach.RECORDER)
    assert [device.class_id for device in recorder.plan.devices.values()].count("lavalier-adapter") == 2
    assert recorder.figures.apart == 2


@pytest.mark.deep
def test_no_offered_rig_is_worse_in_everything():
    for text in QUESTIONS:
        brief = read_brief(text, {}).brief
        found = find_rigs(brief, {}).rigs
        assert 1 <= len(found) <= MOST_RIGS, text
        for rig in found:
            for other in found:
                mine, theirs = rig.figures, other.figures
                better = (
                    mine.cost < theirs.cost, mine.copies > theirs.copies, mine.apart > theirs.apart, mine.settings < theirs.settings,
                    list(SyncMethod).index(mine.sync) < list(SyncMethod).index(theirs.sync), len(mine.pressed) < len(theirs.pressed),
                    mine.under_room_db > theirs.under_room_db + 1, len(mine.cautions) < len(theirs.cautions),
                    mine.headroom_db > theirs.headroom_db + 1, len(mine.unheard) < len(theirs.unheard), mine.jams < theirs.jams,
                    len(mine.left_out) < len(theirs.left_out),
                )  # fmt: skip
                assert other is rig or any(better), (text, rig.approach, other.approach)


@pytest.mark.deep
def test_the_first_rig_is_one_of_them():
    brief = read_brief(INTERVIEW, {}).brief
    assert first_rig(brief, {}).plan == find_rigs(brief, {}).rigs[0].plan


@pytest.mark.deep
def test_several_cameras_get_timecode_and_a_switcher_gets_the_mix():
    several = find_rigs(read_brief("two people, bag recorder, three cameras with xlr", {}).brief, {}).rigs
    assert several[0].approach is Approach.TIMECODE
    assert several[0].figures.sync is SyncMethod.TIMECODE
    live = find_rigs(read_brief("two handheld mics, desk, two cameras, live switcher, live", {}).brief, {}).rigs
    index = live[0].built.report.index
    into = {index.placed(run.receiving.device).device_class.kind for run in index.plan.runs.values()}
    assert DeviceKind.SWITCHER in into
    assert live[0].figures.sync is SyncMethod.NONE


def own(class_id: str, label: str) -> dict[str, DeviceClass]:
    """A class of one's own, as a built-in one but for its name."""
    item = replace(built_in().devices[class_id], id=f"own-{class_id}", label=label)
    return {item.id: item}


def test_what_one_owns_is_meant_where_only_a_kind_is_named():
    mine = {**own("bag-recorder", "Blue bag"), **own("mirrorless-line", "Old camera")}
    brief = read_brief("interview, two lavs on radio, recorder, camera", mine).brief
    assert (brief.recorders, brief.cameras) == (("own-bag-recorder",), ("own-mirrorless-line",))
    named = read_brief("interview, two lavs on radio, pocket recorder, cinema camera", mine).brief
    assert (named.recorders, named.cameras) == (("plug-in-recorder",), ("cinema-xlr5",))


@pytest.mark.deep
def test_what_one_owns_is_taken_where_nothing_is_named_and_need_not_be_got():
    brief = read_brief("interview, two lavs on radio", {}).brief
    mine = own("bag-recorder", "Blue bag")
    (recorder,) = [rig for rig in find_rigs(brief, mine).rigs if rig.approach is Approach.RECORDER]
    assert "own-bag-recorder" in {device.class_id for device in recorder.plan.devices.values()}
    assert recorder.figures.to_get == ()


def test_a_recorder_of_ones_own_with_too_few_inputs_is_not_taken():
    mine = own("handheld-recorder", "Little one")
    brief = read_brief("four people, lavs on radio, recorder, camera", mine).brief
    assert brief.recorders == ("bag-recorder",)


@pytest.mark.deep
def test_what_is_to_be_got_tells_its_cost_class():
    """A field mixer is of class 4 in the catalogue, a cable of class 1."""
    rigs = find_rigs(read_brief(INTERVIEW, {}).brief, {}).rigs
    got = next(row for row in rows(rigs) if row.id == "to-get").cells
    assert any("Field mixer" in cell and "(4)" in cell for cell in got)
    assert any("with 25 dB (1)" in cell for cell in got)


@pytest.mark.deep
@pytest.mark.parametrize(
    ("text", "least"),
    few(
        [
            ("four people, four handheld mics, handheld recorder, camera mic socket only", 4),
            ("six people, lavs on radio, handheld recorder", 6),
            ("eight people, camera mic socket only, no recorder", 8),
        ],
        1,
    ),
)
def test_where_the_recorder_leaves_no_choice_another_one_is_offered_and_said(text, least):
    """Said before: no rig at all, and that one should name a recorder with more inputs."""
    reading = read_brief(text, {})
    found = find_rigs(reading.brief, {})
    assert found.rigs and found.on_other_recorder
    assert any(rig.figures.apart >= least and not rig.figures.left_out for rig in found.rigs)
    (said,) = RigsOut.from_core(reading, found, {}).problems
    assert "On another recorder" in said


def test_microphones_of_which_only_the_number_is_said_are_asked_for():
    """Said before: nothing, and a rig for one person."""
    problems = read_brief("4 mics, pocket recorder, camera", {}).problems
    assert [problem_words(problem) for problem in problems] == [
        "Not understood: 4 mics. Say which: lavaliers on radio, a boom, handheld or condenser microphones."
    ]
    assert read_brief("two people, two condenser mics, recorder", {}).problems == ()


@pytest.mark.parametrize(
    ("text", "first"),
    few(
        [
            ("recorder into a camera with microphone socket only", Approach.FEED),
            ("timecode box and a microphone socket", Approach.TIMECODE),
            ("recorder and two cameras without timecode", Approach.RECORDER),
            ("two radios into one camera, a side each", Approach.STRAIGHT),
        ],
        2,
    ),
)
def test_what_was_said_of_the_way_comes_first(text, first):
    """Said before: a recorder alone where it was to go into the camera, body-worn ones where there is a timecode box."""
    reading = read_brief(text, {})
    rigs = find_rigs(reading.brief, {})
    assert rigs.rigs[0].approach is first
    assert not any("timecode" in reason(rig, rigs.wishes) for rig in rigs.rigs) or not reading.brief.no_timecode


@pytest.mark.deep
def test_a_switcher_gets_the_recorders_mix_delayed():
    """Its pictures are late by the camera's and its own frames; sound that comes straight would be early. Common practice."""
    rigs = find_rigs(read_brief("switcher with late pictures", {}).brief, {}).rigs
    (feed,) = [rig for rig in rigs if rig.approach is Approach.FEED]
    assert "audio-delay" in feed.plan.devices
    assert "early-sound" not in {item.finding.rule for item in feed.figures.cautions}
    sides = {run.receiving.port for run in feed.plan.runs.values() if run.receiving.device == "audio-delay"}
    assert sides == {"in-l", "in-r"}, "both sides of its stereo output"


@pytest.mark.deep
def test_a_switcher_of_ones_own_is_one_too():
    mine = own("live-switcher", "Grey switcher")
    found = find_rigs(read_brief("one person, lavalier, grey switcher", mine).brief, mine)
    assert Wish.NO_SYNC in found.wishes and found.rigs[0].figures.sync is SyncMethod.NONE


def test_what_lies_in_the_trunk_is_taken_and_need_not_be_got():
    """Two 25 dB cables are needed for two cameras where one lies there: the other one is to be got."""
    brief = read_brief(INTERVIEW, {}).brief
    needed = next(rig for rig in find_rigs(brief, {}).rigs if rig.figures.cables_to_get)
    (cable, *others) = needed.figures.cables_to_get
    lying = {cable.id: 1, **dict(needed.figures.to_get)}
    same = next(rig for rig in find_rigs(brief, {}, lying).rigs if rig.approach is needed.approach)
    assert same.figures.to_get == () and same.figures.cables_to_get == tuple(others)
    assert same.figures.cost < needed.figures.cost
    plain = read_brief("interview, two lavs on radio, a recorder and a camera", {}, {"bag-recorder": 1})
    assert plain.brief.recorders == ("bag-recorder",)
    assert read_brief("two people, recorder, camera", {}, {"cinema-xlr5": 1}).brief.cameras == ("cinema-xlr5",)
