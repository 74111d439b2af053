"""The same circuits for ngspice, a third opinion that none of us wrote: netlists, and what it says of them.

Debian's package `ngspice`. A plain wire is a resistor of a tenth of a milliohm; a 1:1 winding is a voltage source that follows a
voltage, with its current handed back.
"""

import re
import subprocess

from tests.reference.circuit import LEAK_S, Board

WIRE_OHM = 1e-4


def netlist(board: Board, ground, wanted: list) -> str:
    """A board as a deck that prints the voltages of the wanted nodes, in order."""
    names = {at: f"n{at}" for at in board.nodes.values()}
    names[board.node(ground)] = "0"
    lines = ["* contacts, leads and loads"]
    for at, (plus, minus, ohm, volts) in enumerate(board.branches):
        first, second = names[plus], names[minus]
        if volts:
            lines += [f"V{at} m{at} {second} DC {volts!r}", f"R{at} m{at} {first} {ohm or WIRE_OHM!r}"]
        else:
            lines.append(f"R{at} {first} {second} {ohm or WIRE_OHM!r}")
    for at, ends in enumerate(board.windings):
        first, second, third, fourth = (names[board.node(end)] for end in ends)
        # The far side follows the near one; its current is drawn on the near side.
        lines += [
            f"EW{at} w{at} {fourth} {first} {second} 1",
            f"VW{at} w{at} {third} 0",
            f"FW{at} {first} {second} VW{at} 1",
        ]
    lines += [f"RL{at} {name} 0 {1 / LEAK_S!r}" for at, name in names.items() if name != "0"]
    asked = " ".join(f"v({names[board.node(name)]})" if names[board.node(name)] != "0" else "v(0)" for name in wanted)
    return "\n".join(
        [*lines, ".options gmin=1e-15", ".control", "set numdgt=9", "op", f"print {asked}", ".endc", ".end", ""]
    )


def solved(deck: str) -> list[float]:
    """Volts of what a deck asks for. Raises CalledProcessError, ValueError: ngspice does not say."""
    answer = subprocess.run(["ngspice", "-b", "/dev/stdin"], input=deck, capture_output=True, text=True, timeout=60)
    asked = re.search(r"^print (.*)$", deck, re.MULTILINE)
    wanted = asked.group(1).split() if asked else []
    found = dict(re.findall(r"^(v\(\w+\)) = (\S+)$", answer.stdout, re.MULTILINE))
    if any(name not in found and name != "v(0)" for name in wanted):
        raise ValueError(answer.stdout[-2000:] + answer.stderr[-2000:])
    return [float(found.get(name, 0.0)) for name in wanted]
