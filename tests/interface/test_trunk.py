"""Trunk in the browser: typed, short, the plan changed; packed with one thumb and a cut connection; a cable tested."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.interface.pages import PHONE, opened
from tests.plans import boom_in_bag
from tidy_trunk.services.container import Services


def test_a_trunk_is_typed_and_packed(screen: Page, services: Services):
    """By keyboard: what is owned, what serves the run; then what is packed, in the hand and without a connection."""
    job = opened(screen, services.jobs, boom_in_bag(), "trunk")
    expect(screen.get_by_role("status").filter(has_text="1 cable needed")).to_be_visible()
    screen.get_by_label("What do you own?").fill("2 XLR 10 m, blue case, gaffer tape")
    expect(screen.get_by_text("2 × 10 m XLR in the blue case, 1 × gaffer tape")).to_be_visible()
    screen.keyboard.press("Enter")
    expect(screen.get_by_role("row", name=re.compile("^1 7 m XLR 10 m XLR"))).to_be_visible()
    screen.set_viewport_size(PHONE)
    line = screen.get_by_label("Packing list").get_by_role("button", name=re.compile("10 m XLR"))
    screen.context.set_offline(True)
    line.click()
    expect(line).to_have_attribute("aria-pressed", "true")
    expect(screen.get_by_text("tick waits")).to_be_visible()
    screen.context.set_offline(False)
    expect(screen.get_by_text("tick waits")).to_have_count(0)
    assert services.trunk.for_job(job).packed == 1
    screen.get_by_label("unpacking").check()
    screen.get_by_role("button", name="Missing: 10 m XLR").click()
    expect(screen.get_by_text("Did not come back: 10 m XLR, from the blue case, last as cable 1.")).to_be_visible()
    screen.get_by_role("button", name="One used: gaffer tape").click()
    expect(screen.get_by_role("button", name="One used: gaffer tape")).to_have_count(0)


@pytest.mark.deep
def test_a_cable_is_tested_and_its_fault_taken_out(screen: Page, services: Services):
    services.trunk.add("1 XLR 10 m")
    opened(screen, services.jobs, boom_in_bag(), "trunk")
    expect(screen.get_by_role("row", name=re.compile("^1 7 m XLR 10 m XLR"))).to_be_visible()
    screen.get_by_text("Everything in the trunk").click()
    screen.get_by_role("button", name="Test 10 m XLR").click()
    for contacts in ("1 reaches 1", "2 reaches 3", "3 reaches 2"):
        screen.get_by_label(contacts).check()
    screen.get_by_role("button", name="Save test result").click()
    expect(screen.get_by_text("2 and 3 have changed places. It is kept out of every run.")).to_be_visible()
    expect(screen.get_by_text("1 × 7.5 m XLR")).to_be_visible()
    screen.get_by_role("button", name="All contacts OK").click()
    expect(screen.get_by_text("Right. It counts as tested.")).to_be_visible()
    expect(screen.get_by_role("row", name=re.compile("^1 7 m XLR 10 m XLR"))).to_be_visible()


@pytest.mark.deep
def test_a_table_is_shown_before_it_is_read(screen: Page, services: Services, tmp_path):
    opened(screen, services.jobs, boom_in_bag(), "trunk")
    field = screen.get_by_label("A table of pieces, CSV")
    (tmp_path / "wrong.csv").write_text("what,length_m\nXLR,5 m\n")
    field.set_input_files(tmp_path / "wrong.csv")
    expect(screen.get_by_text("wrong.csv: line 2, length_m")).to_be_visible()
    (tmp_path / "trunk.csv").write_text("count,what,length_m\n6,XLR,10\n")
    field.set_input_files(tmp_path / "trunk.csv")
    expect(screen.get_by_text("1 line: 6 × 10 m XLR")).to_be_visible()
    screen.get_by_role("button", name="Put all in").click()
    expect(screen.get_by_role("row", name=re.compile("^1 7 m XLR 10 m XLR"))).to_be_visible()
    assert len(services.trunk.stock().pieces) == 6
    screen.get_by_text("or choose from lists").click()
    screen.get_by_role("button", name="One more").click()
    screen.get_by_role("combobox", name="What").select_option("XLR")
    screen.get_by_role("combobox", name="Metres").select_option("3")
    screen.get_by_role("button", name="Add to the line").click()
    expect(screen.get_by_text("2 × 3 m XLR", exact=True)).to_be_visible()


@pytest.mark.deep
def test_a_label_opens_its_run(screen: Page, services: Services):
    job = opened(screen, services.jobs, boom_in_bag(), "trunk")
    paper = screen.get_by_role("link", name="Labels for both ends of each cable")
    assert screen.request.get(paper.get_attribute("href")).body()[:5] == b"%PDF-"
    run = next(iter(services.jobs.plan(job).runs))
    screen.goto(f"/jobs/{job}/runs?run={run}")
    expect(screen.get_by_role("dialog").or_(screen.get_by_label(re.compile("[Cc]able 1"))).first).to_be_visible()


@pytest.mark.deep
def test_a_stranger_changes_the_plan_so_that_the_missing_cable_is_not_needed(screen: Page, services: Services):
    """From the first page: what is owned, a rig, what is short, and the plan changed to what is there; then packed."""
    screen.goto("/")
    screen.get_by_role("link", name="Trunk", exact=True).click()
    owned = "bag recorder eight inputs, 3 XLR 10 m, XLR to 3.5 mm with 25 dB, blue case"
    screen.get_by_label("What do you own?").fill(owned)
    expect(screen.get_by_text("3 × 10 m XLR in the blue case")).to_be_visible()
    screen.keyboard.press("Enter")
    expect(screen.get_by_role("row", name=re.compile("XLR to 3.5 mm with 25 dB")).first).to_be_visible()
    screen.get_by_role("link", name="All jobs").click()
    screen.get_by_label(re.compile("type it")).fill("one person, boom, bag recorder, 1 camera mic socket only")
    screen.keyboard.press("Enter")
    rigs = screen.get_by_role("region", name="Rigs")
    expect(rigs.get_by_role("heading", level=2).first).to_have_text("Recorder, and its mix into the camera")
    to_get = rigs.get_by_role("row", name=re.compile("To get"))
    expect(to_get).to_contain_text("3.5 mm cable with 25 dB")
    expect(to_get).not_to_contain_text("Bag recorder")
    rigs.get_by_role("button", name="Use this rig").first.click()
    expect(screen.get_by_role("heading", name=re.compile("person talking"))).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("t")
    expect(screen.get_by_text("1 × 3.5 mm cable with 25 dB")).to_be_visible()
    expect(screen.get_by_label("Without buying")).to_contain_text("XLR to 3.5 mm with 25 dB")
    screen.get_by_role("button", name=re.compile("Change the plan")).click()
    expect(screen.get_by_label("Without buying")).to_have_count(0)
    (job,) = services.jobs.all()
    told = services.trunk.for_job(job.id)
    assert not any(one.is_short for one in told.served) and told.packing
