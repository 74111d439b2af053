"""The foundry's whole day in the browser on both sizes: fourteen takes, a dead battery, a lost connection, five files that are wrong."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.interface.conftest import DESK, address, browser, server  # noqa: F401, fixtures
from tests.interface.pages import PHONE, opened
from tests.interface.test_whole_day import ON_THE_FIRST, Clock, Day, day_from_call_to_package, screen, tap  # noqa: F401
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import SetJob, apply_edits
from tidy_trunk.services.container import Services

SIZES = (DESK, PHONE)
DAY = Day(
    set_ups=(("1A", 3), ("1B", 2), ("2A", 1), ("2B", 3), ("3A", 4), ("4A", 1)),
    seed=7,
    wrong=("ends ", "is dated 2000-01-01", "is silent on", "is clipped on", "the other way round"),
)


@pytest.mark.parametrize("size", SIZES, ids=["desk", "hand"])
def test_the_foundrys_day_from_call_to_package(screen: Page, services: Services, tmp_path, size):  # noqa: F811
    screen.set_viewport_size(size)
    clock = Clock(screen, services)
    job = opened(screen, services.jobs, apply_edits(foundry(), [SetJob(**ON_THE_FIRST)]), "day")
    screen.get_by_text("What everything still holds").click()
    tap(screen, "Pack A, battery: empty")
    # Dead: it is changed before the first take.
    expect(screen.get_by_role("row", name=re.compile(r"^09:[0-2]\d \S+ Change the battery of Pack A"))).to_be_visible()
    day_from_call_to_package(screen, clock, job, DAY, tmp_path)
