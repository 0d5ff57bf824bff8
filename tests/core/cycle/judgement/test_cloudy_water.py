"""Cloudy water: dirt, bacterial bloom or ammonia. Testing comes first, and waiting usually solves it."""

import pytest

from reedmace.core.computations import compute


def cloud(**more):
    return compute("cloudy-water", more)


@pytest.mark.parametrize(
    ("seen", "cause"),
    [
        ({"colour": "white", "age_days": 6, "settles_in_glass": False}, "bloom"),
        ({"colour": "grey-brown", "age_days": 1, "after": "new-gravel", "settles_in_glass": True}, "dust"),
        ({"colour": "green", "age_days": 90}, "algae"),
        ({"colour": "tea"}, "tannin"),
        ({"after": "bicarbonate", "age_days": 90}, "precipitate"),
        ({"after": "feeding", "age_days": 200, "animals_in": True}, "overfeeding"),
        ({"bubbles": True, "age_days": 200}, "air"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_cloud_is_told_apart(seen: dict, cause: str) -> None:
    assert cloud(**seen).suspects[0].cause == cause


def test_cloudy_water_starts_with_tests_ends_with_waiting_and_never_adds_a_filter() -> None:
    answer = cloud(age_days=5)
    assert answer.steps[0].title == "Test ammonia and nitrite"
    assert answer.steps[-1].title == "Wait"
    assert any("another filter" in line for line in answer.leave)
    tested = cloud(age_days=5, ammonia_mg_n_l=0.0, nitrite_mg_n_l=0.0)
    assert all("Test" not in s.title for s in tested.steps)
    poisoned = cloud(animals_in=True, ammonia_mg_n_l=1.0, nitrite_mg_n_l=0.0)
    assert "not the cloud" in poisoned.steps[0].title
