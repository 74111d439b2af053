"""What is said of recordings: one of each shape of sentence, the numbers by hand beside it."""

import numpy as np
import pytest

from tests.sounds import measured, noise, sine, voice
from tidy_trunk.core.base.signal import meanings
from tidy_trunk.words import heard

TONE = sine(1000, -20, 3)
LOUD = np.clip(sine(1000, 3, 3), -1, 1)
VOICE = voice(-20, 4)

SAID = {
    "silence": ((np.zeros(96_000),), "The recording is silent: nothing arrives, not even noise."),
    "tone": ((TONE,), "The recording holds a tone of 1000.0 Hz at −20.0 dBFS"),  # AES17: a full sine is 0 dBFS
    "clipping": ((LOUD,), "The recording is cut off in "),
    "dc": ((VOICE + 0.05,), "The recording has DC of −26.0 dBFS: it clicks at every cut."),  # 20 log 0.05
    "no-voice": ((noise(-30, 4),), "The recording holds nothing but noise, at −30.0 dBFS: no voice came through."),
    "polarity": ((VOICE, -VOICE), "Channels 1 and 2 are the same sound in opposite polarity: in mono they cancel."),
    "dead-side": ((VOICE, VOICE * 0.001), "Channel 2 peaks at "),
}


@pytest.mark.parametrize("what", SAID)
def test_what_is_said_of_a_recording(what):
    waves, begins = SAID[what]
    found = measured(*waves)
    said = [heard(item, found) for item in meanings(found) if item.what == what]
    assert len(said) == 1 and said[0].startswith(begins), said
