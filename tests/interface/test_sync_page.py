"""Files laid over each other in the browser: two camera files from the simulation, aligned, seen, heard, moved, exported."""

import io
import re
from fractions import Fraction

import numpy as np
import pytest
import soundfile
from playwright.sync_api import Page, expect

from tests.formats.test_stills import grey_of, ramp, seen
from tests.sounds import voice, wav
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan
from tidy_trunk.services.jobs import JobService


def recorded(screen: Page, job, track: str, skip_s: float) -> bytes:
    """What a track holds in the simulation, from so many seconds on."""
    address = f"/api/jobs/{job}/simulation/{track}/points"
    last = screen.request.get(address).json()[-1]["number"]
    samples, rate = soundfile.read(io.BytesIO(screen.request.get(f"{address}/{last}/sound.wav").body()))
    return wav(np.atleast_2d(samples.T)[0][round(skip_s * rate) :], rate=rate)


def test_two_camera_files_from_the_simulation(screen: Page, service: JobService):
    job = service.create(foundry()).revision.job
    files = [
        {"name": "CAMA_0031.WAV", "mimeType": "audio/wav", "buffer": recorded(screen, job, "camera-a.1", 0.0)},
        {"name": "CAMB_0007.WAV", "mimeType": "audio/wav", "buffer": recorded(screen, job, "camera-b.L", 3.0)},
    ]
    screen.goto(f"/jobs/{job}/clock")
    screen.get_by_role("navigation", name="Pages").get_by_role("link", name="Sync files").click()
    expect(screen.get_by_text("Nothing was dropped in yet")).to_be_visible()
    screen.get_by_label("Drop all files here").set_input_files(files)
    expect(screen.get_by_role("list", name="Files").get_by_role("listitem")).to_have_count(2)
    screen.get_by_role("button", name="CAMB_0007.WAV begins at 3.0 s, by waveform").click()
    panel = screen.get_by_role("region", name="CAMB_0007.WAV over CAMA_0031.WAV")
    expect(panel).to_contain_text("75.00 frames")
    expect(panel.get_by_role("img", name="CAMA_0031.WAV and CAMB_0007.WAV over each other")).to_be_visible()
    panel.get_by_role("button", name="1 s", exact=True).click()
    expect(panel.get_by_role("img", name="over each other, 1 s")).to_be_visible()
    heard = screen.request.get(panel.locator("audio").get_attribute("src") or "")
    sides, _ = soundfile.read(io.BytesIO(heard.body()))
    assert np.corrcoef(sides.T)[0, 1] > 0.8, "left and right say the same at the same time"
    panel.get_by_role("button", name="+1 frame").click()
    expect(panel).to_contain_text("76.00 frames")
    expect(panel).to_contain_text("moved by 1920 samples")
    screen.keyboard.press(",")
    expect(panel).to_contain_text("moved by 1919 samples")
    panel.get_by_role("button", name="Back to the match").click()
    expect(panel).to_contain_text("75.00 frames")
    with screen.expect_download() as download:
        panel.get_by_role("link", name="Synced copy", exact=True).click()
    assert download.value.suggested_filename == "CAMB_0007-aligned.wav"
    with screen.expect_download() as download:
        screen.get_by_role("link", name="Export edit list (EDL)").click()
    assert "00:00:03:00" in download.value.path().read_text()
    screen.reload()
    expect(screen.get_by_role("button", name="CAMB_0007.WAV begins at 3.0 s")).to_be_visible()
    side = screen.get_by_role("button", name="CAMA_0031.WAV is of a recorder: change it")
    expect(side).to_have_text("recorder")
    screen.get_by_role("button", name="CAMB_0007.WAV is of a camera: change it").click()
    expect(screen.get_by_role("button", name="CAMB_0007.WAV is of a recorder: change it")).to_be_visible()
    screen.get_by_role("button", name="Remove CAMA_0031.WAV").click()
    expect(screen.get_by_text("Files came or went since")).to_be_visible()


@pytest.mark.deep
def test_moves_arrive_over_a_bad_connection_and_a_reload(screen: Page, services):
    """Three presses before the first was answered are three steps; what was not answered is sent by the next page."""
    job = services.jobs.create(foundry()).revision.job
    files = [
        {"name": f"CAM{name}.WAV", "mimeType": "audio/wav", "buffer": recorded(screen, job, track, skip_s)}
        for name, track, skip_s in (("A", "camera-a.1", 0.0), ("B", "camera-b.L", 3.0))
    ]
    screen.goto(f"/jobs/{job}/sync")
    screen.get_by_label("Drop all files here").set_input_files(files)
    screen.get_by_role("button", name="CAMB.WAV begins at 3.0 s").click()
    panel = screen.get_by_role("region", name="CAMB.WAV over CAMA.WAV")
    expect(panel).to_contain_text("75.00 frames")
    screen.route("**/nudge", lambda route: route.abort())
    for _ in range(3):
        screen.keyboard.press(".")
    bar = screen.locator(".bar", has_text="Not saved yet: 3 changes")
    expect(bar).to_be_visible()
    screen.reload()
    expect(bar).to_be_visible()
    screen.unroute_all(behavior="ignoreErrors")
    expect(bar).to_have_count(0)
    screen.get_by_role("button", name="CAMB.WAV begins at 3.0 s").click()
    expect(panel).to_contain_text("moved by 3 samples")


@pytest.mark.deep
def test_what_is_no_recording_is_told_and_nothing_is_laid(screen: Page, service: JobService):
    job = service.create(foundry()).revision.job
    screen.goto(f"/jobs/{job}/sync")
    letter = {"name": "letter.txt", "mimeType": "text/plain", "buffer": b"dear all"}
    screen.get_by_label("Drop all files here").set_input_files(letter)
    expect(screen.get_by_text("no recording that can be read")).to_be_visible()
    expect(screen.get_by_role("button", name="Sync again")).to_have_count(0)


@pytest.mark.deep
def test_a_silent_clip_is_placed_by_stepping_to_the_clap(screen: Page, service: JobService, tmp_path):
    """Said before: the picture in which hands close had to be counted in another program."""
    job = service.create(Plan(name="Clap")).revision.job
    screen.goto(f"/jobs/{job}/sync")
    files = [
        {"name": "BAG.WAV", "mimeType": "audio/wav", "buffer": wav(voice(-20, 20, 5))},
        {"name": "SILENT.MOV", "mimeType": "video/quicktime", "buffer": ramp(Fraction(25)).getvalue()},
    ]
    screen.get_by_label("Drop all files here").set_input_files(files)
    expect(screen.get_by_text("SILENT.MOV: no match found")).to_be_visible()
    screen.get_by_text("Place a file by a clap").click()
    screen.get_by_label("camera file").select_option(label="SILENT.MOV")
    picture = screen.get_by_role("img", name=re.compile("^Picture .* of SILENT.MOV"))
    expect(picture).to_have_attribute("alt", "Picture 0 of SILENT.MOV")
    for name in ("10 pictures on", "1 picture on", "10 pictures on", "1 picture back"):
        screen.get_by_role("button", name=name).click()
    expect(picture).to_have_attribute("alt", "Picture 20 of SILENT.MOV")
    assert seen(screen.request.get(picture.get_attribute("src") or "").body()).mean() == pytest.approx(
        grey_of(20), abs=2
    )
    screen.get_by_label("picture", exact=True).fill("4000")
    expect(screen.get_by_text("SILENT.MOV has no picture 4000")).to_be_visible()
    screen.get_by_label("picture", exact=True).fill("20")
    screen.get_by_label("belongs to").select_option(label="BAG.WAV")
    screen.get_by_label("clap heard at, s").fill("5.5")
    screen.get_by_role("button", name="Place the file").click()
    expect(screen.get_by_role("button", name="SILENT.MOV begins at 4.7 s, by hand")).to_be_visible()
