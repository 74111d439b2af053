"""Every command of the line: how it begins, what it means, how it may go on, and how the help explains it."""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import partial
from typing import Final

from tidy_trunk.core.command import chain, clock, runs, settings, shooting, things
from tidy_trunk.core.command.complete import after_controls, after_path, after_run, classes, names, nothing
from tidy_trunk.core.command.grammar import LineForm
from tidy_trunk.core.command.proposal import Proposal
from tidy_trunk.core.plan import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class Command:
    """One kind of line.

    verbs: any of them begins it; none where words in the middle tell it. says: whether a line without a verb is one.
    meaning: proposals for what follows the verb, or for the whole line where there is none. go_on: what may follow.
    of_run: it names a cable first, and is none where the line joins two devices, of which one may be called like the verb.
    """

    verbs: tuple[str, ...] = ()
    says: Callable[[str], object] = lambda line: False
    meaning: Callable[[Plan, str], Iterator[Proposal]]
    go_on: Callable[[Plan, str], Iterator[str]] = nothing
    of_run: bool = False
    forms: tuple[LineForm, ...]

    def is_meant(self, line: str) -> bool:
        verb, _, rest = line.partition(" ")
        if not self.verbs:
            return bool(self.says(line))
        if verb.lower() not in self.verbs or not rest:
            return False
        return not self.of_run or runs.names_run(rest) or not runs.TO.search(line)


def _of_run(*verbs: str, meaning: runs.OfRun, go_on: Callable[[Plan, str], Iterator[str]], form: LineForm) -> Command:
    """A command that names a cable first."""
    found = partial(runs.of_run, verbs[0], meaning)
    return Command(verbs=verbs, meaning=found, go_on=go_on, of_run=True, forms=(form,))


COMMANDS: Final = (
    Command(
        verbs=("add",),
        meaning=things.add,
        go_on=classes,
        forms=(LineForm("add CLASS as NAME, NAME", "add bag recorder as bag", "puts devices on the job"),),
    ),
    Command(
        verbs=("copy",),
        meaning=things.copy,
        go_on=names,
        forms=(LineForm("copy DEVICE as NAME", "copy camera b as camera c", "a second device with the same settings"),),
    ),
    Command(
        verbs=("rename", "name"),
        meaning=things.rename,
        go_on=names,
        forms=(LineForm("rename THING as NAME", "rename camera b as second camera", "another name"),),
    ),
    Command(
        verbs=("remove",),
        meaning=things.remove,
        go_on=names,
        forms=(
            LineForm(
                "remove THING",
                "remove cable 4",
                "takes away a cable, a device with its cables, a source, a cable of your own",
            ),
        ),
    ),
    _of_run(
        "length",
        meaning=runs.length,
        go_on=partial(after_run, " "),
        form=LineForm("length cable N, L m", "length cable 4 12 m", "the cable that is made to length takes the rest"),
    ),
    _of_run(
        "path",
        "way",
        meaning=runs.path,
        go_on=after_path,
        form=LineForm(
            "path cable N: L m past WHAT and WHAT, then L m across mains",
            "path cable 4: 8 m past walkway, then 2 m past dimmer at 0.5 m",
            "where the cable lies, and what it passes",
        ),
    ),
    _of_run(
        "swap",
        meaning=runs.swap,
        go_on=partial(after_run, " for "),
        form=LineForm("swap cable N for CABLE", "swap cable 4 for straight", "another cable for the same sockets"),
    ),
    _of_run(
        "move",
        meaning=runs.move,
        go_on=partial(after_run, " to "),
        form=LineForm(
            "move cable N to TO, move cable N from FROM",
            "move cable 4 to camera b",
            "another end, with the cable that fits",
        ),
    ),
    _of_run(
        "tie",
        meaning=runs.tie,
        go_on=partial(after_run, ""),
        form=LineForm("tie cable N", "tie cable 4", "strain relief at its ends"),
    ),
    Command(
        verbs=("set",),
        meaning=settings.set_,
        go_on=after_controls,
        forms=(
            LineForm("set DEVICE PORT CONTROL VALUE, …", "set bag 1 gain 40, 2 gain 30", "moves controls"),
            LineForm(
                "set SOURCE average, quiet, peak, burst LEVEL; once on",
                "set founder peak 118",
                "how loud, and whether it happens only once",
            ),
            LineForm(
                "set job WHAT VALUE, …",
                "set job rate 25, target film, place hall, room 48, day 8:00 to 17:30",
                "what holds for the whole job",
            ),
        ),
    ),
    Command(
        verbs=("route",),
        meaning=settings.route,
        go_on=names,
        forms=(
            LineForm(
                "route DEVICE INPUT and INPUT to TRACK",
                "route bag 1 and 4 to mix l",
                "which inputs feed a track or mix",
            ),
        ),
    ),
    Command(
        verbs=("use",),
        meaning=settings.use,
        go_on=names,
        forms=(
            LineForm(
                "use DEVICE TRACK and TRACK for ROLE",
                "use camera b l and r for guide",
                "what a track is kept for: dialogue, effects, guide, timecode",
            ),
        ),
    ),
    Command(
        verbs=("jam",),
        meaning=clock.jam,
        go_on=names,
        forms=(
            LineForm(
                "jam DEVICE from DEVICE at TIME and TIME",
                "jam camera a from bag at 8:00 and 12:30",
                "when a clock is set from another, and then runs free; by radio, or from none",
            ),
        ),
    ),
    Command(
        verbs=("late",),
        meaning=clock.late,
        go_on=names,
        forms=(
            LineForm(
                "late CAMERA N ms, or N frames, by sdi",
                "late camera b 200 ms",
                "how late its picture was measured to come out",
            ),
        ),
    ),
    Command(
        verbs=("break",),
        meaning=clock.break_,
        forms=(LineForm("break NAME at TIME, N min", "break dinner at 12:30, 45 min", "when jamming stops no work"),),
    ),
    Command(
        verbs=("set-up", "setup"),
        meaning=shooting.set_up,
        forms=(
            LineForm(
                "set-up NAME at TIME, N takes of N min",
                "set-up 12C at 10:30, 4 takes of 3 min",
                "what is shot when; 2 min between may follow, and none takes it away",
            ),
        ),
    ),
    Command(
        verbs=("company",),
        meaning=shooting.company,
        forms=(
            LineForm(
                "company move to PLACE at TIME, N min",
                "company move to the tower at 13:30, 40 min",
                "when everything is carried to another place",
            ),
        ),
    ),
    Command(
        verbs=("slip",),
        meaning=shooting.slip,
        forms=(
            LineForm("slip N min from TIME", "slip 25 min from 11:40", "the day runs late from then on; early too"),
        ),
    ),
    Command(
        verbs=("again",),
        meaning=shooting.again,
        forms=(LineForm("again SET-UP", "again 12C", "one more take; what comes after it is later"),),
    ),
    Command(
        verbs=("place",),
        meaning=shooting.place,
        go_on=names,
        forms=(
            LineForm(
                "place DEVICE at WHERE", "place camera b at the walkway", "where it stands, if that is a walk away"
            ),
        ),
    ),
    Command(
        verbs=("feed",),
        meaning=settings.feed,
        go_on=names,
        forms=(LineForm("feed DEVICE OUTPUT from TRACK", "feed bag line r from mix l", "what an output gives out"),),
    ),
    Command(
        says=chain.CHAIN.search,
        meaning=chain.chain,
        forms=(
            LineForm(
                "SOURCE: MICROPHONE by radio to TO, N m",
                "ann: lavalier by radio to bag 5, 0.2 m",
                "somebody with microphone, radio and cables at once; what the job has not is added",
            ),
        ),
    ),
    Command(
        says=runs.TO.search,
        meaning=chain.connect,
        forms=(
            LineForm(
                "FROM to TO, N m, by CABLE", "bag line to camera b, 3 m", "a cable; its length and kind may be left out"
            ),
        ),
    ),
    Command(
        says=re.compile(r"\sat\s").search,
        meaning=things.hear,
        forms=(
            LineForm(
                "SOURCE at MICROPHONE, N m, N°, LEVEL",
                "founder at boom, 0.5 m, raised",
                "who is heard by what, from how far, how far off its axis, how loud",
            ),
        ),
    ),
)
"""A verb tells a command; then the words between two devices. The first that is meant counts."""

GRAMMAR: Final = tuple(form for command in COMMANDS for form in command.forms)
"""Every form of a line, as the help shows them."""
