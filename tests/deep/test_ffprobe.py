"""Labels of copies as ffprobe reads them, a program that shares no line with ours."""

import json
import subprocess

from tests.media.test_copying import NEW, OLD
from tests.media.test_day_files import RATE, broadcast
from tidy_trunk.media.copying import CopyOrder, copy_files


def test_labels_of_a_copy_are_read_by_ffprobe(tmp_path):
    card, into = tmp_path / "card", tmp_path / "into"
    card.mkdir()
    (card / "R1.WAV").write_bytes(broadcast(36_000, 2, OLD, day="2000-01-01"))
    copy_files(card, [CopyOrder(path="R1.WAV", name="12C-04.WAV", labels=NEW, date="2026-12-01")], into, None)
    asked = ["ffprobe", "-v", "error", "-of", "json", "-show_format", "-show_streams", str(into / "12C-04.WAV")]
    told = json.loads(subprocess.run(asked, check=True, capture_output=True).stdout)
    assert told["format"]["tags"]["date"] == "2026-12-01"
    assert told["format"]["tags"]["time_reference"] == str(36_000 * RATE)
    (stream,) = told["streams"]
    assert (stream["codec_type"], int(stream["sample_rate"])) == ("audio", RATE)
