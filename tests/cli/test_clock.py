"""`timecode`, `ltc`, `drift` and `sync` as a user types them. Hand calculations stand beside the figures."""

import io
import json
from fractions import Fraction

import av
import numpy as np
import pytest
import soundfile
import wavinfo

from tests.commands import typed
from tests.core.time.sync.test_claps import with_claps
from tests.few import few
from tests.sounds import RATE, noise, voice, wav, with_time_reference


@pytest.fixture
def run():
    def call(*arguments, status=0):
        printed = typed(*arguments)
        assert printed.status == status, printed.err
        return printed

    return call


@pytest.fixture
def answer(run):
    return lambda *arguments, status=0: json.loads(run(*arguments, "--json", status=status).out)


@pytest.fixture
def refused(run):
    def call(says, *arguments):
        printed = run(*arguments, status=2)
        assert not printed.out and printed.err.startswith("tidy: ") and printed.err.count("\n") == 1
        assert says in printed.err

    return call


@pytest.mark.parametrize(
    ("asked", "timecode", "frames", "why"),
    [
        (["10:00:59;28", "--fps", "29.97df", "--add", "4"], "10:01:00;04", 1_080_722, "00 and 01 are dropped"),
        (["00:00:00:00", "--fps", "25", "--add", "-1"], "23:59:59:24", 2_159_999, "round midnight"),
        (["23:59:59:24", "--fps", "25", "--add", "00:00:00:02"], "00:00:00:01", 1, "round midnight"),
        (["01:00:00:00", "--fps", "29.97", "--add", "-00:00:10:00"], "00:59:50:00", 107_700, "labels count 30"),
        (["01:00:00:00", "--fps", "25", "--to", "24"], "01:00:00:00", 86_400, "real time is the same"),
        (["01:00:00:00", "--fps", "29.97", "--to", "30"], "01:00:03:18", 108_108, "non-drop runs 3.6 s an hour behind"),
        (["01:00:00:00", "--fps", "24", "--to", "25", "--by", "count"], "00:57:36:00", 86_400, "86400 / 25 s"),
        (["00:00:00:01", "--fps", "50", "--to", "25"], "00:00:00:01", 1, "a half goes to the later"),
    ],
)
def test_timecode(answer, asked, timecode, frames, why):
    found = answer("timecode", *asked)
    assert (found["timecode"], found["frames"]) == (timecode, frames), why


def test_the_seconds_are_those_of_the_label_and_exact(answer):
    assert answer("timecode", "00:10:00;00", "--fps", "29.97df")["seconds"] == pytest.approx(17_982 * 1001 / 30_000)
    assert answer("timecode", "01:00:00:00", "--fps", "29.97", "--to", "25")["seconds"] == pytest.approx(3_603.6)


@pytest.mark.parametrize(
    ("asked", "says"),
    [
        (["10:01:00;00", "--fps", "29.97df"], "next is 10:01:00;02"),
        (["10:00:00;00", "--fps", "25"], "drops nothing"),
        (["10:00:00:00", "--fps", "26"], "no frame rate known"),
        (["10:00:00:00", "--fps", "25", "--add", "later"], "cannot be added"),
        (["10:00:00:00", "--fps", "25", "--add", "9999999999"], "more than anybody adds"),
    ],
)
def test_timecode_refuses(refused, asked, says):
    refused(says, "timecode", *asked)


def test_drift(answer, refused):
    """1 ppm is 3.6 ms an hour: 31 ppm over 8 h are 892.8 ms, 22.32 frames at 25; half a frame, 20 ms, after 645.2 s."""
    found = answer("drift", "--ppm", "1", "--ppm", "30", "--fps", "25", "--hours", "8")
    assert found["relative_ppm"] == 31 and found["drift_ms"] == pytest.approx(892.8)
    assert found["drift_frames"] == pytest.approx(22.32) and found["rejam_every_h"] == pytest.approx(20 / 31e-3 / 3600)
    assert answer("drift", "--ppm", "0", "--ppm", "0", "--fps", "25", "--hours", "8")["rejam_every_h"] is None
    refused("must be between 0", "drift", "--ppm", "-1", "--ppm", "1", "--fps", "25", "--hours", "8")
    refused("give --ppm twice", "drift", "--ppm", "1", "--fps", "25", "--hours", "8")


def test_ltc_is_written_and_read(run, answer, tmp_path):
    path = tmp_path / "ltc.wav"
    run("ltc", "write", path, "--start", "23:59:58;20", "--fps", "29.97df", "--seconds", "4", "--user-bits", "0123ABCD")
    samples, rate = soundfile.read(path)
    assert (
        rate == RATE
        and len(samples) == 4 * RATE
        and 20 * np.log10(np.abs(samples).max()) == pytest.approx(-18, abs=0.1)
    )
    found = answer("ltc", "read", path)
    assert (found["rate"], found["drop_frame"], found["frames"]) == ("29.97df", True, 119)
    assert found["first"]["timecode"] == found["start_timecode"] == "23:59:58;20" and found["user_bits"] == "0123ABCD"
    assert found["last"]["timecode"] == "00:00:02;18" and found["gaps"] == [] and not found["reversed"]


def test_ltc_finds_its_channel_among_others(run, answer, refused, tmp_path):
    path = tmp_path / "ltc.wav"
    run("ltc", "write", path, "--start", "10:00:00:00", "--fps", "25", "--seconds", "3", "--date", "2026-11-25")
    ltc, _ = soundfile.read(path)
    (tmp_path / "both.wav").write_bytes(wav(voice(-20, 3), ltc, noise(-40, 3)))
    found = answer("ltc", "read", tmp_path / "both.wav", "--fps", "24")
    assert found["channel"] == 2 and found["user_bits"] == "00261125"
    assert found["notes"] == ["it runs at 25, and the job at 24"]
    assert answer("ltc", "read", tmp_path / "both.wav", "--channel", "1", status=3)["frames"] == 0
    refused("no channel 9", "ltc", "read", tmp_path / "both.wav", "--channel", "9")


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--user-bits", "XYZ"], "8 hexadecimal"),
        (["--date", "yesterday"], "is no date"),
        (["--user-bits", "00000000", "--date", "2026-11-25"], "give one of them"),
        (["--level", "3"], "dBFS, not 3"),
        (["--level", "nan"], "not nan"),
        (["--rate", "4000"], "not in use"),
        (["--fps", "50"], "half of this rate"),
        (["--seconds", "0"], "must be more than 0"),
    ],
)
def test_ltc_write_refuses_and_writes_nothing(refused, tmp_path, more, says):
    path = tmp_path / "ltc.wav"
    refused(says, "ltc", "write", path, "--start", "10:00:00:00", "--fps", "25", "--seconds", "1", *more)
    assert not path.exists()


def camera_movie(samples, codec="aac", kind="mp4"):
    """The sound as a camera keeps it: AAC in an MP4, or plain numbers in a MOV, by PyAV."""
    box = io.BytesIO()
    with av.open(box, "w", format=kind) as movie:
        track = movie.add_stream(codec, rate=RATE)
        if codec == "aac":
            track.bit_rate = 96_000
            frame = av.AudioFrame.from_ndarray(samples.astype(np.float32)[np.newaxis], format="fltp", layout="mono")
        else:
            whole = np.round(samples * 32_767).astype(np.int16)[np.newaxis]
            frame = av.AudioFrame.from_ndarray(whole, format="s16", layout="mono")
        frame.sample_rate, frame.pts, frame.time_base = RATE, 0, Fraction(1, RATE)
        for packet in [*track.encode(frame), *track.encode(None)]:
            movie.mux(packet)
    return box.getvalue()


@pytest.mark.deep
def test_a_camera_movie_is_found_in_a_recording(answer, tmp_path):
    source = voice(-20, 40, 7)
    (tmp_path / "bag.wav").write_bytes(wav(source, bits=24))
    (tmp_path / "cam.mp4").write_bytes(camera_movie(-source[9 * RATE : 29 * RATE] + noise(-40, 20)))
    found = answer("sync", tmp_path / "bag.wav", tmp_path / "cam.mp4", "--fps", "25")
    assert found["offset_s"] == pytest.approx(9, abs=0.001) and found["offset_frames"] == pytest.approx(225, abs=0.03)
    assert found["offset_samples"] == pytest.approx(9 * RATE, abs=48)
    assert (found["method"], found["polarity"]) == ("waveform", "opposite") and found["confidence"] > 0.9


@pytest.mark.deep
def test_sides_in_opposite_polarity_do_not_vanish(answer, tmp_path):
    source = voice(-20, 40, 7)
    part = source[9 * RATE : 29 * RATE]
    (tmp_path / "bag.wav").write_bytes(wav(source, bits=24))
    (tmp_path / "cam.wav").write_bytes(wav(part, -part, bits=24))
    assert answer("sync", tmp_path / "bag.wav", tmp_path / "cam.wav")["offset_s"] == pytest.approx(9, abs=0.001)


def test_files_with_a_clock_need_no_common_sound(answer, tmp_path):
    """10:00:00 and 10:01:30.5 by their time references: 90.5 s apart; the other way round midnight it is the nearer."""
    for seed, (name, second) in enumerate((("a", 36_000.0), ("b", 36_090.5), ("late", 86_399.0), ("early", 2.0))):
        (tmp_path / f"{name}.wav").write_bytes(with_time_reference(wav(noise(-40, 2, seed)), round(second * RATE)))
    found = answer("sync", tmp_path / "a.wav", tmp_path / "b.wav")
    assert (found["offset_s"], found["method"]) == (90.5, "timecode") and found["offset_samples"] == 90.5 * RATE
    assert answer("sync", tmp_path / "late.wav", tmp_path / "early.wav")["offset_s"] == 3.0


@pytest.mark.parametrize(("said_s", "method"), few([(36_007.0, "timecode"), (43_200.0, "timecode"), (None, None)], 1))
def test_two_files_and_many_are_decided_alike(run, answer, tmp_path, said_s, method):
    """Said before of clocks two hours apart: found by timecode, and with an export found in nothing."""
    a, b = tmp_path / "a.wav", tmp_path / "b.wav"
    a.write_bytes(with_time_reference(wav(voice(-20, 8, 1)), 36_000 * RATE))
    sound = wav(voice(-20, 8, 2))
    b.write_bytes(sound if said_s is None else with_time_reference(sound, round(said_s * RATE)))
    status = 0 if method else 3
    pair = answer("sync", a, b, "--fps", "25", status=status)
    many = answer("sync", a, b, "--fps", "25", "--export", tmp_path / "x.csv", status=status)
    assert [pair] == [{key: file[key] for key in pair} for file in many["files"]] or not method
    assert (pair["method"] if method else many["not_found"]) == (method or [str(b)])


@pytest.mark.deep
def test_a_camera_that_nobody_jammed_is_found_by_ear(answer, tmp_path):
    """Its clock began at midnight a minute before: it says that both never ran together."""
    source = voice(-20, 30, 7)
    bag, clip = tmp_path / "bag.wav", tmp_path / "clip.wav"
    bag.write_bytes(with_time_reference(wav(source), 36_000 * RATE))
    clip.write_bytes(with_time_reference(wav(source[4 * RATE : 20 * RATE]), 60 * RATE))
    found = answer("sync", bag, clip)
    assert (found["method"], found["offset_s"]) == ("waveform", pytest.approx(4.0, abs=0.0001))
    assert found["timecode_s"] == 60 - 36_000


def test_timecode_on_a_track_comes_before_the_sound(run, answer, tmp_path):
    """Strangers by their sound, 7 s and 5 frames apart by their timecode."""
    for seed, (name, start) in enumerate((("a", "10:00:00:00"), ("b", "10:00:07:05"))):
        run("ltc", "write", tmp_path / f"{name}.wav", "--start", start, "--fps", "25", "--seconds", "3")
        ltc, _ = soundfile.read(tmp_path / f"{name}.wav")
        (tmp_path / f"{name}.wav").write_bytes(wav(voice(-20, 3, seed), ltc))
    found = answer("sync", tmp_path / "a.wav", tmp_path / "b.wav", "--fps", "25")
    assert found["offset_frames"] == pytest.approx(7 * 25 + 5, abs=0.01) and found["method"] == "timecode"


@pytest.mark.deep
def test_what_both_hear_makes_timecode_sharp_or_contradicts_it(run, answer, tmp_path):
    """A clip that begins 4.01 s later: its box says 4.00 s and is made sharp, or 9 s and is not believed."""
    source = voice(-20, 30, 7)
    bag, clip = tmp_path / "bag.wav", tmp_path / "clip.wav"
    bag.write_bytes(with_time_reference(wav(source), 36_000 * RATE))
    for said_s, method, disputed in ((4.0, "timecode", None), (9.0, "waveform", 9.0)):
        clip.write_bytes(
            with_time_reference(wav(source[round(4.01 * RATE) : 20 * RATE]), round((36_000 + said_s) * RATE))
        )
        found = answer("sync", bag, clip)
        assert (found["method"], found["timecode_s"]) == (method, disputed)
        assert found["offset_s"] == pytest.approx(4.01, abs=0.0001)
    assert "a jam was forgotten" in run("sync", bag, clip).out


@pytest.mark.deep
def test_what_is_not_found_says_so_with_status_3(answer, refused, tmp_path):
    (tmp_path / "a.wav").write_bytes(wav(voice(-20, 20, 1)))
    (tmp_path / "b.wav").write_bytes(wav(voice(-20, 20, 2)))
    assert answer("sync", tmp_path / "a.wav", tmp_path / "b.wav", status=3)["confidence"] < 0.5
    (tmp_path / "text.wav").write_text("a letter")
    refused("text.wav: this is no recording", "sync", tmp_path / "a.wav", tmp_path / "text.wav")


@pytest.mark.deep
def test_claps_find_what_has_no_other_sound_in_common(tmp_path, answer):
    for name, begins, seed in (("a", 0.0, 1), ("b", 4.0, 2)):
        heard = with_claps([at - begins for at in (6.0, 9.5, 16.25)], floor=-50, seed=seed)
        (tmp_path / f"{name}.wav").write_bytes(wav(heard + voice(-40, 20, seed)))
    found = answer("sync", tmp_path / "a.wav", tmp_path / "b.wav")
    assert found["offset_s"] == pytest.approx(4.0, abs=0.003) and found["confidence"] >= 0.5


@pytest.mark.deep
def test_a_copy_says_where_it_begins(tmp_path, answer, refused):
    """The bag began at 10:00:00 by its own word, and the clip 9 s later; its sound stays as it was, bit by bit."""
    source = voice(-20, 40, 7)
    bag, clip, out = tmp_path / "bag.wav", tmp_path / "clip.wav", tmp_path / "aligned.wav"
    bag.write_bytes(with_time_reference(wav(source, bits=24), 36_000 * RATE))
    clip.write_bytes(wav(source[9 * RATE : 29 * RATE], bits=24))
    found = answer("sync", bag, clip, "--fps", "25", "--write", out)
    said = wavinfo.WavInfoReader(str(out)).bext
    assert (
        said.time_reference == 36_009 * RATE
        and said.originator_time == "10:00:09"
        and found["offset_samples"] == 9 * RATE
    )
    first, second = (soundfile.read(path, dtype="int32")[0] for path in (clip, out))
    assert np.array_equal(first, second)
    before = clip.read_bytes()
    refused("never written over", "sync", bag, clip, "--fps", "25", "--write", clip)
    refused("wants --fps", "sync", bag, clip, "--write", out)
    assert clip.read_bytes() == before
    other = tmp_path / "stranger.wav"
    other.write_bytes(wav(noise(-20, 20, 3), bits=24))
    answer("sync", bag, other, "--fps", "25", "--write", tmp_path / "none.wav", status=3)
    assert not (tmp_path / "none.wav").exists(), "what is not found is not written"


@pytest.mark.parametrize(("codec", "kind"), [("aac", "mp4"), ("pcm_s16le", "mov")])
def test_timecode_is_read_in_a_camera_movie(tmp_path, answer, run, codec, kind):
    """Also where its sound is plain numbers: a movie must be decoded before it can be read here and there."""
    run("ltc", "write", tmp_path / "ltc.wav", "--start", "10:00:00:00", "--fps", "25", "--seconds", "4")
    ltc, _ = soundfile.read(tmp_path / "ltc.wav")
    (tmp_path / f"clip.{kind}").write_bytes(camera_movie(ltc, codec, kind))
    found = answer("ltc", "read", tmp_path / f"clip.{kind}")
    assert (found["rate"], found["start_timecode"]) == ("25", "10:00:00:00") and found["frames"] >= 95


@pytest.mark.deep
def test_a_drift_is_taken_out_of_the_copy(tmp_path, answer, refused):
    """A clock 60 ppm slow over 80 s: 3840000 samples that are 3839770 of its own."""
    source = voice(-20, 80, 7)
    slow = np.interp(np.arange(round(len(source) * (1 - 60e-6))) / (1 - 60e-6), np.arange(len(source)), source)
    (tmp_path / "bag.wav").write_bytes(wav(source))
    (tmp_path / "clip.wav").write_bytes(wav(slow))
    asked = ("sync", tmp_path / "bag.wav", tmp_path / "clip.wav")
    found = answer(*asked, "--fps", "25", "--write", tmp_path / "out.wav", "--stretch")
    assert found["drift_ppm"] == pytest.approx(-60, abs=1)
    stretched, _ = soundfile.read(tmp_path / "out.wav")
    assert len(stretched) == pytest.approx(len(source), abs=5)
    assert np.corrcoef(stretched[75 * RATE : 78 * RATE], source[75 * RATE : 78 * RATE])[0, 1] > 0.99
    refused("--stretch wants --write", *asked, "--stretch")


def test_many_files_at_once(tmp_path, answer, refused):
    takes = [voice(-20, 20, seed) for seed in (31, 32)]
    for name, samples in (
        ("r1", takes[0]),
        ("r2", takes[1]),
        ("c1", takes[1][4 * RATE :]),
        ("c2", takes[0][9 * RATE :]),
        ("c3", noise(-20, 5, 1)),
    ):
        (tmp_path / f"{name}.wav").write_bytes(wav(samples))
    r1, r2, *cameras = (tmp_path / f"{name}.wav" for name in ("r1", "r2", "c1", "c2", "c3"))
    edl = tmp_path / "day.edl"
    found = answer("sync", r1, *cameras, "--recorder", r2, "--fps", "25", "--export", edl)
    begins = {item["file"]: (item["reference"], item["offset_samples"]) for item in found["files"]}
    assert begins[str(cameras[0])] == (str(r2), 4 * RATE) and begins[str(cameras[1])] == (str(r1), 9 * RATE)
    assert found["not_found"] == [str(cameras[2])] and "TITLE: day" in edl.read_text()
    assert sorted(path.name for path in tmp_path.iterdir()) == [
        "c1.wav",
        "c2.wav",
        "c3.wav",
        "day.edl",
        "r1.wav",
        "r2.wav",
    ]
    refused("wants --fps", "sync", r1, *cameras, "--export", edl)
    refused("nothing is written as that", "sync", r1, *cameras, "--fps", "25", "--export", tmp_path / "day.xml")
    refused("a copy of one file", "sync", r1, *cameras, "--write", tmp_path / "x.wav", "--fps", "25")
    (tmp_path / "empty.wav").write_bytes(b"")
    refused("empty.wav: ", "sync", r1, cameras[0], tmp_path / "empty.wav")
    answer("sync", r1, cameras[2], tmp_path / "c3.wav", status=3)


@pytest.mark.parametrize("has_sound", [True, False])
def test_a_movie_says_when_it_began(tmp_path, answer, refused, has_sound):
    """Its timecode track: 10:00:04:10 at 25 is 4.4 s after the recorder's ten o'clock; without sound that is all it says."""
    path = tmp_path / "clip.mov"
    with av.open(str(path), "w") as container:
        pictures = container.add_stream("mpeg4", rate=25)
        pictures.width, pictures.height, pictures.pix_fmt = 64, 48, "yuv420p"
        pictures.metadata["timecode"] = "10:00:04:10"
        grey = av.VideoFrame.from_ndarray(np.full((48, 64, 3), 90, np.uint8), format="rgb24")
        if has_sound:
            sound = container.add_stream("pcm_s16le", rate=RATE)
            sound.layout = "mono"
        for _ in range(50):
            container.mux(pictures.encode(grey))
        container.mux(pictures.encode())
        if has_sound:
            quiet = av.AudioFrame.from_ndarray(np.zeros((1, 2 * RATE), np.int16), format="s16", layout="mono")
            quiet.sample_rate = RATE
            container.mux(sound.encode(quiet))
            container.mux(sound.encode())
    (tmp_path / "bag.wav").write_bytes(with_time_reference(wav(voice(-20, 10, 7), bits=24), 36_000 * RATE))
    found = answer("sync", tmp_path / "bag.wav", path)
    assert (found["method"], found["offset_s"]) == ("timecode", 4.4) and found["offset_samples"] == 211_200
    if not has_sound:
        assert answer("sync", path, tmp_path / "bag.wav")["offset_samples"] is None, "a movie without sound counts none"
        (tmp_path / "no-clock.wav").write_bytes(wav(voice(-20, 3)))
        refused("clip.mov: it has no sound", "sync", tmp_path / "no-clock.wav", path)
        asked = ("sync", tmp_path / "bag.wav", path, "--fps", "25", "--write", tmp_path / "out.wav")
        refused("clip.mov: the movie has no sound", *asked)
        assert not (tmp_path / "out.wav").exists()
