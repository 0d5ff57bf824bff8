"""Conditions a plan is checked against: the worst that holds speaks, what does not apply is silent."""

from typing import Any

import pytest

from reedmace.core.cycle.judgement.conditions import CONDITIONS, judge
from reedmace.core.cycle.judgement.plan import CyclePlanQuestion
from reedmace.core.cycle.record.log import CycleLog

USUAL: dict[str, Any] = {"net_l": 100, "temperature_c": 26, "ph": 7.6, "kh_dkh": 6}


def checks(*animals: dict[str, Any], **more: Any) -> dict[str, str]:
    q = CyclePlanQuestion.model_validate(USUAL | more)
    log = CycleLog.model_validate(
        {
            "day_now": 0,
            "net_l": q.net_l,
            "method": q.method,
            "helpers": q.helpers,
            "temperature_c": q.temperature_c,
            "start_ph": q.ph,
            "start_kh_dkh": q.kh_dkh,
            "animals": animals,
        }
    )
    return {one.what: one.level for one in judge(q, log)}


@pytest.mark.parametrize(
    ("what", "more", "level"),
    [
        ("Ammonia", {"ammonia_source": "household-cleaner"}, "first"),
        ("Ammonia", {"ammonia_source": "aquarium-grade"}, "fine"),
        ("Warmth", {"temperature_c": 17}, "first"),
        ("Warmth", {"temperature_c": 23}, "watch"),
        ("Warmth", {"temperature_c": 27}, "fine"),
        ("pH", {"ph": 5.9}, "first"),
        ("pH", {"ph": 6.7}, "watch"),
        ("pH", {"ph": 8.6}, "watch"),
        ("pH", {"ph": 7.6}, "fine"),
        ("KH", {"kh_dkh": 0.5}, "first"),
        ("KH", {"kh_dkh": 3}, "watch"),
        ("KH", {"kh_dkh": 6}, "fine"),
        ("Phosphate", {"phosphate_ppm": 0}, "watch"),
        ("Phosphate", {"phosphate_ppm": 0.5}, "fine"),
        ("Tap: chlorine", {"tap": {"chlorine": "none"}}, "fine"),
        ("Tap: chlorine", {"tap": {"chlorine": "unknown"}}, "watch"),
        ("Tap: ammonia", {"tap": {"ammonia_mg_n_l": 0.5}}, "watch"),
        ("Tap: nitrate", {"tap": {"nitrate_mg_n_l": 9}}, "watch"),
        ("Bottled culture", {"helpers": ["bottled-culture"]}, "fine"),
        ("Bottled culture", {"helpers": ["bottled-culture"], "temperature_c": 20}, "watch"),
    ],
)
def test_each_condition_has_its_levels(what: str, more: dict[str, Any], level: str) -> None:
    assert checks(**more)[what] == level


@pytest.mark.parametrize("what", ["Phosphate", "Tap: ammonia", "Tap: nitrate", "Bottled culture"])
def test_what_does_not_apply_is_left_out(what: str) -> None:
    assert what not in checks(tap={"chlorine": "none"})


def test_no_soda_is_asked_for_animals_of_soft_water() -> None:
    assert checks({"species_id": "crystal-shrimp", "count": 10}, kh_dkh=0.5)["KH"] == "fine"


def test_every_row_ends_in_a_case_that_always_holds() -> None:
    q = CyclePlanQuestion.model_validate(USUAL)
    log = CycleLog(day_now=0, net_l=100)
    for row in CONDITIONS:
        assert any(case.holds(q, log) for case in row.cases), row.what
