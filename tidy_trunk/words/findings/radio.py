"""Radio microphones."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.numbers import whole


@says
def transmitter_low(at: FindingPlace, *, is_all_up: bool) -> FindingWords:
    """`is_all_up`: its gain can go no higher."""
    return FindingWords(
        f"{at.device}: {'too little level' if is_all_up else 'transmitter gain too low'}",
        f"{at.device} sends peaks of only {whole(at.db)} dBFS"
        + (
            " with its gain all the way up. Go nearer, or take a microphone that gives more: "
            if is_all_up
            else ". Turn it up first, then the receiver, then the recorder: "
        )
        + "gain that comes later lifts the radio's noise as well. Mind that its frequency must be legal where you stand.",
        "Let the wearer speak as in the take and watch the transmitter's own meter.",
    )
