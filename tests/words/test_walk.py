"""The demo's checklist as it is read: the one place where its sentences are held."""

from pathlib import Path

from tidy_trunk.app.demo import foundry
from tidy_trunk.core.advice.walk import walk_items
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.words import walk_words

READ = Path(__file__).with_suffix(".txt")


def test_the_checklist_of_the_foundry():
    report = Report(trace_plan(foundry()))
    lines = [" | ".join(walk_words(item, report.index)) for item in walk_items(report)]
    assert lines == READ.read_text().splitlines()
