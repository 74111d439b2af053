"""What is copied under which name, as a whole or channel by channel."""

from dataclasses import replace

from tests.core.log.test_files_of_takes import TAKES, right
from tests.media.test_day_files import log_of
from tidy_trunk.results.files import copy_orders
from tidy_trunk.results.log import LogOut


def test_each_channel_is_called_by_its_number_and_name():
    log = LogOut.model_validate(log_of(*[(take.number, "09:05:00:00", 80.0) for take in TAKES[:1]]))
    sound, camera = right()[0], right()[3]
    whole = copy_orders([sound, camera], log)
    assert [order.name for order in whole] == ["bag/12C-1.wav", "cam/C0001.mp4"]
    split = copy_orders([replace(sound, channels=2), camera], log, mono=True)
    assert [(order.name, order.channel) for order in split] == [
        ("bag/12C-1_1_Boom.wav", 1),
        ("bag/12C-1_2_Ann.wav", 2),
        ("cam/C0001.mp4", 0),
    ]
    shot = copy_orders([replace(camera, channels=2, rate_hz=48_000)], log, mono=True)
    assert [(order.name, order.channel) for order in shot] == [
        ("cam/C0001.mp4", 0),
        ("cam/C0001_1.WAV", 1),
        ("cam/C0001_2.WAV", 2),
    ]
    assert shot[0].labels is None and shot[1].out_of_movie_bytes > 4 * 48_000
    assert [order.labels.tracks for order in split[:2]] == [((1, "Boom"),), ((1, "Ann"),)]
    assert [order.channel for order in copy_orders([sound], None, mono=True)] == [0], "without a log nothing is touched"
