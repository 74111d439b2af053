"""From the first page: a question answered with whole rigs, two things joined, files that belong to no job."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.sounds import sine, wav
from tidy_trunk.services.jobs import LOOSE_FILES

INTERVIEW = "interview, two people, two lavs on radio, boom, bag recorder, 1 camera mic socket only, once"


def test_a_question_becomes_a_job_by_keys(screen: Page, service):
    screen.goto("/")
    expect(screen.get_by_label(re.compile("type it"))).to_be_focused()
    screen.keyboard.insert_text(INTERVIEW)
    screen.keyboard.press("Enter")
    rigs = screen.get_by_role("region", name="Rigs")
    expect(rigs.get_by_role("heading", level=2)).to_have_count(4)
    expect(rigs.get_by_role("heading", level=2).first).to_have_text("Recorder, and its mix into the camera")
    expect(rigs.get_by_role("row", name=re.compile("If one device fails"))).to_contain_text("the other still has it")
    rigs.get_by_role("button", name="Use this rig").first.press("Enter")
    expect(screen.get_by_role("heading", name="Two people talking")).to_be_visible()
    (job,) = service.all()
    plan = service.plan(job.id)
    assert any(part.lead == "trs-pad-25" for run in plan.runs.values() for part in run.parts)
    assert service.history(job.id)[0].sentence == "Rig: Recorder, and its mix into the camera"


@pytest.mark.deep
def test_a_gap_is_filled_from_its_list_and_the_address_keeps_it(screen: Page):
    screen.goto("/")
    screen.get_by_label("with", exact=True).select_option("a boom")
    expect(screen).to_have_url(re.compile("boom"))
    screen.get_by_label("It happens").select_option("once")
    expect(screen.get_by_role("region", name="Rigs").get_by_role("heading", level=2).first).to_be_visible()
    screen.reload()
    expect(screen.get_by_label("with", exact=True)).to_have_value("a boom")
    expect(screen.get_by_label("It happens")).to_have_value("once")


@pytest.mark.deep
def test_what_is_not_understood_is_said(screen: Page):
    screen.goto("/?q=xyzzy")
    expect(screen.get_by_role("alert")).to_contain_text("names nothing that is known here")
    screen.goto("/?q=forty cameras and a boom")
    expect(screen.get_by_role("list", name="What could not be answered")).to_contain_text("this is the answer for 4")


def test_two_things_are_joined_without_a_job(screen: Page, service):
    screen.goto("/connect")
    screen.get_by_label("From", exact=True).select_option("handheld-recorder")
    screen.get_by_label("To", exact=True).select_option("mirrorless-mic")
    ways = screen.get_by_role("list", name="Ways to connect them")
    first = ways.get_by_role("listitem").first
    expect(first.get_by_role("heading", level=2)).to_have_text("3.5 mm cable with 20 dB")
    expect(first).to_contain_text("automatic level, menu to off")
    expect(first).to_contain_text(re.compile(r"A tone that leaves at −6\.0 dBFS is recorded at −6\.\d dBFS"))
    assert service.all() == []
    screen.get_by_label("From", exact=True).select_option("boom-shotgun")
    expect(first).to_contain_text(re.compile("48 V, switch to on"))
    first.get_by_role("button", name="Start a job with this").click()
    expect(screen.get_by_role("heading", name="Two things")).to_be_visible()


@pytest.mark.deep
def test_a_recording_is_checked_without_a_job(screen: Page, service, tmp_path):
    path = tmp_path / "take.wav"
    path.write_bytes(wav(sine(1000, -43, 2.0)))
    screen.goto("/check")
    screen.get_by_label(re.compile("Drop a recording")).set_input_files(str(path))
    expect(screen.get_by_role("heading", name="take.wav")).to_be_visible()
    expect(screen.locator(".told").first).to_contain_text("43")
    assert service.all() == [] and service.newest(LOOSE_FILES).revision.number == 1
    screen.goto("/")
    expect(screen.get_by_text("No jobs yet.")).to_be_visible()


@pytest.mark.deep
def test_an_example_is_opened_and_its_mistake_fixed(screen: Page, service):
    screen.goto("/")
    screen.get_by_role("button", name="Talk in the reading room").click()
    findings = screen.get_by_role("region", name="Findings")
    expect(findings.get_by_role("heading", level=2)).to_have_text("Not ready: one problem would ruin a recording")
    findings.locator("[data-rule=line-into-mic]").get_by_role("button").first.click()
    expect(findings.get_by_role("heading", level=2)).to_contain_text("Ready")
    hint = screen.get_by_text("Every recorded track, traced back to its source")
    screen.get_by_role("button", name="Put away").click()
    expect(hint).to_have_count(0)
    screen.reload()
    expect(findings).to_be_visible()
    expect(hint).to_have_count(0)


def test_what_is_wrong_asks_until_the_cause_is_left(screen: Page, service):
    screen.goto("/")
    screen.get_by_role("button", name="Talk in the reading room").click()
    screen.get_by_role("link", name="What is wrong?").click()
    screen.get_by_label("Or say it").fill("it sounds distorted")
    screen.keyboard.press("Enter")
    asked = screen.get_by_role("region", name="Try this next")
    for _ in range(10):
        expect(screen.get_by_role("heading", name="Still possible")).to_be_visible()
        if asked.count() == 0:
            break
        asked.get_by_role("button", name="Yes" if "Line into" in asked.inner_text() else "No").click()
        screen.wait_for_timeout(300)
    cause = screen.get_by_role("region", name="Cause")
    expect(cause).to_contain_text("Line into microphone input")
    cause.get_by_role("button").first.click()
    expect(screen.locator(".bar")).to_contain_text("Undo")
