"""Figures behind a level that are uncertain, and how each is settled; what spoils a line-up, and what turns for it."""

from collections.abc import Sequence

from tidy_trunk.core.plan import Part, PlanIndex
from tidy_trunk.words.messages.said import says
from tidy_trunk.words.numbers import marked, plain, signed


@says
def reading_of(at: PlanIndex, place: str) -> str:
    return f"line-up of {place}"


@says
def line_up_again(at: PlanIndex, place: str) -> str:
    return f"line up {place} again"


@says
def loudness_of(at: PlanIndex, source: str) -> str:
    return f"how loud {at.plan.sources[source].label} is"


@says
def read_meter_of_voice(at: PlanIndex, source: str) -> str:
    return f"let {at.plan.sources[source].label} speak, and read the meter"


@says
def sensitivity_of(at: PlanIndex, device: str) -> str:
    return f"sensitivity of {at.placed(device).label}"


@says
def compare_with_known(at: PlanIndex, device: str) -> str:
    return f"compare {at.placed(device).label} with a microphone that is known"


@says
def full_scale_of(at: PlanIndex, place: str) -> str:
    return f"full scale of {place}"


@says
def measure_output(at: PlanIndex, device: str) -> str:
    return f"send 1 kHz from {at.placed(device).label} and measure its output"


@says
def line_up_into(at: PlanIndex, device: str) -> str:
    return f"line up at 1 kHz into {at.placed(device).label}"


@says
def loss_of(at: PlanIndex, part: Part) -> str:
    return f"loss of {at.lead_of(part).label}"


@says
def line_up_through(at: PlanIndex, run: str) -> str:
    return f"line up at 1 kHz through cable {at.plan.runs[run].number}"


@says
def look_at_microphone_input(at: PlanIndex) -> str:
    return (
        "automatic level off, the camera one step above its lowest gain, the right cable or attenuator, then the "
        "sender's output"
    )


@says
def look_at_line_input(at: PlanIndex) -> str:
    return "automatic level off, both ends at line, the right cable, then the level of the track itself"


@says
def automatic_level_is_on(at: PlanIndex) -> str:
    return "Automatic level is on: switch it off first. Until then the reading means nothing."


@says
def tone_by_keys(at: PlanIndex, device: str) -> str:
    return f"{at.placed(device).label} gives its tone while its keys are held; it need not record for that."


@says
def tone_while_recording(at: PlanIndex, device: str) -> str:
    return (
        f"{at.placed(device).label} gives its tone only while it records, and locks its levels meanwhile: record, read, stop, "
        "change, record again."
    )


@says
def tone_clips(at: PlanIndex, where: str, by_db: float) -> str:
    return f"The tone clips in {where} by {by_db:.1f} dB: match the levels first."


@says
def voice_clips(at: PlanIndex, where: str, by_db: float) -> str:
    return f"It clips in {where} by {by_db:.1f} dB: turn it down first."


@says
def turn_knobs(at: PlanIndex, turns: Sequence[tuple[str, float, float]]) -> str:
    """Each knob by its name, from where to where, in order."""
    return ", then ".join(f"{knob}: {marked(was)} to {marked(now)} dB" for knob, was, now in turns)


@says
def pad_for_full_scale(
    at: PlanIndex, sender: str, sends_dbu: float, receiver: str, takes_dbu: float, doubt_db: float
) -> str:
    return (
        f"{at.placed(sender).label} sends {signed(sends_dbu)} dBu at full scale, {at.placed(receiver).label} clips at "
        f"{signed(takes_dbu)} dBu; uncertainty ±{doubt_db:.0f} dB"
    )


@says
def pad_usual(at: PlanIndex, usual_db: float) -> str:
    return f"the sender's full scale is not known: {plain(usual_db)} dB is usual from line to mic level"
