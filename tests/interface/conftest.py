"""The real application on a real server, driven by Debian's Chromium."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from types import SimpleNamespace

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, expect

from tests.served import app_on, served
from tests.waiting import wait
from tidy_trunk.services.container import Services

expect.set_options(timeout=15_000)  # a busy machine is no failure; a page that is right answers at once

DESK = {"width": 1280, "height": 800}
REMEMBERED = "cookies,local_storage,indexeddb,service_workers,cache_storage"

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


@pytest.fixture(scope="session")
def server() -> Iterator[SimpleNamespace]:
    """The application at one address for the whole run, so that browsers need not read and compile it for each test."""
    web = Path(os.environ["TIDY_TRUNK_WEB"])
    with served(None, web) as address:
        yield SimpleNamespace(address=address, state=app_on(None, web).state)


@pytest.fixture
def address(server: SimpleNamespace, services: Services) -> Iterator[str]:
    """Of the application on the test's own services."""
    server.state.services = services
    yield server.address
    wait(lambda: not server.state.underway)  # what is still being answered needs them


@pytest.fixture(scope="session")
def window(browser: Browser, server: SimpleNamespace) -> Iterator[BrowserContext]:
    context = browser.new_context(viewport=DESK, base_url=server.address)
    yield context
    context.close()


@pytest.fixture
def screen(window: BrowserContext, address: str) -> Iterator[Page]:
    """A page that remembers nothing of any other test's."""
    with watched_page(window, address) as page:
        yield page
        page.unroute_all(behavior="ignoreErrors")
        window.set_offline(False)
        page.goto("about:blank")
        window.new_cdp_session(page).send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": REMEMBERED})
        page.close()


@contextmanager
def watched_page(context: BrowserContext, address: str) -> Iterator[Page]:
    """A page on the application; it fails on any script error, and on any request that leaves the machine."""
    page = context.new_page()
    page.set_default_timeout(15_000)
    trouble: list[str] = []
    page.on("pageerror", lambda error: trouble.append(str(error)))
    page.on("request", lambda request: None if request.url.startswith(address) else trouble.append(request.url))
    yield page
    assert not trouble
