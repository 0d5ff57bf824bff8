"""A tap that brings more ammonia than animals bear: other water, also where it would drip in and in salt water."""

from typing import Any

from reedmace.core.computations import compute


def first_of(**more: Any) -> tuple[Any, list[Any]]:
    """First action, and all for now, of a tank with animals from the first day."""
    log = {
        "net_l": 100,
        "day_now": 24.1,
        "method": "animals-in",
        "stocked_day": 0.0,
        "animals_in_mg_n_l_day": 0.05,
        "present": [{"species_id": "zebra-danio", "count": 6}],
        **more,
    }
    answer: Any = compute("cycle-advice", {"log": log})
    return answer.first, [a for a in [answer.first, *answer.then] if a.when == "now"]


def read(day: float, **more: float) -> dict[str, float]:
    return {"day": day, "ammonia_mg_n_l": 0.78, "nitrite_mg_n_l": 0.3, "ph": 9.0, "kh_dkh": 1, **more}


HARD = {"ph": 8.4, "kh_dkh": 16}


def test_where_no_bucket_may_go_in_a_third_drips_in_and_counts_as_a_change() -> None:
    _, now = first_of(readings=[read(24)], tap=HARD)
    drip = next(a for a in now if a.do == "change-water")
    assert drip.title == "Let new water drip in"
    assert (round(drip.share, 3), round(drip.amount)) == (0.333, 33)


def test_a_tap_with_chloramine_is_not_dripped_in_either() -> None:
    first, _ = first_of(readings=[read(24)], tap={**HARD, "chlorine": "chloramine"})
    assert first.do == "other-water"


def test_in_salt_water_too_a_tap_over_the_limit_of_ammonia_is_not_poured_in() -> None:
    salt = {
        "salinity_g_kg": 35,
        "present": [{"species_id": "ocellaris-clownfish", "count": 2}],
        "readings": [read(24, ph=8.1, kh_dkh=8, nitrite_mg_n_l=0.0)],
    }
    brings = {"ph": 8.1, "kh_dkh": 8, "ammonia_mg_n_l": 0.7}
    assert first_of(**salt, tap=brings)[0].do == "other-water"
    assert first_of(**salt, tap={**brings, "ammonia_mg_n_l": 0.0, "chlorine": "none"})[0].do != "other-water"
