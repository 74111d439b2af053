"""Sentences: what the core found and planned, said to a recordist. The core gives codes, places and numbers."""

from tidy_trunk.words.answers import title_of
from tidy_trunk.words.compare import remark
from tidy_trunk.words.findings import SOURCE_WORDS, Said, headline, said
from tidy_trunk.words.gain import why
from tidy_trunk.words.recording import heard
from tidy_trunk.words.walk import WalkWords, walk_words

__all__ = ["SOURCE_WORDS", "Said", "WalkWords", "headline", "heard", "remark", "said", "title_of", "walk_words", "why"]
