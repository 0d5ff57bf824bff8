"""Skill of the forecast on simulated tanks: coverage of its ranges, and error of its median."""

import copy
from dataclasses import dataclass
from datetime import UTC, datetime

import numpy as np
from numpy.typing import NDArray

from reedmace.core.computations import compute
from reedmace.core.cycle.model.ensemble import USUAL_DRAWS
from reedmace.core.cycle.model.inputs import Scenario, aim_of, model_input_of, step_of
from reedmace.core.cycle.model.prior import prior_spread
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.cycle.record.log import HIGH_NITRITE_MG_N_L, CycleLog, KitSteps, LoggedDose, LoggedReading
from reedmace.core.cycle.record.proof import NEEDED
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.quantity.units import NITROGEN_SHARE, Analyte, as_nitrogen
from reedmace.standins import ColourKit, SimulatedTank
from reedmace.standins.independent_simulators import IndependentTanks, Start, Structure

HORIZON_DAYS = 150
EVERY_DAYS = 2
ALWAYS_DAY = 35.0
"""The error of always predicting day 35."""
PPM = NITROGEN_SHARE["NH4"]
_EPOCH = datetime(2026, 1, 1, tzinfo=UTC)


@dataclass(frozen=True)
class Skill:
    """Skill at one day of the cycle.

    Share of true days inside P10 to P90, median error and bias (median less truth) in days, tanks.
    """

    day: int
    held: float
    median_error_days: float
    median_error_always_days: float
    bias_days: float
    tanks: int


def _skill(day: int, rows: list[tuple[bool, float, float]]) -> Skill:
    """Skill of rows. rows: whether the truth was covered, the median and the truth in days, a tank each."""
    miss = np.array([middle - truth for _, middle, truth in rows])
    return Skill(
        day=day,
        held=float(np.mean([held for held, _, _ in rows])),
        median_error_days=float(np.median(np.abs(miss))),
        median_error_always_days=float(np.median([abs(ALWAYS_DAY - truth) for _, _, truth in rows])),
        bias_days=float(np.median(miss)),
        tanks=len(rows),
    )


def _asked(log: CycleLog, truth: float, draws: int) -> tuple[bool, float, float]:
    answer = compute("cycle-forecast", {"log": log.model_dump(), "draws": draws, "horizon_days": HORIZON_DAYS})
    p10, p50, p90 = (getattr(answer, f"pass_day_{p}") for p in ("p10", "p50", "p90"))
    held = p10 is not None and p10 - 1e-6 <= truth <= (HORIZON_DAYS if p90 is None else p90) + 1e-6
    return held, HORIZON_DAYS if p50 is None else p50, truth


def tested(kit: ColourKit, tank: SimulatedTank, day: float) -> LoggedReading:
    """One full test as a log entry. kit, tank: which; day: since the start."""
    seen = kit.reading(tank, day, _EPOCH)
    return LoggedReading(
        day=day,
        ammonia_mg_n_l=as_nitrogen(seen["ammonia_ppm"], "ammonia", "ion"),
        nitrite_mg_n_l=as_nitrogen(seen["nitrite_ppm"], "nitrite", "ion"),
        nitrate_mg_n_l=as_nitrogen(seen["nitrate_ppm"], "nitrate", "ion"),
        off_scale=seen["off_scale"],
    )


def _kept(seed: int, days: int, varied: bool) -> tuple[SimulatedTank, list[LoggedReading]]:
    """A simulated tank of the prior, dosed again to 2 ppm as it clears, read by a coarse kit every other day.

    varied: 21 to 29 °C and one in four with a little seeded media, as keepers' tanks are; otherwise 26 °C and bare.
    """
    log = CycleLog(net_l=100, day_now=0, start_kh_dkh=8, start_ph=7.6, planned_load_mg_n_l_day=0.8)
    if varied:
        chance = np.random.default_rng(seed + 10_000).uniform(size=3)
        log = log.model_copy(update={"temperature_c": 21 + 8 * float(chance[0])})
        if chance[1] < 0.25:
            log = log.model_copy(update={"helpers": ["seed-media"], "seed_share": 0.01 + 0.2 * float(chance[2])})
    tank = SimulatedTank(log, seed, spread=tuple(prior_spread(log)), slow_tail=True)
    kit = ColourKit(seed=seed)
    readings = []
    for day in range(days + 1):
        if day % EVERY_DAYS == 0:
            readings.append(tested(kit, tank, day))
        water = tank.water(day)
        if day % 2 == 0 and water["ammonia_mg_n_l"] < PPM and water["nitrite_mg_n_l"] < 1.5:
            tank.dose(day + 0.1, 2 * PPM - water["ammonia_mg_n_l"])
    return tank, readings


def _truth(tank: SimulatedTank, log: CycleLog) -> float:
    """The day on which this tank passes if the advice is followed from the log's day on, infinite for never."""
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
    tanks: int, days: tuple[int, ...] = (7, 14, 21), draws: int = USUAL_DRAWS, *, varied: bool = False
) -> list[Skill]:
    """Skill at each of `days`, over a number of simulated tanks.

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
            found[day].append(_asked(log, truth, draws))
    return [_skill(day, rows) for day, rows in found.items() if rows]


_LOGS: dict[Start, dict[str, object]] = {
    "unseeded": {},
    "squeezed": {"helpers": ["seed-media"], "seed_share": 0.03},
    "bottled": {"helpers": ["bottled-culture"]},
    "moved": {"method": "seeded-filter", "seed_share": 1.0},
}
"""The logged plan of each start."""


def independent_skill(
    structure: Structure,
    start: Start,
    tanks: int,
    days: tuple[int, ...] = (7, 14, 21, 28),
    draws: int = USUAL_DRAWS,
    seed: int = 1,
) -> list[Skill]:
    """Skill on tanks of another model structure.

    structure, start: which; tanks: how many; days: of the cycle; draws: of each forecast; seed: of the tanks. Doses are
    out by a seventh, the kit of each tank reads a seventh high or low, and nobody knows.
    """
    rng = np.random.default_rng((seed, 99))
    them = IndependentTanks(structure, start, tanks, seed)
    asked = CycleLog(net_l=100, day_now=0, start_kh_dkh=8, start_ph=7.6, planned_load_mg_n_l_day=0.8, **_LOGS[start])
    bias = {what: np.exp(0.13 * rng.standard_normal(tanks)) for what in ("ammonia", "nitrite", "nitrate")}
    readings: list[list[LoggedReading]] = [[] for _ in range(tanks)]
    doses: list[list[LoggedDose]] = [[] for _ in range(tanks)]
    found: dict[int, list[tuple[bool, float, float]]] = {day: [] for day in days}
    whole = _pass_days(them, asked, np.zeros(tanks))
    for day in range(max(days) + 1):
        if day % EVERY_DAYS == 0:
            read = _read(them, asked.kit, bias, rng)
            for n in range(tanks):
                readings[n].append(
                    LoggedReading(
                        day=day,
                        off_scale=[w for w in read if read[w][1][n]],
                        **{f"{w}_mg_n_l": float(read[w][0][n]) for w in read},
                    )
                )
            wants = (read["ammonia"][0] < PPM) & (read["nitrite"][0] < 1.5)
            raised = np.where(wants, 2 * PPM - read["ammonia"][0], 0.0)
            them.dose(raised * np.exp(0.13 * rng.standard_normal(tanks)))
            for n in np.flatnonzero(raised > 0).tolist():
                doses[n].append(LoggedDose(day=day + 0.1, raise_mg_n_l=float(raised[n])))
        if day in days:
            truth = _pass_days(them, asked, np.full(tanks, float(day)))
            for n in range(tanks):
                if not np.isfinite(truth[n]) or truth[n] < day + 2.5 or whole[n] < day + 2.5:
                    continue
                log = asked.model_copy(update={"day_now": day + 0.2, "doses": doses[n], "readings": readings[n]})
                found[day].append(_asked(log.model_copy(deep=True), float(truth[n]), draws))
        them.run(1.0)
        them.hold_alkalinity(4 * CACO3_PER_DKH)
    return [_skill(day, rows) for day, rows in found.items() if len(rows) >= 5]


def _read(
    them: IndependentTanks, kit: KitSteps, bias: dict[str, NDArray[np.float64]], rng: np.random.Generator
) -> dict[Analyte, tuple[NDArray[np.float64], NDArray[np.bool_]]]:
    """(figure by the nearest step in mg N/L, whether off the scale) of each test and tank."""
    found: dict[Analyte, tuple[NDArray[np.float64], NDArray[np.bool_]]] = {}
    waters: tuple[tuple[Analyte, NDArray[np.float64]], ...] = (
        ("ammonia", them.tan),
        ("nitrite", them.no2),
        ("nitrate", them.no3),
    )
    for what, true in waters:
        steps = np.array(kit.steps_mg_n_l(what))
        seen = np.maximum(true * bias[what] * (1 + 0.1 * rng.standard_normal(len(true))), 0.0)
        step = steps[np.abs(steps[None, :] - seen[:, None]).argmin(axis=1)]
        found[what] = step, seen > steps[-1]
    return found


def _pass_days(them: IndependentTanks, log: CycleLog, today: NDArray[np.float64]) -> NDArray[np.float64]:
    """Days on which these tanks pass if the advice is followed from now on, infinite for never."""
    on, n = copy.deepcopy(them), them.tanks
    zero, zero_nitrite = log.kit.zero_mg_n_l("ammonia"), log.kit.zero_mg_n_l("nitrite")
    wins, dosed, done = np.zeros(n), np.zeros(n, dtype=bool), np.full(n, np.inf)
    for more in range(HORIZON_DAYS - int(today.max())):
        clear = (on.tan < zero) & (on.no2 < zero_nitrite)
        wins = np.where(dosed, np.where(clear, wins + 1, 0), wins)
        done = np.where(np.isinf(done) & (wins >= NEEDED), today + more, done)
        if np.isfinite(done).all():
            break
        dosed = (on.tan < zero) & (on.no2 < HIGH_NITRITE_MG_N_L)
        on.dose(np.where(dosed, np.maximum(log.challenge_mg_n_l() - on.tan, 0.0), 0.0))
        on.run(1.0)
        on.hold_alkalinity(4 * CACO3_PER_DKH)
    return done
