"""What comes back when: by hand, from the table of days."""

from datetime import UTC, datetime, timedelta

from tidy_trunk.core.drill import PlayedFault, due_kind, progress

NOON = datetime(2026, 11, 29, 12, tzinfo=UTC)


def played(kind, score, days):
    return PlayedFault(kind, score, NOON + timedelta(days=days))


def test_what_was_missed_is_due_at_once_and_what_was_found_comes_back_later_and_later():
    one = [played("loose", 80, 0)]
    assert due_kind(one, NOON) == "" and due_kind(one, NOON + timedelta(days=1)) == "loose"
    two = [*one, played("loose", 90, 1)]
    assert due_kind(two, NOON + timedelta(days=3)) == "" and due_kind(two, NOON + timedelta(days=4)) == "loose"
    slow = [*two, played("loose", 40, 4)]
    assert due_kind(slow, NOON + timedelta(days=4)) == "loose", "slow counts as missed"
    (known,) = progress(slow)
    assert (known.found, known.played) == (0, 3)


def test_the_longest_overdue_comes_first():
    found = [played("loose", 80, 0), played("phantom", 0, 0), played("mode", 75, -5)]
    assert [one.kind for one in progress(found)] == ["mode", "phantom", "loose"]
    assert due_kind([], NOON) == ""
