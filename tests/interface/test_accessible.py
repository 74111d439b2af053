"""Every page: by axe-core, a library of rules that test what WCAG 2.2 asks at A and AA, and in the hand."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, TimeoutError, expect

from tests.equipment.class_file import PREAMP
from tests.few import IS_DEEP, few
from tests.interface.pages import PAGES, PHONE, opened, settled
from tidy_trunk.app.demo import foundry

AXE = Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
ALL = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']"
LEFT_OUT = "{}" if IS_DEEP else "{'color-contrast': {enabled: false}}"
"""It takes half of the time: at every landing `tokens.test.ts` holds the colours themselves against each other."""
COLOURS = "['color-contrast']"  # all that another theme changes
DOORS = (
    "/",
    "/?q=interview, two people, two lavs on radio, boom, bag recorder, 1 camera mic socket only, once",
    "/connect?from=boom-shotgun&to=mirrorless-mic",
    "/check",
    "/sync-files",
    "/tools",
    "/tools/cable",
    "/tools/attenuators",
    "/backups",
    "/telephones",
    "/equipment",
    "/equipment/new",
    "/trunk",
    "/drill",
    "/ear",
    "/equipment/preamp",
)


def violations(screen: Page, rules: str) -> list[str]:
    return [
        f"{rule['id']}: {node['html'][:200]}"
        for rule in screen.evaluate(f"axe.run({{runOnly: {rules}, rules: {LEFT_OUT}, resultTypes: ['violations']}})")[
            "violations"
        ]
        for node in rule["nodes"][:3]
    ]


def wider_than_the_hand(screen: Page) -> list[int]:
    """How wide page and main part stay after all that draws itself to its width has done so; nothing if they fit."""
    widths = "[document.documentElement, document.querySelector('main')].map(at => at.scrollWidth)"
    try:
        screen.wait_for_function(f"width => Math.max(...{widths}) <= width", arg=PHONE["width"], timeout=3_000)
    except TimeoutError:
        return screen.evaluate(widths)
    return []


@pytest.mark.parametrize(("theme", "rules"), few([("light", ALL), ("dark", COLOURS)], 1), ids=["light", "dark"])
@pytest.mark.parametrize("of_a_job", [False, True], ids=["doors", "job"])
def test_no_page_shuts_anybody_out_or_scrolls_sideways(screen: Page, service, services, of_a_job, theme, rules):
    """Said before: the Job page was twice as wide as the hand, and the navigation ended without a sign."""
    screen.add_init_script(path=AXE)
    screen.emulate_media(color_scheme=theme, reduced_motion="reduce")
    desk = screen.viewport_size
    screen.set_viewport_size(PHONE)
    opened(screen, service, foundry(), PAGES[0])
    services.equipment.save([("box.toml", PREAMP.encode())])
    found = {}
    for page in PAGES if of_a_job else DOORS if IS_DEEP else DOORS[:1]:
        if of_a_job:
            screen.get_by_label("Page", exact=True).select_option(page)
            expect(screen).to_have_url(re.compile(f"/{page}(/|$)"))
        else:
            screen.goto(page)
        settled(screen)
        if too_wide := wider_than_the_hand(screen):
            found[page, "hand"] = too_wide
        screen.set_viewport_size(desk)
        if wrong := violations(screen, rules):
            found[page] = wrong
        screen.set_viewport_size(PHONE)
    assert not found


@pytest.mark.deep
def test_a_telephone_chooses_pages_from_a_list(screen: Page, service):
    screen.set_viewport_size(PHONE)
    opened(screen, service, foundry())
    pages = screen.get_by_label("Page", exact=True)
    expect(pages).to_be_visible()
    assert pages.locator("option").count() >= 6
    pages.select_option("levels")
    expect(screen).to_have_url(re.compile("/levels"))
