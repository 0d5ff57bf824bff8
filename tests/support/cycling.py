"""Logs the cycle tests share: one of every method, and random ones."""

from typing import Any

import numpy as np

from reedmace.core.cycle.record.log import (
    CycleLog,
    KitSteps,
    LoggedAlkalinity,
    LoggedChange,
    LoggedDose,
    LoggedMedia,
    LoggedOutage,
    LoggedReading,
    TapWater,
)
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import Animals

A, NI, NA = NITROGEN_SHARE["NH4"], NITROGEN_SHARE["NO2"], NITROGEN_SHARE["NO3"]
METHODS = (
    "measured-ammonia",
    "seeded-filter",
    "planted",
    "fish-food",
    "side-by-side",
    "mature-rock",
    "animals-in",
)


def busy_log(method: str) -> CycleLog:
    """Thirty days of one method in which everything the model knows happens."""
    helps: dict[str, dict[str, Any]] = {
        "measured-ammonia": {"helpers": ["bottled-culture"], "start_ph": 7.6},
        "seeded-filter": {
            "outages": [LoggedOutage(day=5.5, hours=20)],
            "media": [LoggedMedia(day=18, what="seed-added", share=0.2)],
        },
        "planted": {"plants": "many", "plants_growing_day": 9},
        "fish-food": {"food_g_day": 1.0, "media": [LoggedMedia(day=10, what="rinsed-tap", share=0.5)]},
        "side-by-side": {"seed_share": 0.4, "readings": [LoggedReading(day=6, temperature_c=19)]},
        "mature-rock": {"salinity_g_kg": 35, "start_ph": 8.1},
        "animals-in": {"animals_in_mg_n_l_day": 0.3, "readings": [LoggedReading(day=4, phosphate_ppm=0.02)]},
    }
    doses = [] if method == "animals-in" else [(0, 2 * A), (12.25, 1.0)]
    return CycleLog.model_validate(
        {
            "net_l": 130,
            "day_now": 30,
            "method": method,
            "start_kh_dkh": 8,
            "doses": [LoggedDose(day=d, raise_mg_n_l=r) for d, r in doses],
            "changes": [LoggedChange(day=20, share=0.4)],
            "alkalinity": [LoggedAlkalinity(day=15, raise_dkh=3)],
            "tap": TapWater(nitrate_mg_n_l=1, ammonia_mg_n_l=0.1, chlorine="chlorine"),
            **helps[method],
        }
    )


def random_log(rng: np.random.Generator) -> CycleLog:
    """Any log a keeper could have, sensible or not."""
    day_now = float(rng.choice([0, rng.uniform(0, 60), rng.uniform(60, 120)]))

    def some(most: int) -> list[float]:
        return sorted(rng.uniform(0, max(day_now, 0.01), int(rng.integers(0, most + 1))).tolist())

    def maybe(chance: float, value: float) -> float | None:
        return float(value) if rng.random() < chance else None

    scale = float(rng.choice([0.0, 0.3, 1.5, 8.0]))
    readings = []
    for day in some(9):
        zero = rng.random() < 0.35
        ammonia, nitrite = (0.0 if zero else rng.exponential(scale + 0.01) for _ in range(2))
        readings.append(
            LoggedReading(
                day=day,
                ammonia_mg_n_l=maybe(0.9, min(ammonia, 60)),
                nitrite_mg_n_l=maybe(0.85, min(nitrite, 60)),
                nitrate_mg_n_l=maybe(0.5, min(rng.exponential(8), 200)),
                ph=maybe(0.6, rng.uniform(5, 9.2)),
                kh_dkh=maybe(0.6, rng.choice([0, rng.uniform(0, 3), rng.uniform(3, 20)])),
                temperature_c=maybe(0.4, rng.uniform(8, 38)),
                phosphate_ppm=maybe(0.2, rng.choice([0.0, 0.5])),
                off_scale=["nitrite"] if rng.random() < 0.1 else [],
            )
        )
    method = str(rng.choice(METHODS))
    load = float(rng.choice([0.05, 0.3, 1.5, 6.0]))
    stocked = rng.random() < 0.2
    return CycleLog.model_validate(
        {
            "net_l": float(rng.choice([8, 60, 242, 1500])),
            "day_now": day_now,
            "method": method,
            "helpers": [h for h in ("seed-media", "bottled-culture", "plants") if rng.random() < 0.2],
            "temperature_c": float(rng.uniform(14, 32)),
            "salinity_g_kg": float(rng.choice([0, 0, 0, 35])),
            "start_kh_dkh": float(rng.uniform(0.2, 15)),
            "start_ph": float(rng.uniform(6, 8.6)),
            "tap": TapWater(
                ammonia_mg_n_l=float(rng.choice([0, 0, 0.8, 4])),
                nitrate_mg_n_l=float(rng.choice([0, 5, 12])),
                kh_dkh=float(rng.uniform(0, 20)),
                ph=float(rng.uniform(6, 8.8)),
                chlorine=str(rng.choice(["none", "chlorine", "chloramine", "unknown"])),
            ),
            "planned_load_mg_n_l_day": load,
            "animals": [Animals(species_id="zebra-danio", count=10)] if rng.random() < 0.5 else [],
            "present": [Animals(species_id="zebra-danio", count=4)] if stocked else [],
            "stocked_day": float(rng.uniform(0, max(day_now, 0.01))) if stocked else None,
            "animals_in_mg_n_l_day": load if method == "animals-in" or stocked else 0.0,
            "plan_target_ppm": float(rng.uniform(0.1, 8)),
            "product": {"form": "ammonium-chloride"}
            if rng.random() < 0.6
            else {"form": "ammonia-solution", "strength_percent_w_v": float(rng.uniform(1, 30))},
            "seed_share": float(rng.uniform(0, 1)),
            "plants": str(rng.choice(["none", "some", "many"])),
            "plants_growing_day": maybe(0.4, rng.uniform(0, max(day_now, 0.01))),
            "filter_running": bool(rng.random() < 0.9),
            "skimmer_running": bool(rng.random() < 0.2),
            "kit": KitSteps(expired=bool(rng.random() < 0.1)),
            "readings": readings,
            "doses": [LoggedDose(day=d, raise_mg_n_l=float(rng.exponential(1.2))) for d in some(8)],
            "changes": [
                LoggedChange(day=d, share=float(rng.uniform(0, 1)), treated=bool(rng.random() < 0.8)) for d in some(3)
            ],
            "alkalinity": [LoggedAlkalinity(day=d, raise_dkh=float(rng.uniform(0, 6))) for d in some(2)],
            "outages": [LoggedOutage(day=d, hours=float(rng.uniform(0, 60))) for d in some(2)],
            "media": [
                LoggedMedia(
                    day=d,
                    what=str(
                        rng.choice(["seed-added", "rinsed-tank-water", "rinsed-tap", "replaced", "dried", "new-filter"])
                    ),
                )
                for d in some(2)
            ],
        }
    )


def clearing_log(rng: np.random.Generator) -> CycleLog:
    """A random log whose last ten days read like a film that has come: daily zeros, most of them, after daily doses."""
    log = random_log(rng)
    now = float(rng.uniform(30, 60))
    readings, doses = [], []
    for back in range(10, -1, -1):
        day = now - back - 0.05
        slip = rng.random() < 0.04
        if rng.random() < 0.85:
            readings.append(
                LoggedReading(
                    day=day,
                    ammonia_mg_n_l=0.2 if slip else 0,
                    nitrite_mg_n_l=0.2 if rng.random() < 0.04 else 0,
                    nitrate_mg_n_l=5 + (10 - back) * 2.0,
                    off_scale=["nitrate"] if rng.random() < 0.04 else [],
                    kh_dkh=6,
                    ph=float(rng.uniform(6.9, 8)),
                )
            )
        if back > 0:
            size = float(rng.choice([0.3, 1.0, 1.0])) * log.challenge_mg_n_l()
            doses.append(LoggedDose(day=day + 0.05, raise_mg_n_l=size))
            if rng.random() < 0.95 and not log.animals_are_in():
                readings.append(LoggedReading(day=day + 0.09, ammonia_mg_n_l=size))
    return log.model_copy(
        update={
            "day_now": now,
            "readings": readings,
            "doses": [] if log.animals_are_in() else doses,
            "stocked_day": None if log.stocked_day is None else now - float(rng.uniform(2, 20)),
            "plants_growing_day": None if log.plants_growing_day is None else 1.0,
            "changes": [],
            "outages": [],
            "media": [],
        }
    )


def proving(*days: float, size: float = 0.6, nitrate: float = 40.0, **more: Any) -> dict[str, list[dict[str, Any]]]:
    """Doses of a size on these days, each seen an hour later and gone a day after: doses and readings of a log.

    A cycle of some weeks was fed before, or no film could have come.
    """
    readings: list[dict[str, Any]] = []
    fed = [{"day": d, "raise_mg_n_l": 1.5} for d in (0.0, 12.0, 20.0, 28.0) if d < days[0] - 5]
    for n, day in enumerate(days):
        readings.append({"day": day + 0.04, "ammonia_mg_n_l": size})
        gone = {"ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "nitrate_mg_n_l": (nitrate + 5 * n) * NA}
        readings.append({"day": day + 1, **gone, **more})
    return {"doses": fed + [{"day": d, "raise_mg_n_l": size} for d in days], "readings": readings}
