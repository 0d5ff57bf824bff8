"""Keeper trials: simulated tanks kept by the advice alone and judged by their true water.

Each life has its own water, tap, kit, method and mishaps: a dud bottle, a kit that lies or reads one poison only,
chloramine nobody knows of, tests left out, a filter that stands or loses its media, water untreated, a heater that
fails, some of it never written down; in one of eight the animals are in from the first day. The advice sees the
logbook; the judge sees the tank.
"""

from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Literal

import numpy as np

from reedmace.core.chemistry.tolerance import ammonia_reach, nitrite_limit_mg_n_l
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    CycleLog,
    CycleReadinessQuestion,
    LoggedReading,
    cycle_advice,
    cycle_readiness,
    emergency_today,
)
from reedmace.core.cycle.animals.stocking_ramp import StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.record.log import (
    Chlorine,
    LoggedChange,
    LoggedDose,
    LoggedMedia,
    LoggedOutage,
    Method,
    TapWater,
)
from reedmace.core.quantity.units import as_nitrogen
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.standins import ColourKit, SimulatedTank

EPOCH = datetime(2026, 3, 1, 8, 0, tzinfo=UTC)
LAST_DAY, AFTER_DAYS, FISH_IN_DAYS = 90, 14, 42
LOST_REACH = 4.0
"""A tank is lost where either poison exceeds its daily limit by this factor for two days running (memory)."""
WAITED_DAYS = 7
Fault = Literal[
    "no first action",
    "added unready",
    "silent over a limit",
    "silent while it stands",
    "dose with animals in",
    "at odds",
    "lost in silence",
]
_METHODS: tuple[Method, ...] = (
    "measured-ammonia",
    "measured-ammonia",
    "seeded-filter",
    "side-by-side",
    "fish-food",
    "planted",
    "animals-in",
)
_STOCK = {
    "fresh": [Animals(species_id="zebra-danio", count=14), Animals(species_id="cherry-shrimp", count=10)],
    "salt": [Animals(species_id="ocellaris-clownfish", count=2)],
}


@dataclass
class TrialResult:
    """Outcome of one tank."""

    seed: int
    added_day: float | None = None
    able_day: float | None = None
    lost: bool = False
    half_kit: bool = False
    """Whether the kit reads one poison only: then advice can act on what it knows, and ask for the other."""
    waited: bool = False
    faults: list[tuple[float, Fault]] = field(default_factory=list)


ALL_TESTS: tuple[Literal["ammonia", "nitrite", "nitrate"], ...] = ("ammonia", "nitrite", "nitrate")


@dataclass
class _Keeper:
    rng: np.random.Generator
    tank: SimulatedTank
    kit: ColourKit
    kept: CycleLog
    tests: float
    dud: bool
    lies: float
    reads: tuple[Literal["ammonia", "nitrite", "nitrate"], ...] = ALL_TESTS
    """Tests the keeper's kit has."""
    readings: list[LoggedReading] = field(default_factory=list)
    doses: list[LoggedDose] = field(default_factory=list)
    outages: list[LoggedOutage] = field(default_factory=list)
    media: list[LoggedMedia] = field(default_factory=list)
    changes: list[LoggedChange] = field(default_factory=list)

    def log(self, day: float) -> CycleLog:
        return self.kept.model_copy(
            update={
                "day_now": day,
                "readings": self.readings,
                "doses": self.doses,
                "changes": self.changes,
                "alkalinity": self.tank.added,
                "outages": self.outages,
                "media": self.media,
            }
        )

    def test(self, day: float) -> None:
        seen = self.kit.reading(self.tank, day, EPOCH)
        figures = {f"{w}_mg_n_l": as_nitrogen(seen[f"{w}_ppm"], w, "ion") for w in ("ammonia", "nitrite", "nitrate")}
        figures = {name: value for name, value in figures.items() if name.removesuffix("_mg_n_l") in self.reads}
        if self.lies and "nitrite" in self.reads and self.rng.uniform() < self.lies:
            figures["nitrite_mg_n_l"] = 0.0
        for what in list(figures):
            if self.rng.uniform() < 0.08:
                del figures[what]
        if not figures:
            return
        self.readings.append(
            LoggedReading(
                day=day,
                ph=seen["ph"] if self.rng.uniform() < 0.8 else None,
                kh_dkh=seen["kh_dkh"] if self.rng.uniform() < 0.6 else None,
                off_scale=[w for w in seen["off_scale"] if f"{w}_mg_n_l" in figures],
                **figures,
            )
        )

    def apply_mishap(self, day: float) -> None:
        """Apply a mishap, recorded four times in five."""
        told = self.rng.uniform() < 0.8
        kind = int(self.rng.integers(4))
        truth = self.tank.log
        if kind == 0:
            stop = LoggedOutage(
                day=day, hours=float(self.rng.choice([2, 9, 30, 120])), closed=bool(self.rng.integers(2))
            )
            self.tank.log = truth.model_copy(update={"outages": [*truth.outages, stop]})
            self.outages += [stop] if told else []
        elif kind == 1:
            work = LoggedMedia(day=day, what="replaced", share=float(self.rng.choice([0.3, 1.0])))
            self.tank.log = truth.model_copy(update={"media": [*truth.media, work]})
            self.media += [work] if told else []
        elif kind == 2:
            change = LoggedChange(day=day, share=float(self.rng.uniform(0.2, 0.6)), treated=False)
            self.tank.changes.append(change)
            self.changes += [change] if told else []
        else:
            cold = LoggedReading(day=day, temperature_c=float(self.rng.choice([17.0, 35.0])))
            back = LoggedReading(day=day + 2, temperature_c=truth.temperature_c)
            self.tank.log = truth.model_copy(update={"readings": [*truth.readings, cold, back]})
            self.readings += [cold, back] if told else []

    def follow_advice(self, advice: CycleAdviceAnswer, day: float) -> None:
        """Carry out the day's advice, and what the screen asks an hour after a dose was recorded."""
        doses = len(self.doses)
        self.do(advice, day)
        if len(self.doses) > doses and self.rng.uniform() < self.tests:
            again = cycle_advice(CycleAdviceQuestion(log=self.log(day + 0.07)))
            if any(a.do == "test" and a.when == "now" for a in [again.first, *again.then]):
                self.test(day + 0.07)

    def look_at_tap(self, *, other: bool) -> None:
        """Test the treated tap, with a kit that reads ammonia, or take water that brings nothing."""
        tap = self.tank.log.tap
        if other:
            tap = tap.model_copy(update={"ammonia_mg_n_l": 0.0, "chlorine": "none"})
            self.tank.log = self.tank.log.model_copy(update={"tap": tap})
        elif "ammonia" not in self.reads:
            return
        self.kept = self.kept.model_copy(
            update={"tap": tap.model_copy(update={"ammonia_mg_n_l": tap.released_mg_n_l()})}
        )

    def do(self, advice: CycleAdviceAnswer, day: float) -> None:
        """Carry out the advice for now."""
        for action in [advice.first, *advice.then]:
            if action.when not in ("now", "tonight"):
                continue
            if action.do == "dose-ammonia" and action.raise_mg_n_l:
                self.doses.append(LoggedDose(day=day + 0.02, raise_mg_n_l=action.raise_mg_n_l))
                real = 0.03 if self.dud else float(np.exp(0.13 * self.rng.standard_normal()))
                self.tank.dose(day + 0.02, action.raise_mg_n_l * real)
            if action.do in ("test-tap", "other-water"):
                self.look_at_tap(other=action.do == "other-water")
            share = action.share or (
                action.amount / self.kept.net_l if action.amount_unit == "L" and action.amount else None
            )
            if action.do == "change-water" and share:
                for n in range(action.times_count):
                    one = LoggedChange(day=day + 0.03 + 0.1 * n, share=min(share, 0.95))
                    self.changes.append(one)
                    self.tank.changes.append(one)
            if action.do == "raise-kh" and action.raise_dkh:
                self.tank.alkalinity(day + 0.04, action.raise_dkh)


def _reach(k: _Keeper, water: dict[str, float]) -> float:
    """The worse poison as a multiple of its limit."""
    salt = k.kept.salinity_g_kg
    return max(
        ammonia_reach(water["ammonia_mg_n_l"], water["ph"], k.kept.temperature_c, salt),
        water["nitrite_mg_n_l"] / nitrite_limit_mg_n_l(salt),
    )


def _begin(seed: int) -> _Keeper:
    rng = np.random.default_rng((seed, 41))
    salt = rng.uniform() < 0.15
    method: Method = "mature-rock" if salt else _METHODS[int(rng.integers(len(_METHODS)))]
    kh = float(rng.choice([2.0, 4.0, 7.0, 12.0])) if not salt else 8.0
    stock = _STOCK["salt" if salt else "fresh"]
    litres = float(rng.choice([40, 90, 240]))
    load = waste_load(WasteLoadQuestion(net_l=litres, animals=stock)).ammonia_mg_n_l_day
    brings = float(rng.choice([0, 0, 0.3]))
    # In one of six the tap holds chloramine and nobody knows.
    chlorine: Chlorine = "chloramine" if rng.uniform() < 1 / 6 else "unknown"
    first = [Animals(species_id="zebra-danio", count=max(2, round(litres / 20)))]
    fish_in = method == "animals-in"
    seeded = method in ("seeded-filter", "side-by-side", "mature-rock")
    log = CycleLog(
        net_l=litres,
        day_now=0,
        method=method,
        temperature_c=float(rng.uniform(21, 28)),
        salinity_g_kg=35.0 if salt else 0.0,
        start_kh_dkh=kh,
        start_ph=8.1 if salt else float(np.clip(6.9 + 0.4 * np.log2(kh), 6.8, 8.2)),
        tap=TapWater(kh_dkh=kh, ph=8.1 if salt else float(rng.uniform(7.0, 8.2)), ammonia_mg_n_l=brings),
        planned_load_mg_n_l_day=load,
        animals=stock,
        food_g_day=0.3 if method == "fish-food" else 0.0,
        seed_share=float(rng.uniform(0.2, 1)) if seeded else 1.0,
        plants="many" if method == "planted" else "none",
        plants_growing_day=10.0 if method == "planted" else None,
        present=first if fish_in else [],
        stocked_day=0.0 if fish_in else None,
        animals_in_mg_n_l_day=waste_load(WasteLoadQuestion(net_l=litres, animals=first)).ammonia_mg_n_l_day
        if fish_in
        else 0.0,
    )
    true = log.model_copy(update={"tap": log.tap.model_copy(update={"chlorine": chlorine})})
    one_test = rng.uniform() < 0.15 if fish_in else rng.uniform() < 0.03
    return _Keeper(
        rng=rng,
        tank=SimulatedTank(true, seed),
        kit=ColourKit(seed=seed, noise_share=float(rng.choice([0.05, 0.15, 0.25]))),
        kept=log,
        tests=float(rng.choice([0.5, 0.8, 1.0])),
        dud=log.doses_ammonia() and rng.uniform() < 0.08,
        lies=0.5 if rng.uniform() < 0.05 else 0.0,
        reads=(("ammonia", "nitrite")[int(rng.integers(2))],) if one_test else ALL_TESTS,
    )


def run_trial(seed: int) -> TrialResult:
    """One trial, from the first day until two weeks after the first animals, or six where they were in. seed: which."""
    k, life = _begin(seed), TrialResult(seed)
    fish_in = k.kept.animals_are_in()
    life.added_day = 0.0 if fish_in else None
    life.half_kit = k.reads != ALL_TESTS
    mishaps = {int(d) for d in k.rng.integers(1, LAST_DAY, int(k.rng.integers(0, 4)))}
    over = 0
    day = 0.02
    while day < LAST_DAY + AFTER_DAYS:
        if int(day) in mishaps and int(day) == round(day - 0.02):
            k.apply_mishap(day - 0.01)
        if k.rng.uniform() < k.tests or life.added_day is not None:
            k.test(day)
        log = k.log(day)
        advice = cycle_advice(CycleAdviceQuestion(log=log))
        _judge(life, log, advice, day, over)
        if life.added_day is None and any(
            a.do == "add-animals" and a.when == "now" for a in [advice.first, *advice.then]
        ):
            _add(k, life, day)
        k.follow_advice(advice, day)
        water = k.tank.water(day + 0.9)
        if life.added_day is None and day > LAST_DAY:
            break
        if life.added_day is None:
            # Time lost to a mishap is counted from recovery.
            able = _able(k, day)
            life.able_day = (day if life.able_day is None else life.able_day) if able else None
        else:
            over = over + 1 if _reach(k, water) > LOST_REACH else 0
            life.lost = life.lost or over >= 2
            if day > life.added_day + (FISH_IN_DAYS if fish_in else AFTER_DAYS):
                break
        day += 1.0
    if life.able_day is not None:
        through = life.added_day if life.added_day is not None else float(LAST_DAY)
        # Two doses a day apart, a large change, and a day without tests are not waiting.
        life.waited = through - life.able_day > WAITED_DAYS + 4
    return life


def _able(k: _Keeper, day: float) -> bool:
    """Whether the filter clears within a day what the first animals would make: tried on a copy."""
    if k.kept.method == "planted":
        return day >= 10 + 28
    trial = SimulatedTank(
        k.tank.log, k.tank.seed, doses=[*k.tank.doses], changes=[*k.tank.changes], added=[*k.tank.added]
    )
    trial.dose(day + 0.1, k.kept.challenge_mg_n_l())
    water = trial.water(day + 1.1)
    return water["ammonia_mg_n_l"] < 0.1 and water["nitrite_mg_n_l"] < 0.08


def _add(k: _Keeper, life: TrialResult, day: float) -> None:
    """Add the first group of the ramp, in the logbook and in the tank."""
    life.added_day = day
    proven = cycle_readiness(CycleReadinessQuestion(log=k.log(day))).proven_mg_n_l_day
    ramp = stocking_ramp(
        StockingRampQuestion(net_l=k.kept.net_l, proven_mg_n_l_day=max(proven, 0.05), animals=k.kept.animals)
    )
    if not ramp.steps:
        return
    first = [Animals(species_id=a.species_id, count=a.count) for a in ramp.steps[0].add]
    load = waste_load(WasteLoadQuestion(net_l=k.kept.net_l, animals=first)).ammonia_mg_n_l_day
    came = {"stocked_day": day, "animals_in_mg_n_l_day": load, "food_g_day": 0.0}
    k.kept = k.kept.model_copy(update={**came, "present": first})
    k.tank.log = k.tank.log.model_copy(update=came)


def _judge(life: TrialResult, log: CycleLog, advice: CycleAdviceAnswer, day: float, over: int) -> None:
    """Faults no advice may ever commit. over: days running a poison stood far over its limit in the tank."""
    actions = [advice.first, *advice.then]
    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
    adds = any(a.do == "add-animals" for a in actions)
    if adds and not ready:
        life.faults.append((day, "added unready"))
    if ready and not log.animals_are_in() and not adds:
        life.faults.append((day, "at odds"))
    if not advice.first.title:
        life.faults.append((day, "no first action"))
    if log.animals_are_in():
        if any(a.do == "dose-ammonia" for a in actions):
            life.faults.append((day, "dose with animals in"))
        plan = emergency_today(log)
        acts = {"change-water", "bind-ammonia", "treat-water", "other-water"}
        if over > 1 and not acts & {a.do for a in actions}:
            life.faults.append((day, "lost in silence"))
        helps = {"change-water", "aerate", "bind-ammonia", "cool", "warm", "test", "start-filter", "treat-water"} | acts
        if plan is not None and plan.in_danger and advice.first.do not in helps:
            life.faults.append((day, "silent over a limit"))
    if not log.filter_running and not any(a.do == "start-filter" for a in actions):
        life.faults.append((day, "silent while it stands"))


def summarize(lives: list[TrialResult]) -> dict[str, float]:
    """Shares of all trials: lost, kept waiting over a week too long, brought to animals; and faults counted."""
    n = len(lives)
    return {
        "lives": n,
        "lost": sum(one.lost for one in lives if not one.half_kit),
        "lost_half_kit": sum(one.lost for one in lives if one.half_kit),
        "half_kits": sum(one.half_kit for one in lives),
        "waited": sum(one.waited for one in lives),
        "stocked": sum(one.added_day is not None for one in lives),
        "faults": sum(len(one.faults) for one in lives),
    }
