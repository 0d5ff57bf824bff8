"""Everyday actions of a cycle, in their order."""

from typing import Any

import pytest

from reedmace.core.computations import compute
from tests.support.cycle_logs import CLEARED, STALLED, TWO_PPM, advice, reading
from tests.support.cycling import NA


def test_a_stalled_soft_tank_is_told_to_add_bicarbonate_in_grams() -> None:
    answer = advice(STALLED)
    assert answer.stalled
    assert answer.first.do == "raise-kh"
    # Half of (4 − 0.6) dKH now × 242 L × 0.02996 g.
    assert answer.first.amount == pytest.approx(1.7 * 242 * 17.85 * 84.007 / 50.043 / 1000, rel=1e-6)
    assert answer.first.raise_dkh == pytest.approx(1.7)
    assert "to 4 dKH, twelve hours on" in answer.first.detail
    assert any("Alkalinity" in c.title for c in answer.causes)
    assert any("Warmth" in c.title for c in answer.ruled_out)
    assert [a.do for a in answer.then] == ["wait", "dilute-test", "test"]


def test_the_second_half_of_the_bicarbonate_is_asked_for_when_its_time_comes() -> None:
    begun: dict[str, Any] = {**STALLED, "alkalinity": [{"day": 16.05, "raise_dkh": 1.7}]}
    now = next(a for a in advice(begun).then if a.do == "raise-kh")
    assert now.when == "tonight"
    assert now.raise_dkh == pytest.approx(1.7, abs=0.1)
    later = advice({**begun, "day_now": 16.6})
    assert next(a for a in [later.first, *later.then] if a.do == "raise-kh").when == "now"
    done = {**begun, "day_now": 16.7, "alkalinity": [*begun["alkalinity"], {"day": 16.6, "raise_dkh": 1.75}]}
    assert all(a.do != "raise-kh" for a in [advice(done).first, *advice(done).then])


def test_bicarbonate_just_added_is_not_asked_for_again() -> None:
    answer = advice({**STALLED, "alkalinity": [{"day": 16.05, "raise_dkh": 3.4}]})
    assert answer.first.do != "raise-kh"
    assert all(a.do != "raise-kh" for a in answer.then)


@pytest.mark.parametrize(
    ("change", "does"),
    [
        ({"day_now": 0, "readings": [], "doses": []}, "test"),
        ({"day_now": 5, "readings": [reading(4.9, 0.5, 0.5, kh_dkh=5, ph=7.5)]}, "dose-ammonia"),
        ({"day_now": 8, "readings": [reading(4, 1, 0.5, kh_dkh=5)]}, "test"),
        ({"day_now": 9, "readings": [reading(8.9, 8, 0, kh_dkh=6, ph=7.5)]}, "change-water"),
        ({"day_now": 9, "readings": [reading(8.9, 1, 0, kh_dkh=6, ph=7.5, temperature_c=18)]}, "warm"),
        ({"day_now": 9, "readings": [reading(8.9, 0, 5, kh_dkh=6, ph=7.5)]}, "stop-dosing"),
        ({"day_now": 9, "filter_running": False, "readings": [reading(8.9, 1, 1, kh_dkh=6)]}, "start-filter"),
    ],
    ids=["nothing known", "ammonia used up", "old test", "too much ammonia", "cold", "nitrite high", "filter off"],
)
def test_the_first_action_fits_the_state(change: dict, does: str) -> None:
    assert advice({**TWO_PPM, **change}).first.do == does


@pytest.mark.parametrize(
    ("changes", "nitrate", "does", "share"),
    [
        ([], 40, "change-water", 0.6),
        ([0.3], 40, "change-water", 1 - 0.4 / 0.7),
        ([0.6], 40, "add-animals", None),
        ([0.3, 0.43], 40, "add-animals", None),
        ([0.6], 200, "change-water", 0.75),
    ],
    ids=["none yet", "half of it", "all at once", "in two", "still too much nitrate"],
)
def test_the_final_change_is_asked_for_once_and_what_is_left_of_it(
    changes: list[float], nitrate: float, does: str, share: float | None
) -> None:
    when = max(d["day"] for d in CLEARED["doses"]) + 1.05
    readings = [{**r, "nitrate_mg_n_l": nitrate * NA} if "nitrate_mg_n_l" in r else r for r in CLEARED["readings"]]
    log = {
        **CLEARED,
        "readings": readings,
        "changes": [{"day": when + n / 100, "share": s} for n, s in enumerate(changes)],
    }
    first = compute("cycle-advice", {"log": {**log, "day_now": when + 0.1}}).first
    assert first.do == does
    assert first.when == "now"
    if share is not None:
        assert first.amount == pytest.approx(share * CLEARED["net_l"], rel=0.02)
