"""Ways beside each other. The recordings are made up, so that it is known what is to be said of them."""

import math

import pytest

from tests.plans import line_into_camera, made, put
from tests.sounds import measured
from tidy_trunk.core.advice.compare import Discrepancy, NoiseKind, RecordedLevels, compare, option_plans, track_reached
from tidy_trunk.core.advice.options import AS_IT_IS
from tidy_trunk.core.base.signal import BANDS_HZ
from tidy_trunk.core.sound.levels import LevelSolver, Report
from tidy_trunk.core.sound.simulation import tone_and_silence, truth
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, NotFoundError, TidyTrunkError
from tidy_trunk.words import remark

REPORT = Report(trace_plan(line_into_camera()))
LEAD, TRIM, PHONES = "lead-trs-pad-25", "trim", "headphones"


def recorded(tone, noise, *, hum=None, low=False, cut_off=False):
    """Noise of one level, in bands that rise as those of white noise do, or all of it below 100 Hz."""
    shape = [(-40.0 if hertz > 100 else 0.0) if low else number for number, hertz in enumerate(BANDS_HZ)]
    total = 10 * math.log10(sum(10 ** (level / 10) for level in shape))
    bands = tuple(level - total + noise for level in shape)
    return RecordedLevels(
        tone_dbfs=tone, noise_dbfs=noise, noise_dbfs_a=noise - 2, hum_dbfs=hum, bands=bands, is_cut_off=cut_off
    )


def predicted(way):
    """As `levels` has it, asked for on another road: the sum of everything that comes in behind the sender."""
    report = Report(trace_plan(option_plans(REPORT, "run-2")[way].plan))
    sound = LevelSolver(report.index, oscillators={"bag": -20.0}).track_sound(track_reached(report, "run-2"))
    return sound.noise - sound.average


def as_predicted(way, off=0.0, **more):
    return recorded(-20.0, -20.0 + predicted(way) + off, **more)


def test_what_is_as_predicted_keeps_its_place_and_needs_no_remark():
    """Practice: about -72 with the lead, -70 with the trim, -65 from the headphone output. [HANDBOOK §6]"""
    found = compare(REPORT, "run-2", {way: as_predicted(way) for way in (PHONES, TRIM, LEAD)})
    assert [item.option for item in found] == [LEAD, TRIM, PHONES]
    assert [(item.place, item.predicted_place) for item in found] == [(1, 1), (2, 2), (3, 3)]
    assert all(
        item.surprise is Discrepancy.NONE and remark(item) == "" and item.off_db == pytest.approx(0) for item in found
    )
    assert "headphones" in found[-1].rules and found[-1].rules == found[-1].predicted_rules


@pytest.mark.parametrize(
    ("off", "more", "rules", "says"),
    [
        (2.9, {}, "converter", ""),
        (3.1, {}, "hiss", "3 dB noisier than predicted, and it hisses"),
        (12.0, {"low": True}, "rumble", "12 dB noisier than predicted, and it has low-frequency noise"),
        (-6.0, {}, "hiss", "6 dB quieter than predicted"),
    ],
)
def test_more_than_3_db_is_pointed_out(off, more, rules, says):
    found = compare(REPORT, "run-2", {LEAD: as_predicted(LEAD, off, **more), PHONES: as_predicted(PHONES)})
    lead = next(item for item in found if item.option == LEAD)
    assert lead.off_db == pytest.approx(off) and rules in lead.rules
    assert remark(lead) == "" if not says else remark(lead).startswith(says)


def test_hum_that_is_half_of_the_noise_rules_it():
    hums = as_predicted(LEAD, 10.0)
    hums = recorded(-20.0, hums.noise_dbfs, hum=hums.noise_dbfs - 2.9)
    found = compare(REPORT, "run-2", {LEAD: hums, PHONES: as_predicted(PHONES)})
    lead = next(item for item in found if item.option == LEAD)
    assert lead.rules == "hum" and lead.kind is NoiseKind.HUM and lead.surprise is Discrepancy.NOISIER
    assert (lead.place, lead.predicted_place) == (2, 1), "what was thought the quieter way is the noisier one"


def test_what_is_cut_off_comes_last_however_quiet_it_is():
    found = compare(REPORT, "run-2", {AS_IT_IS: recorded(-1.0, -80.0, cut_off=True), PHONES: as_predicted(PHONES)})
    assert [item.option for item in found] == [PHONES, AS_IT_IS] and found[1].surprise is Discrepancy.CUT_OFF
    found = compare(REPORT, "run-2", {LEAD: as_predicted(LEAD, cut_off=True), PHONES: as_predicted(PHONES)})
    assert found[1].surprise is Discrepancy.CUT_OFF_UNFORESEEN


@pytest.mark.parametrize(
    ("run", "given", "error"),
    [
        ("run-2", {LEAD: recorded(-20, -70)}, InputError),
        ("run-2", {f"way-{number}": recorded(-20, -70) for number in range(7)}, InputError),
        ("run-2", {LEAD: recorded(-20, -70), "rope": recorded(-20, -70)}, NotFoundError),
        ("run-9", {LEAD: recorded(-20, -70), TRIM: recorded(-20, -70)}, TidyTrunkError),
        ("run-1", {AS_IT_IS: recorded(-20, -70), "gain": recorded(-20, -70)}, TidyTrunkError),
    ],
)
def test_what_cannot_be_compared_is_refused(run, given, error):
    with pytest.raises(error):
        compare(REPORT, run, given)


def test_automatic_level_is_off_in_every_way():
    """It brings the noise of the pause up to where the tone was, whatever the way."""
    auto = Report(trace_plan(made(put("cam", "mic.auto.menu", True), base=line_into_camera())))
    plans = option_plans(auto, "run-2")
    assert plans[AS_IT_IS].does.facts == {"automatic_level_off": True}
    assert plans[AS_IT_IS].plan == option_plans(REPORT, "run-2")[AS_IT_IS].plan
    assert plans[LEAD].plan == option_plans(REPORT, "run-2")[LEAD].plan


def test_the_simulation_is_near_what_is_predicted_of_it():
    """Its devices stray by 0.8 of their ±: 2.4 dB at the most, in level and in noise."""
    for way in (LEAD, TRIM, PHONES):
        plan = option_plans(REPORT, "run-2")[way].plan
        channel = measured(tone_and_silence(truth(plan), "cam.L")).channels[0]
        assert channel.noise.flat_dbfs - channel.tone.level_dbfs == pytest.approx(predicted(way), abs=4.8)
