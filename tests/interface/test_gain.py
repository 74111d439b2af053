"""Levels in the browser: the gain plan."""

from playwright.sync_api import Page, expect

from tests.interface.test_patch import opened, plan_of
from tidy_trunk.services.demo import foundry


def test_a_gain_plan_is_read_pinned_and_done_by_keys(screen: Page, service):
    job = opened(screen, service, foundry(), "levels")
    expect(screen.get_by_role("img", name="Ladder of")).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("p")
    expect(screen.get_by_text("8 things to set, from the microphones on. It ends 2 stops.")).to_be_visible()
    expect(screen.get_by_text("Pack B on air then averages −20")).to_be_visible()
    screen.get_by_role("button", name="Leave Pack B mic in gain as it is").press("Enter")
    expect(screen.get_by_text("Pack B on air then averages")).to_have_count(0)
    screen.get_by_role("button", name="Let 1 knob move again").press("Enter")
    expect(screen.get_by_text("Pack B on air then averages −20")).to_be_visible()
    screen.get_by_role("button", name="Set all of it").press("Enter")
    expect(screen.get_by_text("Nothing to move")).to_be_visible()
    expect(screen.get_by_text("What no knob cures")).to_be_visible()
    assert plan_of(service, job).devices["pack-b"].settings["mic.mic.gain_db"] == 29
    screen.keyboard.press("u")
    expect(screen.get_by_text("8 things to set")).to_be_visible()


def test_a_pad_is_designed_saved_and_used(screen: Page, service):
    job = opened(screen, service, foundry(), "levels/camera-b.L")
    screen.get_by_role("link", name="Pad for this run").click()
    expect(screen.get_by_text("Camera B takes −10.5")).to_be_visible()
    screen.get_by_label("Loss, dB").fill("30")
    screen.get_by_label("Loss, dB").press("Tab")
    screen.get_by_label("Resistors").select_option("E96")
    expect(screen.get_by_text("with ±1 % parts")).to_be_visible()
    screen.get_by_role("button", name="Save it and use it in run 11").press("Enter")
    expect(screen.get_by_role("img", name="Ladder of Camera B")).to_be_visible()
    plan = plan_of(service, job)
    (lead,) = plan.leads.values()
    assert [part.lead for part in plan.runs["run-11"].parts] == [lead.id] and "30 dB" in lead.label
    screen.keyboard.press("g")
    screen.keyboard.press("b")
    screen.get_by_label("Layout").select_option("o")
    expect(screen.get_by_text("equal impedances")).to_be_visible()
    screen.get_by_label("Both sides, Ω").fill("-5")
    screen.get_by_label("Both sides, Ω").press("Tab")
    expect(screen.get_by_role("alert")).to_contain_text("source_ohm")
