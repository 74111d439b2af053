"""The same tools by hand: panels, findings, knobs, the keys, and what is refused."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from tests.plans import line_into_camera
from tidy_trunk.app.demo import foundry
from tidy_trunk.document import read_plan, write_plan


@pytest.fixture
def job(service):
    return service.create(foundry()).revision.job


def plan(service, job):
    return service.newest(job).evaluation.plan


def test_a_finding_is_pointed_at_applied_and_undone(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/runs")
    count = screen.locator("[data-count=stop]")
    expect(count).to_have_text(re.compile("4 won’t work"))
    screen.get_by_role("button", name="Put a fresh cell into Hall mic").click()
    expect(count).to_have_text(re.compile("3 won’t work"))
    assert plan(service, job).devices["hall-mic"].settings["capsule.cell"] is True
    screen.get_by_role("button", name="Undo").click()
    expect(count).to_have_text(re.compile("4 won’t work"))


@pytest.mark.deep
def test_findings_by_keys(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/runs")
    expect(screen.locator(".finding").first).to_be_visible()
    titles = []
    for _ in range(3):
        screen.keyboard.press("f")
        titles.append(screen.locator(".finding.pointed h3").inner_text())
    assert len(set(titles)) == 3
    screen.keyboard.press("a")
    expect(screen.get_by_text(titles[2])).to_have_count(0)


@pytest.mark.deep
def test_rows_by_keys_open_their_ladder(screen: Page, job):
    screen.goto(f"/jobs/{job}/runs")
    expect(screen.locator("[data-track='bag.1']")).to_be_visible()
    screen.keyboard.press("j")
    screen.keyboard.press("j")
    expect(screen.locator("[data-track='bag.2']")).to_be_focused()
    expect(screen.get_by_role("heading", name="Bag recorder, track 2")).to_be_visible()
    screen.keyboard.press("k")
    screen.keyboard.press("Enter")
    expect(screen.get_by_role("group", name=re.compile("Ladder of Bag recorder, track 1"))).to_be_visible()
    screen.keyboard.press("j")
    expect(screen.get_by_role("group", name=re.compile("Ladder of Bag recorder, track 2"))).to_be_visible()


@pytest.mark.deep
def test_a_device_is_set_renamed_and_measured(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/runs")
    screen.get_by_role("heading", name="Camera B").get_by_role("button").click()
    panel = screen.locator(".p-drawer")
    panel.get_by_role("group", name="mic socket").get_by_label("automatic level, menu").click()
    expect(screen.get_by_text("automatic level, menu to off").first).to_be_visible()
    panel.get_by_label("Name").fill("Second camera")
    panel.get_by_label("Name").press("Tab")
    expect(screen.get_by_role("heading", name="Second camera").first).to_be_visible()
    panel.get_by_text("Figures", exact=True).click()
    panel.get_by_label("mic socket mic, full scale").fill("-8.2")
    panel.get_by_label("mic socket mic, full scale").press("Tab")
    expect(panel.get_by_text("dBu ±1 dB, measured")).to_be_visible()
    device = plan(service, job).devices["camera-b"]
    assert device.label == "Second camera" and device.settings["mic.auto.menu"] is False
    assert device.figures["inputs.mic.modes.mic.full_scale_dbu"].value == -8.2
    panel.get_by_label("A class of your own").fill("My mirrorless")
    panel.get_by_role("button", name="Save class").click()
    expect(panel.get_by_text("My mirrorless").first).to_be_visible()
    own = plan(service, job).classes["own-my-mirrorless"]
    assert own.inputs[0].modes[0].full_scale_dbu.value == -8.2


@pytest.mark.deep
def test_a_run_gets_another_lead_and_another_length(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/runs")
    screen.get_by_role("button", name=re.compile("^Cable 12")).first.click()
    panel = screen.locator(".p-drawer")
    panel.get_by_label("XLR, length in m").fill("9")
    panel.get_by_label("XLR, length in m").press("Tab")
    expect(screen.get_by_text("Cable 12 by 9 m XLR").first).to_be_visible()
    panel.get_by_role("button", name=re.compile("mono to both sides")).first.click()
    expect(screen.locator("[data-rule=wrong-lead]")).to_have_count(0)
    assert [part.lead for part in plan(service, job).runs["run-12"].parts] == ["xlr", "xlr-trs"]
    panel.get_by_role("button", name="Remove this cable").click()
    expect(panel).to_have_count(0)
    assert "run-12" not in plan(service, job).runs


@pytest.mark.deep
def test_ways_are_used_from_the_table(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/levels/camera-b.L")
    way = screen.get_by_role("row").filter(
        has=screen.get_by_role("rowheader", name=re.compile("^Turn Bag recorder line out"))
    )
    way.get_by_role("button", name="Use").click()
    expect(screen.locator(".figures .clips")).to_have_count(0)
    assert plan(service, job).devices["bag"].settings["line.line.trim_db"] == -20.5


@pytest.mark.deep
def test_a_mix_is_looked_at_by_way_of_each_microphone(screen: Page, job):
    screen.goto(f"/jobs/{job}/levels/bag.mix-l")
    ladder = screen.get_by_role("group", name=re.compile("Ladder"))
    expect(ladder).to_have_attribute("aria-label", re.compile("Bell mic"))
    screen.get_by_label("via").select_option(label="Boom")
    expect(ladder).to_have_attribute("aria-label", re.compile("Boom"))


@pytest.mark.deep
def test_typing_completes_and_says_what_it_does_not_know(screen: Page, job):
    screen.goto(f"/jobs/{job}/runs")
    field = screen.get_by_label("Command")
    expect(field).to_be_enabled()
    field.fill("hall")
    expect(screen.locator(".completion")).to_have_text(["hall mic to "])
    screen.keyboard.press("Tab")
    expect(field).to_have_value("hall mic to ")
    field.fill("gramophone to bag")
    expect(screen.get_by_text("no device here is called 'gramophone'")).to_be_visible()
    screen.keyboard.press("Enter")
    expect(field).to_have_value("gramophone to bag")
    assert screen.locator("[data-count=stop]").inner_text().strip() == "4 won’t work"


@pytest.mark.deep
def test_all_keys_are_listed_and_themes_stay(screen: Page, job):
    screen.goto(f"/jobs/{job}/runs")
    expect(screen.locator("[data-track='bag.1']")).to_be_visible()
    screen.keyboard.press("?")
    expect(screen.get_by_role("dialog", name="Help and shortcuts")).to_contain_text("apply its fix")
    screen.keyboard.press("Escape")
    for theme, ground in (("dark", "rgb(21, 26, 23)"), ("sun", "rgb(255, 255, 255)")):
        screen.get_by_label("Theme").select_option(theme)
        screen.reload()
        expect(screen.locator("html")).to_have_css("background-color", ground)


@pytest.mark.deep
def test_a_plan_is_saved_and_read_again(screen: Page, service, job, tmp_path):
    screen.goto(f"/jobs/{job}/job")
    with screen.expect_download() as download:
        screen.get_by_role("link", name="Save the plan as a file").click()
    path = tmp_path / "plan.json"
    download.value.save_as(path)
    assert read_plan(path.read_bytes()) == foundry()
    screen.goto("/")
    screen.get_by_label("Open a saved plan (.json)").set_input_files(str(path))
    expect(screen.locator("[data-count=stop]")).to_have_text(re.compile("4 won’t work"))
    assert len(service.all()) == 2


@pytest.mark.deep
def test_a_job_is_removed_only_when_said_twice(screen: Page, service, job):
    screen.goto("/")
    screen.get_by_role("button", name="Remove", exact=True).click()
    assert len(service.all()) == 1
    screen.get_by_role("button", name="Remove with its history").click()
    expect(screen.get_by_role("link", name="Casting day")).to_have_count(0)
    assert service.all() == []


@pytest.mark.deep
def test_a_server_that_is_gone_is_said(screen: Page, service, job):
    screen.goto(f"/jobs/{job}/job")
    expect(screen.get_by_label("Room noise, dB(A)")).to_be_visible()
    screen.route("**/api/**", lambda route: route.abort())
    screen.get_by_label("Room noise, dB(A)").fill("30")
    screen.keyboard.press("Tab")
    expect(screen.get_by_role("status").filter(has_text="Not saved yet")).to_contain_text("does not answer")
    assert plan(service, job).defaults.room_noise_db_spl == 48
    screen.unroute("**/api/**")
    expect(screen.get_by_role("status").filter(has_text="Not saved yet")).to_have_count(0)
    assert plan(service, job).defaults.room_noise_db_spl == 30, "and is delivered when it does"


@pytest.mark.deep
def test_an_address_that_leads_nowhere_leads_back(screen: Page, job):
    screen.goto("/jobs/00000000-0000-0000-0000-000000000000/levels")
    expect(screen.get_by_role("alert")).to_contain_text("there is no job")
    screen.get_by_role("button", name="All jobs").click()
    expect(screen.get_by_role("link", name="Casting day")).to_be_visible()
    screen.goto(f"/jobs/{job}/levels/no-such-track")
    expect(screen.get_by_role("group", name=re.compile("Ladder"))).to_be_visible()


@pytest.mark.deep
def test_an_empty_job_says_what_to_do_first(screen: Page, client):
    state = client.post("/api/jobs", json={"name": "Empty"}).json()
    screen.goto(f"/jobs/{state['job']}/runs")
    expect(screen.get_by_text("Three ways to begin")).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("l")
    expect(screen.get_by_text("No track has a plug yet")).to_be_visible()


@pytest.mark.deep
def test_nothing_hides_on_a_narrow_screen_or_on_paper(screen: Page, client):
    state = client.post("/api/jobs/import", json=json.loads(write_plan(line_into_camera()))).json()
    screen.set_viewport_size({"width": 390, "height": 844})
    screen.goto(f"/jobs/{state['job']}/runs")
    row = screen.locator("[data-track='cam.L']")
    expect(row).to_be_visible()
    box = row.bounding_box()
    assert box["x"] >= 0 and box["x"] + box["width"] <= 390
    screen.emulate_media(media="print")
    expect(screen.get_by_label("Stations")).to_be_hidden()
    expect(row).to_be_visible()
    expect(screen.locator("[data-rule=line-into-mic]")).to_contain_text("clips by 14.1 dB")


@pytest.mark.deep
def test_what_is_typed_before_the_job_is_there_is_answered(screen: Page, job):
    """The job comes late: its answer is held back until the line has been typed and its pause is over."""
    held = []
    screen.route(f"**/api/jobs/{job}", lambda route: held.append(route))
    screen.goto(f"/jobs/{job}/runs")
    screen.get_by_label("Command").fill("hall")
    screen.wait_for_timeout(400)
    expect(screen.locator(".completion")).to_have_count(0)
    for route in held:
        route.continue_()
    expect(screen.locator(".completion")).to_have_text(["hall mic to "])
