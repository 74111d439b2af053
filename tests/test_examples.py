"""The examples: right without their mistake, and the mistake is the gravest thing that is then found."""

import pytest

from tidy_trunk.core.advice.adviser import fixed
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import NotFoundError
from tidy_trunk.services.examples import EXAMPLES, example_plan

FOUND = {"bakery": "automatic-level", "reading-room": "line-into-mic", "choir": "timecode-rate"}


@pytest.mark.parametrize("example_id", FOUND)
def test_an_example_has_its_mistake_and_nothing_else(example_id):
    right = check(Report(trace_plan(example_plan(example_id, is_right=True))))
    assert not [finding.rule for finding in right if finding.severity is not Severity.NOTE]
    assert check(Report(trace_plan(example_plan(example_id))))[0].rule == FOUND[example_id]


@pytest.mark.parametrize("example_id", FOUND)
def test_its_fixes_lead_out_of_it(example_id):
    plan, taken = fixed(example_plan(example_id))
    assert taken[0].ended.finding.rule == FOUND[example_id]
    assert not [finding for finding in check(Report(trace_plan(plan))) if finding.severity is not Severity.NOTE]


def test_there_is_no_other():
    assert [example.id for example in EXAMPLES] == list(FOUND)
    with pytest.raises(NotFoundError):
        example_plan("opera")
