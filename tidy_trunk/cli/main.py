"""The commands of `./tidy`. Each imports what it needs when it runs, so that the small ones stay quick."""

import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import click

from tidy_trunk.core.base.text import shown
from tidy_trunk.errors import TidyTrunkError

NUMBERS_MAY_BE_NEGATIVE = {"ignore_unknown_options": True}

as_json_option = click.option("--json", "as_json", is_flag=True, help="Answer as one JSON object")
plan_argument = click.argument("plan_file", type=click.Path(path_type=Path), metavar="PLAN.json")


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
def app() -> None:
    """Tidy Trunk plans cable runs, levels and sync for location sound.

    `./tidy test` runs every test, `./tidy bench` measures speed.
    """


def run() -> int:
    """Entry point: every failure is one line on standard error and exit status 2."""
    try:
        status = app(prog_name="tidy", standalone_mode=False)
    except click.exceptions.NoArgsIsHelpError as error:
        print(error.format_message())
        status = 2
    except click.ClickException as error:
        status = _fail(error.format_message())
    except click.Abort:
        status = 130
    except TidyTrunkError as error:
        status = _fail(error.message)
    except BrokenPipeError:
        status = 0  # whoever read us has seen enough
    return status if isinstance(status, int) else 0


def _fail(message: str) -> int:
    print(f"tidy: {' '.join(shown(message).split())}", file=sys.stderr)  # a file may be called anything
    return 2


def _port_option(command: Callable[..., Any]) -> Callable[..., Any]:
    return click.option(
        "--port", type=click.IntRange(0, 65535), default=8747, show_default=True, help="Port on 127.0.0.1; 0 takes any"
    )(command)


def _nearby_option(command: Callable[..., Any]) -> Callable[..., Any]:
    nearby = click.option(
        "--nearby",
        is_flag=True,
        help="Let telephones on the set's own network in, each by a key, over an encrypted connection",
    )
    plain = click.option("--plain", is_flag=True, help="With --nearby: unencrypted; whoever listens there reads along")
    return nearby(plain(command))


def _lower_case(context: click.Context, option: click.Parameter, value: str) -> str:
    return value.lower()


def _series_name(context: click.Context, option: click.Parameter, value: str) -> str:
    return value.lower() if value.lower() == "exact" else value.upper()


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.argument("value", type=float)
@click.argument("unit")
@click.option("--to", required=True, help='V, mV, dBu, dBV, "dB SPL" or Pa')
@click.option("--sensitivity", type=float, help="mV/Pa, between sound pressure and voltage")
@as_json_option
def convert(value: float, unit: str, to: str, sensitivity: float | None, as_json: bool) -> None:
    """Convert a level: VALUE UNIT --to UNIT. Negative values stand as they are."""
    from tidy_trunk.cli.output import show
    from tidy_trunk.results.tools import converted

    found = converted(value, unit, to, sensitivity)
    show(found.document(), found.words, as_json)


@app.command()
@click.option("--loss", type=float, required=True, help="Loss in dB")
@click.option("--layout", required=True, callback=_lower_case, help="l, u (bridging); t, h, pi, o (matched)")
@click.option("--source", type=float, help="Source impedance in Ω, of a bridging pad")
@click.option("--load", type=float, help="Load impedance in Ω, of a bridging pad")
@click.option("--matched", type=float, help="Impedance in Ω on both sides, of a matched pad")
@click.option("--series", default="exact", show_default=True, callback=_series_name, help="exact, E12, E24 or E96")
@as_json_option
def pad(
    loss: float,
    layout: str,
    source: float | None,
    load: float | None,
    matched: float | None,
    series: str,
    as_json: bool,
) -> None:
    """Design an attenuator."""
    from dataclasses import asdict

    from tidy_trunk.cli.output import level, show
    from tidy_trunk.core.base.units import BRIDGING_RATIO
    from tidy_trunk.core.gear.pads import design_bridging, design_matched
    from tidy_trunk.errors import InputError

    if matched is not None and source is None and load is None:
        design = design_matched(loss, matched, layout=layout, series=series)
    elif matched is None and source is not None and load is not None:
        design = design_bridging(loss, source, load, layout=layout, series=series)
    else:
        raise InputError("give --source and --load for a bridging pad, or --matched alone for a matched one")
    lines = [f"{part.name} {part.role} {part.ohms:.6g} Ω" for part in design.resistors]
    lines.append(f"loss {design.loss_db_actual:.2f} dB (wanted {design.loss_db_target:g})")
    lines.append(f"input {design.input_impedance_ohm:.6g} Ω, output {design.output_impedance_ohm:.6g} Ω")
    lines.append(f"thermal noise {level(design.thermal_noise_dbu, 'dBu')} at the load, loaded by it")
    if source is not None and design.input_impedance_ohm < BRIDGING_RATIO * source:
        lines.append(
            f"the source sees less than {BRIDGING_RATIO:g} times its impedance: some sources distort into that"
        )
    show(asdict(design), "\n".join(lines), as_json)


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.option("--frames", type=float, help="Frames; may be a fraction")
@click.option("--fps", help="Frame rate, such as 25 or 29.97df")
@click.option("--ms", type=float, help="Milliseconds")
@click.option("--rate", type=int, default=48_000, show_default=True, help="Sample rate in Hz")
@as_json_option
def delay(frames: float | None, fps: str | None, ms: float | None, rate: int, as_json: bool) -> None:
    """A delay in frames, milliseconds and samples."""
    from tidy_trunk.cli.output import show
    from tidy_trunk.results.tools import delayed

    found = delayed(frames=frames, ms=ms, metres=None, fps=fps, sample_rate_hz=rate)
    show(found.document(), found.words, as_json)


@app.command()
@plan_argument
@as_json_option
def check(plan_file: Path, as_json: bool) -> int:
    """Every finding about a plan, and level, noise and headroom of every track.

    Exit status 1 where a finding would ruin the recording or harm equipment.
    """
    from tidy_trunk.cli.plans import check_plan

    return check_plan(plan_file, as_json)


@app.command()
@plan_argument
@click.option("--ics", type=click.Path(path_type=Path), help="Write it as a calendar")
@click.option("--pdf", type=click.Path(path_type=Path), help="Write it as a sheet of paper")
@click.option("--csv", "table", type=click.Path(path_type=Path), help="Write it as a table")
@click.option("--paper", default="a4", show_default=True, help="a4 or letter")
@as_json_option
def day(plan_file: Path, ics: Path | None, pdf: Path | None, table: Path | None, paper: str, as_json: bool) -> int:
    """What to do when in the course of a plan's day: batteries, cards, jams, tone, checks, between which takes.

    Exit status 1 where something runs out or cannot be done in its time.
    """
    from tidy_trunk.cli.day import show_day

    return show_day(plan_file, ics, pdf, table, paper, as_json)


@app.command()
@click.argument("log_file", type=click.Path(path_type=Path), metavar="LOG.json")
@click.option("--pdf", type=click.Path(path_type=Path), help="Write it as a sheet of paper")
@click.option("--csv", "table", type=click.Path(path_type=Path), help="Write it as a table")
@click.option("--paper", default="a4", show_default=True, help="a4 or letter")
@as_json_option
def report(log_file: Path, pdf: Path | None, table: Path | None, paper: str, as_json: bool) -> None:
    """The sound report of a log, as the application exports it."""
    from tidy_trunk.cli.report import show_report

    show_report(log_file, pdf, table, paper, as_json)


@app.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.argument("manifest", type=click.Path(path_type=Path), required=False)
@click.option("--write", is_flag=True, help="Write the folder's list of checksums anew")
@as_json_option
def verify(folder: Path, manifest: Path | None, write: bool, as_json: bool) -> int:
    """Compare the files of a folder with a list of their checksums; the folder's own where none is named.

    Exit status 1 where a file is missing or differs.
    """
    from tidy_trunk.cli.verify import verify_folder

    return verify_folder(folder, manifest, write=write, as_json=as_json)


@app.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--log", "log_file", type=click.Path(path_type=Path), help="Log to hold them against, as exported")
@click.option("--listen", is_flag=True, help="Look for clipping, silence, levels and drift too")
@click.option("--copy", "into", type=click.Path(path_type=Path), help="Copy them into this folder, checked")
@click.option("--second", type=click.Path(path_type=Path), help="And once more into this one")
@click.option("--mono", is_flag=True, help="Copy the sound of takes as a file for each channel")
@as_json_option
def files(
    folder: Path, log_file: Path | None, listen: bool, into: Path | None, second: Path | None, mono: bool, as_json: bool
) -> int:
    """The recordings of a day's folders, and what does not agree with the log.

    One folder for each device. Exit status 1 where something does not agree. With --copy they are copied instead: sound with the
    labels of the log, each copy read again; originals are never written to. Exit status 1 where a file has no good copy.
    """
    from tidy_trunk.cli.files import copy_day, show_files

    if into is not None:
        return copy_day(folder, log_file, into, second, mono, as_json)
    if second is not None or mono:
        raise click.UsageError("--second and --mono want --copy: name the folder of the copy too")
    return show_files(folder, log_file, listen, as_json)


out_option = click.option(
    "--out",
    type=click.Path(path_type=Path, dir_okay=False),
    metavar="PLAN2.json",
    help="Write the resulting plan",
)


@app.command()
@plan_argument
@click.argument("lines", nargs=-1, required=True, metavar="LINE...")
@out_option
@as_json_option
def say(plan_file: Path, lines: tuple[str, ...], out: Path | None, as_json: bool) -> None:
    """Type lines into a plan and take the first answer of each."""
    from tidy_trunk.cli.advice import say_lines

    say_lines(plan_file, lines, out, as_json)


@app.command()
@plan_argument
@out_option
@as_json_option
def gain(plan_file: Path, out: Path | None, as_json: bool) -> None:
    """The gain plan: what to set, in the order of the work, and the result."""
    from tidy_trunk.cli.advice import plan_gain

    plan_gain(plan_file, out, as_json)


@app.command()
@plan_argument
@out_option
@as_json_option
def fix(plan_file: Path, out: Path | None, as_json: bool) -> None:
    """Take the first fix of the gravest finding until none is left."""
    from tidy_trunk.cli.advice import fix_plan

    fix_plan(plan_file, out, as_json)


@app.command()
@click.argument("what", nargs=-1, required=True, metavar="WHAT")
@as_json_option
def rigs(what: tuple[str, ...], as_json: bool) -> int:
    """Whole rigs for a job said in words: who is heard, with what, into what, and what matters."""
    from tidy_trunk.cli.rigs import show_rigs

    return show_rigs(" ".join(what), as_json)


@app.command()
@click.option("--seed", type=int, required=True, help="Number of the drill, 0 to 999999")
@click.option(
    "--plan",
    "plan_file",
    type=click.Path(path_type=Path, dir_okay=False),
    help="Hide it in this plan",
    metavar="PLAN.json",
)
@click.option("--level", type=click.Choice(["first-day", "unit", "night-shoot"]), default="unit", show_default=True)
@click.option("--kind", default="", help="Kind of fault, such as loose or phantom", metavar="KIND")
@click.option("--most", type=click.IntRange(1, 2), default=1, show_default=True, help="How many faults there may be")
@click.option("--reveal", is_flag=True, help="Say what is wrong, and the shortest order to find it")
@as_json_option
def drill(seed: int, plan_file: Path | None, level: str, kind: str, most: int, reveal: bool, as_json: bool) -> int:
    """A rig with a hidden fault, what can be done to find it, and how long that takes."""
    from tidy_trunk.cli.drill import show_drill

    return show_drill(seed, plan_file, level, kind, most, reveal, as_json)


@app.command()
@plan_argument
@click.option("--run", "run_name", required=True, help="Id of the cable, or the number on its tape")
@as_json_option
def options(plan_file: Path, run_name: str, as_json: bool) -> None:
    """The ways to match a run's level, each computed, best first."""
    from tidy_trunk.cli.plans import show_options

    show_options(plan_file, run_name, as_json)


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.argument("out", type=click.Path(path_type=Path, dir_okay=False), metavar="OUT.wav")
@click.option("--level", type=float, default=-20.0, show_default=True, help="dBFS")
@click.option("--frequency", type=float, default=1000.0, show_default=True, help="Hz")
@click.option("--seconds", type=float, default=30.0, show_default=True)
@click.option("--rate", type=int, default=48_000, show_default=True, help="Sample rate in Hz")
@click.option("--bits", type=click.Choice(["16", "24", "32f"]), default="24", show_default=True)
@click.option("--channels", type=click.IntRange(1, 2), help="1, or 2 with --ident")
@click.option("--ident", is_flag=True, help="Mark the left channel by interrupting it")
def tone(
    out: Path, level: float, frequency: float, seconds: float, rate: int, bits: str, channels: int | None, ident: bool
) -> None:
    """Write a line-up tone."""
    from tidy_trunk.cli.sound import make_tone

    make_tone(out, level, frequency, seconds, rate, bits, channels, ident)


@app.command()
@click.argument("file", type=click.Path(path_type=Path), metavar="FILE")
@as_json_option
def measure(file: Path, as_json: bool) -> None:
    """Measure a recording: level, noise, clipping, tone, hum, clicks, polarity, bleed."""
    from tidy_trunk.cli.sound import show_measure

    show_measure(file, as_json)


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.argument("file", type=click.Path(path_type=Path), metavar="FILE")
@click.option("--settings", required=True, help="What the control stood at, in that order: 40,50,60,70")
@click.option("--target", type=float, required=True, help="dBFS")
@as_json_option
def steps(file: Path, settings: str, target: float, as_json: bool) -> None:
    """Read one recording of a tone at several settings: what each gives, and which is right."""
    from tidy_trunk.cli.sound import show_steps

    show_steps(file, settings, target, as_json)


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.argument("timecode", metavar="TC")
@click.option("--fps", required=True, help="Frame rate, such as 25 or 29.97df")
@click.option("--add", help="Frames, or a timecode; negative with a minus")
@click.option("--to", help="Another frame rate")
@click.option(
    "--by",
    type=click.Choice(["real-time", "count"]),
    default="real-time",
    show_default=True,
    help="Whether the moment or the frame's number goes over to the other rate",
)
@as_json_option
def timecode(timecode: str, fps: str, add: str | None, to: str | None, by: str, as_json: bool) -> None:
    """A timecode's frame and moment; added to, and carried to another rate."""
    from tidy_trunk.cli.clock import show_timecode

    show_timecode(timecode, fps, add, to, by, as_json)


@app.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.option("--ppm", "ppms", type=float, multiple=True, help="What a clock is good for; give it twice")
@click.option("--fps", required=True, help="Frame rate")
@click.option("--hours", type=float, required=True, help="Since they were set together")
@click.option("--limit-frames", type=float, default=0.5, show_default=True, help="By how much they may part")
@as_json_option
def drift(ppms: tuple[float, ...], fps: str, hours: float, limit_frames: float, as_json: bool) -> None:
    """By how much two clocks may part, and how often to set them together."""
    from tidy_trunk.cli.clock import show_drift

    show_drift(ppms, fps, hours, limit_frames, as_json)


@app.command()
@click.argument("reference", type=click.Path(path_type=Path), metavar="REFERENCE")
@click.argument("other", type=click.Path(path_type=Path), metavar="OTHER")
@click.argument("more", type=click.Path(path_type=Path), nargs=-1, metavar="MORE...")
@click.option(
    "--recorder", "recorders", type=click.Path(path_type=Path), multiple=True, help="Another REFERENCE; give it again"
)
@click.option(
    "--export",
    "exports",
    type=click.Path(path_type=Path, dir_okay=False),
    multiple=True,
    help="All files on a timeline, as .csv, .edl or .otio",
)
@click.option("--fps", help="Frame rate, for the offset in frames")
@click.option(
    "--write",
    "out",
    type=click.Path(path_type=Path, dir_okay=False),
    help="A copy of OTHER as Broadcast WAV that says where it begins on REFERENCE's clock",
)
@click.option("--stretch", is_flag=True, help="Take OTHER's drift out of the copy")
@as_json_option
def sync(
    reference: Path,
    other: Path,
    more: tuple[Path, ...],
    recorders: tuple[Path, ...],
    exports: tuple[Path, ...],
    fps: str | None,
    out: Path | None,
    stretch: bool,
    as_json: bool,
) -> int:
    """Find where OTHER lies in REFERENCE, or many in many. Exit status 3 where nobody can say."""
    from tidy_trunk.cli.sync import show_many, show_pair

    if more or recorders or exports:
        if out is not None:
            from tidy_trunk.errors import InputError

            raise InputError("--write makes a copy of one file: give one REFERENCE and one OTHER with it")
        return show_many((reference, *recorders), (other, *more), fps, exports, as_json)
    return show_pair(reference, other, fps, out, stretch, as_json)


@app.group()
def ltc() -> None:
    """Linear timecode as sound: write it, read it."""


@ltc.command(context_settings=NUMBERS_MAY_BE_NEGATIVE)
@click.argument("out", type=click.Path(path_type=Path, dir_okay=False), metavar="OUT.wav")
@click.option("--start", required=True, help="Timecode of the first frame")
@click.option("--fps", required=True, help="Frame rate")
@click.option("--seconds", type=float, required=True)
@click.option("--level", type=float, default=-18.0, show_default=True, help="Peak in dBFS")
@click.option("--rate", type=int, default=48_000, show_default=True, help="Sample rate in Hz")
@click.option("--bits", type=click.Choice(["16", "24"]), default="24", show_default=True)
@click.option("--user-bits", help="8 hexadecimal digits, the leftmost in binary group 8")
@click.option("--date", "day", help="Fill the user bits with a date, 2026-11-25")
def write(
    out: Path,
    start: str,
    fps: str,
    seconds: float,
    level: float,
    rate: int,
    bits: str,
    user_bits: str | None,
    day: str | None,
) -> None:
    """Write timecode as a WAV."""
    from tidy_trunk.cli.clock import write_ltc

    write_ltc(out, start, fps, seconds, level, rate, bits, user_bits, day)


@ltc.command()
@click.argument("file", type=click.Path(path_type=Path), metavar="FILE")
@click.option("--channel", type=click.IntRange(min=1), help="On which it is, from 1; found by itself otherwise")
@click.option("--fps", help="The job's rate")
@as_json_option
def read(file: Path, channel: int | None, fps: str | None, as_json: bool) -> int:
    """Read the timecode in a recording. Exit status 3 where there is none."""
    from tidy_trunk.cli.clock import show_ltc

    return show_ltc(file, channel, fps, as_json)


@app.command()
@_port_option
@_nearby_option
def serve(port: int, nearby: bool, plain: bool) -> None:
    """Start the application on your own data."""
    from tidy_trunk.app.server import serve as run_server

    run_server(port, demo=False, nearby=nearby, plain=plain)


@app.command()
@_port_option
@_nearby_option
def demo(port: int, nearby: bool, plain: bool) -> None:
    """Start the application with the demo job, casting day at a bell foundry."""
    from tidy_trunk.app.server import serve as run_server

    run_server(port, demo=True, nearby=nearby, plain=plain)


@app.command()
def worker() -> None:
    """Help to read what is dropped in: beside ./tidy serve, or on another machine of the same database and recordings."""
    from tidy_trunk.app.worker import work

    work()


@app.command()
@click.argument("file", required=False, type=click.Path(path_type=Path, dir_okay=False), metavar="FILE")
@as_json_option
def backup(file: Path | None, as_json: bool) -> None:
    """Write all jobs, recordings and walks into one file, also while the application runs. Checked before it takes its name."""
    from tidy_trunk.cli.backup import write_backup

    write_backup(file, as_json)


@app.command()
@click.option(
    "--bundle", type=click.Path(path_type=Path, dir_okay=False), metavar="FILE", help="Write it with the log into a ZIP"
)
@as_json_option
def doctor(bundle: Path | None, as_json: bool) -> int:
    """Look at versions, disk, database, copies and the last errors, and say what to do. Exit status 3 where there is something."""
    from tidy_trunk.cli.doctor import show_examination

    return show_examination(bundle, as_json)


@app.command()
@click.argument("file", type=click.Path(path_type=Path, dir_okay=False), metavar="FILE")
@as_json_option
def restore(file: Path, as_json: bool) -> None:
    """Bring everything back from a backup, into the data folder TIDY_TRUNK_HOME, which must hold none yet."""
    from tidy_trunk.cli.backup import read_backup

    read_backup(file, as_json)
