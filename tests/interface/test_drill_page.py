"""Drills in the browser: one by keyboard, one by mouse, and one in which nothing is wrong."""

import re

import pytest
from playwright.sync_api import Page, expect

from tidy_trunk.core.drill import NO_FAULT, DrillLevel, draw_drill
from tidy_trunk.results.drill import drill_out
from tidy_trunk.services.container import Services
from tidy_trunk.words.drill import drill_answer_words


def drawn(seed):
    """The steps of its shortest order, as buttons are called, and the answer."""
    drill = draw_drill(seed)
    out = drill_out("", "", drill, (), (), drill.truth)
    answer = next(one.label for one in out.answers if one.id == drill.truth)
    return [step.label for step in out.judged.best], answer


def test_a_drill_by_keyboard(screen: Page, services: Services):
    steps, answer = drawn(3)
    screen.goto("/drill")
    screen.get_by_label("Number, for the same drill as others").fill("3")
    screen.keyboard.press("Enter")
    expect(screen.get_by_text("Nothing yet. Only what you look at is shown.")).to_be_visible()
    for number, label in enumerate(steps, 1):
        screen.get_by_role("button", name=re.compile(re.escape(label))).press("Enter")
        expect(screen.get_by_label("What it showed").locator("ol > li")).to_have_count(number)
    choice = screen.get_by_role("combobox", name="What is wrong?")
    choice.focus()
    choice.select_option(label="Nothing is wrong")
    screen.get_by_role("button", name="Give this answer").press("Enter")
    expect(screen.get_by_text("Wrong: Nothing is wrong. One take lost, 5 min.")).to_be_visible()
    choice.select_option(label=answer)
    screen.get_by_role("button", name="Give this answer").press("Enter")
    judged = screen.get_by_label("How it went")
    expect(judged).to_contain_text(f"{answer}.")
    expect(judged).to_contain_text("1 take lost to a wrong fix")
    expect(judged).to_contain_text("The checklist prevents it:")
    screen.reload()
    expect(judged).to_contain_text(f"{answer}.")


@pytest.mark.deep
def test_a_drill_by_mouse(screen: Page, services: Services):
    steps, answer = drawn(8)
    screen.goto("/drill")
    screen.get_by_label("Number, for the same drill as others").fill("8")
    screen.get_by_role("button", name="Draw a rig").click()
    for number, label in enumerate(steps, 1):
        screen.get_by_role("button", name=re.compile(re.escape(label))).click()
        expect(screen.get_by_label("What it showed").locator("ol > li")).to_have_count(number)
    screen.get_by_role("combobox", name="What is wrong?").select_option(label=answer)
    screen.get_by_role("button", name="Give this answer").click()
    expect(screen.get_by_label("How it went")).to_contain_text("100 of 100")
    screen.get_by_role("link", name="Another drill").click()
    expect(screen.get_by_label("Drills that were played")).to_contain_text("number 8")


@pytest.mark.deep
def test_of_two_faults_one_is_put_right_and_the_other_is_found(screen: Page, services: Services):
    level = DrillLevel.NIGHT_SHOOT
    drill = next(
        one
        for one in (draw_drill(seed, level=level, most=2) for seed in range(30))
        if len(one.faults) == 2 and {fault.code for fault in one.faults} & {"gain", "mode", "limiter"}
    )
    first, second = (drill_answer_words(drill, fault.id) for fault in drill.faults)
    screen.goto("/drill")
    screen.get_by_label("Number, for the same drill as others").fill(str(drill.seed))
    screen.get_by_label("Rig").select_option("night-shoot")
    screen.get_by_label("Up to two faults").check()
    screen.get_by_role("button", name="Draw a rig").click()
    choice = screen.get_by_role("combobox", name="What is wrong?")
    choice.select_option(label=first)
    screen.get_by_role("button", name="Give this answer").click()
    seen = screen.get_by_label("What it showed").locator("ol > li")
    expect(seen).to_contain_text(f"Put right{first}Something else is wrong too.")
    screen.get_by_role("button", name="Look at Recorder: switches, menu, knobs").click()
    expect(seen.first.locator("svg")).not_to_have_count(0)
    choice.select_option(label=second)
    screen.get_by_role("button", name="Give this answer").click()
    judged = screen.get_by_label("How it went")
    expect(judged).to_contain_text(drill_answer_words(drill, drill.truth))
    expect(judged).to_contain_text("as planned and with the fault")
    expect(judged.get_by_role("group", name="Ladder of")).to_be_visible()


@pytest.mark.deep
def test_saying_that_nothing_is_wrong_is_right(screen: Page, services: Services):
    seed = next(seed for seed in range(60) if draw_drill(seed).truth == NO_FAULT)
    steps, answer = drawn(seed)
    screen.goto("/drill")
    screen.get_by_label("Number, for the same drill as others").fill(str(seed))
    screen.keyboard.press("Enter")
    for label in steps:
        screen.get_by_role("button", name=re.compile(re.escape(label))).click()
    screen.get_by_role("combobox", name="What is wrong?").select_option(label=answer)
    screen.get_by_role("button", name="Give this answer").click()
    expect(screen.get_by_label("How it went")).to_contain_text("100 of 100")


@pytest.mark.deep
def test_the_ear_is_trained_by_keys(screen: Page, services: Services):
    screen.goto("/ear")
    screen.get_by_role("button", name="Begin: Hum").click()
    expect(screen.get_by_role("heading", name="Which has more hum?")).to_be_visible()
    screen.keyboard.press("a")
    for number, key in enumerate("1212", 2):
        screen.keyboard.press(key)
        expect(screen.get_by_text(re.compile(rf"(Right|Wrong)\. Pair {number},"))).to_be_visible()
    screen.reload()
    expect(screen.get_by_text(re.compile("Pair 5,"))).to_be_visible()
