"""Cables, chains, splits and attenuators against ngspice, whose answers on random wirings are stored; and against the second
model. `tests/deep` asks ngspice itself."""

import json

import pytest

from tests.reference import circuit
from tests.reference.wirings import STORED, feeds_of, port_of
from tidy_trunk.core.gear.catalogue import Figure, InputMode, OutputMode, Signal, Supply, built_in
from tidy_trunk.core.gear.wiring import SUPPLY_V, Feed, branch_of, delivery, link

CASES = json.loads(STORED.read_text())


def test_there_are_splits_chains_attenuators_and_power_among_them():
    assert sum(len(case["ways"]) > 1 for case in CASES) > 40 and sum(any(case["feeds"]) for case in CASES) > 60
    leads = {part["lead"] for case in CASES for way in case["ways"] for part in way["parts"]}
    assert len(leads) > 30 and sum("pad" in lead for lead in leads) > 5


def leads_of(way: dict) -> list:
    return [(built_in().leads[part["lead"]], part["branch"]) for part in way["parts"]]


def branches(case: dict) -> list:
    found = []
    for way in case["ways"]:
        takes = InputMode(id="x", label="x", signal=Signal.MIC, impedance_ohm=Figure(way["load_ohm"]))
        found.append(branch_of(leads_of(way), port_of(way["input"]), takes))
    return found


def ours(case: dict) -> list[list[float]]:
    """As ngspice was asked: for each channel of the output, the voltages across all channels of all inputs."""
    sending = port_of(case["output"])
    sends = OutputMode(id="x", label="x", signal=Signal.MIC, source_ohm=Figure(case["source_ohm"]))
    hung, found = branches(case), [[] for _ in sending.channels]
    for at, way in enumerate(case["ways"]):
        port = port_of(way["input"])
        takes = InputMode(id="x", label="x", signal=Signal.MIC, impedance_ohm=Figure(way["load_ohm"]))
        others = [branch for number, branch in enumerate(hung) if number != at]
        heard = link(sending, leads_of(way), port, sends, takes, others).heard
        for channel in range(len(port.channels)):
            if (channel, "hot") in circuit.legs(port):
                for sent in range(len(sending.channels)):
                    found[sent].append(sum(item.ratio for item in heard[channel] if item.channel == sent))
    return found


@pytest.mark.parametrize("case", CASES, ids=lambda case: " ".join(case["output"]))
def test_voltages_are_those_of_ngspice(case):
    *expected, power = case["volts"]
    found = ours(case)
    for row, wanted in zip(found, expected, strict=True):
        assert row == pytest.approx(wanted, abs=1e-4, rel=2e-4)
    fed = [item for item, feed in enumerate(case["feeds"]) if feed is not None]
    if fed:
        feeds = [
            Feed(
                branch._replace(load_ohm=1.0),
                None if feed is None else Supply(feed),
                0.0 if feed is None else SUPPLY_V[Supply(feed)],
            )
            for branch, feed in zip(branches(case), case["feeds"], strict=True)
        ]
        way = case["ways"][fed[0]]
        given = delivery(
            port_of(case["output"]),
            leads_of(way),
            port_of(way["input"]),
            Supply(case["feeds"][fed[0]]),
            beside=[feed for at, feed in enumerate(feeds) if at != fed[0]],
        )
        assert [given.hot_v, given.cold_v][: len(power)] == pytest.approx(power, abs=0.02)


def test_the_second_model_agrees_with_ngspice():
    for case in CASES:
        sending = port_of(case["output"])
        *expected, power = case["volts"]
        ways = [(way["parts"], port_of(way["input"])) for way in case["ways"]]
        found = circuit.arrivals(sending, case["source_ohm"], ways, [way["load_ohm"] for way in case["ways"]])
        flat = [
            [channel.get(driven, 0.0) for way, (_, port) in zip(found, ways, strict=True) for at, channel in enumerate(way)
             if (at, "hot") in circuit.legs(port)]
            for driven in range(len(sending.channels))
        ]  # fmt: skip
        for row, wanted in zip(flat, expected, strict=True):
            assert row == pytest.approx(wanted, abs=1e-4, rel=2e-4)
        assert list(circuit.volts_at(sending, feeds_of(case)))[: len(power)] == pytest.approx(power, abs=0.02)
