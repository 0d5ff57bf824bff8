"""Keeper trials: simulated tanks kept by the advice alone and judged by their true water.

Each life has its own water, film, tap, kit, method and mishaps: a dud bottle, a bottle changed for a dead one, a kit
that lies now and then or for good, that reads one poison only or none, chloramine nobody knows of, tests left out, a
log that begins in the middle, a filter that stands or loses its media, small losses that add up, water untreated, heat
and cold, some of it never written down; in one of eight the animals are in from the first day. The advice sees the
logbook; the judge sees the tank.
"""

from dataclasses import dataclass, field
from typing import Literal

from reedmace.command.simulated_keeper import ALL_TESTS, LAST_DAY, SimulatedKeeper, copied, simulated_keeper
from reedmace.core.chemistry.tolerance import ammonia_reach, nitrite_limit_mg_n_l
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    CycleLog,
    CycleReadinessQuestion,
    cycle_advice,
    cycle_readiness,
    emergency_today,
)
from reedmace.core.cycle.animals.stocking_ramp import StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.record.nitrite_doubt import nitrite_is_doubted
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load

AFTER_DAYS, FISH_IN_DAYS = 14, 42
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


@dataclass
class TrialResult:
    """Outcome of one tank."""

    seed: int
    added_day: float | None = None
    able_day: float | None = None
    lost: bool = False
    half_kit: bool = False
    """Whether the kit reads one poison or none: then advice can act on what it knows, and ask for the other."""
    lying_kit: bool = False
    """Whether the kit lies in one way for good."""
    days_with_animals: int = 0
    false_alarms: int = 0
    """Days on which the advice spoke of danger and both poisons stood under half their limits."""
    false_doubts: int = 0
    """Days on which an honest nitrite test was doubted and nitrite stood under half its limit."""
    waited: bool = False
    faults: list[tuple[float, Fault]] = field(default_factory=list)


def _reach(k: SimulatedKeeper, water: dict[str, float]) -> float:
    """The worse poison as a multiple of its limit."""
    salt = k.kept.salinity_g_kg
    return max(
        ammonia_reach(water["ammonia_mg_n_l"], water["ph"], k.kept.temperature_c, salt),
        water["nitrite_mg_n_l"] / nitrite_limit_mg_n_l(salt),
    )


def run_trial(seed: int) -> TrialResult:
    """One trial, from the first day until two weeks after the first animals, or six where they were in. seed: which."""
    k, life = simulated_keeper(seed), TrialResult(seed)
    fish_in = k.kept.animals_are_in()
    life.added_day = 0.0 if fish_in else None
    life.half_kit, life.lying_kit = k.reads != ALL_TESTS, bool(k.kit_lies)
    k.keep_by_habit()
    mishaps = {int(d) for d in k.rng.integers(1, LAST_DAY, int(k.rng.integers(0, 4)))}
    over = 0
    day = 0.02 + k.unlogged_days
    while day < LAST_DAY + AFTER_DAYS:
        if int(day) in mishaps and int(day) == round(day - 0.02):
            k.apply_mishap(day - 0.01)
        if k.rng.uniform() < k.tests or life.added_day is not None:
            k.test(day)
        log = k.log(day)
        advice = cycle_advice(CycleAdviceQuestion(log=log))
        _judge(life, log, advice, day, over)
        if life.added_day is not None:
            _count_alarm(life, k, log, day)
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


def _able(k: SimulatedKeeper, day: float) -> bool:
    """Whether the filter clears within a day what the first animals would make: tried on a copy."""
    if k.kept.method == "planted":
        return day >= 10 + 28
    trial = copied(k.tank)
    trial.dose(day + 0.1, k.kept.challenge_mg_n_l())
    water = trial.water(day + 1.1)
    return water["ammonia_mg_n_l"] < 0.1 and water["nitrite_mg_n_l"] < 0.08


def _add(k: SimulatedKeeper, life: TrialResult, day: float) -> None:
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


def _count_alarm(life: TrialResult, k: SimulatedKeeper, log: CycleLog, day: float) -> None:
    """Count a day with animals in, a danger told of poisons that stood low, and a doubt of an honest test."""
    life.days_with_animals += 1
    plan = emergency_today(log)
    alarmed = plan is not None and any(one.over and one.what != "nitrate" for one in plan.limits)
    water = k.tank.water(day)
    life.false_alarms += alarmed and _reach(k, water) < 0.5
    if nitrite_is_doubted(log) and not k.lies and not k.kit_lies:
        life.false_doubts += water["nitrite_mg_n_l"] < 0.5 * nitrite_limit_mg_n_l(k.kept.salinity_g_kg)


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
    whole = [one for one in lives if not one.half_kit and not one.lying_kit]
    return {
        "lives": len(lives),
        "lost": sum(one.lost for one in whole),
        "lost_half_kit": sum(one.lost for one in lives if one.half_kit),
        "half_kits": sum(one.half_kit for one in lives),
        "lost_lying_kit": sum(one.lost for one in lives if one.lying_kit and not one.half_kit),
        "lying_kits": sum(one.lying_kit and not one.half_kit for one in lives),
        "waited": sum(one.waited for one in whole),
        "stocked": sum(one.added_day is not None for one in lives),
        "faults": sum(len(one.faults) for one in lives),
        "weeks_with_animals": sum(one.days_with_animals for one in whole) / 7,
        "false_alarm_days": sum(one.false_alarms for one in whole),
        "false_doubt_days": sum(one.false_doubts for one in whole),
    }
