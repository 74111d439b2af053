"""Twelve plain questions, each from the first page: the answer is there, and right, within twelve clicks or groups of keystrokes.

What is right is common practice: line into a microphone socket wants an attenuator, 48 V a box, two sources in one stereo socket a
splitter, what happens once two recordings, several cameras timecode or a clap, sound beside a switcher a delay."""

import re

import numpy as np
import pytest
from playwright.sync_api import Locator, Page, expect

from tests.few import few
from tests.sounds import noise, sine, voice, wav

MOST_STEPS = 12


class Hand:
    """Counts what a user does."""

    def __init__(self, screen: Page) -> None:
        self.screen, self.steps = screen, 0
        screen.goto("/")
        expect(screen.get_by_label(re.compile("or type it"))).to_be_focused()

    def types(self, text: str) -> None:
        """A group of keystrokes, and Enter."""
        self.steps += 2
        self.screen.keyboard.insert_text(text)
        self.screen.keyboard.press("Enter")

    def clicks(self, what: Locator) -> None:
        self.steps += 1
        what.click()

    def chooses(self, label: str, value: str) -> None:
        self.steps += 2
        self.screen.get_by_label(label, exact=True).select_option(value)

    def drops(self, label: str, *files: tuple[str, bytes]) -> None:
        self.steps += 2
        self.screen.get_by_label(re.compile(label)).set_input_files(
            [{"name": name, "mimeType": "audio/wav", "buffer": data} for name, data in files]
        )


@pytest.fixture
def hand(screen: Page):
    hand = Hand(screen)
    yield hand
    assert 0 < hand.steps <= MOST_STEPS


def row(screen: Page, name: str) -> Locator:
    return screen.get_by_role("region", name="Rigs").get_by_role("row", name=re.compile(f"^{name}"))


RIGS = [
    ("recorder into a camera with microphone socket only", "Recorder, and its mix into the camera", "To get", r"3\.5 mm cable with \d\d dB"),
    ("two radios into one camera, a side each", "Straight into the camera", "To get", "one side each"),
    ("phone and lavalier", "Straight into the camera", "To get", "[Hh]eadset|TRRS"),
    ("phantom-powered shotgun and mirrorless camera", "Preamp or mixer into the camera", "To get", "Preamp box"),
    ("three hours that happen once, two cameras", "Recorder, and its mix into the camera", "If one device fails", "the other still has it"),
    ("recorder and two cameras without timecode", "Recorder alone, synced afterwards", "Sync afterwards", "clap at each start"),
    ("two cameras, live switcher, desk, two handheld mics, live", "Preamp or mixer into the camera", "To get", "Audio delay unit"),
]  # fmt: skip


@pytest.mark.deep
@pytest.mark.parametrize(("question", "title", "name", "says"), few(RIGS, 1), ids=[question for question, *_ in RIGS])
def test_a_question_is_answered_by_a_rig(hand: Hand, screen: Page, question, title, name, says):
    hand.types(question)
    rigs = screen.get_by_role("region", name="Rigs")
    expect(rigs).to_have_attribute("aria-busy", "false")
    titles = rigs.get_by_role("heading", level=2).all_inner_texts()
    assert title in titles
    cell = row(screen, name).get_by_role("cell").nth(titles.index(title))
    expect(cell).to_have_text(re.compile(says))


@pytest.mark.deep
def test_timecode_goes_into_a_microphone_socket_by_an_attenuator(hand: Hand, screen: Page):
    hand.clicks(screen.get_by_role("link", name=re.compile("Connect two things")))
    hand.chooses("From", "timecode-generator")
    hand.chooses("To", "mirrorless-mic")
    first = screen.get_by_role("list", name="Ways to connect them").get_by_role("listitem").first
    expect(first.get_by_role("heading", level=2)).to_contain_text("35 dB")
    expect(first).to_contain_text("timecode")


@pytest.mark.deep
def test_hum_on_the_camera_alone_is_searched_for(hand: Hand, screen: Page):
    hand.types("boom, bag recorder, camera with mic socket only")
    hand.clicks(screen.get_by_role("region", name="Rigs").get_by_role("columnheader", name=re.compile("its mix into")))
    titles = screen.get_by_role("region", name="Rigs").get_by_role("heading", level=2)
    expect(titles.nth(1)).to_be_visible()
    at = titles.all_inner_texts().index("Recorder, and its mix into the camera")
    hand.clicks(screen.get_by_role("button", name="Use this rig").nth(at))
    hand.clicks(screen.get_by_role("link", name="What is wrong?"))
    hand.clicks(screen.get_by_role("button", name="Hum or buzz"))
    asked = screen.get_by_role("region", name="Try this next")
    expect(asked).to_contain_text("Listen at Recorder")
    hand.clicks(asked.get_by_role("button", name="No", exact=True))
    expect(screen.get_by_role("table")).to_contain_text("cable 2")
    expect(screen.get_by_role("table")).not_to_contain_text("cable 1")


@pytest.mark.deep
def test_meters_that_read_20_and_8_are_searched_for(hand: Hand, screen: Page):
    hand.types("boom, bag recorder, camera with mic socket only")
    titles = screen.get_by_role("region", name="Rigs").get_by_role("heading", level=2)
    expect(titles.nth(1)).to_be_visible()
    at = titles.all_inner_texts().index("Recorder, and its mix into the camera")
    hand.clicks(screen.get_by_role("button", name="Use this rig").nth(at))
    hand.clicks(screen.get_by_role("link", name="What is wrong?"))
    hand.clicks(screen.get_by_label("Or say it"))
    hand.types("meters read -20 and -8")
    expect(screen.get_by_role("region", name="Try this next")).to_be_visible()
    left = screen.get_by_role("table")
    for cause in ("another scale", "Automatic level", "not lined up"):
        expect(left).to_contain_text(cause)


@pytest.mark.deep
def test_a_recording_is_checked(hand: Hand, screen: Page):
    """Speech that peaks far below any target, with 50 Hz hum under it: too low, and it hums."""
    samples = voice(-58, 8.0) + sine(50, -66, 8.0) + noise(-90, 8.0)
    hand.clicks(screen.get_by_role("link", name=re.compile("Check a recording")))
    hand.drops("Drop a recording", ("take.wav", wav(samples)))
    expect(screen.get_by_role("heading", name="take.wav")).to_be_visible()
    told = " ".join(screen.locator(".told").all_inner_texts())
    assert re.search("hum", told, re.IGNORECASE) and re.search("low|quiet|below", told, re.IGNORECASE), told


@pytest.mark.deep
def test_two_files_are_synced(hand: Hand, screen: Page):
    """The camera's file is the recorder's from 3 s on, a quarter as loud."""
    sound = np.tile(voice(-20, 5.0), 3)
    hand.clicks(screen.get_by_role("link", name=re.compile("Sync files")))
    hand.drops("Drop all files", ("REC.WAV", wav(sound)), ("CAM.WAV", wav(sound[48_000 * 3 : 48_000 * 12] * 0.25)))
    clip = screen.get_by_role("list", name="Clips").get_by_role("listitem").first
    expect(clip).to_contain_text("3.000 s")
    expect(clip).to_contain_text("75.00 frames")
