"""Time on a set."""

from tidy_trunk.api.schemas.numbers import Level, Out
from tidy_trunk.core.clock import Gets, Meets
from tidy_trunk.core.plan import Rig
from tidy_trunk.services.clock import ClockView


class KeeperOut(Out):
    """A device that records or keeps time, and by how far it may part from its giver over the day, once on its own."""

    device: str
    label: str
    gets: Gets
    giver: str
    track: str
    has_socket: bool
    ppm: float | None
    forgets: bool | None
    parts_ms: float | None
    parts_frames: float | None
    rejam_every_h: Level


class PairOut(Out):
    """By what a camera and a recorder will meet, and whom both hear."""

    camera: str
    recorder: str
    by: list[Meets]
    sources: list[str]


class PictureOut(Out):
    camera: str
    late_frames: float
    hold_frames: float


class SwitcherOut(Out):
    """A switcher with its pictures, and the delay that sound asks for that comes to it straight."""

    switcher: str
    own_frames: float
    pictures: list[PictureOut]
    late_frames: float
    delay_ms: float
    delay_samples: int
    is_noticed: bool
    is_accepted: bool


class ClockOut(Out):
    """Time on a set over a day of so many hours. Devices and sources by their names."""

    rate: str
    hours: float
    keepers: list[KeeperOut]
    pairs: list[PairOut]
    switchers: list[SwitcherOut]

    @classmethod
    def from_core(cls, view: ClockView) -> "ClockOut":
        rig = view.report.rig
        return cls(
            rate=rig.plan.defaults.frame_rate,
            hours=view.hours,
            keepers=[
                KeeperOut(
                    device=keeper.device,
                    label=rig.unit(keeper.device).label,
                    gets=keeper.gets,
                    giver=_label(rig, keeper.giver),
                    track=_track(rig, keeper.track),
                    has_socket=keeper.has_socket,
                    ppm=keeper.ppm,
                    forgets=keeper.forgets,
                    parts_ms=None if keeper.alone is None else keeper.alone.drift_ms,
                    parts_frames=None if keeper.alone is None else keeper.alone.drift_frames,
                    rejam_every_h=None if keeper.alone is None else keeper.alone.rejam_every_h,
                )
                for keeper in view.keepers
            ],
            pairs=[
                PairOut(
                    camera=_label(rig, pair.camera),
                    recorder=_label(rig, pair.recorder),
                    by=list(pair.by),
                    sources=[rig.plan.sources[source].label for source in pair.sources],
                )
                for pair in view.pairs
            ],
            switchers=[
                SwitcherOut(
                    switcher=_label(rig, item.switcher),
                    own_frames=item.own_frames,
                    pictures=[
                        PictureOut(
                            camera=_label(rig, picture.camera),
                            late_frames=picture.late_frames,
                            hold_frames=picture.hold_frames,
                        )
                        for picture in item.pictures
                    ],
                    late_frames=item.late_frames,
                    delay_ms=float(item.delay.seconds * 1000),
                    delay_samples=item.delay.sample_count,
                    is_noticed=item.is_noticed,
                    is_accepted=item.is_accepted,
                )
                for item in view.switchers
            ],
        )


def _label(rig: Rig, device: str) -> str:
    return rig.unit(device).label if device else ""


def _track(rig: Rig, track: str) -> str:
    device, _, bus = track.partition(".")
    return rig.unit(device).place_label(bus) if track else ""
