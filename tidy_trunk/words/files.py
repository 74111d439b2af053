"""Files and log: what does not agree, and what to do."""

from collections.abc import Mapping
from typing import Final

from tidy_trunk.core.log import DayFault, FileFinding, FileTrouble
from tidy_trunk.words.log import seconds_words
from tidy_trunk.words.numbers import many, unsigned, whole

ECHO_MS: Final = 20.0
"""ASSUMED_ from where on two of the same sound are heard apart, for a voice: half a frame at 25 a second."""

FAULT_WORDS: Final = {
    DayFault.MISSED_BUTTON: "{0} did not roll in {1}",
    DayFault.DEAD_BATTERY: "the battery of {0} died in {1}",
    DayFault.WRONG_RATE: "{0} ran at another rate in {1}",
    DayFault.CLIPPED: "{0} clipped in {1}",
    DayFault.SILENT_TRACK: "a track of {0} was silent in {1}",
    DayFault.CUT_SHORT: "the card was pulled out of {0} in {1}",
    DayFault.WRONG_LABEL: "{0} called {1} by the next number",
    DayFault.WRONG_DATE: "{0} had another date in {1}",
    DayFault.SWAPPED_NAMES: "{0} had two track names the other way round in {1}",
    DayFault.LATE_CLOCK: "the clock of {0} was late in {1}",
}
"""What went wrong on a simulated day: device and take. [PRACTICE]"""


def together_words(off_ms: float | None) -> str:
    """Whether a picture's guide and the recorder's sound lie on each other, as one hears it."""
    if off_ms is None:
        return "not compared: play both once"
    if abs(off_ms) < ECHO_MS:
        return f"together within {max(abs(off_ms), 0.1):.1f} ms"
    return f"{'later' if off_ms > 0 else 'earlier'} by {abs(off_ms):.0f} ms than its timecode says: move it"


def files_summary(files: int, takes: int, with_files: int, differences: int) -> str:
    """`69 recordings; 14 of 14 takes have files, 3 differences`."""
    if not takes:
        return many(files, "recording")
    found = many(differences, "difference") if differences else "no difference"
    return f"{many(files, 'recording')}; {with_files} of {many(takes, 'take')} have files, {found}"


def copy_words(files: int, bad: int, *, has_second: bool) -> str:
    """What became of copies, and of the card."""
    if bad:
        return f"{bad} of {many(files, 'file')} have no good copy. Do not format the card."
    twice = "copied twice, both copies" if has_second else "copied, and"
    return f"{many(files, 'file')} {twice} read back without a difference."


def file_finding_words(finding: FileFinding, labels: Mapping[str, str]) -> tuple[str, str]:
    """Title and text. `labels`: of takes, by their ids."""
    take, path, facts = labels.get(finding.take, ""), finding.path, finding.facts
    seconds = float(facts.get("seconds", 0.0))
    match finding.what:
        case FileTrouble.NO_FILE:
            return (
                f"{facts['source']} has no file of {take}",
                "Its record button was missed, or the file lies elsewhere. Look on its card before that is formatted.",
            )
        case FileTrouble.NO_TAKE:
            return (
                f"{path} belongs to no take",
                "It was not logged, or its clock is wrong. Log the take, or set it aside.",
            )
        case FileTrouble.CUT_SHORT:
            return (
                f"{path} is cut short",
                f"Its header promises more than the {seconds_words(seconds)} that are there: power or card gave out in {take}. "
                "Copy it again from the card.",
            )
        case FileTrouble.UNREADABLE:
            return f"{path} cannot be read", f"{facts['problem']}. Copy it again from the card."
        case FileTrouble.LABELLED_OTHERWISE:
            return (
                f"{path} says {facts['says']}, and is {facts['is']}",
                "Its time is that of the take in the log. Correct its label in a copy, or the log.",
            )
        case FileTrouble.STARTS_LATE:
            return f"{path} begins {seconds:.0f} s late", f"{take} was logged before it. What came first is not on it."
        case FileTrouble.ENDS_EARLY:
            return (
                f"{path} ends {seconds:.0f} s early",
                f"{take} was cut later. A battery, a card or a clip limit ended it: use the other recording from there on.",
            )
        case FileTrouble.RATE:
            return (
                f"{path} has timecode of {facts['is']}",
                f"The job has {facts['wanted']}. Set the device, and tell editorial.",
            )
        case FileTrouble.FLAG:
            is_drop = bool(facts["is"])
            return (
                f"{path} is {'drop-frame' if is_drop else 'non-drop'}",
                "The job counts otherwise: labels part by 3.6 s an hour. Set the device, and tell editorial.",
            )
        case FileTrouble.SAMPLE_RATE:
            return (
                f"{path} has {float(facts['is']) / 1000:g} kHz",
                f"The job has {float(facts['wanted']) / 1000:g} kHz. Set the device; the file must be converted.",
            )
        case FileTrouble.DATE:
            return (
                f"{path} is dated {facts['is']}",
                f"The day is {facts['wanted']}. Set the device's date; correct a copy.",
            )
        case FileTrouble.GAP:
            return (
                f"{seconds:.1f} s are missing before {path}",
                f"Its device left a gap in {take}. Use the other recording there.",
            )
        case FileTrouble.OVERLAP:
            return (
                f"{path} begins {seconds:.1f} s before the one before it ends",
                f"Both are of {take}: one clock is wrong.",
            )
        case FileTrouble.TRACKS:
            return f"{path} names tracks that the plan has not", f"It says {facts['is']}. Correct a copy, or the plan."
        case FileTrouble.USER_BITS:
            return (
                f"{path} has user bits {facts['is']}",
                f"Other files of its device have {facts['wanted']}: it was set otherwise then. Tell editorial.",
            )
        case FileTrouble.CLIPPED:
            tops = many(int(facts["count"]), "flat top")
            return (
                f"{path} is clipped on track {facts['tracks']}",
                f"{tops} in {take}: listen to it now. Use the safety track, or ask for another take.",
            )
        case FileTrouble.SILENT:
            return (
                f"{path} is silent on track {facts['tracks']}",
                f"Something comes to it by the plan. Look for a cable, a receiver or a phantom switch that was off in {take}.",
            )
        case FileTrouble.SWAPPED:
            first, second = (int(facts[which]) for which in ("first", "second"))
            return (
                f"{path} has tracks {first} and {second} the other way round",
                "Look which cable is in which socket, and tell editorial.",
            )
        case FileTrouble.LEVEL:
            level, wanted = (whole(float(facts[which])) for which in ("is", "wanted"))
            return (
                f"Track {facts['track']} is at {level} dBFS in {path}",
                f"The plan expects {wanted}. A knob, a level switch or another voice in {take}: listen to it.",
            )
        case FileTrouble.OFF_CLOCK:
            return (
                f"The timecode of {path} is {unsigned(float(facts['frames']))} frames off",
                f"Its guide track matches the recorder there, in {take}. Jam the camera again, and tell editorial.",
            )
        case FileTrouble.DRIFT:
            return (
                f"{path} drifts by {unsigned(float(facts['frames']))} frames",
                f"Its clock runs {whole(float(facts['ppm']))} ppm away from the recorder's in {take}. Lay it in pieces, or take "
                "the drift out on Sync.",
            )
