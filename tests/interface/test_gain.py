"""Levels in the browser: the gain plan."""

import re

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.core.base.signal.test_speech import recording
from tests.formats.test_sound import wav
from tests.interface.pages import opened, plan_of
from tests.plans import boom_in_bag
from tidy_trunk.app.demo import foundry


def test_a_gain_plan_is_read_pinned_and_done_by_keys(screen: Page, service):
    job = opened(screen, service, foundry(), "levels")
    expect(screen.get_by_role("group", name="Ladder of")).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("p")
    expect(screen.get_by_text("14 settings to change, from the microphones on. It fixes 2 faults.")).to_be_visible()
    expect(screen.get_by_text("Pack B on air then averages −19")).to_be_visible()
    screen.get_by_role("button", name="Keep as is: Pack B mic in gain").press("Enter")
    expect(screen.get_by_text("Pack B on air then averages")).to_have_count(0)
    screen.get_by_role("button", name="Release 1 knob").press("Enter")
    expect(screen.get_by_text("Pack B on air then averages −19")).to_be_visible()
    screen.get_by_role("button", name="Apply all").press("Enter")
    expect(screen.get_by_text("Nothing to change")).to_be_visible()
    expect(screen.get_by_text("What no setting fixes")).to_be_visible()
    assert plan_of(service, job).devices["pack-b"].settings["mic.mic.gain_db"] == 26
    screen.keyboard.press("u")
    expect(screen.get_by_text("14 settings to change")).to_be_visible()


@pytest.mark.deep
def test_a_pad_is_designed_saved_and_used(screen: Page, service):
    job = opened(screen, service, foundry(), "levels/camera-b.L")
    screen.get_by_role("link", name="Attenuator for this cable").click()
    expect(screen.get_by_text("Camera B clips at −10.5")).to_be_visible()
    screen.get_by_label("Loss, dB").fill("30")
    screen.get_by_label("Loss, dB").press("Tab")
    screen.get_by_label("Resistors").select_option("E96")
    expect(screen.get_by_text("with ±1 % parts")).to_be_visible()
    screen.get_by_role("button", name="Save it and use it in cable 11").press("Enter")
    expect(screen.get_by_role("group", name="Ladder of Camera B")).to_be_visible()
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


@pytest.mark.deep
def test_a_track_is_laid_beside_what_it_could_be_and_told_apart(screen: Page, service):
    job = opened(screen, service, foundry(), "levels/camera-b.L")
    comparison = screen.get_by_role("region", name="Comparison")
    for school, option in (("clean", "Use the 25 dB attenuator"), ("guide", "Turn Bag recorder line out")):
        comparison.get_by_label("Compare with").select_option(school)
        expect(comparison.locator("option:checked")).to_contain_text(option)
        name = "cleanest option" if school == "clean" else "simplest option"
        expect(comparison.get_by_role("row", name=re.compile(name)).locator(".differs")).not_to_have_count(0)
        expect(screen.locator(".ladder .other-name")).to_have_text(name)
    comparison.get_by_label("Compare with").select_option("track:bag.1")
    expect(screen.get_by_role("group", name=re.compile("^Ladder of"))).to_have_count(2)
    screen.get_by_role("button", name="Bag recorder track mix L, ").focus()
    account = screen.get_by_role("region", name="How it comes about")
    expect(account).to_contain_text("gain +36.0")
    expect(account).to_contain_text("full scale −10.0 ±1.0, typical")
    screen.get_by_label("What the track is kept for").select_option("timecode")
    expect(screen.get_by_text("timecode: peaks −20 to −6 dBFS")).to_be_visible()
    assert plan_of(service, job).devices["camera-b"].roles["L"] == "timecode"


@pytest.mark.deep
def test_targets_and_angles_are_set_on_the_jobs_page(screen: Page, service):
    job = opened(screen, service, foundry(), "job")
    screen.get_by_text("Targets of your own").click()
    screen.get_by_label("New target").fill("Tape")
    screen.get_by_label("New target").press("Enter")
    screen.get_by_label("Tape, from, dBFS").fill("-30")
    with screen.expect_response("**/edits"):
        screen.get_by_label("Tape, from, dBFS").press("Tab")
    with screen.expect_response("**/edits"):
        screen.get_by_label("Target", exact=True).select_option("own-tape")
    angle = screen.get_by_label("Angle of Master founder off the axis of Boom in degrees")
    angle.fill("40")
    angle.press("Tab")
    expect(screen.get_by_role("status", name="Verdict")).to_contain_text("won’t work")
    screen.get_by_role("button", name="Remove").first.focus()
    plan = plan_of(service, job)
    assert plan.targets["own-tape"].low_dbfs == -30 and plan.defaults.target == "own-tape"
    angle.fill("200")
    angle.press("Tab")
    expect(screen.get_by_role("alert")).to_contain_text("180")


@pytest.mark.deep
def test_a_recording_tells_how_loud_the_voice_is(screen: Page, service, tmp_path):
    job = opened(screen, service, boom_in_bag(), "levels/bag.1")
    path = tmp_path / "rehearsal.wav"
    path.write_bytes(wav(recording(-30, -60)[:, np.newaxis]))
    screen.get_by_label("WAV, with pauses").set_input_files(str(path))
    screen.get_by_role("button", name="Use for Voice").click()
    expect(screen.locator(".figures strong").first).to_have_text("−30.0")
    assert plan_of(service, job).sources["voice"].average_db_spl < 51
    path.write_bytes(b"no sound")
    screen.get_by_label("WAV, with pauses").set_input_files(str(path))
    expect(screen.get_by_role("alert")).to_contain_text("no recording that can be read")
