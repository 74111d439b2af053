"""Classes as files: the built-in ones are complete and read back as they are written, and a bad file says what is wrong where."""

import json
import math
import pickle
import re
import tomllib
from pathlib import Path

import jsonschema_rs
import pytest

from scripts.made_plan import large_plan
from tests.equipment.class_file import PREAMP
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document import read_plan
from tidy_trunk.equipment import class_schema, read_class, write_class
from tidy_trunk.equipment.built_in import CABLES, DEVICES, HERE, ORDER, read_built_in
from tidy_trunk.errors import FormatError

ROOT = Path(__file__).resolve().parent.parent.parent
BUILT_IN = [*built_in().devices.values(), *built_in().leads.values()]
FILES = sorted((*DEVICES.glob("*.toml"), *CABLES.glob("*.toml")))


def refusal(text: str | bytes) -> str:
    with pytest.raises(FormatError) as refused:
        read_class(text if isinstance(text, bytes) else text.encode(), "preamp.toml")
    return refused.value.message


@pytest.mark.parametrize("item", BUILT_IN, ids=lambda item: item.id)
def test_what_is_written_reads_back(item):
    assert read_class(write_class(item), "again.toml") == item


def test_every_file_is_offered_and_names_its_source():
    order = tomllib.loads(ORDER.read_text())
    assert sorted(path.stem for path in FILES) == sorted(order["devices"] + order["cables"])
    known = set(re.findall(r"^\| ([A-Z0-9-]+) \|", (ROOT / "docs" / "sources.md").read_text(), re.MULTILINE))
    for path in FILES:
        text = path.read_text()
        assert read_class(text.encode(), path.name).id == path.stem
        tags = set(re.findall(r"\[([A-Z][A-Z0-9-]{2,})\]", text.split("id = ", 1)[0]))
        assert tags and tags <= known, path.name


def test_every_file_obeys_the_published_schema():
    """Read by another library: jsonschema-rs, draft 2020-12."""
    for folder, of in ((DEVICES, "device"), (CABLES, "cable")):
        schema = class_schema(of)
        assert (ROOT / "docs" / f"{of}.schema.json").read_bytes() == schema
        checker = jsonschema_rs.Draft202012Validator(json.loads(schema))
        for path in folder.glob("*.toml"):
            checker.validate(json.loads(json.dumps(tomllib.loads(path.read_text()))))


def test_moving_the_classes_into_files_changed_no_level():
    """Average, peaks and noise of each track, in dBFS, as they were while the classes were code."""
    before = json.loads((ROOT / "tests" / "files" / "levels-before-files.json").read_text())
    names = [f"plan-version-{number}.json" for number in range(1, 8)]
    plans = {name: read_plan((ROOT / "tests" / "files" / name).read_bytes()) for name in names}
    plans |= {"foundry": foundry(), "large": large_plan()}
    now = {}
    for name, plan in plans.items():
        for track in Report(trace_plan(plan)).tracks:
            levels = (track.sound.average, track.sound.peak, track.sound.noise)
            now[f"{name} {track.trace.id}"] = [level if math.isfinite(level) else None for level in levels]
    assert now.keys() == before.keys() and len(now) > 60
    for track, levels in now.items():
        assert levels == pytest.approx(before[track], abs=0.01), track


def test_a_class_file_of_an_earlier_version_means_the_same():
    former = {'"preamp-box"': '"preamp box"', '"p48"': '"P48"', '"unbalanced-stereo"': '"unbalanced stereo"'}
    text = PREAMP
    for today, then in former.items():
        assert today in text
        text = text.replace(today, then)
    assert read_class(text.encode(), "preamp.toml") == read_class(PREAMP.encode(), "preamp.toml")


def test_alike_sockets_are_written_once():
    item = read_class(PREAMP.encode(), "preamp.toml")
    assert [port.label for port in item.inputs] == ["in 1", "in 2"]
    assert read_class(write_class(item), "preamp.toml") == item


def test_a_bare_number_is_a_typical_figure():
    mode = read_class(PREAMP.encode(), "preamp.toml").inputs[0].modes[0]
    assert (mode.full_scale_dbu.tolerance, mode.full_scale_dbu.provenance) == (3.0, "typical")
    assert mode.impedance_ohm.tolerance == 20.0
    told = PREAMP.replace(
        "full_scale_dbu = -10", 'full_scale_dbu = {value = -10, tolerance = 1, provenance = "manual"}'
    )
    mode = read_class(told.encode(), "preamp.toml").inputs[0].modes[0]
    assert (mode.full_scale_dbu.tolerance, mode.full_scale_dbu.provenance) == (1.0, "manual")


@pytest.mark.parametrize(
    ("old", "new", "message"),
    [
        ("kind =", "colour = 'red'\nkind =", "colour: there is no such field"),
        ("full_scale_dbu = -10\ngain", "full_scale = -10\ngain", "inputs.in1.modes.mic.full_scale: there is no such field; use full_scale_dbu"),
        ("impedance_ohm = 3000", "impedance_ohm = -3000", "inputs.in1.modes.mic.impedance_ohm: must be between 0.1 and 10,000,000 Ω, not -3000 (and 1 more)"),
        ("minimum_db = 0, maximum_db = 40", "minimum_db = 40, maximum_db = 0", "inputs.in1.modes.mic.gain: a knob from 40.0 to 0.0 dB cannot stand at 20.0 dB"),
        ('id = "in#"', 'id = "in"', "two ports share one id"),
        ('inputs = ["in2"]', 'inputs = ["in3"]', "bus R: fed by a channel that is not there"),
        ('"out.R" = "R"', '"out.R" = "C"', "feed out.R from C is not there"),
        ("impedance_ohm = 3000", "impedance_ohm = nan", "inputs.in1.modes.mic.impedance_ohm.value: input should be a finite number"),
        ("impedance_ohm = 3000", "impedance_ohm = inf", "impedance_ohm.value: input should be a finite number"),
        ('signal = "mic"\nimpedance', 'signal = "speech"\nimpedance', "inputs.in1.modes.mic.signal: input should be 'mic', 'line' or 'digital', not 'speech'"),
        ('connector = "trs35"', 'connector = "din"', "outputs.out.plug: there is no connector 'din': use xlr3, xlr5"),
        ('circuit = "balanced"', 'circuit = "sdi"', "XLR-3 is not 'sdi'"),
        ("repeat = 2", "repeat = 2000", "repeat must be a whole number between 2 and 32, not 2000"),
        ('label = "Preamp"\n', "", "label: is missing"),
        ('kind = "preamp-box"', "kind = ", "this is not TOML"),
    ],
    ids=lambda text: text[:24],
)  # fmt: skip
def test_a_bad_file_says_what_and_where(old, new, message):
    assert old in PREAMP
    said = refusal(PREAMP.replace(old, new))
    assert said.startswith("preamp.toml: ") and message in said and "\n" not in said


def test_what_is_no_class_file_is_refused():
    assert "at most 256 kB, this file has 10,000 kB" in refusal(b" " * 10_240_000)
    assert "this is not text" in refusal(b"\xff\xfe\x00")
    assert "is missing" in refusal("")
    assert "this is not TOML" in refusal("a = " + "[" * 5_000)


def test_a_cable_that_cannot_be_is_refused():
    cable = (CABLES / "xlr-trs.toml").read_text()
    assert "must be two contacts with a dash between them" in refusal(cable.replace('"2-T"', '"2T"'))
    assert "its receiving end has no contact 'R1'; it has T, R, S" in refusal(cable.replace('"2-T"', '"2-R1"'))


def test_what_is_kept_is_made_again_where_it_is_spoilt():
    """It lies beside the byte code: cut off, another thing, or not there, the files are read again."""
    found = read_built_in()
    kept = next((HERE / "__pycache__").glob("built-in-*.pickle"))
    for spoilt in (b"", kept.read_bytes()[:2_000], pickle.dumps("something else")):
        kept.write_bytes(spoilt)
        assert read_built_in() == found
        assert kept.read_bytes() != spoilt


@pytest.mark.parametrize(
    "text", re.findall(r"```toml\n(.*?)```", (ROOT / "docs" / "equipment.md").read_text(), re.DOTALL)
)
def test_the_examples_of_the_document_are_read(text):
    assert read_class(text.encode(), "example.toml").label in text
