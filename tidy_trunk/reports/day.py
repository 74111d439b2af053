"""The plan of a day as text, table, calendar and a sheet of paper."""

import csv
import io
from datetime import date, datetime

from tidy_trunk.exports import Entry, plain_cell, write_calendar
from tidy_trunk.exports.paper import Column, Sheet
from tidy_trunk.results.day import DayOut, DayTaskOut
from tidy_trunk.words.day import at


def day_text(name: str, day: DayOut) -> str:
    """As the command line prints it: problems first, then what is done and what is shot, by the clock."""
    lines = [f"{name}. {day.summary}"]
    lines += [day.held] if day.held else []
    lines += [f"problem: {item.title}. {item.text}" for item in day.unkept]
    for at_min, line in _by_the_clock(day):
        lines.append(f"{at(at_min)}  {line}")
    return "\n".join(lines)


def _by_the_clock(day: DayOut) -> list[tuple[float, str]]:
    found = [(task.at_min, f"{_whose(task)}{task.what}{_by(task)}") for task in day.tasks]
    found += [(item.at_min, f"── {item.label}: {item.takes} × {item.take_min:g} min") for item in day.set_ups]
    found += [(item.at_min, f"── {item.label}, {item.length_min:g} min") for item in day.breaks]
    found += [(item.at_min, f"── move to {item.label}, {item.length_min:g} min") for item in day.moves]
    return sorted(found)


def _whose(task: DayTaskOut) -> str:
    return f"{task.who}: " if task.who else ""


def _by(task: DayTaskOut) -> str:
    held = f"; holds the set for {task.held_min:.0f} min" if task.held_min > 0.5 else ""
    return f" (by {task.by}{held})" if task.by else held


def day_csv(day: DayOut) -> bytes:
    """A line for each thing to do. UTF-8."""
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(["at", "by", "minutes", "who", "what", "where", "kind", "device", "during", "holds_min", "why"])
    for task in day.tasks:
        row = [task.at, task.by, f"{task.minutes:g}", task.who, task.what, task.place or "cart", task.kind, task.device]
        out.writerow([plain_cell(str(cell)) for cell in [*row, task.during, f"{task.held_min:g}", task.why]])
    return box.getvalue().encode()


def day_calendar(name: str, day: DayOut, on: date, made: datetime) -> bytes:
    """Set-ups, breaks, moves and everything to do, as iCalendar. `on`: the day where the plan names none."""
    entries = [
        Entry(
            id=f"task-{number}",
            title=f"{_whose(task)}{task.what}",
            text=task.why,
            at_min=task.at_min,
            length_min=task.minutes,
        )
        for number, task in enumerate(day.tasks, start=1)
    ]
    for kind, items in (("set-up", day.set_ups), ("break", day.breaks), ("move", day.moves)):
        for item in items:
            title = {"set-up": f"Set-up {item.label}", "break": item.label, "move": f"Move to {item.label}"}[kind]
            entries.append(
                Entry(id=f"{kind}-{item.id}", title=title, text="", at_min=item.at_min, length_min=item.length_min)
            )
    entries.sort(key=lambda entry: (entry.at_min, entry.id))
    return write_calendar(name, date.fromisoformat(day.date) if day.date else on, day.zone, entries, made)


def day_sheet(name: str, day: DayOut, *, paper: str, made: datetime) -> bytes:
    """One sheet for the sound cart: problems, then what is done when, then the set-ups. PDF."""
    sheet = Sheet(f"{name}: the day", day.summary, paper=paper, made=made)
    sheet.facts(
        [
            ("Date", day.date),
            ("Call, wrap", f"{at(day.call_min)} to {at(day.wrap_min)}"),
            ("Time zone", day.zone),
            ("Sound crew", day.crew or str(day.hands)),
        ]
    )
    if day.held:
        sheet.text(day.held)
    if day.unkept:
        sheet.heading("Problems")
        for item in day.unkept:
            sheet.text(f"{at(item.at_min)}  {item.title}. {item.text}")
    sheet.heading("What to do")
    sheet.table(
        [Column("done", 0.6), Column("at", 0.8), Column("by", 0.8), Column("what", 3.6), Column("why", 4.6)],
        [
            ["[  ]", task.at, task.by, _whose(task) + task.what + (f" ({task.place})" if task.place else ""), task.why]
            for task in day.tasks
        ],
        bold=[task.held_min > 0 or task.during == "between" for task in day.tasks],
    )
    sheet.heading("Set-ups")
    spans = [
        (item.at_min, item.label, f"{item.takes} × {item.take_min:g} min", item.length_min) for item in day.set_ups
    ]
    spans += [(item.at_min, item.label, "break", item.length_min) for item in day.breaks]
    spans += [(item.at_min, f"Move to {item.label}", "company move", item.length_min) for item in day.moves]
    sheet.table(
        [Column("from", 0.8), Column("to", 0.8), Column("what", 3), Column("takes", 3)],
        [[at(begins), at(begins + length), label, takes] for begins, label, takes, length in sorted(spans)],
    )
    sheet.text(
        "Lithium batteries: never charge a damaged one. Radio frequencies, mains and cables on the floor: the local rules count.",
        soft=True,
    )
    return sheet.bytes()
