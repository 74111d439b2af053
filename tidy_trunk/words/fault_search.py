"""What is wrong, in words: suspects with what ends them, tests with their question, and what goes into the log."""

from collections.abc import Mapping
from typing import Final, NamedTuple

from tidy_trunk.core.advice.fault_search import FaultTest, Suspect, Symptom
from tidy_trunk.core.plan import PlanIndex
from tidy_trunk.words.findings import said

SYMPTOMS: Final[Mapping[Symptom, str]] = {
    Symptom.HUM: "Hum or buzz",
    Symptom.HISS: "Hiss",
    Symptom.DISTORTED: "Distorted",
    Symptom.QUIET: "Too quiet, or silent",
    Symptom.ONE_SIDE: "One side missing",
    Symptom.METERS: "Meters differ",
    Symptom.OUT_OF_SYNC: "Out of sync",
    Symptom.DROPOUTS: "Dropouts or crackle",
}

_SUSPECTS: Final[Mapping[str, tuple[str, str]]] = {
    "mains": ("{device} hums through its mains supply", "Run {device} from its battery, or put an isolating transformer into the cable. Never lift a protective earth."),
    "beside-mains": ("{cable} picks up hum from lamps, dimmers or mains cables", "Lead it away from them, cross mains at right angles, and keep the unbalanced part short."),
    "screen": ("The screen of {cable} is broken", "Swap the cable, and mark the bad one."),
    "place": ("It is in the room: {device} hears it", "Find what makes it and switch it off, come closer, or turn the microphone away from it."),
    "plug": ("A plug of {cable} is not home", "Push both plugs home and listen."),
    "small-plug": ("A plug of {cable} is loose", "Push both plugs home, wiggle each while listening, tie the cable up high. Discard it if it is loose in every socket."),
    "break": ("{cable} is broken", "Swap the cable, and mark the bad one."),
    "pad-missing": ("The attenuator of {cable} is left out, or the wrong way round", "Put it at the receiving end, its marked end to the camera."),
    "pad-off": ("The attenuator of {cable} takes off another amount than it says", "Send tone, and enter what is read in Line-up: a bought one may be 5 dB weak."),
    "switch": ("A switch or knob at {device} stands other than planned", "Set it as the checklist says: input, mode, attenuator, low cut, gain."),
    "muted": ("{device} is muted, off, or on another frequency", "Unmute it, look at its frequency and at the receiver's."),
    "power": ("48 V does not reach {device}", "Switch it on in both places, switch and menu, and look at the lamp. Mute before you connect."),
    "cell": ("The cell in {device} is flat", "Put a fresh cell in, and log it."),
    "armed": ("The track of {device} is not armed, or takes another input", "Arm it, and look at which input feeds it. Tap the microphone: the right meter must move, and no other."),
    "monitor": ("The headphones of {device} are set to one side", "Set its monitor to both sides; look at the meters, which hear both."),
    "too-hot": ("{device} is driven too hot", "Lower what feeds it until its own meter stays well under the top. What is clipped cannot be repaired: take it again."),
    "automatic": ("Automatic level at {device} is on", "Turn it off, in the switch and in the menu."),
    "scale": ("The meter of {device} has another scale", "On a desk 0 is nominal level, on a recorder the ceiling. Send tone, and compare that."),
    "lined-up": ("{device} is not lined up", "Send tone and set its level in Line-up; then speak: both meters must agree."),
    "drift": ("The clock of {device} has drifted", "Jam it again; stretch long takes in the edit."),
    "rate": ("{device} runs at another frame rate or sample rate", "Set frame rate, drop-frame flag and sample rate as the job has them."),
    "jam": ("{device} was not jammed again", "Jam it now, and after every battery change if it forgets."),
    "picture": ("{device} shows its picture late", "Clap and measure it on Timecode; delay the sound by as much where it enters."),
    "radio": ("The radio of {cable} is blocked or disturbed", "Come closer, get the aerials into sight of each other, change to a clear frequency that is legal where you stand."),
    "aerial": ("The aerial of {device} is loose or hidden", "Screw it home, and keep metal and bodies away from it."),
    "card": ("The card in {device} fails or is too slow", "Change the card, and keep the old one unchanged for rescue."),
    "noise": ("{device} makes most of the noise", "Bring the level up before it, and turn it down; see Levels for what that gives."),
}  # fmt: skip
"""By code, what is wrong and what ends it. [HANDBOOK] §§4 to 9"""

_TESTS: Final[Mapping[str, tuple[str, str]]] = {
    "listen": ("Listen at {device}, with closed headphones, set low first.", "Is it there too?"),
    "play-back": ("Record half a minute on {device} and play it back.", "Is it there too?"),
    "swap": ("Swap {cable} for another one.", "Is it gone?"),
    "battery": ("Run {device} from its battery.", "Is it gone?"),
    "lamps": ("Switch lamps, dimmers, LED supplies and smart plugs off, one after the other, while you listen.", "Does it go with one of them?"),
}  # fmt: skip

_LOOKS: Final[Mapping[str, str]] = {
    "switch": "Look at {device}: input, mode, attenuator, low cut, gain. Is anything other than in the checklist?",
    "muted": "Look at {device}: is it muted, off, or on another frequency than its receiver?",
    "power": "Look at the 48 V of {device}: switch, menu, lamp. Is it off in one of them?",
    "cell": "Look at the cell of {device}. Is it old, or flat?",
    "armed": "Tap the microphone and look at {device}. Does its meter stay still, or another one move?",
    "monitor": "Look at the headphone setting of {device}. Is it on one side alone?",
    "automatic": "Look at the automatic level of {device}, switch and menu. Is it on in one of them?",
    "scale": "Ask which scale the meter of {device} has. Is it another than dBFS?",
    "lined-up": "Send tone. Does {device} read something else than Line-up says?",
    "drift": "Read the labels of both at one moment. Is {device} off by a frame or more?",
    "rate": "Look at frame rate, drop-frame flag and sample rate of {device}. Is one of them other than the job's?",
    "jam": "Has {device} been switched off, or has its time come, since it was jammed?",
    "picture": "Clap in front of the camera and look at {device}. Is its picture late?",
    "radio": "Walk closer with the transmitter. Does it stop?",
    "aerial": "Look at the aerials of {device}. Is one loose or hidden?",
    "card": "Play back a file of {device}. Is it damaged there too?",
}


class SuspectWords(NamedTuple):
    """title: what is wrong, where; fix: what ends it; log: what is written down."""

    title: str
    fix: str
    log: str


class TrialWords(NamedTuple):
    """does: what to try; asks: a question for yes or no."""

    does: str
    asks: str


def suspect_words(suspect: Suspect, index: PlanIndex) -> SuspectWords:
    if suspect.finding is not None:
        words = said(suspect.finding, index)
        where = f", cable {index.plan.runs[suspect.run].number}" if suspect.run else ""
        return SuspectWords(
            f"{words.title}{where}",
            words.text,
            f"{words.title}. Since when, and which takes: listen to the last good one.",
        )
    title, fix = (text.format(**_names(suspect.device, suspect.run, index)) for text in _SUSPECTS[suspect.code])
    title = f"{title[:1].upper()}{title[1:]}"
    return SuspectWords(title, fix, f"{title}. Since when, and which takes: listen to the last good one.")


def trial_words(test: FaultTest, suspects: Mapping[str, Suspect], index: PlanIndex) -> TrialWords:
    names = _names(test.device, test.run, index)
    if test.code in _TESTS:
        does, asks = _TESTS[test.code]
        return TrialWords(does.format(**names), asks)
    suspect = suspects[test.suspect]
    if suspect.finding is not None:
        return TrialWords(f"{said(suspect.finding, index).title}: look at it on the set.", "Is it so?")
    does, _, asks = _LOOKS[suspect.code].format(**names).rpartition(". ")
    return TrialWords(f"{does}." if does else "", asks)


def _names(device: str, run: str, index: PlanIndex) -> dict[str, str]:
    return {
        "device": index.placed(device).label if device else "",
        "cable": f"cable {index.plan.runs[run].number}" if run else "",
    }
