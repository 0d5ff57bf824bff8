"""A filter after sickness."""

import pytest

from reedmace.core.computations import compute


def test_the_bath_has_the_chlorine_asked_for() -> None:
    answer = compute("hospital-filter", {"bucket_l": 8, "bleach_percent": 5, "wanted_ppm": 2500})
    # 5 % of available chlorine are 50 g/L.
    assert answer.bleach_ml * 50 / 8 == pytest.approx(2500)
    assert f"{answer.bleach_ml:.0f} mL" in answer.steps[2].detail


def test_the_order_is_apart_wash_soak_rinse_dry_seed_with_its_cautions() -> None:
    steps = compute("hospital-filter", {}).steps
    assert [s.title.split()[0] for s in steps] == ["Take", "Wash", "Soak", "Rinse,", "Dry", "Seed"]
    assert steps[0].caution == "Unplug first."
    assert "Never together with ammonia, acid" in (steps[2].caution or "")
    assert compute("hospital-filter", {"motor": False}).steps[0].caution is None


def test_it_carries_animals_only_once_it_is_seeded_again() -> None:
    answer = compute("hospital-filter", {})
    assert 0 < answer.usable_days < answer.full_days
