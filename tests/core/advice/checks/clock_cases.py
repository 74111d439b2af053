"""Examples of the rules on time. Facts of the trade: handbook §8, common practice unless a case names a standard."""

from tests.core.advice.checks.case import CAUTION, NOTE, STOP, Case
from tests.plans import boom_in_bag, device, line_into_camera, made, put, run
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.plan import (
    Plan,
    Role,
    RouteBus,
    SetBreak,
    SetFigure,
    SetJam,
    SetJob,
    SetRole,
    TakePairDrift,
)
from tidy_trunk.core.plan.clocks import PairDrift

EIGHT, NOON = 8 * 60, 12 * 60


def sounding(*edits) -> Plan:
    """A generator's timecode as sound on the left track of a camera that has only a microphone socket."""
    return made(
        device("timecode-generator", "tc"),
        device("mirrorless-mic", "cam"),
        run("tc.tc-out", "cam.mic", "bnc-trs-pad-35"),
        put("cam", "mic.auto.menu", False),
        *edits,
    )


def body_worn(mode: str) -> Plan:
    """A body-worn recorder's headphone socket, in the timecode socket of a camcorder."""
    devices = (device("float-recorder", "body"), device("shoulder-camcorder", "cam"))
    return made(*devices, run("body.phones", "cam.tc-in", "trs-timecode-bnc"), put("body", "phones.mode", mode))


def kept(**roles: Role) -> Plan:
    return sounding(*(SetRole(device="cam", bus=bus, role=role) for bus, role in roles.items()))


def film(*edits) -> Plan:
    """A camera and a recorder, both on the leads of one generator."""
    return made(
        device("timecode-generator", "tc"),
        device("cinema-xlr5", "film"),
        run("tc.tc-out", "film.tc-in", "bnc"),
        *edits,
    )


def box(*at_min: int, edits=()) -> Plan:
    """Two generators of ±1 ppm: 2 ppm are 7.2 ms an hour, half a frame of 20 ms at 25 after 2 h 46 min."""
    jam = SetJam(device="box", giver="tc", at_min=at_min)
    return made(device("timecode-generator", "tc"), device("timecode-generator", "box"), jam, *edits)


def jammed_camera(class_id: str) -> Plan:
    """A camera of ±30 or ±5 ppm that is jammed from the bag's ±1 ppm once."""
    return made(device(class_id, "cam"), SetJam(device="cam", giver="bag", at_min=(EIGHT,)), base=boom_in_bag())


def measured(ppm: float) -> TakePairDrift:
    return TakePairDrift(drift=PairDrift(first="tc", second="box", ppm=ppm, when="2026-11-25T09:30"))


def two_roots(*edits) -> Plan:
    return film(
        device("timecode-generator", "other"),
        device("shoulder-camcorder", "second"),
        run("other.tc-out", "second.tc-in", "bnc"),
        *edits,
    )


def genlocked(*edits) -> Plan:
    return made(
        device("timecode-generator", "tc"),
        device("cinema-xlr5", "film"),
        run("tc.sync-out", "film.genlock", "bnc"),
        *edits,
    )


def apart(*edits) -> Plan:
    """A recorder that hears a voice, and a camera that hears nothing of it."""
    return made(device("cinema-xlr5", "film"), *edits, base=boom_in_bag())


def own_ear(routed: bool) -> Plan:
    edits = [
        RouteBus(device="second", bus="1", inputs=("built-in.L",) if routed else ()),
        RouteBus(device="second", bus="3", inputs=()),
        RouteBus(device="second", bus="4", inputs=()),
    ]
    return made(device("shoulder-camcorder", "second"), *edits, base=boom_in_bag())


def live(*edits) -> Plan:
    """A camera five frames late and a switcher of two, and the bag's line straight into the switcher."""
    return made(
        device("live-switcher", "sw"),
        run("cam.hdmi", "sw.hdmi1", "hdmi"),
        run("bag.out-l", "delay.in-l", "xlr"),
        run("delay.out-l", "sw.audio", "xlr-trs"),
        *edits,
        base=made(device("audio-delay", "delay"), base=line_into_camera()),
    )


def in_time() -> SetFigure:
    return SetFigure(device="delay", path="traits.sound_delay_ms", figure=Figure(270.0, 0.0))


def late_by(frames: float) -> SetFigure:
    return SetFigure(device="film", path="traits.picture_delay_frames", figure=Figure(frames, 0.0))


def two_pictures(frames: float) -> Plan:
    return live(device("cinema-xlr5", "film"), run("film.hdmi", "sw.hdmi2", "hdmi"), late_by(frames))


CLOCK_CASES = [
    Case("timecode-on-wrong-track", kept(), kept(L=Role.TIMECODE), CAUTION, "takes the timecode of tc as sound"),
    Case("beside-timecode", kept(L=Role.TIMECODE), kept(L=Role.TIMECODE, R=Role.GUIDE), CAUTION, "scratch at best"),
    Case("automatic-level", sounding(put("cam", "mic.auto.menu", True)), sounding(), CAUTION, "turns the whole socket down by the timecode"),
    # SMPTE ST 12-1: labels at 29.97 fall behind a clock by 3.6 s an hour; drop-frame differs from it by as much.
    Case("timecode-rate", film(put("film", "timecode_rate", "24"), SetJob(frame_rate="23.976")), film(SetJob(frame_rate="23.976")), STOP, "in an hour they part by 3.6 s"),
    Case("timecode-rate", film(put("film", "timecode_rate", "29.97df"), SetJob(frame_rate="29.97")), film(SetJob(frame_rate="29.97")), CAUTION, "the same frames bear other labels"),
    Case("timecode-rate", made(device("mirrorless-mic", "cam"), put("cam", "timecode_rate", "30")), made(device("mirrorless-mic", "cam")), CAUTION, "is set to 30: their seconds agree"),
    Case("sound-into-timecode", body_worn("phones"), body_worn("timecode"), STOP, "switch it to timecode left, sound right"),
    Case("record-run", film(put("film", "timecode_run", "record")), film(), STOP, "counts only while it records"),
    # 20 ms / 7.2 ms an hour = 2 h 46 min after eight.
    Case("missed-jam", box(EIGHT, NOON), box(EIGHT, 600, NOON, 14 * 60, 16 * 60), CAUTION, "beyond 0.5 frames from 10:46 on"),
    Case("missed-jam", box(EIGHT, NOON, edits=[SetBreak(label="Dinner", at_min=630, length_min=30)]), box(EIGHT, edits=[SetJob(day_ends_min=630)]), CAUTION, "from 10:46"),
    Case("missed-jam", box(NOON), box(EIGHT, edits=[SetJob(day_ends_min=NOON - 90)]), CAUTION, "no time from tc until 12:00"),
    # Measured at 0.2 ppm, to half a millionth: 0.7 ppm are 2.52 ms an hour, 20 ms after 7 h 56 min; 3 ppm after 1 h 35 min.
    Case("missed-jam", box(EIGHT, edits=[measured(-3.0)]), box(EIGHT, edits=[measured(0.2), SetJob(day_ends_min=15 * 60)]), CAUTION, "was measured to part from tc by 3.5 ppm"),
    Case("missed-jam", box(EIGHT, edits=[measured(-31.0)]), box(EIGHT, edits=[measured(0.2), SetJob(day_ends_min=15 * 60)]), CAUTION, "it asks for a jam every 10 min"),
    # No socket for it: a generator more, as sound on a track. 31 ppm are half a frame after 10.75 min (docs/craft/sync.md).
    Case("missed-jam", jammed_camera("mirrorless-mic"), jammed_camera("cinema-xlr5"), CAUTION, "by 31 ppm: beyond 0.5 frames from 08:10 on"),
    # 4 Wh x 0.8 / 0.3 W = 10.7 h.
    Case("forgets-timecode", box(EIGHT, edits=[SetJob(day_ends_min=20 * 60)]), box(EIGHT), NOTE, "lasts about 10.7 h", cured=False),
    Case("two-clocks", two_roots(), two_roots(SetJam(device="other", giver="tc", at_min=(EIGHT,))), CAUTION, "nothing sets those two together"),
    Case("genlock-alone", genlocked(), genlocked(SetJam(device="film", giver="tc", at_min=(EIGHT,))), CAUTION, "does not number them"),
    Case("nothing-to-sync-by", own_ear(routed=False), apart(), CAUTION, "a clap is all they share"),
    # 60 dB at 1 m over 35 dB(A): 25 dB, 17.8 m of it; 51.8 ms at 343 m/s.
    Case("nothing-to-sync-by", own_ear(routed=True), own_ear(routed=False), NOTE, "up to about 18 m away, 52 ms late there"),
    # Seven frames at 25 are 280 ms; the boom's half metre 1.5 ms, the recorder 1 ms.
    Case("early-sound", live(), live(in_time()), CAUTION, "278 ms (±40: typical figures, until a clap has measured them) early"),
    Case("pictures-apart", two_pictures(2), two_pictures(5), CAUTION, "Hold back film by 3 frames", cured=False),
    Case("pictures-apart", two_pictures(8), two_pictures(5.5), CAUTION, "Hold back cam by 3 frames", cured=False),
]  # fmt: skip
