"""The clock of a job in the browser: the foundry's clock tree, a jam that is missed, what a longer day changes."""

import pytest
from playwright.sync_api import Page, expect

from tests.core.time.clock.test_clock import jammed
from tidy_trunk.app.demo import foundry
from tidy_trunk.services.jobs import JobService


def test_a_missed_jam_is_found_and_mended(screen: Page, service: JobService):
    """±1 ppm each: 20 ms after 2 h 46 min; jams at eight, in both teas and at dinner keep within it."""
    job = service.create(foundry()).revision.job
    screen.goto(f"/jobs/{job}/runs")
    expect(screen.get_by_text("Camera A").first).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("c")
    tree = screen.get_by_role("region", name="Timecode sources")
    expect(tree.get_by_role("button")).to_contain_text(
        ["Bag recorder", "Box A", "Camera A", "Pocket recorder", "Camera B", "Switcher"]
    )
    expect(tree.get_by_role("img")).to_have_accessible_name("Box A: beyond 0.5 frames from 10:46")
    finding = screen.get_by_role("complementary", name="Findings")
    expect(finding).to_contain_text("Box A is not jammed in time")
    finding.get_by_role("button", name="Jam from Bag recorder at 08:00, 10:15, 12:30, 15:00").click()
    expect(tree.get_by_role("img")).to_have_accessible_name("Box A: within 0.5 frames all day")
    expect(finding).not_to_contain_text("Box A")
    tree.get_by_role("button", name="Box A").click()
    form = screen.get_by_role("form", name="Jams of Box A")
    form.get_by_label("at", exact=True).fill("8:00, 10:15, 12:30")
    form.get_by_role("button", name="Set").click()
    expect(tree.get_by_role("img")).to_have_accessible_name("Box A: beyond 0.5 frames from 15:16")
    expect(finding).to_contain_text("beyond 0.5 frames from 15:16 on")
    form.get_by_label("at", exact=True).fill("soon")
    form.get_by_role("button", name="Set").click()
    expect(form.get_by_role("alert")).to_contain_text("times of day with commas")
    form.get_by_label("measured, ppm").fill("-0.3")
    form.get_by_label("measured, ppm").press("Tab")
    expect(tree.get_by_role("img")).to_have_accessible_name("Box A: within 0.5 frames all day")
    screen.get_by_role("heading", name="Timecode", exact=True).click()
    screen.keyboard.press("u")
    expect(finding).to_contain_text("from 15:16 on")


@pytest.mark.deep
def test_a_lead_that_stays_and_a_longer_day(screen: Page, service: JobService):
    job = service.create(jammed()).revision.job
    screen.goto(f"/jobs/{job}/clock")
    tree = screen.get_by_role("region", name="Timecode sources")
    expect(tree).to_contain_text("free-running drift today: up to 216 ms, 55 min within the limit")
    screen.get_by_label("to", exact=True).fill("13:00")
    screen.get_by_label("to", exact=True).press("Tab")
    expect(tree).to_contain_text("free-running drift today: up to 108 ms")
    expect(screen.get_by_role("row").filter(has_text="slate clap only")).to_have_count(1)
    screen.get_by_role("heading", name="Timecode", exact=True).click()
    screen.keyboard.press("/")
    screen.keyboard.type("remove cable 3")
    expect(screen.get_by_text("Remove cable 3").first).to_be_visible()
    screen.keyboard.press("Enter")
    expect(tree).to_contain_text("it has a timecode input")
