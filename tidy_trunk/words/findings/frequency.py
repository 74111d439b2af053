"""Radio frequencies."""

from tidy_trunk.core.base.radio import CHANNEL_MHZ, Product
from tidy_trunk.words.findings.said import FindingPlace, FindingWords, says


@says
def frequency_mismatch(at: FindingPlace, *, sends_mhz: float, takes_mhz: float) -> FindingWords:
    return FindingWords(
        "Not on one frequency",
        f"{at.sender} sends on {sends_mhz:.3f} MHz, {at.receiver} listens on {takes_mhz:.3f} MHz: it hears nothing, or somebody else.",
    )


@says
def frequency_twice(at: FindingPlace, *, first_mhz: float, second_mhz: float) -> FindingWords:
    return FindingWords(
        "Two transmitters on one channel",
        f"{at.label(at.finding.about)} ({first_mhz:.3f} MHz) and {at.device} ({second_mhz:.3f} MHz) are less than "
        f"{CHANNEL_MHZ * 1000:g} kHz apart: the receivers howl or swap voices.",
    )


@says
def intermodulation(at: FindingPlace, *, mhz: float, products: tuple[Product, ...]) -> FindingWords:
    """`products`: those nearest to it, by the ids of the transmitters that make them."""
    return FindingWords(
        f"Intermodulation on {at.device}",
        f"On {at.device} ({mhz:.3f} MHz): {'; '.join(_product(at, product) for product in products)}. With the transmitters near each "
        "other the receiver hears that too: whistles, or a squelch that stays open.",
        "All transmitters on, this one off: its receiver must stay quiet.",
    )


def _product(at: FindingPlace, product: Product) -> str:
    first, second, third = (at.label(device) for device in product[:3])
    sum_ = f"twice {first}" if first == second else f"{first} plus {second}"
    return f"{sum_} less {third} is {product.mhz:.3f} MHz, {product.distance_mhz * 1000:.0f} kHz off"


@says
def frequency_legal(at: FindingPlace, *, carriers: tuple[tuple[str, float], ...], unset: int) -> FindingWords:
    """`carriers`: transmitters with the frequency in MHz that each is set to; `unset`: how many are set to none."""
    named = ", ".join(f"{at.label(device)} {mhz:.3f} MHz" for device, mhz in carriers)
    missing = f" {unset} transmitter{'s have' if unset > 1 else ' has'} no frequency here yet." if unset else ""
    return FindingWords(
        "Is it legal to send there?",
        f"Radio microphones need a frequency that is legal where you stand{': ' + named if named else ''}.{missing} Ask the "
        "regulator or the frequency coordinator of the place, then tick it here.",
    )
