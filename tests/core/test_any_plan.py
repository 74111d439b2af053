"""Laws that hold for every plan, wise or not."""

import math

import pytest
from hypothesis import given, settings

from tests.few import IS_DEEP
from tests.strategies import plans
from tidy_trunk.core.advice.adviser import Adviser, matching_options
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.plan import RemoveDevice, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import StageKind, trace_plan, upstream_of
from tidy_trunk.document import read_plan, write_plan
from tidy_trunk.words import in_one, label_of


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_a_plan_survives_its_file(plan):
    assert read_plan(write_plan(plan)) == plan


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_levels_stay_in_order_and_within_their_ceiling(plan):
    report = Report(trace_plan(plan))
    for track in report.tracks:
        sound = track.sound
        assert sound.quiet <= sound.average <= sound.peak
        if not report.index.placed(track.trace.device).device_class.traits.is_float:
            assert sound.peak <= 1e-9, "nothing in a fixed-point file is above full scale"
        assert sound.tolerance_db >= 0
        if sound.noises:
            assert sound.noise >= max(noise.level for noise in sound.noises) - 1e-9
        if not track.sources:
            assert track.is_silent


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_a_clip_is_where_a_stage_went_over(plan):
    report = Report(trace_plan(plan))
    for track in report.tracks:
        over = [stage for stage in upstream_of(track.trace.stage) if report.solver.level(stage).over_db > 0]
        if track.clip is not None:
            assert track.clip.over_db > 0 and track.clip.device in {stage.device for stage in over}


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_ladders_run_from_a_first_device_to_the_track(plan):
    report = Report(trace_plan(plan))
    for track in report.tracks:
        if not track.trace.stage.feeds:
            continue
        rungs = report.ladder(track.trace)
        assert rungs[-1].level.stage is track.trace.stage
        assert rungs[0].level.stage.kind is not StageKind.SOUND
        assert all(math.isfinite(rung.dbu_offset) for rung in rungs)
        for device in report.branches(track.trace.stage):
            assert report.ladder(track.trace, device)[0].level.stage.device == device


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_every_fix_can_be_applied(plan):
    adviser = Adviser(Report(trace_plan(plan)))
    for finding in adviser.findings:
        for fix in adviser.fixes(finding):
            trace_plan(apply_edits(plan, fix.edits))
            assert label_of(fix) and in_one(plan, fix.edits)


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_a_way_that_fits_leaves_no_stop_of_level(plan):
    """Applied, it gives what it promised, and its input neither clips nor stands in the wrong mode."""
    report = Report(trace_plan(plan))
    for run_id in plan.runs:
        for option in matching_options(report, run_id):
            after = apply_edits(plan, option.edits)
            if option.fits:
                rules = {
                    finding.rule
                    for finding in check(Report(trace_plan(after)))
                    if finding.run == run_id and finding.severity is Severity.STOP
                }
                assert not rules & {"clipping", "mic-into-line", "line-into-mic"}


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_taking_a_device_away_takes_its_sound_away(plan):
    name = next(iter(plan.devices))
    after = apply_edits(plan, [RemoveDevice(device=name)])
    report = Report(trace_plan(after))
    assert name not in {stage.device for track in report.tracks for stage in upstream_of(track.trace.stage)}
    for track in report.tracks:
        before = Report(trace_plan(plan)).track(track.trace.id)
        assert set(track.trace.stage.sources) <= set(before.sources)


@settings(max_examples=25 if IS_DEEP else 12)
@given(plans())
def test_the_same_plan_gives_the_same_findings(plan):
    first, second = check(Report(trace_plan(plan))), check(Report(trace_plan(plan)))
    assert first == second
    assert len({finding.id for finding in first}) == len(first), "each finding has an id of its own"


def test_an_unknown_track_is_none():
    from tidy_trunk.core.plan import Plan

    assert Report(trace_plan(Plan(name="x"))).track("nothing") is None
    assert check(Report(trace_plan(Plan(name="x")))) == []
    with pytest.raises(KeyError):
        Plan(name="x").runs["nothing"]
