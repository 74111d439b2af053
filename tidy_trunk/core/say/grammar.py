"""The grammar as a user reads it."""

from typing import Final, NamedTuple


class Form(NamedTuple):
    """One form of a line: its pattern, an example, and what it does."""

    pattern: str
    example: str
    does: str


GRAMMAR: Final = (
    Form("add CLASS as NAME, NAME", "add bag recorder as bag", "puts devices on the job"),
    Form("copy DEVICE as NAME", "copy camera b as camera c", "a second device with the same settings"),
    Form("rename THING as NAME", "rename camera b as second camera", "another name"),
    Form("remove THING", "remove run 4", "takes away a run, a device with its runs, a source, a lead of your own"),
    Form(
        "SOURCE at MICROPHONE, N m, N°, LEVEL",
        "founder at boom, 0.5 m, raised",
        "who is heard by what, from how far, how far off its axis, how loud",
    ),
    Form("FROM to TO, N m, by LEAD", "bag line to camera b, 3 m", "a run; length and lead may be left out"),
    Form("length run N, L m", "length run 4 12 m", "the lead that is made to length takes the rest"),
    Form(
        "path run N: L m past WHAT and WHAT, then L m across mains",
        "path run 4: 8 m past walkway, then 2 m past dimmer at 0.5 m",
        "where the lead lies, and what it passes",
    ),
    Form("lead run N by LEAD", "lead run 4 by one to one", "another lead for the same ports"),
    Form("move run N to TO, move run N from FROM", "move run 4 to camera b", "another end, with the lead that fits"),
    Form("tie run N", "tie run 4", "its ends are tied up"),
    Form("set DEVICE PORT CONTROL VALUE, …", "set bag 1 gain 40, 2 gain 30", "moves controls"),
    Form(
        "set SOURCE average, quiet, peak, burst LEVEL; once on",
        "set founder peak 118",
        "how loud, and whether it happens only once",
    ),
    Form(
        "set job WHAT VALUE, …",
        "set job rate 25, target film, place hall, room 48, day 8:00 to 17:30",
        "what holds for the whole job",
    ),
    Form("route DEVICE INPUT and INPUT to TRACK", "route bag 1 and 4 to mix l", "which inputs feed a track or mix"),
    Form(
        "use DEVICE TRACK and TRACK for ROLE",
        "use camera b l and r for guide",
        "what a track is kept for: dialogue, effects, guide, timecode",
    ),
    Form(
        "jam DEVICE from DEVICE at TIME and TIME",
        "jam camera a from bag at 8:00 and 12:30",
        "when a clock is set from another, and then runs alone; by radio, or from nobody",
    ),
    Form(
        "late CAMERA N ms, or N frames, by sdi",
        "late camera b 200 ms",
        "how late its picture was measured to come out",
    ),
    Form("break NAME at TIME, N min", "break dinner at 12:30, 45 min", "when jamming stops no work"),
    Form("feed DEVICE OUTPUT from TRACK", "feed bag line r from mix l", "what an output gives out"),
)
"""Every form, in the order of the work. [HANDBOOK]"""

PASSABLE: Final = "a path passes: walkway, doorway, overhead, wet, hot, beside mains, across mains, dimmer, LED driver, motor, furnace, transmitter"
"""What may stand after `past`. [HANDBOOK]"""
