"""Sentences: what the core found and planned, said to a recordist. The core gives codes, places and numbers."""

from tidy_trunk.words.answers import AnswerWords, OptionWords, answer_words, label_of, option_words
from tidy_trunk.words.compare import remark
from tidy_trunk.words.differences import difference_sentences
from tidy_trunk.words.edits import in_one, sentence, sentences
from tidy_trunk.words.findings import SOURCE_WORDS, FindingWords, headline, said
from tidy_trunk.words.gain import why
from tidy_trunk.words.levels import first_measurement, noise_words, safety_advice, safety_words, target_words
from tidy_trunk.words.messages import worded
from tidy_trunk.words.pads import pad_advice
from tidy_trunk.words.recording import heard
from tidy_trunk.words.walk import WalkWords, walk_words
from tidy_trunk.words.wiring import FAULT_WORDS

__all__ = [
    "FAULT_WORDS",
    "SOURCE_WORDS",
    "AnswerWords",
    "FindingWords",
    "OptionWords",
    "WalkWords",
    "answer_words",
    "difference_sentences",
    "first_measurement",
    "headline",
    "heard",
    "in_one",
    "label_of",
    "noise_words",
    "option_words",
    "pad_advice",
    "remark",
    "safety_advice",
    "safety_words",
    "said",
    "sentence",
    "sentences",
    "target_words",
    "walk_words",
    "why",
    "worded",
]
