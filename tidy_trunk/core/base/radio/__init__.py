"""Frequencies of radio microphones: what falls on whom."""

from tidy_trunk.core.base.radio.intermodulation import (
    CHANNEL_MHZ,
    GUARD_MHZ,
    Product,
    free_mhz,
    products,
)

__all__ = ["CHANNEL_MHZ", "GUARD_MHZ", "Product", "free_mhz", "products"]
