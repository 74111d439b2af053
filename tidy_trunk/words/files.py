"""Files and log: what does not agree, and what to do."""

from collections.abc import Mapping

from tidy_trunk.core.log import FileFinding, FileTrouble
from tidy_trunk.words.log import seconds_words


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
