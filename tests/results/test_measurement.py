"""What is kept of a measured recording, read again."""

import pytest

from tests.sounds import measured, noise
from tidy_trunk.core.base.signal import NoiseFrom
from tidy_trunk.results.measurement import ChannelOut


@pytest.mark.parametrize(("then", "today"), [("in the pauses", NoiseFrom.PAUSES), ("under the tone", NoiseFrom.TONE)])
def test_where_noise_was_found_is_read_as_earlier_versions_kept_it(then, today):
    kept = ChannelOut.from_core(measured(noise(-60, 4)).channels[0], 48_000).model_dump(mode="json")
    again = ChannelOut(**{**kept, "noise_floor_from": then})
    assert again.noise_floor_from is today and again.noise_words == then
