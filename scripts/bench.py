"""`./tidy bench`: medians, and ratios against a reference of the same run. Nothing here passes or fails."""

import contextlib
import json
import os
import platform
import re
import shutil
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import zlib
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

import numpy as np
from bench_clock import hour_with_hour, many_with_many, timecode
from bench_day import checksums, days, heads
from bench_drill import drill
from bench_trunk import trunk
from made_plan import RADIOS, RECORDERS, large_plan, recorders_in_a_row, with_radios

from tidy_trunk.app.demo import foundry
from tidy_trunk.app.server import patient_collector
from tidy_trunk.core.advice.adviser import Adviser, gain_plan
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.rigs import find_rigs, first_rig, read_brief
from tidy_trunk.core.sound.levels import Report, SpectrumShape
from tidy_trunk.core.sound.simulation import LOOP_SAMPLES, RATE_HZ, Simulator, noise_loop, voice_loop
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.document import plan_from_json, write_plan
from tidy_trunk.formats import write_sound
from tidy_trunk.results.evaluation import Evaluation

ROOT = Path(__file__).resolve().parent.parent


def timed(action: Callable[[], object], rounds: int) -> list[float]:
    """Milliseconds of each round, after one to warm up."""
    action()
    found = []
    for _ in range(rounds):
        begin = time.perf_counter()
        action()
        found.append((time.perf_counter() - begin) * 1000)
    return found


def reference() -> None:
    """A fixed piece of plain Python work: what this machine takes for it tells machines apart."""
    total = 0
    for number in range(200_000):
        total += number * number % 7
    assert total


def evaluate(plan_bytes: bytes) -> Callable[[], object]:
    plan = plan_from_json(json.loads(plan_bytes))
    return lambda: Evaluation(plan).findings


def planned(plan: Plan) -> Callable[[], object]:
    return lambda: gain_plan(Report(trace_plan(plan)))


def advised(plan: Plan) -> Callable[[], object]:
    """The fixes of every finding, from a plan that is only evaluated."""
    report = Report(trace_plan(plan))
    return lambda: Adviser(report).all_fixes()


def one_finding(plan: Plan) -> list[float]:
    """Milliseconds for the fixes of each finding that has some, asked one by one of an adviser of its own."""
    report = Report(trace_plan(plan))
    found = []
    for finding in Adviser(report).findings:
        adviser = Adviser(report)
        begin = time.perf_counter()
        if adviser.fixes(finding):
            found.append((time.perf_counter() - begin) * 1000)
    return found


RIG_QUESTION = (
    "two people walking, two lavs on radio, boom, two condenser microphones on stands, bag recorder, three cameras"
)
"""As much as the demo job has to hear."""


def a_free_frequency(plan: Plan) -> Callable[[], object]:
    def fix() -> object:
        adviser = Adviser(Report(trace_plan(plan)))
        return adviser.fixes(next(item for item in adviser.findings if item.rule == "frequency-twice"))

    return fix


def rigs_for_a_question() -> Iterator[tuple[str, Callable[[], object], str]]:
    """The first rig, which is shown while the rest is worked out, and all of them."""
    reading = read_brief(RIG_QUESTION, {})
    assert not reading.problems, reading.problems
    yield "the first rig for a question, median", lambda: first_rig(reading.brief, {}), "700 ms"
    yield "all rigs for a question, median", lambda: find_rigs(reading.brief, {}), "2000 ms"


def p95(values: list[float]) -> float:
    return sorted(values)[max(0, round(len(values) * 0.95) - 1)]


@contextmanager
def editor(address: str) -> Iterator[Callable[[], object]]:
    """Somebody who moves one knob of the demo job each time that he is called."""
    import httpx2

    with httpx2.Client(base_url=address) as client:
        job = client.get("/api/jobs").json()[0]["id"]
        revision = client.get(f"/api/jobs/{job}").json()["revision"]

        def edit() -> None:
            nonlocal revision
            value = 40 + revision % 10
            body = {
                "base_revision": revision,
                "edits": [{"kind": "set-control", "device": "bag", "control": "in1.mic.gain_db", "value": value}],
            }
            answer = client.post(f"/api/jobs/{job}/edits", json=body)
            answer.raise_for_status()
            revision = answer.json()["revision"]

        yield edit


def edits_through_the_api(address: str, rounds: int) -> list[float]:
    with editor(address) as edit:
        return timed(edit, rounds)


def ladders_beside_edits(address: str, rounds: int) -> list[float]:
    """Ladders with a knob on its way, while somebody else edits the same job without a pause."""
    import httpx2

    with httpx2.Client(base_url=address) as client, ThreadPoolExecutor(1) as somebody, editor(address) as edit_once:
        job = client.get("/api/jobs").json()[0]["id"]
        positions = iter(range(10_000))

        def ladder() -> None:
            value = 30 + next(positions) % 20
            edit = {"kind": "set-control", "device": "bag", "control": "in4.mic.gain_db", "value": value}
            client.post(f"/api/jobs/{job}/tracks/camera-b.L/ladder", json={"edits": [edit]}).raise_for_status()

        done = threading.Event()
        editing = somebody.submit(lambda: sum(1 for _ in iter(done.is_set, True) if edit_once() is None))
        found = timed(ladder, rounds)
        done.set()
        assert editing.result() > rounds / 10  # somebody did edit all the time
        return found


TOOLS = ("convert?value=-10&unit=dBV&to=dBu", "delay?frames=5", "drift?a=1&b=20", "timecode?timecode=10:00:00:00&add=1")


def tools_answer(address: str, rounds: int) -> list[float]:
    """Each tool that answers in words, asked in turn."""
    import httpx2

    with httpx2.Client(base_url=address) as client:
        return [
            milliseconds
            for tool in TOOLS
            for milliseconds in timed(lambda tool=tool: client.get(f"/api/tools/{tool}").raise_for_status(), rounds)
        ]


def first_pages(address: str, rounds: int) -> tuple[list[float], list[float], float]:
    """A cold browser each time: to the list of jobs, from there to rows that can be used, and the kB of script for both."""
    from playwright.sync_api import sync_playwright

    lists, rows, script = [], [], 0.0
    flags = [
        "--no-sandbox",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
    ]
    with sync_playwright() as playwright:
        for _ in range(rounds):
            browser = playwright.chromium.launch(executable_path=os.environ["TIDY_TRUNK_CHROMIUM"], args=flags)
            page = browser.new_page()
            bodies: list[str] = []
            page.on("response", lambda answer, into=bodies: into.append(answer.url))
            begin = time.perf_counter()
            page.goto(address)
            link = page.get_by_role("link", name="Casting day")
            link.wait_for()
            lists.append((time.perf_counter() - begin) * 1000)
            link.click()
            page.locator("[data-track='bag.1']").wait_for()
            rows.append((time.perf_counter() - begin) * 1000)
            names = [url.rsplit("/", 1)[1] for url in bodies if url.endswith(".js")]
            files = [ROOT / "web" / "dist" / "assets" / name for name in names]
            script = sum(len(zlib.compress(path.read_bytes(), 6)) for path in files) / 1000
            browser.close()
    return lists, rows, script


SOUND_S = 1_800


def long_recording(path: Path) -> None:
    """Half an hour of two people who speak in sentences, with noise in their pauses; 24 bit, as loud as voices are."""
    loops = [voice_loop(name, 14.0, LOOP_SAMPLES, RATE_HZ) * 0.1 for name in ("one", "other")]
    hiss = [np.roll(noise_loop(SpectrumShape.FLAT, LOOP_SAMPLES, RATE_HZ), at) * 0.0005 for at in (0, 99_991)]
    voices = np.stack(loops)
    random = np.random.default_rng(1)
    count = -(-SOUND_S * RATE_HZ // LOOP_SAMPLES)

    def pieces() -> Iterator[np.ndarray]:
        for _ in range(count):
            yield (voices * random.uniform(0.5, 1) + np.stack(hiss)).astype(np.float32)

    with path.open("wb") as stream:
        samples = count * LOOP_SAMPLES
        write_sound(stream, pieces(), rate_hz=RATE_HZ, channels=2, sample_count=samples, bits="24")


def whole_command(command: list[str], rounds: int = 3) -> tuple[float, float]:
    """Seconds of the quickest round, and the most memory that any of them took, in MB."""
    seconds, memory = [], 0.0
    for _ in range(rounds):
        begin = time.perf_counter()
        process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        while process.poll() is None:
            # Its own high-water mark: what wait4 tells begins with ours, from before it became another program.
            with contextlib.suppress(OSError):
                marks = re.findall(r"VmHWM:\s+(\d+)", Path(f"/proc/{process.pid}/status").read_text())
                memory = max([memory, *(int(mark) / 1024 for mark in marks)])
            time.sleep(0.02)
        assert process.returncode == 0, command
        seconds.append(time.perf_counter() - begin)
    return min(seconds), memory


def sound(folder: Path) -> None:
    """Half an hour measured, beside general tools where they are installed; and a track rendered on the bench."""
    path = folder / "long.wav"
    long_recording(path)
    ours, memory = whole_command([str(ROOT / "tidy"), "measure", str(path), "--json"])
    print(f"measure: {SOUND_S / ours:.0f} times real time on {SOUND_S // 60} minutes, {memory:.0f} MB   goal 300 MB")
    others = {
        "ffmpeg astats": (["ffmpeg", "-nostdin", "-i", str(path), "-af", "astats", "-f", "null", "-"], 1.0),
        "sox stat": (["sox", str(path), "-n", "stat"], 0.5),
    }
    for name, (command, goal) in others.items():
        if shutil.which(command[0]):
            theirs, _ = whole_command(command)
            print(f"  {theirs / ours:.2f} of the speed of {name} ({SOUND_S / theirs:.0f} times)   goal {goal:g}")
    track = Report(trace_plan(foundry())).track("camera-a.1")
    assert track is not None

    def render() -> None:
        index = Report(trace_plan(foundry())).index
        Simulator(index).track_sound(track.trace.stage)

    milliseconds = statistics.median(timed(render, 7))
    loop_s = LOOP_SAMPLES / RATE_HZ
    print(f"a track of the demo on the bench: {loop_s * 1000 / milliseconds:.0f} times real time   goal 50")


def convert(rounds: int) -> list[float]:
    command = [str(ROOT / "tidy"), "convert", "-10", "dBV", "--to", "dBu"]
    return timed(lambda: subprocess.run(command, check=True, capture_output=True), rounds)


def main() -> int:
    patient_collector()  # as the server does
    base = statistics.median(timed(reference, 15))
    print(f"Python {platform.python_version()}, {os.cpu_count()} cores; reference loop {base:.1f} ms")

    def show(name: str, milliseconds: float, goal: str) -> None:
        print(f"{name:<58}{milliseconds:9.1f} ms {milliseconds / base:8.2f} x reference   goal {goal}", flush=True)

    show("demo plan evaluated, median", statistics.median(timed(evaluate(write_plan(foundry())), 30)), "20 ms")
    plan = large_plan()
    name = f"{len(plan.devices)} devices and {len(plan.runs)} runs evaluated, median"
    show(name, statistics.median(timed(evaluate(write_plan(plan)), 15)), "100 ms")
    radios = with_radios(plan)
    name = f"the same with {RADIOS} transmitters that clash, median"
    show(name, statistics.median(timed(evaluate(write_plan(radios)), 15)), "100 ms")
    show("a free frequency for one of them, median", statistics.median(timed(a_free_frequency(radios), 5)), "200 ms")
    row = evaluate(write_plan(recorders_in_a_row()))
    show(f"{RECORDERS} recorders in a row, no cable fits, median", statistics.median(timed(row, 3)), "2000 ms")
    show("the large plan's gain plan, median", statistics.median(timed(planned(plan), 3)), "5000 ms")
    show("the demo's gain plan, median", statistics.median(timed(planned(foundry()), 7)), "500 ms")
    show("all fixes of the demo, median", statistics.median(timed(advised(foundry()), 5)), "500 ms")
    show("one finding's fixes in the demo, longest", max(one_finding(foundry())), "200 ms")
    show("all fixes of the large plan", timed(advised(plan), 1)[0], "5000 ms")
    for name, action, goal in rigs_for_a_question():
        show(name, statistics.median(timed(action, 5)), goal)
    for name, milliseconds, goal in (*days(timed), *trunk(plan, timed), *drill(timed)):
        show(name, milliseconds, goal)
    show("heads of 300 recordings", heads(), "30000 ms")
    for name, speed, goal in checksums():
        print(f"{name:<58}{speed:9.0f}                           goal {goal}", flush=True)
    show("./tidy convert, median", statistics.median(convert(10)), "400 ms")
    with tempfile.TemporaryDirectory() as folder:
        sound(Path(folder))
    timecode()
    with tempfile.TemporaryDirectory() as folder:
        hour_with_hour(Path(folder), whole_command, str(ROOT / "tidy"))
    with tempfile.TemporaryDirectory() as folder:
        many_with_many(Path(folder))
    with tempfile.TemporaryDirectory() as home:
        Path(home).chmod(0o755)
        server = subprocess.Popen(
            [sys.executable, "-m", "tidy_trunk", "demo", "--port", "0"],
            env={**os.environ, "TIDY_TRUNK_HOME": home},
            stdout=subprocess.PIPE,
            text=True,
        )
        assert server.stdout is not None
        address = server.stdout.readline().split(" at ")[1].split(" ")[0]
        try:
            show("an edit through the API, p95 of 100", p95(edits_through_the_api(address, 100)), "100 ms")
            show("a ladder while another edits, p95 of 100", p95(ladders_beside_edits(address, 100)), "100 ms")
            show("a tool's answer, p95 of 100", p95(tools_answer(address, 25)), "50 ms")
            lists, rows, script = first_pages(address, 5)
            show("first page in a cold browser, usable, median", statistics.median(lists), "1500 ms")
            show("the same and on to the rows of a job, median", statistics.median(rows), "none set")
        finally:
            server.terminate()
            server.wait()
    print(f"{'script for both, gzipped':<58}{script:9.1f} kB                        goal 250 kB")
    return 0


if __name__ == "__main__":
    sys.exit(main())
