"""The sound report that editorial gets: as paper, table and text."""

import csv
import io
from datetime import datetime

from tidy_trunk.core.log import TakeStatus
from tidy_trunk.exports import plain_cell
from tidy_trunk.exports.paper import Column, Sheet
from tidy_trunk.results.log import LoggedTakeOut, LogOut
from tidy_trunk.words.log import STATUS_WORDS

LEGEND = "Circled takes are bold. False starts and struck takes stay in the list, so that every number can be found."
"""At the head of each report. [PRACTICE]"""


def report_csv(log: LogOut) -> bytes:
    """A line for each take. UTF-8."""
    box = io.StringIO()
    out = csv.writer(box)
    out.writerow(
        [
            "take",
            "slate",
            "number",
            "start_timecode",
            "end_timecode",
            "length_s",
            "status",
            "notes",
            "struck",
            "revision",
        ]
    )
    for take in log.takes:
        length = "" if take.seconds is None else f"{take.seconds:.3f}"
        row = [take.label, take.slate, str(take.number), take.timecode, take.end_timecode, length, take.status_words]
        out.writerow(
            [plain_cell(cell) for cell in [*row, _notes(take), "yes" if take.struck else "", str(take.revision)]]
        )
    return box.getvalue().encode()


def report_text(log: LogOut) -> str:
    """As a mail holds it."""
    lines = [f"Sound report: {log.job}, {log.day}", f"{log.rate} fps, {_khz(log)}. {log.summary}.", ""]
    for track in log.tracks:
        lines.append(
            f"{track.device} {track.track}: {', '.join(track.sources) or 'nobody'}{track.edit and f' ({track.edit})'}"
        )
    lines.append("")
    for take in log.takes:
        parts = [take.timecode, take.length, take.status_words, "struck" if take.struck else "", _notes(take)]
        lines.append(f"{take.label:<10} " + "  ".join(part for part in parts if part))
    return "\n".join(lines) + "\n"


def report_sheet(log: LogOut, *, paper: str, made: datetime) -> bytes:
    """Header, legend, tracks, takes, totals. PDF; the same log gives the same bytes."""
    sheet = Sheet(f"Sound report: {log.job}", f"{log.day}. {log.summary}.", paper=paper, made=made)
    sheet.facts(
        [
            ("Frame rate", f"{log.rate} fps"),
            ("Sample rate", _khz(log)),
            ("Time zone", log.zone),
            (
                "Circled",
                ", ".join(take.label for take in log.takes if take.status is TakeStatus.CIRCLED and not take.struck),
            ),
        ]
    )
    sheet.text(LEGEND, soft=True)
    sheet.heading("Tracks")
    sheet.table(
        [Column("device", 1.6), Column("track", 0.8), Column("what is on it", 3.4), Column("for the edit", 2.8)],
        [[track.device, track.track, ", ".join(track.sources) or "—", track.edit] for track in log.tracks],
    )
    sheet.heading("Takes")
    sheet.table(
        [
            Column("take", 1.1), Column("starts", 1.5), Column("ends", 1.5), Column("length", 0.9, is_number=True),
            Column("", 0.1), Column("status", 1.2), Column("notes", 4.2),
        ],
        [[take.label, take.timecode, take.end_timecode, take.length, "", _status(take), _notes(take)] for take in log.takes],
        bold=[take.status is TakeStatus.CIRCLED and not take.struck for take in log.takes],
    )  # fmt: skip
    if log.findings:
        sheet.heading("To be cleared")
        for finding in log.findings:
            sheet.text(f"{finding.title}. {finding.text}")
    sheet.heading("Totals")
    sheet.facts(_totals(log))
    return sheet.bytes()


def _totals(log: LogOut) -> list[tuple[str, str]]:
    counted = [take for take in log.takes if not take.struck]
    minutes = sum(take.seconds or 0.0 for take in counted) / 60
    totals = [("Takes", str(len(counted))), ("Recorded", f"{minutes:.1f} min")]
    for status in TakeStatus:
        count = sum(take.status is status for take in counted)
        if status is not TakeStatus.OPEN and count:
            totals.append((STATUS_WORDS[status].capitalize(), str(count)))
    return totals


def _status(take: LoggedTakeOut) -> str:
    return "struck" if take.struck else take.status_words


def _notes(take: LoggedTakeOut) -> str:
    said = [f"{note.text}{f' ({note.where})' if note.where else ''}" for note in take.notes]
    return "; ".join([*said, take.text] if take.text else said)


def _khz(log: LogOut) -> str:
    return f"{log.sample_rate_hz / 1000:g} kHz"
