"""After the tone: who is to speak, and what each track's meter must show of it."""

from dataclasses import dataclass

from tidy_trunk.core.advice.line_up.steps import automatic_warning, rides
from tidy_trunk.core.plan import Message, Role, message
from tidy_trunk.core.sound.levels import HEARD_WITHIN_DB, Report, sender_of


@dataclass(frozen=True, slots=True, kw_only=True)
class VoiceStep:
    """Let the sources of a track be heard as in the take, and read what it records.

    average_dbfs, peak_dbfs: what it must show, as far as it is known, within `within_db`; its meter may read otherwise.
    is_heard: how loud they are was read from a recording.
    warning: what spoils it, None where nothing does.
    """

    track: str
    device: str
    bus: str
    sources: tuple[str, ...]
    average_dbfs: float
    peak_dbfs: float
    within_db: float
    is_heard: bool
    warning: Message | None


def voice_steps(report: Report) -> tuple[VoiceStep, ...]:
    """Every track on which sound arrives by a microphone alone: behind it, a tone has told all there is. [HANDBOOK] §7"""
    index, found = report.index, []
    for track in report.tracks:
        stage, sound = track.trace.stage, track.sound
        if not track.sources or track.is_silent or track.role is Role.TIMECODE or sender_of(index, stage) is not None:
            continue
        sources = [index.plan.sources[source] for source in track.sources]
        warning: Message | None
        if sound.clip is not None:
            warning = message("voice-clips", index, where=sound.clip.where, by_db=sound.clip.over_db)
        else:
            warning = automatic_warning(index, is_on=rides(report, "", stage))
        found.append(
            VoiceStep(
                track=track.trace.id,
                device=track.trace.device,
                bus=track.trace.bus,
                sources=tuple(source.label for source in sources),
                average_dbfs=sound.average,
                peak_dbfs=sound.peak,
                within_db=sound.tolerance_db,
                is_heard=all(source.tolerance_db <= HEARD_WITHIN_DB for source in sources),
                warning=warning,
            )
        )
    return tuple(found)
