"""What arrives through leads. Handbook section 4: the four leads that look alike."""

import pytest

from tidy_trunk.core.catalogue import CONNECTORS, DEVICES, LEADS, PINOUTS
from tidy_trunk.core.trace import arrivals, unmated


def port(class_id, port_id):
    return next(item for item in DEVICES[class_id].ports if item.id == port_id)


XLR = port("bag-recorder", "out-l")
LINE = port("bag-recorder", "line")
SOCKET = port("mirrorless-mic", "mic")
BALANCED_IN = port("bag-recorder", "in1")
LAVALIER = port("lavalier", "out")


def heard(sending, lead, receiving, branch=""):
    leads = [(LEADS[lead], branch)] if lead else []
    return [[(item.channel, item.coefficient) for item in channel] for channel in arrivals(sending, leads, receiving)]


@pytest.mark.parametrize(
    ("sending", "lead", "receiving", "expected", "why"),
    [
        (XLR, "xlr", BALANCED_IN, [[(0, 1.0)]], "straight"),
        (XLR, "xlr-crossed", BALANCED_IN, [[(0, -1.0)]], "2 and 3 crossed: inverted"),
        (XLR, "xlr-trs", SOCKET, [[(0, 1.0)], [(0, 1.0)]], "hot on tip and ring"),
        (XLR, "xlr-trs-one-to-one", SOCKET, [[(0, 0.5)], [(0, -0.5)]], "hot left, cold right: cancels in mono"),
        (LINE, "trs", SOCKET, [[(0, 1.0)], [(1, 1.0)]], "left stays left"),
        (LINE, "trs-xlr", BALANCED_IN, [[(0, 1.0), (1, -1.0)]], "left minus right"),
        (LINE, "trs-xlr-mono", BALANCED_IN, [[(0, 1.0)]], "tip only"),
        (LAVALIER, "", SOCKET, [[(0, 1.0)], []], "a mono plug shorts the ring: right stays silent"),
    ],
)
def test_what_arrives(sending, lead, receiving, expected, why):
    assert heard(sending, lead, receiving) == expected, why


def test_two_way_leads_use_one_side_each():
    assert heard(XLR, "2xlr-trs", SOCKET, "L") == [[(0, 1.0)], []]
    assert heard(XLR, "2xlr-trs", SOCKET, "R") == [[], [(0, 1.0)]]
    camera = port("cinema-xlr5", "in")
    assert heard(XLR, "2xlr-xlr5", camera, "R") == [[], [(0, 1.0)]]


def test_mating():
    assert unmated(XLR, [LEADS["xlr"]], BALANCED_IN) is None
    assert unmated(XLR, [], BALANCED_IN) is None  # a barrel-less joint: male into female
    assert unmated(XLR, [LEADS["trs"]], SOCKET).first.startswith("out L")
    assert unmated(XLR, [LEADS["xlr"]], SOCKET).second == "mic socket (3.5 mm TRS female)"
    combo = port("handheld-recorder", "in1")
    assert unmated(XLR, [LEADS["xlr"]], combo) is None


def test_wires_name_contacts_that_exist():
    for lead in LEADS.values():
        for wires in lead.wires.values():
            for near, far in wires:
                assert near in CONNECTORS[lead.sending.connector].contacts, lead.id
                assert far in CONNECTORS[lead.receiving.connector].contacts, lead.id
    for (connector, _), legs in PINOUTS.items():
        assert set(legs) <= set(CONNECTORS[connector].contacts)
