"""Know your own gear: what is found out is what the simulated devices really are, and stands in a class of one's own.

Procedures: handbook §§4, 6, 7 and 12; the simulation strays from its classes, so that nothing is found by looking it up.
"""

from dataclasses import replace

import pytest

from tests.plans import device, line_into_camera, made, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.gear_tests import (
    FigureFound,
    GearAnswer,
    GearRecording,
    GearTestKind,
    KnobFound,
    LegsFound,
    LowestFound,
    MeterFound,
    PadFound,
    RecordedChannel,
    answered,
    gear_tests,
    known,
)
from tidy_trunk.core.gear.catalogue import Figure, LawPoint, PadPlace, Provenance, built_in
from tidy_trunk.core.plan import (
    Connect,
    CopyClass,
    GainLaw,
    Part,
    PlanIndex,
    PortRef,
    SaveClass,
    TakeGainLaw,
    apply_edits,
)
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.words.gear_tests import found_words, gear_test_words

WHEN = "2026-11-28T10:00"


def report_of(plan):
    return Report(trace_plan(plan))


def asked_of(report, kind, device_id):
    return next(test for test in gear_tests(report) if (test.kind, test.device) == (kind, device_id))


def heard(*channels, **more):
    return GearRecording(tuple(RecordedChannel(*channel) for channel in channels), **more)


def found(plan, kind, device_id, **answer):
    """What an answer says, the plan with it, and what the test knows of itself then."""
    report = report_of(plan)
    outcome = answered(report, asked_of(report, kind, device_id), GearAnswer(when=WHEN, **answer))
    after = apply_edits(plan, outcome.edits)
    again = asked_of(report_of(after), kind, device_id)
    assert again.when == WHEN
    return outcome.what, after, known(report_of(after), again)


def matched():
    return apply_edits(line_into_camera(), [put("bag", "line.line.trim_db", -17.0)])


def test_a_lowest_position_that_is_off_is_found_and_kept_in_a_class_of_ones_own():
    camera = replace(built_in().devices["mirrorless-mic"], id="my-cam", label="My cam")
    sure = tuple(replace(mode, gain=replace(mode.gain, lowest_is_off=False)) for mode in camera.inputs[0].modes)
    camera = replace(camera, inputs=(replace(camera.inputs[0], modes=sure), *camera.inputs[1:]))
    plan = made(
        SaveClass(device_class=camera),
        device("my-cam", "cam2"),
        run("bag.out-l", "cam2.mic", "xlr-trs"),
        base=matched(),
    )
    what, after, now = found(plan, GearTestKind.LOWEST, "cam2", recording=heard((None, -90.0, False)))
    assert what == now == LowestFound(True)
    assert after.classes["my-cam"].inputs[0].modes[0].gain.lowest_is_off
    assert found(plan, GearTestKind.LOWEST, "cam2", recording=heard((-24.0, -90.0, False)))[0] == LowestFound(False)
    assert found(plan, GearTestKind.LOWEST, "cam2", yes=True)[0] == LowestFound(True)


def with_attenuator(place):
    camera = built_in().devices["mirrorless-mic"]
    port = replace(camera.inputs[0], pad_db=Figure(20.0), pad_place=place)
    return replace(camera, id="my-cam", label="My cam", inputs=(port, *camera.inputs[1:]))


def test_flat_tops_at_a_lower_level_say_that_an_attenuator_sits_behind_the_converter():
    """Handbook §6: tone too hot, attenuator on; flat at a lower level is too late."""
    plan = made(
        SaveClass(device_class=with_attenuator(PadPlace.FIRST)),
        device("bag-recorder", "bag"), device("my-cam", "cam"), run("bag.out-l", "cam.mic", "xlr-trs"),
    )  # fmt: skip
    what, after, now = found(plan, GearTestKind.ATTENUATOR, "cam", recording=heard((-22.0, -80.0, True)))
    assert what == now == PadFound(PadPlace.LAST) and "leave it off" in found_words(what)
    what, again, _ = found(after, GearTestKind.ATTENUATOR, "cam", recording=heard((-12.0, -80.0, False)))
    assert what == PadFound(PadPlace.FIRST) and again.classes["my-cam"].inputs[0].pad_place is PadPlace.FIRST


def leg(sending, branch):
    sender, port = sending.split(".")
    part = Part(lead="2xlr-trs", length_m=1.0, branch=branch, shared="y")
    return Connect(sending=PortRef(sender, port), receiving=PortRef("cam", "mic"), parts=(part,))


def splitter():
    return made(
        device("bag-recorder", "bag"), device("mirrorless-mic", "cam"),
        leg("bag.out-l", "L"), leg("bag.out-r", "R"),
    )  # fmt: skip


def test_legs_that_are_marked_the_wrong_way_round_become_a_cable_of_ones_own():
    """Handbook §4: red was right, black left."""
    what, after, _ = found(
        splitter(), GearTestKind.LEGS, "cam", recording=heard((-66.0, -80.0, False), (-20.0, -80.0, False))
    )
    assert what == LegsFound(False)
    lead, stock = after.leads["my-2xlr-trs"], built_in().leads["2xlr-trs"]
    assert (lead.ways["L"], lead.ways["R"]) == (stock.ways["R"], stock.ways["L"])
    before, now = report_of(splitter()), report_of(after)
    one = lambda report: [item.run.id for item in report.main_path(report.track("cam.L").trace.stage) if item.run]  # noqa: E731
    assert (one(before), one(now)) == (["run-1"], ["run-2"])
    assert found(splitter(), GearTestKind.LEGS, "cam", yes=True)[0] == LegsFound(True)
    with pytest.raises(InputError, match="both sides hear the same"):
        found(splitter(), GearTestKind.LEGS, "cam", recording=heard((-20.0, -80.0, False), (-20.5, -80.0, False)))


@pytest.mark.parametrize(
    ("recording", "bleed_db", "within_db"),
    [
        (heard((-20.0, -80.0, False), (-62.5, -80.0, False)), -42.5, 1.0),
        (heard((-20.0, -80.0, False), (None, -80.0, False), bleed_db=-51.0), -51.0, 1.0),
        (heard((-20.0, -80.0, False), (None, -79.0, False)), -59.0, 3.0),  # at most
    ],
)
def test_bleed_is_what_the_other_side_hears_of_a_tone(recording, bleed_db, within_db):
    what, after, now = found(splitter(), GearTestKind.BLEED, "cam", recording=recording)
    assert (what.figure.value, what.figure.tolerance) == (bleed_db, within_db) and now.figure == what.figure
    assert PlanIndex(after).placed("cam").input("mic").bleed_db.provenance is Provenance.MEASURED


def test_a_noise_is_told_from_all_else_that_makes_noise_on_the_way():
    """Two noises of one level are 3 dB more than one: −73 on top of −73 comes out at −70."""
    report = report_of(matched())
    test = asked_of(report, GearTestKind.IDLE_NOISE, "cam")
    predicted = report_of(apply_edits(matched(), test.settings)).track("cam.L").sound
    figure = next(noise.level for noise in predicted.noises if noise.name == "cam converter")
    what, after, _ = found(matched(), GearTestKind.IDLE_NOISE, "cam", value=predicted.noise)
    assert what.figure.value == pytest.approx(figure, abs=0.06)
    measured = report_of(apply_edits(after, test.settings)).track("cam.L").sound.noise
    assert measured == pytest.approx(predicted.noise, abs=0.06)
    assert built_in().devices["mirrorless-mic"].inputs[0].idle_noise_dbfs.provenance is Provenance.TYPICAL


def test_noise_of_a_preamp_is_referred_back_to_the_socket():
    """EIN = noise in the file, taken back through full scale and gain. Source: the definition in [IEC60268-3]."""
    placed = report_of(matched()).index.placed("cam")
    mode = placed.input_mode(placed.input("mic"))
    noise_dbfs = -112.0 - mode.full_scale_dbu.value + mode.gain.maximum_db
    louder = noise_dbfs + 3.0
    what, after, _ = found(matched(), GearTestKind.INPUT_NOISE, "cam", value=louder)
    assert what.figure.value == pytest.approx(-109.0, abs=0.3) and what.figure.tolerance > 3
    assert after.classes[after.devices["cam"].class_id].tested == {"input-noise mic": WHEN}
    with pytest.raises(InputError, match="which no such input has"):
        found(matched(), GearTestKind.INPUT_NOISE, "cam", value=20.0)


def test_a_meter_a_knob_and_a_picture_are_kept_too():
    what, after, now = found(matched(), GearTestKind.METER, "cam", value=-18.0, recording=heard((-20.5, -80.0, False)))
    assert what == now == MeterFound(2.5) and report_of(after).index.meter_of("cam").reads_high_db == 2.5
    with pytest.raises(InputError, match="cut off"):
        found(matched(), GearTestKind.METER, "cam", value=0.0, recording=heard((-0.1, -80.0, True)))
    what, after, now = found(matched(), GearTestKind.PICTURE, "cam", value=5.0)
    assert now == FigureFound("traits.picture_delay_frames", what.figure) and what.figure.tolerance == 10
    with pytest.raises(InputError, match="from 0 to 120"):
        found(matched(), GearTestKind.PICTURE, "cam", value=-3.0)


def test_what_was_measured_of_a_knob_stays_where_it_is_kept():
    """A law of the job is no part of the class; an answer about a noise changes the noise alone."""
    points = (LawPoint(0, 0.0), LawPoint(46.5, 44.0))
    law = GainLaw(class_id="own-my-cam", control="mic.mic.gain_db", points=points, when=WHEN)
    plan = apply_edits(matched(), [CopyClass(device="cam", label="My cam"), TakeGainLaw(law=law)])
    _, after, _ = found(plan, GearTestKind.INPUT_NOISE, "cam", value=-60.0)
    before, now = (state.classes["own-my-cam"].inputs[0].modes[0] for state in (plan, after))
    assert now.gain == before.gain and not now.gain.law and now.ein_dbu != before.ein_dbu


def test_an_answer_that_a_test_does_not_take_is_refused():
    for kind in (GearTestKind.LOWEST, GearTestKind.IDLE_NOISE, GearTestKind.KNOB):
        with pytest.raises(InputError, match="recording"):
            found(matched(), kind, "cam")
    with pytest.raises(InputError, match="a tone is heard"):
        found(matched(), GearTestKind.IDLE_NOISE, "cam", recording=heard((-20.0, -80.0, False)))


def test_all_tests_of_the_demo_are_said_in_words():
    report = report_of(foundry())
    tests = gear_tests(report)
    assert {test.kind for test in tests} == set(GearTestKind) - {GearTestKind.ATTENUATOR}
    assert len({test.id for test in tests}) == len(tests)
    for test in tests:
        words = gear_test_words(test, report.index)
        assert words.title[0].isupper() and all(step.endswith(".") for step in words.does)
        assert words.question or words.value or test.records
    assert (
        "its own microphones"
        in gear_test_words(asked_of(report, GearTestKind.IDLE_NOISE, "camera-b"), report.index).does[0]
    )
    assert found_words(KnobFound(1)) == "Measured at 1 mark."
