"""Each way to work, built from a brief as a real plan: devices, cables, switches and knobs."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Final

from tidy_trunk.core.advice.adviser import Adviser, Move, gain_plan
from tidy_trunk.core.advice.checks import Severity
from tidy_trunk.core.advice.options import AS_IT_IS
from tidy_trunk.core.command import Draft
from tidy_trunk.core.gear.catalogue import (
    FAR_M,
    WORN_M,
    Circuit,
    DeviceClass,
    DeviceKind,
    Signal,
    Supply,
    built_in,
    usual_distance_m,
)
from tidy_trunk.core.plan import (
    EFFORTS_DB_SPL,
    AddSource,
    Plan,
    PlanIndex,
    SaveClass,
    SetJam,
    SetSource,
    Weighting,
    edited,
)
from tidy_trunk.core.rigs.brief import Brief, Microphone, SourcePlacing, Subject
from tidy_trunk.core.rigs.owned import own_camera, own_recorder
from tidy_trunk.core.rigs.vocabulary import ON_THE_BODY, WORN
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan

MUSIC_DB_SPL: Final = 85.0
"""ASSUMED_ average of music at 1 m, unweighted: a small band without amplifiers."""

EFFECTS_DB_SPL: Final = 70.0
"""ASSUMED_ average of effects at 1 m, unweighted."""

SHOE_INPUTS: Final = 2
"""Microphones that a preamp box takes; for more it is a mixer. [PRACTICE]"""


RIG: Final = "Rig"
"""ASSUMED_ name of a job that nobody has named yet."""


LABELS_FROM: Final = 2
"""Cameras from which timecode is worth its boxes; one that has only a microphone socket is better fed with sound. [HANDBOOK] §8"""

BODY_RECORDER: Final = "float-recorder"
"""What each person wears, with a lavalier. [PRACTICE]"""

SMALL_AND_LARGE: Final = ("handheld-recorder", "bag-recorder")
"""Recorders that are taken where none is named: with two inputs, and with eight. [PRACTICE]"""

LAVALIER_ADAPTER: Final = "lavalier-adapter"
"""What gives a lavalier its power out of 48 V. [HANDBOOK] §5"""

TIMECODE_BOX: Final = "timecode-generator"
"""What is clipped to a device and gives it time. [PRACTICE]"""


class Approach(StrEnum):
    """Ways to work. Source: [HANDBOOK] §13"""

    STRAIGHT = "straight"  # microphones straight into the camera
    PREAMP = "preamp"  # by a preamp box or mixer into the camera
    RECORDER = "recorder"  # on a recorder alone, synced afterwards
    FEED = "feed"  # on a recorder, and its output into the camera
    TIMECODE = "timecode"  # on a recorder, and its timecode on the camera
    BODY_WORN = "body-worn"  # on a recorder that each person wears


@dataclass(frozen=True, slots=True)
class Built:
    """A way to work as a plan. microphones: the devices that hear, in the order of the brief, whether a track has them or not."""

    approach: Approach
    report: Report
    microphones: tuple[str, ...]

    @property
    def plan(self) -> Plan:
        return self.report.index.plan


@dataclass(frozen=True, slots=True)
class _Sources:
    """Everybody who is heard, at their microphones. ends: devices from which sound goes on, as often as they have channels."""

    draft: Draft
    microphones: tuple[str, ...]
    ends: tuple[str, ...]


class Builder:
    """Builds ways to work for one brief; what they have in common is built once."""

    def __init__(self, brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> None:
        self._brief = brief
        self._own, self._lying = own, lying
        self._microphones = usual_microphones(brief) if brief.microphones is None else brief.microphones
        self._recorded: dict[str, tuple[Draft, str] | None] = {}
        self._cameras = (own_camera(own, lying) or "mirrorless-mic",) if brief.cameras is None else brief.cameras

    def build(self, approach: Approach) -> Built | None:
        """A plan without a stop; None where it cannot be done with what the brief names, or is no other way than one before."""
        makers: Mapping[Approach, Callable[[], tuple[Draft, tuple[str, ...]] | None]] = {
            Approach.STRAIGHT: self._straight,
            Approach.PREAMP: self._by_preamp,
            Approach.RECORDER: self._recorder_alone,
            Approach.FEED: self._with_feed,
            Approach.TIMECODE: self._with_timecode,
            Approach.BODY_WORN: self._body_worn,
        }
        made = makers[approach]()
        if made is None:
            return None
        draft, microphones = made
        planned = edited(draft.plan, gain_plan(Report(trace_plan(draft.plan))).edits)
        adviser = _matched(_settled(Adviser(Report(trace_plan(planned)))))
        report = adviser.report
        if any(finding.severity is Severity.STOP for finding in adviser.findings) or _is_another_way(
            draft, adviser.plan
        ):
            return None
        return Built(approach, report, microphones) if any(track.is_reached for track in report.tracks) else None

    # What is heard

    @cached_property
    def _sources(self) -> _Sources:
        draft = self._empty()
        microphones, ends = [], []
        receivers = [item for item in self._brief.devices if self._class_of(item).kind is DeviceKind.RECEIVER]
        for item, label in zip(self._microphones, _labels(self._microphones, self._class_of), strict=True):
            microphone = draft.add(item.class_id, label)
            microphones.append(microphone)
            ends.append(draft.by_radio(microphone, receivers) if self._goes_by_radio(item) else microphone)
        self._place(draft, microphones)
        return _Sources(draft, tuple(microphones), tuple(ends))

    def _empty(self) -> Draft:
        named = (
            *(item.class_id for item in self._microphones),
            *self._recorder_classes,
            *self._cameras,
            *self._brief.devices,
        )
        draft = Draft(Plan(name=RIG))
        draft.do(*(SaveClass(device_class=self._own[name]) for name in dict.fromkeys(named) if name in self._own))
        return draft

    def _class_of(self, class_id: str) -> DeviceClass:
        return self._own.get(class_id) or built_in().devices[class_id]

    def _goes_by_radio(self, item: Microphone) -> bool:
        """Who walks about and wears a microphone wears a transmitter too."""
        can = self._class_of(item.class_id).outputs[0].circuit is not Circuit.USB
        return can and (item.by_radio or (self._brief.placing is SourcePlacing.WALKING and item.class_id in WORN))

    def _place(self, draft: Draft, microphones: list[str]) -> None:
        """Sources at the microphones: each person at one that is worn, all of them at each that is not."""
        brief = self._brief
        worn = [name for name, item in zip(microphones, self._microphones, strict=True) if item.class_id in WORN]
        for at in range(brief.people):
            heard_by = {
                name: self._distance_m(draft.index.placed(name).device_class)
                for name in microphones
                if name not in worn or (at < len(worn) and name == worn[at])
            }
            draft.do(_source(brief, at, heard_by))
            if brief.once:
                draft.do(SetSource(source=draft.last_source, irreplaceable=True))

    def _distance_m(self, item: DeviceClass) -> float:
        is_near = item.id in WORN or self._brief.placing is not SourcePlacing.FAR
        return usual_distance_m(item) if is_near else FAR_M

    def _with_pictures(self, draft: Draft) -> list[str]:
        """The cameras, added; what their sound would go into: a switcher, where there is one."""
        cameras = _with_cameras(draft, self._cameras)
        return self._with_switcher(draft, cameras) or cameras

    def _with_switcher(self, draft: Draft, cameras: list[str]) -> list[str]:
        switchers = [item for item in self._brief.devices if self._class_of(item).kind is DeviceKind.SWITCHER]
        if not switchers:
            return []
        switcher = draft.add(switchers[0], "Switcher")
        for camera in cameras:
            draft.join(camera, switcher, output="hdmi")
        return [switcher]

    # Ways to work

    def _straight(self) -> tuple[Draft, tuple[str, ...]] | None:
        if not self._cameras:
            return None
        draft = self._sources.draft.copy()
        (first, *_) = self._with_pictures(draft)
        joined = [_joined(draft, end, first) for end in self._sources.ends]
        return (draft, self._sources.microphones) if any(joined) else None

    def _by_preamp(self) -> tuple[Draft, tuple[str, ...]] | None:
        boxes = [
            item for item in self._brief.devices if self._class_of(item).kind in (DeviceKind.PREAMP, DeviceKind.MIXER)
        ]
        usual = "preamp-box" if len(self._sources.ends) <= SHOE_INPUTS else "field-mixer"
        draft = self._sources.draft.copy()
        if not self._cameras:
            return None
        name = boxes[0] if boxes else usual
        box = draft.add(name, "Preamp" if self._class_of(name).kind is DeviceKind.PREAMP else "Mixer")
        joined = [_joined(draft, end, box) for end in self._sources.ends]
        if not any(joined):
            return None
        _plan_gains(draft)
        (first, *_) = self._with_pictures(draft)
        return (draft, self._sources.microphones) if _fed(draft, box, first) else None

    def _on_recorder(self, class_id: str) -> tuple[Draft, str] | None:
        """Everything on a recorder of a class, levels set; and its id."""
        if class_id not in self._recorded:
            self._recorded[class_id] = self._record(class_id)
        found = self._recorded[class_id]
        return None if found is None else (found[0].copy(), found[1])

    def _record(self, class_id: str) -> tuple[Draft, str] | None:
        draft = self._sources.draft.copy()
        recorder = draft.add(class_id, "Recorder")
        joined = [_joined(draft, end, recorder) for end in self._sources.ends]
        if not any(joined):
            return None
        _plan_gains(draft)
        return draft, recorder

    @property
    def _recorder_classes(self) -> tuple[str, ...]:
        """Recorders that would do, the first of them for choice: what was named, else one's own, else the smallest with inputs
        enough."""
        if self._brief.recorders is not None:
            return self._brief.recorders[:1]
        count = len(self._microphones)
        mine = own_recorder(self._own, self._lying, count)
        usual = SMALL_AND_LARGE if count <= SHOE_INPUTS else SMALL_AND_LARGE[1:]
        return usual if mine is None else (mine, *usual)

    def _recorder_alone(self) -> tuple[Draft, tuple[str, ...]] | None:
        for class_id in self._recorder_classes[:1]:
            if (made := self._on_recorder(class_id)) is not None:
                draft, _ = made
                self._with_pictures(draft)
                return draft, self._sources.microphones
        return None

    def _with_feed(self) -> tuple[Draft, tuple[str, ...]] | None:
        for class_id in self._recorder_classes[:1]:
            if (made := self._on_recorder(class_id)) is not None:
                draft, recorder = made
                fed = [_fed(draft, recorder, camera) for camera in self._with_pictures(draft)]
                return (draft, self._sources.microphones) if any(fed) else None
        return None

    def _with_timecode(self) -> tuple[Draft, tuple[str, ...]] | None:
        """Labels are for several cameras, or for one that has a socket for them."""
        if self._brief.no_timecode:
            return None
        sockets = [self._class_of(item) for item in self._cameras if _has_timecode_in(self._class_of(item))]
        if len(self._cameras) < LABELS_FROM and not sockets and TIMECODE_BOX not in self._brief.devices:
            return None
        for class_id in self._recorder_classes if self._cameras else ():
            if not _has_timecode(self._class_of(class_id)) or (made := self._on_recorder(class_id)) is None:
                continue
            draft, recorder = made
            cameras = _with_cameras(draft, self._cameras)
            self._with_switcher(draft, cameras)
            if self._with_boxes(draft, recorder, cameras):
                return draft, self._sources.microphones
        return None

    def _with_boxes(self, draft: Draft, recorder: str, cameras: list[str]) -> bool:
        """Whether a timecode box goes on each camera, jammed from the recorder; from a box on the recorder where that makes none."""
        master = recorder
        if not draft.index.placed(recorder).device_class.traits.makes_timecode:
            master = draft.add(TIMECODE_BOX, "Recorder's timecode box")
            if not draft.join(master, recorder, output="timecode out"):
                return False
        jam = (draft.plan.defaults.day_begins_min,)
        for at, camera in enumerate(cameras):
            box = draft.add(TIMECODE_BOX, f"Timecode box {at + 1}" if cameras[1:] else "Timecode box")
            if not draft.join(box, camera, output="timecode out"):
                return False
            draft.do(SetJam(device=box, giver=master, at_min=jam))
        return True

    def _body_worn(self) -> tuple[Draft, tuple[str, ...]] | None:
        brief = self._brief
        named = brief.recorders is not None and set(brief.recorders) != {BODY_RECORDER}
        worn = brief.microphones is None or any(item.class_id in ON_THE_BODY for item in brief.microphones)
        if brief.subject is not Subject.TALK or brief.placing is SourcePlacing.FAR or named or not worn:
            return None
        draft = self._empty()
        people = range(brief.people)
        microphones = [draft.add("lavalier", f"Lav {at + 1}" if people[1:] else "Lav") for at in people]
        others = tuple(item for item in self._microphones if item.class_id not in ON_THE_BODY)
        unused = [
            draft.add(item.class_id, label) for item, label in zip(others, _labels(others, self._class_of), strict=True)
        ]
        for at, microphone in enumerate(microphones):
            recorder = draft.add(BODY_RECORDER, f"Recorder {at + 1}" if people[1:] else "Recorder")
            draft.join(microphone, recorder)
            draft.do(_source(brief, at, {microphone: WORN_M}))
            if brief.once:
                draft.do(SetSource(source=draft.last_source, irreplaceable=True))
        self._with_pictures(draft)
        return draft, (*microphones, *unused)


def usual_microphones(brief: Brief) -> tuple[Microphone, ...]:
    """What one would take for a job of which nothing is said. [PRACTICE]"""
    if brief.subject is Subject.MUSIC:
        return (Microphone("pencil-condenser"),) * 2
    if brief.subject is Subject.EFFECTS or brief.placing is SourcePlacing.FAR:
        return (Microphone("boom-shotgun"),)
    return (Microphone("lavalier", by_radio=True),) * brief.people


def _labels(microphones: tuple[Microphone, ...], class_of: Callable[[str], DeviceClass]) -> Iterator[str]:
    """Short names, numbered where there are several of a class."""
    short = {
        "lavalier": "Lav",
        "clip-on-transmitter": "Clip-on",
        "boom-shotgun": "Boom",
        "dynamic-handheld": "Hand mic",
        "pencil-condenser": "Mic",
        "on-camera-microphone": "Top mic",
        "usb-microphone": "USB mic",
    }
    counts: dict[str, int] = {}
    for item in microphones:
        name = short.get(item.class_id) or class_of(item.class_id).label.split(",")[0]
        counts[name] = counts.get(name, 0) + 1
        is_one = sum(other.class_id == item.class_id for other in microphones) == 1
        yield name if is_one else f"{name} {counts[name]}"


def _source(brief: Brief, at: int, heard_by: Mapping[str, float]) -> AddSource:
    if brief.subject is Subject.TALK:
        label = f"Person {at + 1}" if brief.people > 1 else "Person"
        return AddSource(label=label, average_db_spl=EFFORTS_DB_SPL["normal"], heard_by=heard_by)
    is_music = brief.subject is Subject.MUSIC
    return AddSource(
        label="Music" if is_music else "Effects",
        average_db_spl=MUSIC_DB_SPL if is_music else EFFECTS_DB_SPL,
        heard_by=heard_by,
        weighting=Weighting.Z,
    )


def _with_cameras(draft: Draft, cameras: tuple[str, ...]) -> list[str]:
    """The cameras, added; their ids."""
    letters = "ABCDEFGH"
    return [
        draft.add(class_id, f"Camera {letters[at]}" if cameras[1:] else "Camera") for at, class_id in enumerate(cameras)
    ]


def _joined(draft: Draft, end: str, receiver: str) -> bool:
    """Whether sound goes from a microphone or a radio into a device; a lavalier by its adapter where that has 48 V alone."""
    if draft.join(end, receiver):
        return True
    feeding = draft.index.placed(end).device_class.feeding
    if feeding is None or Supply.PLUG_IN not in feeding.needs:
        return False
    tried = draft.copy()
    adapter = tried.add(LAVALIER_ADAPTER, f"{tried.index.placed(end).label} adapter")
    if not (tried.join(end, adapter) and tried.join(adapter, receiver)):
        return False
    draft.do(*tried.edits[len(draft.edits) :])
    return True


def _fed(draft: Draft, sender: str, camera: str) -> bool:
    """Whether a mix goes into a camera, on both tracks where it has two inputs; never by the headphone socket beside a line
    output. Into a socket for microphones alone it is matched as the answer to a typed line is;
    everywhere else switches and knobs do it."""
    tried = draft.copy()
    if not tried.join(sender, camera):
        return False
    *_, run = tried.plan.runs.values()
    modes = tried.index.placed(camera).input(run.receiving.port).modes
    if all(mode.signal is Signal.MIC for mode in modes):
        plain = tried.index.placed(sender).output(run.sending.port).label
        tried = draft.copy()
        if not tried.join_matched(sender, camera, output=plain):
            return False
        *_, run = tried.plan.runs.values()
    index, made = tried.index, tried.edits[len(draft.edits) :]
    output, port = index.placed(sender).output(run.sending.port), index.placed(camera).input(run.receiving.port)
    outputs = index.placed(sender).device_class.outputs
    if output.is_headphone and any(other.circuit.is_analogue and not other.is_headphone for other in outputs):
        return False
    draft.do(*made)
    if len(output.channels) == len(port.channels) == 1:
        draft.join(sender, camera)
    return True


def _is_another_way(draft: Draft, plan: Plan) -> bool:
    """Whether what mends a plan has put a box between that belongs to another way to work."""
    index = PlanIndex(plan)
    added = [index.placed(device).device_class.kind for device in plan.devices if device not in draft.plan.devices]
    return any(kind in (DeviceKind.PREAMP, DeviceKind.MIXER, DeviceKind.RECORDER) for kind in added)


def _settled(adviser: Adviser) -> Adviser:
    """With the first fix of each stop and caution taken, the gravest first; what is only worth knowing stays as it is."""
    while True:
        owed = (
            item for item in adviser.findings if item.severity is not Severity.NOTE or item.rule == "no-strain-relief"
        )
        fix = next((fixes[0] for item in owed if (fixes := adviser.fixes(item))), None)
        if fix is None:
            return adviser
        adviser = adviser.after(fix)


def _matched(adviser: Adviser) -> Adviser:
    """With every cable into a camera or a switcher as the job's school matches it best."""
    for run_id, run in adviser.plan.runs.items():
        receiver = adviser.report.index.placed(run.receiving.device)
        if (
            receiver.device_class.kind not in (DeviceKind.CAMERA, DeviceKind.SWITCHER)
            or not receiver.input(run.receiving.port).circuit.is_analogue
        ):
            continue
        best = next(iter(adviser.matching_options(run_id)), None)
        if best is not None and best.id != AS_IT_IS and best.edits:
            adviser = adviser.after(Move((), best.edits))
    return adviser


def _plan_gains(draft: Draft) -> None:
    draft.do(*gain_plan(Report(trace_plan(draft.plan))).edits)


def _has_timecode(item: DeviceClass) -> bool:
    """Whether a recorder gives timecode to others, or takes it from them."""
    makes = item.traits.makes_timecode
    return any(port.circuit is Circuit.TIMECODE for port in (item.outputs if makes else item.inputs))


def _has_timecode_in(item: DeviceClass) -> bool:
    return any(port.circuit is Circuit.TIMECODE for port in item.inputs)
