"""Days to a wash of a sump's socks."""

import math

import pytest

from reedmace.core.computations import compute

DRAIN = {"return_lph": 2000, "feed_g_day": 3}


def test_one_sock_of_the_usual_size_lasts_the_usual_days() -> None:
    answer = compute("sock-days", DRAIN)
    assert answer.by == "dirt"
    assert 3 <= answer.wash_days <= 7
    assert answer.cloth_cm2 == pytest.approx(math.pi * 18 * 40 * 0.6)


def test_twice_the_cloth_lasts_four_times_as_long_until_slime_closes_it() -> None:
    small = {**DRAIN, "feed_g_day": 20}
    one, two = (compute("sock-days", small | {"socks_count": n}).wash_days for n in (1, 2))
    assert two == pytest.approx(4 * one)
    many = compute("sock-days", DRAIN | {"socks_count": 6})
    assert (many.wash_days, many.by) == (10, "slime")


def test_without_food_only_slime_closes_it_and_with_far_too_much_it_is_told() -> None:
    assert compute("sock-days", DRAIN | {"feed_g_day": 0}).by == "slime"
    flood = compute("sock-days", {"return_lph": 12000, "feed_g_day": 60})
    assert flood.wash_days >= 0.05
    assert flood.verdict.startswith("The water runs over the rim within a day")
