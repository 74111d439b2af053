"""The real application on a real server, driven by Debian's Chromium."""

import os
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, Playwright, expect

from tests.served import served
from tidy_trunk.services.container import Services

expect.set_options(timeout=15_000)  # a busy machine is no failure; a page that is right answers at once

QUIET = [
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--disable-features=IsolateOrigins,site-per-process",  # there is one site: no process for each page
]


@pytest.fixture(scope="session")
def browser(playwright: Playwright) -> Iterator[Browser]:
    browser = playwright.chromium.launch(executable_path=os.environ["TIDY_TRUNK_CHROMIUM"], args=QUIET)
    yield browser
    browser.close()


@pytest.fixture
def address(services: Services) -> Iterator[str]:
    with served(services, Path(os.environ["TIDY_TRUNK_WEB"])) as address:
        yield address


@pytest.fixture
def screen(browser: Browser, address: str) -> Iterator[Page]:
    """A page on the application; it fails on any script error, and on any request that leaves the machine."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=address)
    page = context.new_page()
    page.set_default_timeout(15_000)
    trouble: list[str] = []
    page.on("pageerror", lambda error: trouble.append(str(error)))
    page.on("request", lambda request: None if request.url.startswith(address) else trouble.append(request.url))
    yield page
    page.unroute_all(behavior="ignoreErrors")
    context.close()
    assert not trouble
