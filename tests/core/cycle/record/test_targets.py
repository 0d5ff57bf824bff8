"""Water a tank is held at: its animals' tolerance, and KH for the film."""

import pytest

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.targets import breathe_water_share, held_kh_dkh, targets_of, tolerance_of


def log(*species: str, salinity: float = 0.0) -> CycleLog:
    return CycleLog.model_validate(
        {
            "day_now": 10,
            "net_l": 100,
            "salinity_g_kg": salinity,
            "animals": [{"species_id": one, "count": 6} for one in species],
        }
    )


def test_several_kinds_share_the_narrowest_range() -> None:
    one, other = tolerance_of(log("neon-tetra")), tolerance_of(log("zebra-danio"))
    both = tolerance_of(log("neon-tetra", "zebra-danio"))
    assert both.low_c == max(one.low_c or 0, other.low_c or 0)
    assert both.high_c == min(one.high_c or 99, other.high_c or 99)
    assert both.ph_low == max(one.ph_low or 0, other.ph_low or 0)
    nobody = tolerance_of(log())
    assert (nobody.low_c, nobody.high_c, nobody.ph_low, nobody.ph_high) == (None, None, None, None)


def test_soda_is_asked_for_the_film_but_never_for_animals_of_soft_water() -> None:
    usual, salt = targets_of(log("zebra-danio")), targets_of(log(salinity=35))
    assert (usual.kh_low_dkh, usual.kh_target_dkh) == held_kh_dkh(0)
    assert (salt.kh_low_dkh, salt.kh_target_dkh) == held_kh_dkh(35)
    assert salt.kh_low_dkh > usual.kh_low_dkh
    soft = targets_of(log("crystal-shrimp"))
    assert soft.soft
    assert (soft.kh_low_dkh, soft.kh_target_dkh) == (0, 0)
    assert soft.ph_low < usual.ph_low


def test_whoever_needs_the_water_most_counts_for_breath() -> None:
    assert breathe_water_share(log()) == 1
    assert breathe_water_share(log("betta")) < 1
    assert breathe_water_share(log("betta", "neon-tetra")) == pytest.approx(1)
