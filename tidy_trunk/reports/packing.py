"""The packing list on paper."""

from datetime import datetime

from tidy_trunk.exports.paper import Column, Sheet
from tidy_trunk.results.trunk import TrunkOut


def packing_sheet(job: str, trunk: TrunkOut, *, paper: str, made: datetime) -> bytes:
    """By case, with two boxes each: packed, and back again; then what has to be got, and what the trunk does not list. PDF."""
    sheet = Sheet(f"{job}: packing", trunk.summary, paper=paper, made=made)
    sheet.facts([("Day", trunk.day), ("Weight", trunk.weight)])
    has_kits = any(line.kit for line in trunk.packing)
    for kit, case in dict.fromkeys((line.kit, line.case) for line in sorted(trunk.packing, key=lambda line: line.kit)):
        whose = f"{kit}: " if kit else "Everybody: " if has_kits else ""
        sheet.heading(f"{whose}{case or 'in no case'}" if whose else case or "In no case")
        sheet.table(
            [
                Column("packed", 0.7),
                Column("back", 0.7),
                Column("what", 4),
                Column("for cable", 1.6),
                Column("mind", 2.4),
            ],
            [
                [
                    "[x]" if line.state != "open" else "[  ]",
                    "[x]" if line.state == "back" else "[  ]",
                    f"{line.count} × {line.label}" if line.count > 1 else line.label,
                    ", ".join(map(str, line.runs)) + (" (spare)" if line.is_spare else ""),
                    line.warning,
                ]
                for line in trunk.packing
                if line.case == case
            ],
        )
    if trunk.wanted:
        sheet.heading("To be got")
        rows = [[f"{item.count} × {item.words}", ", ".join(map(str, item.runs))] for item in trunk.wanted]
        sheet.table([Column("what", 6), Column("for cable", 2)], rows)
    missing = [item for item in trunk.devices if item.owned < item.needed]
    if missing:
        sheet.heading("Comes along from elsewhere: the trunk does not list it")
        sheet.table(
            [Column("packed", 0.7), Column("back", 0.7), Column("what", 8)],
            [["[  ]", "[  ]", f"{item.needed - item.owned} × {item.label}"] for item in missing],
        )
    sheet.text("Lithium batteries over 100 Wh: ask the airline. Never pack a damaged one.", soft=True)
    return sheet.bytes()
