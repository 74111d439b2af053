"""A bad connection: requests and answers that are lost, and a page that is loaded anew in the middle of it."""

from random import Random

from playwright.sync_api import Page, Route, expect

from tests.interface.test_patch import opened
from tidy_trunk.core.plan import Plan

LOST = 0.3
EDITS = 12


def type_line(screen: Page, text: str) -> None:
    """Enter, and no waiting for what comes of it."""
    screen.get_by_label("Say a run").click()
    screen.keyboard.insert_text(text)
    expect(screen.locator("#say-answer").get_by_role("option").first).to_be_visible()
    screen.keyboard.press("Enter")


def test_every_edit_arrives_once(screen: Page, service):
    """Three of ten requests are lost, and three of ten answers: what was lost is sent again, and done once."""
    job = opened(screen, service, Plan(name="Lossy"))
    by, lost = Random(4), []

    def lossy(route: Route) -> None:
        if by.random() < LOST:
            lost.append("request")
            route.abort()
            return
        answer = route.fetch()
        if by.random() < LOST:
            lost.append("answer")
            route.abort()
        else:
            route.fulfill(response=answer)

    screen.route("**/edits", lossy)
    for number in range(1, EDITS + 1):
        type_line(screen, f"add bag recorder as b{number}")
        expect(screen.locator(".bar", has_text=f"Add b{number}")).to_be_visible(timeout=60_000)
        screen.keyboard.press("Escape")
    assert {"request", "answer"} == set(lost)
    assert [record.number for record in service.history(job)] == list(range(EDITS + 1, 0, -1))
    assert list(service.plan(job).devices) == [f"b{number}" for number in range(1, EDITS + 1)]
    expect(screen.locator(".waiting")).to_have_count(0)


def test_what_was_not_saved_is_shown_and_outlives_a_reload(screen: Page, service):
    job = opened(screen, service, Plan(name="Reloaded"))
    screen.route("**/edits", lambda route: route.abort())
    type_line(screen, "add bag recorder as bag")
    expect(screen.locator(".waiting")).to_contain_text("Not saved yet: 1 change")
    assert service.plan(job).devices == {}
    screen.unroute("**/edits")
    screen.reload()
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    assert list(service.plan(job).devices) == ["bag"] and len(service.history(job)) == 2


def test_enter_pressed_twice_is_one_line(screen: Page, service):
    """Said before: two devices."""
    job = opened(screen, service, Plan(name="Twice"))
    screen.route("**/edits", lambda route: (screen.wait_for_timeout(300), route.continue_()))
    type_line(screen, "add bag recorder as bag")
    screen.keyboard.press("Enter")
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    assert list(service.plan(job).devices) == ["bag"] and len(service.history(job)) == 2


def test_three_presses_make_one_job(screen: Page, service):
    screen.goto("/")
    screen.get_by_label("New job").fill("Pressed")
    screen.locator("form").first.evaluate("form => { for (let at = 0; at < 3; at += 1) form.requestSubmit() }")
    screen.wait_for_url("**/runs")
    assert [job.name for job in service.all()] == ["Pressed"]
