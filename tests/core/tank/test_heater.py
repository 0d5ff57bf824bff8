"""Heat a tank loses, the heater that holds it, and what is left dry."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.tank.heater import SIZES_W, bare, length_cm

TANK = {"glass_m2": 1.2, "surface_m2": 0.3, "water_c": 26, "room_c": 20}


def test_loss_is_glass_and_surface_by_newton_and_the_heater_half_more() -> None:
    answer = compute("heater-size", TANK)
    assert answer.loss_w == pytest.approx((7 * 1.2 + 16 * 0.3) * 6)
    assert answer.asked_w == min(size for size in SIZES_W if size >= 1.5 * answer.loss_w)
    assert answer.kwh_year == pytest.approx(answer.loss_w * 24 * 365.25 / 1000)
    assert compute("heater-size", TANK | {"lid": True}).loss_w == pytest.approx((7 * 1.2 + 7 * 0.3) * 6)


def test_a_heater_one_has_is_enough_from_a_tenth_over_the_loss() -> None:
    loss = compute("heater-size", TANK).loss_w
    assert compute("heater-size", TANK | {"watts": 1.11 * loss}).enough is True
    weak = compute("heater-size", TANK | {"watts": 1.09 * loss})
    assert weak.enough is False
    assert "is too little" in weak.verdict
    assert f"{weak.asked_w:g} W holds it" in weak.verdict


def test_a_large_tank_takes_several_of_the_largest() -> None:
    answer = compute("heater-size", TANK | {"glass_m2": 15, "surface_m2": 5})
    assert answer.heaters_count == 2, answer.verdict
    assert answer.asked_w >= 1.5 * answer.loss_w
    assert answer.verdict.startswith("2 heaters of ")


@pytest.mark.parametrize(("room_c", "words"), [(25.7, "as warm as the water"), (29.0, "a chiller or a cooler room")])
def test_a_warm_room_asks_for_none(room_c: float, words: str) -> None:
    answer = compute("heater-size", TANK | {"room_c": room_c})
    assert (answer.asked_w, answer.heaters_count, answer.enough) == (0, 0, None)
    assert words in answer.verdict


def test_a_heater_is_bare_once_the_level_is_under_its_head() -> None:
    assert length_cm(100) == pytest.approx(26)
    assert not bare(30.0, 40.0, 100)
    assert bare(29.9, 40.0, 100)
    # In shallow water it lies lower.
    assert not bare(17.0, 20.0, 100)
    assert bare(16.9, 20.0, 100)
