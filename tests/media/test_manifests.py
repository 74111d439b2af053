"""Checksums of a folder: read back by sha256sum and by xxhsum's algorithm, and every way in which a copy goes wrong told."""

import hashlib
import subprocess

import pytest
import xxhash

from tests.commands import typed
from tidy_trunk.errors import FormatError, InputError
from tidy_trunk.media.manifests import MANIFEST, SHA256_LIST, files_below, read_manifest, verify, write_manifest


@pytest.fixture
def card(tmp_path):
    """A card as a recorder leaves it: two takes in a folder, and a report."""
    folder = tmp_path / "card"
    (folder / "day 1").mkdir(parents=True)
    (folder / "day 1" / "12C-1.wav").write_bytes(bytes(range(256)) * 5000)
    (folder / "day 1" / "12C-2 é.wav").write_bytes(b"RIFF" * 1000)
    (folder / "report.txt").write_bytes(b"")
    return folder


def test_the_lists_are_read_by_other_tools(card):
    found = write_manifest(card)
    done = subprocess.run(["sha256sum", "--check", "--strict", SHA256_LIST], cwd=card, capture_output=True, text=True)
    assert done.returncode == 0 and done.stdout.count(": OK") == 3
    data = (card / "day 1" / "12C-1.wav").read_bytes()
    one = found["day 1/12C-1.wav"]
    assert (one.sha256, one.xxh3, one.size) == (
        hashlib.sha256(data).hexdigest(),
        xxhash.xxh3_128_hexdigest(data),
        len(data),
    )
    # The empty input of XXH3 of 128 bits, as its specification prints it.
    assert found["report.txt"].xxh3 == "99aa06d3014798d86001c324468d497f"
    assert read_manifest(card / MANIFEST) == found
    before = (card / MANIFEST).read_bytes()
    write_manifest(card)
    assert (card / MANIFEST).read_bytes() == before


def test_every_way_in_which_a_copy_goes_wrong(card):
    listed = write_manifest(card)
    assert {item.verdict for item in verify(card, listed)} == {"same"}
    take = card / "day 1" / "12C-1.wav"
    data = take.read_bytes()
    take.write_bytes(data[:-1])
    (card / "day 1" / "12C-2 é.wav").unlink()
    (card / "new.wav").write_bytes(b"x")
    (card / "report.txt").write_bytes(b"y")
    told = {item.path: item.verdict for item in verify(card, listed)}
    assert told == {
        "day 1/12C-1.wav": "cut-short",
        "day 1/12C-2 é.wav": "missing",
        "new.wav": "new",
        "report.txt": "differs",
    }
    take.write_bytes(data[:-1] + bytes([data[-1] ^ 1]))
    assert {item.path: item.verdict for item in verify(card, listed)}["day 1/12C-1.wav"] == "differs"


def test_what_links_elsewhere_is_left_out(card, tmp_path):
    (tmp_path / "elsewhere").mkdir()
    (tmp_path / "elsewhere" / "secret.wav").write_bytes(b"x")
    (card / "loop").symlink_to(card)
    (card / "out").symlink_to(tmp_path / "elsewhere")
    (card / "secret.wav").symlink_to(tmp_path / "elsewhere" / "secret.wav")
    assert files_below(card) == ["day 1/12C-1.wav", "day 1/12C-2 é.wav", "report.txt"]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "no list of checksums"),
        ("# something else\n", "no list of checksums"),
        ("HEAD\nabc\n", "line 2"),
        (f"HEAD\n{'a' * 64} {'b' * 32} 1 ../../etc/passwd\n", "line 2 names"),
        (f"HEAD\n{'a' * 64} {'b' * 32} 1 /etc/passwd\n", "line 2 names"),
        (f"HEAD\n{'a' * 64} {'b' * 32} 1 a\n{'a' * 64} {'b' * 32} 1 a\n", "line 3 names"),
    ],
)
def test_a_list_that_lies_is_refused(card, text, says):
    write_manifest(card)
    head = (card / MANIFEST).read_text().splitlines()[0]
    (card / MANIFEST).write_text(text.replace("HEAD", head))
    with pytest.raises(FormatError, match=says):
        read_manifest(card / MANIFEST)


def test_the_command(card):
    done = typed("verify", card)
    assert (done.status, done.out) == (2, "") and "cannot be read" in done.err
    assert typed("verify", card, "--write").status == 0
    assert "3 of 3 files are the same" in typed("verify", card).out
    elsewhere = typed("verify", card, card / MANIFEST, "--json")
    assert elsewhere.status == 0 and '"same": 3' in elsewhere.out
    (card / "report.txt").unlink()
    broken = typed("verify", card)
    assert broken.status == 1 and "report.txt is missing" in broken.out and "Do not format the card" in broken.out
    assert typed("verify", card / "nowhere", "--write").status == 2
    with pytest.raises(InputError, match="rename it"):
        (card / "a\nb.wav").write_bytes(b"")
        files_below(card)
