"""Fixes taken by keys until none is left, on plans with the classic mistakes in them."""

import pytest
from playwright.sync_api import Page, expect

from tests.core.advice.adviser.test_trials import BAG_AND_CAMERA, RADIO, typed
from tests.few import few
from tests.interface.pages import opened, plan_of
from tidy_trunk.core.advice.adviser import gain_plan
from tidy_trunk.core.advice.checks import Severity, check
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

MISTAKES = {
    "line into a microphone socket": (*BAG_AND_CAMERA, "bag line to cam, 1 m, by 3.5 mm trs"),
    "camera left far up": (*BAG_AND_CAMERA, "bag line to cam, 0.5 m", "set cam gain 30", "set cam auto on"),
    "transmitter turned down": ("add shoulder camcorder as cam", *RADIO, "rx to cam 1, 0.5 m", "set tx gain 0", "set cam 1 gain 38"),
    "power off, and T-power on": ("add field mixer as mixer", "add bag recorder as bag", "add boom shotgun as boom", "x at boom, 0.5 m",
                                  "boom to mixer 1", "mixer out l to bag 1, 2 m", "set mixer 1 48 v off", "set mixer 1 mode t-power"),
    "one-to-one cable": ("add pocket recorder as pocket", "add dynamic handheld as dyn", "y at dyn, 0.1 m",
                        "dyn to pocket, by xlr to 3.5 mm, one to one"),
}  # fmt: skip


def key_of(card) -> bool:
    """Whether a finding that is pointed at has a fix, once the program has tried what mends it."""
    expect(card.get_by_text("Trying what mends it")).to_have_count(0)
    return (
        card.locator(".fixes kbd").count() > 0 and "another box" not in card.locator(".fixes button").first.inner_text()
    )


@pytest.mark.deep
@pytest.mark.parametrize("lines", few(((lines,) for lines in MISTAKES.values()), 1), ids=MISTAKES.keys())
def test_f_and_a_until_nothing_is_left(screen: Page, service, lines):
    job = opened(screen, service, typed(*lines))
    expect(screen.locator(".finding").first).to_be_visible()
    seen, idle = [plan_of(service, job)], 0
    while idle < screen.locator(".finding").count():
        screen.keyboard.press("f")
        card = screen.locator(".finding.pointed")
        expect(card).to_have_count(1)
        if not key_of(card):
            idle += 1
            continue
        idle, before = 0, service.newest(job).revision.number
        screen.keyboard.press("a")
        while service.newest(job).revision.number == before:
            screen.wait_for_timeout(50)
        assert plan_of(service, job) not in seen, "a plan comes twice"
        seen.append(plan_of(service, job))
    report = Report(trace_plan(seen[-1]))
    stops = {finding.id for finding in check(report) if finding.severity is Severity.STOP}
    assert len(seen) > 1 and stops <= {finding.id for finding in gain_plan(report).stops_left}
