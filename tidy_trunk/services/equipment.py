"""My equipment: classes of one's own that belong to no job, taken into jobs, and kept from them."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from enum import StrEnum
from typing import Any, Final
from uuid import UUID

from tidy_trunk.core.base.text import is_plain, spelled
from tidy_trunk.core.command import say
from tidy_trunk.core.gear.catalogue import (
    LONGEST_LABEL,
    DeviceClass,
    LawPoint,
    LeadClass,
    built_in,
    own_label,
    with_laws,
)
from tidy_trunk.core.plan import AddDevice, Plan, apply_edits, with_meter
from tidy_trunk.core.sound.levels import SENDERS, Datasheet, Report, SignalLevels, mode_of_datasheet
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.equipment import (
    MOST_CLASSES,
    CableClassModel,
    DeviceClassModel,
    mode_document,
    read_archive,
    read_class,
    read_document,
    read_mode,
    write_archive,
    write_class,
)
from tidy_trunk.errors import FormatError, InputError, NotFoundError
from tidy_trunk.services.jobs import JobService, JobState, taken_into_job
from tidy_trunk.store import EquipmentRecord, EquipmentStore

TONE_FROM: Final = "field-mixer"
"""ASSUMED_ built-in class that sends tone to what is tested, where nothing of one's own does."""

LONGEST_ID: Final = 61
"""ASSUMED_ longest id, as the format of a class has it."""

EquipmentClass = DeviceClass | LeadClass


class Original(StrEnum):
    """How a job's copy of a class stands to the one in My equipment."""

    SAME = "same"
    CHANGED = "changed"  # one of them has changed since
    NONE = "none"  # it is only in the job


@dataclass(frozen=True, slots=True)
class OwnClass:
    """A class in My equipment."""

    item: EquipmentClass
    changed: datetime


@dataclass(frozen=True, slots=True)
class JobClass:
    """A class of the user's own in a job. `used_by`: ids of the devices of it, or of the cables it is part of."""

    item: EquipmentClass
    used_by: tuple[str, ...]
    original: Original


@dataclass(frozen=True, slots=True)
class TrackMoved:
    """A track of a job before and after a class is described anew."""

    label: str
    before: SignalLevels
    after: SignalLevels


class EquipmentService:
    """One method for one thing that a user does with equipment of his own."""

    def __init__(
        self, jobs: JobService, store: EquipmentStore, now: Callable[[], datetime] = lambda: datetime.now(UTC)
    ) -> None:
        self._jobs = jobs
        self._store = store
        self._now = now

    def all(self) -> list[OwnClass]:
        """All of it, by name."""
        found = [OwnClass(_item(record), record.changed) for record in self._store.all()]
        return sorted(found, key=lambda own: own.item.label.lower())

    def get(self, class_id: str) -> OwnClass:
        """Raises NotFoundError: no such class."""
        record = self._store.get(class_id)
        return OwnClass(_item(record), record.changed)

    def begin_from(self, class_id: str) -> EquipmentClass:
        """A built-in class under an id and a name of one's own, to begin from. Raises NotFoundError: no such class."""
        known = built_in()
        item = known.devices.get(class_id) or known.leads.get(class_id)
        if item is None:
            raise NotFoundError(f"there is no built-in class '{class_id}'")
        return replace(item, id=f"my-{item.id}"[:LONGEST_ID], label=own_label(item.label, ()))

    def save(self, files: Sequence[tuple[str, bytes | Mapping[str, Any]]]) -> list[OwnClass]:
        """Files of classes, each with its name: all of them are taken, or none. What has such an id already is replaced.

        Raises:
            FormatError: A file that is none of a class: which one, where, and what works.
            InputError: No file, too many, two with one id, or the id of a built-in class.
        """
        if not 0 < len(files) <= MOST_CLASSES:
            raise InputError(f"choose between 1 and {MOST_CLASSES} files at once, not {len(files)}")
        found: dict[str, tuple[str, EquipmentClass]] = {}
        for name, data in files:
            item = self.read(data, name)
            if item.id in found:
                raise InputError(
                    f"{name} and {found[item.id][0]} have the same id, {item.id}: give one of them another"
                )
            found[item.id] = (name, item)
        now = self._now()
        self._store.put([EquipmentRecord(id=item.id, body=_body(item), changed=now) for _, item in found.values()])
        return [OwnClass(item, now) for _, item in found.values()]

    def read(self, data: bytes | Mapping[str, Any], name: str) -> EquipmentClass:
        """The class in a file, or in its values, with nothing kept. Raises FormatError, InputError as `save`."""
        item = read_class(data, name) if isinstance(data, bytes) else read_document(data, name)
        if item.id in built_in().devices or item.id in built_in().leads:
            raise InputError(f"{name}: a built-in class has the id '{item.id}': choose another, such as my-{item.id}")
        if not (item.label.strip() and is_plain(item.label)):
            raise FormatError(f"{name}: label: must be printable characters")
        return item

    def from_datasheet(self, mode: Mapping[str, Any], sheet: Datasheet) -> dict[str, Any]:
        """A position of an input, as the values of its file, with what a manual says. Raises FormatError, InputError."""
        return mode_document(mode_of_datasheet(sheet, read_mode(mode)))

    def file(self, class_id: str) -> bytes:
        """A class as a file. Raises NotFoundError: no such class."""
        return write_class(self.get(class_id).item)

    def archive(self) -> bytes:
        """All of it in one file."""
        return write_archive(own.item for own in self.all())

    def save_archive(self, data: bytes, name: str) -> list[OwnClass]:
        """All classes of such a file, or none. Raises FormatError, InputError as `save`."""
        return self.save(read_archive(data, name))

    def delete(self, class_id: str) -> None:
        """Jobs keep their copies. Raises NotFoundError: no such class."""
        self._store.delete(class_id)

    def test_job(self, class_id: str, job_id: UUID | None = None) -> JobState:
        """A job in which a device can be tested: with a device that sends it tone, one of the user's own where there is one.

        Raises:
            NotFoundError: No such class.
            InputError: A cable: it is tested between two devices.
        """
        item = self.get(class_id).item
        if not isinstance(item, DeviceClass):
            raise InputError("a cable is tested in a job, between two devices that it joins")
        own = (found.item for found in self.all() if isinstance(found.item, DeviceClass) and found.item.id != item.id)
        sender = next((other for other in own if other.kind in SENDERS and other.feeds), None)
        name = spelled(item.kind)
        edits = [
            *(taken_into_job(taken) for taken in (item, sender) if taken is not None),
            AddDevice(class_id=item.id, label=name),
            AddDevice(class_id=TONE_FROM if sender is None else sender.id, label="tone"),
        ]
        plan = apply_edits(Plan(name=f"Test of {item.label}"[:LONGEST_LABEL]), edits)
        joined = say(plan, f"tone to {name}").proposals
        if joined and not joined[0].stops:
            plan = apply_edits(plan, joined[0].edits)
        return self._jobs.create(plan, f"Test of {item.label}", job_id)

    def in_job(self, job_id: UUID) -> list[JobClass]:
        """The classes of the user's own in a job, each held against its original."""
        plan = self._jobs.newest(job_id).evaluation.plan
        originals = {record.id: _item(record) for record in self._store.all()}

        def stands(item: EquipmentClass) -> Original:
            if item.id not in originals:
                return Original.NONE
            return Original.SAME if originals[item.id] == _measured(plan, item) else Original.CHANGED

        def used_by(item: EquipmentClass) -> tuple[str, ...]:
            if isinstance(item, DeviceClass):
                return tuple(key for key, device in plan.devices.items() if device.class_id == item.id)
            return tuple(key for key, run in plan.runs.items() if any(part.lead == item.id for part in run.parts))

        return [JobClass(item, used_by(item), stands(item)) for item in own_classes(plan).values()]

    def try_in_job(self, job_id: UUID, data: bytes | Mapping[str, Any], name: str) -> list[TrackMoved]:
        """What another description of a class does to the levels of a job that uses it; nothing where none does.

        Raises:
            FormatError, InputError: As `save`. PlanError: The job cannot be with it, and why.
        """
        item = self.read(data, name)
        before = self._jobs.newest(job_id).evaluation
        if item.id not in own_classes(before.plan):
            return []
        report = Report(trace_plan(apply_edits(before.plan, [taken_into_job(item)])))
        found = []
        for track in before.report.tracks:
            after = report.track(track.trace.id)
            if after is not None and not (track.is_silent and after.is_silent):
                placed = before.index.placed(track.trace.device)
                found.append(TrackMoved(placed.bus_label(track.trace.bus), track.sound, after.sound))
        return found

    def keep(self, job_id: UUID, class_id: str) -> OwnClass:
        """A class of a job into My equipment, with what was measured of its knobs. Raises NotFoundError: no such class."""
        plan = self._jobs.newest(job_id).evaluation.plan
        item = own_classes(plan).get(class_id)
        if item is None:
            raise NotFoundError(f"the job has no class '{class_id}' of your own")
        (kept,) = self.save([(item.label, write_class(_measured(plan, item)))])
        return kept


def own_equipment(store: EquipmentStore) -> list[EquipmentClass]:
    """The classes in My equipment."""
    return [_item(record) for record in store.all()]


def plan_of_own(store: EquipmentStore) -> Plan:
    """An empty job that knows the classes in My equipment."""
    items = own_equipment(store)
    return Plan(
        name="My equipment",
        classes={item.id: item for item in items if isinstance(item, DeviceClass)},
        leads={item.id: item for item in items if isinstance(item, LeadClass)},
    )


def own_classes(plan: Plan) -> dict[str, EquipmentClass]:
    """A job's classes of the user's own, of devices and of cables."""
    return {**plan.classes, **plan.leads}


def _measured(plan: Plan, item: EquipmentClass) -> EquipmentClass:
    if not isinstance(item, DeviceClass):
        return item
    laws: Mapping[str, Sequence[LawPoint]] = {
        law.control: law.points for law in plan.gain_laws.values() if law.class_id == item.id
    }
    meter = plan.meters.get(item.id)
    return with_laws(item if meter is None else with_meter(item, meter), laws)


def _body(item: EquipmentClass) -> dict[str, object]:
    model = DeviceClassModel if isinstance(item, DeviceClass) else CableClassModel
    return model.from_core(item).model_dump(mode="json", exclude_defaults=True)


def _item(record: EquipmentRecord) -> EquipmentClass:
    model = CableClassModel if "ways" in record.body else DeviceClassModel
    item: EquipmentClass = model.model_validate(record.body).to_core()
    return item
