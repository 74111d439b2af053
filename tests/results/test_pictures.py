"""Runs opened, in words: what the screen shows of a cable contact by contact."""

from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.results.pictures import lead_uses


def test_volts_have_a_minus_sign_and_nothing_has_none():
    """Every use of every lead of the catalogue; U+2212, as everywhere on screen."""
    words = [power for lead in built_in().leads.values() for use in lead_uses(lead) for power in use.powers]
    assert any("V on hot" in power for power in words)
    assert not [
        power for power in words if "-" in power.replace("plug-in", "").replace("T-power", "") or "−0 V" in power
    ]
