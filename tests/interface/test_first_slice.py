"""Shows 2: an empty job, by keyboard, to a stop, its mending, undo and reload. And the ways of pointing."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.interface.pages import held, let_go, new_job, say
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import AddSource

CLIPS = re.compile(r"It clips by (\d+\.\d) dB")


def test_plan_clip_mend_undo_reload(screen: Page):
    new_job(screen)
    screen.keyboard.press("/")
    screen.keyboard.insert_text("add a piano")  # left there: what is typed next takes its place
    expect(screen.get_by_label("Command")).to_have_value("add a piano")
    screen.keyboard.press("Escape")
    for line in (
        "add boom shotgun as Boom",
        "add bag recorder as Bag",
        "add mirrorless camera microphone socket as Camera B",
        "founder at boom, 0.5 m, normal",
        "boom to bag 1, 7 m",
    ):
        say(screen, line)
    say(screen, "bag line to camera b, 3 m", choice=1)  # the plain lead, as a beginner plugs it

    stop = screen.locator("[data-rule=line-into-mic]")
    expect(stop).to_contain_text(CLIPS)
    row = screen.locator("[data-track='camera-b.L']")
    expect(row).to_contain_text("clips")
    figure = CLIPS.search(stop.inner_text()).group(1)
    expect(row).to_contain_text(f"by {figure} dB")

    # The ladder shows where.
    screen.keyboard.press("g")
    screen.keyboard.press("l")
    expect(screen.get_by_role("group", name=re.compile("Ladder of Camera B, track L"))).to_be_visible()
    expect(screen.get_by_role("group", name="Ladder of")).to_contain_text(f"clips by {figure} dB")
    expect(screen.get_by_role("heading", name="Matching options")).to_be_visible()

    # The best way, with one key.
    screen.keyboard.press("a")
    expect(screen.locator(".figures .clips")).to_have_count(0)
    screen.keyboard.press("g")
    screen.keyboard.press("r")
    expect(stop).to_have_count(0)
    expect(row).not_to_contain_text("clips")

    screen.keyboard.press("u")
    expect(stop).to_contain_text(figure)
    screen.reload()
    expect(stop).to_contain_text(figure)
    expect(row).to_contain_text("clips")
    screen.keyboard.press("Shift+U")
    expect(stop).to_have_count(0)
    screen.reload()
    expect(screen.locator("[data-track='camera-b.L']")).to_be_visible()
    expect(stop).to_have_count(0)


@pytest.mark.deep
def test_a_knob_redraws_the_ladder_before_it_is_let_go(screen: Page, service):
    state = service.create(foundry())
    screen.goto(f"/jobs/{state.revision.job}/levels/camera-b.L")
    over = screen.locator(".figures .clips")
    expect(over).to_be_visible()
    knob = screen.get_by_label("output level, digital")
    knob.evaluate("knob => { knob.value = -40; knob.dispatchEvent(new Event('input')) }")
    expect(over).to_have_count(0)
    assert service.newest(state.revision.job).revision.number == 1, "a moving knob is not an edit yet"
    knob.evaluate("knob => knob.dispatchEvent(new Event('change'))")
    expect(screen.get_by_text("output level, digital to −40 dB").first).to_be_visible()
    assert service.newest(state.revision.job).revision.number == 2


@pytest.mark.deep
def test_pointing_does_what_typing_does(screen: Page):
    new_job(screen)
    screen.get_by_role("link", name="Equipment", exact=True).click()
    screen.get_by_label("Type of device").select_option("boom-shotgun")
    screen.get_by_label("Device name").fill("Boom")
    screen.locator("form", has=screen.get_by_label("Device name")).get_by_role("button", name="Add").click()
    expect(screen.get_by_role("button", name="Boom", exact=True)).to_be_visible()
    screen.get_by_label("New source").fill("Founder")
    screen.locator("form", has=screen.get_by_label("New source")).get_by_role("button", name="Add").click()
    screen.get_by_label("Microphone for Founder").select_option(label="Boom")
    expect(screen.get_by_label("Distance of Boom from Founder in m")).to_have_value("0.6")
    screen.get_by_label("Target", exact=True).select_option("wide")
    expect(screen.get_by_text("Job: level target wide")).to_be_visible()


@pytest.mark.deep
def test_history_is_looked_at_and_brought_back(screen: Page, service):
    state = service.create(foundry())
    job = state.revision.job
    service.edit(job, 1, [AddSource(label="Apprentice", average_db_spl=60)])
    screen.goto(f"/jobs/{job}/job")
    expect(screen.get_by_role("rowheader", name="Apprentice")).to_be_visible()
    screen.keyboard.press("h")
    screen.get_by_role("button", name=re.compile("^1 New job")).click()
    expect(screen.get_by_text("Looking at revision 1")).to_be_visible()
    expect(screen.get_by_role("rowheader", name="Apprentice")).to_have_count(0)
    screen.keyboard.press("Escape")
    screen.get_by_role("button", name="Restore").click()
    expect(screen.get_by_text("Restore revision 1").first).to_be_visible()
    assert "apprentice" not in service.newest(job).evaluation.plan.sources


def test_two_people_never_overwrite_each_other(screen: Page, service):
    job = service.create(foundry()).revision.job
    screen.goto(f"/jobs/{job}/job")
    expect(screen.get_by_role("rowheader", name="The pour")).to_be_visible()
    edits = held(screen, "**/edits")
    screen.get_by_label("Room noise, dB(A)").fill("52")
    with screen.expect_request("**/edits"):
        screen.keyboard.press("Tab")
    service.edit(job, 1, [AddSource(label="Apprentice", average_db_spl=60)], "Ann")  # the other one
    let_go(screen, "**/edits", edits)
    both = screen.get_by_role("alert", name="Not done")
    expect(both.locator("dd").first).to_contain_text("room noise 52 dB(A)")
    expect(both.locator("dl")).to_contain_text(re.compile(r"Ann\s*source Apprentice is new"))
    expect(screen.get_by_role("rowheader", name="Apprentice")).to_be_visible()
    with screen.expect_response(lambda answer: answer.request.method == "POST" and answer.ok):
        screen.get_by_role("button", name="Apply again").click()
    expect(screen.get_by_role("alert")).to_have_count(0)
    plan = service.newest(job).evaluation.plan
    assert plan.defaults.room_noise_db_spl == 52 and "apprentice" in plan.sources


@pytest.mark.deep
def test_a_file_that_is_no_plan_says_so(screen: Page, tmp_path):
    path = tmp_path / "holiday.json"
    path.write_text('{"schema_version": 1, "name": "x", "devices": [{"id": "a"}]}')
    screen.goto("/")
    screen.get_by_label("Open a saved plan (.json)").set_input_files(str(path))
    expect(screen.get_by_role("alert")).to_contain_text("devices.0.label: field required")
