"""What could cause a symptom in this very plan: findings that would show so, and faults of cables, sockets, switches and power
that no plan can know. How likely each is comes from what it is and from the plan's own figures."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from tidy_trunk.core.advice.checks import Finding, Severity
from tidy_trunk.core.advice.fault_search.symptoms import EXPLAINED_BY, Symptom
from tidy_trunk.core.base.units import ratio_from_db
from tidy_trunk.core.gear.catalogue import Circuit, DeviceKind, Power, Supply
from tidy_trunk.core.plan import PlacedDevice, Run
from tidy_trunk.core.sound.levels import Report, TrackLevel, noise_budget
from tidy_trunk.core.sound.trace import StageKind

FOUND: Final[Mapping[Severity, float]] = {Severity.STOP: 20.0, Severity.CAUTION: 10.0, Severity.NOTE: 3.0}
"""ASSUMED_ how likely a finding that explains the symptom is its cause, beside what no plan can know."""

LIKELY: Final[Mapping[str, float]] = {
    "mains": 2.0,  # on mains, joined by an unbalanced cable
    "beside-mains": 1.0,  # for each metre unbalanced
    "screen": 1.0,
    "place": 1.0,  # the microphone hears it
    "plug": 1.0,
    "small-plug": 4.0,  # 3.5 mm: works loose
    "break": 1.0,
    "pad-missing": 3.0,
    "switch": 2.0,
    "muted": 3.0,
    "power": 3.0,
    "cell": 2.0,
    "armed": 2.0,
    "monitor": 2.0,
    "too-hot": 1.0,
    "automatic": 3.0,
    "scale": 4.0,
    "lined-up": 3.0,
    "pad-off": 1.0,
    "drift": 2.0,
    "rate": 2.0,
    "jam": 3.0,
    "picture": 3.0,
    "radio": 5.0,
    "aerial": 2.0,
    "card": 1.0,
}
"""ASSUMED_ how likely a fault is among those that no plan can know, 1 for a rare one; from common practice, and not measured."""

ALL_NOISE: Final = 10.0
"""ASSUMED_ how likely it is that what makes all of a track's noise by the figures is also what is heard."""

NEAR_DB: Final = 12.0
"""ASSUMED_ headroom below which a stage is suspected of being driven too hot."""

MOST_METRES: Final = 3.0
"""ASSUMED_ length of unbalanced cable beyond which more makes it no likelier to pick up hum."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspect:
    """A fault that would show so.

    code: what kind of fault; of a finding, its rule. device, run: where; at: how far along the chain, 0 at the microphone.
    weight: how likely beside the others. finding: the one that it is, if any. others: devices that have part in it.
    """

    code: str
    device: str = ""
    run: str = ""
    at: int = 0
    weight: float
    finding: Finding | None = None
    others: frozenset[str] = frozenset()

    @property
    def id(self) -> str:
        return f"{self.code}:{self.run or self.device}"


def suspects(report: Report, findings: Sequence[Finding], symptom: Symptom, track: TrackLevel) -> tuple[Suspect, ...]:
    """Everything that would show so on a track, the likeliest first."""
    chain = Chain(report, track)
    found: dict[str, Suspect] = {}
    for suspect in (*_of_findings(chain, findings, symptom), *_MAKERS[symptom](chain)):
        told = {item.code for item in found.values() if item.finding is not None and item.run == suspect.run}
        if suspect.id not in found and not (suspect.code == "beside-mains" and "unbalanced-too-long" in told):
            found[suspect.id] = suspect
    return tuple(sorted(found.values(), key=lambda item: (-item.weight, item.at)))


class Chain:
    """The devices and cables that lead to a track, in the order of the sound."""

    def __init__(self, report: Report, track: TrackLevel) -> None:
        self.report, self.track = report, track
        self.index = report.index
        self.devices: list[str] = []
        self.runs: list[Run] = []
        self.at: dict[str, int] = {}
        for stage in report.main_path(track.trace.stage):
            name = stage.run.id if stage.run is not None else stage.device
            if stage.kind is StageKind.SOUND or not name:
                continue
            if name not in self.at:
                self.at[name] = len(self.at)
            if stage.run is not None and stage.run not in self.runs:
                self.runs.append(stage.run)
            if stage.run is None and name not in self.devices:
                self.devices.append(name)

    def placed_devices(self) -> list[PlacedDevice]:
        return [self.index.placed(device) for device in self.devices]

    def is_small(self, run: Run) -> bool:
        ends = (
            self.index.placed(run.sending.device).output(run.sending.port),
            self.index.placed(run.receiving.device).input(run.receiving.port),
        )
        return any(port.plug.connector == "trs35" for port in ends)

    def unbalanced_m(self, run: Run) -> float:
        return sum(length for lead, length in self.index.leads_of(run) if not lead.balanced)

    def is_radio(self, run: Run) -> bool:
        return self.index.placed(run.sending.device).output(run.sending.port).circuit is Circuit.RADIO

    def made(self, code: str, *, device: str = "", run: str = "", times: float = 1.0) -> Suspect:
        return Suspect(code=code, device=device, run=run, at=self.at.get(run or device, 0), weight=LIKELY[code] * times)


def _of_findings(chain: Chain, findings: Sequence[Finding], symptom: Symptom) -> Iterator[Suspect]:
    """Findings on the way to the track; of sync, all of them: clocks lie on no way."""
    for finding in findings:
        if finding.rule not in EXPLAINED_BY[symptom]:
            continue
        touches = {finding.device, finding.run, *finding.more_runs} & set(
            chain.at
        ) or chain.track.trace.id in finding.tracks
        if not touches and symptom is not Symptom.OUT_OF_SYNC:
            continue
        where = finding.run or finding.device
        nodes = (*finding.facts.get("nodes", ()), *finding.facts.get("devices", ()))
        yield Suspect(
            code=finding.rule,
            device=finding.device,
            run=finding.run,
            at=chain.at.get(where, len(chain.at)),
            weight=FOUND[finding.severity],
            finding=finding,
            others=frozenset({finding.device, *nodes} & set(chain.index.plan.devices)),
        )


def _hum(chain: Chain) -> Iterator[Suspect]:
    for run in chain.runs:
        metres = chain.unbalanced_m(run)
        if metres:
            yield chain.made("beside-mains", run=run.id, times=min(metres, MOST_METRES))
        if run.parts and not chain.is_radio(run):
            yield chain.made("screen", run=run.id)
        for device in (run.sending.device, run.receiving.device):
            if metres and chain.index.placed(device).power in (Power.MAINS, Power.ADAPTER, Power.COMPUTER):
                yield chain.made("mains", device=device)
    yield from (chain.made("place", device=device) for device in chain.devices[:1])


def _hiss(chain: Chain) -> Iterator[Suspect]:
    """By the power that each device adds: what makes half of the noise is suspected of half of it."""
    placed_devices = chain.placed_devices()
    powers: dict[str, float] = {}
    for share in noise_budget(chain.track):
        if math.isfinite(share.noise.a_level):
            device = next(
                (placed.device.id for placed in placed_devices if share.noise.name.startswith(placed.label)), ""
            )
            powers[device] = powers.get(device, 0.0) + ratio_from_db(share.noise.a_level) ** 2
    total = sum(powers.values())
    for device, power in powers.items():
        where = device or chain.devices[0]
        code = "noise" if device else "place"
        yield Suspect(code=code, device=where, at=chain.at.get(where, 0), weight=ALL_NOISE * power / total)
    for placed in placed_devices:
        if placed.device_class.inputs and placed.device_class.kind is not DeviceKind.RECEIVER:
            yield chain.made("switch", device=placed.device.id)


def _distorted(chain: Chain) -> Iterator[Suspect]:
    for placed in chain.placed_devices():
        if placed.device_class.inputs:
            near = (
                max(NEAR_DB - chain.track.headroom_db, 0.0) / NEAR_DB if math.isfinite(chain.track.headroom_db) else 0.0
            )
            yield chain.made("too-hot", device=placed.device.id, times=1.0 + near)
            yield chain.made("switch", device=placed.device.id)
    for run in chain.runs:
        if any(lead.loss_db is not None for lead, _ in chain.index.leads_of(run)):
            yield chain.made("pad-missing", run=run.id)
    yield from (chain.made("place", device=device) for device in chain.devices[:1])


def _quiet(chain: Chain) -> Iterator[Suspect]:
    yield from _plugs(chain)
    for placed in chain.placed_devices():
        feeding = placed.device_class.feeding
        if feeding is not None and Supply.P48 in feeding.needs:
            yield chain.made("power", device=placed.device.id)
        if feeding is not None and feeding.cell:
            yield chain.made("cell", device=placed.device.id)
        if placed.device_class.kind is DeviceKind.TRANSMITTER:
            yield chain.made("muted", device=placed.device.id)
        if placed.device_class.inputs:
            yield chain.made("switch", device=placed.device.id)
        if placed.device_class.is_recording:
            yield chain.made("armed", device=placed.device.id)


def _plugs(chain: Chain) -> Iterator[Suspect]:
    for run in chain.runs:
        if chain.is_radio(run):
            continue
        yield chain.made("small-plug" if chain.is_small(run) else "plug", run=run.id)
        if run.parts:
            yield chain.made("break", run=run.id)


def _one_side(chain: Chain) -> Iterator[Suspect]:
    yield from _plugs(chain)
    for placed in chain.placed_devices():
        if placed.device_class.is_recording:
            yield chain.made("armed", device=placed.device.id)
            yield chain.made("monitor", device=placed.device.id)


def _meters(chain: Chain) -> Iterator[Suspect]:
    recorders = [placed for placed in chain.placed_devices() if placed.device_class.buses]
    for placed in recorders:
        yield chain.made("scale", device=placed.device.id)
        if any(port.automatic_level_places for port in placed.device_class.inputs):
            yield chain.made("automatic", device=placed.device.id)
    for placed in recorders[1:]:
        yield chain.made("lined-up", device=placed.device.id)
        yield chain.made("switch", device=placed.device.id)
    for run in chain.runs:
        if any(lead.loss_db is not None for lead, _ in chain.index.leads_of(run)):
            yield chain.made("pad-off", run=run.id)


def _out_of_sync(chain: Chain) -> Iterator[Suspect]:
    for placed in chain.index.placed_devices():
        if placed.device_class.is_recording:
            yield chain.made("rate", device=placed.device.id)
            yield chain.made("drift", device=placed.device.id)
        if placed.device.jam is not None:
            yield chain.made("jam", device=placed.device.id)
        if placed.device_class.kind in (DeviceKind.SWITCHER, DeviceKind.MONITOR):
            yield chain.made("picture", device=placed.device.id)


def _dropouts(chain: Chain) -> Iterator[Suspect]:
    yield from _plugs(chain)
    for run in chain.runs:
        if chain.is_radio(run):
            yield chain.made("radio", run=run.id)
            yield chain.made("aerial", device=run.receiving.device)
    for placed in chain.placed_devices():
        if placed.device_class.kind is DeviceKind.TRANSMITTER or (
            placed.device_class.feeding is not None and placed.device_class.feeding.cell
        ):
            yield chain.made("cell", device=placed.device.id)
        if placed.device_class.is_recording:
            yield chain.made("card", device=placed.device.id)


_MAKERS: Final = {
    Symptom.HUM: _hum,
    Symptom.HISS: _hiss,
    Symptom.DISTORTED: _distorted,
    Symptom.QUIET: _quiet,
    Symptom.ONE_SIDE: _one_side,
    Symptom.METERS: _meters,
    Symptom.OUT_OF_SYNC: _out_of_sync,
    Symptom.DROPOUTS: _dropouts,
}
