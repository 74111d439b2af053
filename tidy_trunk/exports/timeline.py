"""Aligned clips as OpenTimelineIO: the only place where times become its doubles."""

from collections.abc import Callable

import opentimelineio as otio

from tidy_trunk.core.base.timecode import FrameRate
from tidy_trunk.exports.placed import PlacedFile, PlacedTimeline


def otio_timeline(timeline: PlacedTimeline) -> bytes:
    """Pictures and sounds on tracks of their own, each clip where it was found, to a fraction of a frame; JSON."""
    rate = float(timeline.rate.ratio)

    def time(seconds: float) -> otio.opentime.RationalTime:
        return otio.opentime.RationalTime(seconds * rate, rate)

    made = otio.schema.Timeline(timeline.title, global_start_time=time(float(timeline.starts_s)))
    for kind, is_picture in ((otio.schema.TrackKind.Video, True), (otio.schema.TrackKind.Audio, False)):
        for number, lane in enumerate(timeline.lanes(is_picture), start=1):
            track = otio.schema.Track(f"{kind} {number}", kind=kind)
            at = 0.0
            for file in lane:
                begins = float(file.begins_s)
                if begins > at:
                    track.append(otio.schema.Gap(duration=time(begins - at)))
                track.append(_clip(file, time, timeline.rate))
                at = begins + float(file.seconds)
            made.tracks.append(track)
    text: str = otio.adapters.write_to_string(made, "otio_json")
    return text.encode()


def _clip(file: PlacedFile, time: Callable[[float], otio.opentime.RationalTime], rate: FrameRate) -> otio.schema.Clip:
    span = otio.opentime.TimeRange(time(float(file.own_start_s)), time(float(file.seconds)))
    media = otio.schema.ExternalReference(target_url=file.name, available_range=span)
    said = {
        "drift_ppm": file.drift_ppm,
        "polarity": file.polarity,
        "method": file.method,
        "confidence": file.confidence,
        "rate": f"{rate.ratio.numerator}/{rate.ratio.denominator}",
    }
    return otio.schema.Clip(file.name, media_reference=media, source_range=span, metadata={"tidy_trunk": said})
