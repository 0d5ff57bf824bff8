"""Kernel inputs from a log: initial bacteria, daily conditions, events in order."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from reedmace.core.chemistry import oxygen_saturation_mg_l, pka_fresh
from reedmace.core.chemistry.ammonia import pka_sea
from reedmace.core.chemistry.ammonia_dose import base_per_n
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.cycle.model.nitrogen_kernel import (
    ADD_ALKALINITY,
    ADD_FILM,
    ADD_TAN,
    AIMS,
    CHANGE_WATER,
    CONDITIONS,
    COUNT_FROM,
    DOSE,
    DOSE_BASE,
    FEED,
    GROWTH,
    HOLD_ALKALINITY,
    HOLD_NITRITE,
    KA,
    KILL_FILM,
    LEAST_ALKALINITY,
    PLANTS,
    STEPS_PER_DAY,
    THETA,
    WON,
    WORK,
    ZERO,
    ZERO_NITRITE,
    ZEROS_NEEDED,
)
from reedmace.core.cycle.model.prior import MATURE_FILM_MG_N_L_DAY
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l
from reedmace.core.cycle.record.film_losses import film_losses
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, HIGH_NITRITE_MG_N_L, TRANSFERRED, CycleLog, LoggedDose
from reedmace.core.cycle.record.nitrification import film_at_work, unwritten_doses
from reedmace.core.cycle.record.proof import NEEDED, standing_proof
from reedmace.core.cycle.record.proven_load import GROWN_ZEROS_DAYS, PLANTED_DAYS
from reedmace.core.cycle.record.targets import targets_of
from reedmace.core.film import film_slows, temperature_factor
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.quantity.units import NITROGEN_SHARE

Floats = NDArray[np.float64]


Ints = NDArray[np.int64]


FOOD_LAG_DAYS = 4.0
"""First-order delay of ammonia from rotting food, days (memory)."""


PLANT_UPTAKE_MG_N_L_DAY = {"none": (0.0, 0.0), "some": (0.1, 0.3), "many": (0.4, 1.2)}
"""Daily uptake of plants at their first new growth, and once grown in (memory: 0.5 to 2 where many and well lit).
"""


GROWN_IN_DAYS = 28.0
"""Days from new growth to plants that have grown in (common practice: four weeks)."""


PHOSPHORUS_HALF_MG_L, PO4_TO_P = 0.004, 0.3261
"""Half-saturation of growth on phosphorus, mg P/L (memory), and P in PO4 (atomic masses)."""


OXYGEN_HALF_MG_L = 0.8
"""Half-saturation on oxygen, mg O2/L, between ASM1's 0.4 for both steps and 1 to 1.5 often given for nitrite oxidisers.
"""


STILL_WORK = 0.05
"""Share of nitrification left while the filter stands, on glass and gravel (memory)."""


ZEROS_DAYS = {"planted": 15, "fish-food": 8, "animals-in": 8}
"""Days of zeros that prove a method without doses:

a fortnight at the end of four weeks of growth for plants, a week otherwise, both ends counted.
"""


LEAST_NITRATE_MG_N_L = 0.25
"""Nitrate that may be present when a test reads zero, mg N/L: a quarter of a usual first step (memory)."""


@dataclass(frozen=True)
class ModelInput:
    """All kernel inputs except the parameters, in the kernel's shapes."""

    start: Floats
    tap: Floats
    conditions: Floats
    happened: Floats
    kinds: Ints
    values: Floats

    @property
    def steps(self) -> Ints:
        """The kernel's step of each event (m,)."""
        return np.array([step_of(day) for day in self.happened], dtype=np.int64)

    def sample_steps(self, days: list[float]) -> Ints:
        """States the kernel reports for these days (r, 2): the step, and the number of events before it.

        days: rising, since the start. What is written down for the very same moment counts as done before.
        """
        return np.array([(step_of(d), int((self.happened <= d).sum())) for d in days], dtype=np.int64).reshape(-1, 2)


@dataclass(frozen=True)
class Scenario:
    """What is done from today on.

    hold_kh_dkh: KH held, 0 for left alone, None for what this tank is kept at; temperature_c: from today, None for as
    it is; dose_factor: times the advised dose; seed_share: of a mature filter's film put in today; counts_past: whether
    doses cleared already count; until_kh_gone: whether a course ends where its KH is used up.
    """

    hold_kh_dkh: float | None = None
    temperature_c: float | None = None
    dose_factor: float = 1.0
    seed_share: float = 0.0
    counts_past: bool = True
    until_kh_gone: bool = False


def step_of(day: float) -> int:
    """The kernel's step at a day since the start. day: days."""
    return round(day * STEPS_PER_DAY)


def oxygen_factor(temperature_c: float, salinity_g_kg: float) -> float:
    """Rate relative to that at 25 °C in fresh water, both at 90 % of saturation, dimensionless.

    temperature_c: 0.5 to 40 °C; salinity_g_kg: 0 to 45 g/kg. Source: Monod term as in ASM1; Benson and Krause 1984.

    >>> round(oxygen_factor(25.0, 0.0), 3)
    1.0
    """
    here, there = (0.9 * oxygen_saturation_mg_l(t, s) for t, s in ((temperature_c, salinity_g_kg), (25.0, 0.0)))
    return here / (here + OXYGEN_HALF_MG_L) * (there + OXYGEN_HALF_MG_L) / there


def growth_factor(phosphate_ppm: float) -> float:
    """Growth limitation by phosphorus, 0 to 1.

    phosphate_ppm: as PO4, 0 or more. Source: Monod term, constant from memory.

    >>> round(growth_factor(0.0), 0)
    0.0
    """
    phosphorus = phosphate_ppm * PO4_TO_P
    return phosphorus / (phosphorus + PHOSPHORUS_HALF_MG_L)


def still_conditions(days: int, temperature_c: float, salinity_g_kg: float = 0.0) -> Floats:
    """Constant conditions for every day: shape (days + 1, 6) as the kernel takes them.

    days: horizon; temperature_c: °C; salinity_g_kg: g/kg.
    """
    found = np.zeros((days + 1, CONDITIONS))
    pka = pka_fresh(temperature_c) if is_fresh(salinity_g_kg) else pka_sea(temperature_c, salinity_g_kg)
    found[:, THETA] = temperature_factor(temperature_c)
    found[:, KA] = 10.0**-pka
    found[:, GROWTH] = 1.0
    found[:, WORK] = oxygen_factor(temperature_c, salinity_g_kg)
    return found


def made_in_tank_mg_n_l_day(log: CycleLog, days: int) -> Floats:
    """Ammonia made in the tank by day, mg N/L/day (days + 1,): rotting food, and animals that are in.

    log: the cycle's; days: horizon.
    """
    at = np.arange(days + 1) + 0.5
    since = log.stocked_day if log.stocked_day is not None and log.method != "animals-in" else 0.0
    made: Floats = log.food_mg_n_l_day() * (1 - np.exp(-at / FOOD_LAG_DAYS)) + np.where(
        at >= since, log.animals_in_mg_n_l_day, 0.0
    )
    return made


ACID_BORN_WORK, MOST_FACTOR = 0.3, 8.0
"""Activity at 25 °C of bacteria grown in acid water relative to neutral water, and the largest correction to it.

Common practice: such tanks take weeks longer, not months.
"""


def acid_born_factor(start_ph: float, start_kh_dkh: float) -> float:
    """Correction for bacteria that have only known acid water, ratio of 1 or more.

    start_ph: 4 to 10; start_kh_dkh: dKH. Other microbes settle there than those whose pH response the rates have
    (Nitrosomonas-like, from ASM1); here their pace is lifted to the stated share. Source: common practice, memory.

    >>> round(acid_born_factor(6.0, 1.0), 3)
    1.987
    """
    if not film_slows(start_ph) or start_kh_dkh > 3:
        return 1.0
    neutral = 1.0 / (1.0 + (10.0 ** (6.25 - start_ph)) ** 3)
    return float(min(max(ACID_BORN_WORK / neutral, 1.0), MOST_FACTOR))


def _growing_day(log: CycleLog) -> float:
    """The day of new growth; without one, the third week or today, whichever is later (memory)."""
    return log.plants_growing_day if log.plants_growing_day is not None else max(log.day_now, 21.0)


def _conditions(log: CycleLog, days: int, scenario: Scenario) -> Floats:
    now = min(int(log.day_now), days)
    found = still_conditions(days, log.temperature_c, log.salinity_g_kg)
    for day, degrees in sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None):
        found[max(int(day) - 1, 0) :] = still_conditions(0, degrees, log.salinity_g_kg)[0]
    if scenario.temperature_c is not None:
        found[now:] = still_conditions(0, scenario.temperature_c, log.salinity_g_kg)[0]
    for reading in sorted(log.readings, key=lambda r: r.day):
        if reading.phosphate_ppm is not None:
            found[int(reading.day) :, GROWTH] = growth_factor(reading.phosphate_ppm)
    acid = acid_born_factor(log.start_ph, log.start_kh_dkh)
    found[:now, WORK] *= acid
    # Where soda is to lift the water out of the acid range, the film works there as any other.
    found[now:, WORK] *= acid_born_factor(log.start_ph, max(log.start_kh_dkh, _held_kh_dkh(log, scenario)))
    found[:, FEED] = made_in_tank_mg_n_l_day(log, days)
    if log.plants != "none":
        first, most = PLANT_UPTAKE_MG_N_L_DAY[log.plants]
        # Until new growth is seen plants settle in and take little.
        growing = _growing_day(log)
        at = np.arange(days + 1)
        grown = np.clip((at - growing) / GROWN_IN_DAYS, 0.0, 1.0)
        found[:, PLANTS] = np.where(at >= growing, first + (most - first) * grown, 0.1 * first)
    for outage in log.outages:
        for day in range(int(outage.day), min(int(outage.day + outage.hours / 24) + 1, days + 1)):
            off = min(outage.day + outage.hours / 24, day + 1) - max(outage.day, day)
            found[day, WORK] *= 1 - outage.share * (1 - STILL_WORK) * min(max(off, 0.0), 1.0)
    return found


def _film_rows(log: CycleLog) -> list[tuple[float, int, float]]:
    rows = [(loss.day, KILL_FILM, loss.share) for loss in film_losses(log)]
    return rows + [
        (work.day, ADD_FILM, MATURE_FILM_MG_N_L_DAY * work.share) for work in log.media if work.what == "seed-added"
    ]


def events_of(log: CycleLog) -> tuple[Floats, Ints, Floats]:
    """(days, kinds, values) of all events, in order, for the kernel.

    log: the cycle's log. Doses nobody wrote down count as far as tests show their nitrogen.
    """
    doses = [*(unwritten := unwritten_doses(log)), *log.doses]
    rows = [(d.day, ADD_TAN, d.raise_mg_n_l) for d in doses]
    if base_per_n(log.product):
        rows += [(d.day, ADD_ALKALINITY, base_per_n(log.product) * d.raise_mg_n_l) for d in doses]
    if log.latest("kh_dkh") is None:
        # That film was at work shows that alkalinity had not run out, whoever saw to it.
        rows += [(d.day, ADD_ALKALINITY, log.alkalinity_eaten_per_n() * d.raise_mg_n_l) for d in unwritten]
    rows += [(c.day, CHANGE_WATER, c.share) for c in log.changes]
    rows += [(a.day, ADD_ALKALINITY, a.raise_dkh * CACO3_PER_DKH) for a in log.alkalinity]
    rows += _film_rows(log)
    rows.sort(key=lambda row: row[0])
    return (
        np.array([r[0] for r in rows], dtype=np.float64),
        np.array([r[1] for r in rows], dtype=np.int64),
        np.array([r[2] for r in rows], dtype=np.float64),
    )


def model_input_of(log: CycleLog, days: int, scenario: Scenario | None = None) -> ModelInput:
    """Kernel inputs of a log. log: the cycle's; days: horizon; scenario: done from today on."""
    scenario = scenario or Scenario()
    happened, kinds, values = events_of(log)
    if scenario.seed_share > 0:
        at = int(np.searchsorted(happened, log.day_now, side="right"))
        happened = np.insert(happened, at, log.day_now)
        kinds = np.insert(kinds, at, ADD_FILM)
        values = np.insert(values, at, MATURE_FILM_MG_N_L_DAY * scenario.seed_share)
    tap = log.tap
    start = np.array(
        [tap.released_mg_n_l(), tap.nitrite_mg_n_l, tap.nitrate_mg_n_l, log.start_kh_dkh * CACO3_PER_DKH], dtype=float
    )
    brought = start.copy()
    start[2] = max(log.first_nitrate_mg_n_l(), LEAST_NITRATE_MG_N_L)
    brought[3] = log.tap_kh_dkh() * CACO3_PER_DKH
    return ModelInput(start, brought, _conditions(log, days, scenario), happened, kinds, values)


def with_first_dose(log: CycleLog) -> CycleLog:
    """The log with the first dose as advised, where none was given and no test shows film at work. log: the cycle's."""
    if log.doses or not log.doses_ammonia() or log.animals_are_in() or film_at_work(log):
        return log
    wanted = log.challenge_mg_n_l()
    if log.method not in TRANSFERRED:
        wanted = min(log.plan_target_ppm * NITROGEN_SHARE["NH4"], HIGH_AMMONIA_MG_N_L)
    return log.model_copy(update={"doses": [LoggedDose(day=log.day_now, raise_mg_n_l=wanted)]})


def _held_kh_dkh(log: CycleLog, scenario: Scenario) -> float:
    """KH held from today on, dKH; 0 for left alone."""
    return targets_of(log).kh_target_dkh if scenario.hold_kh_dkh is None else scenario.hold_kh_dkh


def aim_of(log: CycleLog, scenario: Scenario) -> Floats:
    """Kernel targets from today, in its order (10,). log: the cycle's; scenario: what is done from today on."""
    aim = np.zeros(AIMS)
    dosing = log.doses_ammonia() and not log.animals_are_in()
    aim[DOSE] = max(dose_to_prove_mg_n_l(log) * scenario.dose_factor, 0.2) if dosing else 0.0
    aim[DOSE_BASE] = base_per_n(log.product)
    aim[ZERO], aim[ZERO_NITRITE] = log.kit.zero_mg_n_l("ammonia"), log.kit.zero_mg_n_l("nitrite")
    aim[HOLD_NITRITE] = HIGH_NITRITE_MG_N_L
    aim[HOLD_ALKALINITY] = _held_kh_dkh(log, scenario) * CACO3_PER_DKH
    aim[LEAST_ALKALINITY] = CACO3_PER_DKH if scenario.until_kh_gone else 0.0
    if dosing and scenario.counts_past:
        # Doses already cleared count; the last one needed is still to be observed.
        aim[WON] = min(len(standing_proof(log, aim[DOSE])[0]), NEEDED - 1)
    if not dosing:
        aim[ZEROS_NEEDED] = ZEROS_DAYS.get(log.method, 8)
        aim[COUNT_FROM] = (
            PLANTED_DAYS - GROWN_ZEROS_DAYS + _growing_day(log)
            if log.method == "planted"
            else 2.0
            if log.stocked_day is None
            else log.stocked_day
        )
    return aim
