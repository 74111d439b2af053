"""A way to match a cable: what it is, what it needs and takes away, what may go wrong, and how its result fits."""

from tidy_trunk.core.gear.catalogue import built_in
from tidy_trunk.core.plan import PlanIndex, PortRef
from tidy_trunk.words.messages.moves import socket_words
from tidy_trunk.words.messages.said import says
from tidy_trunk.words.numbers import beside_target, plain


@says
def as_it_is(at: PlanIndex) -> str:
    return "As it is now"


@says
def as_it_is_set(at: PlanIndex, automatic_level_off: bool) -> str:
    return "as it is set now" + (", automatic level off" if automatic_level_off else "")


@says
def only_gain(at: PlanIndex, device: str) -> str:
    return f"Only set {at.placed(device).label}'s gain"


@says
def use_attenuator(at: PlanIndex, lead: str, loss_db: float) -> str:
    own = at.plan.leads.get(lead)
    return f"Use the {loss_db:g} dB attenuator" if own is None else f"Use your own cable {own.label}"


@says
def trim(at: PlanIndex, socket: PortRef, to_db: float) -> str:
    return f"Turn {socket_words(at, socket)} to {plain(to_db)} dB"


@says
def use_headphone_output(at: PlanIndex, device: str, at_db: float) -> str:
    return f"Use {at.placed(device).label}'s headphone output at {plain(at_db)} dB"


@says
def attenuator_on(at: PlanIndex, device: str) -> str:
    return f"Switch on {at.placed(device).label}'s attenuator"


@says
def use_aes3(at: PlanIndex, device: str) -> str:
    return f"Use AES3 from {at.placed(device).label}"


@says
def via(at: PlanIndex, device: str) -> str:
    return f"Via {at.placed(device).label}"


@says
def via_new(at: PlanIndex, class_id: str) -> str:
    return f"Via a {_class(class_id)}"


@says
def one_cable(at: PlanIndex, lead: str) -> str:
    return f"1 {(at.plan.leads.get(lead) or built_in().leads[lead]).label}"


@says
def one_device(at: PlanIndex, class_id: str) -> str:
    return f"1 {_class(class_id)}"


@says
def aes3_cable(at: PlanIndex) -> str:
    return "110 Ω cable"


@says
def listening(at: PlanIndex) -> str:
    return "listening there"


@says
def output_in_use(at: PlanIndex, output: PortRef) -> str:
    placed = at.placed(output.device)
    return f"{placed.port(output.port).label} of {placed.label}"


@says
def looks_like_plain(at: PlanIndex) -> str:
    return "looks like a plain cable: label it"


@says
def turned_up_clips(at: PlanIndex, device: str) -> str:
    return f"turned up again, it clips {at.placed(device).label}"


@says
def hiss_stays(at: PlanIndex) -> str:
    return "its own hiss does not go down with it"


@says
def volume_turns_recording(at: PlanIndex) -> str:
    return "turning the volume changes the recording"


@says
def attenuator_too_late(at: PlanIndex) -> str:
    return "it comes after the stage that clips: it prevents nothing"


@says
def level_fixed(at: PlanIndex) -> str:
    return "level is fixed at the sender"


@says
def one_more_device(at: PlanIndex) -> str:
    return "one more device to power, carry and switch on"


@says
def sender_too_hot(at: PlanIndex, by_db: float) -> str:
    return f"the sender's full scale is {by_db:.0f} dB above what the input takes"


@says
def sender_just_fits(at: PlanIndex, margin_db: float, doubt_db: float) -> str:
    return f"the sender's full scale is only {max(margin_db, 0.0):.0f} dB below what the input takes, ±{doubt_db:.0f}"


@says
def no_voice_no_full_scale(at: PlanIndex) -> str:
    return "no source yet, and one end states no full scale"


@says
def full_scale_clips(at: PlanIndex, by_db: float) -> str:
    return f"at full scale it clips by {by_db:.0f} dB"


@says
def full_scale_fits(at: PlanIndex, margin_db: float) -> str:
    return f"fits at full scale with {margin_db:.0f} dB to spare; no source yet"


@says
def still_clips(at: PlanIndex, by_db: float) -> str:
    return f"still clips by {by_db:.1f} dB"


@says
def misses_target(at: PlanIndex, miss_db: float) -> str:
    return beside_target(miss_db)


@says
def fits_but_bursts_clip(at: PlanIndex, by_db: float) -> str:
    return f"fits, but a full-scale burst would clip by {by_db:.0f} dB"


@says
def fits(at: PlanIndex, below_room_db: float, is_inaudible: bool) -> str:
    if is_inaudible:
        return f"fits; hiss {below_room_db:.0f} dB below the room noise, inaudible"
    return "fits; hiss is audible over the room noise"


def _class(class_id: str) -> str:
    """A class of the catalogue, within a sentence."""
    label = built_in().devices[class_id].label
    return f"{label[0].lower()}{label[1:]}"
