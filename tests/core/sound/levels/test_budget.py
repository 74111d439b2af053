"""What stands behind a track's figures: noise shares against powers by hand, doubts against the tolerance itself."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.plans import boom_in_bag, line_into_camera, made, padded_plan
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.plan import SetFigure
from tidy_trunk.core.sound.levels import Noise, Report, SignalLevels, doubts, noise_budget
from tidy_trunk.core.sound.levels.report import TrackLevel
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import first_measurement, noise_words


def report(plan) -> Report:
    return Report(trace_plan(plan))


def with_noises(*levels: float) -> TrackLevel:
    track = report(boom_in_bag()).tracks[0]
    noises = tuple(Noise(f"noise {index}", level, is_room=index == 0) for index, level in enumerate(levels))
    return TrackLevel(
        trace=track.trace,
        sound=SignalLevels(noises_before=noises),
        role=track.role,
        target=track.target,
        sources=(),
        miss_db=None,
    )


def test_what_a_cure_brings_by_hand():
    """Two equal noises: without one 3.01 dB less. One 20 dB below: 0.04 dB."""
    assert [share.drops_db for share in noise_budget(with_noises(-60, -60))] == pytest.approx([3.01, 3.01], abs=0.005)
    loud, soft = noise_budget(with_noises(-60, -80))
    assert soft.drops_db == pytest.approx(0.043, abs=0.001)
    assert "inaudible" in noise_words(soft) and "room itself" in noise_words(loud)
    _, audible, hidden = noise_budget(with_noises(-60, -62, -73))
    assert noise_words(audible) == "2 dB less without it" and noise_words(hidden) == "0.1 dB less without it: inaudible"


@given(st.lists(st.floats(-120, -20), min_size=2, max_size=8))
def test_no_cure_goes_below_what_is_left(levels):
    track = with_noises(*levels)
    powers = {f"noise {index}": 10 ** (level / 10) for index, level in enumerate(levels)}
    for share in noise_budget(track):
        # Added up, not taken away from the whole: of a soft rest beside a loud noise that leaves no digit.
        left = math.fsum(power for name, power in powers.items() if name != share.noise.name)
        assert share.drops_db == pytest.approx(10 * math.log10(math.fsum(powers.values()) / left), abs=1e-6)
        assert share.drops_db >= 0


@pytest.mark.parametrize("plan", [boom_in_bag(), line_into_camera(), padded_plan(25), foundry()])
def test_the_doubts_are_those_of_the_level(plan):
    """The figures that are listed give the ± of the track, which the levels carry on their own (root of squares, GUM)."""
    for track in report(plan).tracks:
        found = doubts(report(plan), track)
        if track.is_silent:
            assert found == ()
            continue
        assert math.sqrt(sum(doubt.tolerance_db**2 for doubt in found)) == pytest.approx(
            track.sound.tolerance_db, abs=1e-9
        )
        assert list(found) == sorted(found, key=lambda doubt: -doubt.tolerance_db)


def test_what_was_measured_is_doubtful_no_more():
    figure = Figure(-10.5, 0.2, Provenance.MEASURED)
    before, after = (
        doubts(report(plan), report(plan).tracks[-1])
        for plan in (
            padded_plan(25),
            made(
                SetFigure(device="cam", path="inputs.mic.modes.mic.full_scale_dbu", figure=figure), base=padded_plan(25)
            ),
        )
    )
    line_up = next(doubt for doubt in before if "cam mic socket" in str(doubt.what.facts.get("place")))
    assert line_up.settle.code == "line-up-into"
    assert math.sqrt(sum(doubt.tolerance_db**2 for doubt in after)) == pytest.approx(math.hypot(line_up.left_db, 0.2))
    assert "becomes" in first_measurement(before) and first_measurement(()) == ""
