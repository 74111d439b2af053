"""Rows of Runs in a recordist's words. Tape colours: IEC 60062, from memory."""

import pytest

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.results.rows import row_of, tape_of


def row(plan: Plan, track_id: str):
    report = Report(trace_plan(plan))
    return row_of(report, report.track(track_id))


@pytest.mark.parametrize(
    ("number", "bands"),
    [(4, ("yellow",)), (14, ("brown", "yellow")), (20, ("red", "black")), (376, ("orange", "violet", "blue")), (89, ("grey", "white"))],
)  # fmt: skip
def test_tape(number, bands):
    assert tape_of(number) == bands


def test_a_row_reads_from_source_to_track():
    found = row(line_into_camera(), "cam.L")
    assert [stop.label for stop in found.stops] == ["boom", "bag", "cam"]
    assert [stop.detail for stop in found.stops] == [
        "Voice at 0.5 m",
        "in 1 · mic · 48 V · +50 dB → line out · 0 dB",
        "mic socket · +1.5 dB",
    ]
    assert [lead.label for lead in found.leads] == ["7 m XLR", "0.3 m 3.5 mm TRS"]
    assert [lead.plugs for lead in found.leads] == ["XLR-3", "3.5 mm TRS"]
    assert [lead.number for lead in found.leads] == [1, 2]


def test_what_is_inside_a_lead_is_said():
    assert row(padded_plan(25), "cam.L").leads[-1].inside == "−25 dB"
    crossed = made(device("dynamic-handheld", "hand"), run("hand.out", "bag.in2", "xlr-crossed"), base=boom_in_bag())
    assert row(crossed, "bag.2").leads[0].inside == "crossed"


def test_settings_that_matter_are_said():
    plan = made(put("cam", "mic.auto.menu", True), put("cam", "mic.plug_in.menu", True), base=line_into_camera())
    assert row(plan, "cam.L").stops[-1].detail == "mic socket · plug-in · +1.5 dB · automatic"
    behind = made(put("cam", "mic.pad", True), base=line_into_camera("mirrorless-pad-behind"))
    assert row(behind, "cam.L").stops[-1].detail.endswith("attenuator −20")


def test_radio_is_no_lead_and_its_aerial_no_news():
    found = row(foundry(), "bag.2")
    assert [lead.label for lead in found.leads] == ["own plug", "radio", "0.5 m XLR"]
    assert [lead.wireless for lead in found.leads] == [False, True, False]
    assert "aerial" not in " ".join(stop.detail for stop in found.stops)


def test_the_other_sources_of_a_mix_are_counted():
    assert row(foundry(), "bag.mix-l").others == 1
    assert row(foundry(), "bag.1").others == 0


def test_a_track_without_a_plug_has_no_way():
    assert row(boom_in_bag(), "bag.8").stops == ()


def test_the_demo_carries_classic_mistakes_on_at_least_eight_runs():
    plan = foundry()
    assert len(plan.runs) >= 8
    from tidy_trunk.core.advice.checks import check

    rules = {finding.rule for finding in check(Report(trace_plan(plan)))}
    assert rules >= {
        "line-into-mic", "wrong-lead", "microphone-unpowered", "automatic-level", "unbalanced-too-long", "transmitter-low",
        "source-without-track",
    }  # fmt: skip
