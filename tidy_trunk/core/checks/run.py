"""All findings about a plan, in a stable order."""

import importlib
import pkgutil
from dataclasses import replace
from typing import Final

from tidy_trunk.core.checks import rules
from tidy_trunk.core.checks.rule import RULES, Finding, Severity, Situation
from tidy_trunk.core.levels import Report

for _module in pkgutil.iter_modules(rules.__path__):
    importlib.import_module(f"{rules.__name__}.{_module.name}")

_STATIONS: Final = {"rumble": "levels", "levels": "levels", "radio": "levels", "clock": "clock"}
_ORDER: Final = {Severity.STOP: 0, Severity.CAUTION: 1, Severity.NOTE: 2}


def check(report: Report) -> list[Finding]:
    """Every finding: stops first, then by the order of the plan's devices and runs."""
    situation = Situation(report.rig.plan, report)
    found = []
    for function in RULES.values():
        station = _STATIONS.get(function.__module__.rsplit(".", 1)[-1], "runs")
        for finding in function(situation):
            found.append(finding if station == finding.station else replace(finding, station=station))
    devices = {device: index for index, device in enumerate(report.rig.plan.devices)}
    return sorted(found, key=lambda finding: (_ORDER[finding.severity], devices.get(finding.device, -1), finding.id))
