"""Readiness of a cycle for animals, by every standard in use, with what is missing."""

from typing import Any

import pytest

from tests.support.cycle_logs import CLEARED, advice, reading, ready


def test_two_doses_gone_in_a_day_are_ready() -> None:
    answer = ready(CLEARED)
    assert answer.ready
    assert answer.verdict.startswith("Ready, by the load-matched standard")
    first = advice(CLEARED)
    assert first.first.do == "change-water"
    assert first.then[0].do == "add-animals"
    # The large change is sized to bring nitrate from 45 to 20 ppm, and never under 60 %.
    assert first.first.amount == pytest.approx(60)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"readings": []}, "no ammonia test"),
        ({"readings": [{**r, "nitrite_mg_n_l": None} for r in CLEARED["readings"]]}, "no nitrite test"),
        ({"readings": CLEARED["readings"][:2], "day_now": 39.2, "doses": CLEARED["doses"][:-1]}, "one more dose"),
        ({"day_now": 47}, "7 days old"),
        ({"readings": [*CLEARED["readings"][:3], reading(40, 0, 0.5)]}, "nitrite still reads"),
        (
            {"readings": [*CLEARED["readings"][:3], {**CLEARED["readings"][3], "off_scale": ["nitrate", "nitrite"]}]},
            "one more dose",
        ),
        ({"planned_load_mg_n_l_day": 2.0}, "two doses of 3.1 ppm"),
    ],
    ids=[
        "no tests",
        "no nitrite",
        "one zero is not enough",
        "stale",
        "nitrite left",
        "off the scale never counts",
        "a heavier stock asks more",
    ],
)
def test_not_yet_says_why(change: dict, words: str) -> None:
    answer = ready({**CLEARED, **change})
    assert not answer.ready
    assert answer.verdict.startswith("Not yet, because ")
    assert any(words in m for m in answer.missing)


def test_standards_disagree_side_by_side() -> None:
    standards = {s.standard: s for s in ready(CLEARED).standards}
    assert standards["load-matched"].passes
    assert not standards["two-ppm"].passes
    assert standards["load-matched"].followed


def test_a_moved_filter_needs_seven_days_of_zeros_with_nitrate_rising() -> None:
    log: dict[str, Any] = {
        "net_l": 100,
        "day_now": 8.1,
        "method": "seeded-filter",
        "readings": [reading(d, 0, 0, 5 if d < 5 else 10) for d in range(1, 9)],
    }
    assert ready(log, "seeded").ready
    assert not ready({**log, "readings": log["readings"][3:]}, "seeded").ready
    # One dose that was never cleared in a day takes nothing from a week of zeros.
    assert ready({**log, "doses": [{"day": 0.2, "raise_mg_n_l": 0.3}]}, None).standards[-1].followed
