"""A sump: what it holds, what runs back into it."""

import pytest
from pydantic import ValidationError

from reedmace.core.tank.sump import BELOW_RIM_CM, USUAL_LEVEL_CM, Sump, sump_of_body


def test_held_and_free_water_fill_it_to_two_centimetres_under_its_rim() -> None:
    sump = Sump(length_cm=60, width_cm=40, height_cm=36, level_cm=20)
    assert sump.held_l == pytest.approx(48)
    assert sump.held_l + sump.free_l == pytest.approx(60 * 40 * (36 - BELOW_RIM_CM) / 1000)
    assert Sump(length_cm=60, width_cm=40, height_cm=36, level_cm=34).free_l == 0
    with pytest.raises(ValidationError, match="give at most 34"):
        Sump(length_cm=60, width_cm=40, height_cm=36, level_cm=35)


def test_its_last_chamber_is_one_of_so_many() -> None:
    sump = Sump(length_cm=60, width_cm=40, height_cm=36, chambers=["socks", "media", "return"])
    assert sump.last_chamber_m2 == pytest.approx(0.24 / 3)


def test_one_nobody_measured_stands_at_the_usual_level_or_half_full() -> None:
    assert sump_of_body(60, 40, 60).level_cm == USUAL_LEVEL_CM
    assert sump_of_body(60, 40, 30).level_cm == 15
