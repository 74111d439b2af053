"""The log: slates of both schools, and entries that say the same in whichever order they arrive."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tidy_trunk.core.log import (
    NOTES,
    Act,
    LogEntry,
    LogTrouble,
    TakeStatus,
    log_findings,
    next_slate,
    next_takes,
    note_words,
    read_log,
    scene_of,
)
from tidy_trunk.core.plan import Slating

NOON = datetime(2026, 11, 28, 12, tzinfo=UTC)


def entry(order, act, seconds, **more):
    return LogEntry(id=f"{order:08}", made=NOON + timedelta(seconds=seconds), act=act, **more)


def take(number, slate, count, since, until=None, **more):
    rolled = entry(number, Act.ROLL, since, take=f"t{number}", slate=slate, number=count, **more)
    return [rolled] if until is None else [rolled, entry(number + 1000, Act.CUT, until, take=f"t{number}")]


@pytest.mark.parametrize(
    ("slate", "slating", "following"),
    [
        ("12", Slating.SCENE, "12A"),
        ("12C", Slating.SCENE, "12D"),
        ("12H", Slating.SCENE, "12J"),  # I and O are left out: common practice, as they are read as 1 and 0
        ("12N", Slating.SCENE, "12P"),
        ("12Z", Slating.SCENE, "12AA"),
        ("12AZ", Slating.SCENE, "12BA"),
        ("R7b", Slating.SCENE, "R7C"),
        ("231", Slating.NUMBERS, "232"),
        ("099", Slating.NUMBERS, "100"),
        ("pickup", Slating.SCENE, "pickup"),
    ],
)
def test_the_slate_of_the_next_set_up(slate, slating, following):
    assert next_slate(slate, slating) == following


@pytest.mark.parametrize(
    ("slate", "slating", "scene"),
    [
        ("12C", Slating.SCENE, "12"),
        ("R7b", Slating.SCENE, "R7"),
        ("231", Slating.NUMBERS, "231"),
        ("pickup", Slating.SCENE, "pickup"),
    ],
)
def test_the_scene_of_a_slate(slate, slating, scene):
    assert scene_of(slate, slating) == scene


def test_a_part_that_is_read_again_keeps_its_place():
    def mark(number, text, level_dbfs, act=Act.MARK):
        return entry(number, act, number, slate="12", text=text, track="bag.1", level_dbfs=level_dbfs)

    entries = [
        mark(1, "door", -30),
        mark(2, "window", -12),
        mark(3, "Door", -26),
        mark(4, "roof", -9),
        mark(5, "roof", 0, Act.UNMARK),
    ]
    log = read_log(entries)
    assert [(item.part, item.peak_dbfs) for item in log.marks] == [("Door", -26), ("window", -12)]
    assert read_log(entries[::-1]).marks == log.marks


def test_takes_and_what_was_said_of_them():
    log = read_log(
        [
            *take(1, "12C", 1, 0, 82),
            entry(2, Act.NOTE, 40, take="t1", text="plane", track="bag.1", who="Ann"),
            entry(3, Act.STATUS, 90, take="t1", status=TakeStatus.CIRCLED),
            *take(4, "12C", 2, 200),
        ]
    )
    first, second = log.takes
    assert (first.label, first.seconds, first.status) == ("12C-1", 82, TakeStatus.CIRCLED)
    assert [(note.text, note.track, note.who) for note in first.notes] == [("plane", "bag.1", "Ann")]
    assert log.running is second and second.seconds is None
    assert [(item.slate, item.number) for item in next_takes(log, Slating.SCENE, "1A")] == [("12C", 3), ("12D", 1)]


def test_numbers_by_numbers_and_after_wild_tracks():
    log = read_log([*take(1, "231", 1, 0, 5), *take(2, "231", 2, 10, 15), *take(3, "W1", 1, 20, 25)])
    log = read_log([*_entries(log), entry(9, Act.STATUS, 26, take="t3", status=TakeStatus.WILD)])
    assert [(item.slate, item.number) for item in next_takes(log, Slating.NUMBERS, "1")] == [("231", 3), ("232", 1)]
    assert [item.slate for item in next_takes(read_log([]), Slating.NUMBERS, "1")] == ["1", "2"]


def _entries(log):
    return [
        line
        for one in log.takes
        for line in take(int(one.id[1:]), one.slate, one.number, (one.begins - NOON).seconds, (one.ends - NOON).seconds)
    ]


def test_a_correction_keeps_what_stood_there():
    fixed = entry(
        5, Act.CORRECT, 60, take="t1", slate="12D", number=7, ends=(NOON + timedelta(seconds=50)).isoformat(), who="Bo"
    )
    (one,) = read_log([*take(1, "12C", 1, 0, 40), fixed]).takes
    assert (one.label, one.seconds) == ("12D-7", 50)
    assert [(item.what, item.was, item.who) for item in one.corrections][:2] == [
        ("slate", "12C", "Bo"),
        ("number", "1", "Bo"),
    ]
    assert one.corrections[2].was.startswith("2026-11-28T12:00:40")
    early = entry(6, Act.CORRECT, 70, take="t1", ends=(NOON - timedelta(hours=1)).isoformat())
    assert read_log([*take(1, "12C", 1, 0, 40), early]).takes[0].seconds == 0  # no take ends before it begins


def test_a_take_that_was_struck_can_be_read_and_brought_back():
    struck = [*take(1, "12C", 1, 0, 40), entry(2, Act.STRIKE, 50, take="t1")]
    log = read_log(struck)
    assert log.takes[0].struck and log.counted == () and log.running is None
    assert not read_log([*struck, entry(3, Act.STRIKE, 60, take="t1", text="back")]).takes[0].struck


@pytest.mark.parametrize(
    ("entries", "what"),
    [
        ([*take(1, "1A", 1, 0, 60), *take(2, "1A", 2, 30, 90)], LogTrouble.TWO_AT_ONCE),
        ([*take(1, "1A", 1, 0, 20), *take(2, "1a", 1, 30, 90)], LogTrouble.SAME_NAME),
        ([*take(1, "1A", 1, 0), *take(2, "1A", 2, 30, 90)], LogTrouble.NO_END),
        ([*take(1, "1A", 1, 0, 20), *take(2, "1A", 4, 30, 90)], LogTrouble.NUMBER_LEFT_OUT),
    ],
)
def test_what_cannot_be_right_is_found(entries, what):
    assert [finding.what for finding in log_findings(read_log(entries))] == [what]
    assert log_findings(read_log([*take(1, "1A", 1, 0, 20), *take(2, "1A", 2, 30, 90)])) == ()


ACTS = st.lists(
    st.tuples(st.sampled_from([Act.CUT, Act.STATUS, Act.NOTE, Act.CORRECT, Act.STRIKE]), st.integers(0, 2), st.integers(0, 500), st.sampled_from(list(TakeStatus))),
    max_size=12,
)  # fmt: skip


@given(ACTS, st.randoms())
def test_entries_say_the_same_in_whichever_order_they_arrive(acts, order):
    entries = [line for number in range(3) for line in take(number, "1A", number + 1, number * 200)]
    entries += [
        entry(100 + number, act, seconds, take=f"t{which}", status=status, text=f"n{number}", slate=f"{number}B")
        for number, (act, which, seconds, status) in enumerate(acts)
    ]
    shuffled = list(entries)
    order.shuffle(shuffled)
    assert read_log(shuffled) == read_log(entries)
    assert read_log([*entries, *[one for one in entries if one.act is Act.ROLL]]).takes == read_log(entries).takes


def test_notes_of_ones_own_become_taps():
    """The most frequent first; what is no longer than a button, and none twice."""
    notes = ["horse", "bell", "bell", "Plane", "a story that goes on and on and on"]
    log = read_log(
        [
            *take(1, "1A", 1, 0, 60),
            *(entry(10 + n, Act.NOTE, 5 + n, take="t1", text=text) for n, text in enumerate(notes)),
        ]
    )
    assert note_words(log) == (*NOTES, "bell", "horse")
