"""A job said in a line or two, read by everyday words: what was understood, and what was not."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from tidy_trunk.core.command import find_classes
from tidy_trunk.core.gear.catalogue import Circuit, DeviceClass, DeviceKind, built_in
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.rigs.brief import (
    MOST_CAMERAS,
    MOST_MICROPHONES,
    MOST_PEOPLE,
    Brief,
    BriefProblem,
    Microphone,
    Subject,
)
from tidy_trunk.core.rigs.owned import NOTHING_LIES, own_camera, own_recorder
from tidy_trunk.core.rigs.vocabulary import (
    AES3,
    AGAIN,
    ALONE,
    ANY_MICROPHONES,
    CAMERA,
    COUNT,
    CREW,
    DELIVERIES,
    DEVICES,
    FILLERS,
    INTO_CAMERA,
    MIC_SOCKET,
    MICROPHONES,
    MIX_IN_CAMERA,
    NO_CAMERA,
    NO_RECORDER,
    NO_TIMECODE,
    NUMBERS,
    ONCE,
    PEOPLE,
    PHONE,
    PLACINGS,
    RECORDERS,
    SEPARATE,
    SMALL,
    SOCKETS,
    SPAN,
    STEREO_PAIR,
    SUBJECTS,
    WORN,
)
from tidy_trunk.errors import InputError

LONGEST: Final = 500
"""ASSUMED_ letters of a question."""

MOST_DEVICES: Final = 8
"""ASSUMED_ recorders, and other devices, that a question names at most: a rig uses one or two of them."""

MOST_SAID: Final = 100
"""ASSUMED_ number above which it does not matter how many somebody said: it is too many."""

WHOLE_NAME: Final = 3
"""ASSUMED_ words from which the name of a built-in class is meant as a whole."""

MOST_INPUTS: Final = 2
"""Microphones that a recorder of which nothing is said takes; for more it is one with eight inputs. [PRACTICE]"""

_USUAL_CAMERA: Final = "mirrorless-mic"


@dataclass(frozen=True, slots=True)
class Reading:
    """What a question was understood to ask, and what of it could not be."""

    brief: Brief
    problems: tuple[BriefProblem, ...]


class _Text:
    """A text from which what has been understood is taken away."""

    def __init__(self, text: str) -> None:
        self.left = text.lower().replace("’", "'")

    def take(self, pattern: str) -> list[re.Match[str]]:
        found = list(re.finditer(pattern, self.left))
        self.left = re.sub(pattern, " | ", self.left)
        return found

    def has(self, pattern: str) -> bool:
        """Whether it is in there; then it is taken away."""
        return bool(self.take(pattern))

    def sees(self, pattern: str) -> bool:
        return re.search(pattern, self.left) is not None


def read_brief(text: str, own: Mapping[str, DeviceClass], lying: Mapping[str, int] = NOTHING_LIES) -> Reading:
    """What a question asks for.

    Args:
        text: In everyday words, up to 500 letters.
        own: Classes of the user's own, which are known by their names.
        lying: How many of each class lie in the trunk.

    Raises:
        InputError: It is longer, or none of it is understood.
    """
    if len(text) > LONGEST:
        raise InputError(f"a question may have {LONGEST} letters; this one has {len(text)}")
    line = _Text(text)
    brief, problems = _of_own(line, own), []
    asks_digital = line.sees(AES3)
    line.take(SPAN)
    once = line.sees(ONCE)
    is_alone = line.has(ALONE)
    no_timecode = line.has(NO_TIMECODE)
    in_camera = line.has(MIX_IN_CAMERA) or line.sees(INTO_CAMERA)
    brief = _cameras(line, brief, own_camera(own, lying) or _USUAL_CAMERA)
    if asks_digital and (takers := [item for item in brief.cameras or () if not _takes_aes3(item, own)]):
        problems.append(BriefProblem("aes3-into-analogue", {"class_id": takers[0]}))
    line.take(AES3)
    brief = _recorders(line, brief)
    devices = [
        class_id for pattern, class_id in DEVICES for match in line.take(COUNT + pattern) for _ in range(_count(match))
    ]
    brief = replace(brief, devices=(*brief.devices, *devices))
    microphones = _microphones(line, brief.microphones or ())
    subject, people = _people(line, microphones)
    brief = replace(brief, subject=subject, people=people, microphones=tuple(_spread(microphones, people)) or None)
    again = line.has(AGAIN)
    line.take(ONCE)
    deliveries = [meant for pattern, meant in DELIVERIES if line.has(pattern)]
    placings = [meant for pattern, meant in PLACINGS if line.has(pattern)]
    is_crewed = line.has(CREW)
    brief = replace(
        brief,
        once=True if once and not again else False if again else None,
        alone=True if is_alone else False if is_crewed else None,
        delivery=deliveries[0] if deliveries else None,
        placing=placings[0] if placings else None,
        separate=line.has(SEPARATE),
        small=line.has(SMALL),
        in_camera=in_camera,
        no_timecode=no_timecode,
    )
    brief, unknown = _by_class_names(line, brief, own)
    if brief == Brief() and not problems:
        raise InputError(
            f"'{text.strip()}' names nothing that is known here. Say who is heard and on what it is filmed: "
            "interview, two people, two lavs on radio, 1 camera mic socket only"
        )
    problems += [BriefProblem("not-understood", {"words": words}) for words in unknown]
    brief = _with_usual_recorder(brief, own, lying)
    brief, limits = _within_limits(brief)
    return Reading(brief, (*problems, *limits))


def _count(match: re.Match[str]) -> int:
    said = match.group("count")
    if said is None:
        return 1
    return min(int(said), MOST_SAID) if said.isdigit() else NUMBERS[said]


def _of_own(line: _Text, own: Mapping[str, DeviceClass]) -> Brief:
    """What is named by the full name of a class: of the user's own, or of a built-in one whose name no everyday words take apart."""
    brief = Brief()
    names = {item.label.lower(): item for item in own.values()}
    for item in built_in().devices.values():
        name = item.label.lower().replace(",", "")
        if len(name.split()) >= WHOLE_NAME:
            names.setdefault(name, item)
    for name in sorted(names, key=lambda name: -len(name)):
        item = names[name]
        for match in line.take(COUNT + rf"\b{re.escape(name)}\b") if line.sees(re.escape(name)) else ():
            for _ in range(min(_count(match), MOST_MICROPHONES + 1)):
                brief = _with_class(brief, item, is_radio=False)
    return brief


def _cameras(line: _Text, brief: Brief, usual: str) -> Brief:
    """usual: the camera of which nothing is said."""
    none = line.has(NO_CAMERA)
    named: list[str] = []
    for match in line.take(CAMERA):
        kind = match.group("before") or match.group("after") or ("xlr" if "camcorder" in match.group("what") else "")
        count = _count(match)
        count = 2 if match.group("count") is None and match.group("what").endswith("s") else count
        named += [_camera_of(kind) if kind else usual] * min(count, MOST_CAMERAS * 100)
    for match in line.take(PHONE):
        named += ["phone-camera"] * _count(match)
    cameras = (*(brief.cameras or ()), *named)
    if not cameras and line.has(rf"\b{MIC_SOCKET}"):
        cameras = (_USUAL_CAMERA,)
    return replace(brief, cameras=cameras if cameras else () if none else None)


def _camera_of(kind: str) -> str:
    return next((class_id for pattern, class_id in SOCKETS if re.fullmatch(pattern, kind)), _USUAL_CAMERA)


def _takes_aes3(class_id: str, own: Mapping[str, DeviceClass]) -> bool:
    item = own.get(class_id) or built_in().devices[class_id]
    return any(
        port.circuit is Circuit.AES3
        or (any(mode.signal == "digital" for mode in port.modes) and port.circuit.is_analogue)
        for port in item.inputs
    )


def _recorders(line: _Text, brief: Brief) -> Brief:
    none = line.has(NO_RECORDER)
    named = [
        class_id
        for pattern, class_id in RECORDERS
        for match in line.take(COUNT + f"(?:{pattern})")
        for _ in range(min(_count(match), MOST_MICROPHONES))
    ]
    recorders = (*(brief.recorders or ()), *named)
    return replace(brief, recorders=recorders if recorders else () if none else None)


def _microphones(line: _Text, own: Sequence[Microphone]) -> list[tuple[Microphone, int | None]]:
    """Microphones with their number; None for one for everybody."""
    found: list[tuple[Microphone, int | None]] = [(item, 1) for item in own]
    found += [(Microphone("pencil-condenser"), 2) for _ in line.take(STEREO_PAIR)]
    for pattern, meant in MICROPHONES:
        for match in line.take(COUNT + pattern):
            is_for_all = match.group("count") is None and re.search(
                r"(?<!wirele)s\b|\bwireless$", match.group().strip()
            )
            found.append((meant, None if is_for_all else _count(match)))
    return found


def _people(line: _Text, microphones: Sequence[tuple[Microphone, int | None]]) -> tuple[Subject, int]:
    """What is recorded, and how many are heard: as was said, else as many as wear a microphone, else as is usual."""
    said = [
        _count(match) if match.group("count") else 2 if "people" in match.group() else 1 for match in line.take(PEOPLE)
    ]
    found = [(subject, usual) for pattern, subject, usual in SUBJECTS if line.has(pattern)]
    subject, usual = found[0] if found else (Subject.TALK, 1)
    worn = sum(count or 0 for item, count in microphones if item.class_id in WORN)
    return subject, said[0] if said else max(usual, worn) if subject is Subject.TALK else 1


def _spread(microphones: Sequence[tuple[Microphone, int | None]], people: int) -> Iterator[Microphone]:
    """Each microphone as often as it is wanted; what is worn, not more often than there are people."""
    left = people
    for item, count in microphones:
        wanted = people if count is None else min(count, MOST_MICROPHONES + 1)
        if item.class_id in WORN:
            wanted = min(wanted, left)
            left -= wanted
        yield from (item for _ in range(wanted))


def _by_class_names(line: _Text, brief: Brief, own: Mapping[str, DeviceClass]) -> tuple[Brief, list[str]]:
    """What is left, as names of classes; and the words that are none."""
    plan, unknown = Plan(name="", classes=own), []
    for chunk in re.split(r"[|,;.:?!()]|\band\b|\bwith\b|\binto\b", line.left):
        words = re.findall(r"[\w'/-]+", chunk)
        said = [word for word in words if word not in FILLERS and not word.isdigit()]
        if not said:
            if any_microphones := re.search(ANY_MICROPHONES, chunk):
                unknown.append(any_microphones.group().strip())
            continue
        classes = find_classes(plan, said)
        if classes:
            count = next(
                (int(word) for word in words if word.isdigit()),
                next((NUMBERS[word] for word in words if word in NUMBERS), 1),
            )
            for _ in range(min(count, MOST_MICROPHONES + 1)):
                brief = _with_class(brief, classes[0], is_radio="radio" in words or "wireless" in words)
        else:
            unknown.append(" ".join(said))
    return brief, unknown


def _with_class(brief: Brief, item: DeviceClass, *, is_radio: bool) -> Brief:
    if item.is_microphone:
        return replace(brief, microphones=(*(brief.microphones or ()), Microphone(item.id, is_radio)))
    if item.kind is DeviceKind.CAMERA:
        return replace(brief, cameras=(*(brief.cameras or ()), item.id))
    if item.kind in (DeviceKind.RECORDER, DeviceKind.COMPUTER):
        return replace(brief, recorders=(*(brief.recorders or ()), item.id))
    return replace(brief, devices=(*brief.devices, item.id))


def _with_usual_recorder(brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> Brief:
    """A recorder of which nothing is said has as many inputs as are needed, and is one's own where there is such a one."""
    if not brief.recorders or "" not in brief.recorders:
        return brief
    count = brief.people if brief.microphones is None else len(brief.microphones)
    usual = own_recorder(own, lying, count) or ("handheld-recorder" if count <= MOST_INPUTS else "bag-recorder")
    named = [item for item in brief.recorders if item]
    return replace(brief, recorders=tuple(named) if named else (usual,) * brief.recorders.count(""))


def _within_limits(brief: Brief) -> tuple[Brief, list[BriefProblem]]:
    problems = []

    def kept(what: str, items: Sequence[object] | int, most: int) -> int:
        count = items if isinstance(items, int) else len(items)
        if count > most:
            problems.append(BriefProblem("too-many", {"what": what, "said": count, "most": most}))
        return max(min(count, most), 0)

    people = max(kept("people", brief.people, MOST_PEOPLE), 1)
    worn = [item for item in brief.microphones or () if item.class_id in WORN]
    if worn and len(worn) == len(brief.microphones or ()) < people:
        problems.append(BriefProblem("too-few-microphones", {"people": people, "microphones": len(worn)}))
        people = len(worn)
    cameras = brief.cameras if brief.cameras is None else brief.cameras[: kept("cameras", brief.cameras, MOST_CAMERAS)]
    microphones = brief.microphones
    if microphones is not None:
        microphones = microphones[: kept("microphones", microphones, MOST_MICROPHONES)]
    limited = replace(
        brief,
        people=people,
        cameras=cameras,
        microphones=microphones,
        devices=brief.devices[:MOST_DEVICES],
        recorders=brief.recorders if brief.recorders is None else brief.recorders[:MOST_DEVICES],
    )
    return limited, problems
