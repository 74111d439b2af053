"""What is heard and recorded at all."""

from tidy_trunk.core.gear.catalogue import usual_distance_m
from tidy_trunk.core.plan import ROOMS
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says
from tidy_trunk.words.numbers import plain


@says
def too_far(at: FindingPlace, *, distance_m: float, critical_m: float) -> FindingWords:
    room = ROOMS[at.index.plan.defaults.room].label
    return FindingWords(
        f"{at.device} hears the room",
        f"{at.device} is {distance_m:g} m from {at.source(at.finding.about)}; in a {room} it hears as much room as voice from "
        f"{critical_m:.1f} m on. Go nearer, or take a lavalier: no gain and no equaliser takes a room away.",
        "Listen to the end of a word: does it stop, or does the room go on?",
    )


@says
def source_without_track(at: FindingPlace, *, ends: tuple[str, ...]) -> FindingWords:
    """`ends`: where its sound goes no further, on the way to what records."""
    source = at.index.plan.sources[at.finding.track.removeprefix("source.")]
    names, far = (" and ".join(map(at.label, devices)) for devices in (source.heard_by, ends))
    several = len(source.heard_by) > 1
    if not names:
        text = "No microphone is at it: say which one hears it, and from how far."
    elif ends:
        text = f"{names} {'hear' if several else 'hears'} it, and nothing leads on from {far}: connect {far} to what records."
    else:
        text = f"{names} {'hear it but reach' if several else 'hears it but reaches'} no recorded track: connect "
        text += f"{'them, or route their inputs' if several else 'it, or route its input'} to a track."
    return FindingWords(f"{source.label} is on no track", text)


def _usual_m(at: FindingPlace, device: str) -> str:
    return plain(usual_distance_m(at.index.placed(device).device_class))


@says
def track_without_source(at: FindingPlace, *, begins: tuple[str, ...]) -> FindingWords:
    """`begins`: devices at which the track begins, and which bring nothing."""
    if not at.finding.tracks:
        return FindingWords(
            f"{at.device} records nothing",
            f"Nothing is plugged into {at.device}. Connect it, or take it off the job."
            if at.placed.device_class.built_in_out is None
            else f"Nothing is plugged into {at.device}, and its own microphones hear no source. Connect it, say what it hears "
            f"(voice at {at.device.lower()}, {_usual_m(at, at.finding.device)} m), or take it off the job.",
        )
    microphones = [name for name in begins if at.index.placed(name).device_class.capsule is not None]
    names = " and ".join(map(at.label, microphones or begins))
    return FindingWords(
        "Nothing to hear on this track",
        f"{at.placed.bus_label(at.bus)} has a plug at its input, but no source comes through it. "
        + (
            f"Say what {names} {'hear' if len(microphones) > 1 else 'hears'}, such as anna at {at.label(microphones[0]).lower()}, {_usual_m(at, microphones[0])} m."
            if microphones
            else f"{names} {'get' if len(begins) > 1 else 'gets'} no sound yet: connect what should come through it."
        ),
    )
