"""What goes out of the house: a day, a sound report, as paper, table, calendar or text. From results to bytes; opens nothing."""

from tidy_trunk.reports.circled import circled_edl, circled_otio
from tidy_trunk.reports.day import day_calendar, day_csv, day_sheet, day_text
from tidy_trunk.reports.hand_over import hand_over_csv, hand_over_sheet
from tidy_trunk.reports.labels import LABEL_PAPERS, cable_ends, label_pages, labels_pdf
from tidy_trunk.reports.package import package
from tidy_trunk.reports.packing import packing_sheet
from tidy_trunk.reports.patch import (
    patch_drawing,
    patch_pdf,
    patch_svg,
    run_list_csv,
    run_list_sheet,
    settings_sheet,
    wallet_card,
)
from tidy_trunk.reports.sound_report import report_csv, report_sheet, report_text

__all__ = [
    "LABEL_PAPERS",
    "cable_ends",
    "circled_edl",
    "circled_otio",
    "day_calendar",
    "day_csv",
    "day_sheet",
    "day_text",
    "hand_over_csv",
    "hand_over_sheet",
    "label_pages",
    "labels_pdf",
    "package",
    "packing_sheet",
    "patch_drawing",
    "patch_pdf",
    "patch_svg",
    "report_csv",
    "report_sheet",
    "report_text",
    "run_list_csv",
    "run_list_sheet",
    "settings_sheet",
    "wallet_card",
]
