"""Files that break or hang whoever reads them take nothing with them."""

import os
import time

from tidy_trunk.media.isolation import each_in_a_process


def test_one_that_dies_and_one_that_hangs_are_no_more_than_that():
    def work(item):
        if item == "dies":
            os._exit(3)
        if item == "hangs":
            time.sleep(60)
        return item.upper()

    begin = time.monotonic()
    found = dict(each_in_a_process(["a", "dies", "hangs", "b"], work, longest_s=0.5))
    assert found == {"a": "A", "dies": None, "hangs": None, "b": "B"} and time.monotonic() - begin < 10
