"""The rigs that answer a brief: each way to work built and compared; what is worse in everything is left out."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from tidy_trunk.core.advice.adviser import judge
from tidy_trunk.core.advice.checks import check
from tidy_trunk.core.advice.options import AUDIBLE_DB
from tidy_trunk.core.gear.catalogue import DeviceClass, DeviceKind, built_in
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.rigs.brief import Brief, Delivery
from tidy_trunk.core.rigs.build import TIMECODE_BOX, Approach, Builder, Built
from tidy_trunk.core.rigs.figures import RigFigures, SyncMethod, figures
from tidy_trunk.core.rigs.owned import NOTHING_LIES

MOST_RIGS: Final = 4
"""ASSUMED_ rigs that are offered at most: more cannot be read side by side."""

LEAST_RIGS: Final = 2
"""ASSUMED_ rigs that are a choice: with fewer, what was said of the recorder is given up for others."""

SAME_DB: Final = 3.0
"""ASSUMED_ difference in noise or headroom that decides nothing."""

ENOUGH_HEADROOM_DB: Final = 20.0
"""ASSUMED_ headroom over the expected peaks beyond which more is worth nothing: a shout comes 10 dB above them. [PRACTICE]"""


class Wish(StrEnum):
    """What a brief asks for, and a rig can meet or not."""

    TWICE = "twice"  # it happens once: recorded on two devices
    NO_SYNC = "no-sync"  # tonight or live: picture and sound are together
    LABELS = "labels"  # several cameras: timecode
    TIMECODE = "timecode"  # a box for it was named
    APART = "apart"  # each microphone on its own track
    IN_CAMERA = "in-camera"  # what the recorder holds shall be in the camera too
    FEW = "few"  # alone, or small and quick: least to set and to press


@dataclass(frozen=True, slots=True, kw_only=True)
class Rig:
    """A way to work with its plan and figures, and which wishes of the brief it meets."""

    built: Built
    figures: RigFigures
    met: frozenset[Wish]

    @property
    def approach(self) -> Approach:
        return self.built.approach

    @property
    def plan(self) -> Plan:
        return self.built.plan


@dataclass(frozen=True, slots=True)
class Rigs:
    """What answers a brief, what suits it best first; wishes: what it asks for; is_open: nothing was asked yet.

    on_other_recorder: rigs for which the recorder that was named, or that there is none, had to be given up.
    """

    rigs: tuple[Rig, ...]
    wishes: frozenset[Wish]
    is_open: bool = False
    on_other_recorder: frozenset[Approach] = frozenset()


def wishes_of(brief: Brief, own: Mapping[str, DeviceClass]) -> frozenset[Wish]:
    """What decides between ways to work. Source: [HANDBOOK] §13"""
    found = {
        Wish.TWICE: brief.once,
        Wish.NO_SYNC: brief.delivery in (Delivery.TONIGHT, Delivery.LIVE) or _has_switcher(brief, own),
        Wish.LABELS: len(brief.cameras or ()) > 1 and not brief.no_timecode,
        Wish.TIMECODE: TIMECODE_BOX in brief.devices,
        Wish.IN_CAMERA: brief.in_camera,
        Wish.APART: brief.separate,
        Wish.FEW: brief.small or brief.alone,
    }
    return frozenset(wish for wish, is_wanted in found.items() if is_wanted)


def _has_switcher(brief: Brief, own: Mapping[str, DeviceClass]) -> bool:
    """Pictures are switched while they are taken: sound and picture leave it together."""
    return any((own.get(item) or built_in().devices[item]).kind is DeviceKind.SWITCHER for item in brief.devices)


def first_rig(brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int] = NOTHING_LIES) -> Rig | None:
    """The first way to work that can be built, in the order in which they are most often asked for; to be shown while the rest
    is worked out. Several cameras are begun with timecode: that suits them best, and no level has to be matched to each."""
    builder = Builder(brief, own, lying)
    begun = (Approach.TIMECODE,) if wishes_of(brief, own) & {Wish.LABELS, Wish.TIMECODE} else ()
    order = (*begun, Approach.FEED, Approach.RECORDER, Approach.STRAIGHT, Approach.PREAMP, Approach.BODY_WORN)
    built = next((found for approach in order if (found := builder.build(approach)) is not None), None)
    return None if built is None else Rig(built=built, figures=figures(built, brief, lying), met=frozenset())


def find_rigs(brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int] = NOTHING_LIES) -> Rigs:
    """Two to four whole rigs, where there are as many.

    Args:
        own: Classes of the user's own, which the brief may name.
        lying: How many of each class of device and cable lie in the trunk: those need not be got.

    Returns:
        What meets most of the wishes first; of those that meet as many the one that loses fewest microphones, then the one of
        which the judge finds least wrong, then the one that costs least. No rig is worse in everything than another. Where the
        recorder that was named leaves no choice, rigs on another one stand behind.
    """
    found = _rigs(brief, own, lying)
    if len(found.rigs) >= LEAST_RIGS or brief.recorders is None:
        return found
    known = {rig.approach for rig in found.rigs}
    more = [
        rig
        for rig in _rigs(replace(brief, recorders=None), own, lying).rigs
        if rig.approach not in known and not any(_is_worse(rig.figures, other.figures) for other in found.rigs)
    ]
    return replace(
        found,
        rigs=(*found.rigs, *more)[:MOST_RIGS],
        on_other_recorder=frozenset(rig.approach for rig in more if _has_recorder(rig)),
    )


def _has_recorder(rig: Rig) -> bool:
    return any(item.device_class.kind is DeviceKind.RECORDER for item in rig.built.report.index.placed_devices())


def _rigs(brief: Brief, own: Mapping[str, DeviceClass], lying: Mapping[str, int]) -> Rigs:
    builder, wishes = Builder(brief, own, lying), wishes_of(brief, own)
    built = [found for approach in Approach if (found := builder.build(approach)) is not None]
    known = [(item, figures(item, brief, lying)) for item in built]
    fewest = min((_to_mind(item) for _, item in known), default=0)
    rigs = [
        Rig(built=item, figures=found, met=frozenset(wish for wish in wishes if _meets(wish, found, fewest)))
        for item, found in known
    ]
    kept = [rig for rig in rigs if not any(_is_worse(rig.figures, other.figures) for other in rigs if other is not rig)]
    kept.sort(key=lambda rig: _rank(rig, len(wishes)))
    return Rigs(tuple(kept[:MOST_RIGS]), wishes)


def _to_mind(found: RigFigures) -> int:
    """What has to be set, pressed and jammed."""
    return found.settings + len(found.pressed) + found.jams


def _meets(wish: Wish, found: RigFigures, fewest: int) -> bool:
    return {
        Wish.TWICE: found.copies > 1,
        Wish.NO_SYNC: found.sync is SyncMethod.NONE or (found.copies > 1 and found.sync is SyncMethod.SOUND),
        Wish.LABELS: found.sync in (SyncMethod.TIMECODE, SyncMethod.NONE),
        Wish.TIMECODE: found.sync is SyncMethod.TIMECODE,
        Wish.IN_CAMERA: found.is_in_camera,
        Wish.APART: not found.left_out and found.apart >= 1 and not (found.mixed and not found.apart),
        Wish.FEW: _to_mind(found) == fewest,
    }[wish]


def _rank(rig: Rig, wished: int) -> tuple[float, ...]:
    found = rig.figures
    judged = judge(rig.built.report, check(rig.built.report))
    return (
        wished - len(rig.met),
        len(found.left_out),
        len(found.cautions),
        found.cost,
        judged.noise,
        -found.copies,
        _to_mind(found),
    )


def _marks(found: RigFigures) -> Iterator[float]:
    """What a rig is compared by, less is better."""
    yield -found.apart
    yield len(found.left_out)
    yield -found.copies
    yield len(found.shared) if found.copies > 1 else 0
    yield list(SyncMethod).index(found.sync)
    yield len(found.unheard)
    yield round(-min(found.under_room_db, AUDIBLE_DB) / SAME_DB)
    yield round(-min(found.headroom_db, ENOUGH_HEADROOM_DB) / SAME_DB)
    yield len(found.cautions)
    yield found.settings
    yield len(found.pressed)
    yield found.jams
    yield found.cost


def _is_worse(found: RigFigures, other: RigFigures) -> bool:
    """Whether it is as bad or worse in everything, and worse in something."""
    pairs = list(zip(_marks(found), _marks(other), strict=True))
    return all(mine >= theirs for mine, theirs in pairs) and any(mine > theirs for mine, theirs in pairs)
