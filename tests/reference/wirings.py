"""Wirings drawn at random, and what ngspice says of them: `python -m tests.reference.wirings FILE` writes it anew."""

import json
import sys
from pathlib import Path
from random import Random

from tests.reference import circuit, spice
from tidy_trunk.core.gear.catalogue import Supply, built_in, mates

STORED = Path(__file__).parent.parent / "files" / "spice.json"
OUTPUTS = [
    (device_class.id, port.id)
    for device_class in built_in().devices.values()
    for port in device_class.outputs
    if circuit.is_analogue(port.circuit)
]
INPUTS = [
    (device_class.id, port.id)
    for device_class in built_in().devices.values()
    for port in device_class.inputs
    if circuit.is_analogue(port.circuit)
]


def port_of(name: list[str] | tuple[str, str]):
    device_class = built_in().devices[name[0]]
    return next(port for port in (*device_class.outputs, *device_class.inputs) if port.id == name[1])


def drawn(seed: int) -> dict:
    """An output with one, two or three inputs on it, by up to three leads in a row, at impedances between 10 Ω and 100 kΩ.

    An output's split carries one branch each; what comes out may be right or wrong.
    """
    by = Random(seed)
    output = by.choice(OUTPUTS)
    ways = [way for _ in range(by.choice([1, 1, 2, 3])) if (way := _way(by, output)) is not None]
    supply = by.choice([None, *Supply])
    feeds = [supply if by.random() < 0.6 else None for _ in ways]
    return {"output": output, "source_ohm": _ohm(by, 10, 3_000), "ways": ways, "feeds": feeds}


def _ohm(by: Random, low: float, high: float) -> float:
    return round(low * (high / low) ** by.random(), 1)


def _way(by: Random, output: tuple[str, str]) -> dict | None:
    for _ in range(40):
        plug, parts = port_of(output).plug, []
        for _ in range(by.randint(1, 3)):
            fits = [lead for lead in built_in().leads.values() if mates(plug, lead.sending)]
            if not fits:
                break
            lead = by.choice(fits)
            parts.append({"lead": lead.id, "branch": by.choice(list(lead.ways))})
            plug = lead.receiving
        takers = [name for name in INPUTS if mates(plug, port_of(name).plug)]
        if parts and takers:
            return {"parts": parts, "input": by.choice(takers), "load_ohm": _ohm(by, 30, 100_000)}
    return None


def decks(case: dict) -> list[str]:
    """For ngspice: one for each channel of the output, then one for the power at its contacts."""
    sending = port_of(case["output"])
    ways = [(way["parts"], port_of(way["input"])) for way in case["ways"]]
    found = []
    for driven in range(len(sending.channels)):
        board, ends = circuit.driven_board(
            sending, case["source_ohm"], ways, [way["load_ohm"] for way in case["ways"]], driven
        )
        found.append(spice.netlist(board, ("ground", 0), [node for _, _, hot, cold in ends for node in (hot, cold)]))
    board, ends = circuit.fed_board(sending, feeds_of(case))
    found.append(spice.netlist(board, ("ground", 0), [end for end in ends if end is not None] + ["common"]))
    return found


def feeds_of(case: dict) -> list:
    given = [None if feed is None else Supply(feed) for feed in case["feeds"]]
    return [
        (way["parts"], port_of(way["input"]), supply, 0.0 if supply is None else circuit.SUPPLY_V[supply])
        for way, supply in zip(case["ways"], given, strict=True)
    ]


def told(case: dict) -> list[list[float]]:
    """By ngspice: for each channel of the output the voltages across all channels of all inputs; then hot and cold of power."""
    *sound, power = (spice.solved(deck) for deck in decks(case))
    across = [[hot - cold for hot, cold in zip(volts[::2], volts[1::2], strict=True)] for volts in sound]
    return [*across, [volt - power[-1] for volt in power[:-1]]]


if __name__ == "__main__":
    cases = [case for seed in range(160) if (case := drawn(seed))["ways"]]
    stored = [{**case, "volts": [[round(volt, 7) for volt in row] for row in told(case)]} for case in cases]
    Path(sys.argv[1]).write_text("[\n" + ",\n".join(json.dumps(item) for item in stored) + "\n]\n")
