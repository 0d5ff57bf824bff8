"""Check of a cycle plan before anything is dosed: conditions, temperature steps, alkalinity."""

import pytest

from reedmace.core.computations import compute


def plan(**more):
    return compute("cycle-plan", {"net_l": 100, **more})


@pytest.mark.parametrize(
    ("change", "what", "level"),
    [
        ({"ammonia_source": "household-cleaner"}, "Ammonia", "first"),
        ({"ammonia_source": "unknown"}, "Ammonia", "watch"),
        ({"temperature_c": 15}, "Warmth", "first"),
        ({"ph": 6.3}, "pH", "first"),
        ({"ph": 8.8}, "pH", "watch"),
        ({"kh_dkh": 0.5}, "KH", "first"),
        ({"kh_dkh": 3}, "KH", "watch"),
        ({"phosphate_ppm": 0}, "Phosphate", "watch"),
        ({"tap": {"chlorine": "chloramine"}}, "Tap: chlorine", "watch"),
        ({"tap": {"chlorine": "none"}}, "Tap: chlorine", "fine"),
        ({"tap": {"ammonia_mg_n_l": 0.5}}, "Tap: ammonia", "watch"),
        ({"tap": {"nitrate_mg_n_l": 9}}, "Tap: nitrate", "watch"),
        ({"helpers": ["bottled-culture"], "ph": 6.9}, "Bottled culture", "watch"),
        ({"helpers": ["bottled-culture"], "ph": 7.6}, "Bottled culture", "fine"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_the_tanks_own_conditions_are_judged(change: dict, what: str, level: str) -> None:
    found = {c.what: c for c in plan(**change).conditions}[what]
    assert found.level == level
    assert bool(found.remedy) == (level != "fine")


def test_a_cleaner_is_never_let_pass() -> None:
    answer = plan(ammonia_source="household-cleaner")
    assert answer.verdict.startswith("Put right first: Never a household cleaner")
    assert "bleach" in answer.conditions[0].remedy


def test_the_alkalinity_the_plan_will_eat_is_the_nitrogen_times_its_factor() -> None:
    answer = plan(kh_dkh=3, planned_load_mg_n_l_day=1.2)
    assert answer.kh_eaten_dkh == pytest.approx(7.14 * answer.nitrogen_mg_n_l / 17.85)
    assert answer.kh_eaten_dkh > 3
    # What is short, as bicarbonate: 3.0 g to the dKH in 100 L (common practice, and the masses).
    assert answer.bicarbonate_g == pytest.approx(3.0 * answer.kh_short_dkh, rel=0.01)
    assert 5 < answer.kh_gone_day < 60
    assert plan(kh_dkh=15).kh_gone_day is None


def test_heat_goes_up_while_empty_and_down_before_the_animals() -> None:
    up, down = plan(temperature_c=22, animals_low_c=22, animals_high_c=25).heat
    assert (up.to_c, up.days) == (28, 3)
    assert down.to_c == 23.5
    assert down.days == pytest.approx(3)
    assert plan(method="animals-in").heat == []


def test_a_bottles_own_label_is_its_window() -> None:
    cold = {"helpers": ["bottled-culture"], "temperature_c": 21, "ph": 7.0}
    assert {c.what: c for c in plan(**cold).conditions}["Bottled culture"].level == "watch"
    label = {"low_c": 18, "high_c": 30, "ph_low": 6.5, "ph_high": 8}
    assert {c.what: c for c in plan(**cold, bottle=label).conditions}["Bottled culture"].level == "fine"
