"""Flow where no outlet can be caught: a float or dye over a marked distance, or the fill time of a hang-on."""

import math

import pytest

from reedmace.core.computations import compute


def test_a_float_over_a_marked_way_is_continuity() -> None:
    answer = compute("flow-transit", {"way_cm": 50, "times_s": [1, 1, 1], "bore_mm": 16})
    assert answer.measured_lph == pytest.approx(0.8 * 50 * math.pi / 4 * 1.6**2 * 3.6)
    assert answer.plus_minus_lph == pytest.approx(0.15 * answer.measured_lph)


def test_the_level_in_a_box_is_volume_over_time() -> None:
    answer = compute("level-drop", {"area_cm2": 120, "rise_cm": 5, "times_s": [3, 3]})
    assert answer.measured_lph == pytest.approx(120 * 5 / 3 * 3.6)
    assert compute("level-drop", {"area_cm2": 120, "rise_cm": 5, "times_s": [3]}).plus_minus_lph is None
