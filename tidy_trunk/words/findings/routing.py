"""Which input goes to which track."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def input_without_track(at: FindingPlace) -> FindingWords:
    return FindingWords(
        f"{at.socket} goes to no track",
        f"Cable {at.number} ends at {at.socket}, and no track of {at.device} takes it: it is heard perhaps, never recorded.",
    )


@says
def built_in_microphone(at: FindingPlace, *, waiting: str) -> FindingWords:
    """`waiting`: the run that waits at an input which no track takes."""
    run = at.index.plan.runs[waiting]
    return FindingWords(
        f"Track {at.placed.bus(at.bus).label} takes the built-in microphone",
        f"{at.placed.bus_label(at.bus)} records the microphone inside {at.device}, not cable {run.number} at "
        f"{at.device} {at.placed.input(run.receiving.port).label}. The meter moves all the same.",
        "Scratch the microphone that is meant, and watch which track moves.",
    )


@says
def track_not_armed(at: FindingPlace, *, buses: tuple[str, ...]) -> FindingWords:
    """`buses`: the tracks that take the socket and can be armed."""
    labels = " and ".join(at.placed.bus(bus).label for bus in buses)
    tracks = f"tracks {labels} take it, and are" if len(buses) > 1 else f"track {labels} takes it, and is"
    return FindingWords("Track not armed", f"{at.socket} is not recorded: {tracks} not armed.")


@says
def four_track_mode(at: FindingPlace, *, buses: tuple[str, ...]) -> FindingWords:
    labels = " and ".join(at.placed.bus(bus).label for bus in buses)
    return FindingWords(
        "Four-track mode is off",
        f"{at.socket} goes to tracks {labels} of {at.device}, which exist only in its "
        f"four-track mode. Cable {at.number} is not recorded.",
    )


@says
def safety_on_one_knob(at: FindingPlace, *, first: str) -> FindingWords:
    """`first`: the run that brings the same to the other input."""
    return FindingWords(
        "Both tracks on one knob",
        f"Cables {at.index.plan.runs[first].number} and {at.number} bring {at.sender} to two inputs of {at.device}, and one "
        "knob moves both: what clips one clips the other. Give the second its own knob, 6 to 20 dB lower.",
    )
