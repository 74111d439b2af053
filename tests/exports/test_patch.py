"""The patch on paper: nothing lies over anything, labels are as large as they say, codes are read by another program."""

import io
import os
import subprocess
import sys
from datetime import UTC, datetime
from functools import cache
from itertools import pairwise
from pathlib import Path
from random import Random

import pytest
import zxingcpp
from hypothesis import given
from hypothesis import strategies as st
from PIL import ImageOps
from pypdf import PdfReader

from tests.few import each_of
from tests.plans import boom_in_bag, device, made, run
from tidy_trunk.app.demo import foundry
from tidy_trunk.core.plan import Plan
from tidy_trunk.core.sound.levels import Report
from tidy_trunk.core.sound.trace import trace_plan
from tidy_trunk.errors import InputError
from tidy_trunk.exports.paper.drawing import MM_PER_PT, Box, Line, Words
from tidy_trunk.exports.patch_layout import DrawnCable, Station, count_crossings, lay_out
from tidy_trunk.reports import (
    LABEL_PAPERS,
    cable_ends,
    label_pages,
    labels_pdf,
    patch_drawing,
    patch_pdf,
    patch_svg,
    run_list_csv,
    settings_sheet,
    wallet_card,
)
from tidy_trunk.reports.socket_strip import socket_strip
from tidy_trunk.results.patch import must_be_right, patch_of, settings_of

ROOT = Path(__file__).parents[2]
MADE = datetime(2026, 1, 1, tzinfo=UTC)
MM = 72 / 25.4


def report(plan):
    return Report(trace_plan(plan))


@cache
def demo():
    return report(foundry())


@cache
def patch():
    return patch_of(demo().index)


def drawn(seed, count=12, wires=24):
    """Stations in a row, and cables that lead on by a few of them."""
    by = Random(seed)
    stations = [Station(str(n), ("a", "b", "c"), ("x", "y", "z"), 30.0) for n in range(count)]
    made_wires = []
    for number in range(wires):
        sender = by.randrange(count - 1)
        receiver = by.randrange(sender + 1, min(count, sender + 5))
        made_wires.append(DrawnCable(f"w{number}", str(sender), by.choice("xyz"), str(receiver), by.choice("abc")))
    return stations, made_wires


def cuts(box, first, second):
    """Whether a segment goes through the inside of a box: clipped against it, as by Liang and Barsky. Textbook."""
    (x1, y1), (x2, y2) = first, second
    low, high = 0.0, 1.0
    for p, q in (
        (x1 - x2, x1 - box.x - 0.01),
        (x2 - x1, box.x + box.width - 0.01 - x1),
        (y1 - y2, y1 - box.y - 0.01),
        (y2 - y1, box.y + box.height - 0.01 - y1),
    ):
        if p == 0:
            if q < 0:
                return False
        elif p < 0:
            low = max(low, q / p)
        else:
            high = min(high, q / p)
    return low < high


@given(st.integers(0, 10**6))
def test_no_cable_goes_through_a_device(seed):
    stations, wires = drawn(seed)
    placed = lay_out(stations, wires)
    boxes = [Box(*placed.corners[one.id], one.width, one.height) for one in stations]
    for points in placed.paths.values():
        for one, other in pairwise(points):
            assert not any(cuts(box, one, other) for box in boxes)
    assert placed == lay_out(stations, wires)


def test_a_feedback_goes_below_all():
    stations = [Station(name, ("in",), ("out",), 30.0) for name in "ab"]
    placed = lay_out(stations, [DrawnCable("1", "a", "out", "b", "in"), DrawnCable("2", "b", "out", "a", "in")])
    lowest = max(placed.corners[one.id][1] + one.height for one in stations)
    back = [name for name, points in placed.paths.items() if max(y for _, y in points) > lowest]
    assert len(back) == 1


def test_crossings_are_counted():
    assert count_crossings({"a": [(0, 0), (2, 2)], "b": [(0, 2), (2, 0)]}) == 1
    assert count_crossings({"a": [(0, 0), (2, 0)], "b": [(0, 1), (2, 1)], "c": [(0, 0), (2, 1)]}) == 0
    assert count_crossings({"a": [(0, 0), (1, 1), (2, 2)], "b": [(0, 2), (2, 0.1)]}) == 1
    assert count_crossings({}) == 0


@given(st.integers(0, 10**6))
def test_microphones_into_mixers_into_cameras_cross_nowhere(seed):
    """Where each device feeds one other, as in most rigs, a drawing without any crossing exists: a tree is planar. Textbook."""
    by = Random(seed)
    count = by.randrange(3, 14)
    stations = [Station(str(n), tuple(f"in{m}" for m in range(count)), ("out",), 30.0) for n in range(count)]
    fed = [by.randrange(n + 1, count) for n in range(count - 1)]
    wires = [DrawnCable(str(n), str(n), "out", str(one), f"in{n}") for n, one in enumerate(fed)]
    assert lay_out(stations, wires).crossings == 0


def test_no_number_lies_over_a_cable_that_is_not_its_own():
    drawing, placed = patch_drawing(patch())
    assert placed.crossings == 0
    lines = [item for item in drawing.items if isinstance(item, Line)]
    tags = [
        (box, words)
        for box, words in pairwise(drawing.items)
        if isinstance(box, Box) and box.height == 3.4 and isinstance(words, Words)
    ]
    assert sum(len(words.text.split(", ")) for _, words in tags) == 2 * len(patch().runs)
    for box, words in tags:
        own = {number - 1 for number in map(int, words.text.split(", "))}
        for number, line in enumerate(lines):
            if number not in own:
                assert not any(cuts(box, *ends) for ends in pairwise(line.points)), words.text
        assert box.x <= words.span[0] and words.span[1] <= box.x + box.width


@pytest.mark.parametrize(("paper", "size"), [("a4", (297, 210)), ("a3", (420, 297)), ("letter", (279.4, 215.9))])
def test_the_patch_is_one_sheet_whose_text_can_be_searched(paper, size):
    data = patch_pdf(patch(), paper=paper, made=MADE)
    assert data == patch_pdf(patch(), paper=paper, made=MADE)
    (page,) = PdfReader(io.BytesIO(data)).pages
    assert [float(side) / MM for side in page.mediabox[2:]] == pytest.approx(size, abs=0.1)
    text = page.extract_text()
    assert all(device.label in text for device in patch().devices if device.inputs or device.outputs)
    assert b"Bag recorder" in patch_svg(patch())
    with pytest.raises(InputError, match="use a4, a3, letter"):
        patch_pdf(patch(), paper="a0", made=MADE)


def test_settings_say_what_the_checklist_says():
    data = settings_sheet(patch().job, patch(), settings_of(demo()), paper="a4", made=MADE)
    text = " ".join("".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages).split())
    assert "gain +42 dB" in text and "520.125 MHz" in text
    assert "timecode in" in text, "sockets that nothing goes into are drawn too"
    rows = run_list_csv(patch()).decode().splitlines()
    assert len(rows) == 1 + len(patch().runs) and rows[1].startswith("1,brown,Boom,Bag recorder in 1,10 m XLR")


@pytest.mark.parametrize("device", [one.device for one in settings_of(demo())])
def test_each_socket_is_drawn_inside_the_sheet_with_its_cables(device):
    (item,) = (one for one in settings_of(demo()) if one.device == device)
    strip = socket_strip(item.sockets, 180.0)
    words = [one for one in strip.items if isinstance(one, Words)]
    for socket in item.sockets:
        assert sum(one.text == socket.label for one in words) == 1
        if socket.runs:
            assert ", ".join(map(str, socket.runs)) in {one.text for one in words}
    assert all(one.span[0] >= 0 and one.span[1] <= 180 and one.y < strip.height for one in words)
    for first, second in pairwise(sorted((one.y, *one.span) for one in words)):
        assert first[0] != second[0] or first[2] <= second[1], "no word runs into the next"


def ends():
    return cable_ends(patch().runs)


def address(one):
    return f"https://192.168.7.5:8748/jobs/ac215c17-248e-453d-bc9e-1f3f0fdf474d/runs?run={one.id}"


@pytest.mark.parametrize("kind", each_of(LABEL_PAPERS, 2))
def test_labels_are_as_large_as_they_say_and_their_codes_can_be_read(kind):
    paper = LABEL_PAPERS[kind]
    reader = PdfReader(io.BytesIO(labels_pdf(label_pages(ends(), kind, address), patch().job, MADE)))
    size = paper.sheet or (paper.width, paper.height)
    for page in reader.pages:
        assert [float(side) / MM for side in page.mediabox[2:]] == pytest.approx(size, abs=0.05)
    text = " ".join("".join(page.extract_text() for page in reader.pages).split())
    assert "Boom" in text or paper.width < 40
    wanted = {address(one.run) for one in ends()}
    if paper.height >= 12:
        read = set()
        for page in reader.pages:
            for image in page.images:
                picture = ImageOps.expand(image.image.convert("L").resize((410, 410), 0), 60, 255)
                read |= {code.text for code in zxingcpp.read_barcodes(picture)}
        assert read == wanted


def test_words_stay_on_their_label():
    for kind, paper in LABEL_PAPERS.items():
        for number, page in enumerate(label_pages(ends(), kind, address, skip=5)):
            for item in page.items:
                if isinstance(item, Words):
                    column = 0 if paper.sheet is None else int((item.span[0] - paper.left) // paper.across)
                    left = paper.left + column * paper.across
                    assert left <= item.span[0] and item.span[1] <= left + paper.width + 0.1, (kind, number, item.text)
                    assert item.y <= page.height and item.size_pt * MM_PER_PT <= paper.height


def test_used_up_labels_are_left_out():
    first = label_pages(ends(), "a4-24", address)
    later = label_pages(ends(), "a4-24", address, skip=20)
    assert (len(first), len(later)) == (1, 2)
    with pytest.raises(InputError, match="no label is called 'a5'"):
        label_pages(ends(), "a5", address)


def test_the_card_is_one_card_and_holds_every_line():
    (page,) = PdfReader(io.BytesIO(wallet_card(patch().job, must_be_right(demo()), MADE))).pages
    assert [float(side) / MM for side in page.mediabox[2:]] == pytest.approx((85.6, 54.0), abs=0.05)
    text = " ".join(page.extract_text().split())
    assert all(line.split()[0] in text for line in must_be_right(demo()))
    many = wallet_card("Job", ["Look at this and that and the other, on every device of the set, twice."] * 30, MADE)
    (wide,) = PdfReader(io.BytesIO(many)).pages
    assert float(wide.mediabox[2]) / MM == pytest.approx(2 * 85.6, abs=0.1)


@pytest.mark.deep
def test_another_run_of_the_program_draws_the_same():
    """Words are hashed otherwise in each process: nothing may hang on their order."""
    script = (
        "import sys\n"
        "from tidy_trunk.app.demo import foundry\n"
        "from tidy_trunk.core.plan import PlanIndex\n"
        "from tidy_trunk.reports import patch_svg\n"
        "from tidy_trunk.results.patch import patch_of\n"
        "sys.stdout.buffer.write(patch_svg(patch_of(PlanIndex(foundry()))))"
    )
    other = "1" if os.environ.get("PYTHONHASHSEED") == "2" else "2"
    environment = {**os.environ, "PYTHONHASHSEED": other}
    done = subprocess.run([sys.executable, "-c", script], cwd=ROOT, env=environment, capture_output=True, check=True)
    assert done.stdout == patch_svg(patch())


def test_an_empty_job_and_one_of_many_cables():
    assert patch_svg(patch_of(report(Plan(name="Empty")).index))
    split = made(device("mirrorless-mic", "cam"), run("bag.line", "cam.mic", "trs"), base=boom_in_bag())
    assert patch_drawing(patch_of(report(split).index))[1].crossings == 0
