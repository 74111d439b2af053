"""The options of handbook §6 to make a run's level fit, each as edits on the plan."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final, NamedTuple

from tidy_trunk.core.base.units import combine_tolerances_db
from tidy_trunk.core.gear.catalogue import (
    Circuit,
    InputMode,
    InputPort,
    LeadClass,
    OutputMode,
    OutputPort,
    PadPlace,
    Signal,
    Supply,
    TrimKind,
    built_in,
    mates,
    mode_key,
    pad_key,
    trim_key,
)
from tidy_trunk.core.plan import (
    Edit,
    Message,
    MoveRun,
    Part,
    PlacedDevice,
    PlanIndex,
    PortRef,
    Run,
    SetControl,
    SetParts,
    message,
)
from tidy_trunk.core.sound.cable_chains import SHORT_M, find_cable_chains
from tidy_trunk.core.sound.levels import input_stage_dbu


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """An option before it is computed. `cost` ranks what it takes: 0 a switch, 1 a lead, 2 what takes something away.

    is_now: the option by which the run is matched now, its knob left where it stands.
    """

    id: str
    does: Message
    edits: tuple[Edit, ...]
    needs: Message | None = None
    loses: Message | None = None
    risks: tuple[Message, ...] = ()
    cost: int = 0
    is_pad: bool = False
    is_now: bool = False


AS_IT_IS: Final = "as-it-is"
"""ASSUMED_ id of the way by which a run is matched now."""

PADDED_FROM_DB: Final = 6.0
"""ASSUMED_ loss from which a run counts as attenuated on purpose."""


def candidates(index: PlanIndex, run: Run) -> Iterator[Candidate]:
    """Every option that the devices and the catalogue offer for a run, whether it helps or not. Source: [HANDBOOK] §6"""
    end = RunEnds(index, run)
    yield Candidate(id=AS_IT_IS, does=message("as-it-is", index), edits=(), is_now=True)
    if len(end.sender.timecode_channels(end.output)) == len(end.output.channels):
        return  # every other option would carry something else
    yield from _input_modes(end)
    yield from _output_modes(end)
    yield from _pads(end)
    yield from _trim(end)
    yield from _headphones(end)
    yield from _camera_attenuator(end)
    yield from _aes3(end)
    yield Candidate(id="gain", does=message("only-gain", index, device=run.receiving.device), edits=())


class LevelDifference(NamedTuple):
    """How far a sender's full scale and what an input takes lie apart, in dBu, with the ± of both together in dB."""

    sends_dbu: float
    takes_dbu: float
    doubt_db: float

    @property
    def loss_db(self) -> float:
        """What must be lost between them, doubt included."""
        return self.sends_dbu + self.doubt_db - self.takes_dbu


class RunEnds:
    """Both ends of a run, looked up."""

    def __init__(self, index: PlanIndex, run: Run) -> None:
        self.index, self.run = index, run
        self.sender: PlacedDevice = index.placed(run.sending.device)
        self.receiver: PlacedDevice = index.placed(run.receiving.device)
        self.output: OutputPort = self.sender.output(run.sending.port)
        self.input: InputPort = self.receiver.input(run.receiving.port)
        self.sends: OutputMode = self.sender.output_mode(self.output)
        self.takes: InputMode = self.receiver.input_mode(self.input)

    @property
    def apart(self) -> LevelDifference | None:
        """None where one of them states no full scale in volts."""
        sends, takes = self.sends.full_scale_dbu, self.takes.full_scale_dbu
        if sends is None or takes is None:
            return None
        return LevelDifference(
            sends.value + self.sender.trim_db(self.output, self.sends),
            input_stage_dbu(self.receiver, self.input, self.takes),
            combine_tolerances_db((sends.tolerance, takes.tolerance)),
        )

    @property
    def plain_parts(self) -> tuple[Part, ...]:
        """The run's parts with every pad taken out or exchanged for the plain lead of the same plugs."""
        kept = []
        for part in self.run.parts:
            lead = self.index.lead_of(part)
            plain = part if lead.loss_db is None else _plain_like(lead, part)
            if plain is not None:
                kept.append(plain)
        return tuple(kept)


def _plain_like(lead: LeadClass, part: Part) -> Part | None:
    """The plain twin of a padded lead; None for a barrel, without which the plugs still mate."""
    return replace(part, lead=lead.replaces[0]) if lead.replaces else None


def modes_for(port: InputPort, senders: Sequence[PlacedDevice]) -> list[InputMode]:
    """The modes of an input without those that give a sender, with no switch for it, what it does not need; a microphone
    does not go into a line mode where there is another. [PRACTICE]"""
    found = [mode for mode in port.modes if not any(_forced(port, mode) - _needs(sender) for sender in senders)]
    made_for_it = [mode for mode in found if mode.signal is Signal.MIC]
    if made_for_it and any(sender.device_class.feeding is not None for sender in senders):
        return made_for_it
    return found


def _forced(port: InputPort, mode: InputMode) -> set[Supply]:
    return {supply for supply in mode.supplies if not port.switches_of(supply)[1] and supply is not Supply.PLUG_IN}


def _needs(placed: PlacedDevice) -> set[Supply]:
    return set(placed.device_class.feeding.needs) if placed.device_class.feeding is not None else set()


def _input_modes(end: RunEnds) -> Iterator[Candidate]:
    analogue = end.output.circuit.is_analogue
    for mode in modes_for(end.input, [end.sender]):
        if mode.id != end.takes.id and (mode.signal is Signal.DIGITAL) != analogue:
            edit = SetControl(device=end.receiver.device.id, control=mode_key(end.input.id), value=mode.id)
            yield Candidate(
                id=f"input-{mode.id}",
                does=message("switch-mode", end.index, socket=end.run.receiving, mode=mode.id),
                edits=(edit,),
            )


def _output_modes(end: RunEnds) -> Iterator[Candidate]:
    for mode in end.output.modes:
        alike = mode.id != end.sends.id and mode.carries_what(end.sends)
        if alike and end.output.circuit.is_analogue and not end.output.is_headphone:
            edit = SetControl(device=end.sender.device.id, control=mode_key(end.output.id), value=mode.id)
            yield Candidate(
                id=f"output-{mode.id}",
                does=message("switch-mode", end.index, socket=end.run.sending, mode=mode.id),
                edits=(edit,),
            )


def _pads(end: RunEnds) -> Iterator[Candidate]:
    """A pad goes to the receiving end, so that the cable carries the higher level."""
    if not end.output.circuit.is_analogue or end.takes.signal is Signal.DIGITAL:
        return
    if end.sender.device_class.feeding is not None:
        return  # a pad between microphone and input spoils powering and noise
    plain = end.plain_parts
    found = []
    for lead in (*built_in().leads.values(), *end.index.plan.leads.values()):
        parts = _with_pad(end, plain, lead) if lead.loss_db is not None else None
        if lead.loss_db is not None and parts is not None:
            found.append((lead.loss_db.value, lead, parts))
    found.sort(key=lambda item: item[0])
    for loss_db, lead, parts in _just_enough(end, found):
        yield Candidate(
            id=f"lead-{lead.id}",
            does=message("use-attenuator", end.index, lead=lead.id, loss_db=loss_db),
            edits=(SetParts(run=end.run.id, parts=parts),),
            needs=message("one-cable", end.index, lead=lead.id),
            risks=(message("looks-like-plain", end.index),),
            cost=1,
            is_pad=True,
        )


Padded = tuple[float, LeadClass, tuple[Part, ...]]
"""Loss in dB, the lead, and the run's parts with it. [HANDBOOK] §6"""


def _just_enough(end: RunEnds, found: list[Padded]) -> list[Padded]:
    """Pads that keep the sender's full scale clear of clipping, whatever the ± of the figures: all of one's own, and the
    two weakest of the catalogue.

    A stronger one only costs noise. Where none is enough, the strongest; without a stated full scale, all.
    """
    apart = end.apart
    if apart is None:
        return found
    if apart.loss_db <= 0:
        return []  # nothing has to be lost: an attenuator would only cost noise
    enough = [item for item in found if item[0] > apart.loss_db]
    own = [item for item in enough if item[1].id in end.index.plan.leads]
    sold = [item for item in enough if item not in own]
    return [*own, *sold[:2]] or found[-1:]


def _with_pad(end: RunEnds, plain: tuple[Part, ...], lead: LeadClass) -> tuple[Part, ...] | None:
    last = end.index.lead_of(plain[-1]) if plain else None
    before = last.receiving if last is not None else end.output.plug
    goes_behind = "" in lead.ways and mates(before, lead.sending) and mates(lead.receiving, end.input.plug)
    is_barrel = goes_behind and lead.short_m is not None
    if last is not None and (last.id in lead.replaces or (_is_twin(last, lead) and not is_barrel)):
        return (*plain[:-1], replace(plain[-1], lead=lead.id))
    return (*plain, Part(lead=lead.id, length_m=lead.short_m or SHORT_M)) if goes_behind else None


def _is_twin(plain: LeadClass, own: LeadClass) -> bool:
    """Whether a lead of one's own goes where a plain one of the same plugs is."""
    same = (plain.sending, plain.receiving) == (own.sending, own.receiving)
    return same and not own.replaces and own.ways.keys() == plain.ways.keys()


def _trim(end: RunEnds) -> Iterator[Candidate]:
    if end.sends.trim is None or end.output.is_headphone:
        return
    wanted = _trim_to_fit(end, end.sends)
    padded = end.plain_parts != end.run.parts
    if wanted is None or (wanted == end.sender.trim_mark_db(end.output, end.sends) and not padded):
        return
    risks = []
    if wanted < end.sends.trim.maximum_db:
        risks.append(message("turned-up-clips", end.index, device=end.run.receiving.device))
        if end.sends.trim_kind is TrimKind.DIGITAL:
            risks.append(message("hiss-stays", end.index))
    edit = SetControl(device=end.sender.device.id, control=trim_key(end.output.id, end.sends.id), value=wanted)
    yield Candidate(
        id="trim",
        does=message("trim", end.index, socket=end.run.sending, to_db=wanted),
        edits=(SetParts(run=end.run.id, parts=end.plain_parts), edit) if padded else (edit,),
        risks=tuple(risks),
    )


def _trim_to_fit(end: RunEnds, mode: OutputMode) -> float | None:
    """The highest trim at which the sender's full scale is the receiver's full scale or below it."""
    if mode.trim is None or mode.full_scale_dbu is None or end.takes.full_scale_dbu is None:
        return None
    gain = end.takes.gain
    lowest = gain.above_lowest_db(1) if gain is not None and end.takes.signal is Signal.MIC else 0.0
    ceiling = end.takes.full_scale_dbu.value - lowest
    if end.takes.clip_dbu is not None:
        ceiling = min(ceiling, end.takes.clip_dbu.value)
    return mode.trim.at_most_db(ceiling - mode.full_scale_dbu.value)


def _headphones(end: RunEnds) -> Iterator[Candidate]:
    for port in end.sender.device_class.outputs:
        free = not end.index.leaving.get(PortRef(end.sender.device.id, port.id))
        if not port.is_headphone or port.id == end.output.id or not free:
            continue
        length_m = sum(part.length_m for part in end.run.parts)
        joins = [join for join in find_cable_chains(port, end.input, length_m=length_m) if join.is_right]
        mode = port.modes[0]
        trim_db = _trim_to_fit(end, mode)
        if joins and trim_db is not None:
            move = MoveRun(run=end.run.id, sending=PortRef(end.sender.device.id, port.id), parts=joins[0].parts)
            turn = SetControl(device=end.sender.device.id, control=trim_key(port.id, mode.id), value=trim_db)
            yield Candidate(
                id="headphones",
                does=message("use-headphone-output", end.index, device=end.sender.device.id, at_db=trim_db),
                edits=(move, turn),
                loses=message("listening", end.index),
                risks=(message("volume-turns-recording", end.index),),
                cost=2,
            )


def _camera_attenuator(end: RunEnds) -> Iterator[Candidate]:
    if end.input.pad_db is None or end.receiver.pad_db(end.input):
        return
    edit = SetControl(device=end.receiver.device.id, control=pad_key(end.input.id), value=True)
    behind = end.input.pad_place is PadPlace.LAST
    yield Candidate(
        id="attenuator",
        does=message("attenuator-on", end.index, device=end.receiver.device.id),
        edits=(edit,),
        risks=(message("attenuator-too-late", end.index),) if behind else (),
    )


def _aes3(end: RunEnds) -> Iterator[Candidate]:
    digital = next((mode for mode in end.input.modes if mode.signal is Signal.DIGITAL), None)
    if digital is None or end.output.circuit.is_digital:
        return
    others = [run for run in end.index.arriving.get(end.run.receiving, []) if run.id != end.run.id]
    for port in end.sender.device_class.outputs:
        ref = PortRef(end.sender.device.id, port.id)
        if port.circuit is not Circuit.AES3 or end.index.leaving.get(ref) or others:
            continue
        branch = end.run.parts[-1].branch if end.run.parts else ""
        length_m = sum(part.length_m for part in end.run.parts)
        joins = find_cable_chains(port, end.input, length_m=length_m, branch=branch or "L", shared=f"aes-{end.run.id}")
        if joins and joins[0].is_right:
            switch = SetControl(device=end.receiver.device.id, control=mode_key(end.input.id), value=digital.id)
            yield Candidate(
                id="aes3",
                does=message("use-aes3", end.index, device=end.sender.device.id),
                edits=(MoveRun(run=end.run.id, sending=ref, parts=joins[0].parts), switch),
                needs=message("aes3-cable", end.index),
                loses=message("output-in-use", end.index, output=ref),
                risks=(message("level-fixed", end.index),),
                cost=1,
            )
