"""Files dropped in, laid over each other, moved and written out, through the API. Made of a voice, so that the truth is known."""

import io
import time
from concurrent.futures import ThreadPoolExecutor
from functools import cache
from uuid import UUID, uuid4

import numpy as np
import pytest
import soundfile
import wavinfo

from tests.few import each_of
from tests.measured import measured
from tests.sounds import RATE, noise, voice, wav
from tidy_trunk.app.demo import foundry
from tidy_trunk.formats import Broadcast, write_broadcast
from tidy_trunk.tasks.requests import Match


@cache
def spoken():
    return voice(-20, 90, 21)


TEN = 36_000
MOVIE_S = 4


def broadcast(samples, began_s=TEN):
    box = io.BytesIO()
    said = Broadcast(date="2026-11-25", time="10:00:00", time_reference=round(began_s * RATE))
    piece = samples.astype(np.float32)[None]
    write_broadcast(box, [piece], rate_hz=RATE, channels=1, sample_count=len(samples), bits="24", broadcast=said)
    return box.getvalue()


def movie(path, timecode=""):
    """A clip of grey pictures without sound."""
    import av

    with av.open(str(path), "w") as container:
        pictures = container.add_stream("mpeg4", rate=25)
        pictures.width, pictures.height, pictures.pix_fmt = 64, 48, "yuv420p"
        if timecode:
            pictures.metadata["timecode"] = timecode
        for _ in range(MOVIE_S * 25):
            for packet in pictures.encode(
                av.VideoFrame.from_ndarray(np.full((48, 64, 3), 90, np.uint8), format="rgb24")
            ):
                container.mux(packet)
        for packet in pictures.encode():
            container.mux(packet)
    return path.read_bytes()


@pytest.fixture
def sync(client):
    job = client.post("/api/jobs", json={"name": "Sync"}).json()["job"]
    return Desk(client, f"/api/jobs/{job}/sync")


class Desk:
    def __init__(self, client, address):
        self.client, self.address = client, address

    def drop(self, name, data, side="camera"):
        answer = self.client.post(
            f"{self.address}/files",
            params={"name": name, "side": side},
            content=data,
            headers={"content-type": "audio/wav"},
        )
        assert answer.status_code == 201, answer.text
        return answer.json()["id"]

    def state(self):
        return self.client.get(self.address).json()

    def over(self, of=lambda state: [file["state"] for file in state["files"]]):
        for _ in range(600):
            states = of(self.state())
            if not {"waiting", "reading"} & set(states):
                return self.state()
            time.sleep(0.05)
        raise AssertionError("it is still under way")

    def match(self):
        self.over()
        assert self.client.post(f"{self.address}/match").status_code == 202
        return self.over(lambda state: [state["match"]["state"]])


@pytest.mark.deep
def test_files_are_laid_over_each_other_and_written_out(sync, tmp_path):
    sync.drop("BAG.WAV", broadcast(spoken()), "recorder")
    slow = np.interp(
        np.arange(round(70 * RATE)) / (1 - 40e-6), np.arange(len(spoken()) - 8 * RATE), spoken()[8 * RATE :]
    )
    camera = sync.drop("CAMA.WAV", wav(-slow))
    silent = sync.drop("CAMB.MOV", movie(tmp_path / "b.mov", "10:00:30:00"))
    stranger = sync.drop("CAMC.WAV", wav(noise(-20, 5, 3)))
    state = sync.match()
    clips = {clip["other"]: clip for clip in state["clips"]}
    assert set(clips) == {camera, silent}
    assert clips[camera]["offset_s"] == pytest.approx(8.0, abs=0.001) and clips[camera]["polarity"] == -1
    assert clips[camera]["drift_ppm"] == pytest.approx(-40, abs=1) and clips[camera]["method"] == "waveform"
    assert clips[silent]["offset_s"] == 30.0 and clips[silent]["method"] == "timecode"
    together = state["timelines"][0]
    assert together["starts"] == "10:00:00:00" and [file["name"] for file in together["files"]] == [
        "BAG.WAV",
        "CAMA.WAV",
        "CAMB.MOV",
    ]
    assert stranger in {file["id"] for line in state["timelines"][1:] for file in line["files"]}

    waves = sync.client.get(f"{sync.address}/clips/{camera}/waves", params={"at_s": 20, "span_s": 0.2}).json()
    ours, theirs = (np.array(waves[side]["high"]) for side in ("reference", "other"))
    assert np.corrcoef(ours, theirs)[0, 1] > 0.99, "both show the same, with drift and polarity made good"
    heard = sync.client.get(f"{sync.address}/clips/{camera}/heard.wav", params={"at_s": 20, "span_s": 5})
    both, rate = soundfile.read(io.BytesIO(heard.content))
    assert rate == RATE and both.shape == (5 * RATE, 2) and np.corrcoef(both.T)[0, 1] > 0.99

    moved = sync.client.put(f"{sync.address}/clips/{camera}/nudge", json={"samples": 1920}).json()
    clip = next(clip for clip in moved["clips"] if clip["other"] == camera)
    assert clip["offset_s"] == pytest.approx(8.04, abs=0.001) and clip["offset_frames"] == pytest.approx(201, abs=0.03)
    sync.client.put(f"{sync.address}/clips/{camera}/nudge", json={"samples": 0})

    path = tmp_path / "aligned.wav"
    path.write_bytes(sync.client.get(f"{sync.address}/clips/{camera}/aligned.wav").content)
    said = wavinfo.WavInfoReader(str(path))
    assert said.bext.time_reference == pytest.approx((TEN + 8) * RATE, abs=48) and "CAMA.WAV" in said.bext.description
    assert soundfile.info(str(path)).frames == len(slow)
    path.write_bytes(sync.client.get(f"{sync.address}/clips/{camera}/aligned.wav", params={"stretch": True}).content)
    stretched, _ = soundfile.read(str(path))
    assert len(stretched) == pytest.approx(len(slow) / (1 - 40e-6), abs=2)
    late = stretched[60 * RATE : 65 * RATE]
    assert np.corrcoef(late, -spoken()[68 * RATE : 73 * RATE])[0, 1] > 0.99, (
        "after a minute it still lies on the recorder's"
    )

    for kind, begins in (("csv", b"file,starts"), ("edl", b"TITLE: sync-1"), ("otio", b"{")):
        answer = sync.client.get(f"{sync.address}/timelines/0/export.{kind}")
        assert (
            answer.status_code == 200 and answer.content.lstrip().startswith(begins) and b"CAMB.MOV" in answer.content
        )


@pytest.mark.deep
def test_timecode_is_made_sharp_by_the_sound_and_contradicted_where_it_is_wrong(sync):
    """One camera's label is 30 ms off, as a frame is; the other was never jammed and says twelve seconds later."""
    sync.drop("BAG.WAV", broadcast(spoken()), "recorder")
    near = sync.drop("NEAR.WAV", broadcast(spoken()[10 * RATE : 40 * RATE], TEN + 10.03))
    wrong = sync.drop("WRONG.WAV", broadcast(spoken()[20 * RATE : 50 * RATE], TEN + 32))
    clips = {clip["other"]: clip for clip in sync.match()["clips"]}
    assert clips[near]["method"] == "timecode" and clips[near]["offset_s"] == pytest.approx(10.0, abs=0.001)
    assert clips[near]["timecode_s"] is None
    assert clips[wrong]["method"] == "waveform" and clips[wrong]["offset_s"] == pytest.approx(20.0, abs=0.001)
    assert clips[wrong]["timecode_s"] == 32.0


@pytest.mark.deep
def test_a_silent_clip_is_placed_by_the_picture_of_a_clap(sync, tmp_path):
    """Picture 50 at 25 is at 2 s; the clap is heard at 5.5 s: it begins at 3.5 s."""
    bag = sync.drop("BAG.WAV", wav(spoken()[: 20 * RATE]), "recorder")
    silent = sync.drop("SILENT.MOV", movie(tmp_path / "s.mov"))
    assert sync.match()["clips"] == []
    body = {"reference": bag, "reference_s": 5.5, "frame": 50}
    (clip,) = sync.client.put(f"{sync.address}/clips/{silent}/place", json=body).json()["clips"]
    assert (clip["offset_s"], clip["method"], clip["by_hand"]) == (3.5, "clap", True)
    (again,) = sync.match()["clips"]
    assert again["by_hand"] and again["offset_s"] == 3.5, "what was said by hand stays"
    refused = sync.client.get(f"{sync.address}/clips/{silent}/waves", params={"at_s": 0, "span_s": 1})
    assert refused.status_code == 422 and "no sound" in refused.json()["detail"]
    stills = {
        (file, frame): sync.client.get(f"{sync.address}/files/{file}/still.jpg", params={"frame": frame})
        for file, frame in ((silent, 50), (silent, MOVIE_S * 25 - 1), (silent, MOVIE_S * 25), (bag, 0))
    }
    assert [answer.status_code for answer in stills.values()] == [200, 200, 422, 422]
    assert stills[silent, 50].content.startswith(b"\xff\xd8"), "a JPEG"
    assert "pictures 0 to 99" in stills[silent, 100].json()["detail"]


@pytest.mark.deep
def test_a_single_clap_is_a_guess_and_says_so(sync):
    """Heard at 2 s by the recorder and at 1 s by a camera that hears other voices: it may begin at 1 s."""
    heard = [np.concatenate([noise(-70, 3, seed), voice(-40, 9, seed)]) for seed in (1, 2)]
    for sound, at_s, seed in zip(heard, (2, 1), (3, 4), strict=True):
        burst = np.exp(-np.arange(RATE // 10) / (RATE / 100)) * noise(-6, 0.1, seed)
        sound[at_s * RATE : at_s * RATE + len(burst)] += burst
    bag = sync.drop("BAG.WAV", wav(heard[0]), "recorder")
    camera = sync.drop("CAM.WAV", wav(heard[1][: 10 * RATE]))
    state = sync.match()
    assert state["clips"] == []
    (guess,) = state["guesses"]
    assert (guess["reference"], guess["other"]) == (bag, camera) and guess["frame"] is None
    assert guess["offset_s"] == pytest.approx(1.0, abs=0.01) and guess["confidence"] < 0.5


@pytest.mark.deep
def test_two_cameras_without_a_recorder(sync):
    first, second = (
        sync.drop("A.WAV", wav(spoken()[: 40 * RATE])),
        sync.drop("B.WAV", wav(spoken()[12 * RATE : 30 * RATE])),
    )
    (clip,) = sync.match()["clips"]
    assert (clip["reference"], clip["other"]) == (first, second) and clip["offset_s"] == pytest.approx(12, abs=0.001)
    assert sync.client.delete(f"{sync.address}/files/{first}").status_code == 204
    assert sync.state()["is_stale"] and sync.state()["clips"] == []


@pytest.mark.deep
def test_a_match_is_cancelled(sync):
    sync.drop("BAG.WAV", wav(spoken()), "recorder")
    sync.drop("CAM.WAV", wav(spoken()[5 * RATE :]))
    sync.over()
    sync.client.post(f"{sync.address}/match")
    state = sync.client.post(f"{sync.address}/match/cancel").json()
    assert state["match"]["state"] == "cancelled" and state["clips"] == []
    assert len(sync.match()["clips"]) == 1, "and begun again"


@pytest.mark.deep
def test_a_move_that_is_sent_again_is_made_once(sync):
    """Its answer was lost, and somebody else has moved the clip since."""
    sync.drop("BAG.WAV", wav(spoken()), "recorder")
    cam = sync.drop("CAM.WAV", wav(spoken()[5 * RATE :]))
    sync.match()
    mine, theirs = ({"samples": samples, "request": str(uuid4())} for samples in (48, 96))
    for move in (mine, theirs, mine):
        assert sync.client.put(f"{sync.address}/clips/{cam}/nudge", json=move).status_code == 200
    assert placed(sync.state(), cam)["nudge_samples"] == 96


def placed(state, other):
    (clip,) = (clip for clip in state["clips"] if clip["other"] == other)
    return clip


@pytest.mark.deep
def test_what_was_moved_by_hand_outlives_another_look_and_its_end(sync):
    """Said before: gone for good after Cancel, after two presses, after removing a file meanwhile."""
    bag, cam = sync.drop("BAG.WAV", wav(spoken()), "recorder"), sync.drop("CAM.WAV", wav(spoken()[5 * RATE :]))
    other = sync.drop("B.WAV", wav(spoken()[9 * RATE :]))
    sync.match()
    put = {"reference": bag, "reference_s": 7.0, "other_s": 1.0}
    assert sync.client.put(f"{sync.address}/clips/{cam}/place", json=put).status_code == 200
    assert sync.client.put(f"{sync.address}/clips/{other}/nudge", json={"samples": 48}).status_code == 200

    def stands():
        state = sync.state()
        return placed(state, cam)["by_hand"], placed(state, cam)["offset_s"], placed(state, other)["nudge_samples"]

    assert stands() == (True, 6.0, 48)
    sync.client.post(f"{sync.address}/match")
    assert sync.client.put(f"{sync.address}/clips/{cam}/place", json=put).status_code == 422, (
        "not while it is under way"
    )
    sync.client.post(f"{sync.address}/match/cancel")
    assert sync.state()["match"]["state"] == "cancelled" and stands() == (True, 6.0, 48)
    first, second = (sync.client.post(f"{sync.address}/match").json()["id"] for _ in range(2))
    assert first == second, "pressed twice it is begun once"
    third = sync.drop("C.WAV", wav(spoken()[2 * RATE :]))
    sync.client.delete(f"{sync.address}/files/{third}")
    assert stands() == (True, 6.0, 48)
    sync.match()
    assert stands() == (True, 6.0, 48), "found anew, and moved as it was"


@pytest.mark.parametrize("value", each_of([np.nan, np.inf, 3e38], 1))
def test_numbers_that_no_recorder_writes_are_refused(sync, value):
    """Said before: done."""
    samples = np.zeros(RATE * 2)
    samples[RATE] = value
    file = io.BytesIO()
    soundfile.write(file, samples, RATE, format="WAV", subtype="FLOAT")
    sync.drop("strange.wav", file.getvalue())
    (found,) = sync.over()["files"]
    assert found["state"] == "failed" and "not finite" in found["message"]


def test_clips_that_are_moved_at_once_are_all_moved(sync, services):
    """Said before: of 48 moves side by side 23 were lost."""
    job = UUID(sync.address.split("/")[3])
    record = measured(services, job, uuid4(), "a look", Match(files=()), {"moved": []})
    moves = [lambda result, at=at: {"moved": [*result["moved"], at]} for at in range(16)]
    with ThreadPoolExecutor(8) as pool:
        list(pool.map(lambda move: services.recordings.amend(job, record.id, move), moves))
    assert sorted(services.recordings.get(job, record.id).result["moved"]) == list(range(16))


@pytest.mark.deep
def test_what_cannot_be_is_refused(sync):
    assert sync.client.post(f"{sync.address}/match").status_code == 422
    letter = sync.drop("letter.wav", b"Dear editor")
    state = sync.over()
    assert state["files"][0]["state"] == "failed" and "no recording" in state["files"][0]["message"]
    post = sync.client.post
    assert post(f"{sync.address}/files", params={"side": "left"}, content=b"x").status_code == 422
    assert post(f"{sync.address}/files", params={"name": "empty"}, content=b"").status_code == 422
    for path in (f"clips/{letter}/waves?at_s=0&span_s=1", f"clips/{letter}/aligned.wav", "timelines/0/export.csv"):
        assert sync.client.get(f"{sync.address}/{path}").status_code == 404, path
    for query in ("at_s=nan&span_s=1", "at_s=0&span_s=0", "at_s=1e9&span_s=1"):
        assert sync.client.get(f"{sync.address}/clips/{letter}/waves?{query}").status_code == 422, query


@pytest.mark.deep
def test_line_up_does_not_list_what_is_for_sync(client):
    from tests.api.test_patch_api import opened

    job = opened(client, foundry())["job"]
    desk = Desk(client, f"/api/jobs/{job}/sync")
    desk.drop("BAG.WAV", wav(spoken()[:RATE]), "recorder")
    desk.over()
    assert client.get(f"/api/jobs/{job}/recordings").json() == []
