"""A day in the browser from call to package: late, cut off, with files that are wrong. The foundry's whole day is in the deep run."""

import io
import json
import re
import subprocess
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect
from pypdf import PdfReader

from tests.interface.conftest import watched_page
from tests.interface.pages import PHONE, opened
from tests.plans import line_into_camera
from tidy_trunk.core.plan import SaveSetUp, SetJob, apply_edits
from tidy_trunk.services.container import Services

ON_THE_FIRST = {"date": "2026-12-01", "zone": "UTC", "day_begins_min": 540}
TAKE_S = 9
CALL = datetime(2026, 12, 1, 9, 0, tzinfo=UTC)


@dataclass(frozen=True)
class Day:
    """set_ups: slates with their takes; seed: of the faults; wrong: what is said of each of these."""

    set_ups: tuple[tuple[str, int], ...]
    seed: int
    wrong: tuple[str, ...]


class Clock:
    """The day's clock, of the server and of the page alike: it runs, and is put forward between takes."""

    def __init__(self, screen: Page, services: Services) -> None:
        self._screen, self._ahead = screen, CALL - datetime.now(UTC)
        services.log.now = services.day._now = lambda: datetime.now(UTC) + self._ahead
        screen.clock.install(time=CALL)

    def forward(self, seconds: int) -> None:
        self._ahead += timedelta(seconds=seconds)
        self._screen.clock.fast_forward(1000 * seconds)


@pytest.fixture
def screen(browser: Browser, address: str) -> Iterator[Page]:
    """In a window of its own, as its clock is another one."""
    context = browser.new_context(viewport=PHONE, base_url=address)
    with watched_page(context, address) as page:
        yield page
        context.close()


def tap(screen: Page, name: str | re.Pattern[str]) -> None:
    screen.get_by_role("button", name=name, exact=True).first.click()


def go(screen: Page, job: object, page: str) -> None:
    screen.goto(f"/jobs/{job}/{page}")


def day_from_call_to_package(screen: Page, clock: Clock, job: object, day: Day, folder: Path) -> None:
    """Late by 25 minutes, without a connection from the fourth take to the sixth, files simulated, read and copied twice."""
    screen.get_by_role("button", name="We are late").click()
    tap(screen, "25 min")
    expect(screen.get_by_role("status").filter(has_text="Planned again")).to_be_visible()

    go(screen, job, "log")
    number = 0
    for slate, count in day.set_ups:
        for take in range(1, count + 1):
            number += 1
            if number == 4:
                screen.context.set_offline(True)
            tap(screen, f"Roll {slate}-{take}")
            expect(screen.get_by_role("heading", name=f"{slate}, take {take}")).to_be_visible()
            if (
                not 4 <= number <= 6
            ):  # on its way while the clock is put forward, a tap would count as one of a clock that is wrong
                expect(screen.get_by_text(re.compile(r"revision \d+ of the plan"))).to_be_visible()
            clock.forward(TAKE_S)
            if number == 4:
                tap(screen, "plane")
            tap(screen, "Cut")
            if take == count:
                tap(screen, f"Circle {slate}-{take}")
            if number == 6:
                expect(screen.get_by_text("No connection.")).to_be_visible()
                screen.context.set_offline(False)
                screen.evaluate("dispatchEvent(new Event('online'))")
            clock.forward(90)
    expect(screen.get_by_text("taps wait")).to_have_count(0)
    said = f"{number} takes, {len(day.set_ups)} circled"
    expect(screen.get_by_role("status").filter(has_text=said)).to_be_visible()

    go(screen, job, "files")
    screen.get_by_text("No card at hand?").click()
    screen.get_by_label("Files with a fault").fill(str(len(day.wrong)))
    screen.get_by_label("Number of the draw").fill(str(day.seed))
    tap(screen, "Write and read them")
    differ = f"{number} of {number} takes have files, {len(day.wrong)} difference"
    clock_runs(screen, screen.get_by_role("status").filter(has_text=differ))
    for words in day.wrong:
        expect(screen.get_by_label("Differences").get_by_text(words)).to_be_visible()

    screen.get_by_role("button", name=re.compile("^Hear both")).first.click()
    both = screen.get_by_label("Guide and recorder together")
    expect(both).to_be_visible()
    assert screen.request.get(both.get_attribute("src")).body()[:4] == b"RIFF"

    screen.get_by_label("Into this folder").fill(str(folder / "one"))
    screen.get_by_label("And once more into").fill(str(folder / "two"))
    tap(screen, "Copy and check")
    clock_runs(screen, screen.get_by_text("copied twice, both copies read back without a difference."))
    for place in ("one", "two"):
        assert subprocess.run(["sha256sum", "-c", "--quiet", "sha256sum.txt"], cwd=folder / place).returncode == 0

    papers = zipfile.ZipFile(io.BytesIO(screen.request.get(f"/api/jobs/{job}/log/report.zip").body()))
    assert len(json.loads(papers.read("sound-report.json"))["takes"]) == number
    pages = "".join(page.extract_text() for page in PdfReader(io.BytesIO(papers.read("sound-report.pdf"))).pages)
    for slate, count in day.set_ups:
        for take in range(1, count + 1):
            assert f"{slate}-{take}" in pages
    assert "plane" in pages
    assert len(re.findall(rb"^\d{3} ", papers.read("circled-takes.edl"), re.MULTILINE)) >= len(day.set_ups)


@pytest.mark.deep
def test_a_short_day_from_call_to_package(screen: Page, services: Services, tmp_path):
    clock = Clock(screen, services)
    set_ups = [
        SaveSetUp(id=label.lower(), label=label, at_min=600 + 30 * n, takes=3, take_min=1)
        for n, label in enumerate(("1A", "1B"))
    ]
    job = opened(screen, services.jobs, apply_edits(line_into_camera(), [SetJob(**ON_THE_FIRST), *set_ups]), "day")
    day = Day(set_ups=(("1A", 3), ("1B", 3)), seed=3, wrong=("is cut short", "ends "))
    day_from_call_to_package(screen, clock, job, day, tmp_path)


def clock_runs(screen: Page, wanted) -> None:
    """Waits for what takes a while; the page looks again by its own clock, which has to run."""
    for _ in range(150):
        if wanted.count():
            return
        screen.clock.fast_forward(1500)
        screen.wait_for_timeout(700)
    expect(wanted).to_be_visible(timeout=100)
