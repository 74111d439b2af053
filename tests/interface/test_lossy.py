"""A bad connection: requests and answers that are lost, and a page that is loaded anew in the middle of it."""

from random import Random
from uuid import uuid4

import numpy as np
import pytest
from playwright.sync_api import Locator, Page, Route, expect

from tests.interface.pages import held, let_go, opened, slow, type_line
from tests.plans import padded_plan
from tests.sounds import wav
from tests.waiting import wait
from tidy_trunk.core.plan import Plan
from tidy_trunk.document import write_plan

LOST = 0.3
EDITS = 6


def comes_sooner(screen: Page, wanted: Locator) -> None:
    """The page tries again at longer and longer times, and at once when the browser says that it is connected."""
    for _ in range(300):
        if wanted.count():
            return
        screen.evaluate("dispatchEvent(new Event('online'))")
        screen.wait_for_timeout(100)
    expect(wanted).to_be_visible()


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
        comes_sooner(screen, screen.locator(".bar", has_text=f"Add b{number}"))
        screen.keyboard.press("Escape")
    assert {"request", "answer"} == set(lost)
    assert [record.number for record in service.history(job)] == list(range(EDITS + 1, 0, -1))
    assert list(service.plan(job).devices) == [f"b{number}" for number in range(1, EDITS + 1)]
    expect(screen.locator(".waiting")).to_have_count(0)


@pytest.mark.deep
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


@pytest.mark.deep
def test_an_undo_and_a_plan_file_outlive_a_reload(screen: Page, service):
    """Said before: a reload forgot them."""
    job = opened(screen, service, Plan(name="Stepped"), "job")
    type_line(screen, "add bag recorder as bag")
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    screen.keyboard.press("Escape")
    lost = [f"**/jobs/{job}/undo", f"**/jobs/{job}/plan"]
    for address in lost:
        screen.route(address, lambda route: (route.fetch(), route.abort()))  # it is done, and nobody hears so
    screen.get_by_role("button", name="Undo").click()
    expect(screen.locator(".waiting")).to_contain_text("Not saved yet: 1 change")
    screen.reload()
    expect(screen.locator(".waiting")).to_contain_text("Not saved yet: 1 change")
    screen.unroute(lost[0])  # from here the page sends it again by itself: another reload could come after that
    expect(screen.locator(".bar", has_text="Undo: Add bag")).to_be_visible()
    plan = {"name": "m", "mimeType": "application/json", "buffer": write_plan(Plan(name="From a file"))}
    screen.get_by_label("Read a plan file into this job").set_input_files(plan)
    screen.get_by_role("button", name="Replace the plan").click()
    expect(screen.locator(".waiting")).to_contain_text("Not saved yet: 1 change")
    screen.unroute(lost[1])
    screen.reload()
    expect(screen.get_by_label("Name", exact=True)).to_have_value("From a file")
    wait(lambda: not screen.evaluate("Object.keys(localStorage).some(key => key.startsWith('tidy-plan'))"))
    assert len(service.history(job)) == 4


@pytest.mark.deep
def test_the_next_line_is_typed_while_the_one_before_is_done(screen: Page, service):
    """Said before: at half a second, eight letters of the next line were lost, and devices came to be named after two lines."""
    job = opened(screen, service, Plan(name="Typed on"))
    slow(screen, "**/say", 150)
    edits = held(screen, "**/edits")
    line = screen.get_by_label("Command")
    line.click()
    for text in ("add boom", "add bag recorder as bag", "boom to bag 1, 7 m"):
        screen.keyboard.type(text, delay=20)
        screen.keyboard.press("Enter")
        expect(line).to_have_value("")
    expect(screen.get_by_text("next: boom to bag 1, 7 m")).to_be_visible()
    let_go(screen, "**/edits", edits)
    expect(screen.get_by_role("button", name="Cable 1 7 m XLR").first).to_be_visible(timeout=30_000)
    plan = service.plan(job)
    assert list(plan.devices) == ["boom-shotgun", "bag"] and len(plan.runs) == 1


@pytest.mark.deep
def test_a_line_that_cannot_be_done_comes_back(screen: Page, service):
    opened(screen, service, Plan(name="Comes back"))
    asked = held(screen, "**/say")  # Enter comes before the answer
    line = screen.get_by_label("Command")
    line.click()
    screen.keyboard.insert_text("nonsense of no kind")
    expect(line).to_have_value("nonsense of no kind")  # a key overtakes inserted text on a busy machine
    screen.keyboard.press("Enter")
    screen.keyboard.insert_text("add bag recorder")
    let_go(screen, "**/say", asked)
    expect(screen.get_by_text("not done: nonsense of no kind")).to_be_visible()
    expect(line).to_have_value("add bag recorder")
    line.fill("")
    screen.get_by_role("button", name="edit again").click()
    expect(line).to_have_value("nonsense of no kind")


@pytest.mark.deep
def test_a_field_shows_what_the_plan_holds(screen: Page, service):
    """Said before: after a change that was not made, fields went on showing it."""
    job = opened(screen, service, Plan(name="Held"), "job")
    rate = screen.get_by_label("Frame rate")
    expect(rate).to_have_value("25")
    before = rate.input_value()
    name = screen.get_by_label("Name", exact=True)
    conflict = '{"code": "revision-conflict", "detail": "somebody changed the job meanwhile", "status": 409}'
    screen.route("**/edits", lambda route: route.fulfill(status=409, body=conflict))
    rate.select_option("24")
    expect(screen.get_by_role("alert")).to_contain_text("the job was changed meanwhile")
    expect(rate).to_have_value(before)
    name.fill("Not held")
    name.blur()
    expect(name).to_have_value("Held")
    screen.unroute("**/edits")
    screen.get_by_role("button", name="Apply again").click()
    expect(rate).to_have_value("24")
    expect(name).to_have_value("Not held")
    assert (service.plan(job).name, service.plan(job).defaults.frame_rate) == ("Not held", "24")


def lost_once(screen: Page, address: str, method: str = "GET") -> list[str]:
    """The first request to an address, or its answer, is lost."""
    lost: list[str] = []

    def handler(route: Route) -> None:
        if route.request.method == method and not lost:
            lost.append(route.request.url)
            route.abort()
        else:
            route.continue_()

    screen.route(address, handler)
    return lost


@pytest.mark.deep
def test_a_page_asks_again_for_what_was_lost(screen: Page, services):
    """Said before: the walk page claimed that there was no walk, and a second one was begun."""
    job = services.jobs.create(padded_plan()).revision.job
    services.walks.begin(job, uuid4())
    walks, first = lost_once(screen, "**/walks"), lost_once(screen, f"**/jobs/{job}")
    screen.goto(f"/jobs/{job}/walk")
    expect(screen.get_by_role("status").filter(has_text="0 of")).to_be_visible()
    expect(screen.get_by_text("Start the full checklist")).to_have_count(0)
    assert walks and first


@pytest.mark.deep
def test_files_arrive_whole_over_a_connection_that_breaks(screen: Page, services):
    """Said before: of five files one arrived. A long one goes on where it broke off, and what arrived is not sent again."""
    job = services.jobs.create(padded_plan()).revision.job
    quiet = wav(np.zeros(48_000), rate=48_000)
    long = wav(np.random.default_rng(1).normal(0, 0.01, 48_000 * 100), rate=48_000)
    sent, pieces = [], []

    def lossy(route: Route) -> None:
        pieces.append(route.request.headers["content-range"])
        sent.append(len(route.request.post_data_buffer or b""))
        if len(pieces) in (2, 5):
            route.abort()
        elif len(pieces) == 3:
            route.fetch()
            route.abort()  # it arrived, and nobody heard so
        else:
            route.continue_()

    screen.route("**/sync/files?*", lossy)
    screen.goto(f"/jobs/{job}/sync")
    files = [("A.WAV", quiet), ("LONG.WAV", long), ("B.WAV", quiet)]
    screen.get_by_label("Drop all files here").set_input_files(
        [{"name": name, "mimeType": "audio/wav", "buffer": data} for name, data in files]
    )
    listed = screen.get_by_role("list", name="Files").get_by_role("listitem")
    expect(listed).to_have_count(3, timeout=60_000)
    assert sorted(file.name for file in services.sync.view(job).records) == ["A.WAV", "B.WAV", "LONG.WAV"]
    whole = sum(len(data) for _, data in files)
    assert len(long) > 2 * 4_000_000 and whole < sum(sent) <= whole + 3 * 4_000_000


@pytest.mark.deep
def test_a_measurement_is_followed_though_a_look_at_it_is_lost(screen: Page, services):
    job = services.jobs.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up")
    chooser = screen.locator("input[type=file]").first
    expect(chooser).to_be_attached()
    lost = lost_once(screen, "**/recordings")
    chooser.set_input_files(
        {"name": "take.wav", "mimeType": "audio/wav", "buffer": wav(np.zeros(48_000 * 20), rate=48_000)}
    )
    expect(screen.get_by_role("button", name="take.wav", exact=True)).to_be_visible()
    expect(screen.get_by_role("button", name="Cancel")).to_have_count(0)
    assert lost


@pytest.mark.deep
def test_enter_pressed_twice_is_one_line(screen: Page, service):
    """Said before: two devices."""
    job = opened(screen, service, Plan(name="Twice"))
    screen.route("**/edits", lambda route: (screen.wait_for_timeout(300), route.continue_()))
    type_line(screen, "add bag recorder as bag")
    screen.keyboard.press("Enter")
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    assert list(service.plan(job).devices) == ["bag"] and len(service.history(job)) == 2


@pytest.mark.deep
def test_three_presses_make_one_job(screen: Page, service):
    screen.goto("/")
    screen.get_by_label("New job").fill("Pressed")
    screen.locator("form", has=screen.get_by_label("New job")).evaluate(
        "form => { for (let at = 0; at < 3; at += 1) form.requestSubmit() }"
    )
    screen.wait_for_url("**/runs")
    assert [job.name for job in service.all()] == ["Pressed"]


@pytest.mark.deep
def test_a_button_is_busy_until_its_change_is_answered(screen: Page, service):
    """Said before: pressed twice on a slow connection it was done twice. Undo is done as often as its key is pressed."""
    job = opened(screen, service, padded_plan(), "job")
    edits = held(screen, "**/edits")
    screen.get_by_role("button", name="bag", exact=True).click()
    copy = screen.get_by_role("button", name="Copy", exact=True)
    copy.click()
    expect(copy).to_have_attribute("aria-busy", "true")
    copy.click()
    edits.pop().continue_()
    expect(copy).not_to_have_attribute("aria-busy", "true")
    assert len(service.plan(job).devices) == len(padded_plan().devices) + 1
    copy.click()
    expect(copy).to_have_attribute("aria-busy", "true")
    edits.pop().continue_()
    expect(copy).not_to_have_attribute("aria-busy", "true")
    assert not edits
    screen.keyboard.press("Escape")
    slow(screen, "**/undo", 400)
    for _ in range(2):
        screen.keyboard.press("u")
    screen.get_by_role("button", name="History").click()
    expect(screen.get_by_text("Undo: Copy")).to_have_count(3)  # two states of the history, and the notice
    assert service.plan(job).devices.keys() == padded_plan().devices.keys()
