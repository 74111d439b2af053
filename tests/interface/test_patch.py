"""Patching in the browser: typed, mended by clicks and by keys, leads made, files taken, states compared."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from tests.core.advice.adviser.test_inserted_devices import boom_on_camera
from tests.core.advice.checks.patch_cases import adapter, hand_held, powered
from tests.core.command.test_say import do
from tests.few import few
from tests.interface.pages import opened, plan_of
from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, run
from tests.waiting import wait
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan
from tidy_trunk.document import read_plan, write_plan


def point_at(screen: Page, rule: str):
    """`f` as often as it takes to come to the finding of a rule, as somebody with a keyboard does; what was folded opens."""
    pointed = screen.locator(".finding.pointed")
    expect(screen.get_by_role("region", name="Findings")).to_be_visible()
    for _ in range(40):
        screen.keyboard.press("f")
        expect(pointed).to_have_count(1)
        if pointed.get_attribute("data-rule") == rule:
            return
    raise AssertionError(f"{rule} is not among the findings")


def linked_safety():
    return made(device("mirrorless-four-track", "cam"), run("box.shoe", "cam.shoe"), base=adapter(linked=True))


CLASSIC = [
    ("wrong-lead", hand_held("mirrorless-mic", "mic", "xlr-trs-one-to-one"), "in mono nothing is left"),
    ("another-ring-count", hand_held("mirrorless-mic", "mic", microphone="headset-microphone"), "An adapter made for the two"),
    ("hum-loop", powered("mains", "mains"), "closes a circle"),
    ("safety-on-one-knob", linked_safety(), "what clips one clips the other"),
]  # fmt: skip


@pytest.mark.deep
@pytest.mark.parametrize(("rule", "plan", "says"), few(CLASSIC, 1), ids=[case[0] for case in CLASSIC])
def test_classic_mistakes_are_found_and_mended(screen: Page, service, rule, plan, says):
    opened(screen, service, plan)
    card = screen.locator(f"[data-rule={rule}]")
    point_at(screen, rule)
    expect(card).to_contain_text(says)
    card.get_by_role("button").first.click()
    expect(card).to_have_count(0)
    screen.keyboard.press("u")
    expect(screen.locator(".bar", has_text="Undo: ")).to_be_visible()
    point_at(screen, rule)
    screen.keyboard.press("a")
    expect(card).to_have_count(0)


@pytest.mark.deep
def test_a_shotgun_on_a_small_camera_goes_by_a_box(screen: Page, service):
    """The fifth classic mistake: 48 V are wanted and a 3.5 mm socket cannot give them."""
    job = opened(screen, service, boom_on_camera())
    card = screen.locator("[data-rule=microphone-unpowered]")
    expect(card).to_contain_text("cannot give it")
    card.get_by_role("button", name="Via another device").click()
    boxes = screen.get_by_role("list", name="Via another device")
    expect(boxes.get_by_role("listitem")).to_have_count(3)
    expect(boxes).to_contain_text("hiss")
    boxes.get_by_role("button", name=re.compile("preamp box")).click()
    expect(card).to_have_count(0)
    assert "preamp-box" in plan_of(service, job).devices
    screen.keyboard.press("Escape")
    screen.get_by_role("button", name="Undo").click()
    expect(card).to_have_count(1)
    point_at(screen, "microphone-unpowered")
    screen.keyboard.press("a")  # the best box is the first fix
    expect(card).to_have_count(0)
    assert len(plan_of(service, job).runs) == 2


@pytest.mark.deep
def test_a_lead_is_made_judged_saved_and_used(screen: Page, service):
    job = opened(
        screen,
        service,
        made(device("mirrorless-line", "cam"), run("bag.out-l", "cam.mic", "xlr-trs-one-to-one"), base=boom_in_bag()),
    )
    screen.get_by_role("button", name=re.compile("^Cable 2 ")).first.click()
    screen.get_by_role("link", name="Make a cable of your own").click()
    judgement = screen.get_by_role("complementary", name="What it does")
    screen.get_by_role("button", name="2 to T").click()
    screen.get_by_role("button", name="3 to R").click()
    expect(judgement.get_by_role("img")).to_have_attribute("aria-label", re.compile("3 to R"))
    expect(judgement).to_contain_text("the two sides are in opposite polarity")
    screen.get_by_role("button", name="3 to R").click()
    screen.get_by_role("button", name="2 to R").click()
    expect(judgement).not_to_contain_text("opposite polarity")
    expect(judgement).to_contain_text("wired correctly")
    screen.get_by_label("Name", exact=True).fill("Made last night")
    screen.get_by_role("button", name="Save it and use it in cable 2").click()
    expect(screen.locator("[data-track='cam.L']")).to_contain_text("Made last night")
    expect(screen.locator("[data-rule=wrong-lead]")).to_have_count(0)
    plan = plan_of(service, job)
    assert [part.lead for part in plan.runs["run-2"].parts] == ["own-made-last-night"]
    assert [(wire.near, wire.far) for wire in plan.leads["own-made-last-night"].ways[""].wires] == [
        ("1", "S"),
        ("2", "T"),
        ("2", "R"),
    ]
    screen.get_by_role("link", name="Cables of your own").click()
    screen.get_by_role("button", name="Remove").click()
    expect(screen.get_by_role("alert")).to_contain_text("cable 2 uses Made last night")


@pytest.mark.deep
def test_a_path_is_said_by_hand(screen: Page, service):
    job = opened(screen, service, boom_in_bag())
    screen.get_by_role("button", name=re.compile("^Cable 1 ")).first.click()
    panel = screen.locator(".p-drawer")
    panel.get_by_role("button", name="Describe the route").click()
    panel.get_by_label("Stretch 1, length in m").fill("9")
    panel.get_by_label("Stretch 1, length in m").press("Tab")
    panel.get_by_label("Stretch 1 passes").select_option("walkway")
    card = panel.locator("[data-rule=lead-too-short]")
    expect(card).to_contain_text("needs 11.9 m")  # 9 × 1.1 + 2
    expect(panel.locator("[data-rule=laid-safely]")).to_contain_text("ramp it or tape it")
    panel.get_by_label("Strain relief fitted").click()
    card.get_by_role("button", name="Use 12 m").click()
    expect(card).to_have_count(0)
    wait(lambda: plan_of(service, job).runs["run-1"].strain_relief)
    assert plan_of(service, job).runs["run-1"].length_m == 12


@pytest.mark.deep
def test_a_plan_file_shows_what_it_would_change(screen: Page, service, tmp_path):
    job = opened(screen, service, line_into_camera(), "job")
    path = tmp_path / "mended.json"
    path.write_bytes(write_plan(padded_plan(25)))
    screen.get_by_label("Read a plan file into this job").set_input_files(str(path))
    dialog = screen.get_by_role("dialog", name="Changes in mended.json")
    expect(dialog).to_contain_text("cable 2 by 0.3 m 3.5 mm cable with 25 dB, was 0.3 m 3.5 mm TRS")
    expect(dialog).to_contain_text("Then: 0 won’t work")
    dialog.get_by_role("button", name="Cancel").click()
    assert service.newest(job).revision.number == 1
    screen.get_by_label("Read a plan file into this job").set_input_files(str(path))
    dialog.get_by_role("button", name="Replace the plan").click()
    expect(dialog).to_have_count(0)
    assert plan_of(service, job) == padded_plan(25)
    screen.keyboard.press("u")
    expect(screen.get_by_text("Undo: Read from a plan file").first).to_be_visible()
    assert plan_of(service, job) == line_into_camera()
    path.write_text('{"name": 3}')
    screen.get_by_label("Read a plan file into this job").set_input_files(str(path))
    expect(screen.get_by_role("alert")).to_contain_text("mended.json: name")


@pytest.mark.deep
def test_saved_wiped_and_read_again(screen: Page, service, tmp_path):
    """The same job with the same findings."""
    opened(screen, service, foundry(), "job")
    before = screen.get_by_role("status", name="Verdict").inner_text()
    with screen.expect_download() as download:
        screen.get_by_role("link", name="Save the plan as a file").click()
    path = tmp_path / "plan.json"
    download.value.save_as(path)
    screen.goto("/")
    screen.get_by_role("button", name="Remove", exact=True).click()
    screen.get_by_role("button", name="Remove with its history").click()
    expect(screen.get_by_role("link", name="Casting day")).to_have_count(0)
    screen.get_by_label("Open a saved plan (.json)").set_input_files(str(path))
    expect(screen.get_by_role("status", name="Verdict")).to_have_text(re.compile(r"\d+ won’t work"))
    assert screen.get_by_role("status", name="Verdict").inner_text() == before
    assert read_plan(path.read_bytes()) == foundry()


@pytest.mark.deep
def test_history_says_who_and_compares(screen: Page, service):
    job = opened(screen, service, line_into_camera())
    expect(screen.locator("[data-track='cam.L']")).to_be_visible()
    screen.keyboard.press("h")
    screen.get_by_label("Your name").fill("Sound, unit two")
    screen.keyboard.press("Escape")
    expect(screen.locator(".p-drawer")).to_have_count(0)
    point_at(screen, "line-into-mic")
    screen.keyboard.press("a")
    expect(screen.locator("[data-rule=line-into-mic]")).to_have_count(0)
    screen.keyboard.press("h")
    panel = screen.locator(".p-drawer")
    expect(panel.get_by_role("listitem").filter(has_text="bag line out: output level")).to_contain_text(
        "Sound, unit two"
    )
    panel.get_by_role("button", name="Changes since revision 1", exact=True).click()
    expect(panel.get_by_role("status", name="What changed")).to_contain_text("output level")
    assert service.history(job)[0].who == "Sound, unit two"
    screen.reload()
    expect(screen.locator("[data-track='cam.L']")).to_be_visible()
    screen.keyboard.press("h")
    expect(screen.get_by_label("Your name")).to_have_value("Sound, unit two")


@pytest.mark.deep
def test_every_form_is_in_the_help(screen: Page, service, client):
    opened(screen, service, boom_in_bag())
    expect(screen.locator("[data-track='bag.1']")).to_be_visible()
    screen.keyboard.press("?")
    help_ = screen.get_by_role("dialog", name="Help and shortcuts")
    for form in json.loads(client.get("/api/grammar").content)["forms"]:
        expect(help_).to_contain_text(form["example"])


def test_two_sockets_are_joined_by_pointing(screen: Page, service):
    plan = do(Plan(name="By hand"), "add boom shotgun as boom", "add bag recorder, eight as bag", "anna at boom, 0.6 m")
    job = opened(screen, service, plan)
    screen.get_by_text("Connect by hand").click()
    sockets = screen.get_by_role("list", name="Free sockets")
    sockets.get_by_role("listitem").filter(has_text="boom").get_by_role("button", name="out").click()
    sockets.get_by_role("listitem").filter(has_text="bag").get_by_role("button", name="in 2").click()
    expect(screen.get_by_label("From socket")).to_have_value("boom out")
    ways = screen.get_by_role("list", name="Ways to connect them")
    expect(ways.get_by_role("listitem").first).to_contain_text("bag in 2")
    ways.get_by_role("button", name="Connect").first.click()
    expect(screen.locator(".bar", has_text="Connect boom")).to_be_visible()
    (run,) = service.plan(job).runs.values()
    assert (run.sending.device, run.receiving.port) == ("boom", "in2")
    screen.keyboard.press("u")
    expect(screen.locator(".bar", has_text="Undo: ")).to_be_visible()
    assert service.plan(job).runs == {}
