"""Cables with a fault are found, and those without one are not, for every class there is."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.gear.catalogue import Side, built_in
from tidy_trunk.core.trunk import CableFault, cable_faults, pairs_of, reaches, stand_in_test
from tidy_trunk.errors import InputError

LEADS = built_in().leads
COPPER = [lead.id for lead in LEADS.values() if any(len({side for side, _ in pair}) == 2 for pair in reaches(lead))]


def test_an_xlr_by_hand():
    """Pin to pin; hot and cold that have changed places; cold lost; shell to hot. [AES14], from memory, and [HANDBOOK] §4"""
    xlr = LEADS["xlr"]

    def found(*pairs):
        return [(fault.what, fault.contacts) for fault in cable_faults(xlr, pairs_of(xlr, pairs))]

    assert found(("1", "1"), ("2", "2"), ("3", "3")) == []
    assert found(("1", "1"), ("2", "3"), ("3", "2")) == [(CableFault.SWAPPED, ("2", "3"))]
    assert found(("1", "1"), ("2", "2")) == [(CableFault.LEG_LOST, ("3", "3"))]
    assert found(("2", "2"), ("3", "3")) == [(CableFault.OPEN, ("1", "1"))]
    both = [("1", "1"), ("2", "2"), ("3", "3"), ("1", "2"), ("2", "1")]
    assert [what for what, _ in found(*both)] == [CableFault.SHORTED, CableFault.SHORTED]
    with pytest.raises(InputError, match="no contact '9'"):
        pairs_of(xlr, [("9", "1")])


@pytest.mark.parametrize("name", COPPER)
def test_a_whole_cable_of_every_class_is_whole(name):
    assert cable_faults(LEADS[name], stand_in_test(LEADS[name], None, 0)) == ()


@given(st.sampled_from(COPPER), st.sampled_from(list(CableFault)), st.integers(0, 1000))
def test_a_cable_with_a_fault_is_found(name, what, seed):
    lead = LEADS[name]
    try:
        shown = stand_in_test(lead, what, seed)
    except InputError:
        return
    found = {fault.what for fault in cable_faults(lead, shown)}
    # Of an unbalanced cable a leg that is lost is a contact that is open.
    assert what in found or (what is CableFault.LEG_LOST and CableFault.OPEN in found), (name, found)


def test_what_shares_a_contact_is_one_way():
    """Mono to both sides: tip and ring hang on one pin, and a tester shows both."""
    pairs = {
        (dict(pair)[Side.SENDING], dict(pair)[Side.RECEIVING])
        for pair in reaches(LEADS["xlr-trs"])
        if len(dict(pair)) == 2
    }
    assert {("2", "T"), ("2", "R")} <= pairs
