"""A-weighting against the table of IEC 61672-1 (values from memory), whose frequencies are powers of a tenth of ten."""

import pytest

from tidy_trunk.core.base.units import SILENCE_DB, a_weighting_db

TABLE = {
    20: -50.5, 25: -44.7, 31.5: -39.4, 40: -34.6, 50: -30.2, 63: -26.2, 80: -22.5, 100: -19.1, 125: -16.1, 160: -13.4,
    200: -10.9, 250: -8.6, 315: -6.6, 400: -4.8, 500: -3.2, 630: -1.9, 800: -0.8, 1000: 0.0, 1250: 0.6, 1600: 1.0,
    2000: 1.2, 2500: 1.3, 3150: 1.2, 4000: 1.0, 5000: 0.5, 6300: -0.1, 8000: -1.1, 10000: -2.5, 12500: -4.3, 16000: -6.6,
    20000: -9.3,
}  # fmt: skip


@pytest.mark.parametrize(("number", "decibels"), list(zip(range(13, 44), TABLE.values(), strict=True)))
def test_the_table_of_the_standard(number, decibels):
    assert a_weighting_db(10 ** (number / 10)) == pytest.approx(decibels, abs=0.06)


def test_nothing_is_heard_of_direct_current():
    assert a_weighting_db(0) == SILENCE_DB
