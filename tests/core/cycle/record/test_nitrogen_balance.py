"""Nitrogen added against nitrogen found."""

import pytest

from reedmace.core.computations import compute
from tests.support.cycling import A


def balance(log: dict):
    return compute("nitrogen-balance", {"log": {"net_l": 100, "day_now": 20, **log}})


def test_the_books_close_when_what_was_dosed_is_found() -> None:
    doses = [{"day": 0, "raise_mg_n_l": 1.5}, {"day": 8, "raise_mg_n_l": 1.5}]
    answer = balance(
        {"doses": doses, "readings": [{"day": 19, "ammonia_mg_n_l": 0.2, "nitrite_mg_n_l": 1.0, "nitrate_mg_n_l": 1.9}]}
    )
    assert answer.meaning == "closes"
    assert answer.expected_mg_n_l == pytest.approx(3.0)
    # 3 mg N/L can make 13.3 ppm of nitrate at most.
    assert answer.most_nitrate_ppm == pytest.approx(3 * 4.4268, rel=1e-3)


def test_two_ppm_of_ammonia_gives_at_most_seven_of_nitrate() -> None:
    # Common practice: 2 mg/L ammonia gives at most 7 to 9 mg/L nitrate (7 if read as NH4, 7.3 as NH3).
    assert 6.5 <= balance({"doses": [{"day": 0, "raise_mg_n_l": 2 * A}]}).most_nitrate_ppm <= 9


@pytest.mark.parametrize(
    ("found", "change", "meaning", "words"),
    [
        (0.3, {"plants": "many"}, "missing", "plants"),
        (0.3, {}, "missing", "shaken"),
        (12.0, {}, "too-much", "nitrite reading as nitrate"),
    ],
)
def test_a_gap_in_the_books_means_something(found: float, change: dict, meaning: str, words: str) -> None:
    readings = [{"day": 19, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": found}]
    answer = balance({"doses": [{"day": 0, "raise_mg_n_l": 4}], "readings": readings, **change})
    assert answer.meaning == meaning
    assert words in answer.verdict


def test_changes_and_tap_are_in_the_books() -> None:
    answer = balance(
        {
            "doses": [{"day": 0, "raise_mg_n_l": 4}],
            "changes": [{"day": 10, "share": 0.5}],
            "tap": {"nitrate_mg_n_l": 1},
            "readings": [{"day": 19, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": 3}],
        }
    )
    assert answer.expected_mg_n_l == pytest.approx((1 + 4) * 0.5 + 0.5)
    assert answer.meaning == "closes"
