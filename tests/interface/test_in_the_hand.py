"""Every page on a telephone, and the keys after a typed line."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.few import few
from tests.interface.pages import PHONE, opened, type_line
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan


@pytest.mark.deep
def test_the_answer_of_a_line_stays_on_a_telephone(screen: Page, service):
    screen.set_viewport_size(PHONE)
    opened(screen, service, foundry())
    screen.get_by_label("Command").fill("bag line to pocket")
    answer = screen.locator("#say-answer")
    expect(answer).to_be_visible()
    box = answer.bounding_box()
    assert box["x"] >= 0 and box["x"] + box["width"] <= PHONE["width"]


@pytest.mark.parametrize(("key", "stays"), few([("Enter", False), ("Shift+Enter", True)], 1))
def test_after_a_line_the_keys_work_again(screen: Page, service, key, stays):
    """Said before: f, a and u went on being typed into the line. Shift+Enter stays in it, for the next one."""
    job = opened(screen, service, Plan(name="Help"))
    screen.get_by_label("Command").click()
    screen.keyboard.insert_text("add bag recorder as bag")
    expect(screen.locator("#say-answer").get_by_role("option").first).to_be_visible()
    screen.keyboard.press(key)
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    line = screen.get_by_label("Command")
    if stays:
        expect(line).to_be_focused()
        return
    expect(line).not_to_be_focused()
    screen.keyboard.press("u")
    expect(screen.locator(".bar", has_text="Undo: Add bag")).to_be_visible()
    assert service.plan(job).devices == {}


@pytest.mark.deep
def test_what_was_done_is_told_on_its_page_alone(screen: Page, service):
    """Said before: on every page, until somebody closed it."""
    opened(screen, service, Plan(name="Told"))
    type_line(screen, "add bag recorder as bag")
    expect(screen.locator(".bar", has_text="Add bag")).to_be_visible()
    screen.get_by_role("link", name="Levels").click()
    expect(screen).to_have_url(re.compile("/levels"))
    expect(screen.locator(".bar")).to_have_count(0)


@pytest.mark.deep
def test_a_control_is_called_what_is_read_on_it(screen: Page, service):
    """WCAG 2.5.3, label in name: who speaks to a page says what he reads. Said before: 44 controls had another name."""
    job = opened(screen, service, foundry())
    names = """() => {
      const plain = text => text.toLowerCase().replace(/\\s+/g, ' ').trim()
      return [...document.querySelectorAll('button[aria-label], a[aria-label], [role=button][aria-label]')]
        .filter(({ innerText }) => /[a-z]/i.test(innerText))
        .filter(at => !plain(at.getAttribute('aria-label')).includes(plain(at.innerText)))
        .map(at => at.getAttribute('aria-label'))
    }"""
    for page in ("runs", "gain"):
        screen.goto(f"/jobs/{job}/{page}")
        expect(screen.locator("main").get_by_role("button").nth(6)).to_be_visible()
        assert screen.locator("main [aria-label]").count() > 10
        assert screen.evaluate(names) == [], page


@pytest.mark.deep
def test_the_ladder_stands_upright_and_options_are_read_without_scrolling_sideways(screen: Page, service):
    """Said before: a picture of 560 px of which a telephone showed two stages, and a table cut off at the right."""
    screen.set_viewport_size(PHONE)
    opened(screen, service, foundry(), "levels/camera-b.L")
    ladder = screen.get_by_role("group", name=re.compile("^Ladder of"))
    stages = ladder.get_by_role("button")
    expect(stages).to_have_count(9)
    tops = [stages.nth(at).bounding_box()["y"] for at in range(9)]
    assert tops == sorted(set(tops)), "one below the other"
    expect(ladder).to_contain_text("clips by 17.3 dB")
    stages.first.click()
    expect(screen.get_by_role("region", name="How it comes about")).to_be_in_viewport()
    for item in (ladder, screen.get_by_role("region", name="Matching options")):
        box = item.bounding_box()
        assert box["x"] >= 0 and box["x"] + box["width"] <= 390
    cells = screen.get_by_role("region", name="Matching options").get_by_role("cell")
    assert all(cell["x"] + cell["width"] <= 390 for cell in (item.bounding_box() for item in cells.all()))
