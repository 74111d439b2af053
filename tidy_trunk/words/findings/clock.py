"""Time: labels that mean the same, clocks that stay together, and something to sync by."""

from tidy_trunk.core.advice.checks.rules.clock import EarlySound, MissedLimit
from tidy_trunk.core.base.timecode import FrameRate, name_of
from tidy_trunk.core.plan import clock_words
from tidy_trunk.core.time.clock import MicrophoneReach
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.names import window_words
from tidy_trunk.words.numbers import listed, whole


@says
def timecode_on_wrong_track(at: FindingPlace, *, giver: str) -> FindingWords:
    label, role = at.placed.bus_label(at.bus), at.index.role_of(at.finding.device, at.bus)
    return FindingWords(
        f"{label} is timecode, not {role}",
        f"{label} takes the timecode of {at.label(giver)} as sound and is kept for {role}: whoever edits will listen to it, "
        "and its level is judged as a voice. Keep it for timecode.",
        "Keep it off headphones and speakers: it is loud and shrill.",
    )


@says
def beside_timecode(at: FindingPlace, *, timecode: str, bleed_db: float | None) -> FindingWords:
    """`timecode`: the track beside it, in the same socket; `bleed_db`: at which one is heard in the other, where measured."""
    title = f"{at.placed.bus_label(at.bus)} lies beside timecode"
    bleeds = f"Timecode on {at.placed.bus_label(timecode)} bleeds into {at.placed.place_label(at.bus)}, which shares its socket"
    if bleed_db is not None:
        return FindingWords(
            title, f"{bleeds}, measured at {whole(bleed_db)} dB: it is scratch at best. Keep the track for guide."
        )
    return FindingWords(
        title,
        f"{bleeds}: it is scratch at best. Measure the bleed, and keep the track for guide.",
        "Record ten seconds of silence beside the timecode, and measure the bleed.",
    )


@says
def timecode_rate(at: FindingPlace, *, rate: FrameRate, apart_s: float) -> FindingWords:
    """`apart_s`: how far labels of its rate and the job's part in an hour of real time."""
    wanted = FrameRate.parse(at.index.plan.defaults.frame_rate)
    if rate.ratio == wanted.ratio:
        how = f"the same frames bear other labels, and part by {apart_s:.1f} s in an hour"
    elif apart_s:
        how = f"in an hour they part by {apart_s:.1f} s"
    else:
        how = "their seconds agree, and their frames do not"
    return FindingWords(
        f"{at.device} counts at {name_of(rate)}",
        f"The job is at {name_of(wanted)}; {at.device} is set to {name_of(rate)}: {how}. "
        "Set every device to one rate and one drop-frame flag.",
    )


@says
def record_run(at: FindingPlace) -> FindingWords:
    return FindingWords(
        f"{at.device} is at record run",
        f"{at.device} counts only while it records: after the first pause its labels mean nothing to the others. "
        "Set it to free run and jam it again.",
    )


@says
def sound_into_timecode(at: FindingPlace, *, mode: str) -> FindingWords:
    """`mode`: that of the output which would give timecode, by name."""
    return FindingWords(
        "Sound into a timecode socket",
        f"{at.output} is set to {at.joint.sends.label}, and {at.socket} waits for timecode: switch it to {mode}.",
    )


@says
def missed_jam(at: FindingPlace, *, giver: str, missed: MissedLimit) -> FindingWords:
    return FindingWords(
        f"{at.device} is not jammed in time",
        _why_missed(at, at.label(giver), missed)
        + (
            f" That is the worst case, and it asks for a jam every {missed.every_min} min, which stops the work. Let a timecode "
            "generator stay on it, over a cable or as sound on a track, or measure how fast it really parts. What both hear puts "
            "its files right afterwards."
            if missed.every_min is not None
            else ""
        ),
        "Read a label from both at the same moment before you jam: it tells how fast they really part.",
    )


def _why_missed(at: FindingPlace, giver: str, missed: MissedLimit) -> str:
    free_run = missed.free_run
    if missed.unset_until_min is not None or free_run is None:
        return f"{at.device} has no time from {giver} until {clock_words(missed.unset_until_min or 0)}: the day has begun by then."
    begins = clock_words(free_run.begins_min)
    beyond = (
        f"beyond {at.index.plan.defaults.drift_limit_frames:g} frames from {clock_words(missed.beyond_min)} on, "
        f"{free_run.apart_frames:.2f} frames by {clock_words(free_run.ends_min)}."
    )
    if missed.against:
        against = at.label(missed.against)
        return f"Jammed from {giver} at {begins}, {at.device} may part from {against}, with which it has to agree: {beyond}"
    known = "was measured to part" if missed.is_measured else "may part"
    return f"Jammed at {begins}, {at.device} {known} from {giver} by {missed.ppm:g} ppm: {beyond}"


@says
def forgets_timecode(at: FindingPlace, *, lasts_h: float, day_h: float) -> FindingWords:
    return FindingWords(
        f"{at.device} forgets its time with its battery",
        f"Its battery lasts about {lasts_h:.1f} h of a day of {day_h:g} h, and it loses timecode when it is switched off: "
        "jam it again after every battery.",
    )


@says
def two_clocks(at: FindingPlace, *, first: str, taking: tuple[str, ...]) -> FindingWords:
    """`first`: the device that gives time to most; `taking`: those that take theirs from the other."""
    names = " and ".join(map(at.label, taking))
    return FindingWords(
        f"{at.device} and {at.label(first)} both give time",
        f"{names} gets time from {at.device}, the others from {at.label(first)}, and nothing sets those "
        "two together. One master: jam the other from it.",
    )


@says
def genlock_alone(at: FindingPlace, *, giver: str) -> FindingWords:
    return FindingWords(
        f"{at.device} has genlock and no timecode",
        f"The genlock of {at.label(giver)} keeps the frames of {at.device} in step; it does not number them. Jam it once: with genlock "
        "it then does not part.",
    )


@says
def nothing_to_sync_by(
    at: FindingPlace, *, by_ear: bool, reach: MicrophoneReach | None, others: tuple[str, ...]
) -> FindingWords:
    """`by_ear`: the camera's own microphone is all there is; `reach`: how far that hears, where it is known; `others`: recorders of
    which it hears no less."""
    camera, recorders = at.device, [at.label(device) for device in (at.finding.about, *others)]
    recorder = listed(recorders)
    if reach is not None:
        text = (
            f"{camera} hears what {recorder} {'record' if others else 'records'} by its own microphone alone: {at.source(reach.source)} stands out of the noise "
            f"up to about {reach.metres:.0f} m away, {reach.later_ms:.0f} ms late there. Stay within that, or send it a feed."
        )
    else:
        text = (
            f"{camera} gets no timecode that {recorder} has too, and hears nothing that it records: a clap is all they share. "
            "Send the camera a feed, let both have timecode, or turn its own microphone on."
        )
    return FindingWords(
        f"{listed([camera, *recorders])}: {'only its own microphone' if by_ear else 'nothing to sync by'}",
        text,
        "Clap at the start of each take, in shot and close to the microphones.",
    )


@says
def early_sound(at: FindingPlace, *, sender: str, how: EarlySound) -> FindingWords:
    early = "early" if how.early_ms > 0 else "late"
    fix = (
        "Hold the pictures back, or take a quicker way for the sound."
        if how.delay is None
        else f"Delay it between {at.label(sender)} and {at.device} by {float(how.delay.seconds * 1000):.0f} ms: "
        f"{float(how.delay.frame_count or 0):.1f} frames, {how.delay.sample_count} samples."
    )
    doubt = f" (±{how.within_ms:.0f}: typical figures, until a clap has measured them)" if how.within_ms else ""
    beyond = " and ".join(window_words(window, holds=False) for window in how.missed)
    return FindingWords(
        f"Sound is {early} at {at.device}",
        f"What {at.label(sender)} sends is {abs(how.early_ms):.0f} ms{doubt} {early} against the latest picture: {beyond}. {fix}",
        "Clap in shot, record the programme, and mark the frame in which the hands meet.",
    )


@says
def pictures_apart(at: FindingPlace, *, held: tuple[tuple[str, float], ...]) -> FindingWords:
    """`held`: each camera with the frames by which its picture has to be held back."""
    names = ", ".join(f"{at.label(camera)} by {frames:g} frames" for camera, frames in held)
    return FindingWords(
        f"Pictures are not equally late at {at.device}",
        f"No one delay of the sound fits all of them. Hold back {names}, or send the sound through the camera it belongs to.",
    )
