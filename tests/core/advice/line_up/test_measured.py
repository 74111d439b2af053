"""What a recording of steps says of a knob, and a reading of a meter: worked by hand, and in the simulation."""

import numpy as np
import pytest

from tests.core.advice.line_up.test_line_up import WHEN, read, report_of, step_of
from tests.few import each_of
from tests.plans import device, made, padded_plan, put, run
from tidy_trunk.core.advice.line_up import State, knob_of, knobs_of, law_edits, meter_edit, taken, worth_trying
from tidy_trunk.core.base.signal import StepMeasure, dbfs_of_powers, measure_steps
from tidy_trunk.core.plan import (
    CopyClass,
    MeterPair,
    ReadFrom,
    Scale,
    apply_edits,
    law_key,
)
from tidy_trunk.core.sound.simulation import Play, Simulator, meter_shows_dbfs, tone_steps, truth
from tidy_trunk.document import read_plan, write_plan
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.words import difference_sentences

GAIN = "mic.mic.gain_db"


def step(setting, level, *, clipped=False):
    return StepMeasure(setting=setting, level_dbfs=level, noise_dbfs=-80, clipped=clipped, start_s=0, seconds=2)


def knob(plan):
    return knob_of(report_of(plan), "cam.L", "cam", GAIN)


def with_law(plan, steps, scale=None):
    found = law_edits(
        report_of(plan), knob(plan), steps, noisy_from=None, scale=scale, read_from=ReadFrom.RECORDING, when=WHEN
    )
    return apply_edits(plan, found)


BENT = [step(1.5, -40.0), step(4.5, -36.0), step(7.5, -31.0), step(30.0, -3.0, clipped=True)]


def test_a_law_is_laid_so_that_its_marks_are_right_on_the_average():
    """By hand: levels 4 and 5 dB apart around their mean -35.67, marks around 4.5; what is cut off is left out."""
    law = with_law(padded_plan(), BENT).gain_laws[law_key("mirrorless-mic", GAIN)]
    assert [point.position_db for point in law.points] == [1.5, 4.5, 7.5]
    assert [point.gain_db for point in law.points] == pytest.approx([4.5 - 4.333, 4.5 - 0.333, 4.5 + 4.667], abs=0.001)


def test_levels_uses_the_measured_gain_from_then_on():
    plan = with_law(padded_plan(), BENT)
    low, high = (report_of(made(put("cam", GAIN, at), base=plan)).track("cam.L").sound.average for at in (1.5, 7.5))
    assert high - low == pytest.approx(9.0, abs=0.001), "from -40 to -31, whatever is written beside it"
    second = made(device("mirrorless-mic", "two"), run("bag.phones", "two.mic", "trs"), base=plan)
    law = report_of(second).index.placed("two").device_class.port_of["mic"].modes[0].gain.law
    assert law == plan.gain_laws[law_key("mirrorless-mic", GAIN)].points, "of all devices of that class"
    copied = made(CopyClass(device="cam", label="Mine"), base=plan)
    assert report_of(copied).track("cam.L").sound.average == report_of(plan).track("cam.L").sound.average


def test_what_was_read_before_stays_as_it_was_read():
    plan = read(padded_plan(), "cam.L", -29.0)
    after = with_law(plan, BENT)
    assert step_of(after).state is State.DONE and step_of(after).shows_dbfs == pytest.approx(-29.0, abs=0.01)
    turned = step_of(made(put("cam", GAIN, 7.5), base=after))
    assert turned.state is State.STALE and turned.shows_dbfs == pytest.approx(-29.0 + 9.0, abs=0.01)
    assert "measured at 3 positions" in " ".join(difference_sentences(plan, after))


def test_marks_of_its_own_lie_evenly_on_the_knob():
    """0 to 31 on a knob of 46.5 dB: one mark is 1.5 dB."""
    law = with_law(padded_plan(), [step(1, -40), step(3, -36), step(5, -31)], Scale(0, 31)).gain_laws[
        law_key("mirrorless-mic", GAIN)
    ]
    assert [point.position_db for point in law.points] == pytest.approx([1.5, 4.5, 7.5])
    assert law.scale.mark(4.5, knob(padded_plan()).span) == pytest.approx(3)


@pytest.mark.parametrize(
    ("steps", "scale", "says"),
    [
        ([step(1.5, -40), step(60, -30)], None, "60 is not on"),
        ([step(1.5, -40), step(4.5, -41)], None, "does not rise"),
        ([step(1.5, -40), step(4.5, -2, clipped=True)], None, "fewer than two"),
        ([step(1.5, -40), step(4.5, -36)], Scale(7, 7), "two ends"),
    ],
)
def test_steps_that_make_no_law_are_refused(steps, scale, says):
    with pytest.raises(InputError, match=says):
        with_law(padded_plan(), steps, scale)


def test_a_knob_that_is_not_on_the_way_is_refused():
    report = report_of(padded_plan())
    assert [item.control for item in knobs_of(report, report.track("cam.L").trace.stage)] == ["line.line.trim_db", GAIN]
    for track, control in (("cam.L", "line.line.gain_db"), ("nobody.L", GAIN)):
        with pytest.raises(NotFoundError):
            knob_of(report, track, "cam", control)


@pytest.mark.parametrize("pause_s", each_of([0.5, 0.0], 1))
def test_the_law_of_the_simulated_camera_is_found_and_lands_within_half_a_step(pause_s):
    plan = padded_plan()
    control = knob(plan)
    tries = worth_trying(control, step_of(plan).shows_dbfs)
    recording = tone_steps(truth(plan), "cam.L", "cam", GAIN, tries, pause_s)
    found = measure_steps(recording.astype(float), 48_000, tries, -20.0)
    lined_up = read(with_law(plan, found.steps), "cam.L", found.steps[0].level_dbfs, ReadFrom.SIMULATION)
    # The line-up was read at the first position: set there, the plan says what the simulation does at every other one.
    lined_up = read(made(put("cam", GAIN, tries[0]), base=lined_up), "cam.L", found.steps[0].level_dbfs)
    for at, measured in zip(tries, found.steps, strict=True):
        assert step_of(made(put("cam", GAIN, at), base=lined_up)).shows_dbfs == pytest.approx(
            measured.level_dbfs, abs=0.1
        )
    nearest = control.span.nearest_db(found.interpolated_setting)
    tracer = report_of(truth(made(put("cam", GAIN, nearest), base=plan)))
    loop = Simulator(tracer.index, Play.NOBODY, oscillators={"bag": -20.0}, sample_count=2**16).track_sound(
        tracer.track("cam.L").trace.stage
    )
    level = float(dbfs_of_powers((loop.astype(float) ** 2).mean()))
    assert level == pytest.approx(-20.0, abs=control.span.step_db / 2 + 0.1)


def test_a_meter_that_is_known_to_be_wrong_is_read_right():
    """By hand: it showed 2, 3 and 2.5 too much: 2.5 too high, and no reading further off than an eye reads."""
    plan = padded_plan()
    pairs = [MeterPair(-18, -20), MeterPair(-9, -12), MeterPair(-27.5, -30)]
    known = apply_edits(plan, [meter_edit(report_of(plan), "cam.L", pairs, WHEN)])
    found = step_of(known)
    assert (found.meter.reads_high_db, found.meter.within_db) == (2.5, 1.0)
    assert found.meter_shows_dbfs == pytest.approx(found.shows_dbfs + 2.5)
    edit = taken(report_of(known), "cam.L", sent_dbfs=-20, read_dbfs=-17.5, read_from=ReadFrom.METER, when=WHEN)
    assert edit.line_up.read_dbfs == -20.0
    edit = taken(report_of(known), "cam.L", sent_dbfs=-20, read_dbfs=-17.5, read_from=ReadFrom.RECORDING, when=WHEN)
    assert edit.line_up.read_dbfs == -17.5, "a recording needs no meter"
    assert "reads 2.5 dB too high" in " ".join(difference_sentences(plan, known))
    assert read_plan(write_plan(with_law(known, BENT, Scale(0, 31)))) == with_law(known, BENT, Scale(0, 31))


def test_a_coarse_meter_makes_a_reading_less_sure():
    plan = padded_plan()
    pairs = [MeterPair(-18, -20), MeterPair(-12, -12)]
    known = apply_edits(plan, [meter_edit(report_of(plan), "cam.L", pairs, WHEN)])
    sure, unsure = (report_of(read(item, "cam.L", -20.0, ReadFrom.METER)).track("cam.L") for item in (plan, known))
    assert unsure.sound.tolerance_db == sure.sound.tolerance_db, "a spread of 1 dB either way is what an eye reads"
    pairs.append(MeterPair(-20, -26))
    worse = apply_edits(plan, [meter_edit(report_of(plan), "cam.L", pairs, WHEN)])
    assert (
        report_of(read(worse, "cam.L", -20.0, ReadFrom.METER)).track("cam.L").sound.tolerance_db
        > sure.sound.tolerance_db
    )
    with pytest.raises(InputError, match="say what the meter showed"):
        meter_edit(report_of(plan), "cam.L", [], WHEN)


def test_the_meter_of_the_simulated_camera_is_coarse_and_off_by_one_and_the_same():
    plan = padded_plan()
    levels = np.arange(-40.0, -5.0, 0.7)
    shown = np.array([meter_shows_dbfs(plan, "cam", float(level)) for level in levels])
    assert set(shown % 2) == {0.0}
    known = meter_edit(report_of(plan), "cam.L", [MeterPair(*pair) for pair in zip(shown, levels, strict=True)], WHEN)
    assert known.meter.within_db <= 1.5 and 0.2 < abs(known.meter.reads_high_db) <= 3.0
