"""Sentences: what the core found and planned, said to a recordist. The core gives codes, places and numbers."""

from tidy_trunk.words.answers import title_of
from tidy_trunk.words.findings import SOURCE_WORDS, Said, said
from tidy_trunk.words.gain import why

__all__ = ["SOURCE_WORDS", "Said", "said", "title_of", "why"]
