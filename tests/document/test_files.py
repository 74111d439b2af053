"""Plan files: what goes out comes in again, and what cannot be is refused with its place."""

import json
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, line_into_camera
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.adviser import Adviser
from tidy_trunk.core.gear.catalogue import Power, built_in
from tidy_trunk.core.plan import (
    Hazard,
    Passing,
    Plan,
    PlanIndex,
    ReadFrom,
    RemoveDevice,
    Stretch,
    Weighting,
    apply_edits,
)
from tidy_trunk.document import (
    SCHEMA_VERSION,
    AnyEdit,
    edit_document,
    plan_from_json,
    plan_schema,
    read_plan,
    write_plan,
)
from tidy_trunk.document.edits import EditModel
from tidy_trunk.errors import FormatError, InputError, NewerSchemaError, PlanError, PortInUseError, SignalLoopError


@pytest.mark.parametrize("plan", [Plan(name="Empty"), boom_in_bag(), line_into_camera(), foundry()])
def test_written_and_read_again(plan):
    assert read_plan(write_plan(plan)) == plan


@given(st.text(alphabet=st.characters(codec="utf-8", categories=["L", "N", "P", "S"]), min_size=1, max_size=80))
def test_any_printable_name_survives(name):
    assert read_plan(write_plan(Plan(name=name))).name == name


def test_a_plan_of_version_1_is_brought_up_to_date():
    """The stored example was written by the program when that was its shape; what it says stays."""
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-1.json").read_text())
    assert old["schema_version"] == 1
    plan = plan_from_json(old)
    assert old["schema_version"] == 1, "what was read is left as it was"
    assert [run.number for run in plan.runs.values()] == [run["number"] for run in old["runs"]]
    assert plan.leads == {} and not any(run.path or run.strain_relief for run in plan.runs.values())
    assert json.loads(write_plan(plan))["schema_version"] == SCHEMA_VERSION


def test_a_plan_of_version_2_is_given_bursts():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-2.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 2 and "burst_db_spl" not in old["sources"][0]
    assert all(source.burst_db_spl == source.peak_db_spl + 10 for source in plan.sources.values())
    assert plan.runs == without_the_box(foundry()).runs
    assert {key: set(device.settings) for key, device in plan.devices.items()} == {
        key: set(device.settings) for key, device in without_the_box(foundry()).devices.items()
    }


def test_a_plan_of_version_3_has_neither_targets_of_its_own_nor_rumble():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-3.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 3 and "rumble_db_spl" not in old["defaults"]
    assert plan.targets == {} and plan.defaults.rumble_db_spl == 0 and plan.defaults.target == "film"
    assert not any(source.off_axis_deg for source in plan.sources.values())
    assert plan.runs == without_the_box(foundry()).runs


def test_a_plan_of_version_4_was_never_lined_up():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-4.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 4 and "line_ups" not in old
    assert plan.line_ups == {} and plan.runs == without_the_box(foundry()).runs


def test_a_plan_of_version_5_had_nothing_measured_of_knobs_and_meters():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-5.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 5 and "gain_laws" not in old
    assert plan.gain_laws == {} and plan.meters == {} and plan.line_ups["camera-a.1"].read_dbfs == -20.6


def test_a_plan_of_version_6_knew_no_day():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-6.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 6 and "breaks" not in old and "jam" not in old["devices"][0]
    assert plan.breaks == {} and plan.pair_drifts == {} and plan.defaults.day_begins_min == 480
    assert without_the_box(foundry()).runs == plan.runs


def test_a_plan_of_version_7_stated_its_sources_a_weighted():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-7.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 7 and "weighting" not in old["sources"][0]
    assert {source.weighting for source in plan.sources.values()} == {Weighting.A}
    assert plan.runs == foundry().runs and plan.breaks == foundry().breaks


def test_a_class_of_ones_own_of_version_8_is_described_whole():
    """It was one that is built in, with other figures."""
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-8.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 8 and old["classes"][0]["base"] == "mirrorless-mic"
    own = plan.classes["own-my-mirrorless"]
    assert (own.label, own.inputs[0].idle_noise_dbfs.value) == ("My mirrorless", -78.5)
    assert PlanIndex(plan).placed("cam").input("mic").modes[0].ein_dbu.value == -110
    assert read_plan(write_plan(plan)) == plan
    del old["classes"][0]["base"]
    with pytest.raises(FormatError, match="there is no class 'None'"):
        plan_from_json(old)


def test_a_cable_of_ones_own_of_version_9_is_described_whole():
    """Its contacts were kept, and what follows from them was worked out each time."""
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-9.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 9 and "balanced" not in old["leads"][0]
    lead = plan.leads["own-made-last-night"]
    assert (lead.balanced, lead.loss_db.value, lead.short_m) == (False, 25.3, 0.4)
    assert read_plan(write_plan(plan)) == plan


def test_a_plan_of_version_10_has_no_set_ups():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-10.json").read_text())
    plan = plan_from_json(old)
    assert old["schema_version"] == 10 and "set_ups" not in old
    assert replace(plan, set_ups=foundry().set_ups) == foundry()


def test_a_plan_of_version_11_names_nobody_of_the_crew():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-11.json").read_text())
    assert old["schema_version"] == 11 and "crew" not in old["defaults"]
    assert plan_from_json(old) == foundry()


def test_a_plan_of_version_12_says_the_same_in_slugs():
    old = json.loads((Path(__file__).parent.parent / "files" / "plan-version-12.json").read_text())
    plan = plan_from_json(old)
    near = (Passing(Hazard.BESIDE_MAINS, 2), Passing(Hazard.LED, 1))
    assert old["schema_version"] == 12 and old["runs"][0]["path"][0]["passes"][1]["what"] == "LED driver"
    assert plan.runs["run-1"].path == (Stretch(8, near), Stretch(2, (Passing(Hazard.ACROSS_MAINS),)))
    powers = [PlanIndex(plan).placed(device).power for device in ("camera-a", "pocket", "camera-b")]
    assert powers == [Power.ADAPTER, Power.COMPUTER, Power.CHARGER]
    assert plan.line_ups["bag.1"].read_from is ReadFrom.SIMULATION
    for device, name in (("boom", "boom-shotgun"), ("bag", "bag-recorder"), ("switcher", "live-switcher")):
        own, built = PlanIndex(plan).placed(device).device_class, built_in().devices[name]
        assert own.id != name and replace(own, id=name, label=built.label) == built
    untouched = {"classes": {}, "line_ups": {}, "devices": foundry().devices, "runs": foundry().runs}
    assert replace(plan, **untouched) == foundry()


def without_the_box(plan):
    """The demo as it was before its clocks came in."""
    return apply_edits(plan, [RemoveDevice(device="box-a")])


def test_the_published_schema_is_that_of_the_program():
    published = Path(__file__).parents[2] / "docs" / "plan.schema.json"
    assert published.read_bytes() == plan_schema()
    assert json.loads(plan_schema())["properties"]["runs"]


def own_lead(**changes):
    lead = {
        "id": "own-lead", "label": "Made last night", "short_m": 0.4, "balanced": False,
        "sending": {"connector": "xlr3", "gender": "female"}, "receiving": {"connector": "trs35", "gender": "male"},
        "ways": {"": {"wires": [{"near": "2", "far": "T", "ohm": 4700.0}, {"near": "1", "far": "S"}],
                      "bridges": [{"end": "receiving", "first": "T", "second": "R"}]}},
    }  # fmt: skip
    return {**lead, **changes}


def test_a_lead_of_ones_own_survives_its_file():
    raw = changed(lambda raw: put(raw, "leads", value=[own_lead()]))
    plan = plan_from_json(raw)
    assert read_plan(write_plan(plan)) == plan
    assert plan.leads["own-lead"].ways[""].wires[0].ohm == 4700


@pytest.mark.parametrize(
    ("lead", "says"),
    [
        (own_lead(ways={"": {"wires": [{"near": "9", "far": "T"}]}}), "sending end has no contact '9'"),
        (own_lead(ways={"": {}}), "nothing is joined"),
        (own_lead(ways={"L": {"wires": [{"near": "2", "far": "T"}]}}), "one way, or the two ways L and R"),
        (own_lead(ways={"": {"wires": [{"near": "2", "far": "T", "ohm": 0.01}]}}), "Ω, not 0.01"),
        (own_lead(sending={"connector": "gramophone", "gender": "male"}), "gramophone"),
        (own_lead(id="xlr"), "a built-in cable has this id"),
        (own_lead(short_m=500), "short_m: input should be less than or equal to 100, not 500"),
    ],
)
def test_a_lead_that_cannot_be_is_refused(lead, says):
    with pytest.raises((PlanError, InputError, FormatError), match=says):
        plan_from_json(changed(lambda raw: put(raw, "leads", value=[lead])))


def changed(change):
    raw = json.loads(write_plan(line_into_camera()))
    change(raw)
    return raw


def put(raw, *path, value):
    *way, last = path
    for key in way:
        raw = raw[key]
    raw[last] = value


LOOP = {"id": "back", "number": 9, "sending": {"device": "bag", "port": "out-l"}, "receiving": {"device": "bag", "port": "in5"},
        "parts": [{"lead": "xlr", "length_m": 1}]}  # fmt: skip
TWICE = {**LOOP, "sending": {"device": "bag", "port": "line"}, "receiving": {"device": "bag", "port": "in5"}}


@pytest.mark.parametrize(
    ("change", "error", "says"),
    [
        (lambda raw: put(raw, "devices", 0, "class_id", value="gramophone"), PlanError, "no class of device 'gramophone'"),
        (lambda raw: put(raw, "runs", 0, "sending", "device", value="ghost"), PlanError, "cable 1: there is no device 'ghost'"),
        (lambda raw: raw["runs"].append(TWICE), PortInUseError, "bag line out holds the plug of cable 2"),
        (lambda raw: raw["runs"].append(LOOP), SignalLoopError, "circle"),
        (lambda raw: put(raw, "runs", 0, "parts", 0, "length_m", value=-3), FormatError, "runs.0.parts.0.length_m"),
        (lambda raw: put(raw, "runs", 0, "parts", 0, "length_m", value="3 ft"), FormatError, "valid number"),
        (lambda raw: put(raw, "sources", 0, "average_db_spl", value=float("nan")), FormatError, "sources.0.average_db_spl"),
        (lambda raw: put(raw, "sources", 0, "peak_db_spl", value=400), InputError, "dB SPL, not 400"),
        (lambda raw: put(raw, "schema_version", value=99), NewerSchemaError, "schema version 99"),
        (lambda raw: put(raw, "schema_version", value="1"), FormatError, "whole number"),
        (lambda raw: put(raw, "schema_version", value=0), FormatError, "whole number"),
        (lambda raw: put(raw, "runs", 0, "path", value=[{"length_m": 4, "passes": [{"what": "beside-mains", "metres": 9}]}]), InputError, "cannot lie beside mains for 9 m"),
        (lambda raw: put(raw, "runs", 0, "path", value=[{"length_m": 4, "passes": [{"what": "dragon"}]}]), FormatError, "runs.0.path.0.passes.0.what"),
        (lambda raw: put(raw, "colour", value="blue"), FormatError, "colour: extra inputs"),
        (lambda raw: put(raw, "devices", 1, "id", value="boom"), FormatError, "two share the id 'boom'"),
        (lambda raw: put(raw, "devices", 0, "settings", value={"nothing": 1}), PlanError, "device 'boom'"),
        (lambda raw: raw.pop("name"), FormatError, "name: field required"),
    ],
)  # fmt: skip
def test_refused_with_its_place(change, error, says):
    with pytest.raises(error) as refusal:
        plan_from_json(changed(change))
    assert says in refusal.value.message


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "no JSON: line 1"),
        (b"{", "no JSON"),
        (b"\xff\xfe\x00", "not UTF-8"),
        (b"[]", "a plan is a JSON object"),
        (b"[" * 100_000, "nested too deeply"),
        (b'{"a": "' + b"x" * 50_000_000 + b'"}', "at most 4 MB"),
    ],
    ids=["empty", "cut", "binary", "list", "deep", "huge"],
)
def test_bytes_that_are_no_plan(data, says):
    with pytest.raises(FormatError, match=says):
        read_plan(data)


def test_every_edit_has_a_document_of_its_fields():
    for model in EditModel.__subclasses__():
        assert set(model.model_fields) - {"kind"} == set(model.command.__dataclass_fields__), model


def test_edits_go_out_and_come_in():
    from pydantic import TypeAdapter

    from tidy_trunk.core.sound.levels import Report
    from tidy_trunk.core.sound.trace import trace_plan

    adapter = TypeAdapter(AnyEdit)
    edits = [
        edit
        for moves in Adviser(Report(trace_plan(foundry()))).all_fixes().values()
        for move in moves
        for edit in move.edits
    ]
    assert len({type(edit) for edit in edits}) >= 2
    for edit in edits:
        assert adapter.validate_json(edit_document(edit).model_dump_json()).to_core() == edit
