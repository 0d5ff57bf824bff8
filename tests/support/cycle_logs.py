"""Logs of cycles that tests share."""

from typing import Any

from reedmace.core.computations import compute
from tests.support.cycling import NA, NI, A, proving

TWO_PPM: dict[str, Any] = {
    "net_l": 130,
    "day_now": 0,
    "planned_load_mg_n_l_day": 2 * A / 1.2,
    "doses": [{"day": 0, "raise_mg_n_l": 2 * A}],
}


def reading(day: float, ammonia: float, nitrite: float, nitrate: float | None = None, **more) -> dict:
    return {
        "day": day,
        "ammonia_mg_n_l": ammonia * A,
        "nitrite_mg_n_l": nitrite * NI,
        "nitrate_mg_n_l": None if nitrate is None else nitrate * NA,
        **more,
    }


STALLED = {
    "net_l": 242,
    "day_now": 16.1,
    "start_kh_dkh": 2.4,
    "start_ph": 7.2,
    "readings": [
        reading(0, 2, 0, 0, kh_dkh=2.4, ph=7.2),
        reading(6, 1, 0.5, 0, kh_dkh=2.2, ph=7.2),
        reading(8, 0.5, 2, 2, kh_dkh=1.8, ph=7.1),
        reading(10, 0.5, 5, 5, kh_dkh=1.4, ph=7.0, off_scale=["nitrite"]),
        reading(14, 0.5, 5, 5, kh_dkh=0.8, ph=6.7, off_scale=["nitrite"]),
        reading(16, 1, 5, 10, kh_dkh=0.6, ph=6.5, off_scale=["nitrite"]),
    ],
    "doses": [{"day": d, "raise_mg_n_l": p * A} for d, p in ((0, 2), (7, 1.5), (9.3, 1.5), (12.1, 1.5), (14.1, 1.5))],
}


def advice(log: dict):
    return compute("cycle-advice", {"log": log})


CLEARED: dict[str, Any] = {
    "net_l": 100,
    "day_now": 40.1,
    "planned_load_mg_n_l_day": 0.4,
    **proving(38, 39, kh_dkh=5),
}


def ready(log: dict, standard: str | None = "load-matched"):
    return compute("cycle-readiness", {"log": log, "standard": standard})


DOSED = {"net_l": 242, "day_now": 9, "start_kh_dkh": 2.4, "start_ph": 7.2}


def what_if(log: dict, *changes: dict):
    return compute("cycle-what-if", {"log": log, "draws": 300, "changes": list(changes)})


STOCKED = {
    "net_l": 242,
    "day_now": 20,
    "planned_load_mg_n_l_day": 0.45,
    "animals_in_mg_n_l_day": 0.18,
    "stocked_day": 10,
    "animals": [{"species_id": "rosy-barb", "count": 12}, {"species_id": "weather-loach", "count": 4}],
    "present": [{"species_id": "rosy-barb", "count": 6}],
}
