"""The walk on a telephone: one thumb, two people at once, and a connection that is cut in the middle."""

import re
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.interface.pages import PHONE
from tests.plans import padded_plan
from tidy_trunk.core.plan import Plan
from tidy_trunk.services.container import Services


def begun(page: Page, job) -> None:
    page.set_viewport_size(PHONE)
    page.goto(f"/jobs/{job}/walk")
    page.get_by_role("button", name="Start the full checklist").click()
    expect(page.get_by_role("status").first).to_contain_text("0 of")


def press(page: Page, name: str, then: str) -> None:
    page.get_by_label("The next thing to look at").get_by_role("button", name=name).click()
    expect(page.get_by_role("status").first).to_contain_text(then)


def test_a_walk_with_one_thumb_and_a_cut_connection(screen: Page, services: Services, browser: Browser, address: str):
    job = services.jobs.create(padded_plan()).revision.job
    begun(screen, job)
    buttons = screen.get_by_label("The next thing to look at").get_by_role("button")
    for box in (button.bounding_box() for button in buttons.all()):
        assert box["height"] >= 44 and box["y"] + box["height"] <= PHONE["height"]
    press(screen, "Good", "1 of")
    press(screen, "Fault", "1 fault")
    other = browser.new_context(base_url=address, viewport=PHONE).new_page()
    other.goto(f"/jobs/{job}/walk")
    expect(other.get_by_role("status").first).to_contain_text("1 fault")

    screen.context.set_offline(True)
    press(screen, "Good", "2 of")
    press(screen, "Good", "3 of")
    expect(screen.get_by_text("No connection. 2 marks wait here")).to_be_visible()
    press(other, "Good", "2 of")
    screen.context.set_offline(False)
    expect(screen.get_by_text("marks wait")).to_have_count(0)
    expect(other.get_by_role("status").first).to_contain_text("3 of")
    walk = services.walks.all(job)[0]
    assert sorted(mark.mark for mark in walk.marks) == ["fault", "good", "good", "good"]
    other.context.close()


@pytest.mark.deep
def test_marks_outlive_a_reload_and_are_taken_back(screen: Page, services: Services):
    job = services.jobs.create(padded_plan()).revision.job
    begun(screen, job)
    screen.route("**/marks", lambda route: route.abort())
    press(screen, "Good", "1 of")
    expect(screen.get_by_text("1 mark waits here")).to_be_visible()
    screen.reload()
    expect(screen.get_by_role("status").first).to_contain_text("1 of")
    screen.unroute("**/marks")
    expect(screen.get_by_text("mark waits")).to_have_count(0)
    screen.locator("li button").first.click()
    press(screen, "Undo", "0 of")
    expect(screen.get_by_text("mark waits")).to_have_count(0)  # the screen is ahead of the server until it is delivered
    assert services.walks.all(job)[0].marks[0].mark == "open"


@pytest.mark.deep
def test_a_plan_without_tracks_says_what_to_do(screen: Page, services: Services):
    job = services.jobs.create(Plan(name="Empty")).revision.job
    screen.goto(f"/jobs/{job}/walk")
    screen.get_by_role("button", name="Start the full checklist").click()
    expect(screen.get_by_role("alert")).to_contain_text("plan a cable first")


@pytest.mark.deep
def test_a_walk_that_is_left_is_not_asked_for_any_more(screen: Page, services):
    """Said before: left while a look was under way, it went on asking for ever."""
    job = services.jobs.create(padded_plan()).revision.job
    services.walks.begin(job, uuid4())
    screen.route("**/walks/*", lambda route: (screen.wait_for_timeout(400), route.continue_()))
    screen.goto(f"/jobs/{job}/walk")
    with screen.expect_request("**/walks/*"):
        pass
    screen.get_by_role("link", name="Connections").click()
    expect(screen).to_have_url(re.compile("/runs$"))
    asked = []
    screen.on("request", lambda request: asked.append(request.url) if "/walks/" in request.url else None)
    screen.wait_for_timeout(2500)
    assert asked == []
