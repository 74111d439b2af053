"""My equipment: files taken in and given out, classes that go into jobs and come from them, and what is refused."""

import io
import zipfile
from dataclasses import replace

import pytest

from tests.api.test_patch_api import opened
from tests.equipment.class_file import PREAMP
from tests.plans import boom_in_bag, put
from tidy_trunk.core.gear.catalogue import LawPoint, built_in
from tidy_trunk.core.plan import CopyClass, GainLaw, TakeGainLaw, apply_edits
from tidy_trunk.equipment import write_class

CABLE = write_class(built_in().leads["xlr-trs-pad-25"]).decode().replace('id = "xlr-trs-pad-25"', 'id = "my-25"')


def taken(client, *texts: str):
    return client.post(
        "/api/equipment", json={"files": [{"name": f"{at}.toml", "text": text} for at, text in enumerate(texts)]}
    )


def test_files_are_taken_in_several_at_once_and_given_out_again(client):
    answer = taken(client, PREAMP, CABLE)
    assert answer.status_code == 201 and [item["page"]["id"] for item in answer.json()] == ["preamp", "my-25"]
    assert [item["page"]["of"] for item in client.get("/api/equipment").json()] == ["device", "cable"]
    given = client.get("/api/equipment/preamp/file")
    assert given.headers["content-disposition"] == 'attachment; filename="preamp.toml"'
    again = taken(client, given.text.replace('label = "Preamp"', 'label = "My preamp"'))
    assert again.status_code == 201
    assert client.get("/api/equipment").json()[0]["page"]["label"] == "My preamp"
    assert client.delete("/api/equipment/my-25").status_code == 204
    assert client.get("/api/equipment/my-25").status_code == 404


def test_all_of_it_goes_into_one_file_and_comes_back(client):
    """Read by the standard library, as any archive; what is too large unpacked is refused before it is all there."""
    taken(client, PREAMP, CABLE)
    before = client.get("/api/equipment").json()
    archive = client.get("/api/equipment-archive")
    assert archive.headers["content-disposition"] == 'attachment; filename="my-equipment.zip"'
    assert zipfile.ZipFile(io.BytesIO(archive.content)).namelist() == ["preamp.toml", "my-25.toml"]
    for item in ("preamp", "my-25"):
        client.delete(f"/api/equipment/{item}")
    zipped = {"Content-Type": "application/octet-stream"}
    back = client.post("/api/equipment-archive", content=archive.content, headers=zipped)
    assert back.status_code == 201 and len(back.json()) == 2
    same = [(item["page"], item["takes"]) for item in client.get("/api/equipment").json()]
    assert same == [(item["page"], item["takes"]) for item in before]
    box = io.BytesIO()
    with zipfile.ZipFile(box, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr("preamp.toml", PREAMP)
        file.writestr("bomb.toml", " " * 50_000_000)
    for content, says in (
        (box.getvalue(), "bomb.toml: a class has at most 256 kB"),
        (b"no archive", "no ZIP archive"),
        (archive.content[:200], "no ZIP archive"),
    ):
        refused = client.post("/api/equipment-archive", content=content, headers=zipped, params={"name": "mine.zip"})
        assert refused.status_code == 422 and says in refused.json()["detail"], refused.text


def test_one_bad_file_keeps_all_of_them_out(client):
    answer = taken(client, PREAMP, CABLE.replace('"1-S"', '"9-S"'))
    assert answer.status_code == 422
    assert answer.json()["detail"] == "1.toml: its sending end has no contact '9'; it has 1, 2, 3"
    assert client.get("/api/equipment").json() == []


@pytest.mark.parametrize(
    ("texts", "says"),
    [
        ([PREAMP, PREAMP], "1.toml and 0.toml have the same id, preamp"),
        ([PREAMP.replace('id = "preamp"', 'id = "ribbon"')], "a built-in class has the id 'ribbon': choose another, such as my-ribbon"),
        ([PREAMP.replace("impedance_ohm = 3000", "impedance_ohm = nan")], "input should be a finite number"),
        ([" " * 300_000], "at most 256 kB"),
        ([""], "is missing"),
        ([PREAMP.replace('label = "Preamp"', 'label = "Pre\\u0007amp"')], "must be printable characters"),
    ],
)  # fmt: skip
def test_what_is_no_class_is_refused_in_one_line(client, texts, says):
    answer = taken(client, *texts)
    assert answer.status_code == 422 and says in answer.json()["detail"] and "\n" not in answer.json()["detail"]


def test_a_preview_keeps_nothing(client):
    draft = client.post("/api/equipment/preview", json={"name": "x.toml", "text": PREAMP}).json()
    page = draft["page"]
    as_values = {"name": "x", "document": draft["document"]}
    assert client.post("/api/equipment/preview", json=as_values).json() == draft
    draft["document"]["inputs"][0]["modes"][0]["impedance_ohm"] = -1
    refused = client.post("/api/equipment/preview", json=as_values).json()["detail"]
    assert refused == "x: inputs.in1.modes.mic.impedance_ohm: must be between 0.1 and 10,000,000 Ω, not -1"
    assert client.post("/api/equipment/preview", json={"name": "x"}).status_code == 422
    assert [socket["label"] for socket in page["sockets"]] == ["in 1", "in 2", "out"]
    assert "full scale −10 dBu ±3 dB, typical" in page["sockets"][0]["lines"][0]
    assert client.get("/api/equipment").json() == []
    assert (
        client.get("/api/built-in/ribbon").json()["text"].startswith('id = "my-ribbon"\nlabel = "My ribbon, passive"')
    )
    assert client.get("/api/built-in/none").status_code == 404


def test_a_class_is_found_by_a_typed_line_and_comes_into_the_job(client):
    taken(client, PREAMP)
    state = opened(client, boom_in_bag())
    job = f"/api/jobs/{state['job']}"
    answer = client.post(f"{job}/say", json={"text": "add preamp as pre"}).json()
    first = answer["proposals"][0]
    assert [edit["kind"] for edit in first["edits"]] == ["save-class", "add-device"]
    after = client.post(f"{job}/edits", json={"base_revision": state["revision"], "edits": first["edits"]})
    assert after.status_code == 200
    (own,) = client.get(f"{job}/classes").json()
    assert (own["id"], own["used_by"], own["original"]) == ("preamp", ["pre"], "same")
    taken(client, PREAMP.replace("impedance_ohm = 3000", "impedance_ohm = 2000"))
    (own,) = client.get(f"{job}/classes").json()
    assert own["original"] == "changed"
    assert client.delete("/api/equipment/preamp").status_code == 204
    assert client.get(f"{job}/classes").json()[0]["original"] == "none"
    assert client.get(job).status_code == 200, "the job keeps its own copy"


def test_a_cable_of_ones_own_comes_into_a_job_whole(client):
    """Its impedance, its other names and its price are part of it, not its contacts alone."""
    mine = write_class(replace(built_in().leads["aes3"], id="my-aes", label="Long digital", also="grey one", cost=2))
    taken(client, mine.decode())
    state = opened(client, boom_in_bag())
    job = f"/api/jobs/{state['job']}"
    for line in ("add bag recorder aes3 in as cart", "bag aes3 out to cart aes3 in, 3 m, by grey one"):
        first = client.post(f"{job}/say", json={"text": line}).json()["proposals"][0]
        body = {"base_revision": state["revision"], "edits": first["edits"]}
        state = client.post(f"{job}/edits", json=body).json()
    assert [edit["kind"] for edit in first["edits"]] == ["save-lead", "connect"]
    (own,) = client.get(f"{job}/classes").json()
    assert (own["id"], own["used_by"], own["original"]) == ("my-aes", ["run-2"], "same")
    (lead,) = state["plan"]["leads"]
    assert (lead["characteristic_ohm"], lead["also"], lead["cost"]) == (110, "grey one", 2)
    nothing = client.post(f"{job}/say", json={"text": "remove my 25"}).json()
    taken(client, CABLE)
    assert client.post(f"{job}/say", json={"text": "remove my 25"}).json() == nothing
    client.delete("/api/equipment/my-aes")
    assert client.post(f"{job}/classes/my-aes/keep").status_code == 201
    assert client.get("/api/equipment/my-aes").json()["document"]["characteristic_ohm"] == 110


def test_what_was_measured_travels_with_a_class_that_is_kept(client):
    law = GainLaw(class_id="own-my-bag", control="in1.mic.gain_db", points=(LawPoint(20, 19.0), LawPoint(60, 58.5)), when="2026-11-28T08:00")  # fmt: skip
    plan = apply_edits(
        boom_in_bag(),
        [CopyClass(device="bag", label="My bag"), TakeGainLaw(law=law), put("bag", "in1.mic.gain_db", 60.0)],
    )
    job = f"/api/jobs/{opened(client, plan)['job']}"
    assert client.post(f"{job}/classes/own-my-bag/keep").status_code == 201
    assert "law = [{position_db = 20, gain_db = 19}" in client.get("/api/equipment/own-my-bag").json()["text"]
    assert client.get(f"{job}/classes").json()[0]["original"] == "same"
    assert client.post(f"{job}/classes/ribbon/keep").status_code == 404


def test_a_change_shows_what_it_does_to_the_levels_of_a_job(client):
    """Full scale 6 dB higher at the same gain: 6 dB less in the file."""
    plan = apply_edits(boom_in_bag(), [CopyClass(device="bag", label="My bag")])
    job = f"/api/jobs/{opened(client, plan)['job']}"
    client.post(f"{job}/classes/own-my-bag/keep")
    text = client.get("/api/equipment/own-my-bag").json()["text"]
    other = text.replace("full_scale_dbu = {value = 10, tolerance = 1}", "full_scale_dbu = 16")
    moved = client.post(f"{job}/classes/try", json={"name": "my-bag.toml", "text": other}).json()
    assert moved[0]["label"] == "bag track 1"
    assert moved[0]["average_after"] == pytest.approx(moved[0]["average_before"] - 6, abs=0.01)
    gone = client.post(
        f"{job}/classes/try", json={"name": "my-bag.toml", "text": other.replace('id = "in1"', 'id = "one"')}
    )
    assert gone.status_code == 422
    assert client.post(f"{job}/classes/try", json={"name": "x.toml", "text": PREAMP}).json() == []


def test_a_datasheet_is_read_into_a_position_of_an_input(client):
    mode = {"id": "mic", "label": "mic", "signal": "mic", "impedance_ohm": 3000}
    sheet = {"mode": mode, "lowest_db": 10, "highest_db": 70, "most": 1.228, "most_unit": "V", "ein_dbu": -127}
    answer = client.post("/api/equipment/datasheet", json=sheet).json()["mode"]
    told = {"value": 14.0, "tolerance": 1.0, "provenance": "manual", "source": "USER"}
    assert (answer["full_scale_dbu"], answer["gain"]["maximum_db"], answer["impedance_ohm"]) == (told, 70, 3000)
    assert client.post("/api/equipment/datasheet", json={**sheet, "most": None}).status_code == 422
    assert (
        client.post("/api/equipment/datasheet", json={**sheet, "highest_db": 5})
        .json()["detail"]
        .startswith("gain must rise")
    )
