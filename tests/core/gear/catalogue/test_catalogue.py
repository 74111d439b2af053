"""The built-in classes: complete, well formed, plain, and with the figures of handbook section 12."""

import pytest

from tests.plans import line_into_camera, made
from tidy_trunk.core.gear.catalogue import (
    DeviceKind,
    Figure,
    InputPort,
    Provenance,
    Span,
    built_in,
    controls_of,
    figures_of,
    with_figures,
)
from tidy_trunk.core.plan import PlanIndex, SetFigure
from tidy_trunk.core.sound.levels import run_loss_db
from tidy_trunk.errors import RangeError, UnknownItemError


def figure(device, path):
    return next(item.figure for item in figures_of(built_in().devices[device]) if item.path == path)


@pytest.mark.parametrize(
    ("device", "path", "value"),
    [
        ("boom-shotgun", "capsule.sensitivity_mv_per_pa", 20),
        ("boom-shotgun", "capsule.self_noise_db_a", 14),
        ("lavalier", "capsule.sensitivity_mv_per_pa", 8),
        ("dynamic-handheld", "capsule.sensitivity_mv_per_pa", 1.8),
        ("ribbon", "capsule.sensitivity_mv_per_pa", 1.5),
        ("battery-condenser", "capsule.self_noise_db_a", 20),
        ("bag-recorder", "outputs.line.modes.line.full_scale_dbu", 10),
        ("bag-recorder", "outputs.line.modes.line.noise_dbu", -85),
        ("bag-recorder", "outputs.phones.modes.phones.noise_dbu", -76.5),
        ("handheld-recorder", "inputs.in1.modes.mic.ein_dbu", -120),
        ("receiver-one", "outputs.out.modes.line.full_scale_dbu", -10),
        ("receiver-one", "outputs.out.modes.mic.full_scale_dbu", -30),
        ("mirrorless-mic", "inputs.mic.modes.mic.ein_dbu", -108),
        ("mirrorless-mic", "inputs.mic.idle_noise_dbfs", -73),
        ("mirrorless-line", "inputs.mic.modes.line.full_scale_dbu", 6),
        ("shoulder-camcorder", "inputs.in1.modes.line4.full_scale_dbu", 24),
        ("cinema-xlr5", "inputs.in.modes.line.full_scale_dbu", 24),
        ("field-mixer", "outputs.out-l.modes.line.noise_dbu", -88),
    ],
)
def test_figures_of_the_handbook(device, path, value):
    assert figure(device, path).value == value


def test_at_least_24_classes_of_every_kind():
    assert len(built_in().devices) >= 24
    assert {item.kind for item in built_in().devices.values()} == set(DeviceKind)


def test_knobs_stand_on_a_position_of_theirs():
    for item in built_in().devices.values():
        for control in controls_of(item).values():
            assert control.check(control.default) == control.default, f"{item.id} {control.id}"


def test_full_scale_one_step_above_minimum_is_what_practice_says():
    """-10.5 dBu one step of 1.5 dB above the lowest: handbook section 12."""
    port = next(port for port in built_in().devices["mirrorless-mic"].inputs if port.id == "mic")
    mode = port.modes[0]
    assert mode.full_scale_dbu.value - (mode.gain.minimum_db + mode.gain.step_db) == -10.5
    assert mode.full_scale_dbu.value - mode.gain.maximum_db == pytest.approx(-55, abs=1.5)


def test_attenuating_leads_from_15_to_50_db():
    losses = {lead.loss_db.value for lead in built_in().leads.values() if lead.loss_db is not None}
    assert min(losses) == 15 and max(losses) == 50


def test_a_changed_figure_changes_nothing_else():
    camera = built_in().devices["mirrorless-mic"]
    changed = with_figures(camera, {"inputs.mic.idle_noise_dbfs": Figure(-80)})
    before = {item.path: item.figure for item in figures_of(camera)}
    after = {item.path: item.figure for item in figures_of(changed)}
    assert {path for path in before if before[path] != after[path]} == {"inputs.mic.idle_noise_dbfs"}
    assert isinstance(changed.inputs[0], InputPort)


def test_refused_figures_and_knobs():
    with pytest.raises(RangeError):
        Figure(float("nan"))
    with pytest.raises(RangeError):
        Figure(1, tolerance=-1)
    with pytest.raises(RangeError):
        Span(0, 10, 1, 20)
    with pytest.raises(UnknownItemError):
        with_figures(built_in().devices["ribbon"], {"no.such": Figure(1)})


def test_a_knob_takes_its_nearest_position():
    span = Span(0, 46.5, 1.5, 1.5)
    assert span.nearest_db(2) == 1.5
    assert span.nearest_db(99) == 46.5
    assert span.nearest_db(-5) == 0


def test_every_figure_has_words_and_a_unit():
    labels = [item.label for item in figures_of(built_in().devices["shoulder-camcorder"])]
    assert "in 1 line +4 dBu, full scale" in labels and "in 2 mic, equivalent input noise" in labels
    for device in built_in().devices.values():
        for named in figures_of(device):
            assert named.label and named.unit, named.path
            assert named.figure.provenance and named.figure.source
            assert ".digital." not in named.path, "a digital link has no figure of its own"
    units = {item.unit: item.tolerance_unit for device in built_in().devices.values() for item in figures_of(device)}
    assert units["dBu"] == units["mV/Pa"] == "dB" and units["Ω"] == units["ppm"] == units["Wh"] == "%"


def test_a_measured_impedance_moves_the_level():
    """2.5 kohm after 100 ohm takes 0.34 dB, 600 ohm takes 1.34 dB: 20 log of 2500/2600 and 600/700."""
    plan = line_into_camera()
    path = "inputs.mic.modes.mic.impedance_ohm"
    low = made(SetFigure(device="cam", path=path, figure=Figure(600, 5, Provenance.MEASURED, "USER")), base=plan)
    losses = [run_loss_db(PlanIndex(item), item.runs["run-2"]) for item in (plan, low)]
    assert losses == pytest.approx([0.34, 1.34], abs=0.01)
