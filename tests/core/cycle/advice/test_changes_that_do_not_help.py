"""Days of changes that bring no poison down: the tap itself may bring it, so the tap is tested."""

import pytest

from reedmace.core.computations import compute


def actions_of(share: float, ammonia: list[float]) -> list[str]:
    """Advice on the last day. share: changed each day; ammonia: read each morning, mg N/L."""
    last = len(ammonia) - 1
    log = {
        "net_l": 40,
        "day_now": last,
        "method": "animals-in",
        "start_kh_dkh": 4,
        "stocked_day": 0,
        "present": [{"species_id": "zebra-danio", "count": 2}],
        "readings": [{"day": n, "ammonia_mg_n_l": a, "ph": 7.8, "kh_dkh": 5} for n, a in enumerate(ammonia)],
        "changes": [{"day": n + 0.03, "share": share} for n in range(last)],
    }
    answer = compute("cycle-advice", {"log": log})
    return [a.do for a in (answer.first, *answer.then)]


@pytest.mark.parametrize("share", [0.22, 1 / 3, 0.5])
def test_ammonia_that_stands_as_high_after_days_of_changes_has_the_tap_tested(share: float) -> None:
    assert "test-tap" in actions_of(share, [0.78] * 5)


def test_ammonia_that_falls_with_the_changes_is_left_to_them() -> None:
    assert "test-tap" not in actions_of(1 / 3, [1.5, 1.2, 0.95, 0.75, 0.6])


def test_a_cupful_a_day_proves_nothing() -> None:
    assert "test-tap" not in actions_of(0.05, [0.78] * 5)
