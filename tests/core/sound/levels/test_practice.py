"""Levels against the figures met in practice (handbook sections 6 and 12) and hand calculation."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run, unweighted
from tidy_trunk.core.base.units import combine_tolerances_db
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.plan import Part, Plan, PlanIndex, PortRef, SetFigure, SetJob, SetParts
from tidy_trunk.core.sound.levels import Report, full_scale_at_input_dbu
from tidy_trunk.core.sound.trace import trace_plan


def track(plan: Plan, track_id: str):
    found = Report(trace_plan(plan)).track(track_id)
    assert found is not None
    return found


def test_voice_at_the_boom_by_hand():
    """60 dB SPL at 1 m is 66 at 0.5 m; 20 mV/Pa gives -59.7 dBu; 4 kohm takes 0.3 dB; +50 dB over +10 dBu."""
    sound = track(boom_in_bag(), "bag.1").sound
    assert sound.average == pytest.approx(60 + 6.02 - 125.74 - 0.32 + 50 - 10, abs=0.05)
    assert sound.peak - sound.average == pytest.approx(14)
    assert sound.tolerance_db == pytest.approx(math.sqrt(3**2 + 3**2 + 1**2))  # source, microphone, input


def test_line_output_clips_a_microphone_socket():
    clip = track(line_into_camera(), "cam.L").clip
    assert clip is not None and clip.where == "cam mic socket L"
    # Peaks of -6.0 dBFS leave at +4.0 dBu, lose 0.3 dB into 2.5 kohm, and meet -10.5 dBu.
    assert clip.over_db == pytest.approx(14.1, abs=0.1)


def test_the_cameras_rear_attenuator_saves_nothing():
    plan = line_into_camera("mirrorless-pad-behind")
    before, after = track(plan, "cam.L"), track(made(put("cam", "mic.pad", True), base=plan), "cam.L")
    assert after.clip is not None and after.clip.over_db == before.clip.over_db
    assert after.sound.peak == pytest.approx(before.sound.peak - 20)


def test_the_25_db_lead_fits():
    """0 dBFS = +10 dBu through 25 dB from 100 ohm into 2.5 kohm: -15.4 dBu, 4.9 dB under -10.5."""
    plan = made(SetParts(run="run-2", parts=(Part(lead="trs-pad-25", length_m=0.3),)), base=line_into_camera())
    index = PlanIndex(plan)
    assert full_scale_at_input_dbu(index, plan.runs["run-2"]) == pytest.approx(10 - 25, abs=0.6)
    assert track(plan, "cam.L").clip is None


def test_trim_that_matches_tone():
    """Practice: a -6 dBFS tone at +4 dBu needs about -20.5 dB to read -6 dBFS where 0 dBFS is -10.5 dBu; -17 dB on another
    pairing, which the ± of the classes holds."""
    plan = made(put("bag", "line.line.trim_db", -20.5), base=line_into_camera())
    bag, cam = track(plan, "bag.mix-l").sound, track(plan, "cam.L").sound
    assert cam.average == pytest.approx(bag.average, abs=0.5)
    index = PlanIndex(plan)
    sends, takes = index.placed("bag").output("line").modes[0], index.placed("cam").input("mic").modes[0]
    assert combine_tolerances_db((sends.full_scale_dbu.tolerance, takes.full_scale_dbu.tolerance)) >= 20.5 - 17


def test_noise_order_of_lead_trim_and_headphones():
    """Practice: about −72 dBFS with the attenuating lead, its tone at −5; −70 with the digital trim at −17 dB; −65 from the
    headphone output. All in the pauses of a recording, with microphone and a quiet room in the chain, tone at −6 dBFS.

    Common practice; what is held is the order and the distances of 2 and 7 dB, within 2 dB, with the tone where it was.
    """
    quiet = SetJob(room_noise_db_spl=20.0)
    base = made(quiet, put("bag", "in1.mic.gain_db", 30), base=line_into_camera())
    lead = made(SetParts(run="run-2", parts=(Part(lead="trs-pad-25", length_m=0.3),)), base=base)
    trim = made(put("bag", "line.line.trim_db", -17), base=base)
    phones = made(
        quiet,
        device("mirrorless-mic", "cam"),
        run("bag.phones", "cam.mic", "trs"),
        put("bag", "phones.phones.trim_db", -21),
        put("bag", "in1.mic.gain_db", 30),
        put("cam", "mic.auto.menu", False),
        base=boom_in_bag(),
    )
    with_lead, with_trim, from_phones = (track(plan, "cam.L").sound.noise for plan in (lead, trim, phones))
    assert with_trim - with_lead == pytest.approx(2, abs=2) and from_phones - with_lead == pytest.approx(7, abs=2)
    assert with_lead < with_trim < from_phones


def test_the_two_line_levels_are_11_8_db_apart():
    """+4 dBu into the camcorder's two line positions: handbook section 12, +24 and +12 full scale."""
    plan = made(
        device("shoulder-camcorder", "cam"),
        put("cam", "in1.mode", "line4"),
        put("cam", "in1.auto.menu", False),
        put("cam", "in1.auto.switch", False),
        run("bag.out-l", "cam.in1", "xlr"),
        base=boom_in_bag(),
    )
    high = track(plan, "cam.1").sound.average
    low = track(made(put("cam", "in1.mode", "line0"), base=plan), "cam.1").sound.average
    assert low - high == pytest.approx(12)


def test_float_keeps_what_fixed_point_loses():
    def with_recorder(class_id, port, **settings):
        edits = [put("pack", key, value) for key, value in settings.items()]
        return made(
            device("on-camera-microphone", "mic"),
            device(class_id, "pack"),
            run("mic.out", f"pack.{port}"),
            put("mic", "capsule.cell", True),
            *edits,
        )

    shout = unweighted(id="shout", label="Shout", average_db_spl=94, peak_db_spl=108, heard_by={"mic": 0.3})
    floating = track(made(shout, base=with_recorder("float-recorder", "mic")), "pack.1")
    fixed = track(made(shout, base=with_recorder("pocket-recorder", "in")), "pack.L")
    assert floating.clip is None
    assert fixed.clip is not None and fixed.clip.device == "pack"


def test_sound_that_cancels_is_gone():
    """Left minus right of the same mix: what is in the middle vanishes."""
    plan = made(device("shoulder-camcorder", "cam"), run("bag.line", "cam.in1", "trs-xlr"), base=boom_in_bag())
    assert track(plan, "cam.1").is_silent


def test_measured_figures_tighten_the_tolerance():
    plan = line_into_camera()
    figure = Figure(-11.0, 0.2, Provenance.MEASURED, "USER")
    better = made(SetFigure(device="cam", path="inputs.mic.modes.mic.clip_dbu", figure=figure), base=plan)
    assert track(better, "cam.L").clip.over_db == pytest.approx(track(plan, "cam.L").clip.over_db + 0.5)
    scale = Figure(-9.0, 0.2, Provenance.MEASURED, "USER")
    tight = made(SetFigure(device="cam", path="inputs.mic.modes.mic.full_scale_dbu", figure=scale), base=plan)
    assert track(tight, "cam.L").sound.tolerance_db < track(plan, "cam.L").sound.tolerance_db


@given(st.sampled_from([15, 20, 25, 30, 35, 40, 50]), st.sampled_from([15, 20, 25, 30, 35, 40, 50]))
def test_more_pad_never_raises_a_level(one, other):
    def level(db):
        parts = (Part(lead=f"trs-pad-{db}", length_m=0.3),)
        return track(made(SetParts(run="run-2", parts=parts), base=line_into_camera()), "cam.L").sound

    less, more = sorted((one, other))
    assert level(more).average <= level(less).average
    assert level(more).noise <= level(less).noise


@given(st.integers(10, 75))
def test_noise_is_never_below_its_largest_part(gain):
    sound = track(made(put("bag", "in1.mic.gain_db", gain), base=boom_in_bag()), "bag.1").sound
    assert sound.noise >= sound.ruling_noise.level
    assert sound.quiet <= sound.average <= sound.peak


def test_the_ladder_is_on_one_scale():
    report = Report(trace_plan(line_into_camera()))
    rungs = report.ladder(report.track("cam.L").trace)
    assert [rung.level.unit for rung in rungs] == ["dB SPL", "dBu", "dBu", "dBu", "dBFS", "dBu", "dBu", "dBu", "dBFS"]
    # A digital track is drawn at the output that it leaves by: no step between them.
    assert rungs[4].level.sound.average + rungs[4].dbu_offset == pytest.approx(rungs[5].level.sound.average)
    assert rungs[0].level.sound.average + rungs[0].dbu_offset == pytest.approx(rungs[1].level.sound.average)
    assert [round(rung.level.over_db, 1) for rung in rungs if rung.level.over_db] == [14.1]


def test_a_ladder_by_way_of_a_quieter_microphone():
    plan = made(device("dynamic-handheld", "hand"), run("hand.out", "bag.in2", "xlr"), base=line_into_camera())
    report = Report(trace_plan(plan))
    found = report.track("cam.L")
    assert report.branches(found.trace.stage) == ("boom", "hand")
    assert report.ladder(found.trace, "hand")[0].level.stage.device == "hand"


def test_digital_sound_keeps_its_level():
    plan = made(
        device("cinema-xlr5", "cam"),
        run(
            "bag.aes",
            "cam.in",
            Part(lead="xlr", length_m=5),
            Part(lead="2xlr-xlr5", length_m=0.5, branch="L", shared="x"),
        ),
        base=boom_in_bag(),
    )
    assert track(plan, "cam.1").is_silent  # the camera is at line: numbers are no voltage
    at_aes = made(put("cam", "in.mode", "aes3"), base=plan)
    for camera_track, mix in (("cam.1", "bag.mix-l"), ("cam.2", "bag.mix-r")):
        assert track(at_aes, camera_track).sound.average == pytest.approx(track(at_aes, mix).sound.average)


def test_port_refs_name_their_port():
    index = PlanIndex(boom_in_bag())
    assert index.port_label(PortRef("boom", "out")) == "boom"
    assert index.port_label(PortRef("bag", "in1")) == "bag in 1"


def test_aerials_are_no_rungs():
    """Pack, radio link and receiver show what is on air three times, not five."""
    plan = made(
        device("lavalier", "lav"), device("bodypack-transmitter", "pack"), device("receiver-one", "receiver"),
        unweighted(id="voice", label="Voice", average_db_spl=60, heard_by={"lav": 0.2}),
        device("bag-recorder", "bag"), run("lav.out", "pack.mic"), run("pack.air", "receiver.air"), run("receiver.out", "bag.in1", "xlr"),
    )  # fmt: skip
    report = Report(trace_plan(plan))
    labels = [rung.label for rung in report.ladder(report.track("bag.1").trace)]
    assert labels == [
        "lav", "lav", "cable 1", "pack mic in", "pack on air", "cable 2", "receiver received", "receiver out", "cable 3", "bag in 1",
        "bag track 1",
    ]  # fmt: skip


def test_a_microphones_own_pad_acts_before_everything():
    base = made(
        device("on-camera-microphone", "mic"), device("mirrorless-mic", "cam"), run("mic.out", "cam.mic"), put("mic", "capsule.cell", True), put("cam", "mic.auto.menu", False),
        unweighted(id="voice", label="Voice", average_db_spl=60, heard_by={"mic": 1}),
    )  # fmt: skip
    padded = made(put("mic", "capsule.pad_db", "10"), base=base)
    assert track(base, "cam.L").sound.average - track(padded, "cam.L").sound.average == pytest.approx(10)


@given(
    st.sampled_from(["off", "80", "160"]),
    st.floats(0, 60),
    st.floats(0, 80),
    st.sampled_from([15, 25, 40]),
    st.integers(20, 60),
)
def test_noise_is_never_below_its_largest_contributor(cut, room, rumble, pad_db, gain_db):
    """Powers add: the sum is at least the largest, flat and A-weighted; and at most all of them at its level."""
    edits = (SetJob(room_noise_db_spl=room, rumble_db_spl=rumble), put("bag", "in1.low_cut", cut), put("bag", "in1.mic.gain_db", gain_db))  # fmt: skip
    sound = track(made(*edits, base=padded_plan(pad_db)), "cam.L").sound
    for total, levels in (
        (sound.noise, [noise.level for noise in sound.noises]),
        (sound.noise_a, [noise.a_level for noise in sound.noises]),
    ):
        assert max(levels) - 1e-9 <= total <= max(levels) + 10 * math.log10(len(levels)) + 1e-9
