"""Lining up in the browser: a file dropped in, seen, taken over; simulated devices heard and seen."""

import json

import numpy as np
from playwright.sync_api import Page, expect

from tests.plans import padded_plan
from tests.sounds import noise, sine, wav
from tidy_trunk.services.jobs import JobService


def test_a_recording_is_dropped_measured_and_taken_over(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/levels/cam.L")
    expect(screen.get_by_text("full scale of cam mic socket")).to_be_visible()
    screen.keyboard.press("g")
    screen.keyboard.press("i")
    expect(screen.get_by_text("0 of 2 lined up")).to_be_visible()
    take = wav(sine(1000, -47.5, 5) + noise(-75, 5), bits=24)
    screen.get_by_label("Or measure what it recorded").set_input_files(
        {"name": "CLIP0007.wav", "mimeType": "audio/wav", "buffer": take}
    )
    expect(screen.get_by_text("holds a tone of 1000.0 Hz at −47.5 dBFS")).to_be_visible()
    screen.get_by_role("button", name="Take −47.5 dBFS for cam track L").click()
    expect(screen.get_by_text("1 of 2 lined up")).to_be_visible()
    expect(screen.get_by_text("what the figures said")).to_be_visible()
    assert service.newest(job).evaluation.plan.line_ups["cam.L"].read_dbfs == -47.5
    screen.goto(f"/jobs/{job}/levels/cam.L")
    expect(screen.get_by_text("line-up of cam track L")).to_be_visible()
    screen.keyboard.press("u")
    expect(screen.get_by_text("line-up of cam track L")).to_have_count(0)


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


def test_what_is_no_recording_is_told(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up")
    screen.get_by_label("Or measure what it recorded").set_input_files(
        {"name": "letter.txt", "mimeType": "text/plain", "buffer": b"dear all"}
    )
    expect(screen.get_by_text("no recording that can be read")).to_be_visible()
    screen.get_by_role("button", name="Remove letter.txt").click()
    expect(screen.get_by_text("letter.txt")).to_have_count(0)


def test_the_bench_stands_in_and_is_heard(screen: Page, service: JobService):
    job = service.create(padded_plan()).revision.job
    screen.goto(f"/jobs/{job}/line-up/cam.L")
    screen.get_by_role("button", name="Measure it on the bench").click()
    screen.get_by_role("button", name="Take −").click()
    expect(screen.get_by_text("1 of 2 lined up")).to_be_visible()
    screen.get_by_role("link", name="Hear the plan on the bench").click()
    expect(screen.get_by_role("button", name="cam track L dBFS")).to_be_visible()
    sound = screen.get_by_label("What is heard at this point")
    address = sound.get_attribute("src")
    assert screen.request.get(address).headers["content-type"] == "audio/wav"
    before = screen.locator(".meters").inner_text()
    screen.get_by_role("button", name="boom dBu").click()
    expect(screen.locator(".meters")).not_to_have_text(before)
    assert sound.get_attribute("src") != address
    assert json.loads(service.export(job))["line_ups"][0]["read_from"] == "bench"
