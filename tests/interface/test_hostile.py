"""Names that would be markup or script if a page took them for that: on every page, in every field that takes words."""

from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from tests.interface.pages import settled
from tests.plans import line_into_camera
from tests.sounds import sine, wav
from tidy_trunk.core.plan import RenameDevice, SetJob
from tidy_trunk.services.container import Services

NAMES = [
    "<img src=x onerror=window.ran=1>",
    '"><script>window.ran=1</script>',
    "'-window.ran=1-'",
    "<svg/onload=window.ran=1>",
    "{{constructor.constructor('window.ran=1')()}}",
    "javascript:window.ran=1//${window.ran=1}",
]
PAGES = ["job", "runs", "levels", "line-up", "simulation", "clock", "sync", "walk", "leads", "gain", "pads"]


@pytest.fixture
def job(services: Services, client):
    """A job in which everything that has a name is called like that, with its history, recordings, sync files and a walk."""
    job = services.jobs.create(line_into_camera()).revision.job
    devices = list(services.jobs.plan(job).devices)
    for number, name in enumerate(NAMES):
        base = services.jobs.newest(job).revision.number
        services.jobs.edit(job, base, [SetJob(name=name)], name)
        device = devices[number % len(devices)]
        services.jobs.edit(job, base + 1, [RenameDevice(device=device, label=name)], name)
        source = [{"kind": "add-source", "source": f"s{number}", "label": name}]
        client.post(f"/api/jobs/{job}/edits", json={"base_revision": base + 2, "who": name, "edits": source})
        query = {"name": name, "id": str(uuid4())}
        client.post(f"/api/jobs/{job}/recordings", params=query, content=wav(sine(1000, -20, 0.2)))
        client.post(
            f"/api/jobs/{job}/sync/files", params={**query, "id": str(uuid4())}, content=wav(sine(500, -20, 0.2))
        )
    services.walks.begin(job, uuid4())
    return job


@pytest.mark.deep
def test_no_name_is_taken_for_a_script(screen: Page, job):
    broken: list[str] = []
    screen.on("console", lambda message: broken.append(message.text) if message.type == "error" else None)
    screen.add_init_script(
        "window.violations = [];"
        "document.addEventListener('securitypolicyviolation', event => window.violations.push(event.blockedURI))"
    )
    shown = 0
    for page in ["", *(f"jobs/{job}/{page}" for page in PAGES)]:
        screen.goto(f"/{page}")
        settled(screen)
        shown += sum(name in screen.locator("body").inner_text() for name in NAMES)
        if page.startswith("jobs"):
            screen.get_by_role("button", name="History").click()
            expect(screen.locator(".p-drawer").get_by_text(NAMES[0]).first).to_be_visible()
            screen.keyboard.press("Escape")
        found = screen.evaluate(
            "[window.ran, window.violations, document.querySelectorAll('img[src=x], svg[onload]').length]"
        )
        assert found == [None, [], 0], page
    assert shown > len(PAGES), "the names are there, as words"
    assert not broken
