"""Rigs and the question that they answer, in words: the gaps of the sentence, the rows of the comparison."""

import math
import re
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from typing import Final, NamedTuple

from tidy_trunk.core.advice.options import AUDIBLE_DB
from tidy_trunk.core.gear.catalogue import DeviceClass, DeviceKind, LeadClass, built_in
from tidy_trunk.core.rigs import (
    ENOUGH_HEADROOM_DB,
    SAME_DB,
    USUAL_CABLE_COST,
    Approach,
    Brief,
    BriefProblem,
    Delivery,
    Microphone,
    Rig,
    SourcePlacing,
    Subject,
    SyncMethod,
    Wish,
)
from tidy_trunk.words.findings import headline
from tidy_trunk.words.names import begun
from tidy_trunk.words.numbers import listed, many, whole

TITLES: Final[Mapping[Approach, str]] = {
    Approach.STRAIGHT: "Straight into the camera",
    Approach.PREAMP: "Preamp or mixer into the camera",
    Approach.RECORDER: "Recorder alone, synced afterwards",
    Approach.FEED: "Recorder, and its mix into the camera",
    Approach.TIMECODE: "Recorder, and timecode on the camera",
    Approach.BODY_WORN: "A recorder worn by each person",
}

WHY: Final[Mapping[Approach, str]] = {
    Approach.STRAIGHT: "Nothing to sync and the fastest edit. It depends on the camera's preamp, and nobody watches the levels.",
    Approach.PREAMP: "Nothing to sync, a good preamp and levels set by hand. One mix on one or two tracks.",
    Approach.RECORDER: "The best files. Record must be pressed on it, and every clip is synced afterwards.",
    Approach.FEED: "The best files, and a second recording on the camera; the same sound on both makes syncing easy.",
    Approach.TIMECODE: "Files of several cameras are found by their labels. It needs jams, and leaves no second recording.",
    Approach.BODY_WORN: "No radio that can fail and no gain to ride. Nobody hears a fault until the end.",
}
"""What each way gives and costs. [HANDBOOK] §13"""

WISHES: Final[Mapping[Wish, str]] = {
    Wish.TWICE: "it cannot be repeated, so it should be recorded twice",
    Wish.NO_SYNC: "it is needed at once, so sound and picture should be together",
    Wish.LABELS: "there are several cameras, so timecode saves work",
    Wish.TIMECODE: "the timecode box is not used",
    Wish.IN_CAMERA: "the recorder's sound should be in the camera too",
    Wish.APART: "each microphone should have its own track",
    Wish.FEW: "there should be little to set and to press",
}

_SYNC: Final[Mapping[SyncMethod, str]] = {
    SyncMethod.NONE: "none needed",
    SyncMethod.TIMECODE: "by timecode",
    SyncMethod.SOUND: "by the same sound, to the sample",
    SyncMethod.CAMERA_MICROPHONE: "by the camera's own microphone; clap at each start",
    SyncMethod.CLAP: "by slate clap only",
}

_NUMBERS: Final = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight")

_MICROPHONES: Final[Mapping[str, tuple[str, str]]] = {
    "lavalier": ("lavalier", "lavaliers"),
    "clip-on-transmitter": ("clip-on radio set", "clip-on radio sets"),
    "boom-shotgun": ("boom", "booms"),
    "dynamic-handheld": ("handheld microphone", "handheld microphones"),
    "pencil-condenser": ("pencil condenser", "pencil condensers"),
    "on-camera-microphone": ("on-camera microphone", "on-camera microphones"),
    "usb-microphone": ("USB microphone", "USB microphones"),
}

_RECORDERS: Final[Mapping[str, tuple[str, str]]] = {
    "bag-recorder": ("bag recorder", "bag recorders"),
    "handheld-recorder": ("handheld recorder", "handheld recorders"),
    "plug-in-recorder": ("pocket recorder", "pocket recorders"),
    "float-recorder": ("body-worn recorder", "body-worn recorders"),
    "computer": ("computer", "computers"),
}

_DEVICES: Final[Mapping[str, tuple[str, str]]] = {
    "timecode-generator": ("timecode box", "timecode boxes"),
    "live-switcher": ("live switcher", "live switchers"),
    "preamp-box": ("preamp box", "preamp boxes"),
    "field-mixer": ("field mixer", "field mixers"),
    "desk-mixer": ("desk mixer", "desk mixers"),
    "usb-interface": ("USB interface", "USB interfaces"),
    "audio-delay": ("audio delay unit", "audio delay units"),
}

_SOCKETS: Final[Mapping[str, str]] = {
    "mirrorless-mic": "mic socket only",
    "mirrorless-line": "mic/line input",
    "mirrorless-timecode": "timecode socket",
    "shoulder-camcorder": "XLR",
}

_CAMERAS: Final[Mapping[str, tuple[str, str]]] = {
    "cinema-xlr5": ("cinema camera", "cinema cameras"),
    "action-camera": ("action camera", "action cameras"),
    "phone-camera": ("phone", "phones"),
}


class GapWords(NamedTuple):
    """A gap of the sentence: what stands before it, what fills it, whether nobody said so, and what else may."""

    id: str
    lead: str
    phrase: str
    is_open: bool
    options: tuple[str, ...]


def gaps(brief: Brief, own: Mapping[str, DeviceClass]) -> tuple[GapWords, ...]:
    """The question as one sentence with gaps. What fills one is understood again when it is read."""
    mine = {kind: tuple(item.label for item in own.values() if item.kind is kind) for kind in DeviceKind}
    return (
        GapWords("who", "I record", _who(brief), False, _WHO),
        GapWords(
            "where",
            "who are",
            _PLACINGS[brief.placing or SourcePlacing.SITTING],
            brief.placing is None,
            tuple(_PLACINGS.values()),
        ),
        GapWords(
            "microphones",
            "with",
            _microphones(brief, own),
            brief.microphones is None,
            (*_MICROPHONE_SETS, *mine[DeviceKind.MICROPHONE]),
        ),
        GapWords(
            "recorder",
            "into",
            _recorder(brief, own),
            brief.recorders is None,
            (*_RECORDER_SETS, *mine[DeviceKind.RECORDER]),
        ),
        GapWords(
            "cameras",
            "picture on",
            _cameras(brief, own),
            brief.cameras is None,
            (*_CAMERA_SETS, *mine[DeviceKind.CAMERA]),
        ),
        GapWords(
            "devices", "also at hand:", _devices(brief, own), not (brief.devices or brief.no_timecode), _DEVICE_SETS
        ),
        GapWords(
            "once",
            "It happens",
            "more than once" if not brief.once else "once",
            brief.once is None,
            ("once", "more than once"),
        ),
        GapWords(
            "crew", "I work", "alone" if brief.alone else "with a crew", brief.alone is None, ("alone", "with a crew")
        ),
        GapWords(
            "delivery",
            "and it is",
            _DELIVERIES[brief.delivery or Delivery.LATER],
            brief.delivery is None,
            tuple(_DELIVERIES.values()),
        ),
        GapWords("matters", "What matters most:", _matters(brief), not _matters_said(brief), _MATTERS),
    )


def question(brief: Brief, own: Mapping[str, DeviceClass]) -> str:
    """The question in one line, as it can be typed: what was said, and nothing of what is usual."""
    return ", ".join(gap.phrase for gap in gaps(brief, own) if not gap.is_open)


_PLACINGS: Final[Mapping[SourcePlacing, str]] = {
    SourcePlacing.SITTING: "sitting",
    SourcePlacing.WALKING: "walking",
    SourcePlacing.FAR: "at a distance",
}
_DELIVERIES: Final[Mapping[Delivery, str]] = {
    Delivery.LATER: "edited later",
    Delivery.TONIGHT: "delivered tonight",
    Delivery.LIVE: "live",
}
_WHO: Final = (
    "one person talking",
    "two people talking",
    "three people talking",
    "four people talking",
    "six people talking",
    "music",
    "effects",
)
_MICROPHONE_SETS: Final = (
    "lavaliers on radio",
    "lavaliers on radio and a boom",
    "clip-on radio sets",
    "lavaliers",
    "a boom",
    "handheld microphones",
    "an on-camera microphone",
    "two pencil condensers",
)
_RECORDER_SETS: Final = (
    "bag recorder",
    "handheld recorder",
    "pocket recorder",
    "body-worn recorder",
    "computer",
    "no recorder",
)
_CAMERA_SETS: Final = (
    "1 camera, mic socket only",
    "1 camera, mic/line input",
    "1 camera, XLR",
    "1 cinema camera",
    "1 camera, timecode socket",
    "a phone",
    "2 cameras, mic socket only",
    "2 cameras, XLR",
    "2 cinema cameras",
    "no camera",
)
_DEVICE_SETS: Final = (
    "nothing else",
    "a preamp box",
    "a field mixer",
    "a desk mixer",
    "two timecode boxes",
    "no timecode",
    "a live switcher",
)
_MATTERS: Final = (
    "nothing more",
    "separate tracks",
    "small and quick",
    "the mix in the camera too",
    "separate tracks, small and quick",
)


def _who(brief: Brief) -> str:
    if brief.subject is not Subject.TALK:
        return "music" if brief.subject is Subject.MUSIC else "effects"
    return "one person talking" if brief.people == 1 else f"{_NUMBERS[brief.people]} people talking"


def _microphones(brief: Brief, own: Mapping[str, DeviceClass]) -> str:
    if brief.microphones is None:
        return "what is usual"
    counts = Counter(brief.microphones)
    return listed([_microphone(item, count, own) for item, count in counts.items()])


def _microphone(item: Microphone, count: int, own: Mapping[str, DeviceClass]) -> str:
    names = _MICROPHONES.get(item.class_id) or (_own_name(item.class_id, own),) * 2
    is_radio = item.by_radio and item.class_id != "clip-on-transmitter"
    return f"{_counted(names, count)}{' on radio' if is_radio else ''}"


def _recorder(brief: Brief, own: Mapping[str, DeviceClass]) -> str:
    if brief.recorders is None:
        return "whatever suits"
    return _several(brief.recorders, _RECORDERS, own, has_article=False) or "no recorder"


def _devices(brief: Brief, own: Mapping[str, DeviceClass]) -> str:
    found = _several(brief.devices, _DEVICES, own, has_article=True)
    return ", ".join(filter(None, (found, "no timecode" if brief.no_timecode else ""))) or "nothing else"


def _cameras(brief: Brief, own: Mapping[str, DeviceClass]) -> str:
    if brief.cameras is None:
        return "1 camera, mic socket only"
    found = []
    for class_id, count in Counter(brief.cameras).items():
        if class_id in _SOCKETS:
            found.append(f"{many(count, 'camera')}, {_SOCKETS[class_id]}")
        elif class_id == "phone-camera":
            found.append(_counted(_CAMERAS[class_id], count))
        else:
            names = _CAMERAS.get(class_id) or (_own_name(class_id, own),) * 2
            found.append(f"{count} {names[count > 1]}")
    return listed(found) if found else "no camera"


def _matters_said(brief: Brief) -> list[str]:
    said = {
        "separate tracks": brief.separate,
        "small and quick": brief.small,
        "the mix in the camera too": brief.in_camera,
    }
    return [words for words, is_said in said.items() if is_said]


def _matters(brief: Brief) -> str:
    return ", ".join(_matters_said(brief)) or "nothing more"


def _several(
    classes: Sequence[str], names: Mapping[str, tuple[str, str]], own: Mapping[str, DeviceClass], *, has_article: bool
) -> str:
    counts = Counter(classes)
    found = [
        _counted(names.get(class_id) or (_own_name(class_id, own),) * 2, count)
        if count > 1 or has_article
        else (names.get(class_id) or (_own_name(class_id, own),))[0]
        for class_id, count in counts.items()
    ]
    return listed(found) if found else ""


def _counted(names: Sequence[str], count: int) -> str:
    if count > 1:
        return f"{_NUMBERS[count] if count < len(_NUMBERS) else count} {names[1]}"
    return f"{'an' if names[0][0] in 'aeiou' else 'a'} {names[0]}"


def _own_name(class_id: str, own: Mapping[str, DeviceClass]) -> str:
    """By its whole name, as it is found by it again: without commas, which part one thing from the next."""
    if class_id in own:
        return own[class_id].label
    return built_in().devices[class_id].label.lower().replace(",", "")


def problem_words(problem: BriefProblem) -> str:
    """What of a question could not be answered as it was put, and what would work."""
    return _PROBLEMS[problem.code](**problem.facts)


def _not_understood(words: str) -> str:
    if re.search(r"\bmic(?:rophone)?s?$", words):
        return f"Not understood: {words}. Say which: lavaliers on radio, a boom, handheld or condenser microphones."
    return f"Not understood: {words}. My equipment and the list of devices show what has a name here."


def _too_many(what: str, said: int, most: int) -> str:
    return f"{said} {what} are more than one rig here is planned for: this is the answer for {most}. Plan the others in the job, one by one."


def _too_few_microphones(people: int, microphones: int) -> str:
    return (
        f"{people} people, and {microphones} microphones that are worn or held: this is the answer for {microphones}. Add a boom, which "
        "hears everybody, or more microphones."
    )


def _aes3_into_analogue(class_id: str) -> str:
    label = built_in().devices[class_id].label if class_id in built_in().devices else "This camera"
    return (
        f"AES3 is digital, and {label[:1].lower()}{label[1:]} takes analogue sound only. This is the answer with an analogue output; "
        "AES3 needs a camera that has such an input, as a cinema camera with XLR-5 has."
    )


_PROBLEMS: Final[Mapping[str, Callable[..., str]]] = {
    "not-understood": _not_understood,
    "too-many": _too_many,
    "too-few-microphones": _too_few_microphones,
    "aes3-into-analogue": _aes3_into_analogue,
}


NO_RIG: Final = "No rig records everybody with this without a fault: name a recorder or mixer with more inputs, another camera, or fewer microphones."


def other_recorder_words(brief: Brief, own: Mapping[str, DeviceClass], titles: Sequence[str]) -> str:
    """Why some rigs use another recorder than was said."""
    said = "With no recorder" if not brief.recorders else f"With the {_recorder(brief, own)}"
    return f"{said} there is little choice for this. On another recorder: {listed([f'“{title}”' for title in titles])}."


class RowWords(NamedTuple):
    """A row of the comparison: `cells` one for each rig; `marks`, less is better, tell which of them stand out."""

    id: str
    label: str
    cells: tuple[str, ...]
    marks: tuple[tuple[float, ...], ...]


def rows(rigs: Sequence[Rig]) -> tuple[RowWords, ...]:
    """What tells rigs from each other, row by row. Source of the rows: [HANDBOOK] §13"""
    return tuple(
        RowWords(row, label, tuple(map(cell, rigs)), tuple(map(mark, rigs))) for row, label, cell, mark in _ROWS
    )


def _tracks(rig: Rig) -> str:
    found, index = rig.figures, rig.built.report.index
    mixes = "and a mix" if found.mixed and found.apart else "one mix" if found.mixed else ""
    apart = f"{found.apart}" if found.apart else ""
    told = ", ".join(filter(None, (apart, mixes)))
    left = f"no {listed([index.placed(name).label for name in found.left_out])}" if found.left_out else ""
    return ", ".join(filter(None, (told, left)))


def _failing(rig: Rig) -> str:
    found, index = rig.figures, rig.built.report.index
    if found.copies < 2:
        return "nothing is left" if found.copies else "not everybody is recorded"
    if not found.shared:
        return "the other still has it"
    recorders = [name for name in found.shared if name in found.pressed]
    if recorders:
        names = listed([index.placed(name).label for name in recorders])
        return f"the other still has it; without power at {names} both stop"
    return "the other still has it, as long as the radio holds"


def _noise(rig: Rig) -> str:
    found = rig.figures
    told = _under(found.under_room_db)
    if found.copy_under_room_db < AUDIBLE_DB:
        return f"{told}; second recording: {_under(found.copy_under_room_db)}"
    return told


def _under(under_db: float) -> str:
    if under_db >= AUDIBLE_DB:
        return "room noise dominates"
    if under_db >= 0:
        return f"gear {whole(under_db)} dB below the room noise"
    return f"gear {whole(-under_db)} dB above the room noise: hiss in pauses"


def _headroom(rig: Rig) -> str:
    headroom_db = rig.figures.headroom_db
    return "no limit" if not math.isfinite(headroom_db) else f"{whole(headroom_db)} dB above the expected peaks"


def _listening(rig: Rig) -> str:
    found, index = rig.figures, rig.built.report.index
    heard = listed([index.placed(name).label for name in found.heard]) if found.heard else ""
    unheard = listed([index.placed(name).label for name in found.unheard]) if found.unheard else ""
    if not heard:
        return f"nothing live at {unheard}: record a test and play it back"
    return f"{heard}; {unheard} by a test recording" if unheard else heard


def _setting(rig: Rig) -> str:
    found, index = rig.figures, rig.built.report.index
    pressed = listed([index.placed(name).label for name in found.pressed]) if found.pressed else "nothing"
    told = [many(found.settings, "setting"), f"record on {pressed}"]
    told += (
        [f"automatic level off at {listed([index.placed(name).label for name in found.automatic_off])}"]
        if found.automatic_off
        else []
    )
    told += [many(found.jams, "jam")] if found.jams else []
    return "; ".join(told)


def _to_get(rig: Rig) -> str:
    found, index = rig.figures, rig.built.report.index
    devices = {index.class_of(name).label: (count, index.class_of(name).cost) for name, count in found.to_get}
    cables = {label: (count, USUAL_CABLE_COST) for label, count in Counter(map(_cable, found.cables_to_get)).items()}
    told = [
        f"{f'{count} × ' if count > 1 else ''}{label}{f' ({cost})' if cost else ''}"
        for label, (count, cost) in {**devices, **cables}.items()
    ]
    return "; ".join(told) or "–"


def _cable(lead: LeadClass) -> str:
    return lead.label


def _edit(rig: Rig) -> str:
    found = rig.figures
    told = [] if found.sync is SyncMethod.NONE else ["syncing"]
    told += ["mixing the tracks"] if found.apart > 1 else []
    two_sides = rig.approach is Approach.STRAIGHT and found.apart > 1
    told += ["splitting the camera's stereo clip into two mono tracks"] if two_sides else []
    return listed(told) if told else "nothing"


def _risks(rig: Rig) -> str:
    first = {item.finding.rule: headline(item) for item in reversed(rig.figures.cautions)}
    return "; ".join(reversed(first.values())) or "–"


def _step(margin_db: float, plenty_db: float) -> float:
    """Plenty, enough, or not: differences within one of these decide nothing."""
    return 0 if margin_db >= plenty_db else 1 if margin_db >= 0 else 2


_Cell = Callable[[Rig], str]
_Mark = Callable[[Rig], tuple[float, ...]]
_ROWS: Final[tuple[tuple[str, str, _Cell, _Mark], ...]] = (
    ("tracks", "Tracks kept apart", _tracks, lambda rig: (len(rig.figures.left_out), -rig.figures.apart)),
    ("failing", "If one device fails", _failing, lambda rig: (-rig.figures.copies, bool(rig.figures.shared))),
    (
        "sync",
        "Sync afterwards",
        lambda rig: _SYNC[rig.figures.sync],
        lambda rig: (list(SyncMethod).index(rig.figures.sync),),
    ),
    ("noise", "Noise in pauses", _noise, lambda rig: (_step(rig.figures.under_room_db, AUDIBLE_DB),)),
    (
        "headroom",
        "Headroom",
        _headroom,
        lambda rig: (_step(rig.figures.headroom_db - SAME_DB, ENOUGH_HEADROOM_DB),),
    ),
    ("listening", "You can listen at", _listening, lambda rig: (len(rig.figures.unheard), -len(rig.figures.heard))),
    (
        "setting",
        "To set and to remember",
        _setting,
        lambda rig: (rig.figures.settings + len(rig.figures.pressed) + rig.figures.jams,),
    ),
    ("to-get", "To get, with cost class from 1 to 5", _to_get, lambda rig: (rig.figures.cost,)),
    ("edit", "Left for the edit", _edit, lambda rig: (_edit(rig).count(" and ") + (_edit(rig) != "nothing"),)),
    ("risks", "What can go wrong", _risks, lambda rig: (0,)),
)


def reason(rig: Rig, wishes: frozenset[Wish]) -> str:
    """What a rig gives and costs, and which wishes it does not meet."""
    unmet = [WISHES[wish] for wish in Wish if wish in wishes and wish not in rig.met]
    return WHY[rig.approach] + (f" Against it: {'; '.join(unmet)}." if unmet else "")


def job_name(brief: Brief) -> str:
    """What a job is called that begins with a rig: `Two people talking`."""
    return begun(_who(brief))
