"""Net water volume, depth and filled mass of a tank."""

import math

import numpy as np
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


def tank(**changes):
    return compute("tank-volume", {"length_cm": 80, "width_cm": 35, "height_cm": 45, "glass_mm": 8, **changes})


def counted_area(inside, length: float, width: float) -> float:
    """Area in cm² by counting squares of a millimetre or so: as independent as it gets."""
    x, y = np.meshgrid(np.linspace(-length, length, 2401), np.linspace(-width, width, 2401))
    return float(np.mean(inside(x, y)) * 4 * length * width)


def test_a_cylinder_a_prism_a_bow_front_and_a_corner_hold_what_counting_squares_says() -> None:
    g = 0.8
    cases = {
        "cylinder": ({"shape": "cylinder", "length_cm": 60}, lambda x, y: x**2 + y**2 <= (30 - g) ** 2),
        "hexagon": (
            {"shape": "prism", "length_cm": 60, "sides_count": 6},
            lambda x, y: np.all(
                [x * math.cos(a) + y * math.sin(a) <= 30 - g for a in np.arange(6) * math.pi / 3], axis=0
            ),
        ),
        "corner": (
            {"shape": "corner", "length_cm": 60},
            lambda x, y: (x >= g) & (y >= g) & (x**2 + y**2 <= (60 - g) ** 2),
        ),
        "bow-front": (
            {"shape": "bow-front", "length_cm": 80, "width_cm": 30, "bow_cm": 10},
            # The arc through (±40, 30) and (0, 40): radius 85, middle at y = -45.
            lambda x, y: (np.abs(x) <= 40 - g) & (y >= g) & (x**2 + (y + 45) ** 2 <= (85 - g) ** 2),
        ),
    }
    for name, (shape, inside) in cases.items():
        answer = tank(**shape, fill_below_rim_cm=0)
        assert answer.surface_cm2 == pytest.approx(counted_area(inside, 62, 62), rel=3e-3), name
        assert answer.net_l == pytest.approx(answer.surface_cm2 * 44.2 / 1000), name


def test_a_prism_of_four_sides_is_a_box_and_many_sides_a_cylinder() -> None:
    box, square = tank(length_cm=50, width_cm=50), tank(shape="prism", length_cm=50, sides_count=4)
    assert square.net_l == pytest.approx(box.net_l)
    round_, many = tank(shape="cylinder", length_cm=50), tank(shape="prism", length_cm=50, sides_count=12)
    assert round_.net_l < many.net_l < 1.03 * round_.net_l


def test_a_counted_fill_beats_the_estimate_and_says_so() -> None:
    answer = tank(counted_l=88, stone_kg=10)
    assert answer.net_l == 88
    assert any(line.source == "keeper" and line.value == 88 for line in answer.working)
    with pytest.raises(CannotAnswer, match="the glass holds"):
        tank(counted_l=900)


def test_a_bow_deeper_than_a_half_circle_is_refused_with_its_limit() -> None:
    with pytest.raises(CannotAnswer, match="at most 40 cm"):
        tank(shape="bow-front", bow_cm=60)


@given(st.sampled_from(["box", "bow-front", "cylinder", "prism", "corner"]), st.floats(30, 200), st.floats(4, 12))
def test_thicker_glass_never_holds_more_and_inside_sizes_hold_more_than_outside(shape, length, glass) -> None:
    at = {"shape": shape, "length_cm": length, "bow_cm": 5}
    thin, thick = tank(**at, glass_mm=glass), tank(**at, glass_mm=glass + 2)
    assert thick.net_l < thin.net_l < tank(**at, glass_mm=glass, measured="inside").net_l
    assert thin.footprint_cm2 >= thin.surface_cm2
