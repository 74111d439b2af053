"""Equipment of one's own in the real interface: described from the nearest class, used in a job, given out and taken in."""

from playwright.sync_api import expect

from tests.interface.pages import opened, plan_of
from tidy_trunk.core.plan import Plan


def test_a_device_of_ones_own_from_a_datasheet_to_a_job_and_elsewhere(screen, services, tmp_path):
    """A made-up camera whose manual says: maximum input −4 dBu, gain 0 to 30 dB in steps of 3 dB."""
    screen.goto("/equipment")
    screen.get_by_role("link", name="Describe a device or cable").click()
    screen.get_by_label("Begin from the nearest").select_option("mirrorless-mic")
    screen.get_by_label("Name", exact=True).first.fill("Test camera")
    screen.locator("summary", has_text="mic socket").first.click()
    screen.locator("summary", has_text="From a datasheet").click()
    screen.get_by_label("Input and position").select_option(label="mic socket, mic")
    for label, figure in (("Lowest gain, dB", "0"), ("Highest gain, dB", "30"), ("Gain steps, dB", "3")):
        screen.get_by_label(label).fill(figure)
    screen.get_by_role("spinbutton", name="Maximum input level").fill("-4")
    screen.get_by_role("button", name="Use these figures").click()
    expect(screen.locator("dd", has_text="full scale −4 dBu ±1 dB, manual")).to_be_visible()
    screen.get_by_label("to, dB").first.fill("-3")
    screen.get_by_label("to, dB").first.blur()
    expect(screen.get_by_role("alert")).to_contain_text("inputs.mic.modes.mic.gain: a knob from 0.0 to -3.0 dB")
    screen.get_by_role("button", name="Undo", exact=True).click()
    expect(screen.get_by_role("alert")).to_have_count(0)
    screen.get_by_label("to, dB").first.fill("33")
    screen.get_by_label("to, dB").first.blur()
    expect(screen.locator("dd", has_text="gain 0 to +33 dB in steps of 3")).to_be_visible()
    screen.get_by_role("button", name="Save", exact=True).click()
    expect(screen.get_by_text("Saved in My equipment")).to_be_visible()

    job = opened(screen, services.jobs, Plan(name="Interview"), "job")
    screen.get_by_label("Type of device").select_option("my-mirrorless-mic")
    screen.get_by_label("Device name").fill("cam")
    screen.get_by_label("Device name").press("Enter")
    expect(screen.get_by_text("as in My equipment")).to_be_visible()
    plan = plan_of(services.jobs, job)
    assert plan.classes["my-mirrorless-mic"].inputs[0].modes[0].full_scale_dbu.value == -4

    screen.goto("/equipment")
    with screen.expect_download() as download:
        screen.get_by_role("link", name="Export", exact=True).click()
    path = tmp_path / "camera.toml"
    download.value.save_as(path)
    screen.get_by_role("button", name="Remove Test camera").click()
    expect(screen.get_by_text("Nothing yet")).to_be_visible()
    screen.get_by_label("Import files").set_input_files(path)
    expect(screen.get_by_text("Imported: Test camera")).to_be_visible()
    path.write_text(path.read_text().replace("Test camera", "Other camera"))
    screen.get_by_label("Import files").set_input_files(path)
    expect(screen.get_by_role("link", name="Other camera")).to_be_visible()
    screen.get_by_role("button", name="Undo").click()
    expect(screen.get_by_role("link", name="Test camera")).to_be_visible()
    assert services.equipment.get("my-mirrorless-mic").item == plan.classes["my-mirrorless-mic"]
    path.write_text(path.read_text().replace("impedance_ohm = 2500", "impedance_ohm = -1"))
    screen.get_by_label("Import files").set_input_files(path)
    expect(screen.get_by_role("alert")).to_contain_text(
        "camera.toml: inputs.mic.modes.mic.impedance_ohm: must be between"
    )
