"""What a worker is asked for, read back: what earlier versions wrote too."""

import json

import pytest

from tidy_trunk.tasks.requests import LookAt, Match, Measure, request_document, request_of

FILE = {"id": "a", "name": "a.wav", "side": "camera", "path": "/kept/a", "facts": {"seconds": 2.0}}


@pytest.mark.parametrize(
    "request_",
    [
        Measure(),
        Measure(track="cam.L", settings=(0.0, 3.0), target_dbfs=-20.0, keep=True, shown=(-24.5,)),
        LookAt(side="recorder"),
        Match(files=(FILE,), by_hand=({"other": "b"},)),
    ],
)
def test_it_is_read_as_it_was_written(request_):
    assert request_of(json.loads(json.dumps(request_document(request_)))) == request_


@pytest.mark.parametrize(
    ("written", "is_read_as"),
    [
        ({"track": "cam.L", "settings": [], "target_dbfs": None, "keep": False}, Measure(track="cam.L")),
        (
            {"track": "cam.L", "bench": True, "run": "run-1", "way": "trim", "shown": [-20.0]},
            Measure(track="cam.L", simulated=True, run="run-1", option="trim", shown=(-20.0,)),
        ),
        ({"kind": "measure", "bench": True}, Measure(simulated=True)),
        ({"sync": "camera", "keep": True}, LookAt(side="camera")),
        (
            {"sync": "match", "match": [FILE], "by_hand": [], "nudged": [{"other": "b"}]},
            Match(files=(FILE,), nudged=({"other": "b"},)),
        ),
    ],
)
def test_what_earlier_versions_wrote(written, is_read_as):
    assert request_of(written) == is_read_as


def test_a_kept_sound_is_that_of_a_file_to_sync_or_what_was_ticked():
    assert LookAt(side="camera").keep and Measure(keep=True).keep
    assert not Measure().keep and not Match(files=()).keep
