"""What happens only once."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def one_recorder(at: FindingPlace) -> FindingWords:
    source = at.source(at.finding.about)
    return FindingWords(
        f"{source} on one recorder only",
        f"{source} happens once, and {at.device} alone records it: a card, a cell or a button not pressed loses it. "
        "Feed a second recorder or a camera, on another way.",
    )


@says
def clip_limit(at: FindingPlace, *, minutes: float) -> FindingWords:
    """`minutes`: after which the last of them stops."""
    source = at.source(at.finding.about)
    return FindingWords(
        f"Recording of {source} stops by itself",
        f"{source} happens once, and what records it ends a clip by itself: {at.device} after {minutes:.0f} min. Put it on a "
        "recorder too, or start a new clip in a pause before.",
    )


@says
def battery_ends(at: FindingPlace, *, hours: float, stretch_h: float) -> FindingWords:
    """`hours`: of the battery that lasts longest; `stretch_h`: of the day without a break."""
    source = at.source(at.finding.about)
    return FindingWords(
        f"Fresh battery in {at.device} before {source}",
        f"{source} happens once. {at.device} runs about {hours:.1f} h on a battery, and the day goes on for {stretch_h:g} h without "
        "a break: change it just before, or run it from the mains.",
    )


@says
def shared_part(at: FindingPlace, *, recorders: int, devices: tuple[str, ...], cables: tuple[int, ...]) -> FindingWords:
    source = at.source(at.finding.about)
    names = ", ".join(map(at.label, devices))
    shared = f" and cable{'s' if len(cables) > 1 else ''} {', '.join(map(str, cables))}" if cables else ""
    return FindingWords(
        f"All recordings of {source} depend on {names}",
        f"{recorders} devices record {source}, and all of them depend on {names}{shared}: if that fails, no recording "
        "is left. A second microphone into the second recorder separates them.",
    )
