"""The whole foundry, line by line, in the browser."""

from playwright.sync_api import Page

from tests.core.command.test_say import do
from tests.foundry_lines import LINES, patch_of
from tests.interface.conftest import address, browser, screen, server, window  # noqa: F401, fixtures
from tests.interface.pages import new_job, plan_of, say
from tidy_trunk.core.plan import Plan


def test_the_foundry_is_typed(screen: Page, service):  # noqa: F811
    new_job(screen, "Typed")
    for line in LINES:
        say(screen, line)
    (job,) = service.all()
    assert len(LINES) < 40
    assert patch_of(plan_of(service, job.id)) == patch_of(do(Plan(name="Casting day"), *LINES))
