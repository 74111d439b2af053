"""Day and Log in the browser: a day typed and slipped, takes logged by two telephones with a cut connection."""

import os
import re
from datetime import UTC, datetime
from uuid import UUID

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.interface.conftest import QUIET
from tests.interface.pages import PHONE, opened, say
from tests.photographs import photograph
from tests.plans import boom_in_bag
from tests.sounds import RATE, wav
from tests.waiting import wait
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.base.timecode import RATES, Timecode, ltc_samples
from tidy_trunk.core.log import TakeStatus
from tidy_trunk.core.plan import RemoveSetUp, apply_edits
from tidy_trunk.services.container import Services


@pytest.fixture(autouse=True)
def before_call(services: Services) -> None:
    """The day has not begun, at whatever hour the tests run."""
    services.day._now = lambda: datetime(2026, 1, 1, 6, tzinfo=UTC)


def test_a_day_is_typed_slipped_and_undone(screen: Page, services: Services):
    job = opened(
        screen, services.jobs, apply_edits(foundry(), [RemoveSetUp(id=key) for key in foundry().set_ups]), "day"
    )
    expect(screen.get_by_text("No set-up is planned yet.")).to_be_visible()
    say(screen, "set-up 12C at 10:30, 4 takes of 3 min")
    say(screen, "set-up 12D at 11:20, 2 takes of 40 min")
    expect(screen.get_by_role("row", name=re.compile("^12D"))).to_be_visible()
    problems = screen.get_by_label("Problems of the day")
    expect(problems.get_by_text("Camera B stops after 30 min")).to_be_visible()
    screen.get_by_label("12D, minutes of a take").fill("20")
    screen.keyboard.press("Tab")
    expect(problems).to_have_count(0)
    expect(screen.get_by_role("img", name=re.compile("The day: 2 set-ups, 6 takes"))).to_be_visible()
    screen.get_by_role("button", name="We are late").click()
    screen.get_by_role("button", name="25 min", exact=True).click()
    expect(screen.get_by_label("12C, from")).to_have_value("10:55")
    expect(screen.get_by_role("status").filter(has_text="Planned again")).to_be_visible()
    moved = screen.locator("tr.moved")
    assert moved.count() >= 1
    screen.get_by_role("button", name="+1 take of 12C").click()
    expect(screen.get_by_label("12D, from")).to_have_value("11:51")  # 3 min, and 3 between two takes
    screen.locator("h2").click()
    for _ in range(2):
        screen.keyboard.press("u")
        expect(screen.locator(".bar", has_text="Undo: ")).to_be_visible()
        screen.get_by_role("button", name="Close").or_(screen.locator(".bar button")).first.click()
    expect(screen.get_by_label("12C, from")).to_have_value("10:30")
    assert services.jobs.plan(job).set_ups["12c"].at_min == 630


@pytest.mark.deep
def test_a_part_is_marked_in_rehearsal(screen: Page, services: Services):
    """By keyboard: the part, its track, what the meter shows; where the knob goes stands there while it is shot."""
    job = opened(screen, services.jobs, foundry(), "log")
    screen.get_by_text("Level marks from rehearsal").click()
    screen.get_by_label(re.compile("^Part of scene")).fill("she whispers")
    screen.keyboard.press("Tab")
    screen.keyboard.press("Tab")
    screen.keyboard.type("22")
    screen.keyboard.press("Enter")
    part = screen.get_by_label("Notes of the scene").get_by_role("listitem").filter(has_text="she whispers")
    expect(part).to_contain_text("+58 dB")
    expect(part).to_contain_text("gain, now +42")
    screen.reload()
    expect(part).to_contain_text("+58 dB")
    (mark,) = services.log.read(job).log.marks
    assert (mark.part, mark.track, mark.peak_dbfs) == ("she whispers", "bag.1", -22)


@pytest.mark.deep
def test_a_photograph_waits_for_a_connection(screen: Page, services: Services, tmp_path):
    job = opened(screen, services.jobs, foundry(), "log")
    (tmp_path / "knob.jpg").write_bytes(photograph(3000, 2000))
    screen.get_by_text("Photographs of settings").click()
    screen.get_by_label("What it shows").fill("gain of channel 2")
    screen.context.set_offline(True)
    screen.get_by_label("Take a photograph").set_input_files(tmp_path / "knob.jpg")
    photo = screen.get_by_role("list", name="Photographs").get_by_role("listitem")
    expect(photo).to_contain_text("waits here")
    screen.context.set_offline(False)
    expect(photo).not_to_contain_text("waits here")
    (kept,) = services.log.view(job).photos
    assert kept.text == "gain of channel 2" and len(services.log.photo(job, UUID(kept.id))) < 300_000
    photo.get_by_role("button").click()
    expect(photo).to_have_count(0)
    assert services.log.view(job).photos == []


@pytest.mark.deep
def test_a_table_of_the_day_is_read(screen: Page, services: Services, tmp_path):
    job = opened(screen, services.jobs, boom_in_bag(), "day")
    (tmp_path / "day.csv").write_text("what,at,minutes,takes,take_min\n12C,10:30,,4,3\nLunch,13:00,45,,\n")
    (tmp_path / "letter.csv").write_text("Dear production\n")
    field = screen.get_by_label("From a calendar")
    field.set_input_files(tmp_path / "letter.csv")
    expect(screen.get_by_role("alert")).to_contain_text("letter.csv: ")
    field.set_input_files(tmp_path / "day.csv")
    expect(screen.get_by_label("12C, takes")).to_have_value("4")
    expect(screen.get_by_role("alert")).to_have_count(0)
    assert services.jobs.plan(job).breaks["lunch"].at_min == 780


@pytest.mark.deep
def test_what_is_done_is_not_asked_for_again(screen: Page, services: Services):
    job = opened(screen, services.jobs, foundry(), "day")
    screen.set_viewport_size(PHONE)
    card = screen.get_by_label("Next", exact=True)
    expect(card.get_by_role("heading", name="Switch on Box A")).to_be_visible()
    for box in (button.bounding_box() for button in card.get_by_role("button").all()):
        assert box["height"] >= 44
    card.get_by_role("button", name="Later").click()
    expect(card.get_by_role("heading", name="Send tone to Camera A")).to_be_visible()
    card.get_by_role("button", name="Done").click()
    screen.get_by_text("What everything still holds").click()
    screen.get_by_role("button", name="Pack A, battery: half").click()
    expect(screen.get_by_text("tap waits")).to_have_count(0)
    screen.wait_for_timeout(500)
    done = services.log.read(job).log.done
    assert [(entry.act, entry.kind, entry.device, entry.left) for entry in done] == [
        ("done", "line-up", "camera-a", 1.0),
        ("holds", "battery", "pack-a", 0.5),
    ]


def taps(page: Page, *names: str) -> None:
    for name in names:
        page.get_by_role("button", name=name, exact=True).first.click()


def test_two_telephones_log_with_cuts(screen: Page, services: Services, browser: Browser, address: str):
    """Every tap is there, in its order; each sees the other's."""
    screen.set_viewport_size(PHONE)
    job = opened(screen, services.jobs, foundry(), "log")
    taps(screen, "Roll 1A-1")
    other = browser.new_context(base_url=address, viewport=PHONE).new_page()
    other.goto(f"/jobs/{job}/log")
    expect(other.get_by_role("heading", name="1A, take 1")).to_be_visible()
    taps(other, "plane")
    # Told by the server, before the look every 5 s; two seconds of slack for a machine under load.
    expect(screen.get_by_role("button", name="plane", exact=True)).to_have_class(re.compile("marked"), timeout=3000)

    screen.context.set_offline(True)
    taps(screen, "Cut", "Circle 1A-1", "Roll 1A-2", "rustle", "Cut")
    expect(screen.get_by_text("No connection. 5 taps wait here")).to_be_visible()
    expect(screen.get_by_role("heading", name="1A, take 3")).to_be_visible()
    taps(other, "dropout")
    screen.route("**/api/**/log", lambda route: route.abort() if route.request.method == "POST" else route.continue_())
    screen.context.set_offline(False)
    screen.reload()
    expect(screen.get_by_text("5 taps wait here")).to_be_visible()
    screen.unroute("**/api/**/log")
    expect(screen.get_by_text("taps wait")).to_have_count(0)
    taps(screen, "Roll 1B-1")
    expect(other.get_by_role("heading", name="1B, take 1")).to_be_visible()
    first, second, third = services.log.read(job).log.takes
    assert [take.label for take in (first, second, third)] == ["1A-1", "1A-2", "1B-1"]
    assert sorted(note.text for note in first.notes) == ["dropout", "plane"] and first.status is TakeStatus.CIRCLED
    assert [note.text for note in second.notes] == ["rustle"] and second.ends is not None and third.ends is None
    other.context.close()


@pytest.mark.deep
def test_a_take_is_corrected_struck_and_brought_back(screen: Page, services: Services):
    job = opened(screen, services.jobs, boom_in_bag(), "log")
    screen.get_by_placeholder("another slate").fill("12C")
    screen.keyboard.press("Enter")
    expect(screen.get_by_role("heading", name="12C, take 1")).to_be_visible()
    screen.locator("h2").click()
    screen.keyboard.press("c")
    expect(screen.get_by_role("heading", name="12C, take 2")).to_be_visible()
    takes = screen.get_by_label("Takes", exact=True)
    takes.get_by_role("button", name="12C-1").click()
    screen.get_by_label("Take", exact=True).fill("7")
    screen.get_by_role("button", name="Correct").click()
    expect(takes.get_by_role("button", name="12C-7")).to_be_visible()
    expect(screen.get_by_text("number was 1")).to_be_visible()
    expect(screen.get_by_label("To be cleared").get_by_text("takes 1 to 6 are missing")).to_be_visible()
    screen.get_by_role("button", name="Strike").click()
    expect(screen.get_by_text("struck")).to_be_visible()
    screen.get_by_role("button", name="Restore").click()
    expect(screen.get_by_text("struck")).to_have_count(0)
    with screen.expect_download() as download:
        screen.get_by_role("link", name="CSV").click()
    assert "12C-7" in download.value.path().read_text()
    assert services.log.read(job).log.takes[0].corrections[0].was == "1"


@pytest.mark.deep
def test_a_note_becomes_a_tap_and_leads_to_what_is_wrong(screen: Page, services: Services):
    opened(screen, services.jobs, boom_in_bag(), "log")
    taps(screen, "Roll 1A-1")
    screen.get_by_placeholder("something else").fill("hum at the end")
    screen.keyboard.press("Enter")
    taps(screen, "Cut", "Roll 1A-2", "hum at the end")
    takes = screen.get_by_label("Takes", exact=True)
    takes.get_by_role("button", name="1A-2").click()
    takes.get_by_role("link", name="Find it: hum at the end").click()
    expect(screen.get_by_role("button", name="Hum or buzz")).to_have_attribute("aria-pressed", "true")


@pytest.mark.deep
def test_a_fault_at_a_device_leads_to_the_search_on_its_track(screen: Page, services: Services):
    job = opened(screen, services.jobs, boom_in_bag(), "log")
    taps(screen, "Roll 1A-1", "Cut")
    takes = screen.get_by_label("Takes", exact=True)
    takes.get_by_role("button", name="1A-1").click()
    takes.get_by_label("Note").fill("crackles")
    takes.get_by_role("combobox").select_option(label="boom")
    takes.get_by_role("button", name="Add note").click()
    expect(takes.get_by_text("crackles on boom")).to_be_visible()

    def noted():
        return [(note.where, note.track, note.is_fault) for note in services.log.view(job).takes[0].notes]

    wait(lambda: noted() == [("boom", "bag.1", True)])
    takes.get_by_role("link", name="Find it: crackles").click()
    expect(screen.get_by_label("Where it is heard")).to_have_value("bag.1")


@pytest.mark.deep
def test_timecode_is_read_from_the_sound_input(playwright, services: Services, address: str, tmp_path):
    """Chromium plays a file into its sound input, over and over: half a minute of timecode from ten o'clock on."""
    job = services.jobs.create(boom_in_bag()).revision.job
    sound = ltc_samples(Timecode.parse("10:00:00:00", RATES["25"]), RATE, 0, 30 * RATE)
    (tmp_path / "ltc.wav").write_bytes(wav(0.3 * sound))
    fake = ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"]
    browser = playwright.chromium.launch(
        executable_path=os.environ["TIDY_TRUNK_CHROMIUM"],
        args=[*QUIET, *fake, f"--use-file-for-fake-audio-capture={tmp_path / 'ltc.wav'}"],
    )
    page = browser.new_page(base_url=address)
    page.goto(f"/jobs/{job}/log")
    page.get_by_text("Timecode of the takes: time of day").click()
    page.get_by_role("button", name="Read it from the sound input").click()
    expect(page.get_by_text("Timecode of the takes: on from 10:00:")).to_be_visible()
    taps(page, "Roll 1A-1", "Cut")
    wait(lambda: services.log.view(job).takes)
    assert services.log.view(job).takes[0].timecode.startswith("10:00:")
    page.get_by_label("What the recorder shows now").fill("14:30:00:00")
    page.get_by_role("button", name="Set timecode").click()
    expect(page.get_by_text("on from 14:30:00:00")).to_be_visible()
    browser.close()


@pytest.mark.deep
def test_breaks_and_moves_by_taps(screen: Page, services: Services):
    job = opened(screen, services.jobs, boom_in_bag(), "day")
    screen.get_by_label("New break, or where to move").fill("tower")
    screen.get_by_role("button", name="Add move").click()
    screen.get_by_label("move to tower begins").fill("14:00")
    screen.get_by_label("move to tower begins").press("Tab")
    screen.get_by_label("New break, or where to move").fill("lunch")
    screen.get_by_role("button", name="Add break").click()
    screen.get_by_label("lunch, minutes").fill("45")
    screen.get_by_label("lunch, minutes").press("Tab")
    wait(lambda: [item.length_min for item in services.jobs.plan(job).breaks.values()] == [45])
    (move,) = services.jobs.plan(job).moves.values()
    assert (move.label, move.at_min) == ("tower", 14 * 60)
    screen.get_by_role("button", name="Remove lunch").click()
    wait(lambda: not services.jobs.plan(job).breaks)
