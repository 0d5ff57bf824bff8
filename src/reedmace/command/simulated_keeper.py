"""A simulated keeper: tank, tap, kit, method and mishaps drawn from a seed, and a log of what was written down."""

from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from typing import Literal

import numpy as np

from reedmace.core.cycle import CycleAdviceAnswer, CycleAdviceQuestion, CycleLog, LoggedReading, cycle_advice
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
from reedmace.standins import ColourKit, OtherTank, SimulatedTank

EPOCH = datetime(2026, 3, 1, 8, 0, tzinfo=UTC)
LAST_DAY = 90
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


Lie = Literal["", "ammonia always shows", "nitrite never shows", "nitrate never shows"]
LIES: tuple[Lie, ...] = ("ammonia always shows", "nitrite never shows", "nitrate never shows")
"""Faults of a kit for good."""
ALL_TESTS: tuple[Literal["ammonia", "nitrite", "nitrate"], ...] = ("ammonia", "nitrite", "nitrate")


@dataclass
class SimulatedKeeper:
    """A tank, its keeper with a kit and habits, and the log as it was written down."""

    rng: np.random.Generator
    tank: SimulatedTank | OtherTank
    kit: ColourKit
    kept: CycleLog
    tests: float
    dead_bottle_from: float
    """Day from which the ammonia bottle holds next to nothing; infinite where it never fails."""
    lies: float
    """Share of nitrite tests that read zero whatever stands there."""
    kit_lies: Lie = ""
    unlogged_days: float = 0.0
    """Days kept before the first line of the log, by habit and unwritten."""
    reads: tuple[Literal["ammonia", "nitrite", "nitrate"], ...] = ALL_TESTS
    """Tests the keeper's kit has."""
    has_other_kit: bool = False
    """Whether a shop or a friend tests nitrite for this keeper."""
    readings: list[LoggedReading] = field(default_factory=list)
    doses: list[LoggedDose] = field(default_factory=list)
    outages: list[LoggedOutage] = field(default_factory=list)
    media: list[LoggedMedia] = field(default_factory=list)
    changes: list[LoggedChange] = field(default_factory=list)

    def log(self, day: float) -> CycleLog:
        """The log as written so far. day: since the start."""
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

    def read_with_another_kit(self, day: float) -> None:
        """Have nitrite read with an honest kit, where somebody has one. day: since the start."""
        if not self.has_other_kit:
            return
        seen = self.kit.reading(self.tank, day, EPOCH)
        nitrite = as_nitrogen(seen["nitrite_ppm"], "nitrite", "ion")
        off: list[Literal["nitrite"]] = ["nitrite"] if "nitrite" in seen["off_scale"] else []
        self.readings.append(LoggedReading(day=day, nitrite_mg_n_l=nitrite, off_scale=off, other_kit=True))

    def test(self, day: float) -> None:
        """Test with the kit at hand and write it down. day: since the start."""
        seen = self.kit.reading(self.tank, day, EPOCH)
        figures = {f"{w}_mg_n_l": as_nitrogen(seen[f"{w}_ppm"], w, "ion") for w in ("ammonia", "nitrite", "nitrate")}
        figures = {name: value for name, value in figures.items() if name.removesuffix("_mg_n_l") in self.reads}
        if self.kit_lies == "ammonia always shows" and "ammonia" in figures:
            figures["ammonia_mg_n_l"] = max(figures["ammonia_mg_n_l"], as_nitrogen(0.25, "ammonia", "ion"))
        for what in ("nitrite", "nitrate"):
            if self.kit_lies == f"{what} never shows" and what in self.reads:
                figures[f"{what}_mg_n_l"] = 0.0
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
        kind = int(self.rng.integers(5))
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
        elif kind == 3:
            # None of them is much; together they are.
            for n in range(4):
                squeeze = LoggedMedia(day=day + n, what="rinsed-tank-water", share=0.5)
                stop = LoggedOutage(day=day + n + 0.3, hours=3, closed=False)
                self.tank.log = self.tank.log.model_copy(
                    update={"media": [*self.tank.log.media, squeeze], "outages": [*self.tank.log.outages, stop]}
                )
                if told:
                    self.media.append(squeeze)
                    self.outages.append(stop)
        else:
            cold = LoggedReading(day=day, temperature_c=float(self.rng.choice([17.0, 35.0])))
            back = LoggedReading(day=day + 2, temperature_c=truth.temperature_c)
            self.tank.log = truth.model_copy(update={"readings": [*truth.readings, cold, back]})
            self.readings += [cold, back] if told else []

    def keep_by_habit(self) -> None:
        """Keep the tank before the log begins: a dose every third day while ammonia is low, and no note of it."""
        for day in range(int(self.unlogged_days)):
            if day % 3 == 0 and self.tank.water(day)["ammonia_mg_n_l"] < 1.0:
                self.tank.dose(day + 0.02, 1.2)

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
                real = 0.03 if day >= self.dead_bottle_from else float(np.exp(0.13 * self.rng.standard_normal()))
                self.tank.dose(day + 0.02, action.raise_mg_n_l * real)
            if action.do == "test-other-kit":
                self.read_with_another_kit(day + 0.01)
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


def simulated_keeper(seed: int) -> SimulatedKeeper:
    """A keeper at the start of a cycle. seed: of the tank, the kit, the method and the habits."""
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
    return SimulatedKeeper(
        rng=rng,
        tank=_tank(true, seed, rng),
        kit=ColourKit(seed=seed, noise_share=float(rng.choice([0.05, 0.15, 0.25]))),
        kept=log,
        tests=float(rng.choice([0.5, 0.8, 1.0])),
        dead_bottle_from=_dead_bottle_from(log, seed, rng),
        lies=0.5 if rng.uniform() < 0.05 else 0.0,
        kit_lies=LIES[int(rng.integers(len(LIES)))] if rng.uniform() < 0.06 else "",
        unlogged_days=float(rng.integers(5, 25)) if log.doses_ammonia() and rng.uniform() < 0.12 else 0.0,
        reads=_tests_of_the_kit(rng, fish_in),
        # A stream of its own, so that a seed draws the same life as before other kits were used.
        has_other_kit=bool(np.random.default_rng((seed, 47)).uniform() < 0.5),
    )


def _tank(log: CycleLog, seed: int, rng: np.random.Generator) -> SimulatedTank | OtherTank:
    """Half of the tanks run on the forecast's own structure with parameters of their own, half on two others."""
    which = rng.uniform()
    if which < 0.5:
        return SimulatedTank(log, seed)
    return OtherTank(log, seed, "monod" if which < 0.75 else "two-nitrite")


def _dead_bottle_from(log: CycleLog, seed: int, rng: np.random.Generator) -> float:
    """One bottle in twelve is dead from the start; another is changed midway for a dead one."""
    if not log.doses_ammonia():
        return np.inf
    if rng.uniform() < 0.08:
        return 0.0
    # A stream of its own, so that a seed draws the same life as before bottles were changed.
    later = np.random.default_rng((seed, 43))
    return float(later.uniform(8, 45)) if later.uniform() < 0.08 else np.inf


def _tests_of_the_kit(rng: np.random.Generator, fish_in: bool) -> tuple[Literal["ammonia", "nitrite", "nitrate"], ...]:
    """All tests, one poison's alone, or, with animals in, no kit at all."""
    drawn = rng.uniform()
    if fish_in and drawn < 0.05:
        return ()
    if drawn < (0.2 if fish_in else 0.03):
        return (("ammonia", "nitrite")[int(rng.integers(2))],)
    return ALL_TESTS


def copied(tank: SimulatedTank | OtherTank) -> SimulatedTank | OtherTank:
    """A copy of a tank, to try something on. tank: which."""
    return replace(tank, doses=[*tank.doses], changes=[*tank.changes], added=[*tank.added])
