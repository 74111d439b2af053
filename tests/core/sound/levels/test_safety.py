"""Safety tracks: what they take, and what takes both (handbook §6)."""

import math
from dataclasses import replace

import pytest

from tests.plans import boom_in_bag, device, line_into_camera, made, padded_plan, put, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.checks import check
from tidy_trunk.core.plan import AddSource, Hear, Part, Plan, SetParts, SetSource
from tidy_trunk.core.sound.levels import Report, safeties
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import safety_advice, safety_words, target_words


def report(plan: Plan) -> Report:
    return Report(trace_plan(plan))


def two_inputs(second_gain: float) -> Plan:
    """One voice at two booms, in two inputs of one bag, the second with a gain of its own."""
    return made(
        device("boom-shotgun", "spare"),
        run("spare.out", "bag.in2", "xlr"),
        Hear(source="voice", device="spare", distance_m=0.5),
        put("bag", "in2.phantom.menu", True),
        put("bag", "in2.mic.gain_db", second_gain),
        base=boom_in_bag(),
    )


def kept(plan: Plan, track: str, other: str):
    found = report(plan)
    return next(item for item in safeties(found, found.track(track)) if item.track.trace.id == other)


@pytest.mark.parametrize("lower", [6, 10, 20])
def test_a_track_that_lies_lower_takes_that_much_more(lower):
    safety = kept(two_inputs(50 - lower), "bag.1", "bag.2")
    assert safety.lower_db == pytest.approx(lower) and safety.more_db == pytest.approx(lower)
    assert safety.rise_db == pytest.approx(-report(two_inputs(50 - lower)).track("bag.2").sound.peak)


def test_the_burst_that_it_takes_does_not_clip_it():
    """Pushed up by as much as is said, the peaks just fit; by one more dB they do not."""
    plan = two_inputs(40)
    rise = kept(plan, "bag.1", "bag.2").rise_db
    for more, cut in ((rise - 0.1, False), (rise + 1, True)):
        louder = made(SetSource(source="voice", peak_db_spl=74 + more), base=plan)
        assert (report(louder).track("bag.2").clip is not None) is cut


def test_only_the_very_sound_of_another_track_may_lie_lower_untold():
    """A second boom has a target of its own. [HANDBOOK] §6: a safety track is the same source, once more and lower."""

    def missed(plan: Plan) -> set[tuple[str, ...]]:
        return {finding.tracks for finding in check(report(plan)) if finding.rule == "off-target"}

    assert missed(two_inputs(50)) == set() and missed(two_inputs(35)) == {("bag.2",)}
    one = Part(lead="xlr-2xlr", length_m=0.5, shared="y")
    split = made(
        SetParts(run="run-1", parts=(replace(one, branch="L"),)),
        run("boom.out", "bag.in2", replace(one, branch="R")),
        put("bag", "in2.mic.gain_db", 40),
        base=boom_in_bag(),
    )
    assert missed(split) == set()


def test_what_takes_both():
    plan = two_inputs(40)
    found = report(plan)
    safety = kept(plan, "bag.1", "bag.2")
    assert safety.shared == {("device", "bag")}, "each has a microphone and a run of its own"
    assert safety_words(found.index, safety).endswith("lost too if bag fails")
    camera = kept(padded_plan(25), "bag.1", "cam.L")
    assert {name for kind, name in camera.shared if kind == "device"} == {"boom", "bag"}
    assert ("run", "run-2") in camera.parts - camera.shared


def test_behind_what_clips_a_track_guards_against_nothing():
    """The camera's track hangs behind the bag's converter: lower or not, what is cut there stays cut."""
    plan = made(put("bag", "in1.mic.gain_db", 70), base=padded_plan(40))
    found = report(plan)
    assert kept(plan, "bag.1", "cam.L").more_db == 0
    assert found.track("bag.1").headroom_db < 0
    assert "clips as early" in safety_words(found.index, kept(plan, "bag.1", "cam.L"))


def test_advice():
    found = report(boom_in_bag())
    mixes = safeties(found, found.track("bag.1"))
    assert "None of them takes much more" in safety_advice(mixes)
    assert "No other track records it" in safety_advice(())
    low = report(two_inputs(40))
    assert safety_advice(safeties(low, low.track("bag.1"))) == ""


def test_float_takes_any_burst_that_its_microphone_takes():
    plan = made(
        device("lavalier", "lav"),
        device("float-recorder", "body"),
        run("lav.out", "body.mic"),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"lav": 0.2}),
    )
    found = report(plan)
    assert math.isfinite(found.tracks[0].headroom_db), "the microphone itself has a limit"


def test_silent_tracks_have_none():
    found = report(foundry())
    assert safeties(found, found.track("bag.5")) == ()
    assert report(line_into_camera()).track("cam.L") is not None


def test_where_a_track_lies_beside_its_target():
    """A level that was clipped on the way is no level: nothing is said of the target then."""
    at = [
        report(made(put("bag", "in1.mic.gain_db", gain_db), base=boom_in_bag())).track("bag.1") for gain_db in (40, 52)
    ]
    assert [target_words(track) for track in at] == ["10 dB below the target", "on target"]
    assert target_words(report(line_into_camera()).track("cam.L")) == "clipped on the way"
    off = report(made(put("bag", "in1.phantom.menu", False), base=boom_in_bag())).track("bag.1")
    assert target_words(off) == "nothing arrives"
