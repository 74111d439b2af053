"""The low cut: against wind and low-frequency noise, and only against them."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def rumble(at: FindingPlace, *, cut_hz: float | None, off_rumble_db: float, off_voice_db: float) -> FindingWords:
    """`cut_hz`: the gentlest low cut that is there; then what it takes off either, in dB."""
    below = -at.db
    where = f"{'only ' if below > 0 else ''}{abs(below):.0f} dB {'below' if below > 0 else 'above'} the voice at {at.socket}"
    return FindingWords(
        "Low-frequency noise near the voice",
        f"Wind and low-frequency noise lie {where}, and eat its headroom. "
        + (
            "It has no low cut: ask for a better windshield, and for what makes it to be moved or stopped."
            if cut_hz is None
            else f"A low cut at {cut_hz} Hz takes {off_rumble_db:.0f} dB off them and {off_voice_db:.1f} dB off a voice."
        ),
        "Listen in the pauses on closed headphones, and watch the meter move without sound.",
    )


@says
def thin_voice(at: FindingPlace, *, cut_hz: float, off_voice_db: float, below_db: float | None) -> FindingWords:
    """`below_db`: how far low-frequency noise lies below the voice without the cut; None where there is none."""
    against = (
        "and there is no low-frequency noise"
        if below_db is None
        else f"and low-frequency noise lies {below_db:.0f} dB below it"
    )
    return FindingWords(
        "Low cut in the voice",
        f"The low cut of {at.socket} at {cut_hz} Hz takes {off_voice_db:.1f} dB off a voice, "
        f"its warmth, {against}. The edit can cut it later; nobody can put it back.",
    )
