"""Sentences: what the core found and planned, said to a recordist. The core gives codes, places and numbers."""

from tidy_trunk.words.answers import AnswerWords, WayWords, answer_words, label_of, way_words
from tidy_trunk.words.compare import remark
from tidy_trunk.words.differences import difference_sentences
from tidy_trunk.words.edits import in_one, sentence, sentences
from tidy_trunk.words.findings import SOURCE_WORDS, Said, headline, said
from tidy_trunk.words.gain import why
from tidy_trunk.words.messages import worded
from tidy_trunk.words.recording import heard
from tidy_trunk.words.walk import WalkWords, walk_words

__all__ = [
    "SOURCE_WORDS",
    "AnswerWords",
    "Said",
    "WalkWords",
    "WayWords",
    "answer_words",
    "difference_sentences",
    "headline",
    "heard",
    "in_one",
    "label_of",
    "remark",
    "said",
    "sentence",
    "sentences",
    "walk_words",
    "way_words",
    "why",
    "worded",
]
