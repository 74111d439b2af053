"""Lining up in the browser: a file dropped in, seen, taken over; simulated devices heard and seen."""

import json

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.plans import line_into_camera, padded_plan
from tests.sounds import noise, sine, wav
from tidy_trunk.services.jobs import JobService


def test_a_recording_is_dropped_measured_and_taken_over(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/levels/cam.L")
    expect(screen.get_by_text("full scale of cam mic socket")).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("i")
    expect(screen.get_by_text("0 of 2 lined up")).to_be_visible()
    take = wav(sine(1000, -27.5, 5) + noise(-75, 5), bits=24)
    screen.get_by_label("Or measure what it recorded").set_input_files(
        {"name": "CLIP0007.wav", "mimeType": "audio/wav", "buffer": take}
    )
    expect(screen.get_by_text("holds a tone of 1000.0 Hz at −27.5 dBFS")).to_be_visible()
    screen.get_by_role("button", name="Use −27.5 dBFS for cam track L").click()
    expect(screen.get_by_text("1 of 2 lined up")).to_be_visible()
    expect(screen.get_by_text("what the figures said")).to_be_visible()
    assert service.newest(job).evaluation.plan.line_ups["cam.L"].read_dbfs == -27.5
    screen.goto(f"/jobs/{job}/levels/cam.L")
    expect(screen.get_by_text("line-up of cam track L")).to_be_visible()
    screen.keyboard.press("u")
    expect(screen.get_by_text("line-up of cam track L")).to_have_count(0)


@pytest.mark.deep
def test_steps_with_a_knob_are_read(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up")
    tones = [np.concatenate((sine(1000, level, 1.0), np.zeros(15_000))) for level in (-30, -20, -10)]
    expect(screen.get_by_text("0 of 2 lined up")).to_be_visible()
    screen.get_by_text("Another recording, or one at several settings").click()
    screen.get_by_label("Marks, in order").fill("40, 50, 60")
    screen.get_by_label("Target, dBFS").fill("-14")
    screen.get_by_label("Recording", exact=True).set_input_files(
        {"name": "steps.wav", "mimeType": "audio/wav", "buffer": wav(np.concatenate(tones))}
    )
    expect(screen.get_by_text("between the marks it would be 56")).to_be_visible()


@pytest.mark.deep
def test_what_is_no_recording_is_told(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up")
    screen.get_by_label("Or measure what it recorded").set_input_files(
        {"name": "letter.txt", "mimeType": "text/plain", "buffer": b"dear all"}
    )
    expect(screen.get_by_text("no recording that can be read")).to_be_visible()
    screen.get_by_role("button", name="Remove letter.txt").click()
    expect(screen.get_by_text("letter.txt")).to_have_count(0)


@pytest.mark.deep
def test_the_simulation_stands_in_and_is_heard(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up/cam.L")
    screen.get_by_role("button", name="Measure it in the simulation").click()
    screen.get_by_role("button", name="Use −").click()
    expect(screen.get_by_text("1 of 2 lined up")).to_be_visible()
    screen.get_by_role("link", name="Listen to the plan: simulation").click()
    expect(screen.get_by_role("button", name="cam track L dBFS")).to_be_visible()
    sound = screen.get_by_label("What is heard at this point")
    address = sound.get_attribute("src")
    assert screen.request.get(address).headers["content-type"] == "audio/wav"
    before = screen.locator(".meters").inner_text()
    screen.get_by_role("button", name="boom dBu").click()
    expect(screen.locator(".meters")).not_to_have_text(before)
    assert sound.get_attribute("src") != address
    assert json.loads(service.export(job))["line_ups"][0]["read_from"] == "simulation"


@pytest.mark.deep
def test_a_knob_is_turned_in_the_simulation_and_levels_uses_what_it_gave(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up/cam.L")
    screen.get_by_text("Another recording, or one at several settings").click()
    screen.get_by_label("Or turn a knob in the simulation").select_option(label="cam mic socket, gain")
    screen.get_by_role("button", name="Turn the knob").click()
    expect(screen.get_by_text("One mark is")).to_be_visible()
    screen.get_by_role("button", name="Save meter correction").click()
    expect(screen.get_by_text("Clear meter correction")).to_be_visible()
    screen.get_by_role("button", name="Use measured gain").click()
    expect(screen.get_by_text("cam mic socket, gain: measured")).to_be_visible()
    plan = service.newest(job).evaluation.plan
    assert len(plan.gain_laws) == len(plan.meters) == 1
    screen.goto(f"/jobs/{job}/levels/cam.L")
    expect(screen.get_by_text("(gives ")).to_be_visible()
    screen.keyboard.press("u")
    expect(screen.get_by_text("(gives ")).to_have_count(0)


@pytest.mark.deep
def test_ways_are_recorded_and_compared(screen: Page, service: JobService):
    job = service.create(line_into_camera()).revision.job
    screen.goto(f"/jobs/{job}/line-up/cam.L")
    screen.get_by_text("Compare the matching options of cable 2").click()
    screen.get_by_role("button", name="Record them in the simulation").click()
    rows = screen.get_by_role("row")
    expect(rows.filter(has_text="as it is set now")).to_contain_text("The tone is cut off", timeout=60_000)
    expect(rows.filter(has_text="headphone output")).to_contain_text("headphones hiss")
    expect(screen.get_by_role("img", name="Noise of each way in third octaves")).to_be_visible()
    screen.get_by_label("Recording of: as it is set now").select_option("")
    screen.get_by_role("button", name="Compare", exact=True).click()
    expect(rows.filter(has_text="as it is set now")).to_have_count(0)


@pytest.mark.deep
def test_the_sound_is_kept_where_that_is_ticked(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up/cam.L")
    screen.get_by_label("Keep the recording too").check()
    take = wav(sine(1000, -30, 1), bits=24)
    screen.get_by_label("Or measure what it recorded").set_input_files(
        {"name": "kept.wav", "mimeType": "audio/wav", "buffer": take}
    )
    address = screen.get_by_label("kept.wav", exact=True).get_attribute("src")
    assert screen.request.get(address).body() == take


@pytest.mark.deep
def test_a_loose_plug_is_heard_in_the_simulation(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/simulation/cam.L")
    sound = screen.get_by_label("What is heard at this point")
    expect(sound).to_be_visible()
    before = screen.locator(".meters").inner_text()
    screen.get_by_label("Cable with a loose plug").select_option("run-2")
    expect(screen.locator(".meters")).not_to_have_text(before)
    assert "loose=run-2" in sound.get_attribute("src")
