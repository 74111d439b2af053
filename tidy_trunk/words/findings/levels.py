"""Level: the right mode at each end, nothing clipped, the average where the job wants it, quiet gear."""

from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.numbers import listed, marked, signed


@says
def line_into_mic(
    at: FindingPlace, *, takes_dbu: float, full_scale_dbu: float, peak_dbu: float | None, has_late_pad: bool
) -> FindingWords:
    """`peak_dbu`: None where no sound is planned; `has_late_pad`: its attenuator sits behind the converter."""
    if at.db > 0:
        reach = "at full scale it reaches" if peak_dbu is None else "its peaks reach"
        text = (
            f"{at.output} sends line: {reach} {signed(takes_dbu + at.db)} dBu, and {at.receiver} "
            f"takes {signed(takes_dbu)}. It clips by {at.db:.1f} dB, and turning {at.receiver} down cannot fix it."
        )
        if has_late_pad:
            text += " Its attenuator sits behind the converter, too late to help."
    else:
        text = (
            f"{at.output} sends line. The expected peaks just fit, but a burst to full scale "
            f"clips {at.socket} by {full_scale_dbu - takes_dbu:.1f} dB."
        )
    return FindingWords(
        "Line into microphone input",
        text,
        "Send tone and look for flat tops in the recorded file.",
    )


@says
def mic_into_line(at: FindingPlace, *, average_dbfs: float | None) -> FindingWords:
    """`average_dbfs`: None where nothing is recorded of it."""
    heard = f" The track would average {signed(average_dbfs)} dBFS: near silence." if average_dbfs is not None else ""
    return FindingWords(
        "Microphone into line input",
        f"{at.sender} sends microphone level; {at.socket} is at {at.joint.takes.label}.{heard}",
    )


@says
def clipping(at: FindingPlace, *, where: str, noise: str, tolerance_db: float) -> FindingWords:
    """`where`: the stage by name; `noise`: what of the place goes over by itself, "" where it takes a voice."""
    over = f"{at.db:.1f} dB (±{tolerance_db:.0f})"
    sure = "clip" if at.db > tolerance_db else "likely clip"
    return FindingWords(
        f"{where} clips on {noise} alone" if noise else f"{where} {sure}s",
        (
            f"The peaks of {noise} go over {where} by {over} even while nobody speaks. "
            if noise
            else f"Peaks {sure} {where} by {over}. "
        )
        + "What is cut off there stays cut off, however low it is turned afterwards.",
        "Record the loudest moment of a rehearsal and look for flat tops.",
    )


@says
def burst_clips(at: FindingPlace, *, spare_db: float, tolerance_db: float, can_limit: bool) -> FindingWords:
    """`spare_db`: by how much the expected peaks fit; `can_limit`: a limiter is there, and off."""
    where = at.finding.about
    doubt = f" by {spare_db:.0f} dB (±{tolerance_db:.0f})" if spare_db < tolerance_db else ""
    return FindingWords(
        f"{where} may clip" if doubt else f"A shout would clip {where}",
        f"The expected peaks fit{doubt}, but a laugh or a shout would go {at.db:.0f} dB over at {where}. Turn it down, "
        f"{'let the limiter catch it, ' if can_limit else ''}or put the source on a second track that is lower.",
        "Ask whether it is rehearsed: an interview laughs without warning.",
    )


@says
def off_target(at: FindingPlace, *, buses: tuple[str, ...], level_dbfs: float, tolerance_db: float) -> FindingWords:
    """`buses`: the tracks that are off by the same; `level_dbfs`: their average, or their peak where the target is one."""
    target = at.index.target_of(at.finding.device, buses[0])
    return FindingWords(
        f"{abs(at.db):.0f} dB {'above' if at.db > 0 else 'below'} target",
        f"{_tracks(at, buses)} would {'peak' if target.of_peaks else 'average'} at {signed(level_dbfs)} dBFS "
        f"(±{tolerance_db:.0f}); {target.label} wants {target.words}.",
        "Let them speak as they will in the take and read the meter.",
    )


@says
def gear_above_room(
    at: FindingPlace, *, buses: tuple[str, ...], noise_dbfs: float, most: str, most_dbfs: float
) -> FindingWords:
    """`most`: what makes most of the noise, by name."""
    return FindingWords(
        "Hiss above the room",
        f"{_tracks(at, buses)}: the gear makes {signed(noise_dbfs)} dBFS of noise "
        f"(A-weighted), {at.db:.0f} dB above the room. Most of it is {most}, {signed(most_dbfs)} dBFS.",
        "Listen on headphones to what the device records, between words.",
    )


@says
def loud_place(
    at: FindingPlace, *, buses: tuple[str, ...], noise_dbfs: float, below_db: float, is_far: bool, hears_all_round: bool
) -> FindingWords:
    """`below_db`: how far the noise of the place lies below the voice; `is_far`: a microphone can go nearer."""
    closer = "Go nearer, take a lavalier, or " if is_far and not hears_all_round else "Go nearer, " if is_far else ""
    narrower = "take a microphone that hears less from the sides, or " if hears_all_round else ""
    advice = f"{closer}{narrower}find a quieter place."
    return FindingWords(
        "The place is as loud as the voice"
        if below_db < 1
        else f"The place lies only {below_db:.0f} dB below the voice",
        f"{_tracks(at, buses)}: the noise of the place is {signed(noise_dbfs)} dBFS "
        f"(A-weighted). {advice[0].upper()}{advice[1:]}",
        "Listen on closed headphones: is every word understood without looking?",
    )


@says
def two_attenuators(at: FindingPlace, *, own_db: float, cable_db: float) -> FindingWords:
    """`own_db`: of the input; `cable_db`: in the cable."""
    return FindingWords(
        "Two attenuators in a row",
        f"Cable {at.number} takes {cable_db:.0f} dB off, and {at.socket} another {own_db:.0f} dB. The cable is enough: the second "
        "one only brings the noise of the input nearer.",
    )


@says
def knob_is_off(at: FindingPlace, *, lowest_db: float) -> FindingWords:
    """`lowest_db`: as the knob is marked there."""
    return FindingWords(
        "Gain is off",
        f"{at.socket}: the gain stands at {marked(lowest_db)} dB, and its lowest position is off. Nothing is recorded.",
    )


@says
def automatic_level(at: FindingPlace, *, sends_timecode: bool, noise_dbfs: float | None) -> FindingWords:
    """`noise_dbfs`: what it lifts the noise between words to, by as much as was worked out; None where nothing is lifted."""
    place = at.placed.automatic_level_place(at.finding.about)
    if sends_timecode:
        does = "It turns the whole socket down by the timecode, and what stands beside it goes with it."
    elif noise_dbfs is not None:
        does = (
            f"It may lift the noise between words by {at.db:.0f} dB, to {signed(noise_dbfs)} dBFS, and undoes the gain "
            "that is planned here."
        )
    else:
        does = "It lifts the noise between words and undoes the gain that is planned here."
    on = " and the ".join(at.placed.automatic_level_on(place))
    return FindingWords(
        "Automatic level is on",
        f"{at.device} {at.placed.where_label(place.id)}: automatic level is on in the {on}. {does}",
    )


@says
def limiter(at: FindingPlace, *, is_straight: bool) -> FindingWords:
    """`is_straight`: a microphone goes straight into the camera."""
    if is_straight:
        return FindingWords(
            "No limiter",
            f"{at.sender} goes straight into {at.socket}, and nobody rides its gain: its limiter catches a burst.",
        )
    return FindingWords(
        "Limited twice",
        f"{at.sender} limits already. A second limiter at {at.socket} breathes with it, and hides a level that is too high.",
    )


@says
def camera_gain(at: FindingPlace) -> FindingWords:
    if at.finding.measured_db is None:
        return FindingWords(
            "Camera gain at its lowest",
            f"{at.socket} stands at its lowest gain, which on many cameras is off. Go one step up.",
        )
    return FindingWords(
        "Camera gain far up",
        f"{at.socket} stands {at.db:g} dB above its lowest gain. Its preamp is the worst of the chain: "
        f"send more from {at.sender} and turn the camera down.",
    )


@says
def pad_behind_converter(at: FindingPlace, *, pad_db: float, takes_dbu: float) -> FindingWords:
    return FindingWords(
        "Attenuator behind the converter",
        f"The {pad_db:g} dB attenuator of {at.socket} acts on the finished numbers. The input still takes only "
        f"{signed(takes_dbu)} dBu: what clips there stays clipped, only lower.",
    )


def _tracks(at: FindingPlace, buses: tuple[str, ...]) -> str:
    if len(buses) == 1:
        return at.placed.bus_label(buses[0])
    return f"{at.device} tracks {listed([at.placed.bus(bus).label for bus in buses])}"
