"""Digital links: cables, levels, sample rates."""

from tidy_trunk.core.advice.checks.rules.digital import AES3_LONGEST_M
from tidy_trunk.core.gear.catalogue import USUAL_RATE_HZ
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.numbers import khz


@says
def aes3_lead(at: FindingPlace, *, is_too_long: bool, plain_m: float) -> FindingWords:
    what = (
        f"{at.joint.run.length_m:g} m is more than the {AES3_LONGEST_M:g} m for which it is meant"
        if is_too_long
        else f"{plain_m:g} m of it is an ordinary cable; AES3 wants 110 Ω, else it drops out without warning"
    )
    return FindingWords(
        "AES3 cable too long" if is_too_long else "Cable not made for AES3",
        f"Cable {at.number}: {what}.",
        "Leave it running for some minutes and listen for clicks and mutes.",
    )


@says
def aes3_level(at: FindingPlace) -> FindingWords:
    return FindingWords(
        "Level fixed by the sender",
        f"{at.socket} stands {abs(at.db):.0f} dB {'above' if at.db > 0 else 'below'} the target, and over AES3 only {at.sender} can "
        "change that: turn its mix, not the camera.",
    )


@says
def sample_rate(at: FindingPlace, *, rate_hz: int) -> FindingWords:
    why = (
        "It is the rate of music discs"
        if rate_hz < USUAL_RATE_HZ
        else "Files of several rates must be converted before they can be laid together"
    )
    return FindingWords(
        f"{at.device} at {khz(rate_hz)}",
        f"{at.device} records at {khz(rate_hz)}, the job at {khz(at.index.plan.defaults.sample_rate_hz)}. {why}; beside the others it "
        "drifts or plays at another speed if nobody notices.",
    )


@says
def sample_rate_between(at: FindingPlace, *, sends_hz: int, takes_hz: int) -> FindingWords:
    return FindingWords(
        "Two sample rates on one link",
        f"{at.sender} sends {khz(sends_hz)}, {at.socket} takes {khz(takes_hz)}: it stays silent, or clicks.",
    )
