"""How the forecast changed, test by test."""

from typing import Any

from reedmace.core.computations import compute
from tests.support.cycle_logs import reading
from tests.support.cycling import A


def test_the_forecast_says_how_it_moved_since_last_week() -> None:
    base: dict[str, Any] = {
        "net_l": 130,
        "day_now": 20,
        "start_kh_dkh": 8,
        "readings": [reading(3, 2, 0), reading(6, 1, 0.5), reading(10, 0.25, 4), reading(13, 0, 5)],
        "doses": [{"day": 0, "raise_mg_n_l": 2 * A}, {"day": 10.5, "raise_mg_n_l": A}],
    }
    quick = {**base, "readings": [*base["readings"], reading(16, 0, 0.5, 30), reading(19, 0, 0, 35)]}
    slow = {**base, "readings": [*base["readings"], reading(16, 1, 5), reading(19, 1, 5)]}
    earlier, later = (compute("cycle-history", {"log": log, "draws": 1000}) for log in (quick, slow))
    assert earlier.moved_days < -1
    assert "nearer" in earlier.verdict
    assert later.moved_days > earlier.moved_days + 3
    assert [s.on_day for s in later.seen] == [6, 13, 20]


def test_a_young_cycle_has_not_moved_yet() -> None:
    answer = compute("cycle-history", {"log": {"net_l": 100, "day_now": 4}, "draws": 50})
    assert answer.moved_days is None
    assert "not a week old" in answer.verdict
