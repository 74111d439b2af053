"""Writes docs/rules.md from the rules and from the examples of their tests; with --check only says whether it is up to date."""

import sys
from collections.abc import Iterator
from pathlib import Path

from tests.core.advice.checks.case import Case
from tests.core.advice.checks.test_rules import CASES, found
from tidy_trunk.core.advice.checks import LOOKS_AT, RULES, STATIONS, Severity
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.words import SOURCE_WORDS, difference_sentences, said

TARGET = Path(__file__).resolve().parent.parent / "docs" / "rules.md"

SEVERITIES = {Severity.STOP: "Won't work", Severity.CAUTION: "Check", Severity.NOTE: "Note"}
PAGES = {"runs": "Connections", "levels": "Levels", "clock": "Timecode"}
HEAD = """# The rules

Every finding comes from one of these. Each has an example that breaks it, as the program tells it, and what its nearest
neighbour that does not break it has otherwise. This page is made by `scripts/make_rules_page.py` from the rules and from the
examples of their tests (`tests/core/advice/checks`).
"""


def page() -> str:
    by_page = {name: [rule for rule in sorted(RULES) if STATIONS[rule] == name] for name in PAGES}
    parts = [HEAD]
    for name, rules in by_page.items():
        parts.append(f"## {PAGES[name]}\n")
        parts += [part for rule in rules for part in _rule(rule)]
    return "\n".join(parts)


def _rule(rule: str) -> Iterator[str]:
    cases = [case for case in CASES if case.rule == rule]
    first = found(cases[0].bad, rule)[0]
    graver = [severity for severity in Severity if severity in {case.severity for case in cases}]
    looks_at = ", ".join(
        aspect.name.lower() for aspect in type(LOOKS_AT[rule]) if aspect in LOOKS_AT[rule] and aspect.name
    )
    yield f"### `{rule}`\n"
    yield f"{' or '.join(SEVERITIES[severity] for severity in graver)}. Looks at: {looks_at}. Source: {SOURCE_WORDS[first.source]}.\n"
    for case in cases:
        yield from _example(case)


def _example(case: Case) -> Iterator[str]:
    words = said(found(case.bad, case.rule)[0], PlanIndex(case.bad))
    other = "; ".join(difference_sentences(case.bad, case.good)) or "nothing that a sentence tells"
    yield f"- *{words.title}.* {words.text}\n  Not so: {other}.\n"


def main() -> int:
    if "--check" not in sys.argv[1:]:
        TARGET.write_text(page())
        return 0
    if not TARGET.exists() or TARGET.read_text() != page():
        print("docs/rules.md is out of date: run scripts/make_rules_page.py", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
