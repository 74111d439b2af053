"""What samples hold."""

from tidy_trunk.core.signal.speech import CLIPPED_RUN, Heard, hear

__all__ = ["CLIPPED_RUN", "Heard", "hear"]
