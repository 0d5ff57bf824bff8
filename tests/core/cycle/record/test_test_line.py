"""Parser for one line of test results as people jot it: "a 0.5 n 0.25-1 no3 20 ph 7.4 26C"."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


def test_a_jotted_line_is_read() -> None:
    answer = compute("read-test-line", {"text": "a 0.5 n 5+ no3 20 ph 7.4 kh 4 26C"})
    assert (
        answer.ammonia_ppm,
        answer.nitrite_ppm,
        answer.nitrate_ppm,
        answer.ph,
        answer.kh_dkh,
        answer.temperature_c,
    ) == (0.5, 5, 20, 7.4, 4, 26)
    assert answer.off_scale == ["nitrite"]


def test_a_figure_between_two_steps_and_another_kit_are_understood() -> None:
    answer = compute("read-test-line", {"text": "a 0.25-1 n 0.5 to 1, no3 20, other kit"})
    assert (answer.ammonia_ppm, answer.nitrite_ppm, answer.nitrate_ppm) == (0.625, 0.75, 20)
    assert [(b.what, b.low_ppm, b.high_ppm) for b in answer.between] == [("ammonia", 0.25, 1), ("nitrite", 0.5, 1)]
    assert answer.other_kit
    assert answer.verdict == "ammonia 0.25 to 1 ppm, nitrite 0.5 to 1 ppm, nitrate 20 ppm, with another kit"


def test_a_hydrometer_is_read_at_the_warmth_of_the_line() -> None:
    assert compute("read-test-line", {"text": "sg 1.0264"}).salinity_g_kg == pytest.approx(35, abs=0.2)
    cooler = compute("read-test-line", {"text": "sg 1.0264 20C"}).salinity_g_kg
    assert cooler < 34
    assert compute("read-test-line", {"text": "sal 1.5"}).salinity_g_kg == 1.5


@pytest.mark.parametrize("text", ["A 0.5, N 1", "ammonia=0.5 no2:1", "a.5 n1", "nh4 0.5 nitrite 1"])
def test_other_ways_of_jotting_mean_the_same(text: str) -> None:
    answer = compute("read-test-line", {"text": text})
    assert (answer.ammonia_ppm, answer.nitrite_ppm) == (0.5, 1)


def test_fahrenheit_is_understood() -> None:
    assert compute("read-test-line", {"text": "79F"}).temperature_c == pytest.approx(26.111, abs=1e-3)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("hello", "not understood"),
        ("a 1 a 2", "given twice"),
        ("ph 14", "outside 4 to 10"),
        ("x 3", "no name"),
        ("ph 7+", "cannot be off"),
        ("ph 7-8", "is not one figure"),
        ("sal 1.025", "looks like a specific gravity"),
        ("sg 1.3", "outside 0.99 to 1.04"),
        ("sal 35 sg 1.026", "given twice"),
        ("a 1-0.25", "falls"),
        ("a 0.25-", "not understood"),
        ("other kit", "no figure"),
        (",,", "no figure"),
        ("a 1 !!", "not understood"),
    ],
)
def test_a_line_that_cannot_be_read_says_which_piece(text: str, words: str) -> None:
    with pytest.raises(CannotAnswer, match=words):
        compute("read-test-line", {"text": text})
