"""The forecast's skill on virtual tanks: how often its ranges hold the truth, and how far its middle is from it."""

from dataclasses import dataclass
from datetime import UTC, datetime

import numpy as np
from numpy.typing import NDArray

from reedmace.core.computations import compute
from reedmace.core.cycle.kernel import simulate
from reedmace.core.cycle.log import CycleLog, LoggedReading
from reedmace.core.cycle.model_input import Scenario, aim_of, model_input_of, step_of
from reedmace.core.quantity.units import NITROGEN_SHARE, as_nitrogen
from reedmace.standins import ColourKit, SimulatedTank

HORIZON_DAYS = 150
EVERY_DAYS = 2
ALWAYS_DAY = 35.0
"""What someone who never looks would say."""
PPM = NITROGEN_SHARE["NH4"]
_EPOCH = datetime(2026, 1, 1, tzinfo=UTC)


@dataclass(frozen=True)
class Skill:
    """At one day of the cycle: share of truths inside P10 to P90, median errors in days, tanks counted."""

    day: int
    held: float
    median_error_days: float
    median_error_always_days: float
    tanks: int


def _kept(seed: int, days: int, varied: bool) -> tuple[SimulatedTank, list[LoggedReading]]:
    """A virtual tank of the prior, dosed again to 2 ppm as it clears, and what a coarse kit read every other day.

    varied: 21 to 29 °C and one in four with a little seeded media, as keepers' tanks are; otherwise 26 °C and bare.
    """
    log = CycleLog(net_l=100, day_now=0, start_kh_dkh=8, start_ph=7.6, planned_load_mg_n_l_day=0.8)
    if varied:
        chance = np.random.default_rng(seed + 10_000).uniform(size=3)
        log = log.model_copy(update={"temperature_c": 21 + 8 * float(chance[0])})
        if chance[1] < 0.25:
            log = log.model_copy(update={"helpers": ["seed-media"], "seed_share": 0.01 + 0.2 * float(chance[2])})
    tank = SimulatedTank(log, seed)
    kit = ColourKit(seed=seed)
    readings = []
    for day in range(days + 1):
        if day % EVERY_DAYS == 0:
            seen = kit.reading(tank, day, _EPOCH)
            readings.append(
                LoggedReading(
                    day=day,
                    ammonia_mg_n_l=as_nitrogen(seen["ammonia_ppm"], "ammonia", "ion"),
                    nitrite_mg_n_l=as_nitrogen(seen["nitrite_ppm"], "nitrite", "ion"),
                    nitrate_mg_n_l=as_nitrogen(seen["nitrate_ppm"], "nitrate", "ion"),
                    off_scale=seen["off_scale"],
                )
            )
        water = tank.water(day)
        if day % 2 == 0 and water["ammonia_mg_n_l"] < PPM and water["nitrite_mg_n_l"] < 1.5:
            tank.dose(day + 0.1, 2 * PPM - water["ammonia_mg_n_l"])
    return tank, readings


def _truth(tank: SimulatedTank, log: CycleLog) -> float:
    """The day on which this very tank passes if the advice is followed from the log's day on, infinite for never."""
    model_input = model_input_of(log, HORIZON_DAYS)
    passed: NDArray[np.float64] = simulate(
        tank.parameters()[None, :],
        model_input.start,
        model_input.conditions,
        model_input.steps,
        model_input.kinds,
        model_input.values,
        model_input.tap,
        step_of(log.day_now),
        HORIZON_DAYS,
        aim_of(log, Scenario()),
        np.zeros((0, 2), dtype=np.int64),
    )[2]
    return float(np.where(np.isnan(passed[0]), np.inf, passed[0]))


def forecast_skill(
    tanks: int, days: tuple[int, ...] = (7, 14, 21), draws: int = 500, *, varied: bool = False
) -> list[Skill]:
    """Skill at each of `days`, over so many virtual tanks.

    tanks: how many, of the seeds 1, 2, 3 …; days: of the cycle; draws: of each forecast;
    varied: as keepers' tanks are, or all alike. A tank that is through already,
    or never gets there, is left out of that day.
    """
    found: dict[int, list[tuple[bool, float, float]]] = {day: [] for day in days}
    for seed in range(1, tanks + 1):
        tank, readings = _kept(seed, max(days), varied)
        through = _truth(tank, tank.log.model_copy(update={"day_now": 0.2, "doses": tank.doses[:1]}))
        for day in days:
            log = tank.log.model_copy(
                update={
                    "day_now": day + 0.2,
                    "doses": [d for d in tank.doses if d.day <= day + 0.15],
                    "readings": [r for r in readings if r.day <= day],
                }
            )
            truth = _truth(tank, log)
            if not np.isfinite(truth) or truth < day + 2.5 or through < day + 2.5:
                continue
            answer = compute("cycle-forecast", {"log": log.model_dump(), "draws": draws, "horizon_days": HORIZON_DAYS})
            p10, p50, p90 = (getattr(answer, f"pass_day_{p}") for p in ("p10", "p50", "p90"))
            middle = HORIZON_DAYS if p50 is None else p50
            held = p10 is not None and p10 - 1e-6 <= truth <= (HORIZON_DAYS if p90 is None else p90) + 1e-6
            found[day].append((held, abs(middle - truth), abs(ALWAYS_DAY - truth)))
    return [
        Skill(
            day=day,
            held=float(np.mean([r[0] for r in rows])),
            median_error_days=float(np.median([r[1] for r in rows])),
            median_error_always_days=float(np.median([r[2] for r in rows])),
            tanks=len(rows),
        )
        for day, rows in found.items()
        if rows
    ]
