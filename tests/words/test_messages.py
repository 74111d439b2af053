"""What is said of messages: one of each code at least. The core names codes and facts; this is what a recordist reads."""

import ast
import inspect
from pathlib import Path

import pytest

from tests.plans import line_into_camera, put
from tidy_trunk.core.advice.adviser import ConnectionMethod
from tidy_trunk.core.gear.catalogue import Power, Supply
from tidy_trunk.core.plan import Message, Part, PlanIndex, PortRef, Role, message
from tidy_trunk.words import worded
from tidy_trunk.words.messages import SAYERS

CORE = Path(__file__).resolve().parents[2] / "tidy_trunk" / "core"
AT = PlanIndex(line_into_camera())
IN1, LINE, OUT, MIC = (PortRef(*ref.split(".")) for ref in ("bag.in1", "bag.line", "bag.out-l", "cam.mic"))
GAIN, MODE, LIMITER = put("cam", "mic.mic.gain_db", 3), put("bag", "in1.mode", "line"), put("bag", "in1.limiter", True)


def said(code: str, **facts: object) -> Message:
    return message(code, AT, **facts)


SAID: list[tuple[Message, str]] = [
    (said("tone-by-keys", device="bag"), "bag gives its tone while its keys are held; it need not record for that."),
    (
        said("tone-while-recording", device="bag"),
        "bag gives its tone only while it records, and locks its levels meanwhile: record, read, stop, change, record again.",
    ),
    (said("set-controls", edits=(GAIN,)), "cam mic socket: gain to +3 dB"),
    (
        said("set-controls", edits=(GAIN, MODE, LIMITER)),
        "cam mic socket: gain to +3 dB; bag in 1: mode to line, limiter to on",
    ),
    (said("set-controls", edits=(GAIN, MODE, LIMITER, GAIN)), "Set 4 controls of cam and bag"),
    (said("gain-plan"), "Apply the gain plan"),
    (said("keep-for", role=Role.TIMECODE), "Use the track for timecode"),
    (said("timecode-rate-of-job", device="cam"), "Set cam to the job's frame rate"),
    (said("free-run", device="cam"), "Set cam to free run"),
    (said("switch-mode", socket=IN1, mode="line"), "Switch bag in 1 to line"),
    (said("jam", giver="bag", at_min=(480, 750), is_worst_case=False), "Jam from bag at 08:00, 12:30"),
    (said("jam", giver="bag", at_min=(480,), is_worst_case=True), "Jam from bag at 08:00, at the worst drift"),
    (said("jam-when-day-begins", device="cam", giver="bag"), "Jam cam from bag at the start of the day"),
    (said("set-delay", device="bag", ms=41.66), "Set bag's delay to 41.7 ms"),
    (said("timecode-cable", giver="bag"), "Run a timecode cable from bag and leave it connected"),
    (said("add-generator", device="cam"), "Add a timecode generator that stays on cam"),
    (said("sample-rate", device="bag", rate_hz=48000), "Set bag to 48 kHz"),
    (said("job-sample-rate", rate_hz=48000), "Record all of the job at 48 kHz"),
    (said("power-from", device="bag", power=Power.BATTERY), "Run bag from its battery"),
    (said("power-from", device="bag", power=Power.CHARGER), "Run bag from a USB charger"),
    (said("power-from", device="bag", power=Power.ADAPTER), "Run bag from a double-insulated adapter"),
    (said("isolating-transformers", runs=("run-2",)), "Put an isolating transformer into cable 2"),
    (said("isolating-transformers", runs=("run-1", "run-2")), "Put isolating transformers into cables 1 and 2"),
    (
        said("use-cables", parts=(Part(lead="xlr-trs", length_m=2), Part(lead="trs", length_m=1))),
        "Use XLR to 3.5 mm, mono to both sides and 3.5 mm TRS",
    ),
    (said("use-cables", parts=()), "Plug it in directly"),
    (said("remove-cable", run="run-2"), "Remove cable 2"),
    (said("strain-relief"), "Mark strain relief as fitted"),
    (said("cable-length", length_m=7.5), "Use 7.5 m"),
    (said("go-balanced", output=OUT), "Run it balanced from bag out L, adapter at the receiving end"),
    (said("use-aes3-cable"), "Use the 110 Ω cable"),
    (said("other-output", output=OUT), "Use bag out L instead"),
    (said("inputs-down", device="bag", by_db=6.2), "Turn bag's inputs down by 6 dB"),
    (said("limiter", socket=IN1, on=True), "Turn the limiter of bag in 1 on"),
    (said("limiter", socket=IN1, on=False), "Turn the limiter of bag in 1 off"),
    (said("automatic-level-off"), "Turn automatic level off"),
    (said("attenuator-off"), "Switch the attenuator off"),
    (said("low-cut", socket=IN1, cut_hz=80), "Set low cut of bag in 1 to 80 Hz"),
    (said("low-cut", socket=IN1, cut_hz=None), "Switch low cut of bag in 1 off"),
    (said("supply-on", supply=Supply.P48, socket=IN1), "Switch P48 on at bag in 1"),
    (said("supply-off", supply=Supply.PLUG_IN), "Switch plug-in power off"),
    (said("fresh-cell", device="boom"), "Put a fresh cell into boom"),
    (said("tune", device="bag", mhz=614.5), "Set bag to 614.500 MHz"),
    (said("move-frequency", device="bag", mhz=614.875), "Move bag to 614.875 MHz, if it is legal there"),
    (said("frequencies-cleared"), "Mark the frequencies as cleared for this place"),
    (said("route", socket=IN1, bus="1"), "Route bag in 1 to track 1"),
    (said("four-tracks", device="bag"), "Switch bag to four tracks"),
    (said("both-sides", device="bag"), "Send the same on both sides of bag"),
    (said("insert-delay", ms=160.0), "Put an audio delay unit in between, set to 160 ms"),
    (said("arm", device="bag", buses=("1", "2")), "Arm tracks 1 and 2 of bag"),
    (said("own-knob", socket=IN1, lower_db=10.0), "Unlink in 1 and set it 10 dB lower"),
    (said("as-it-is"), "As it is now"),
    (said("as-it-is-set", automatic_level_off=True), "as it is set now, automatic level off"),
    (said("only-gain", device="cam"), "Only set cam's gain"),
    (said("use-attenuator", lead="trs-pad-25", loss_db=25), "Use the 25 dB attenuator"),
    (said("trim", socket=LINE, to_db=-24.0), "Turn bag line out to −24 dB"),
    (said("use-headphone-output", device="bag", at_db=-20.0), "Use bag's headphone output at −20 dB"),
    (said("attenuator-on", device="cam"), "Switch on cam's attenuator"),
    (said("use-aes3", device="bag"), "Use AES3 from bag"),
    (said("via", device="bag"), "Via bag"),
    (said("via-new", class_id="preamp-box"), "Via a preamp box for a camera shoe"),
    (said("one-cable", lead="trs-pad-25"), "1 3.5 mm cable with 25 dB"),
    (said("one-device", class_id="preamp-box"), "1 preamp box for a camera shoe"),
    (said("aes3-cable"), "110 Ω cable"),
    (said("listening"), "listening there"),
    (said("output-in-use", output=OUT), "out L of bag"),
    (said("looks-like-plain"), "looks like a plain cable: label it"),
    (said("turned-up-clips", device="cam"), "turned up again, it clips cam"),
    (said("hiss-stays"), "its own hiss does not go down with it"),
    (said("volume-turns-recording"), "turning the volume changes the recording"),
    (said("attenuator-too-late"), "it comes after the stage that clips: it prevents nothing"),
    (said("level-fixed"), "level is fixed at the sender"),
    (said("one-more-device"), "one more device to power, carry and switch on"),
    (said("sender-too-hot", by_db=14.1), "the sender's full scale is 14 dB above what the input takes"),
    (
        said("sender-just-fits", margin_db=-0.4, doubt_db=2.1),
        "the sender's full scale is only 0 dB below what the input takes, ±2",
    ),
    (said("no-voice-no-full-scale"), "no source yet, and one end states no full scale"),
    (said("full-scale-clips", by_db=6.0), "at full scale it clips by 6 dB"),
    (said("full-scale-fits", margin_db=4.0), "fits at full scale with 4 dB to spare; no source yet"),
    (said("still-clips", by_db=14.12), "still clips by 14.1 dB"),
    (said("misses-target", miss_db=-9.0), "9 dB below the target"),
    (said("misses-target", miss_db=4.0), "4 dB above the target"),
    (said("fits-but-bursts-clip", by_db=3.0), "fits, but a full-scale burst would clip by 3 dB"),
    (said("fits", below_room_db=18.0, is_inaudible=True), "fits; hiss 18 dB below the room noise, inaudible"),
    (said("fits", below_room_db=2.0, is_inaudible=False), "fits; hiss is audible over the room noise"),
    (
        said("connect", sending=LINE, receiving=MIC, how=ConnectionMethod.PLAIN, via=None),
        "bag line out to cam mic socket",
    ),
    (
        said(
            "chain",
            who="ann",
            added=("bag", "cam"),
            then=said("connect", sending=LINE, receiving=MIC, how=ConnectionMethod.PLAIN, via=None),
        ),
        "Ann: add bag and cam; bag line out to cam mic socket",
    ),
    (said("chain", who="", added=("cam",), then=None), "Add cam"),
    (
        said("connect", sending=LINE, receiving=MIC, how=ConnectionMethod.MATCHED, via=None),
        "bag line out to cam mic socket, matched",
    ),
    (
        said("connect", sending=LINE, receiving=MIC, how=ConnectionMethod.UNMATCHED, via=None),
        "bag line out to cam mic socket, plain cable, nothing matched",
    ),
    (
        said(
            "connect",
            sending=LINE,
            receiving=MIC,
            how=ConnectionMethod.VIA,
            via=message("via-new", AT, class_id="preamp-box"),
        ),
        "bag line out to cam mic socket, via a preamp box for a camera shoe",
    ),
    (said("add-class", class_id="preamp-box", called=()), "Add Preamp box for a camera shoe"),
    (
        said("add-class", class_id="preamp-box", called=("amp", "spare")),
        "Add Preamp box for a camera shoe, as amp and spare",
    ),
    (
        said("no-power-here", device="boom"),
        "boom has no power here: its socket cannot give it, or a cable does not pass it",
    ),
    (said("track-without-source", bus="L"), "track L: no source yet"),
    (said("track-clips", bus="L", by_db=14.12), "track L: clips by 14.1 dB"),
    (
        said("track-level", bus="L", average_dbfs=-20.2, peak_dbfs=-6.1, gear_noise_dbfs=None),
        "track L: average −20, peak −6 dBFS",
    ),
    (
        said("track-level", bus="L", average_dbfs=-20.2, peak_dbfs=-6.1, gear_noise_dbfs=-61.0),
        "track L: average −20, peak −6 dBFS, gear noise −61",
    ),
    (said("reading-of", place="cam track L"), "line-up of cam track L"),
    (said("line-up-again", place="cam track L"), "line up cam track L again"),
    (said("loudness-of", source="voice"), "how loud Voice is"),
    (said("read-meter-of-voice", source="voice"), "let Voice speak, and read the meter"),
    (said("sensitivity-of", device="boom"), "sensitivity of boom"),
    (said("compare-with-known", device="boom"), "compare boom with a microphone that is known"),
    (said("full-scale-of", place="cam mic socket"), "full scale of cam mic socket"),
    (said("measure-output", device="bag"), "send 1 kHz from bag and measure its output"),
    (said("line-up-into", device="cam"), "line up at 1 kHz into cam"),
    (said("loss-of", part=Part(lead="trs-pad-25", length_m=0.3)), "loss of 3.5 mm cable with 25 dB"),
    (said("line-up-through", run="run-2"), "line up at 1 kHz through cable 2"),
    (
        said("look-at-microphone-input"),
        "automatic level off, the camera one step above its lowest gain, the right cable or attenuator, then the sender's output",
    ),
    (
        said("look-at-line-input"),
        "automatic level off, both ends at line, the right cable, then the level of the track itself",
    ),
    (
        said("automatic-level-is-on"),
        "Automatic level is on: switch it off first. Until then the reading means nothing.",
    ),
    (
        said("tone-clips", where="cam mic socket", by_db=14.12),
        "The tone clips in cam mic socket by 14.1 dB: match the levels first.",
    ),
    (said("voice-clips", where="bag in 1", by_db=3.0), "It clips in bag in 1 by 3.0 dB: turn it down first."),
    (
        said("turn-knobs", turns=(("cam mic socket, gain", 3.0, 0.0), ("bag line out, output level", 0.0, -3.5))),
        "cam mic socket, gain: +3 to 0 dB, then bag line out, output level: 0 to −3.5 dB",
    ),
    (
        said("pad-for-full-scale", sender="bag", sends_dbu=20.0, receiver="cam", takes_dbu=-10.5, doubt_db=1.9),
        "bag sends +20.0 dBu at full scale, cam clips at −10.5 dBu; uncertainty ±2 dB",
    ),
    (said("pad-usual", usual_db=25.0), "the sender's full scale is not known: 25 dB is usual from line to mic level"),
]


@pytest.mark.parametrize(("given", "words"), SAID, ids=lambda item: getattr(item, "code", ""))
def test_what_is_said(given, words):
    assert worded(given) == words


def test_each_code_of_the_core_is_said_and_takes_its_facts():
    """Read from the calls themselves, as no type checker sees them."""
    codes = set()
    for text in (path.read_text() for path in CORE.rglob("*.py")):
        for node in ast.walk(ast.parse(text)) if "message(" in text else ():
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "message" and len(node.args) == 2:
                code, facts = ast.literal_eval(node.args[0]), {keyword.arg for keyword in node.keywords}
                takes = set(inspect.signature(SAYERS[code]).parameters) - {"at"}
                assert facts == takes, code
                codes.add(code)
    assert codes == SAYERS.keys() == {given.code for given, _ in SAID}
