"""Every main page by axe-core, a library of rules that test what WCAG 2.2 asks at A and AA."""

from pathlib import Path

from playwright.sync_api import Page, expect

from tests.equipment.class_file import PREAMP
from tests.interface.pages import PAGES, opened
from tidy_trunk.app.demo import foundry

AXE = Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
ALL = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']"
COLOURS = "['color-contrast']"  # all that another theme changes


def violations(screen: Page, rules: str) -> list[str]:
    return [
        f"{rule['id']}: {node['html'][:200]}"
        for rule in screen.evaluate(f"axe.run({{runOnly: {rules}}})")["violations"]
        for node in rule["nodes"][:3]
    ]


def test_no_page_shuts_anybody_out(screen: Page, service, services):
    screen.add_init_script(path=AXE)
    job = opened(screen, service, foundry())
    services.equipment.save([("box.toml", PREAMP.encode())])
    found = {}
    for page in (
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
        "/equipment/preamp",
        *(f"/jobs/{job}/{page}" for page in PAGES),
    ):
        screen.goto(page)
        expect(screen.locator("main")).not_to_be_empty()
        screen.wait_for_timeout(300)
        for theme, rules in (("light", ALL), ("dark", COLOURS)):
            screen.emulate_media(color_scheme=theme, reduced_motion="reduce")
            if wrong := violations(screen, rules):
                found[page, theme] = wrong
    assert not found
