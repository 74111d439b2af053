"""What was measured of a device."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def noisy_gain(at: FindingPlace) -> FindingWords:
    return FindingWords(
        "Gain where it turns into noise",
        f"{at.socket} stands {at.db:g} dB above the position from which on it was "
        f"measured to bring more noise than level. Send more from {at.sender} and turn it down.",
        "Record the tone again, and listen to the pause behind it.",
    )
