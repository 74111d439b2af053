"""Examples of the rules on patch, power, routing, listening, backups, hum and radio.

Facts of the trade: handbook §§3 to 6, 9 and 10, common practice unless a case names a standard.
"""

from tests.core.advice.checks.case import CAUTION, NOTE, STOP, Case
from tests.plans import boom_in_bag, device, made, put, run
from tidy_trunk.core.gear.catalogue import Figure
from tidy_trunk.core.plan import (
    AddSource,
    Hazard,
    Part,
    Passing,
    Plan,
    RouteBus,
    SetBreak,
    SetFigure,
    SetJob,
    SetParts,
    SetPath,
    SetSource,
    SetStrainRelief,
    Stretch,
)


def hand_held(class_id: str, port: str, *parts, microphone: str = "dynamic-handheld", edits=()) -> Plan:
    return made(
        device(microphone, "mic"),
        device(class_id, "box"),
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"mic": 0.1}),
        run("mic.out", f"box.{port}", *parts),
        *edits,
    )


def on_path(length_m: float, *passes: Passing, lead: str = "xlr", path_m: float | None = None) -> Plan:
    path = (Stretch(path_m or length_m, passes),)
    return hand_held("bag-recorder", "in1", Part(lead=lead, length_m=length_m), edits=[SetPath(run="run-1", path=path)])


def line_to_line(length_m):
    """Handbook §4: at line level 3 m were used without trouble."""
    return made(
        device("bag-recorder", "bag"),
        device("mirrorless-line", "cam"),
        put("cam", "mic.mode", "line"),
        run("bag.line", "cam.mic", Part(lead="trs", length_m=length_m)),
    )


def jack(length_m: float, *passes: Passing) -> Plan:
    edits = [SetPath(run="run-1", path=(Stretch(5.0, passes),))] if passes else []
    return made(
        device("handheld-recorder", "rec"),
        device("mirrorless-line", "cam"),
        run("rec.line", "cam.mic", Part(lead="trs", length_m=length_m)),
        *edits,
    )


def powered(recorder: str, camera: str) -> Plan:
    return made(put("rec", "power", recorder), put("cam", "power", camera), base=jack(0.3))


def radios(*mhz: float, heard: float | None = None) -> Plan:
    """Transmitters A, B, C … on these frequencies; the first has a receiver."""
    edits = []
    for index, frequency in enumerate(mhz):
        edits += [device("bodypack-transmitter", f"pack-{index}"), put(f"pack-{index}", "air.frequency_mhz", frequency)]
    edits += [
        device("receiver-one", "rx"),
        run("pack-0.air", "rx.air"),
        put("rx", "air.frequency_mhz", heard or mhz[0]),
    ]
    return made(*edits)


def adapter(linked: bool) -> Plan:
    """One microphone through a Y lead into both inputs of a shoe adapter."""
    legs = [Part(lead="xlr-2xlr", length_m=0.5, branch=side, shared="y") for side in "LR"]
    base = hand_held("shoe-adapter", "in1", legs[0])
    return made(run("mic.out", "box.in2", legs[1]), put("box", "in1.linked", linked), base=base)


def two_recorders(direct: bool) -> Plan:
    """A source that happens once, on two recorders: one behind the other, or each with its own microphone."""
    base = made(SetSource(source="voice", irreplaceable=True), device("pocket-recorder", "two"), base=boom_in_bag())
    if not direct:
        return made(run("bag.line", "two.in", "trs"), base=base)
    return made(
        device("on-camera-microphone", "top"),
        put("top", "capsule.cell", True),
        AddSource(id="voice-2", label="x", average_db_spl=60),
        run("top.out", "two.in"),
        base=made(SetSource(source="voice", irreplaceable=True), base=base),
    )


def heard_by_both() -> Plan:
    from tidy_trunk.core.plan import Hear

    return made(Hear(source="voice", device="top", distance_m=1.0), base=two_recorders(direct=True))


def five_microphones(count: int) -> Plan:
    """Shotguns of 3 mA each at a field mixer that gives 7 mA, as measured."""
    edits = [device("field-mixer", "mix")]
    for number in range(1, count + 1):
        edits += [
            device("boom-shotgun", f"m{number}"),
            run(f"m{number}.out", f"mix.in{number}", "xlr"),
            put("mix", f"in{number}.phantom.switch", True),
        ]
    edits.append(SetFigure(device="mix", path="traits.phantom_budget_ma", figure=Figure(7, 5)))
    return made(*edits)


def phantom_of(volts: float) -> Plan:
    return made(SetFigure(device="bag", path="inputs.in1.phantom_v", figure=Figure(volts, 1)), base=boom_in_bag())


def camcorder(track_one: tuple[str, ...]) -> Plan:
    return made(RouteBus(device="box", bus="1", inputs=track_one), base=hand_held("shoulder-camcorder", "in1", "xlr"))


def switcher_phones(*, late: bool) -> Plan:
    """Headphones at the live switcher behind a camera, or at the recorder."""
    edits = [device("mirrorless-line", "cam"), device("live-switcher", "sw"), device("headphones", "ears")]
    edits += [
        RouteBus(device="sw", bus="pgm-l", inputs=("hdmi1.L",)),
        run("cam.hdmi", "sw.hdmi1", "hdmi"),
        run("sw.phones" if late else "bag.phones", "ears.plug"),
    ]
    return made(*edits, base=boom_in_bag())


def aes(lead: str, length_m: float) -> Plan:
    parts = (Part(lead=lead, length_m=length_m), Part(lead="2xlr-xlr5", length_m=0.5, branch="L", shared="x"))
    return made(
        device("cinema-xlr5", "cam"),
        put("cam", "in.mode", "aes3"),
        run("bag.aes", "cam.in", *parts),
        base=boom_in_bag(),
    )


def behind_a_camcorder(rate: str, job_hz: int = 48_000) -> Plan:
    """An external picture recorder, which takes 48 kHz alone, behind a camcorder."""
    parts = (device("picture-recorder", "pic"), run("box.hdmi", "pic.hdmi-in", "hdmi"), put("box", "sample_rate", rate))
    return hand_held("camcorder-per-track", "in1", "xlr", edits=(*parts, SetJob(sample_rate_hz=job_hz)))


def feed(port: str, lead: str) -> Plan:
    return made(device("mirrorless-line", "cam"), run(f"bag.{port}", "cam.mic", lead), base=boom_in_bag())


def lavalier(length_m: float) -> Plan:
    edits = [put("box", "mic.plug_in.menu", True)]
    return hand_held(
        "mirrorless-mic", "mic", Part(lead="trs-extension", length_m=length_m), microphone="lavalier", edits=edits
    )


def happens_once(class_id: str, port: str, lead: str) -> Plan:
    return hand_held(class_id, port, lead, edits=[SetSource(source="voice", irreplaceable=True)])


def with_breaks() -> Plan:
    breaks = [
        SetBreak(label=f"Break {hour}", at_min=round(hour * 60), length_min=15)
        for hour in (9.5, 11, 12.5, 14, 15.5, 17)
    ]
    return made(*breaks, base=happens_once("mirrorless-mic", "mic", "xlr-trs"))


def armed(on: bool) -> Plan:
    """A dynamic microphone in a recorder whose tracks have record switches; its mixes record all the same, unless off."""
    off = [RouteBus(device="bag", bus=mix, inputs=()) for mix in ("mix-l", "mix-r")]
    base = made(device("dynamic-handheld", "mic"), device("bag-recorder-aes", "bag"), *off)
    return made(
        AddSource(id="voice", label="Voice", average_db_spl=66, heard_by={"mic": 0.1}), run("mic.out", "bag.in1", "xlr"),
        put("bag", "1.armed", on), base=base,
    )  # fmt: skip


DIMMER = Passing(Hazard.DIMMER, 0.5)
PATCH_CASES = [
    Case(
        "another-ring-count",
        hand_held("mirrorless-mic", "mic", microphone="headset-microphone"),
        hand_held("mirrorless-mic", "mic", "headset-trs", microphone="headset-microphone"),
        STOP,
        "sleeve lies across two contacts",
    ),
    Case("stereo-into-mono", made(run("bag.line", "cam.in1", "trs-xlr-mono"), base=made(device("shoulder-camcorder", "cam"), base=boom_in_bag())),
         made(run("bag.out-l", "cam.in1", "xlr"), base=made(device("shoulder-camcorder", "cam"), base=boom_in_bag())), NOTE, "R goes nowhere", cured=False),
    Case("wrong-lead", made(device("cinema-xlr5", "cam"), device("bag-recorder", "bag"), run("cam.sdi", "bag.tc-in", "bnc")),
         made(device("timecode-generator", "tc"), device("bag-recorder", "bag"), run("tc.tc-out", "bag.tc-in", "bnc")), STOP, "other numbers", cured=False),
    Case("mono-into-stereo", hand_held("mirrorless-mic", "mic", "xlr-trs-left"), hand_held("mirrorless-mic", "mic", "xlr-trs"), NOTE, "R records nothing"),
    Case("wrong-lead", feed("out-l", "xlr-trs"), feed("out-l", "xlr-trs-open"), CAUTION, "drives a short"),
    Case("wrong-lead", hand_held("mirrorless-mic", "mic", "xlr-trs-open"), hand_held("mirrorless-mic", "mic", "xlr-trs"), STOP, "no contact brings"),
    Case(
        "port-blocked",
        made(device("shoe-adapter", "top"), run("top.shoe", "box.shoe"), base=hand_held("mirrorless-line", "mic", "xlr-trs")),
        made(device("shoe-adapter", "top"), run("top.shoe", "box.shoe"), base=hand_held("mirrorless-four-track", "mic", "xlr-trs")),
        STOP,
        "dead socket",
    ),
    Case("no-strain-relief", jack(0.3), made(SetStrainRelief(run="run-1", on=True), base=jack(0.3)), NOTE, "works loose"),
    Case("unbalanced-too-long", line_to_line(3.5), line_to_line(3.0), CAUTION, "unbalanced for 3.5 m", cured=False),
    Case("unbalanced-too-long", jack(0.5, DIMMER), jack(0.5, Passing(Hazard.DIMMER, 5.0)), CAUTION, "passes dimmer at 0.5 m", cured=False),
    Case("lead-too-short", on_path(7, path_m=8), on_path(11, path_m=8), STOP, "needs 10.8 m"),  # 8 × 1.1 + 2
    Case("lead-too-short", on_path(9, path_m=8), on_path(11, path_m=8), CAUTION, "measures 9 m"),
    Case("beside-mains", on_path(20, Passing(Hazard.BESIDE_MAINS, 6)), on_path(20, Passing(Hazard.BESIDE_MAINS, 1)), CAUTION, "for 6 m", cured=False),
    Case("beside-mains", on_path(20, Passing(Hazard.ACROSS_MAINS)), on_path(20), NOTE, "right angle", cured=False),
    Case("laid-safely", on_path(20, Passing(Hazard.WALKWAY)), on_path(20), NOTE, "ramp it or tape it", cured=False),
    Case("laid-safely", on_path(20, Passing(Hazard.OVERHEAD)), on_path(20, Passing(Hazard.WALKWAY)), NOTE, "overhead", cured=False),
    # 2 kΩ and 50 m of 100 pF/m: 1/(2π · 2000 · 5 nF) = 15.9 kHz; 10 m: 79.6 kHz.
    Case("treble-lost", lavalier(50), lavalier(10), NOTE, "15.9 kHz", cured=False),
    Case("input-without-track", camcorder(()), camcorder(("in1",)), CAUTION, "no track of box takes it"),
    Case("built-in-microphone", camcorder(("built-in.L",)), camcorder(("in1",)), STOP, "The meter moves all the same"),
    Case("track-not-armed", armed(False), armed(True), STOP, "bag in 1 is not recorded: track 1 takes it, and is not armed"),
    Case("four-track-mode", hand_held("mirrorless-four-track", "mic", "xlr-trs"),
         made(put("box", "four_tracks", True), base=hand_held("mirrorless-four-track", "mic", "xlr-trs")), STOP, "is not recorded"),
    Case("safety-on-one-knob", adapter(linked=True), adapter(linked=False), CAUTION, "what clips one clips the other"),
    Case("aes3-lead", aes("xlr", 25), aes("aes3", 25), CAUTION, "wants 110 Ω"),  # AES3
    Case("aes3-lead", aes("xlr", 5), aes("aes3", 5), NOTE, "wants 110 Ω"),
    Case("aes3-lead", aes("aes3", 120), aes("aes3", 90), CAUTION, "more than the 100 m", cured=False),
    Case("aes3-level", made(put("bag", "in1.mic.gain_db", 30), base=aes("aes3", 5)), aes("aes3", 5), NOTE, "turn its mix", cured=False),
    Case("sample-rate", made(put("box", "sample_rate", "44100"), base=hand_held("pocket-recorder", "in", "xlr-trs")),
         hand_held("pocket-recorder", "in", "xlr-trs"), CAUTION, "44.1 kHz, the job at 48 kHz"),
    Case("sample-rate", made(SetJob(sample_rate_hz=96_000), base=boom_in_bag()), made(SetJob(sample_rate_hz=96_000), put("bag", "sample_rate", "96000"), base=boom_in_bag()),
         CAUTION, "at 48 kHz, the job at 96 kHz"),
    Case("sample-rate-between", made(put("bag", "sample_rate", "96000"), base=aes("aes3", 5)), aes("aes3", 5), STOP, "sends 96 kHz"),
    Case("sample-rate-between", behind_a_camcorder("96000"), behind_a_camcorder("48000"), STOP, "sends 96 kHz"),
    Case("sample-rate-between", behind_a_camcorder("96000", job_hz=96_000), behind_a_camcorder("48000"), STOP, "sends 96 kHz"),
    Case("sample-rate", behind_a_camcorder("48000", job_hz=96_000), behind_a_camcorder("48000"), CAUTION, "the job at 96 kHz"),
    Case("headphone-feed", feed("phones", "trs"), feed("line", "trs"), CAUTION, "the monitor is gone"),
    Case("cannot-listen", hand_held("mirrorless-mic", "mic", "xlr-trs"), hand_held("mirrorless-line", "mic", "xlr-trs"), NOTE, "has no headphone socket", cured=False),
    # Five frames of the camera and two of the switcher at 25 frames a second: 280 ms.
    Case("listening-late", switcher_phones(late=True), switcher_phones(late=False), CAUTION, "280 ms late", cured=False),
    Case("clip-limit", happens_once("mirrorless-mic", "mic", "xlr-trs"), happens_once("bag-recorder", "in1", "xlr"), CAUTION, "box after 30 min", cured=False),
    # 16 Wh at 7 W: 2.3 h, and a day of ten hours; with breaks at least every two hours it lasts.
    Case("battery-ends", happens_once("mirrorless-mic", "mic", "xlr-trs"), with_breaks(), NOTE, "about 1.8 h on a battery", cured=False),
    Case("one-recorder", made(SetSource(source="voice", irreplaceable=True), base=boom_in_bag()), boom_in_bag(), CAUTION, "alone records it", cured=False),
    Case("shared-part", two_recorders(direct=False), heard_by_both(), CAUTION, "depend on boom, bag and cable 1", cured=False),
    Case("hum-loop", powered("mains", "mains"), powered("mains", "battery"), CAUTION, "cam → mains → rec → cam"),
    Case("hum-loop", powered("computer-usb", "mains"), powered("usb-charger", "mains"), CAUTION, "the computer"),
    Case("hum-loop", powered("computer-usb", "wall-adapter"), powered("computer-usb", "battery"), CAUTION, "ticks and clicks"),
    Case("hum-loop", powered("mains", "wall-adapter"), powered("mains", "battery"), NOTE, "mostly clean"),
    Case("frequency-mismatch", radios(520.0, heard=521.0), radios(520.0), STOP, "hears nothing"),
    Case("frequency-twice", radios(520.0, 520.1), radios(520.0, 521.0), STOP, "less than 200 kHz apart"),
    # 2 × 521 − 522 = 520; 521.4 + 523 − 524.4 = 520.
    Case("intermodulation", radios(520.0, 521.0, 522.0), radios(520.0, 521.0, 522.6), CAUTION, "twice pack-1 less pack-2 is 520.000 MHz"),
    Case("intermodulation", radios(520.0, 521.4, 523.0, 524.4), radios(520.0, 521.4, 523.0, 525.0), CAUTION, "pack-1 plus pack-2 less pack-3"),
    Case("frequency-legal", radios(520.0), made(SetJob(frequencies_cleared=True), base=radios(520.0)), NOTE, "Ask the regulator"),
    Case("cell-without-gauge", made(put("mic", "capsule.cell", True), base=hand_held("mirrorless-mic", "mic", "xlr-trs", microphone="battery-condenser")),
         hand_held("mirrorless-mic", "mic", "xlr-trs", microphone="battery-condenser"), NOTE, "has no gauge", cured=False),
    # IEC 61938: 7.06 mA through 6.8 kΩ.
    Case("phantom-shorted", made(device("handheld-recorder", "rec"), run("rec.line", "box2.in1", "trs-xlr-mono"), put("box2", "in1.phantom.switch", True), base=made(device("field-mixer", "box2"))),
         made(device("handheld-recorder", "rec"), run("rec.line", "box2.in1", "trs-xlr-mono"), base=made(device("field-mixer", "box2"))), CAUTION, "7 mA flow for nothing"),
    # 30 V − 3 mA × 3.4 kΩ = 19.8 V; the standard's 44 V would leave 33.8 V.
    Case("phantom-voltage", phantom_of(30), phantom_of(45), CAUTION, "the standard promises 33.8 V", cured=False),
    Case("phantom-budget", five_microphones(3), five_microphones(2), CAUTION, "draw 9 mA", cured=False),
    Case("harmful-power", made(put("box", "in1.phantom.switch", True), base=hand_held("field-mixer", "in1", "xlr", microphone="t-power-shotgun")),
         made(put("box", "in1.mode", "mic-t"), put("box", "in1.phantom.switch", True), base=hand_held("field-mixer", "in1", "xlr", microphone="t-power-shotgun")), STOP, "P48 is on"),
    Case("harmful-power", made(put("box", "in1.mode", "mic-t"), put("box", "in1.phantom.switch", True), base=hand_held("field-mixer", "in1", "xlr", microphone="boom-shotgun")),
         made(put("box", "in1.phantom.switch", True), base=hand_held("field-mixer", "in1", "xlr", microphone="boom-shotgun")), STOP, "T-power is on"),
    Case("harmful-power", made(put("box", "mic.plug_in.menu", True), base=hand_held("mirrorless-mic", "mic", "xlr-trs", microphone="ribbon")),
         hand_held("mirrorless-mic", "mic", "xlr-trs", microphone="ribbon"), STOP, "ribbon then lies across"),
    Case("microphone-unpowered", made(SetParts(run="run-1", parts=(Part(lead="xlr", length_m=7), Part(lead="xlr-isolator", length_m=0.2))), base=boom_in_bag()),
         boom_in_bag(), STOP, "a cable on the way does not pass it", cured=False),
]  # fmt: skip
