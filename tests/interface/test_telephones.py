"""Telephones: keys are made on the machine, and a telephone works on where it has no connection."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from uuid import uuid4

import pytest
from playwright.sync_api import Page, Playwright, expect

from tests.interface.conftest import QUIET
from tests.interface.pages import PHONE
from tests.plans import padded_plan
from tests.served import with_a_door
from tidy_trunk.app.certificates import own_certificate
from tidy_trunk.core.log import TakeStatus
from tidy_trunk.services.container import Services
from tidy_trunk.services.guests import LocalNetwork
from tidy_trunk.store import Access

WEB = Path(os.environ.get("TIDY_TRUNK_WEB", "web/dist"))
KEPT = """async ([what, isSo]) => {
    const texts = async () => {
        if (!(await caches.has('tidy-answers'))) return []
        const answers = await (await caches.open('tidy-answers')).matchAll()
        return Promise.all(answers.map((answer) => answer.text()))
    }
    const holds = async () => (await texts()).some((text) => text.includes(what))
    while ((await holds()) !== isSo) await new Promise((again) => setTimeout(again, 50))
}"""
"""Waits until what the telephone keeps holds a text, or does not."""


@pytest.mark.deep
def test_a_key_is_made_named_renewed_and_revoked(screen: Page, services: Services, address: str):
    screen.goto("/telephones")
    expect(screen.get_by_text("This machine answers only itself.")).to_be_visible()
    with with_a_door(services, web=WEB) as port:
        screen.context.set_default_timeout(15_000)
        page = screen.context.browser.new_page()
        page.goto(f"http://127.0.0.1:{port.own}/telephones?page=/jobs/1/walk")
        page.get_by_label("Whose telephone").fill("Boom")
        page.get_by_label("Look only").check()
        page.get_by_role("button", name="Make a key").click()
        link = page.get_by_role("link", name="https://")
        expect(link).to_contain_text("/enter?page=/jobs/1/walk#")
        first = link.text_content()
        expect(page.get_by_alt_text("The link for this telephone as a square of dots")).to_be_visible()
        page.get_by_label("Name of the key of Boom").fill("Second boom")
        page.get_by_label("Name of the key of Boom").press("Enter")
        page.get_by_role("button", name="Renew the key of Second boom").click()
        expect(link).not_to_have_text(first)
        (record,) = services.guests.all()
        assert (record.name, record.access) == ("Second boom", Access.LOOK)
        page.get_by_role("button", name="Revoke the key of Second boom").click()
        expect(page.get_by_role("heading", name="Keys")).to_have_count(0)
        assert services.guests.all() == []
        page.close()


@pytest.mark.deep
def test_a_telephone_logs_without_a_connection_and_its_taps_arrive_once(
    playwright: Playwright, services: Services, tmp_path: Path
):
    """A take rolls while it is there, is cut and circled out of reach, over a reload of the page."""
    job = services.jobs.create(padded_plan()).revision.job
    with telephone(playwright, services, tmp_path) as (page, door, key):
        with with_a_door(services, **door) as port:
            page.goto(f"https://localhost:{port.door}/enter?page=/jobs/{job}/log#{key}")
            page.get_by_role("button", name="Roll 1A-1").first.click()
            page.evaluate("navigator.serviceWorker.ready.then(() => true)")
            page.reload()
            expect(page.get_by_role("heading", name="1A, take 1")).to_be_visible()
            page.evaluate(KEPT, ['"slate":"1A"', True])
        page.reload()
        page.get_by_role("button", name="Cut", exact=True).first.click()
        page.get_by_role("button", name="Circle 1A-1").click()
        expect(page.get_by_text("No connection. 2 taps wait here")).to_be_visible()
        page.reload()
        expect(page.get_by_role("heading", name="1A, take 2")).to_be_visible()
        with with_a_door(services, **door, door=port.door):
            expect(page.get_by_text("taps wait here")).to_have_count(0)
            (take,) = services.log.read(job).log.takes
            assert take.ends is not None and take.status is TakeStatus.CIRCLED


@contextmanager
def telephone(playwright: Playwright, services: Services, folder: Path) -> Iterator[tuple[Page, dict, str]]:
    """A telephone with a key to walk and log, what its door wants, and the key."""
    certificate = own_certificate(folder, "192.168.7.5")
    key = services.guests.make(LocalNetwork(""), uuid4(), "Boom", Access.WALK, "/").key
    browser = playwright.chromium.launch(
        executable_path=os.environ["TIDY_TRUNK_CHROMIUM"], args=[*QUIET, "--ignore-certificate-errors"]
    )
    page = browser.new_context(viewport=PHONE, ignore_https_errors=True).new_page()
    page.set_default_timeout(15_000)
    yield page, {"of_one": 24, "most": 24, "certificate": certificate, "web": WEB, "called": "localhost"}, key
    browser.close()


@pytest.mark.deep
def test_a_telephone_reloads_without_a_connection_and_its_marks_arrive_once(
    playwright: Playwright, services: Services, tmp_path: Path
):
    """The server goes away and comes back at the same address, as where a telephone walks out of reach."""
    job = services.jobs.create(padded_plan()).revision.job
    with telephone(playwright, services, tmp_path) as (page, door, key):
        with with_a_door(services, **door) as port:
            page.goto(f"https://localhost:{port.door}/enter?page=/jobs/{job}/walk#{key}")
            page.get_by_role("button", name="Start the full checklist").click()
            page.evaluate("navigator.serviceWorker.ready.then(() => true)")
            page.reload()  # now by way of the service worker, which keeps what it is told
            next_one = page.get_by_label("The next thing to look at")
            next_one.get_by_role("button", name="Good").click()
            expect(page.get_by_role("status").first).to_contain_text("1 of")
            page.evaluate(KEPT, ['"mark":"good"', True])
        page.reload()
        expect(page.get_by_role("status").first).to_contain_text("1 of")
        next_one.get_by_role("button", name="Good").click()
        expect(page.get_by_role("status").first).to_contain_text("2 of")
        expect(page.get_by_text("No connection. 1 mark waits here")).to_be_visible()
        page.reload()
        expect(page.get_by_role("status").first).to_contain_text("2 of")
        with with_a_door(services, **door, door=port.door):
            expect(page.get_by_text("waits here")).to_have_count(0)
            assert [mark.mark for mark in services.walks.all(job)[0].marks] == ["good", "good"]
            services.guests.revoke(services.guests.all()[0].id)
            page.reload()
            expect(page.get_by_text("only telephones with a key are let in").first).to_be_visible()
            page.evaluate(KEPT, ['"mark":"good"', False])
