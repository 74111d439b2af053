"""The sentence line: what is typed, and what it would do."""

import pytest

from tests.foundry_lines import CLOCK_LINES, LINES, patch_of
from tests.plans import boom_in_bag, device, made
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.command import GRAMMAR, say
from tidy_trunk.core.plan import Hazard, Passing, Plan, Role, School, SetControl, Stretch, apply_edits
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import answer_words


def do(plan: Plan, *lines: str) -> Plan:
    for line in lines:
        answer = say(plan, line)
        assert answer.proposals, f"{line}: {answer.problem}"
        plan = apply_edits(plan, answer.proposals[0].edits)
        trace_plan(plan)
    return plan


def test_a_plan_by_typing():
    plan = do(
        Plan(name="Typed"),
        "add boom shotgun as Boom",
        "add bag recorder as Bag",
        "add mirrorless camera, mic as Camera B",
        "founder at boom, 0,6 m, raised",
        "boom to bag 1, 7 m",
        "set bag 1 gain 41",
        "name camera b as Second camera",
    )
    assert plan.sources["founder"].average_db_spl == 66  # ISO 9921, raised
    assert plan.sources["founder"].heard_by == {"boom": 0.6}
    assert plan.devices["bag"].settings["in1.mic.gain_db"] == 41
    assert plan.devices["bag"].settings["in1.phantom.menu"] is True, "a shotgun gets its 48 V"
    assert plan.devices["camera-b"].label == "Second camera"
    assert [part.length_m for part in plan.runs["run-1"].parts] == [7]


def test_both_the_matched_and_the_plain_run_are_offered():
    plan = made(device("mirrorless-mic", "cam"), base=boom_in_bag())
    matched, plain = say(plan, "bag line to cam, 3 m").proposals[:2]
    assert "dB" in " ".join(answer_words(matched).steps) and "clips" not in answer_words(matched).outcome
    assert answer_words(plain).outcome == "track L: clips by 14.1 dB"
    assert len(answer_words(plain).steps) == 1


def test_long_runs_go_balanced():
    plan = made(device("mirrorless-mic", "cam"), base=boom_in_bag())
    assert "XLR and XLR to 3.5 mm" in answer_words(say(plan, "bag to cam, 6 m").proposals[0]).steps[0]


def test_two_sides_share_one_breakout():
    plan = do(made(device("cinema-xlr5", "cam"), base=boom_in_bag()), "bag out l to cam, 8 m", "bag out r to cam, 8 m")
    last = [run.parts[-1] for run in plan.runs.values() if run.receiving.device == "cam"]
    assert [part.branch for part in last] == ["L", "R"]
    assert last[0].shared == last[1].shared != ""


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("boom to 3 m", "names one end alone"),
        ("ann: lavalier by radio to 0.2 m", "names one end alone"),
        ("bag by radio to cam", "is no microphone"),
        ("frob to bag", "no device here is called 'frob'"),
        ("boom to bag 9", "bag has no input '9': it has in 1"),
        ("boom to bag 2", "That socket is in use by cable 1, boom to bag in 1. Use a Y-cable"),
        ("add gramophone", "no device is called 'gramophone': Equipment lists them all"),
        ("add bag recoder as bag", "no device is called 'bag recoder': the nearest: 'bag recorder, eight inputs'"),
        ("founder at bag", "bag is no microphone"),
        ("founder at ghost", "no microphone here is called 'ghost'"),
        ("hello", "is not understood"),
        ("set nothing gain 3", "say which device"),
        ("set bag 1 colour 3", "bag 1 is understood, but not 'colour 3'. There is: in 1 mode; in 1 48 V, menu"),
        ("set bag 1 gain", "bag in 1 gain is understood; it takes 10 to 75 dB"),
        ("set bag 1 gain high", "bag in 1 gain is understood; it takes 10 to 75 dB"),
        ("founder at boom, half a metre", "'half a metre' after boom is no distance"),
        ("swap on", "say which cable: swap cable 4; the job has cables 1"),
        ("remove cable 99", "nothing here is called that"),
        ("name ghost as spirit", "nothing here is called that"),
        ("set bag 1 gain 4000", "goes from 10 to 75"),
    ],
)
def test_what_is_not_understood_is_said(line, says):
    answer = say(boom_in_bag(), line)
    assert not answer.proposals
    assert says in answer.problem


@pytest.mark.parametrize(
    ("line", "offered"),
    [
        ("add bag recoder", "add bag recorder, eight inputs"),
        ("add boom shotgan as boom", "add boom shotgun as boom"),
    ],
)
def test_what_is_mistyped_is_offered(line, offered):
    answer = say(Plan(name="x"), line)
    assert offered in answer.completions and not answer.proposals
    assert say(Plan(name="x"), offered).proposals, "what is offered is understood"


@pytest.mark.parametrize(
    ("words", "class_id"),
    [
        ("field recorder", "bag-recorder"), ("wireless receiver", "receiver-one"), ("dslr", "mirrorless-mic"),
        ("lapel", "lavalier"), ("slate", "timecode-generator"), ("desk", "desk-mixer"), ("usb interface", "usb-interface"),
        ("computer", "computer"), ("laptop", "computer"), ("splitter", "distribution-amplifier"),
        ("lav set", "bodypack-transmitter"), ("radio transmitter", "bodypack-transmitter"),
        ("small condenser", "pencil-condenser"), ("phone", "phone-camera"), ("cans", "headphones"), ("rx", "receiver-one"),
    ],
)  # fmt: skip
def test_everyday_words_find_their_class(words, class_id):
    assert do(Plan(name="x"), f"add {words} as it").devices["it"].class_id == class_id


def test_a_word_that_joins_others_need_not_be_in_a_name():
    plan = apply_edits(Plan(name="x"), say(Plan(name="x"), "add switcher with an xlr as sw").proposals[0].edits)
    assert plan.devices["sw"].class_id == "live-switcher-xlr"


def test_a_dial_whose_lowest_is_off_is_set_to_off():
    plan = apply_edits(
        Plan(name="x"), say(Plan(name="x"), "add mirrorless camera, microphone as cam").proposals[0].edits
    )
    (answer,) = say(plan, "set cam gain off").proposals
    assert answer.edits == (SetControl(device="cam", control="mic.mic.gain_db", value=0.0),)
    assert "it takes off, and 1.5 to 46.5 dB" in say(plan, "set cam gain loud").problem


def test_completions_go_on_from_what_is_typed():
    assert say(boom_in_bag(), "bo").completions == ("boom to ",)
    assert say(boom_in_bag(), "boom to b").completions[:3] == ("boom to bag", "boom to bag in 1", "boom to bag in 2")
    assert "set bag in 1 gain " in say(boom_in_bag(), "set bag 1 ga").completions
    assert say(boom_in_bag(), "len").completions[0] == "length cable "
    assert say(boom_in_bag(), "path cable").completions == ("path cable 1: ",)
    assert say(boom_in_bag(), "path cable 1: 4 m past wa").completions == ("path cable 1: 4 m past walkway",)
    assert say(Plan(name="x"), "").completions == ("add ",)
    assert "add bag recorder, eight inputs" in say(Plan(name="x"), "add ba").completions


def test_things_are_removed_by_name_or_number():
    plan = do(boom_in_bag(), "remove cable 1", "remove voice", "remove boom")
    assert not plan.runs and not plan.sources and list(plan.devices) == ["bag"]


def test_the_foundry_by_typing():
    """The demo's patch in under forty lines, the first answer taken each time."""
    assert len(LINES) < 40
    plan = do(Plan(name="Casting day"), *LINES, *CLOCK_LINES)
    assert patch_of(plan) == patch_of(foundry())
    assert [run.path for run in plan.runs.values()][8] == foundry().runs["run-9"].path


def test_every_form_of_the_grammar_is_understood():
    """Each example of the help, typed into a job in which what it names is there."""
    plan = do(
        Plan(name="x"),
        "add bag recorder as Bag",
        "add mirrorless camera, mic/line as Camera B",
        "add dynamic as Boom, Hand, Spare, Fourth",
        "founder at boom, 0.5 m",
        "add cinema camera as Camera A",
        "set-up 12C at 9:00, 1 min",
        *(f"{name} to bag {number}, 5 m" for number, name in enumerate(("hand", "spare", "fourth"), start=2)),
    )
    for form in GRAMMAR:
        base = plan
        if form.example.startswith(("length", "path", "swap", "tie", "remove", "move")):
            base = do(plan, "bag out l to camera b, 6 m")
        if "move" in form.example:
            base = do(base, "copy camera b as camera c")
        line = form.example.replace("to camera b", "to camera c") if "move" in form.example else form.example
        answer = say(base, line)
        assert answer.proposals, f"{line}: {answer.problem}"


@pytest.mark.deep
def test_a_plug_on_its_own_cord_goes_straight_in():
    plan = do(Plan(name="x"), "add lavalier as Swap lav", "add mirrorless camera, microphone as cam", "swap lav to cam")
    (run,) = plan.runs.values()
    assert [part.lead for part in run.parts] == ["trs-both"]
    answer = say(
        do(Plan(name="x"), "add lavalier as lav", "add field mixer as mixer", "add pocket as pocket"), "lav to mixer 2"
    )
    assert "no cable fits both. It goes into pocket mic/line in" in answer.problem


@pytest.mark.deep
def test_a_way_by_a_box_says_what_it_costs_in_noise():
    """48 V into a 3.5 mm socket: not with this microphone, but by way of a box."""
    plan = do(
        Plan(name="x"), "add boom shotgun as boom", "add mirrorless camera, microphone as cam", "founder at boom, 0.5 m"
    )
    *boxes, plain = say(plan, "boom to cam").proposals
    assert "has no power here" in answer_words(plain).outcome
    assert boxes and all("gear noise −" in answer_words(box).outcome for box in boxes)


def test_the_school_of_a_job_is_said():
    crew = do(Plan(name="x"), "set job crew Ann and Ben, date 2026-12-01").defaults
    assert (crew.crew, crew.hands, crew.date) == ("Ann, Ben", 2, "2026-12-01")
    plan = do(Plan(name="x"), "set job school guide")
    assert plan.defaults.school is School.GUIDE
    assert answer_words(say(plan, "set job school clean").proposals[0]).title == "Job: always the clean way"


def test_lengths_are_said_in_several_ways():
    plan = do(
        Plan(name="x"),
        "add boom shotgun as boom",
        "add bag recorder as bag",
        "boom into bag 1 with 12m",
        "founder at boom 50 cm",
    )
    assert plan.sources["founder"].heard_by == {"boom": 0.5}
    assert plan.runs["run-1"].length_m == 12
    assert do(plan, "length cable 1 15").runs["run-1"].length_m == 15
    assert do(plan, "path cable 1: 10 past walkway").runs["run-1"].path[0].length_m == 10


def test_what_the_forms_do():
    plan = do(
        boom_in_bag(),
        "length cable 1 12 m",
        "path cable 1: 8 m past walkway and beside mains 2 m, then 4 m past dimmer at 0.5 m",
        "tie cable 1",
    )
    run = plan.runs["run-1"]
    assert run.path == (
        Stretch(8, (Passing(Hazard.WALKWAY), Passing(Hazard.BESIDE_MAINS, 2))),
        Stretch(4, (Passing(Hazard.DIMMER, 0.5),)),
    )
    assert run.strain_relief
    assert run.length_m >= 12 * 1.1 + 2, "the path asked for a longer cable, and the first answer takes one"
    plan = do(
        plan,
        "copy bag as bag two",
        "set voice peak 90",
        "set voice once on",
        "route bag 1 and 2 to mix l",
        "feed bag line r from mix l",
    )
    assert plan.devices["bag-two"].settings == plan.devices["bag"].settings
    assert plan.sources["voice"].peak_db_spl == 90 and plan.sources["voice"].irreplaceable
    assert plan.devices["bag"].routing["mix-l"] == ("in1", "in2") and plan.devices["bag"].feeds["line.R"] == "mix-l"
    plan = do(plan, "move cable 1 to bag two 3")
    assert (plan.runs["run-1"].receiving.device, plan.runs["run-1"].receiving.port) == ("bag-two", "in3")
    plan = do(plan, "set job target broadcast, tone -18", "set bag 1 gain 30, 2 gain 31")
    assert (plan.defaults.target, plan.defaults.alignment_dbfs) == ("broadcast", -18)
    assert plan.devices["bag"].settings["in2.mic.gain_db"] == 31


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("length cable 9 3 m", "there is no cable 9; the job has cables 1"),
        ("length cable 1", "cable 1 is understood; say how long"),
        ("path cable 1: along the wall", "no stretch of a path"),
        ("path cable 1: 4 m past dragons", "nothing that a cable passes"),
        ("swap cable 1 for hdmi", "does not fit cable 1"),
        ("boom to bag 2, by rope", "no cable is called 'rope'"),
        ("rename bag", "say the new one too"),
        ("route bag 1 to mix 9", "it has no track or mix 'mix 9'"),
        ("route bag 99 to mix l", "it has no input '99'"),
        ("feed bag hose from mix l", "no output 'hose'"),
        ("set job weather fine", "nothing that holds for the job"),
        ("set bag 1 gain 30, 2 colour red", "no control of bag"),
        ("set job rate 26", "no frame rate"),
        ("jam bag", "say from whom and when"),
        ("jam bag from boom at 8:00", "boom keeps no timecode"),
        ("jam bag from bag at 8:00", "jammed by itself"),
        ("jam bag from bag at 8:61", "no time of day"),
        ("set job day 25:00 to 9:00", "no time of day"),
        ("break dinner", "say when"),
    ],
)
def test_clear_errors_of_the_other_forms(line, says):
    answer = say(boom_in_bag(), line)
    assert not answer.proposals and says in answer.problem


def test_timecode_as_sound_takes_the_attenuating_lead_and_one_track():
    plan = do(Plan(name="x"), "add timecode generator as Clock", "add mirrorless camera, microphone as Camera C")
    proposal = say(plan, "clock to camera c").proposals[0]
    after = apply_edits(plan, proposal.edits)
    (run,) = after.runs.values()
    assert [(part.lead, part.length_m) for part in run.parts] == [("bnc-trs-pad-35", 0.5)]
    assert after.devices["camera-c"].roles == {"L": Role.TIMECODE, "R": Role.GUIDE}
    far = say(plan, "clock to camera c, 2 m").proposals[0].edits[0]
    assert [part.lead for part in far.parts] == ["bnc-trs-pad-35", "trs-extension"]


def test_a_late_picture_in_frames_or_milliseconds_and_by_its_way():
    """200 ms at 25 are 5 frames; a camera with SDI has a figure for that way of its own."""
    plan = do(Plan(name="x"), "add mirrorless camera, microphone as Camera B", "add cinema camera as Camera A")
    plan = do(plan, "late camera b 200 ms", "late camera a 1,5 frames by sdi", "late camera a 4")
    assert plan.devices["camera-b"].figures["traits.picture_delay_frames"].value == 5
    figures = plan.devices["camera-a"].figures
    assert (figures["traits.sdi_delay_frames"].value, figures["traits.picture_delay_frames"].value) == (1.5, 4)
    for line, says in (
        ("late camera b soon", "say by how much"),
        ("late camera b 2 by sdi", "Camera B has no SDI output"),
    ):
        answer = say(plan, line)
        assert not answer.proposals and says in answer.problem


def test_a_device_without_such_a_socket_is_called_what_it_is():
    plan = do(
        Plan(name="x"), "add handheld recorder as hh", "add on-camera microphone as top", "add boom shotgun as boom"
    )
    assert say(plan, "hh line to boom").problem == "boom has no input: it is a boom shotgun"
    assert "top has no input: it is an on-camera microphone" in say(plan, "hh line to top").problem


def test_a_microphone_called_like_a_camera_leads_to_the_camera():
    """Said before: that the phone has no input. What is offered can be typed, though its label holds an "as" of its own."""
    plan = do(Plan(name="x"), "add lavalier as lav", "add phone headset microphone as phone")
    assert "Did you mean the phone as a camera, headset socket?" in say(plan, "lav to phone").problem
    plan = do(plan, "add phone as a camera, headset socket as cam")
    assert plan.devices["cam"].class_id == "phone-camera"


@pytest.mark.parametrize(
    "begun", ["add", "use", "jam", "late", "break", "name", "way cable", "path cable", "feed", "tie cable"]
)
def test_every_verb_is_completed(begun):
    """Said before: use, jam, late, break, name and way were not."""
    assert f"{begun} " in say(boom_in_bag(), begun[:2]).completions


def test_a_comma_in_the_name_of_a_position_is_no_new_piece():
    """Said before: the gain of the other channel was moved too."""
    plan = do(Plan(name="x"), "add camera xlr adapter as adapter")
    set_ = do(plan, "set adapter 2 mode mic, gain 0, 1 mode line")
    assert set_.devices["adapter"].settings == {"in2.mode": "mic", "in1.mode": "line"}


def test_a_name_with_an_as_in_it_is_copied_and_renamed():
    plan = do(Plan(name="x"), "add bag recorder as bag", "rename bag as good as new", "copy good as new as second")
    assert [device.label for device in plan.devices.values()] == ["good as new", "second"]


def test_a_socket_of_just_that_name_is_meant():
    """Said before: "l" was taken for the line output, and the run in its socket was blamed."""
    plan = do(Plan(name="x"), "add bag recorder as bag", "add shoulder camcorder as cam", "bag out l to cam 1")
    assert "in use by cable 1, bag out L" in say(plan, "bag out l to cam 1").problem


def test_classes_of_one_name_are_told_apart():
    """Said before: three answers, "Add Radio receiver" each."""
    titles = [
        answer_words(answer).title for answer in say(Plan(name="Receivers"), "add radio receiver as rx").proposals
    ]
    assert titles[0] == "Add Radio receiver, one channel, as rx" and len(set(titles)) == len(titles) > 2


def test_the_second_of_two_on_a_socket_is_told_by_its_own_side():
    """Said before: the level of the first, which stands on the left."""
    plan = Plan(name="Two on one socket")
    for line in (
        "add lavalier as a, b", "add body-pack transmitter that records as ta, tb", "add radio receiver, one channel as ra, rb",
        "add mirrorless camera, microphone socket only as cam", "groom at a, 0.2 m", "vicar at b, 0.2 m, raised", "a to ta", "b to tb",
        "ta to ra", "tb to rb", "ra to cam",
    ):  # fmt: skip
        plan = apply_edits(plan, say(plan, line).proposals[0].edits)
    second = say(plan, "rb to cam").proposals[0]
    track = Report(trace_plan(apply_edits(plan, second.edits))).track("cam.R")
    assert second.outcome.facts["bus"] == "R"
    assert second.outcome.facts["average_dbfs"] == track.sound.average


def test_no_answer_sets_a_control_twice():
    plan = do(foundry(), "set bag 3 gain 44", "remove cable 11")
    edits = say(plan, "bag line to camera b, 3 m").proposals[0].edits
    controls = [(edit.device, edit.control) for edit in edits if isinstance(edit, SetControl)]
    assert len(controls) > 2 and len(set(controls)) == len(controls)


def test_a_symptom_is_sent_to_the_search_for_its_cause():
    answer = say(boom_in_bag(), "hum")
    assert not answer.proposals and "What is wrong?" in answer.problem


@pytest.mark.parametrize("kind", ["usb interface", "bag recorder", "stereo recorder"])
def test_headphones_go_into_the_headphone_socket(kind):
    """Said before: no cable fits both, as one of half a metre was looked for."""
    plan = do(Plan(name="Heard"), f"add {kind} as dev", "add headphones as hp", "dev to hp")
    (run,) = plan.runs.values()
    assert (run.sending.port, run.parts) == ("phones", ())


def test_genlock_is_no_timecode():
    """Said before: the second device was given the genlock socket, and a stop with it."""
    plan = do(
        Plan(name="Sync"),
        "add timecode generator as box",
        "add bag recorder as bag",
        "add cinema camera, four tracks as cine",
        "box to bag",
    )
    answer = say(plan, "box to cine")
    assert not answer.proposals and "in use by cable 1" in answer.problem
    line = answer.problem.rpartition("jam it in turn: ")[2]
    assert say(plan, line).proposals, "what is advised can be typed"
