"""Line-ups worked by hand: what was read minus what was predicted is what the chain is off by."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.core.advice.line_up import State, line_up_steps, taken, voice_steps
from tidy_trunk.core.base.signal import SpeechLevels, dbfs_of_powers, measure_steps
from tidy_trunk.core.gear.catalogue import Provenance, built_in, find_control
from tidy_trunk.core.plan import (
    DropLineUp,
    Part,
    ReadFrom,
    RemoveDevice,
    RouteBus,
    SetParts,
    apply_edits,
)
from tidy_trunk.core.sound.levels import Report, doubts, heard_at
from tidy_trunk.core.sound.simulation import Play, Simulator, truth
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError, TidyTrunkError
from tidy_trunk.words import difference_sentences, worded

WHEN = "2026-11-25T09:30"


def report_of(plan):
    return Report(trace_plan(plan))


def read(plan, track, dbfs, read_from=ReadFrom.RECORDING):
    edit = taken(report_of(plan), track, sent_dbfs=-20.0, read_dbfs=dbfs, read_from=read_from, when=WHEN)
    return apply_edits(plan, [edit])


def step_of(plan, track="cam.L"):
    return next(step for step in line_up_steps(report_of(plan)) if step.track == track)


def test_what_must_be_read_is_worked_out():
    """By hand: -20 from an output with full scale +10 dBu is -10 dBu; a lead of 25 dB; full scale of the input -10.5."""
    step = step_of(padded_plan())
    assert (step.sender, step.sent_dbfs, step.state) == ("bag", -20.0, State.OPEN)
    assert step.shows_dbfs == pytest.approx(-20 + 10 - 25 + 10.5, abs=0.3), "and what the impedances take"


@given(st.floats(-5.9, 5.9), st.sampled_from([ReadFrom.METER, ReadFrom.RECORDING, ReadFrom.SIMULATION]))
def test_the_track_then_reads_what_was_read_and_the_doubt_is_gone(off, read_from):
    plan = padded_plan()
    shows = step_of(plan).shows_dbfs
    after = read(plan, "cam.L", shows + off, read_from)
    step = step_of(after)
    assert step.state is State.DONE and step.shows_dbfs == pytest.approx(shows + off, abs=0.01)
    before, now = (report_of(item).track("cam.L").sound for item in (plan, after))
    assert now.average == pytest.approx(before.average + off, abs=0.01)
    assert now.noise == pytest.approx(before.noise + off, abs=0.01)
    within = {ReadFrom.METER: 1.0, ReadFrom.RECORDING: 0.1, ReadFrom.SIMULATION: 0.1}[read_from]
    upstream = report_of(plan).track("bag.1").sound.variance_db2
    assert now.variance_db2 == pytest.approx(upstream + within**2)
    assert now.tolerance_db < before.tolerance_db


def test_the_doubts_name_the_line_up_in_place_of_what_it_hides():
    after = report_of(read(padded_plan(), "cam.L", -40.0))
    found = doubts(after, after.track("cam.L"))
    assert "reading-of" in [doubt.what.code for doubt in found]
    assert not [
        doubt for doubt in found if "cam" in str(doubt.what.facts.get("place")) and doubt.what.code == "full-scale-of"
    ]
    assert found[0].settle.code == "read-meter-of-voice"
    assert next(doubt for doubt in found if doubt.what.code == "reading-of").provenance is Provenance.MEASURED


def test_a_reading_that_no_figure_explains_is_not_lined_up():
    """−8 where −20.2 is wanted is no line-up: something stands wrong, and what was wanted stays what is wanted."""
    plan = padded_plan()
    wanted = step_of(plan).shows_dbfs
    step = step_of(read(plan, "cam.L", wanted + 12))
    assert step.state is State.OFF and step.shows_dbfs == pytest.approx(wanted, abs=0.01)
    assert step.turn is not None and "line out, output level" in worded(step.turn.does)
    assert step_of(read(plan, "cam.L", wanted + 12), "cam.R").shows_dbfs == pytest.approx(wanted, abs=0.01)


def test_one_reading_counts_for_both_sides_of_a_socket_until_the_other_is_read():
    """One socket, one knob, one lead. [PRACTICE]"""
    plan = padded_plan()
    read_low = read(plan, "cam.L", step_of(plan).shows_dbfs - 5.0)
    left, right = (report_of(read_low).track(track).sound for track in ("cam.L", "cam.R"))
    assert right.average == pytest.approx(left.average, abs=0.01)
    assert left.tolerance_db < right.tolerance_db < report_of(plan).track("cam.R").sound.tolerance_db
    assert (step_of(read_low, "cam.R").state, step_of(read_low, "cam.R").like) == (State.OPEN, "L")
    both = read(read_low, "cam.R", step_of(plan, "cam.R").shows_dbfs - 1.0)
    assert step_of(both, "cam.R").like == "" and step_of(both, "cam.R").off_db == pytest.approx(-1.0, abs=0.01)
    assert report_of(both).track("cam.L").sound.average == pytest.approx(left.average, abs=0.01)
    other_lead = made(SetParts(run="run-2", parts=(Part(lead="trs-pad-35", length_m=0.3),)), base=read_low)
    assert step_of(other_lead, "cam.R").like == "", "another cable is another way"


@pytest.mark.parametrize(
    ("class_id", "sent", "output"), [("handheld-recorder", -6.0, "line"), ("pocket-recorder", -12.0, "phones")]
)
def test_a_recorder_with_a_fixed_tone_sets_what_must_be_read(class_id, sent, output):
    """Tone of a small recorder is fixed at −6 or −12 dBFS, whatever the job's alignment level is. [PRACTICE]"""
    cables = (device(class_id, "rec"), device("mirrorless-mic", "cam"), run(f"rec.{output}", "cam.mic", "trs-pad-25"))
    plan = made(*cables, put("cam", "mic.auto.menu", False))
    step = step_of(plan)
    assert step.sent_dbfs == sent
    other = replace(plan, defaults=replace(plan.defaults, alignment_dbfs=-18.0))
    assert step_of(other).shows_dbfs == step.shows_dbfs
    edit = taken(report_of(plan), "cam.L", sent_dbfs=None, read_dbfs=-20, read_from=ReadFrom.METER, when=WHEN)
    assert edit.line_up.sent_dbfs == sent


def test_a_knob_moved_since_moves_the_reading_and_makes_it_stale():
    plan = read(padded_plan(), "cam.L", -28.0)
    moved = made(put("bag", "line.line.trim_db", -6.0), base=plan)
    step = step_of(moved)
    assert step.state is State.STALE and step.shows_dbfs == pytest.approx(-34, abs=0.01)
    assert report_of(moved).track("cam.L").sound.tolerance_db > report_of(plan).track("cam.L").sound.tolerance_db
    assert step_of(made(put("bag", "line.line.trim_db", 0.0), base=moved)).state is State.DONE


def test_another_lead_is_another_line_up():
    plan = read(padded_plan(), "cam.L", -28.0)
    other = made(SetParts(run="run-2", parts=(Part(lead="trs-pad-35", length_m=0.3),)), base=plan)
    bare = made(DropLineUp(track="cam.L"), base=other)
    assert step_of(other).state is State.STALE
    assert step_of(other).shows_dbfs == step_of(bare).shows_dbfs, "what was read through another cable says nothing"
    assert report_of(other).track("cam.L").sound == report_of(bare).track("cam.L").sound


def test_a_knob_that_would_bring_it_back_is_named():
    """A camera near its lowest stays there, and the sender goes: 3 dB too loud is 3 dB down."""
    plan = padded_plan()
    step = step_of(read(plan, "cam.L", step_of(plan).shows_dbfs + 3.0))
    assert worded(step.turn.does).endswith("output level: 0 to −3 dB")
    assert [edit.device for edit in step.turn.edits] == ["bag"]
    assert step_of(read(plan, "cam.L", step_of(plan).shows_dbfs + 0.2)).turn is None


def test_equal_meters_are_one_turn_away():
    """Common practice: -20 dBFS sent, -20 dBFS read; the plan alone wants 4.7 dB less here."""
    plan = padded_plan()
    step = step_of(plan)
    assert abs(step.shows_dbfs - step.sent_dbfs) > 3
    turned = step_of(made(*step.alike.edits, base=plan))
    assert turned.shows_dbfs == pytest.approx(step.sent_dbfs, abs=0.5), "within half of the camera's step"
    assert turned.alike is None


@pytest.mark.parametrize(
    ("camera", "gain_db", "off_db", "words"),
    [
        # Microphone socket: its gain down to one step above the lowest, and only then the sender.
        ("mirrorless-mic", 18.0, 12.0, "cam mic socket, gain: +18 to +6 dB"),
        (
            "mirrorless-mic",
            18.0,
            20.0,
            "cam mic socket, gain: +18 to +1.5 dB, then bag line out, output level: 0 to −3.5 dB",
        ),
        # Too low: the sender has nothing to give any more.
        ("mirrorless-mic", 18.0, -3.0, "cam mic socket, gain: +18 to +21 dB"),
    ],
)
def test_which_end_is_turned_for_a_microphone_socket(camera, gain_db, off_db, words):
    plan = made(put("cam", "mic.mic.gain_db", gain_db), base=padded_plan())
    step = step_of(read(plan, "cam.L", step_of(plan).shows_dbfs + off_db))
    assert worded(step.turn.does) == words
    turned = step_of(made(*step.turn.edits, base=read(plan, "cam.L", step_of(plan).shows_dbfs + off_db)))
    assert turned.line_up.read_dbfs - off_db == pytest.approx(step_of(plan).shows_dbfs, abs=0.01)
    levels = [report_of(made(*edits, base=plan)).track("cam.L").sound.average for edits in ((), step.turn.edits)]
    assert levels[1] - levels[0] == pytest.approx(-off_db, abs=0.5), "turned by what it was off"


def test_a_camera_with_line_inputs_sets_its_own_track_level():
    """Into line inputs the camera's track levels are set to the mixer's tone. [PRACTICE]"""
    plan = made(
        device("shoulder-camcorder", "cam"),
        run("bag.line", "cam.in1", "trs-xlr-mono"),
        put("cam", "in1.mode", "line0"),
        put("cam", "in1.auto.switch", False),
        put("cam", "in1.auto.menu", False),
        put("cam", "in1.auto.menu", False),
        base=boom_in_bag(),
    )
    track = next(step.track for step in line_up_steps(report_of(plan)) if step.device == "cam")
    step = step_of(read(plan, track, step_of(plan, track).shows_dbfs + 3.0), track)
    assert [edit.device for edit in step.turn.edits] == ["cam"]


def test_what_hangs_on_a_lined_up_track_follows():
    vision = [device("live-switcher", "vision"), run("cam.hdmi", "vision.hdmi1", "hdmi")]
    routed = RouteBus(device="vision", bus="pgm-l", inputs=("hdmi1.L",))
    base = made(*vision, routed, base=padded_plan())
    before = step_of(base, "vision.pgm-l").shows_dbfs
    after = read(base, "cam.L", step_of(base).shows_dbfs - 4.0)
    assert step_of(after, "vision.pgm-l").shows_dbfs == pytest.approx(before - 4.0, abs=0.01)


def test_a_device_takes_its_line_ups_with_it():
    plan = read(padded_plan(), "cam.L", -28.0)
    assert "is lined up" in " ".join(difference_sentences(padded_plan(), plan))
    for gone in ("cam", "bag"):
        assert apply_edits(plan, [RemoveDevice(device=gone)]).line_ups == {}


@pytest.mark.parametrize(
    "change",
    [
        {"track": "cam.X"},
        {"track": "nobody.L"},
        {"sender": "nobody"},
        {"read_dbfs": float("nan")},
        {"when": "yesterday"},
    ],
)
def test_a_line_up_that_cannot_be_is_refused(change):
    plan = read(padded_plan(), "cam.L", -28.0)
    found = replace(plan.line_ups["cam.L"], **change)
    with pytest.raises(TidyTrunkError):
        trace_plan(replace(plan, line_ups={found.track: found}))


def test_what_cannot_be_lined_up_is_refused():
    with pytest.raises(InputError, match="no device before this track"):
        read(padded_plan(), "bag.1", -20.0)


def test_clipping_and_automatic_level_are_warned_of():
    assert step_of(line_into_camera()).warning.code == "tone-clips"
    assert step_of(made(put("cam", "mic.auto.menu", True), base=padded_plan())).warning.code == "automatic-level-is-on"
    assert not step_of(padded_plan()).warning


def test_the_simulation_is_off_by_what_its_devices_are_and_lining_up_finds_it():
    """Taken over from the simulation, the plan says what the simulation does, to a tenth of a decibel."""
    plan = padded_plan()

    def simulated(asked):
        tracer = trace_plan(truth(asked))
        stage = next(trace.stage for trace in tracer.traces() if trace.id == "cam.L")
        loop = Simulator(tracer.index, Play.NOBODY, oscillators={"bag": -20.0}, sample_count=2**15).track_sound(stage)
        return float(dbfs_of_powers((loop.astype(float) ** 2).mean()))

    found = simulated(plan)
    step = step_of(plan)
    assert 0.01 < abs(found - step.shows_dbfs) < 2 * step.within_db
    lined_up = read(plan, "cam.L", found, ReadFrom.SIMULATION)
    louder = made(put("bag", "line.line.trim_db", -3.0), base=lined_up)
    assert step_of(louder).shows_dbfs == pytest.approx(simulated(louder), abs=0.1)


@pytest.mark.parametrize("target", [-30.0, -24.5, -20.2])
def test_a_step_recording_of_the_simulated_camera_finds_its_mark(target):
    """The camera's gain at five marks of 4.5 dB each, one recording: what is found sets the real thing within half a mark."""
    plan, marks = padded_plan(), [1.5, 6.0, 10.5, 15.0, 19.5]

    def tone(gain_db):
        tracer = trace_plan(truth(made(put("cam", "mic.mic.gain_db", gain_db), base=plan)))
        stage = next(trace.stage for trace in tracer.traces() if trace.id == "cam.L")
        return Simulator(tracer.index, Play.NOBODY, oscillators={"bag": -26.0}, sample_count=2**16).track_sound(stage)

    recording = np.concatenate([tone(gain_db) for gain_db in marks])
    found = measure_steps(recording, 48_000, marks, target)
    assert found.db_per_setting == pytest.approx(1.0, abs=0.06), (
        "simulated knobs give a twentieth more or less than they say"
    )
    span = find_control(built_in().devices["mirrorless-mic"], "mic.mic.gain_db").span
    nearest = span.nearest_db(found.interpolated_setting)
    level = float(dbfs_of_powers((tone(nearest).astype(float) ** 2).mean()))
    assert level == pytest.approx(target, abs=span.step_db / 2 + 0.1)


def test_behind_the_tone_voices_are_let_heard():
    """What arrives by a microphone alone: the tone of the bag says nothing of the bag's own track."""
    step, *mixes = voice_steps(report_of(padded_plan()))
    assert [mix.track for mix in mixes] == ["bag.mix-l", "bag.mix-r"]
    track = report_of(padded_plan()).track("bag.1")
    assert (step.track, step.sources, step.is_heard) == ("bag.1", ("Voice",), False)
    assert (step.average_dbfs, step.peak_dbfs) == (track.sound.average, track.sound.peak) and not step.warning
    heard = SpeechLevels(
        quiet_dbfs=-40, average_dbfs=-26, peak_dbfs=-12, noise_dbfs=None, noise_a_dbfs=None, is_clipped=False, seconds=9
    )
    taken_over = heard_at(report_of(padded_plan()), track, heard).edits
    after = apply_edits(padded_plan(), taken_over)
    step = voice_steps(report_of(after))[0]
    assert step.is_heard and step.average_dbfs == pytest.approx(-26, abs=0.1)
    assert step.within_db < track.sound.tolerance_db
    loud = made(put("bag", "in1.mic.gain_db", 75), base=padded_plan())
    assert voice_steps(report_of(loud))[0].warning.code == "voice-clips"
