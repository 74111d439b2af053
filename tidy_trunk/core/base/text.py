"""Names as people write them, and nothing that a screen obeys instead of showing it."""

from typing import Final

JOINERS: Final = "\u200c\u200d"
"""Zero-width joiner and non-joiner: Persian and Indian words and many pictures are not whole without. [UNICODE]"""


def is_plain(text: str) -> bool:
    """Whether a text is free of control characters and of those that turn the direction of writing."""
    return all(character.isprintable() or character in JOINERS for character in text)


def shown(text: str) -> str:
    """A text for a terminal, with a mark in place of what that would obey; new lines stay."""
    return "".join(character if character in "\n\t" or is_plain(character) else "�" for character in text)


def spelled(slug: str) -> str:
    """The words of a slug, as somebody types them: `live switcher`."""
    return slug.replace("-", " ")
