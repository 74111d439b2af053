"""What is said of edits: one of each."""

from dataclasses import replace

import pytest

from tests.plans import line_into_camera, made, put
from tidy_trunk.core.gear.catalogue import Figure, LawPoint, Provenance, built_in
from tidy_trunk.core.plan import (
    AddDevice,
    AddSource,
    AddTake,
    Connect,
    CopyClass,
    CopyDevice,
    Disconnect,
    DrawLead,
    DropGainLaw,
    DropLineUp,
    DropMeterError,
    DropPairDrift,
    Edit,
    FeedOutput,
    GainLaw,
    Hazard,
    Hear,
    JamOver,
    LineUp,
    MeterError,
    MeterPair,
    MoveRun,
    PairDrift,
    Part,
    Passing,
    PlaceDevice,
    PortRef,
    ReadFrom,
    RemoveBreak,
    RemoveClass,
    RemoveDevice,
    RemoveLead,
    RemoveMove,
    RemoveSetUp,
    RemoveSource,
    RemoveTarget,
    RenameDevice,
    Role,
    RouteBus,
    SaveClass,
    SaveLead,
    SaveMove,
    SaveSetUp,
    SaveTarget,
    School,
    SetBreak,
    SetFigure,
    SetJam,
    SetJob,
    SetParts,
    SetPath,
    SetRole,
    SetSource,
    SetStrainRelief,
    ShiftDay,
    Stretch,
    TakeGainLaw,
    TakeLineUp,
    TakeMeterError,
    TakePairDrift,
)
from tidy_trunk.document.edits import EditModel
from tidy_trunk.words import in_one, sentence

WHEN = "2026-01-01T08:00"
LAW = GainLaw(
    class_id="bag-recorder", control="in1.mic.gain_db", points=(LawPoint(20, 19), LawPoint(40, 41)), when=WHEN
)
METER = MeterError(class_id="mirrorless-mic", pairs=(MeterPair(-18, -20),), when=WHEN)
DRIFT = PairDrift(first="bag", second="cam", ppm=-4.25, when=WHEN)
READING = LineUp(
    track="cam.L",
    sender="bag",
    sent_dbfs=-20,
    read_dbfs=-18.5,
    predicted_dbfs=-20,
    way=(),
    read_from=ReadFrom.METER,
    when=WHEN,
)
OWN_MIXER = replace(built_in().devices["field-mixer"], id="my-mixer", label="My mixer")
BASE = made(
    SaveClass(device_class=OWN_MIXER),
    SetBreak(label="Dinner", at_min=750, length_min=45, id="dinner"),
    SaveSetUp(label="1A", at_min=540, takes=2, take_min=4),
    SaveMove(label="Hall", at_min=720, length_min=30),
    SaveTarget(label="Tape", low_dbfs=-24, high_dbfs=-18, id="tape"),
    SaveLead(lead=replace(built_in().leads["trs"], id="odd", label="Odd one")),
    TakeGainLaw(law=LAW),
    TakeMeterError(meter=METER),
    TakePairDrift(drift=DRIFT),
    TakeLineUp(line_up=READING),
    base=line_into_camera(),
)
OUT, MIC, BOX = PortRef("bag", "out-l"), PortRef("cam", "mic"), (Part(lead="trs", length_m=2),)

SAID: list[tuple[Edit, str]] = [
    (SetJam(device="bag", giver=None), "bag is not jammed"),
    (SetJam(device="bag", giver="cam", at_min=(750, 480)), "Jam bag from cam by cable: 08:00, 12:30"),
    (SetJam(device="bag", giver="cam", over=JamOver.RADIO), "Jam bag from cam by radio: never"),
    (SetBreak(label="Tea", at_min=900, length_min=15), "Break Tea at 15:00, 15 min"),
    (RemoveBreak(id="dinner"), "Remove break Dinner"),
    (SaveSetUp(label="12C", at_min=630, takes=4, take_min=2.5), "Set-up 12C at 10:30, 4 takes of 2.5 min"),
    (RemoveSetUp(id="1a"), "Remove set-up 1A"),
    (AddTake(set_up="1a"), "One more take of 1A"),
    (SaveMove(label="the tower", at_min=810, length_min=40), "Company move to the tower at 13:30, 40 min"),
    (RemoveMove(id="hall"), "Remove company move to Hall"),
    (ShiftDay(from_min=700, by_min=-5), "From 11:40 on, 5 min earlier"),
    (PlaceDevice(device="cam", place="walkway"), "cam stands at walkway"),
    (TakePairDrift(drift=DRIFT), "cam runs −4.2 ppm against bag, measured"),
    (DropPairDrift(first="bag", second="cam"), "bag and cam: clocks as good as their classes again"),
    (AddDevice(class_id="bag-recorder"), "Add Bag recorder"),
    (AddDevice(class_id="boom-shotgun", label="Hall"), "Add Hall"),
    (CopyDevice(device="bag", label="Second bag"), "Copy bag as Second bag"),
    (RenameDevice(device="bag", label="Cart"), "Rename bag to Cart"),
    (RemoveDevice(device="bag"), "Remove bag and its cables"),
    (put("bag", "in1.mode", "line"), "bag in 1: mode to line"),
    (put("bag", "in1.mic.gain_db", 41), "bag in 1: gain to +41 dB"),
    (put("bag", "in1.phantom.menu", False), "bag in 1: 48 V, menu to off"),
    (RouteBus(device="bag", bus="2", inputs=("in1",)), "bag: track 2 from in 1"),
    (RouteBus(device="bag", bus="2", inputs=()), "bag: track 2 from nothing"),
    (FeedOutput(device="bag", channel="line.L", bus="1"), "bag: line out L from track 1"),
    (
        SetFigure(device="bag", path="inputs.in1.modes.mic.clip_dbu", figure=None),
        "bag in 1 mic, first stage clips at: as in its class",
    ),
    (
        SetFigure(
            device="bag", path="inputs.in1.modes.mic.clip_dbu", figure=Figure(2.0, 0.3, Provenance.MEASURED, "USER")
        ),
        "bag in 1 mic, first stage clips at: 2 dBu, measured",
    ),
    (CopyClass(device="bag", label="My bag"), "New class My bag from bag"),
    (
        SaveClass(device_class=replace(built_in().devices["ribbon"], id="my-ribbon", label="My ribbon")),
        "New class My ribbon",
    ),
    (SaveClass(device_class=OWN_MIXER), "Change class My mixer"),
    (RemoveClass(class_id="my-mixer"), "Remove class My mixer"),
    (SetJob(target="wide"), "Job: level target wide"),
    (
        SetJob(name="Second day", frequencies_cleared=True, day_begins_min=465, slack_share=0.2),
        "Job: name Second day, spare cable 20 %, radio frequencies cleared, day from 07:45",
    ),
    (
        SetJob(school=School.CLEAN, guide_target="wide", alignment_dbfs=-18.0, room="hall"),
        "Job: level target of scratch tracks wide, always the clean way, place hall, tone −18 dBFS",
    ),
    (SetJob(), "Job: nothing changed"),
    (
        DrawLead(
            label="Cross",
            sending=built_in().leads["trs"].sending,
            receiving=built_in().leads["trs"].receiving,
            ways=built_in().leads["trs"].ways,
        ),
        "New cable Cross",
    ),
    (
        DrawLead(
            label="Cross",
            sending=built_in().leads["trs"].sending,
            receiving=built_in().leads["trs"].receiving,
            ways=built_in().leads["trs"].ways,
            id="odd",
        ),
        "Change cable Cross",
    ),
    (SaveLead(lead=replace(built_in().leads["aes3"], id="my-aes", label="My AES3")), "New cable My AES3"),
    (RemoveLead(lead="odd"), "Remove cable Odd one"),
    (TakeLineUp(line_up=READING), "Keep the reading of cam track L"),
    (
        TakeLineUp(line_up=replace(READING, read_dbfs=-20.5)),
        "Save reading of cam track L: −20.5 dBFS, −20.0 sent from bag",
    ),
    (DropLineUp(track="cam.L"), "Delete the reading of cam track L"),
    (TakeGainLaw(law=LAW), "Bag recorder, eight inputs, in 1, gain: measured at 2 positions"),
    (
        DropGainLaw(class_id="bag-recorder", control="in1.mic.gain_db"),
        "Bag recorder, eight inputs, in 1, gain: as it is marked",
    ),
    (TakeMeterError(meter=METER), "The meter of Mirrorless camera, microphone socket only reads 2.0 dB too high, ±1.0"),
    (
        TakeMeterError(meter=MeterError(class_id="mirrorless-mic", pairs=(MeterPair(-20, -20),), when=WHEN)),
        "The meter of Mirrorless camera, microphone socket only reads right, ±1.0 dB",
    ),
    (
        DropMeterError(class_id="mirrorless-mic"),
        "The meter of Mirrorless camera, microphone socket only: correction cleared",
    ),
    (Connect(sending=OUT, receiving=MIC, parts=BOX), "Connect bag out L to cam mic socket by 2 m 3.5 mm TRS"),
    (SetParts(run="run-2", parts=BOX), "Cable 2 by 2 m 3.5 mm TRS"),
    (SetParts(run="run-2", parts=()), "Cable 2 plugged directly"),
    (
        SetPath(
            run="run-2", path=(Stretch(8, (Passing(Hazard.WALKWAY),)), Stretch(4, (Passing(Hazard.BESIDE_MAINS, 2),)))
        ),
        "Cable 2: 8 m past walkway, then 4 m beside mains 2 m",
    ),
    (SetPath(run="run-2", path=()), "Cable 2: path not known"),
    (SetStrainRelief(run="run-2", on=True), "Cable 2: strain relief fitted"),
    (SetStrainRelief(run="run-2", on=False), "Cable 2: no strain relief"),
    (MoveRun(run="run-2", sending=OUT, parts=BOX), "Cable 2 now from bag out L to cam mic socket by 2 m 3.5 mm TRS"),
    (Disconnect(run="run-2"), "Remove cable 2, bag line out to cam mic socket"),
    (AddSource(label="Choir", average_db_spl=72, heard_by={"boom": 2}), "Add Choir, 72 dB(A) at 1 m, 2 m from boom"),
    (SetSource(source="voice", average_db_spl=66), "Voice: average 66 dB SPL"),
    (
        SetSource(source="voice", label="Host", irreplaceable=True, tolerance_db=3),
        "Voice: name Host, within 3 dB, cannot be repeated",
    ),
    (SetSource(source="voice", irreplaceable=False), "Voice: can be repeated"),
    (Hear(source="voice", device="boom", distance_m=1), "boom at 1 m from Voice"),
    (Hear(source="voice", device="boom", distance_m=0.5, off_axis_deg=30), "boom at 0.5 m from Voice, 30° off axis"),
    (Hear(source="voice", device="boom", distance_m=None), "boom no longer at Voice"),
    (RemoveSource(source="voice"), "Remove Voice"),
    (SaveTarget(label="Web", low_dbfs=-18, high_dbfs=-12, of_peaks=True), "New target Web: peaks −18 to −12 dBFS"),
    (SaveTarget(label="Tape", low_dbfs=-24, high_dbfs=-18, id="tape"), "Change target Tape: average −24 to −18 dBFS"),
    (RemoveTarget(target="tape"), "Remove target Tape"),
    (SetRole(device="cam", bus="L", role=Role.GUIDE), "cam track L is for guide"),
]
"""An edit of each class, and what is said of it."""


@pytest.mark.parametrize(("edit", "words"), SAID, ids=lambda item: type(item).__name__)
def test_what_is_said_of_an_edit(edit, words):
    assert sentence(edit, BASE) == words


def test_something_is_said_of_every_edit():
    assert {type(edit) for edit, _ in SAID} == {model.command for model in EditModel.__subclasses__()}


def test_many_edits_are_one_line():
    """Five at most, and how many more there are; each is said of the plan that the ones before it have made."""
    renamed = [RenameDevice(device="bag", label=f"Bag {number}") for number in range(7)]
    words = in_one(BASE, renamed)
    assert words.startswith("Rename bag to Bag 0; Rename Bag 0 to Bag 1; ") and words.endswith("; and 3 more")
