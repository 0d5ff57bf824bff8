"""Net water volume, depth and filled mass of a tank."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


def test_a_bare_glass_box_holds_length_times_width_times_depth() -> None:
    # 60 × 30 × 36 outside in 6 mm glass: 58.8 × 28.8 × (36 − 0.6 − 3) = 54.868 L.
    answer = compute(
        "tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, "glass_mm": 6, "fill_below_rim_cm": 3}
    )
    assert answer.net_l == pytest.approx(58.8 * 28.8 * 32.4 / 1000)
    assert answer.net_us_gal == pytest.approx(answer.net_l / 3.785411784)
    assert answer.water_depth_cm == pytest.approx(32.4)


def test_inside_sizes_take_no_glass_off() -> None:
    answer = compute(
        "tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, "measured": "inside", "fill_below_rim_cm": 0}
    )
    assert answer.net_l == pytest.approx(64.8)
    assert answer.gross_l == pytest.approx(64.8)


def test_substrate_stone_and_wood_displace_only_their_solid_part() -> None:
    bare = {"length_cm": 100, "width_cm": 50, "height_cm": 50, "measured": "inside", "fill_below_rim_cm": 0}
    full = compute("tank-volume", {**bare, "substrate_depth_cm": 5, "stone_kg": 26, "wood_kg": 1.1})
    assert full.net_l == pytest.approx(250 - 25 * 0.6 - 10 - 1)
    # Water 224, grains 15 L × 2.65, 27.1 kg of scape, and the glass.
    glass_l = (101.2 * 51.2 * 50.6 - 100 * 50 * 50) / 1000
    assert full.filled_kg == pytest.approx(224 + 15 * 2.65 + 27.1 + glass_l * 2.5)


def test_water_in_a_canister_is_dosed_too() -> None:
    base = {"length_cm": 60, "width_cm": 30, "height_cm": 36}
    assert compute("tank-volume", {**base, "water_outside_l": 4}).net_l == pytest.approx(
        compute("tank-volume", base).net_l + 4
    )


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"glass_mm": 50, "length_cm": 9}, "glass_mm"),
        ({"fill_below_rim_cm": 40}, "fill_below_rim_cm"),
        ({"substrate_depth_cm": 35}, "substrate_depth_cm"),
        ({"stone_kg": 400}, "stone_kg"),
    ],
    ids=["all glass", "filled below the base", "substrate over the water", "more stone than room"],
)
def test_a_tank_without_water_is_refused_at_the_field_to_blame(change: dict, where: str) -> None:
    with pytest.raises(CannotAnswer) as caught:
        compute("tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36, **change})
    assert caught.value.where == where
    assert caught.value.remedy


@given(st.floats(20, 400), st.floats(20, 200), st.floats(20, 150), st.floats(0, 10), st.floats(0, 8))
def test_more_substrate_never_holds_more_water(
    length: float, width: float, height: float, fill: float, substrate: float
) -> None:
    base = {"length_cm": length, "width_cm": width, "height_cm": height, "glass_mm": 5, "fill_below_rim_cm": fill}
    less, more = (compute("tank-volume", {**base, "substrate_depth_cm": s}).net_l for s in (substrate / 2, substrate))
    assert 0 < more <= less <= length * width * height / 1000
