"""Cells of a table."""


def plain_cell(text: str) -> str:
    """A text that a table would take for a formula, with an apostrophe before it."""
    return f"'{text}" if text and text[0] in "=+-@\t\r" else text
