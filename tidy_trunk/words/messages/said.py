"""The register of what is said of each message."""

from collections.abc import Callable
from typing import Final

from tidy_trunk.core.plan import Message

MessageSayer = Callable[..., str]
"""Says a message: it takes the plan's index and, as keyword arguments, the message's facts. [PRACTICE] of software"""

SAYERS: Final[dict[str, MessageSayer]] = {}
"""By code, what says a message. [PRACTICE] of software"""


def says(function: MessageSayer) -> MessageSayer:
    """Register what says messages of a code, which is its name with hyphens."""
    SAYERS[function.__name__.replace("_", "-")] = function
    return function


def worded(message: Message) -> str:
    """A message in words."""
    return SAYERS[message.code](message.index, **message.facts)
