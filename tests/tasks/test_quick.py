"""What somebody waits for: read beside the server, not in it, and within bounds."""

import json
import resource
import socket
import subprocess
import sys
import threading

import numpy as np
import pytest
import soundfile

from tests.sounds import wav
from tidy_trunk.errors import BusyError, InputError
from tidy_trunk.tasks import quick
from tidy_trunk.tasks.quick import QuickReader
from tidy_trunk.tasks.requests import FindClaps, MeasureSpeech

VOICE = wav(np.random.default_rng(1).normal(0, 0.05, 2 * 48_000))

LOOK = """
import json, sys, tempfile
from pathlib import Path
from tidy_trunk.tasks.confinement import confine
told = confine(Path(sys.argv[1]))
import socket
def tried(action):
    try:
        action()
    except OSError as error:
        return type(error).__name__
    return "done"
print(json.dumps({
    "holds": [told.files, told.network], "memory": told.memory,
    "reads": tried(lambda: open(sys.argv[2]).read()),
    "writes elsewhere": tried(lambda: open(sys.argv[2] + ".new", "w")),
    "writes": tried(lambda: open(sys.argv[1] + "/new", "w").write("x")),
    "keeps for a moment": tried(lambda: tempfile.TemporaryFile().write(b"x")),
    "connects": tried(lambda: socket.create_connection(("127.0.0.1", int(sys.argv[3])), 1)),
}))
"""


@pytest.mark.deep
def test_a_small_file_that_unpacks_to_much_takes_nothing_of_the_server(tmp_path):
    """Said before: 0.24 MB of FLAC took 1.17 GB of the server."""
    path = tmp_path / "silence.flac"
    with soundfile.SoundFile(path, "w", 48_000, 8, "PCM_16") as file:
        for _ in range(300):
            file.write(np.zeros((48_000, 8), dtype=np.int16))
    assert path.stat().st_size < 500_000
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    with pytest.raises(InputError, match="silent"):
        QuickReader().ask(MeasureSpeech(channel=1), path)
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 20_000  # kB


def test_an_answer_and_a_refusal(tmp_path):
    (tmp_path / "voice.wav").write_bytes(VOICE)
    (tmp_path / "none.wav").write_bytes(b"RIFF")
    reader = QuickReader()
    assert reader.ask(MeasureSpeech(channel=1), tmp_path / "voice.wav")["average_dbfs"] == pytest.approx(-23, abs=0.2)
    assert reader.ask(FindClaps(), tmp_path / "voice.wav") == {"claps_s": [], "pictures": None}
    for request, name, says in (
        (MeasureSpeech(channel=2), "voice.wav", "no channel 2"),
        (MeasureSpeech(channel=1), "none.wav", "no recording"),
        (MeasureSpeech(channel=1), "gone.wav", "not here any more"),
    ):
        with pytest.raises(InputError, match=says):
            reader.ask(request, tmp_path / name)


def test_too_many_at_once_are_told(tmp_path, monkeypatch):
    monkeypatch.setattr(quick, "TURN_S", 0.05)
    monkeypatch.setattr(quick, "AT_ONCE", 1)
    (tmp_path / "voice.wav").write_bytes(VOICE)
    reader = QuickReader()
    first = threading.Thread(target=reader.ask, args=(MeasureSpeech(channel=1), tmp_path / "voice.wav"))
    first.start()
    while reader._turn._value:
        pass
    with pytest.raises(BusyError):
        reader.ask(MeasureSpeech(channel=1), tmp_path / "voice.wav")
    first.join()


def test_a_reader_sees_its_folder_alone_and_no_network(tmp_path):
    own, other = tmp_path / "own", tmp_path / "secret"
    own.mkdir()
    other.write_text("secret")
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        listener.listen()
        command = [sys.executable, "-c", LOOK, str(own), str(other), str(listener.getsockname()[1])]
        told = json.loads(subprocess.run(command, capture_output=True, text=True, check=True).stdout)
    files, network = told["holds"]
    assert (told["writes"], told["keeps for a moment"]) == ("done", "done")
    assert told["reads"] == told["writes elsewhere"] == ("PermissionError" if files else "done")
    assert (told["connects"] == "done") == (not network)
