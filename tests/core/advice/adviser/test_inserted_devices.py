"""Via another device. Handbook §§5, 6 and 13: the preamp box or mixer powers what a 3.5 mm socket cannot."""

import pytest

from tests.plans import boom_in_bag, device, fixes, made, run
from tidy_trunk.core.advice.adviser import inserted_devices
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.command import say
from tidy_trunk.core.plan import AddSource, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import answer_words, label_of, option_words


def boom_on_camera():
    return made(
        device("boom-shotgun", "boom"),
        device("mirrorless-mic", "cam"),
        AddSource(id="voice", label="Voice", average_db_spl=60, heard_by={"boom": 0.5}),
        run("boom.out", "cam.mic", "xlr-trs"),
    )


def test_a_shotgun_reaches_a_small_camera_by_a_box():
    plan = boom_on_camera()
    before = [finding for finding in check(Report(trace_plan(plan))) if finding.rule == "microphone-unpowered"]
    found = inserted_devices(Report(trace_plan(plan)), "run-1")
    assert before and before[0].has_inserted_devices
    assert {label_of(fix) for fix in fixes(plan, before[0])} <= {option_words(option).label for option in found}, (
        "nothing but a box powers it here"
    )
    assert {"preamp-box", "field-mixer", "handheld-recorder"} == {
        edit.class_id for option in found for edit in option.edits if hasattr(edit, "class_id")
    }
    below = [round(option.noise_dbfs - option.average_dbfs) for option in found]
    assert below == sorted(below), "quiet ones first; of what is within a decibel the cheaper one"
    for option in found:
        mended = apply_edits(plan, option.edits)
        findings = check(Report(trace_plan(mended)))
        assert not [finding for finding in findings if finding.severity is Severity.STOP], option_words(option).label
        track = Report(trace_plan(mended)).track("cam.L")
        assert track.sound.average == pytest.approx(option.average_dbfs) and track.sources == ("voice",)


def test_a_recorder_that_is_there_goes_before_one_that_is_not():
    plan = made(device("boom-shotgun", "second"), device("mirrorless-line", "cam"), run("second.out", "cam.mic", "xlr-trs"),
                AddSource(id="other", label="Other", average_db_spl=60, heard_by={"second": 0.5}), base=boom_in_bag())  # fmt: skip
    found = inserted_devices(Report(trace_plan(plan)), "run-2")
    assert found[0].needs is None and "bag" in option_words(found[0]).label


def test_the_line_answers_with_what_would_work():
    """XLR microphone to a 3.5 mm camera: not like this, but with a box between."""
    plan = made(device("boom-shotgun", "boom"), device("mirrorless-mic", "camera"))
    plan = made(AddSource(id="voice", label="Voice", average_db_spl=60, heard_by={"boom": 0.5}), base=plan)
    answers = say(plan, "boom to camera, 1 m").proposals
    assert "via a" in answer_words(answers[0]).title and not answers[0].stops and answers[-1].stops
    boxed = [answer for answer in answers if "via a" in answer_words(answer).title]
    assert boxed and all("average" in answer_words(answer).outcome for answer in boxed)
    assert all("automatic level, menu to off" in " ".join(answer_words(answer).steps) for answer in boxed), (
        "levels are matched by hand"
    )
