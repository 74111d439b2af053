"""A long hour on a bad connection: two windows, edits at once, requests and answers lost, and pages loaded anew."""

import re
from collections import Counter
from random import Random

from playwright.sync_api import Browser, Page, Route, expect

from tests.interface.conftest import address, browser, server  # noqa: F401, fixtures
from tests.interface.pages import opened
from tidy_trunk.core.plan import Plan

EDITS = 500
LOST = 0.3
RELOADED = 0.1
PATIENT = 0.6


def lossy(page: Page, by: Random, count: Counter) -> None:
    def handler(route: Route) -> None:
        if by.random() < LOST:
            count["requests"] += 1
            route.abort()
            return
        answer = route.fetch()
        if by.random() < LOST:
            count["answers"] += 1
            route.abort()
        else:
            route.fulfill(response=answer)

    page.route("**/edits", handler)


def kept_out_of(page: Page, job) -> list[str]:
    """What the page's outbox holds."""
    return page.evaluate(
        "job => Object.keys(localStorage).filter(key => key.startsWith(`tidy-plan-${job}`))"
        ".map(key => JSON.parse(localStorage[key])).filter(({ instead }) => !instead)"
        ".flatMap(({ edits }) => edits.map(({ name }) => name))",
        str(job),
    )


def test_five_hundred_edits_arrive_once_or_are_shown(browser: Browser, address: str, service):  # noqa: F811
    by, count = Random(12), Counter()
    contexts = [browser.new_context(base_url=address) for _ in range(2)]
    pages = [context.new_page() for context in contexts]
    job = opened(pages[0], service, Plan(name="Hour"), "job")
    pages[1].goto(f"/jobs/{job}/job")
    for page in pages:
        lossy(page, by, count)
    for number in range(1, EDITS + 1):
        page = by.choice(pages)
        if by.random() < RELOADED:
            count["reloads"] += 1
            page.reload()
        name = page.get_by_label("Name", exact=True)
        expect(name).to_be_visible(timeout=60_000)
        name.fill(f"edit {number}")
        name.blur()
        if by.random() < PATIENT:
            expect(page.locator(".bar", has_text="Not saved yet")).to_have_count(0, timeout=180_000)
        shown = page.get_by_role("button", name="Apply again")
        if number % 15 == 0 and shown.count():
            shown.click()
            count["done again"] += 1
    kept_out = []
    for page in pages:
        page.unroute_all(behavior="ignoreErrors")
        expect(page.locator(".bar", has_text="Not saved yet")).to_have_count(0, timeout=180_000)
        page.reload()
        expect(page.get_by_label("Name", exact=True)).to_be_visible()
        page.wait_for_timeout(2000)
        kept_out += kept_out_of(page, job)
    done = Counter(
        name for record in service.history(job) for name in re.findall(r"edit \d+", record.sentence.split("was")[0])
    )
    print(dict(count), len(done), "done", len(kept_out), "kept out")
    twice = {name: times for name, times in done.items() if times > 1}
    missing = {f"edit {number}" for number in range(1, EDITS + 1)} - set(done) - set(kept_out)
    assert not twice and not missing
    assert not set(kept_out) & set(done), "what was done is not shown as kept out"
    assert min(count["requests"], count["answers"], count["reloads"]) > EDITS / 25
    for context in contexts:
        context.close()
