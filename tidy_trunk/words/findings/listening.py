"""Listening: at the last point there is, and in time."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def headphone_feed(at: FindingPlace, *, listens: bool) -> FindingWords:
    """`listens`: somebody hears the same by a cable with a tail or a splitter."""
    if listens:
        return FindingWords(
            f"The volume of {at.sender} is a level",
            f"Cable {at.number} takes the headphone socket of {at.sender} to {at.receiver}, and headphones hang on the same cable: "
            "whoever turns the volume turns the recording. Mark where it stands.",
            "Find the level with the headphones off the ears; then leave the volume alone.",
        )
    return FindingWords(
        f"Nobody can listen at {at.sender}",
        f"Cable {at.number} takes the headphone socket of {at.sender} to {at.receiver}: the monitor is "
        "gone, and whoever turns the volume turns the recording.",
        "Listen at the receiving end instead; set headphones low before putting them on.",
    )


@says
def cannot_listen(at: FindingPlace) -> FindingWords:
    return FindingWords(
        f"You cannot listen at {at.device}",
        f"{at.device} has no headphone socket, and nothing behind it has one: hum, clicks and a wrong input show only in "
        "its file. Record half a minute, play it back, and do it again after every change.",
        "Play the test recording back before the first take.",
    )


@says
def listening_late(at: FindingPlace, *, through: str, late_ms: float) -> FindingWords:
    """`through`: what makes most of the delay, by name."""
    return FindingWords(
        "Monitoring is late",
        f"What {at.receiver} plays has come through {through} and is {late_ms:.0f} ms late: too late to judge lip sync "
        "or to ride a level. Listen at the recorder for that, here only for what arrives.",
    )
