"""How long batteries, cards and files last: worked by hand from the trade's formulas."""

from dataclasses import replace

import pytest

from tests.plans import device, made
from tidy_trunk.core.gear.catalogue import Figure, Provenance
from tidy_trunk.core.plan import (
    PlanIndex,
    SetControl,
    SetFigure,
    apply_edits,
    battery,
    battery_needed_wh,
    cold_share,
    file_ends_min,
    media,
)


def placed(class_id, *edits):
    return PlanIndex(apply_edits(made(device(class_id, "it")), edits)).placed("it")


def figure(path, value):
    return SetFigure(device="it", path=path, figure=Figure(value, 0.0, Provenance.MEASURED, "USER"))


def test_battery_time_is_energy_times_four_fifths_over_power():
    """16 Wh × 0.8 / 7 W = 1.829 h [PRACTICE]; both to 20 % as typical figures: 0.2·√2 = 28.3 % less at the least."""
    found = battery(placed("mirrorless-mic"))
    assert found.usual_min == pytest.approx(109.71, abs=0.01)
    assert found.least_min == pytest.approx(109.71 * (1 - 0.28284), abs=0.01)
    measured = battery(placed("mirrorless-mic", figure("traits.battery_wh", 14), figure("traits.power_w", 7)))
    assert measured.usual_min == measured.least_min == pytest.approx(96)  # 14 × 0.8 / 7 = 1.6 h


def test_what_runs_on_mains_has_no_battery_to_change():
    assert battery(placed("mirrorless-mic", SetControl(device="it", control="power", value="mains"))) is None


@pytest.mark.parametrize(("celsius", "share"), [(30, 1.0), (20, 1.0), (10, 0.9), (0, 0.8), (-10, 0.65), (-20, 0.5)])
def test_batteries_in_the_cold(celsius, share):
    """Corners from memory: 80 % at 0 °C, half at −20 °C; straight lines between."""
    assert cold_share(celsius) == pytest.approx(share)
    assert battery(placed("mirrorless-mic"), celsius).usual_min == pytest.approx(109.71 * share, abs=0.01)


def test_the_battery_that_would_last():
    mirrorless = placed("mirrorless-mic")
    wanted = battery_needed_wh(mirrorless, 120)
    assert battery(placed("mirrorless-mic", figure("traits.battery_wh", wanted))).usual_min > 120
    bigger = SetFigure(
        device="it", path="traits.battery_wh", figure=replace(mirrorless.device_class.traits.battery_wh, value=wanted)
    )
    assert battery(placed("mirrorless-mic", bigger)).least_min == pytest.approx(120)


def test_eight_tracks_fill_a_plain_wav_in_62_minutes():
    """2³² bytes / (48 000 × 3 bytes × 8 tracks) = 3728 s = 62.14 min [EBU3306]."""
    assert file_ends_min(placed("bag-recorder"), 8) == pytest.approx(62.14, abs=0.01)
    assert file_ends_min(placed("bag-recorder"), 0) is None
    assert file_ends_min(placed("mirrorless-mic"), 2) is None  # a movie is no WAV


def test_a_card_by_its_size_and_what_is_written_on_it():
    """64·10⁹ bytes × 8 / (100·10⁶ + 2 × 48 000 × 16 bit/s) = 5042 s."""
    assert media(placed("mirrorless-mic")).usual_min == pytest.approx(84.04, abs=0.01)
    assert media(placed("lavalier")) is None
