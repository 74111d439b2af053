"""Radio microphones."""

from tidy_trunk.words.findings.said import Place, Said, says
from tidy_trunk.words.numbers import whole


@says
def transmitter_low(at: Place) -> Said:
    return Said(
        f"{at.device}: transmitter gain too low",
        f"{at.device} sends peaks of only {whole(at.db)} dBFS. Turn it up first, then the receiver, then the recorder: "
        "gain that comes later lifts the radio's noise as well. Mind that its frequency must be legal where you stand.",
        "Let the wearer speak as in the take and watch the transmitter's own meter.",
    )
