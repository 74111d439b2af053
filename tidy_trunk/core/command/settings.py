"""Lines about how things stand: controls, levels of sources, what holds for the job, routing."""

import re
from collections.abc import Iterator, Sequence

from tidy_trunk.core.command.clock import minutes
from tidy_trunk.core.command.proposal import NotUnderstoodError, Proposal, single
from tidy_trunk.core.command.things import louder
from tidy_trunk.core.command.words import DeviceMatch, find_devices, find_sources, matches, number, split_words
from tidy_trunk.core.gear.catalogue import (
    Bus,
    Control,
    ControlKind,
    Port,
    Setting,
    channel_refs,
    controls_of,
)
from tidy_trunk.core.plan import (
    ROOMS,
    Edit,
    FeedOutput,
    PlacedDevice,
    Plan,
    PlanIndex,
    Role,
    RouteBus,
    School,
    SetControl,
    SetJob,
    SetRole,
    SetSource,
    Slating,
    Source,
    apply_edits,
)

_NUMBER = re.compile(r"([+-]?\d+(?:[.,]\d+)?)\s*(?:db|dbfs|mhz|hz|khz|m|%)?", re.IGNORECASE)
_ON = {"on": True, "yes": True, "off": False, "no": False}
_MOST_VALUE_WORDS = 4
_MOST_NAMED = 8
_KEPT_COMMA = "\0"


def set_(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`bag 1 gain 40`, `bag 1 gain 40, 2 gain 30`, `founder peak 118`, `job target film`."""
    first, *more = _pieces(plan, rest.replace("−", "-"))
    if split_words(first)[:1] == ["job"]:
        yield single(plan, _job(plan, [first.split(" ", 1)[1], *more]) if " " in first else SetJob())
        return
    sources = find_sources(plan, split_words(first)[:-2]) if len(split_words(first)) > 2 else []
    for source in sources:
        edit = _source(source, first)
        if edit is not None:
            yield single(plan, edit)
    found = find_devices(PlanIndex(plan), split_words(first))
    if not found and not sources:
        raise NotUnderstoodError(
            f"nothing here is called '{first}': say which device, which control and the value: set bag 1 gain 40"
        )
    understood = False
    for match in found:
        for proposal in _of_device(plan, match, first, more):
            understood = True
            yield proposal
    if found and not understood and not sources:
        raise NotUnderstoodError(_what_it_takes(found[0]))


def _pieces(plan: Plan, text: str) -> list[str]:
    """What stands between commas, but for those in the name of a position, as in `mic, gain 0`."""
    positions = {
        label
        for placed in PlanIndex(plan).placed_devices()
        for control in controls_of(placed.device_class).values()
        for _, label in control.options
        if ", " in label
    }
    for label in sorted(positions, key=len, reverse=True):
        text = re.sub(
            re.escape(label), lambda found: found.group().replace(", ", _KEPT_COMMA), text, flags=re.IGNORECASE
        )
    return [piece.replace(_KEPT_COMMA, ", ") for piece in re.split(r",\s+", text) if piece.strip()]


def _of_device(plan: Plan, match: DeviceMatch, first: str, more: Sequence[str]) -> Iterator[Proposal]:
    taken = len(split_words(first)) - len(match.rest)
    words = _after(first, taken)
    for edit in _controls(match.placed, words):
        edits: list[Edit] = [edit]
        state = edit.apply(plan)
        for piece in more:
            # Ports and controls of the same device, whose name need not be said again.
            following = next(_controls(PlanIndex(state).placed(match.placed.device.id), piece), None)
            if following is None:
                raise NotUnderstoodError(
                    f"'{piece}' is no control of {match.placed.label} with its value, as 2 gain 30 would be"
                )
            state = apply_edits(state, [following])
            edits.append(following)
        yield single(plan, *edits)


def _what_it_takes(match: DeviceMatch) -> str:
    """What was understood of a control, and the values that it takes."""
    placed = match.placed
    for count in range(len(match.rest), -1, -1):
        words, more = match.rest[:count], " ".join(match.rest[count:])
        found = [(control, name) for control, name in _named(placed, words) if placed.acts(control)]
        if len(found) == 1:
            return f"{placed.label} {found[0][1]} is understood; it takes {found[0][0].takes}"
        if found:
            known = "; ".join(name for _, name in found[:_MOST_NAMED])
            but = f", but not '{more}'" if more else ""
            return f"{' '.join((placed.label, *words))} is understood{but}. There is: {known}"
    return f"{placed.label} has no controls"


def _after(text: str, count: int) -> str:
    """What is left of a text after so many words, as they are counted for names."""
    tokens = text.split()
    while count > 0 and tokens:
        count -= len(split_words(tokens.pop(0)))
    return " ".join(tokens)


def _controls(placed: PlacedDevice, text: str) -> Iterator[SetControl]:
    """Every control of a device that the words may mean, with a value that the last of them may be."""
    tokens = text.split()
    for count in range(1, min(len(tokens), _MOST_VALUE_WORDS) + 1):
        words, value = split_words(" ".join(tokens[:-count])), " ".join(tokens[-count:]).lower()
        found = list(_meant(placed, words, value))
        if found:
            yield from found
            return


def _meant(placed: PlacedDevice, words: Sequence[str], value: str) -> Iterator[SetControl]:
    for control, _ in _named(placed, words):
        setting = _setting(control, value) if words and placed.acts(control) else None
        if setting is not None:
            yield SetControl(device=placed.device.id, control=control.id, value=setting)


def _named(placed: PlacedDevice, words: Sequence[str]) -> Iterator[tuple[Control, str]]:
    """Controls that words name, with their names in full."""
    for control in controls_of(placed.device_class).values():
        port = placed.where_label(control.port)
        if matches(words, port, control.label, control.id):
            yield control, f"{port} {control.label}".strip()


def _setting(control: Control, value: str) -> Setting | None:
    if control.kind is ControlKind.SWITCH:
        return _ON.get(value)
    if control.kind is ControlKind.CHOICE:
        exact = next((option for option, label in control.options if value in (option.lower(), label.lower())), None)
        begun = [option for option, label in control.options if matches(split_words(value), label)]
        return exact or (begun[0] if len(begun) == 1 and split_words(value) else None)
    if value == "off" and control.span is not None and control.span.lowest_is_off:
        return control.span.minimum_db
    found = _NUMBER.fullmatch(value)
    return number(found.group(1)) if found else None


def _source(source: Source, text: str) -> SetSource | None:
    *_, what, value = text.lower().split()
    if what == "once" and value in _ON:
        return SetSource(source=source.id, irreplaceable=_ON[value])
    found = _NUMBER.fullmatch(value)
    if not found:
        return None
    level = number(found.group(1))
    if "average".startswith(what):
        return louder(source, level)
    if "peak".startswith(what):
        return SetSource(source=source.id, peak_db_spl=level)
    if "burst".startswith(what):
        return SetSource(source=source.id, burst_db_spl=level)
    return SetSource(source=source.id, quiet_db_spl=level) if "quiet".startswith(what) else None


_JOB_NUMBERS = {
    "tone": "alignment_dbfs",
    "room": "room_noise_db_spl",
    "rumble": "rumble_db_spl",
    "slack": "slack_end_m",
    "guard": "radio_guard_mhz",
    "temperature": "temperature_c",
    "walk": "walk_min",
}
_JOB_COUNTS = {"mains": "mains_hz", "sample": "sample_rate_hz", "hands": "hands"}
_JOB_WORDS = {"date": "date", "zone": "zone"}


def _job(plan: Plan, pieces: Sequence[str]) -> SetJob:
    values: dict[str, object] = {}
    targets = PlanIndex(plan).targets
    for piece in pieces:
        what, *_, value = piece.split() if len(piece.split()) > 1 else (piece, "")
        found = _NUMBER.fullmatch(value)
        if what == "day":
            begin, _, end = piece.partition(" ")[2].partition(" to ")
            values["day_begins_min"], values["day_ends_min"] = _day(begin, end)
        elif what in ("rate", "frame"):
            values["frame_rate"] = value
        elif what == "target" and (target := next((name for name in targets if name.startswith(value)), None)):
            values["target"] = target
        elif what == "place" and (room := next((name for name in ROOMS if name.startswith(value)), None)):
            values["room"] = room
        elif what == "school" and value in tuple(School):
            values["school"] = School(value)
        elif what == "slates" and value in tuple(Slating):
            values["slating"] = Slating(value)
        elif what == "crew" and piece.partition(" ")[2].strip():
            values["crew"] = ", ".join(re.split(r"\s+and\s+", piece.partition(" ")[2].strip()))
        elif what in _JOB_WORDS and value:
            values[_JOB_WORDS[what]] = value
        elif what in _JOB_NUMBERS and found:
            values[_JOB_NUMBERS[what]] = number(found.group(1))
        elif what in _JOB_COUNTS and found:
            values[_JOB_COUNTS[what]] = round(number(found.group(1)))
        else:
            raise NotUnderstoodError(
                f"'{piece}' is nothing that holds for the job: say rate 25, tone -20, room 48, rumble 60, mains 50, sample 48000, "
                f"slack 1, guard 0.1, day 8:00 to 18:00, date 2026-11-28, zone Europe/Vienna, temperature 5, hands 2, crew Ann and Ben, walk 2, slates scene or numbers, school clean or guide, place {', '.join(ROOMS)}, or target {', '.join(targets)}"
            )
    return SetJob(**values)  # type: ignore[arg-type]


def _day(begin: str, end: str) -> tuple[int, int]:
    """When a day begins and ends; an end before its beginning is that of the next morning."""
    first, last = minutes(begin), minutes(end)
    return first, last if last > first else last + 24 * 60


def route(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`bag 1 and 4 to mix l`: which inputs feed a track or mix; `nothing` empties it."""
    left, _, right = rest.rpartition(" to ")
    if not left:
        raise NotUnderstoodError(f"'{rest}': say which inputs go to which track: route bag 1 and 4 to mix l")
    pieces = re.split(r"\s*,\s*|\s+and\s+", left)
    for match in find_devices(PlanIndex(plan), split_words(pieces[0])):
        placed = match.placed
        bus = _bus(placed, split_words(right))
        if bus is None:
            known = ", ".join(bus.label for bus in placed.device_class.buses) or "none"
            raise NotUnderstoodError(
                f"{placed.label} is understood, but it has no track or mix '{right.strip()}'; it has {known}"
            )
        wanted = [list(match.rest), *(split_words(piece) for piece in pieces[1:])]
        refs = () if wanted == [["nothing"]] else tuple(_channel(placed, words) for words in wanted)
        yield single(plan, RouteBus(device=placed.device.id, bus=bus.id, inputs=refs))


def feed(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`bag line r from mix l`: what an output gives out."""
    left, _, right = rest.rpartition(" from ")
    for match in find_devices(PlanIndex(plan), split_words(left)):
        placed = match.placed
        bus = _bus(placed, split_words(right))
        channel = _found(placed.device_class.outputs, match.rest)
        if bus is None or channel is None:
            what = f"track or mix '{right.strip()}'" if bus is None else f"output '{' '.join(match.rest)}'"
            raise NotUnderstoodError(f"{placed.label} is understood, but it has no {what}")
        yield single(plan, FeedOutput(device=placed.device.id, channel=channel, bus=bus.id))


def use(plan: Plan, rest: str) -> Iterator[Proposal]:
    """`camera b l and r for guide`: what a track is kept for."""
    left, _, right = rest.rpartition(" for ")
    role = next((role for role in Role if right.strip() and role.startswith(right.strip().lower())), None)
    if not left or role is None:
        raise NotUnderstoodError(f"'{rest}': say which track is for {', '.join(Role)}: use camera b l and r for guide")
    pieces = re.split(r"\s*,\s*|\s+and\s+", left)
    for match in find_devices(PlanIndex(plan), split_words(pieces[0])):
        placed = match.placed
        edits = []
        for words in (match.rest, *map(split_words, pieces[1:])):
            bus = _bus(placed, words)
            if bus is None:
                known = ", ".join(bus.label for bus in placed.device_class.buses) or "none"
                raise NotUnderstoodError(
                    f"{placed.label} is understood, but it has no track '{' '.join(words)}'; it has {known}"
                )
            edits.append(SetRole(device=placed.device.id, bus=bus.id, role=role))
        yield single(plan, *edits)


def _bus(placed: PlacedDevice, words: Sequence[str]) -> Bus | None:
    """The track or mix that words name."""
    return next((bus for bus in placed.device_class.buses if matches(words, "track", bus.label, bus.id)), None)


def _channel(placed: PlacedDevice, words: Sequence[str]) -> str:
    found = _found(placed.device_class.inputs, words)
    if found is None:
        known = ", ".join(port.label for port in placed.device_class.inputs) or "none"
        raise NotUnderstoodError(
            f"{placed.label} is understood, but it has no input '{' '.join(words)}'; it has {known}"
        )
    return found


def _found(ports: Sequence[Port], words: Sequence[str]) -> str | None:
    """The channel that words mean: port, and side where it has two."""
    for port in ports:
        for ref, channel in zip(channel_refs(port), port.channels, strict=True):
            side = channel if len(port.channels) > 1 else ""
            if (words and matches(words, port.label, side)) or matches(words, port.id, side):
                return ref
    return None
