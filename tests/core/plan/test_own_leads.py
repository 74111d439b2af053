"""Leads of the user's own are judged by their contacts. Facts: handbook §§4 and 6; pads by the divider rule."""

from dataclasses import replace

import pytest

from tests.plans import boom_in_bag, device, made, run
from tidy_trunk.core.advice.checks import check
from tidy_trunk.core.gear.catalogue import Bridge, Side, Wire, Wiring, built_in
from tidy_trunk.core.gear.wiring import Fault
from tidy_trunk.core.plan import DrawLead, Part, Plan, RemoveLead, SaveLead, SetParts, drawn_lead
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import PlanError


def wrong_leads(plan: Plan) -> list[Fault]:
    return [item.facts["fault"] for item in check(Report(trace_plan(plan))) if item.rule == "wrong-lead"]


def like(lead_id, **changes):
    made = built_in().leads[lead_id]
    values = {
        "sending": made.sending,
        "receiving": made.receiving,
        "ways": made.ways,
        "short_m": made.short_m,
    }
    return drawn_lead(id="own", label="Own", **{**values, **changes})


@pytest.mark.parametrize(
    "lead_id", ["xlr", "xlr-crossed", "xlr-trs", "trs", "trs-xlr-mono", "xlr-pad-25", "xlr-isolator", "2xlr-xlr5"]
)
def test_a_copy_of_a_built_in_lead_is_known_for_what_it_is(lead_id):
    assert like(lead_id).balanced is built_in().leads[lead_id].balanced or lead_id == "trs"


@pytest.mark.parametrize("db", [15, 25, 40])
def test_the_loss_of_a_pad_is_found_from_its_resistors(db):
    for lead_id in (f"xlr-pad-{db}", f"trs-pad-{db}"):
        assert like(lead_id).loss_db.value == pytest.approx(db, abs=0.06)
    assert like("xlr-trs").loss_db is None


def test_it_is_used_in_a_run_and_its_mistake_is_found():
    """Soldered from memory: cold to the ring."""
    crossed = DrawLead(
        id="own-lead",
        label="Own cable",
        sending=built_in().leads["xlr-trs"].sending,
        receiving=built_in().leads["xlr-trs"].receiving,
        ways=built_in().leads["xlr-trs-one-to-one"].ways,
    )
    plan = made(device("mirrorless-mic", "cam"), crossed, run("bag.out-l", "cam.mic", "own-lead"), base=boom_in_bag())
    assert Fault.OPPOSITE in wrong_leads(plan)
    right = Wiring((Wire("1", "S"), Wire("2", "T"), Wire("2", "R")))
    mended = made(
        DrawLead(
            id="own-lead", label="Own cable", sending=crossed.sending, receiving=crossed.receiving, ways={"": right}
        ),
        base=plan,
    )
    assert not wrong_leads(mended)
    with pytest.raises(PlanError, match="cable 2 uses Own cable"):
        made(RemoveLead(lead="own-lead"), base=plan)
    free = made(SetParts(run="run-2", parts=(Part(lead="xlr-trs", length_m=0.3),)), base=plan)
    assert made(RemoveLead(lead="own-lead"), base=free).leads == {}


def test_a_bridge_of_no_resistance_shorts():
    shorted = like(
        "trs", ways={"": Wiring(built_in().leads["trs"].ways[""].wires, (Bridge(Side.RECEIVING, "T", "S"),))}
    )
    plan = made(
        device("handheld-recorder", "rec"),
        device("mirrorless-line", "cam"),
        DrawLead(id="own-lead", label="Bad", sending=shorted.sending, receiving=shorted.receiving, ways=shorted.ways),
        run("rec.line", "cam.mic", "own-lead"),
    )
    assert {"wrong-lead"} <= {finding.rule for finding in check(Report(trace_plan(plan))) if finding.run == "run-1"}


def test_what_is_known_beside_its_contacts_stays_when_it_is_drawn_anew():
    """A digital one is one for its impedance, whatever joins its contacts."""
    kept = replace(built_in().leads["aes3"], id="my-aes", label="My AES3", also="blue one", cost=2)
    plan = made(SaveLead(lead=kept))
    assert plan.leads["my-aes"] == kept and kept.characteristic_ohm == 110
    drawn = DrawLead(id="my-aes", label="Mended", sending=kept.sending, receiving=kept.receiving, ways=kept.ways)
    assert made(drawn, base=plan).leads["my-aes"] == replace(kept, label="Mended")
    other = replace(drawn, receiving=built_in().leads["xlr-trs"].receiving, ways=built_in().leads["xlr-trs"].ways)
    lead = made(other, base=plan).leads["my-aes"]
    assert (lead.characteristic_ohm, lead.also, lead.cost) == (None, "blue one", 2)


def test_a_digital_plug_is_none_for_a_cable_that_is_drawn():
    with pytest.raises(PlanError, match="no plug for a cable of one's own"):
        like("hdmi")
