"""Know your own gear in the real interface: a test done in the simulation, one by eye, one by a recording, and undone."""

import pytest
from playwright.sync_api import expect

from tests.core.advice.test_gear_tests import matched
from tests.interface.pages import opened, plan_of
from tests.sounds import noise, wav
from tidy_trunk.core.gear.catalogue import Provenance


@pytest.mark.deep
def test_a_camera_is_known_after_three_answers(screen, services):
    job = opened(screen, services.jobs, matched(), "job")
    screen.get_by_role("navigation", name="Pages").get_by_role("link", name="Know your gear").click()
    screen.get_by_role("navigation", name="Devices").get_by_role("button", name="cam").click()
    expect(screen.get_by_role("heading", name="Mic socket, gain: lowest position")).to_be_visible()
    screen.get_by_role("button", name="Gone: lowest is off").click()
    expect(screen.get_by_text("Its lowest position is off. Kept in My equipment.")).to_be_visible()
    screen.get_by_role("button", name="Next test").click()
    expect(screen.get_by_role("heading", name="Mic socket: noise without sound")).to_be_visible()
    screen.get_by_label("Or measure a recording").set_input_files(
        {"name": "silence.wav", "mimeType": "audio/wav", "buffer": wav(noise(-70, 6), bits=24)}
    )
    expect(screen.get_by_text("Kept in My equipment.")).to_be_visible()
    (own,) = plan_of(services.jobs, job).classes.values()
    figure = own.inputs[0].idle_noise_dbfs
    assert figure.provenance is Provenance.MEASURED and -73 < figure.value < -70, (
        "20 Hz to 20 kHz of what is there to 24 kHz"
    )
    screen.get_by_role("button", name="Next test").click()
    expect(screen.get_by_role("heading", name="Mic socket: noise of its preamp")).to_be_visible()
    screen.get_by_label("Noise, dBFS").fill("20")
    screen.get_by_role("button", name="Save", exact=True).click()
    expect(screen.get_by_role("alert")).to_contain_text("which no such input has")
    screen.get_by_role("button", name="Simulate it").click()
    expect(screen.get_by_text("Simulated: kept in this job alone.")).to_be_visible()
    (own,) = plan_of(services.jobs, job).classes.values()
    assert own.inputs[0].modes[0].ein_dbu.source == "SIMULATION"
    kept = services.equipment.get(own.id).item
    assert (
        kept.tested.keys() == {"lowest mic.mic.gain_db", "idle-noise mic"} and kept.inputs[0].idle_noise_dbfs == figure
    )
    screen.reload()
    expect(screen.get_by_role("button", name="cam 3 of 6")).to_be_visible()
    screen.keyboard.press("u")
    expect(screen.get_by_role("button", name="cam 2 of 6")).to_be_visible()
