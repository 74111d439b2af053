"""Rules on the low cut: against wind and rumble, and only against them."""

from collections.abc import Iterator
from typing import Final

from tidy_trunk.core.advice.checks.rule import Finding, Joint, Severity, Situation, level_rule
from tidy_trunk.core.base.units import SILENCE_DB, sum_powers_db
from tidy_trunk.core.gear.catalogue import DeviceKind
from tidy_trunk.core.sound.levels import Noise, SpectrumShape, TrackLevel, cut_change_db

RUMBLE_FROM_DB: Final = 15.0
"""ASSUMED_ how far below the average rumble lies when it begins to eat headroom and to move meters."""

NO_RUMBLE_FROM_DB: Final = 30.0
"""ASSUMED_ how far below the average rumble lies when a low cut has nothing to do."""

THIN_FROM_HZ: Final = 100
"""Low cut from which a voice is thinned. [PRACTICE]"""


@level_rule
def rumble(situation: Situation) -> Iterator[Finding]:
    """Wind or rumble near the voice, and no low cut on. [HANDBOOK] §6"""
    for joint, track in _at_microphones(situation):
        below = track.sound.average - _rumble_dbfs(track)
        if below >= RUMBLE_FROM_DB or joint.receiver.low_cut_hz(joint.input) is not None:
            continue
        cut_hz = joint.input.gentle_cut_hz
        cuts = () if cut_hz is None else (cut_hz,)
        yield Finding(
            rule="rumble",
            severity=Severity.CAUTION,
            facts={
                "cut_hz": cut_hz,
                "off_rumble_db": -cut_change_db(SpectrumShape.RUMBLE, cuts),
                "off_voice_db": -cut_change_db(SpectrumShape.VOICE, cuts),
            },
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
            tracks=(track.trace.id,),
            measured_db=-below,
        )


@level_rule
def thin_voice(situation: Situation) -> Iterator[Finding]:
    """A low cut in the voice where there is hardly any rumble. [HANDBOOK] §6"""
    for joint, track in _at_microphones(situation):
        cut_hz = joint.receiver.low_cut_hz(joint.input)
        if cut_hz is None or cut_hz < THIN_FROM_HZ:
            continue
        before = _rumble_dbfs(track) - cut_change_db(SpectrumShape.RUMBLE, (cut_hz,))
        below = track.sound.average - before
        if below < NO_RUMBLE_FROM_DB:
            continue
        yield Finding(
            rule="thin-voice",
            severity=Severity.NOTE,
            facts={
                "cut_hz": cut_hz,
                "off_voice_db": -cut_change_db(SpectrumShape.VOICE, (cut_hz,)),
                "below_db": None if before == SILENCE_DB else below,
            },
            source="HANDBOOK",
            device=joint.receiver.device.id,
            run=joint.run.id,
        )


def _at_microphones(situation: Situation) -> Iterator[tuple[Joint, TrackLevel]]:
    """Every input that a microphone goes into, or its receiver, with the first track that has it alone."""
    alone: dict[tuple[str, str], TrackLevel] = {}
    for track in situation.report.tracks:
        feeds = track.trace.stage.feeds
        if len(feeds) == 1 and not track.is_silent:
            alone.setdefault((track.trace.device, feeds[0][0].name), track)
    for joint in situation.joints:
        if joint.sender.device_class.feeding is not None or joint.sender.device_class.kind is DeviceKind.RECEIVER:
            found = alone.get((joint.receiver.device.id, joint.input.id))
            if found is not None:
                yield joint, found


def _rumble_dbfs(track: TrackLevel) -> float:
    def is_rumble(noise: Noise) -> bool:
        return noise.spectrum is SpectrumShape.RUMBLE

    return sum_powers_db(noise.level for noise in track.sound.noises if is_rumble(noise))
