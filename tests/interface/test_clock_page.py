"""The clock of a job in the browser: who gives time to whom, and what a longer day changes."""

from playwright.sync_api import Page, expect

from tests.core.clock.test_clock import jammed
from tidy_trunk.services.jobs import JobService


def test_the_clock_is_read_and_a_lead_changes_it(screen: Page, service: JobService):
    job = service.create(jammed()).revision.job
    screen.goto(f"/jobs/{job}/runs")
    expect(screen.get_by_text("film").first).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("c")
    row = screen.get_by_role("row").filter(has_text="film").first
    expect(row).to_contain_text("from tc")
    expect(row).to_contain_text("up to 216 ms")
    screen.get_by_label("a day of").fill("5")
    screen.get_by_label("a day of").press("Tab")
    expect(row).to_contain_text("up to 108 ms")
    expect(screen.get_by_role("row").filter(has_text="a clap alone")).to_have_count(1)
    screen.keyboard.press("Escape")
    screen.get_by_role("heading", name="Clock", exact=True).click()
    screen.keyboard.press("/")
    screen.keyboard.type("remove run 3")
    expect(screen.get_by_text("Remove run 3").first).to_be_visible()
    screen.keyboard.press("Enter")
    expect(row).to_contain_text("it has a socket for it")
