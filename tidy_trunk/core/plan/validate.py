"""What makes a plan well formed. Whether it is wise is for the checks."""

import math
import re
from datetime import date, datetime
from typing import Final

from tidy_trunk.core.base.signal import LARGEST_SETTING
from tidy_trunk.core.base.text import is_plain, spelled
from tidy_trunk.core.base.timecode import LARGEST_PPM, MOST_FRAMES, FrameRate
from tidy_trunk.core.gear.catalogue import built_in, channel_refs, controls_of, find_control, span_of
from tidy_trunk.core.plan.clocks import LAST_MIN, MOST_BREAKS, MOST_JAMS, PairDrift, clock_words
from tidy_trunk.core.plan.index import PlacedDevice, PlanIndex
from tidy_trunk.core.plan.line_ups import LineUp
from tidy_trunk.core.plan.measured import MOST_LAW_POINTS, GainLaw, MeterError
from tidy_trunk.core.plan.model import LONGEST_CREW, Part, Plan, PortRef, Run, Stretch, crew_names
from tidy_trunk.core.plan.own_leads import check_lead
from tidy_trunk.core.plan.path import ALONG
from tidy_trunk.core.plan.rooms import ROOMS
from tidy_trunk.core.plan.shooting import (
    LONGEST_DAY_MIN,
    LONGEST_TAKE_MIN,
    MOST_HANDS,
    MOST_MOVES,
    MOST_SET_UPS,
    MOST_TAKES,
)
from tidy_trunk.core.plan.targets import TARGETS, Target
from tidy_trunk.errors import InputError, PlanError, PortInUseError, RangeError, UnknownItemError

MOST_DEVICES: Final = 300
"""ASSUMED_ most devices of one job: several times the largest set we know of."""

MOST_RUNS: Final = 1_000
"""ASSUMED_ most runs of one job."""

LONGEST_LEAD_M: Final = 500.0
"""ASSUMED_ longest lead: beyond it nobody runs analogue copper."""

LEAST_TARGET_DB: Final = 2.0
"""ASSUMED_ narrowest range that a voice can be kept in by hand."""

QUIETEST_LINE_UP_DBFS: Final = -120.0
"""ASSUMED_ quietest tone that is taken for one."""

LONGEST_LABEL: Final = 80
"""ASSUMED_ longest name that still reads on a screen or a label."""


_ZONE: Final = re.compile(r"[A-Za-z0-9_+-]+(/[A-Za-z0-9_+-]+){0,2}")
"""How the names of the time zone database are built. [PRACTICE] of software"""

LARGEST_LAW_MISS_DB: Final = 60.0
"""ASSUMED_ furthest that a knob gives something else than is written beside it."""

LARGEST_METER_MISS_DB: Final = 30.0
"""ASSUMED_ furthest that a meter is wrong."""


def validate(plan: Plan, like: PlanIndex | None = None) -> PlanIndex:
    """Refuse a plan that cannot be, with the place and the reason; else give its look-ups. `like`: those of a plan that it was made from.

    Raises:
        PlanError: Something named is not there, a port holds two plugs, or a part cannot be.
        InputError: A number or a setting that cannot be.
    """
    index = PlanIndex(plan, like)
    if len(plan.devices) > MOST_DEVICES or len(plan.runs) > MOST_RUNS:
        raise PlanError(f"a job holds at most {MOST_DEVICES} devices and {MOST_RUNS} runs: split it into two jobs")
    check_label("the job", plan.name)
    _check_defaults(plan)
    for class_id, own in plan.classes.items():
        at = f"class '{class_id}'"
        check_label(at, own.label)
        if class_id in built_in().devices:
            raise PlanError(f"{at}: a built-in class has this id: choose another")
    for own_lead in plan.leads.values():
        check_label(f"cable '{own_lead.id}'", own_lead.label)
        check_lead(own_lead)
        if own_lead.id in built_in().leads:
            raise PlanError(f"cable '{own_lead.id}': a built-in cable has this id: choose another")
    same = like.plan.devices if like is not None and _is_same_job(plan, like.plan) else {}
    for device_id, device in plan.devices.items():
        if same.get(device_id) is not device:
            _check_device(index, device_id)
    for source in plan.sources.values():
        _check_source(index, source.id)
    for track, found in plan.line_ups.items():
        _check_line_up(index, track, found)
    for law in plan.gain_laws.values():
        _check_law(index, law)
    for meter in plan.meters.values():
        _check_meter(index, meter)
    for drift in plan.pair_drifts.values():
        _check_pair_drift(index, drift)
    if not same or like is None or plan.runs is not like.plan.runs:
        _check_runs(index)
    return index


def _is_same_job(plan: Plan, like: Plan) -> bool:
    """Whether both hold the same devices of the same classes: then what is said of one holds for the other."""
    shared = ("defaults", "classes", "leads", "targets", "gain_laws")
    return all(getattr(plan, name) is getattr(like, name) for name in shared) and (
        plan.devices.keys() == like.devices.keys()
        and all(device.class_id == like.devices[key].class_id for key, device in plan.devices.items())
    )


def check_label(at: str, label: str) -> None:
    if not label.strip() or len(label) > LONGEST_LABEL or not is_plain(label):
        raise InputError(f"{at}: the name must be 1 to {LONGEST_LABEL} printable characters, not {label[:90]!r}")


def check_number(at: str, value: float, low: float, high: float, unit: str) -> None:
    if not (math.isfinite(value) and low <= value <= high):
        raise RangeError(f"{at}: must be between {low:g} and {high:g} {unit}, not {value:g}")


def _check_defaults(plan: Plan) -> None:
    defaults = plan.defaults
    FrameRate.parse(defaults.frame_rate)
    for target in plan.targets.values():
        _check_target(target)
    targets = {**TARGETS, **plan.targets}
    for named in (defaults.target, defaults.effects_target, defaults.guide_target, defaults.timecode_target):
        if named not in targets:
            raise UnknownItemError(f"the job's target '{named}' is not known: use {', '.join(targets)}")
    if defaults.room not in ROOMS:
        raise UnknownItemError(f"the kind of place '{defaults.room}' is not known: use {', '.join(ROOMS)}")
    check_number("tone level", defaults.alignment_dbfs, -40, 0, "dBFS")
    check_number("room noise", defaults.room_noise_db_spl, 0, 130, "dB SPL")
    check_number("low-frequency noise", defaults.rumble_db_spl, 0, 130, "dB SPL")
    if defaults.mains_hz not in (50, 60):
        raise RangeError(f"mains is 50 or 60 Hz, not {defaults.mains_hz}")
    check_number("spare cable", defaults.slack_share * 100, 0, 100, "%")
    check_number("spare cable at each end", defaults.slack_end_m, 0, 20, "m")
    check_number("minimum channel spacing", defaults.radio_guard_mhz, 0.001, 10, "MHz")
    check_number("sample rate", defaults.sample_rate_hz, 8_000, 768_000, "Hz")
    _check_day(plan)


def _check_day(plan: Plan) -> None:
    begins, ends = plan.defaults.day_begins_min, plan.defaults.day_ends_min
    check_number("the day's beginning", begins, 0, 24 * 60 - 1, "minutes after midnight")
    check_number("the day's end", ends, 1, LAST_MIN, "minutes after midnight")
    if not begins < ends <= begins + LONGEST_DAY_MIN:
        raise RangeError(
            f"the day must end after it begins, within {LONGEST_DAY_MIN // 60} hours, not last from {clock_words(begins)} to {clock_words(ends)}"
        )
    if not 0 < plan.defaults.drift_limit_frames <= MOST_FRAMES:
        raise RangeError(f"maximum drift must be more than 0 and at most {MOST_FRAMES:g} frames")
    if len(plan.breaks) > MOST_BREAKS:
        raise PlanError(f"a day holds at most {MOST_BREAKS} breaks")
    for item in plan.breaks.values():
        check_label(f"break '{item.id}'", item.label)
        check_number(f"break '{item.label}'", item.at_min, 0, LAST_MIN, "minutes after midnight")
        check_number(f"break '{item.label}'", item.length_min, 1, 24 * 60, "minutes long")

    _check_shooting(plan)


def _check_shooting(plan: Plan) -> None:
    defaults = plan.defaults
    check_number("temperature", defaults.temperature_c, -50, 60, "°C")
    check_number("people of the sound crew", defaults.hands, 1, MOST_HANDS, "")
    names = crew_names(defaults.crew)
    if len(names) > MOST_HANDS or not is_plain(defaults.crew) or len(defaults.crew) > LONGEST_CREW:
        raise InputError(
            f"the crew: at most {MOST_HANDS} names with commas between, in {LONGEST_CREW} printable characters"
        )
    check_number("walk to a device", defaults.walk_min, 0, 60, "minutes")
    if defaults.date and not _is_date(defaults.date):
        raise InputError(f"'{defaults.date[:40]}' is no date: write 2026-11-28")
    if defaults.zone and not _ZONE.fullmatch(defaults.zone):
        raise InputError(f"'{defaults.zone[:40]}' is no time zone: write its name, such as Europe/Vienna")
    for items, most, what in ((plan.set_ups, MOST_SET_UPS, "set-ups"), (plan.moves, MOST_MOVES, "company moves")):
        if len(items) > most:
            raise PlanError(f"a day holds at most {most} {what}")
    for set_up in plan.set_ups.values():
        at = f"set-up '{set_up.label}'"
        check_label(f"set-up '{set_up.id}'", set_up.label)
        check_number(at, set_up.at_min, 0, LAST_MIN, "minutes after midnight")
        check_number(f"{at}, takes", set_up.takes, 1, MOST_TAKES, "")
        check_number(f"{at}, first take", set_up.first_take, 1, 9999, "")
        check_number(f"{at}, length of a take", set_up.take_min, 0.05, LONGEST_TAKE_MIN, "minutes")
        check_number(f"{at}, between takes", set_up.between_min, 0, 24 * 60, "minutes")
    for move in plan.moves.values():
        check_label(f"company move '{move.id}'", move.label)
        check_number(f"company move '{move.label}'", move.at_min, 0, LAST_MIN, "minutes after midnight")
        check_number(f"company move '{move.label}'", move.length_min, 1, 24 * 60, "minutes long")
    for device in plan.devices.values():
        if device.place:
            check_label(f"place of '{device.label}'", device.place)


def _is_date(text: str) -> bool:
    try:
        return date.fromisoformat(text).isoformat() == text
    except ValueError:
        return False


def _check_jam(index: PlanIndex, placed: PlacedDevice, at: str) -> None:
    jam = placed.device.jam
    if jam is None:
        return
    giver = index.placed(jam.giver)
    if jam.giver == placed.device.id:
        raise PlanError(f"{at}: it cannot be jammed by itself: name who gives it the time")
    for one in (placed, giver):
        if not one.device_class.keeps_time:
            raise PlanError(f"{at}: {one.label} keeps no timecode: name a camera, a recorder or a timecode generator")
    if not giver.device_class.traits.makes_timecode:
        raise PlanError(f"{at}: {giver.label} makes no timecode, and only takes it: name who gives it")
    if len(jam.at_min) > MOST_JAMS:
        raise PlanError(f"{at}: more than {MOST_JAMS} jams in a day: leave it on the cable")
    for minute in jam.at_min:
        check_number(f"{at}, jam", minute, 0, LAST_MIN, "minutes after midnight")


def _check_pair_drift(index: PlanIndex, drift: PairDrift) -> None:
    first, second = (index.placed(name) for name in (drift.first, drift.second))
    at = f"drift of {first.label} and {second.label}"
    if drift.first == drift.second:
        raise PlanError(f"{at}: a clock does not part from itself: name two devices")
    check_number(at, drift.ppm, -LARGEST_PPM, LARGEST_PPM, "ppm")
    check_number(at, drift.within_ppm, 0, LARGEST_PPM, "ppm")
    _check_when(at, drift.when)


def _check_line_up(index: PlanIndex, track: str, found: LineUp) -> None:
    at = f"line-up of '{track}'"
    device, _, bus = track.partition(".")
    placed = index.placed(device)
    index.placed(found.sender)
    if found.track != track or bus not in [item.id for item in placed.device_class.buses]:
        raise UnknownItemError(f"{at}: {placed.label} has no track '{bus}'")
    for level in (found.sent_dbfs, found.read_dbfs, found.predicted_dbfs):
        check_number(at, level, QUIETEST_LINE_UP_DBFS, 24, "dBFS")
    _check_when(at, found.when)


def _check_when(at: str, when: str) -> None:
    try:
        datetime.fromisoformat(when)
    except ValueError as error:
        raise RangeError(f"{at}: '{when[:40]}' is no date and time: give one such as 2026-11-25T09:30") from error


def _check_law(index: PlanIndex, law: GainLaw) -> None:
    device = index.class_of(law.class_id)
    at, span = f"measured knob '{law.key}'", span_of(device, law.control)
    if not 2 <= len(law.points) <= MOST_LAW_POINTS:
        raise RangeError(f"{at}: {len(law.points)} positions make no law: give 2 to {MOST_LAW_POINTS}")
    low, high = span.minimum_db, span.maximum_db
    for position_db, gain_db in law.points:
        check_number(at, position_db, low, high, "dB")
        check_number(at, gain_db, low - LARGEST_LAW_MISS_DB, high + LARGEST_LAW_MISS_DB, "dB")
    if law.noisy_from_db is not None:
        check_number(at, law.noisy_from_db, low, high, "dB")
    if law.scale is not None:
        for mark in law.scale:
            check_number(at, mark, -LARGEST_SETTING, LARGEST_SETTING, "on its scale")
        if law.scale.lowest_mark == law.scale.highest_mark:
            raise RangeError(f"{at}: a scale has two ends: give its lowest and its highest mark")
    _check_when(at, law.when)


def _check_meter(index: PlanIndex, meter: MeterError) -> None:
    at = f"meter of {index.class_of(meter.class_id).label}"
    if not 1 <= len(meter.pairs) <= MOST_LAW_POINTS:
        raise RangeError(f"{at}: give 1 to {MOST_LAW_POINTS} readings beside what was measured")
    for level in (level for pair in meter.pairs for level in pair):
        check_number(at, level, QUIETEST_LINE_UP_DBFS, 24, "dBFS")
    if abs(meter.reads_high_db) > LARGEST_METER_MISS_DB:
        raise RangeError(
            f"{at}: {abs(meter.reads_high_db):g} dB is no error of a meter: it shows another input, or another moment"
        )
    _check_when(at, meter.when)


def _check_target(target: Target) -> None:
    at = f"target '{target.id}'"
    check_label(at, target.label)
    if target.id in TARGETS:
        raise PlanError(f"{at}: a built-in target has this id: choose another")
    check_number(at, target.low_dbfs, -80, 0, "dBFS")
    check_number(at, target.high_dbfs, -80, 0, "dBFS")
    if target.high_dbfs - target.low_dbfs < LEAST_TARGET_DB:
        raise RangeError(
            f"{at}: from {target.low_dbfs:g} to {target.high_dbfs:g} dBFS is no range: nobody can keep to it"
        )


def _check_device(index: PlanIndex, device_id: str) -> None:
    placed = index.placed(device_id)
    at = f"device '{device_id}'"
    check_label(at, placed.label)
    try:
        controls = controls_of(placed.device_class) if placed.device.settings else {}
        for control_id, value in placed.device.settings.items():
            (controls.get(control_id) or find_control(placed.device_class, control_id)).check(value)
    except (InputError, UnknownItemError) as error:
        raise type(error)(f"{at}: {error.message}") from error
    _check_routing(index, placed, at)
    _check_jam(index, placed, at)


def _check_routing(index: PlanIndex, placed: PlacedDevice, at: str) -> None:
    buses = {bus.id for bus in placed.device_class.buses}
    outputs = {ref for port in placed.device_class.outputs for ref in channel_refs(port)}
    for bus_id, refs in placed.device.routing.items():
        if bus_id not in buses:
            raise UnknownItemError(
                f"{at}: there is no track or mix '{bus_id}'; it has {', '.join(sorted(buses)) or 'none'}"
            )
        if len(set(refs)) != len(refs):
            raise PlanError(f"{at}: an input is routed twice to {bus_id}")
        for ref in refs:
            index.input_channel(placed, ref)
    for bus_id in placed.device.roles:
        if bus_id not in buses:
            raise UnknownItemError(f"{at}: there is no track or mix '{bus_id}' that could be kept for something")
    for channel, bus_id in placed.device.feeds.items():
        if channel not in outputs:
            raise UnknownItemError(f"{at}: there is no output channel '{channel}'")
        if bus_id not in buses:
            raise UnknownItemError(f"{at}: there is no track or mix '{bus_id}' to feed {channel}")


def _check_source(index: PlanIndex, source_id: str) -> None:
    source = index.plan.sources[source_id]
    at = f"source '{source_id}'"
    check_label(at, source.label)
    for level in (source.quiet_db_spl, source.average_db_spl, source.peak_db_spl):
        check_number(at, level, -20, 180, "dB SPL")
    check_number(f"{at}, burst", source.burst_db_spl, -20, 200, "dB SPL")
    if not source.quiet_db_spl <= source.average_db_spl <= source.peak_db_spl <= source.burst_db_spl:
        raise RangeError(f"{at}: quiet, average, peak and burst must rise in this order")
    check_number(f"{at}, tolerance", source.tolerance_db, 0, 40, "dB")
    for device_id, distance_m in source.heard_by.items():
        placed = index.placed(device_id)
        if placed.device_class.capsule is None:
            raise PlanError(f"{at}: {placed.label} is no microphone and hears nothing: name a microphone")
        check_number(f"{at}, distance to {placed.label}", distance_m, 0.01, 1_000, "m")
    for device_id, angle_deg in source.off_axis_deg.items():
        if device_id not in source.heard_by:
            raise PlanError(f"{at}: an angle to {device_id}, which does not hear it: give its distance too")
        check_number(f"{at}, angle off the axis of {index.placed(device_id).label}", angle_deg, 0, 180, "°")


def _check_runs(index: PlanIndex) -> None:
    numbers: dict[int, str] = {}
    for run in index.plan.runs.values():
        at = f"cable {run.number}"
        if not 1 <= run.number <= 9_999:
            raise RangeError(f"cable '{run.id}': a number of 1 to 9999 is taped to the cable, not {run.number}")
        if run.number in numbers:
            raise PlanError(f"cable '{run.id}': number {run.number} is taken by cable '{numbers[run.number]}'")
        numbers[run.number] = run.id
        try:
            index.placed(run.sending.device).output(run.sending.port)
            index.placed(run.receiving.device).input(run.receiving.port)
            for part in run.parts:
                _check_part(index, part)
            for stretch in run.path:
                _check_stretch(stretch)
        except (InputError, UnknownItemError) as error:
            raise type(error)(f"{at}: {error.message}") from error
        if len(run.path) > 20:
            raise PlanError(f"{at}: more than twenty stretches: put some together")
        if len(run.parts) > 8:
            raise PlanError(f"{at}: more than eight cables in a row: every join is a fault to come")
    for ref, runs in (*index.arriving.items(), *index.leaving.items()):
        _check_occupancy(index, ref, runs)


def _check_part(index: PlanIndex, part: Part) -> None:
    lead = index.lead_of(part)
    check_number(lead.label, part.length_m, 0, LONGEST_LEAD_M, "m")
    if part.branch not in lead.ways:
        known = " or ".join(repr(branch) for branch in lead.ways)
        raise PlanError(f"{lead.label} has the ways {known}, not '{part.branch}'")


def _check_stretch(stretch: Stretch) -> None:
    check_number("a stretch of its path", stretch.length_m, 0.1, LONGEST_LEAD_M, "m")
    for passing in stretch.passes:
        if passing.metres is not None:
            check_number(str(passing.what), passing.metres, 0, LONGEST_LEAD_M, "m")
        if passing.what in ALONG and passing.metres is not None and passing.metres > stretch.length_m:
            raise RangeError(
                f"it cannot lie {spelled(passing.what)} for {passing.metres:g} m on a stretch of {stretch.length_m:g} m"
            )


def _check_occupancy(index: PlanIndex, ref: PortRef, runs: list[Run]) -> None:
    """One plug a port; several runs only where they are different ways of one two-way lead."""
    if len(runs) < 2:
        return
    ways: set[tuple[str, str]] = set()
    for run in runs:
        end = run.parts[-1] if run.receiving == ref and run.parts else run.parts[0] if run.parts else None
        if end is None or not end.branch or not end.shared:
            ways.clear()
            break
        ways.add((end.shared, end.branch))
    if len(ways) != len(runs) or len({shared for shared, _ in ways}) != 1:
        first, second = runs[0], runs[1]
        raise PortInUseError(
            f"{index.port_label(ref)} holds the plug of cable {first.number}; cable {second.number} needs another port, "
            "or a Y-cable that both share"
        )
