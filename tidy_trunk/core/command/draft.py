"""A plan that is put together step by step: devices added and joined, with the edits that did it."""

from collections.abc import Callable, Iterator, Sequence

from tidy_trunk.core.command.connect import plain_run, propose_runs
from tidy_trunk.core.command.words import DeviceMatch, split_words
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.plan import AddDevice, Edit, Plan, PlanIndex, PortRef, edited


class Draft:
    """A plan, and the edits by which it came from another one."""

    def __init__(self, plan: Plan) -> None:
        self.start = plan
        self.plan = plan
        self.edits: tuple[Edit, ...] = ()
        self._receiver = ""  # the last that was added for a radio: it may have another aerial

    @property
    def index(self) -> PlanIndex:
        return PlanIndex(self.plan)

    def copy(self) -> "Draft":
        twin = Draft(self.start)
        twin.plan, twin.edits, twin._receiver = self.plan, self.edits, self._receiver
        return twin

    def do(self, *edits: Edit) -> None:
        """Raises PlanError or InputError where they cannot be done; then nothing is."""
        self.plan = edited(self.plan, edits)
        self.edits = (*self.edits, *edits)

    def add(self, class_id: str, label: str | None = None) -> str:
        """A device of a class; its id."""
        self.do(AddDevice(class_id=class_id, label=label))
        *_, added = self.plan.devices
        return added

    @property
    def last_source(self) -> str:
        """The id of the source that was added last."""
        *_, added = self.plan.sources
        return added

    def by_radio(self, microphone: str, receivers: Sequence[str] = ()) -> str:
        """The receiver that a microphone reaches by radio: that of the one before, while it has an aerial left, else one that is
        added; its transmitter too, where it is none itself. receivers: classes, one for each that is at hand."""
        placed = self.index.placed(microphone)
        is_clip_on = placed.device_class.kind is DeviceKind.TRANSMITTER
        transmitter = microphone
        if not is_clip_on:
            is_xlr = placed.device_class.outputs[0].plug.connector == "xlr3"
            transmitter = self.add(
                "plug-on-transmitter" if is_xlr else "bodypack-transmitter", f"{placed.label} transmitter"
            )
            self.join(microphone, transmitter)
        if self._receiver and self.join(transmitter, self._receiver):
            return self._receiver
        used = sum(self.index.placed(device).device_class.kind is DeviceKind.RECEIVER for device in self.plan.devices)
        usual = "clip-on-receiver" if is_clip_on else "receiver-one"
        class_id = receivers[used] if used < len(receivers) else usual
        self._receiver = self.add(class_id, f"{placed.label} receiver")
        self.join(transmitter, self._receiver)
        return self._receiver

    def join(self, sender: str, receiver: str, *, output: str = "") -> bool:
        """Whether a cable goes from a device to the first input of another that is free and that one is right for; then it is
        there, with the switches that a microphone needs and nothing else set. output: words for the port."""
        return self._join(sender, receiver, output, lambda *ends: plain_run(self.plan, *ends))

    def join_matched(self, sender: str, receiver: str, *, output: str = "") -> bool:
        """The same with everything set as the first answer to a typed line sets it; never with a stop, nor by way of a device
        that nobody has added."""
        return self._join(sender, receiver, output, self._answered)

    def _join(
        self, sender: str, receiver: str, output: str, run: Callable[[DeviceMatch, DeviceMatch], tuple[Edit, ...]]
    ) -> bool:
        index = self.index
        start = DeviceMatch(index.placed(sender), tuple(split_words(output)))
        for words in [*self._free(receiver), ""]:
            edits = run(start, DeviceMatch(index.placed(receiver), tuple(split_words(words))))
            if edits:
                self.do(*edits)
                return True
        return False

    def _answered(self, sender: DeviceMatch, receiver: DeviceMatch) -> tuple[Edit, ...]:
        for answer in propose_runs(self.plan, sender, receiver, None):
            if not answer.stops and not any(isinstance(edit, AddDevice) for edit in answer.edits):
                return answer.edits
        return ()

    def _free(self, receiver: str) -> Iterator[str]:
        """Labels of the inputs of a device that nothing is plugged into."""
        index = self.index
        for port in index.placed(receiver).device_class.inputs:
            if not index.arriving.get(PortRef(receiver, port.id)):
                yield port.label
