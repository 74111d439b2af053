"""Several windows on one job, and a window that outlived an update."""

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.interface.pages import held, opened, type_line
from tests.plans import padded_plan
from tidy_trunk.core.plan import Plan, SetJob


@pytest.mark.deep
def test_a_second_window_sees_a_change_within_a_second(screen: Page, service, browser: Browser, address: str):
    """Said before: other people's edits showed only once one's own met them."""
    job = opened(screen, service, Plan(name="Two desks"))
    other = browser.new_context(base_url=address).new_page()
    other.add_init_script("localStorage.setItem('who', 'Ann')")
    other.goto(f"/jobs/{job}/runs")
    type_line(other, "add bag recorder as bag")
    expect(other.locator(".bar", has_text="Add bag")).to_be_visible()
    expect(screen.locator(".bar", has_text="Ann: Add bag")).to_be_visible(timeout=1000)
    type_line(screen, "add camera as cam")  # on the state that the other one left: no conflict
    expect(other.locator(".bar", has_text="Somebody else: Add cam")).to_be_visible()
    assert [record.number for record in service.history(job)] == [3, 2, 1]
    other.context.close()


@pytest.mark.deep
def test_nobody_else_writes_into_a_field_that_somebody_is_in(screen: Page, service):
    """Said before: the name that arrived stood before what was typed, and both were sent."""
    job = opened(screen, service, Plan(name="Mine"), "job")
    name, place = screen.get_by_label("Name", exact=True), screen.get_by_label("Room noise, dB(A)")
    expect(name).to_have_value("Mine")
    name.focus()
    screen.keyboard.press("Control+a")
    service.edit(job, 1, [SetJob(name="Theirs")], "Ann")
    expect(screen.locator(".bar", has_text="Ann: ")).to_be_visible()
    screen.keyboard.type("Typed")
    expect(name).to_have_value("Typed")
    screen.keyboard.press("Tab")
    expect(screen.locator(".bar", has_text="name Typed")).to_be_visible()
    place.focus()
    service.edit(job, 3, [SetJob(name="Theirs again", room_noise_db_spl=33)], "Ann")
    expect(name).to_have_value("Theirs again")
    screen.keyboard.press("Tab")
    expect(place).to_have_value("33")
    assert service.plan(job).name == "Theirs again"


@pytest.mark.deep
def test_an_answer_that_is_late_leaves_alone_who_has_come_back(screen: Page, service):
    """Said before: what the first edit met was written into the field while its next text was being typed."""
    job = opened(screen, service, Plan(name="Mine"), "job")
    name = screen.get_by_label("Name", exact=True)
    expect(name).to_have_value("Mine")
    edits = held(screen, "**/edits")
    name.fill("First")
    with screen.expect_request("**/edits"):
        screen.keyboard.press("Tab")
    name.focus()
    screen.keyboard.press("Control+a")
    service.edit(job, 1, [SetJob(name="Theirs")], "Ann")
    edits.pop().continue_()
    expect(screen.get_by_role("button", name="Apply again")).to_be_visible()
    screen.keyboard.type("Second")
    expect(name).to_have_value("Second")


def test_a_window_that_was_out_of_sight_looks_when_it_comes_back(screen: Page, service):
    job = opened(screen, service, Plan(name="Out of sight"))
    see = """hidden => {
        Object.defineProperty(document, 'hidden', { value: hidden, configurable: true })
        document.dispatchEvent(new Event('visibilitychange'))
    }"""
    expect(screen.get_by_text("Out of sight").first).to_be_visible()
    screen.evaluate(see, True)
    service.edit(job, 1, [SetJob(name="Back again")], "Ann")
    with screen.expect_request("**/news*"):
        screen.evaluate(see, False)
    expect(screen.locator(".bar", has_text="Ann: ")).to_be_visible()
    expect(screen).to_have_title("Back again · Tidy Trunk")


@pytest.mark.deep
def test_a_window_from_before_an_update_is_loaded_anew(screen: Page, service):
    """Said before: a click on a page whose part of the program was gone did nothing at all."""
    job = opened(screen, service, padded_plan())
    anew = []
    expect(screen.get_by_role("link", name="Line-up")).to_be_visible()
    screen.on("framenavigated", lambda _: anew.append(screen.url))

    def gone(route: Route) -> None:
        if anew:
            route.continue_()
        else:
            route.fulfill(status=404, body="gone")

    screen.route("**/assets/LineUpPage*.js", gone)
    screen.get_by_role("link", name="Line-up").click()
    expect(screen.get_by_role("heading", name="Line-up")).to_be_visible()
    assert anew and screen.url.endswith(f"/jobs/{job}/line-up")
