"""Ways to match: the order and the results of handbook section 6."""

import pytest

from tests.plans import boom_in_bag, device, line_into_camera, made, put, run
from tidy_trunk.core.advice.adviser import matching_options
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.advice.options import AS_IT_IS
from tidy_trunk.core.gear.catalogue import FITTINGS, padded
from tidy_trunk.core.gear.pads import arms_of, design_bridging
from tidy_trunk.core.plan import AddSource, DrawLead, Part, School, SetJob, SetParts, SetSource, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import UnknownItemError
from tidy_trunk.words import option_words


def test_line_into_a_microphone_socket():
    found = matching_options(Report(trace_plan(line_into_camera())), "run-2")
    kinds = [option.id.split("-")[0] for option in found]
    assert kinds[0] == "lead", "the attenuating cable is the clean option"
    assert kinds.index("trim") < kinds.index("headphones"), "the headphone output takes the monitor away"
    assert option_words(found[0]).label == "Use the 25 dB attenuator"  # handbook: about 25 dB
    noises = {option.id: option.noise_dbfs for option in found}
    assert noises[found[0].id] < noises["trim"] < noises["headphones"]


def test_the_other_school_ranks_differently_by_the_same_figures():
    """Handbook §6: the trim is good enough for a guide, since the room is at −40 to −50 anyway; in a still room it is not."""
    louder = SetSource(source="voice", quiet_db_spl=68, average_db_spl=80, peak_db_spl=94, burst_db_spl=104)
    loud = made(louder, put("bag", "in1.mic.gain_db", 30), base=line_into_camera())  # the microphone's own noise is low
    clean = matching_options(Report(trace_plan(loud)), "run-2")

    def guide(room: float):
        plan = made(SetJob(school=School.GUIDE, room_noise_db_spl=room), base=loud)
        return matching_options(Report(trace_plan(plan)), "run-2")

    assert guide(58)[0].id == "trim" and clean[0].id.startswith("lead")
    assert guide(0)[0].id.startswith("lead"), "where its hiss is heard the trim is not good enough"
    figures = {option.id: (option.average_dbfs, option.noise_dbfs) for option in clean}
    assert {option.id: (option.average_dbfs, option.noise_dbfs) for option in guide(58)} == figures


@pytest.mark.parametrize(
    "option", matching_options(Report(trace_plan(line_into_camera())), "run-2"), ids=lambda option: option.id
)
def test_what_a_way_promises_comes_true(option):
    """Applying its edits gives the level it states, and no stop about that run."""
    plan = apply_edits(line_into_camera(), option.edits)
    report = Report(trace_plan(plan))
    sound = report.track("cam.L").sound
    assert sound.average == pytest.approx(option.average_dbfs)
    assert sound.peak == pytest.approx(option.peak_dbfs)
    stops = [item for item in check(report) if item.run == "run-2" and item.severity is Severity.STOP]
    assert option.fits is (option.id != AS_IT_IS) is not bool(stops)


def test_the_attenuator_behind_the_converter_is_computed_and_found_wanting():
    found = matching_options(Report(trace_plan(line_into_camera("mirrorless-pad-behind"))), "run-2")
    attenuator = next(option for option in found if option.id == "attenuator")
    assert attenuator.clips and option_words(attenuator).verdict == "still clips by 14.1 dB"
    assert [option.id for option in found if option.clips] == [option.id for option in found][
        -2:
    ] and attenuator in found[-2:]


def test_a_camera_with_a_line_switch_is_switched():
    plan = made(put("cam", "mic.mode", "mic"), base=line_into_camera("mirrorless-line"))
    found = matching_options(Report(trace_plan(plan)), "run-2")
    line = next(option for option in found if option.id == "input-line")
    assert line.fits and line.needs is None
    assert found.index(line) < [option.id for option in found].index("headphones")


def test_aes3_where_both_have_it():
    plan = made(
        device("cinema-xlr5", "cam"),
        run("bag.out-l", "cam.in", "xlr", Part(lead="2xlr-xlr5", length_m=0.5, branch="L", shared="x")),
        base=boom_in_bag(),
    )
    aes3 = next(option for option in matching_options(Report(trace_plan(plan)), "run-2") if option.id == "aes3")
    assert aes3.average_dbfs == pytest.approx(Report(trace_plan(plan)).track("bag.mix-l").sound.average)


def test_a_pad_that_is_too_strong_is_exchanged():
    parts = (Part(lead="trs-pad-50", length_m=0.3),)
    found = matching_options(
        Report(trace_plan(made(SetParts(run="run-2", parts=parts), base=line_into_camera()))), "run-2"
    )
    assert found[0].fits and option_words(found[0]).label == "Use the 25 dB attenuator"
    assert len(found[0].edits[0].parts) == 1, "one pad takes the place of the other"


def test_no_such_run():
    with pytest.raises(UnknownItemError, match="the job has run-1, run-2"):
        matching_options(Report(trace_plan(line_into_camera())), "run-9")


def test_a_way_by_which_nothing_arrives_is_none():
    """Left minus right of one mix leaves nothing, a line input gives a microphone no power."""
    plan = made(device("field-mixer", "mix"), run("bag.line", "mix.in1", "trs-xlr"), base=boom_in_bag())
    report = Report(trace_plan(plan))
    assert "input-line" not in {
        option.id for option in (*matching_options(report, "run-2"), *matching_options(report, "run-1"))
    }


def test_noise_is_weighed_against_the_signal():
    """A pad and more gain behind it leave the same hiss as no pad: the simpler option wins."""
    plan = made(
        device("on-camera-microphone", "mic"), device("receiver-one", "receiver"), device("plug-on-transmitter", "pack"),
        device("dynamic-handheld", "hand"), AddSource(id="v", label="V", average_db_spl=60, heard_by={"hand": 0.1}),
        device("handheld-recorder", "rec"), run("hand.out", "pack.mic"), run("pack.air", "receiver.air"),
        run("receiver.out", "rec.in1", "xlr"), put("pack", "mic.mic.gain_db", 30),
    )  # fmt: skip
    found = [option for option in matching_options(Report(trace_plan(plan)), "run-3") if option.fits]
    assert not found[0].id.startswith("lead-")


def test_a_lead_of_ones_own_stands_among_the_ways():
    """A pad built into a 3.5 mm lead: it goes where the plain one is, and is offered beside what is sold."""
    fitting = FITTINGS["trs"]
    pad = design_bridging(28, 100, 2500, layout="l", series="E24")
    wiring = padded(fitting, "l", arms_of("l", pad.resistors))
    own = DrawLead(label="Last night", sending=fitting.sending, receiving=fitting.receiving, ways={"": wiring})
    found = {
        option_words(option).label: option
        for option in matching_options(Report(trace_plan(made(own, base=line_into_camera()))), "run-2")
    }
    option = found["Use your own cable Last night"]
    assert option.fits and option_words(option).needs == "1 Last night" and "label it" in option_words(option).risk
    assert [part.length_m for part in option.edits[0].parts] == [0.3]
    assert {"Use the 25 dB attenuator", "Use the 30 dB attenuator"} < set(found)


def test_each_school_has_its_first_way_and_every_way_its_risk():
    found = matching_options(Report(trace_plan(line_into_camera())), "run-2")
    assert found[0].best_for[0] is School.CLEAN
    assert sorted(school for option in found for school in option.best_for) == sorted(School)
    trim = next(option for option in found if option.id == "trim")
    assert "turned up again, it clips cam" in option_words(trim).risk and "only 0 dB below" in option_words(trim).risk
