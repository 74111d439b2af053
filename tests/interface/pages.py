"""What tests of the interface do on a page."""

from playwright.sync_api import Page, Route, expect

PAGES = (
    "job",
    "runs",
    "levels",
    "gain",
    "line-up",
    "simulation",
    "clock",
    "sync",
    "walk",
    "trunk",
    "day",
    "log",
    "drill",
    "files",
    "leads",
    "pads",
    "wrong",
)
"""Of a job, by the ends of their addresses."""

PHONE = {"width": 390, "height": 844}

STILL = """() => new Promise((done) => {
    const still = () => { seen.disconnect(); done() }
    let timer = setTimeout(still, 120)
    const seen = new MutationObserver(() => { clearTimeout(timer); timer = setTimeout(still, 120) })
    seen.observe(document, { subtree: true, childList: true, characterData: true, attributes: true })
})"""
"""Waits until nothing on the page has changed for a moment."""


def new_job(page: Page, name: str = "Trial") -> None:
    page.goto("/")
    page.get_by_label("New job").fill(name)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=name)).to_be_visible()


def say(page: Page, line: str, choice: int = 0) -> None:
    """Type a line and take an answer, by keys alone; all its letters at once, as a quick hand has them."""
    page.keyboard.press("/")
    field = page.get_by_label("Command")
    expect(field).to_be_focused()
    page.keyboard.insert_text(line)
    expect(page.locator("#say-answer").get_by_role("option").nth(choice)).to_be_visible()
    for _ in range(choice):
        page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(field).to_have_value("")
    page.keyboard.press("Escape")


def type_line(screen: Page, text: str) -> None:
    """Enter, without waiting for the result."""
    screen.get_by_label("Command").click()
    screen.keyboard.insert_text(text)
    expect(screen.locator("#say-answer").get_by_role("option").first).to_be_visible()
    screen.keyboard.press("Enter")


def opened(screen: Page, service, plan, station="runs"):
    job = service.create(plan).revision.job
    screen.goto(f"/jobs/{job}/{station}")
    return job


def settled(screen: Page) -> None:
    """Waits until a page has what it asked for, and shows it."""
    expect(screen.locator("main")).not_to_be_empty()
    screen.evaluate(STILL)


def plan_of(service, job):
    return service.newest(job).evaluation.plan


def slow(screen: Page, address: str, by_ms: int) -> None:
    screen.route(address, lambda route: (screen.wait_for_timeout(by_ms), route.continue_()))


def held(screen: Page, address: str) -> list[Route]:
    """Requests that wait until the test lets them go: what is shown meanwhile stands however busy the machine is."""
    routes: list[Route] = []
    screen.route(address, lambda route: routes.append(route))
    return routes


def let_go(screen: Page, address: str, routes: list[Route]) -> None:
    """What was held, and all that comes after it."""
    for route in routes:
        route.continue_()
    screen.unroute(address)
