"""Copies with other labels: read back by wavinfo and by FFmpeg, sound byte for byte; and every way in which copying goes wrong."""

import io
import subprocess
import sys
import time
from pathlib import Path
from random import Random

import av
import numpy as np
import pytest
import soundfile
from wavinfo import WavInfoReader

from tests.media.test_day_files import RATE, broadcast
from tests.sounds import wav
from tidy_trunk.errors import InputError
from tidy_trunk.formats import Broadcast, TakeLabels, read_labels, write_broadcast
from tidy_trunk.media import copying
from tidy_trunk.media.copying import CopyOrder, CopyVerdict, copy_files
from tidy_trunk.media.manifests import MANIFEST, SHA256_LIST, read_manifest, verify

ROOT = Path(__file__).resolve().parents[2]
OLD = TakeLabels(scene="12C", take="5", tape="SR001", tracks=((1, "Tr1"), (2, "Tr2")))
NEW = TakeLabels(scene="12C", take="4", circled=True, note="plane & <rustle>", tracks=((1, "Boom"), (2, "Ann é")))


@pytest.fixture
def card(tmp_path):
    folder = tmp_path / "card"
    (folder / "Bag").mkdir(parents=True)
    (folder / "Bag" / "R1.WAV").write_bytes(broadcast(36_000, 2, OLD, day="2000-01-01"))
    (folder / "Bag" / "C1.MOV").write_bytes(b"pictures" * 100)
    return folder


def orders(labels=NEW, date="2026-12-01"):
    sound = CopyOrder(path="Bag/R1.WAV", name="Bag/12C-04.WAV", labels=labels, date=date)
    return [sound, CopyOrder(path="Bag/C1.MOV", name="Bag/C1.MOV")]


def sound_of(path):
    with av.open(str(path)) as file:
        return np.concatenate([frame.to_ndarray() for frame in file.decode(audio=0)], axis=1)


def test_a_copy_says_what_the_log_says_and_sounds_the_same(card, tmp_path):
    into, second = tmp_path / "drive" / "day", tmp_path / "other"
    original = (card / "Bag" / "R1.WAV").read_bytes()
    found = copy_files(card, orders(), into, second)
    assert [(item.verdict, item.is_good, item.again) for item in found] == [(CopyVerdict.COPIED, True, True)] * 2
    assert (card / "Bag" / "R1.WAV").read_bytes() == original
    copy = into / "Bag" / "12C-04.WAV"
    told = WavInfoReader(str(copy))
    assert (told.ixml.scene, told.ixml.take, told.ixml.tape) == ("12C", "4", "SR001")
    assert [track.name for track in told.ixml.track_list] == ["Boom", "Ann é"]
    assert (told.bext.originator_date, told.bext.time_reference) == ("2026-12-01", 36_000 * RATE)
    with copy.open("rb") as stream:
        assert read_labels(stream).circled and read_labels(stream).rate == "25/1", "what it said of its clock stays"
    assert b"<ORIGINAL_FILENAME>R1.WAV<" in copy.read_bytes()
    with av.open(str(copy)) as file:  # as ffprobe has it
        assert file.metadata["date"] == "2026-12-01" and file.metadata["time_reference"] == str(36_000 * RATE)
    assert np.array_equal(sound_of(copy), sound_of(card / "Bag" / "R1.WAV"))
    for place in (into, second):
        done = subprocess.run(["sha256sum", "--check", "--strict", SHA256_LIST], cwd=place, capture_output=True)
        assert done.returncode == 0
        assert {item.verdict for item in verify(place, read_manifest(place / MANIFEST))} == {"same"}
    again = copy_files(card, orders(), into, second)
    assert {item.verdict for item in again} == {CopyVerdict.ALREADY_THERE} and all(item.is_good for item in again)


def test_long_and_broken_kinds_of_files_keep_their_shape(card, tmp_path):
    """RF64 stays RF64, a sound that was cut short says how long it is, a description that is none makes way for one."""
    whole = broadcast(36_000, 2, OLD)
    at = whole.index(b"data")
    size = int.from_bytes(whole[at + 4 : at + 8], "little")
    junk = whole.index(b"JUNK")
    long = b"RF64" + b"\xff" * 4 + b"WAVE" + b"ds64" + (28).to_bytes(4, "little")
    long += (len(whole) - 8).to_bytes(8, "little") + size.to_bytes(8, "little") + bytes(12)
    long += whole[junk + 36 : at + 4] + b"\xff" * 4 + whole[at + 8 :]
    broken = whole.replace(b"<BWFXML>", b"<BWFXML<")
    for number, data in enumerate((long, whole[: at + 8 + size // 2], broken)):
        (card / "Bag" / "R1.WAV").write_bytes(data)
        (found, _) = copy_files(card, orders(), tmp_path / f"into{number}")
        copy = tmp_path / f"into{number}" / found.name
        assert found.is_good and copy.read_bytes()[:4] == data[:4]
        told = WavInfoReader(str(copy))
        assert told.ixml.scene == "12C" and told.data.frame_count == RATE * (1 if number == 1 else 2)


def test_what_the_card_does_not_give_has_no_copy(card, tmp_path, monkeypatch):
    (card / "Bag" / "gone.wav").write_bytes(b"")
    wanted = [*orders(), CopyOrder(path="Bag/gone.wav", name="Bag/gone.wav")]
    (card / "Bag" / "gone.wav").unlink()

    class Worn(io.BytesIO):
        def read(self, count=-1):
            raise OSError(5, "Input/output error")

    real = copying._Card.__init__

    def worn(self, path):
        real(self, path)
        self._stream.close()
        self._stream = Worn(b"12")

    monkeypatch.setattr(copying._Card, "__init__", worn)
    found = copy_files(card, [wanted[1], wanted[2]], tmp_path / "into")
    assert [item.verdict for item in found] == [CopyVerdict.UNREADABLE] * 2
    assert "gives nothing more after 0 bytes" in found[0].problem
    assert not any(path.is_file() for path in (tmp_path / "into" / "Bag").iterdir())
    assert read_manifest(tmp_path / "into" / MANIFEST) == {}


def test_a_disk_that_writes_something_else_is_told(card, tmp_path, monkeypatch):
    real = copying.digest
    monkeypatch.setattr(copying, "digest", lambda path: real(card / "Bag" / "R1.WAV"))
    (_, found) = copy_files(card, orders(), tmp_path / "into")
    assert found.verdict is CopyVerdict.BADLY_WRITTEN and not (tmp_path / "into" / "Bag" / "C1.MOV").exists()


def test_another_file_of_that_name_stays(card, tmp_path):
    (tmp_path / "into" / "Bag").mkdir(parents=True)
    (tmp_path / "into" / "Bag" / "C1.MOV").write_bytes(b"other")
    (_, found) = copy_files(card, orders(), tmp_path / "into")
    assert found.verdict is CopyVerdict.NAME_TAKEN and (tmp_path / "into" / "Bag" / "C1.MOV").read_bytes() == b"other"


def test_a_second_copy_that_is_not_the_first_is_told(card, tmp_path):
    (tmp_path / "two" / "Bag").mkdir(parents=True)
    (tmp_path / "two" / "Bag" / "C1.MOV").write_bytes(b"other")
    (_, found) = copy_files(card, orders(), tmp_path / "one", tmp_path / "two")
    assert found.verdict is CopyVerdict.COPIED and found.again is False and not found.is_good
    assert "second copy" in found.problem


def test_a_card_that_is_pulled_out_ends_it(card, tmp_path, monkeypatch):
    def gone(source, target, order):
        card.rename(tmp_path / "elsewhere")
        return copying.CopiedFile(path=order.path, name=order.name, verdict=CopyVerdict.UNREADABLE), None

    monkeypatch.setattr(copying, "_copied", gone)
    with pytest.raises(InputError, match="the card is gone after 1 of 2 files"):
        copy_files(card, orders(), tmp_path / "into")


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"into": "card/inside"}, "cannot go into the folder that they come from"),
        ({"second": "into"}, "nor both into one"),
        ({"names": ("Bag/a.wav", "bag/A.WAV")}, "two files would be called"),
        ({"names": ("../a.wav", "b.wav")}, "is no name for a copy"),
        ({"free": 1_000}, "are wanted there"),
        ({"file": True}, "is a file"),
    ],
)
def test_what_cannot_be_copied_is_refused_before_anything_is_written(card, tmp_path, monkeypatch, change, says):
    names = change.get("names", ("a.wav", "b.mov"))
    wanted = [CopyOrder(path=path, name=name) for path, name in zip(("Bag/R1.WAV", "Bag/C1.MOV"), names, strict=True)]
    if "free" in change:
        usage = type("Usage", (), {"free": change["free"]})
        monkeypatch.setattr(copying.shutil, "disk_usage", lambda place: usage)
    if "file" in change:
        (tmp_path / "into").write_bytes(b"")
    second = tmp_path / change["second"] if "second" in change else None
    with pytest.raises(InputError, match=says):
        copy_files(card, wanted, tmp_path / change.get("into", "into"), second)
    assert not [path for path in tmp_path.rglob("*") if path.name in ("a.wav", "b.mov", MANIFEST)]


def test_a_full_disk_is_said_and_nothing_half_is_named(card, tmp_path, monkeypatch):
    def full(self, piece):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(copying._Told, "write", full)
    with pytest.raises(InputError, match="the disk is full at Bag/12C-04"):
        copy_files(card, orders(), tmp_path / "into")
    assert not [path for path in (tmp_path / "into").rglob("*") if path.is_file()]


def test_sound_is_split_into_one_file_for_each_channel(card, tmp_path):
    """Byte for byte the samples of that channel; time and labels stay, the track is the one that it holds."""
    stereo = np.stack([np.sin(np.arange(RATE) / 20), np.cos(np.arange(RATE) / 7)]).astype(np.float32) / 2
    box = io.BytesIO()
    write_broadcast(
        *(box, [stereo]),
        rate_hz=RATE,
        channels=2,
        sample_count=RATE,
        bits="24",
        labels=OLD,
        broadcast=Broadcast(time_reference=36_000 * RATE),
    )
    (card / "Bag" / "R1.WAV").write_bytes(box.getvalue())
    for channel in (1, 2):
        labels = TakeLabels(scene="12C", take="4", tracks=((1, NEW.tracks[channel - 1][1]),))
        order = CopyOrder(path="Bag/R1.WAV", name=f"{channel}.wav", labels=labels, channel=channel)
        (found,) = copy_files(card, [order], tmp_path / f"mono{channel}")
        copy = tmp_path / f"mono{channel}" / found.name
        told = WavInfoReader(str(copy))
        assert (told.fmt.channel_count, told.data.frame_count, told.bext.time_reference) == (1, RATE, 36_000 * RATE)
        assert [track.name for track in told.ixml.track_list] == [NEW.tracks[channel - 1][1]]
        whole, _ = soundfile.read(card / "Bag" / "R1.WAV", dtype="int32")
        assert np.array_equal(soundfile.read(copy, dtype="int32")[0], whole[:, channel - 1])
    wrong = CopyOrder(path="Bag/R1.WAV", name="3.wav", labels=OLD, channel=3)
    (found,) = copy_files(card, [wrong], tmp_path / "mono3")
    assert found.verdict is CopyVerdict.UNREADABLE and "2 channels" in found.problem


def test_a_movies_two_sides_become_two_files(card, tmp_path):
    """Sample by sample as ffmpeg's decoder has them; they begin where the movie's timecode says. [EBU3285]"""
    sides = (np.stack([np.sin(np.arange(RATE) / 20), np.cos(np.arange(RATE) / 7)]) * 9_000).astype(np.int16)
    with av.open(str(card / "C0001.MOV"), "w", format="mov") as container:
        pictures = container.add_stream("mpeg4", rate=25)
        pictures.width, pictures.height, pictures.pix_fmt = 64, 48, "yuv420p"
        pictures.metadata["timecode"] = "10:00:04:10"
        sound = container.add_stream("pcm_s16le", rate=RATE)
        sound.layout = "stereo"
        grey = av.VideoFrame.from_ndarray(np.full((48, 64, 3), 90, np.uint8), format="rgb24")
        for _ in range(25):
            container.mux(pictures.encode(grey))
        container.mux(pictures.encode())
        frame = av.AudioFrame.from_ndarray(sides.T.reshape(1, -1).copy(), format="s16", layout="stereo")
        frame.sample_rate = RATE
        container.mux(sound.encode(frame))
        container.mux(sound.encode())
    orders = [
        CopyOrder(
            path="C0001.MOV",
            name=f"C0001_{channel}.WAV",
            labels=TakeLabels(scene="12C", take="4", tracks=((1, name),)),
            date="2026-12-01",
            channel=channel,
            out_of_movie_bytes=4 * RATE,
        )
        for channel, name in ((1, "Boom"), (2, "Ann"), (3, "nobody"))
    ]
    *copied, third = copy_files(card, orders, tmp_path / "into", tmp_path / "second")
    for number, file in enumerate(copied):
        assert file.verdict is CopyVerdict.COPIED and file.is_good, file.problem
        path = tmp_path / "into" / file.name
        told = WavInfoReader(str(path))
        assert (told.fmt.channel_count, told.bext.time_reference) == (1, round(36_004.4 * RATE))
        assert (told.ixml.scene, told.ixml.take, told.bext.originator_date) == ("12C", "4", "2026-12-01")
        assert [track.name for track in told.ixml.track_list] == [("Boom", "Ann")[number]]
        assert np.array_equal(soundfile.read(path, dtype="int16")[0], sides[number])
    assert third.verdict is CopyVerdict.UNREADABLE and "2 channels" in third.problem
    assert not (tmp_path / "into" / third.name).exists()


@pytest.mark.deep
def test_a_kill_while_copying_leaves_nothing_half(tmp_path):
    """Killed five times at random moments, then done again to the end: whatever has a name is whole."""
    by, card, into, second = Random(3), tmp_path / "card", tmp_path / "one", tmp_path / "two"
    card.mkdir()
    noise = [np.random.default_rng(number).uniform(-0.1, 0.1, 4_000_000) for number in range(6)]
    data = {f"R{number}.WAV": wav(samples) for number, samples in enumerate(noise)}
    for name, content in data.items():
        (card / name).write_bytes(content)
    command = [sys.executable, "-m", "tidy_trunk", "files", str(card), "--copy", str(into), "--second", str(second)]

    def named():
        return [path for place in (into, second) for path in place.glob("R*.WAV")]

    killed = 0
    for _ in range(5):
        before = len(named())
        process = subprocess.Popen(command, cwd=ROOT, stdout=subprocess.DEVNULL)
        while process.poll() is None and not any(into.glob(".*.part")) and len(named()) == before:
            time.sleep(0.005)
        time.sleep(by.uniform(0, 0.15))
        killed += process.poll() is None
        process.kill()
        process.wait()
        assert all(path.read_bytes() == data[path.name] for path in named())
    assert killed >= 3, "it was killed while it worked"
    subprocess.run(command, cwd=ROOT, check=True, stdout=subprocess.DEVNULL)
    assert len(named()) == 2 * len(data) and all(path.read_bytes() == data[path.name] for path in named())
    for place in (into, second):
        assert not list(place.glob(".*.part"))
        assert subprocess.run(["sha256sum", "-c", "--quiet", SHA256_LIST], cwd=place).returncode == 0
