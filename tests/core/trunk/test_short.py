"""What is done where a cable is short and nothing is to be bought."""

import pytest

from tests.few import each_of
from tests.plans import boom_in_bag, line_into_camera, padded_plan
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import MoveRun, edited
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.core.trunk import Piece, PieceKind, assign, cable_needs, other_ways
from tidy_trunk.words.trunk import other_way_words

LEADS = built_in().leads


def piece(lead_id, length_m=0.0, number=0):
    lead = LEADS[lead_id]
    return Piece(
        id=f"{lead_id}-{number}",
        kind=PieceKind.CABLE,
        label=lead.label,
        what=lead_id,
        length_m=length_m or lead.short_m or 10.0,
    )


def report_of(plan):
    return Report(trace_plan(plan))


def grave(report):
    return {(item.rule, item.run, item.device) for item in check(report) if item.severity is not Severity.NOTE}


def offered(plan, pieces):
    report = report_of(plan)
    leads = {**LEADS, **plan.leads}
    return report, other_ways(report, assign(cable_needs(report), pieces, leads), pieces, leads)


def test_another_output_does_where_an_adapter_for_it_is_there():
    """Handbook §3: a line output and a microphone socket, with the digital trim in place of an attenuator."""
    pieces = [piece("xlr", 10), piece("xlr-trs-open")]
    report, (way,) = offered(line_into_camera(), pieces)
    assert isinstance(way.edits[0], MoveRun) and way.pieces == ("xlr-trs-open-0",)
    after = report.edited(edited(report.index.plan, way.edits))
    assert grave(after) <= grave(report) and not assign(cable_needs(after), pieces, LEADS).short
    assert after.track("cam.L").sources == report.track("cam.L").sources == ("voice",)
    words = other_way_words(way, report.index)
    assert words.startswith("Cable 2 can go from bag out L to cam mic socket with ") and "output level" in words


@pytest.mark.parametrize("plan", each_of([line_into_camera(), padded_plan(25), boom_in_bag(), foundry()], 3))
def test_what_is_offered_is_there_and_makes_nothing_worse(plan):
    """Of every cable that there is one, but for those of the kind that is short."""
    report = report_of(plan)
    leads = {**LEADS, **plan.leads}
    for missing in {need.lead.id for need in cable_needs(report)}:
        pieces = [piece(lead_id) for lead_id in LEADS if lead_id != missing]
        _, ways = offered(plan, pieces)
        taken = [one for way in ways for one in way.pieces]
        assert len(taken) == len(set(taken)), "one piece is not promised to two runs"
        after = report
        for way in ways:
            after = after.edited(edited(after.index.plan, way.edits))
            assert not {need.runs for need in assign(cable_needs(after), pieces, leads).short} & {(way.run.id,)}
        assert grave(after) <= grave(report)
