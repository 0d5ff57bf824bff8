"""The log of a cycle or a running tank as the core takes it."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta

from reedmace.core.cycle import CycleLog, LoggedReading
from reedmace.core.cycle.record.log import (
    KitSteps,
    LoggedAlkalinity,
    LoggedBetween,
    LoggedChange,
    LoggedDose,
    LoggedMedia,
    LoggedOutage,
    MediaWhat,
    TapWater,
)
from reedmace.core.filter.kinds import kind_of
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import as_nitrogen
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.animals import animals_in, daily_load, load_in, loaded_at
from reedmace.logbook.replay.arrival import came_at, came_with_animals, since, situation
from reedmace.logbook.replay.current_plans import cycle_plan, kit_plan, stock_plan, tank_plan
from reedmace.logbook.replay.entries import Conditioner, MediaWork, PlantGrowth, Reading
from reedmace.logbook.replay.film_shares import film_shares, stretches
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres, salinity_of_plan

_MEDIA: dict[str, MediaWhat] = {
    "rinsed": "rinsed-tank-water",
    "rinsed-tap": "rinsed-tap",
    "replaced": "replaced",
    "dried": "dried",
    "seed-added": "seed-added",
    "new-filter": "new-filter",
    "moved": "seed-added",
}


def _off_again(state: LogbookState, plan: CyclePlan, day: Callable[[datetime], float]) -> list[LoggedMedia]:
    """Filters removed since the cycle began: before that there was no film to lose."""
    return [
        LoggedMedia(day=day(t.at), what="taken-off", share=t.share)
        for t in state.taken_off
        if t.at > plan.started_at and day(t.at) <= 400
    ]


def _outages(state: LogbookState, day: Callable[[datetime], float], now: datetime) -> list[LoggedOutage]:
    """The same for the cycle log, each with the share of film its filter holds."""
    shares, bodies = film_shares(state, now), {f.key: f.filter for f in state.filters()}
    return [
        LoggedOutage(
            day=min(max(day(a), 0), 400),
            hours=min((b - a).total_seconds() / 3600, 10000),
            share=shares.get(key, 1.0),
            closed=kind_of(bodies[key].kind).closed if key in bodies else None,
        )
        for a, until, key in stretches(state, now)
        for b in [until or now]
        if day(b) >= 0 and day(a) <= 400
    ][-100:]


def kit_of(state: LogbookState, now: datetime) -> KitSteps:
    """The keeper's kit with whether it has expired; usual steps until entered.

    state: the tank's; now: aware time.
    """
    plan = kit_plan(state)
    past = plan.expires_on is not None and plan.expires_on < now.date()
    return plan.kit.model_copy(update={"expired": plan.kit.expired or past})


@memoize
def cycle_log(state: LogbookState, now: datetime) -> CycleLog | None:
    """The log of a cycle; None before one is planned, or was under way and tested when the tank came in here.

    state: the tank's; now: aware time.
    """
    plan = state.cycle_plan.body if state.cycle_plan else None
    if not isinstance(plan, CyclePlan):
        said, begun = situation(state), since(state)
        if said is None or said.stands != "cycling" or begun is None or not state.readings:
            return None
        plan = cycle_plan(state, begun)
    return _log(state, plan, now)


USUAL_KEPT_C = 25
"""Temperature of a tank with animals until measured, °C (common practice)."""


LONGEST_LOG_DAYS, MOST_ROWS = 400, 400
"""Days and rows of each kind that a log holds at most."""
CARE_DAYS, LONG_DAYS = 120, 300
"""Days of log read for a long-running tank; age in days of a cycle that is long over."""


@memoize
def care_log(state: LogbookState, now: datetime) -> CycleLog | None:
    """The log of a tank with animals, with or without a cycle plan and however old; None without animals.

    Where no plan says otherwise the water is that of the tank's own kind. state: the tank's; now: aware time.
    """
    plan = state.cycle_plan.body if state.cycle_plan else None
    planned = plan if isinstance(plan, CyclePlan) else None
    unnamed = came_with_animals(state) is not None and not stock_plan(state).animals
    if not animals_in(state) and not unnamed and (planned is None or planned.method != "animals-in"):
        return None
    return lived_log(state, now)


def lived_log(state: LogbookState, now: datetime) -> CycleLog | None:
    """The same for a tank in which animals live, or lived until all were lost; None where none ever came.

    state: the tank's; now: aware time.
    """
    plan = state.cycle_plan.body if state.cycle_plan else None
    planned = plan if isinstance(plan, CyclePlan) else None
    added_at = came_at(state)
    if planned is None and not added_at:
        return None
    if planned is not None and now - planned.started_at <= timedelta(days=LONG_DAYS):
        return _log(state, planned, now)
    begun = planned.started_at if planned else min(added_at)
    since = max(begun, now - timedelta(days=CARE_DAYS))
    if planned is None:
        heat = tank_plan(state).surroundings.temperature_c
        planned = cycle_plan(state, since).model_copy(update={"temperature_c": heat or USUAL_KEPT_C})
        log = _log(state, planned.model_copy(update={"started_at": since}), now)
        return log.model_copy(update={"temperature_known": heat is not None})
    return _log(state, planned.model_copy(update={"started_at": since}), now)


@dataclass(frozen=True)
class _Days:
    """Days since a cycle began, for the entries that belong to its log."""

    begun: datetime

    def of(self, at: datetime) -> float:
        return (at - self.begun).total_seconds() / 86400

    def holds(self, at: datetime) -> bool:
        # A test on the morning of the first day, before the dose, belongs to day 0.
        return -1 <= self.of(at) <= LONGEST_LOG_DAYS

    def logged(self, at: datetime) -> float:
        return max(self.of(at), 0)

    def bounded(self, at: datetime) -> float:
        return min(self.logged(at), LONGEST_LOG_DAYS)


def _logged_readings(state: LogbookState, days: _Days) -> list[LoggedReading]:
    found = []
    for e in state.readings:
        r = e.body
        if not isinstance(r, Reading) or not days.holds(e.at):
            continue
        found.append(
            LoggedReading(
                day=days.logged(e.at),
                ammonia_mg_n_l=None if r.ammonia_ppm is None else as_nitrogen(r.ammonia_ppm, "ammonia", r.basis),
                nitrite_mg_n_l=None if r.nitrite_ppm is None else as_nitrogen(r.nitrite_ppm, "nitrite", r.basis),
                nitrate_mg_n_l=None if r.nitrate_ppm is None else as_nitrogen(r.nitrate_ppm, "nitrate", r.basis),
                **r.shared_figures(),
                off_scale=r.off_scale,
                between=[
                    LoggedBetween(
                        what=b.what,
                        low_mg_n_l=as_nitrogen(b.low_ppm, b.what, r.basis),
                        high_mg_n_l=as_nitrogen(b.high_ppm, b.what, r.basis),
                    )
                    for b in r.between
                ],
                other_kit=r.other_kit,
            )
        )
    return found[-MOST_ROWS:]


def _logged_changes(state: LogbookState, days: _Days) -> list[LoggedChange]:
    conditioned = [e.at for e in state.events if isinstance(e.body, Conditioner) and days.holds(e.at)]
    return [
        LoggedChange(
            day=days.logged(e.at),
            share=e.body.share,
            treated=e.body.treated,
            conditioned=any(at >= e.at for at in conditioned),
        )
        for e in state.changes
        if e.body.kind == "water-change" and days.holds(e.at)
    ][-MOST_ROWS:]


def _logged_media(state: LogbookState, plan: CyclePlan, days: _Days, now: datetime) -> list[LoggedMedia]:
    shares = film_shares(state, now)
    worked = [
        LoggedMedia(
            day=days.logged(e.at),
            what=_MEDIA[e.body.what],
            share=e.body.share * (shares.get(e.body.filter_key, 1.0) if e.body.filter_key else 1.0),
        )
        for e in state.events
        if isinstance(e.body, MediaWork) and e.body.what in _MEDIA and days.holds(e.at)
    ]
    return [*_off_again(state, plan, days.of), *worked][-100:]


def _tap_of(state: LogbookState, plan: CyclePlan, now: datetime) -> TapWater:
    """The tap; where the plan states the first water and not the tap's, the tank was filled from it."""
    offered = cycle_plan(state.model_copy(update={"cycle_plan": None}), now)
    tap, stated = plan.tap, (plan.start_ph, plan.start_kh_dkh)
    # Without a plan, or with both figures left at their defaults, neither was stated.
    if state.cycle_plan is None or stated == (offered.start_ph, offered.start_kh_dkh):
        return tap
    return tap.model_copy(
        update={
            "ph": plan.start_ph if tap.ph is None else tap.ph,
            "kh_dkh": plan.start_kh_dkh if tap.kh_dkh is None else tap.kh_dkh,
        }
    )


def _log(state: LogbookState, plan: CyclePlan, now: datetime) -> CycleLog:
    days = _Days(plan.started_at)
    stock, present = stock_plan(state), animals_in(state)
    growth = [days.of(e.at) for e in state.events if isinstance(e.body, PlantGrowth) and days.holds(e.at)]
    added = came_at(state)
    return CycleLog(
        net_l=net_litres(state),
        day_now=days.bounded(now),
        method=plan.method,
        helpers=plan.helpers,
        temperature_c=plan.temperature_c,
        salinity_g_kg=salinity_of_plan(state, plan),
        start_kh_dkh=plan.start_kh_dkh,
        start_ph=plan.start_ph,
        tap=_tap_of(state, plan, now),
        planned_load_mg_n_l_day=min(daily_load(state), 1000),
        litres_known=state.tank_plan is not None,
        animals=stock.animals,
        own_species=stock.own_species,
        present=present,
        stocked_day=days.bounded(loaded_at(state) or max(added)) if added else None,
        animals_in_mg_n_l_day=min(load_in(state, now), 1000) if plan.method == "animals-in" or present else 0,
        food_g_day=plan.food_g_day,
        plan_target_ppm=plan.target_ppm,
        product=plan.product,
        seed_share=plan.seed_share,
        rock_kg=plan.rock_kg,
        donor=plan.donor,
        bottle=plan.bottle,
        plants=plan.plants,
        co2_given=tank_plan(state).surroundings.co2 != "none",
        plants_growing_day=max(min(growth), 0) if growth else None,
        filter_running=state.filter_running,
        filter_closed=any(kind_of(f.filter.kind).closed for f in state.filters()),
        skimmer_running=plan.skimmer_running,
        kit=kit_of(state, now),
        readings=_logged_readings(state, days),
        doses=[
            LoggedDose(day=days.logged(e.at), raise_mg_n_l=e.body.raise_mg_n_l)
            for e in state.doses
            if e.body.kind == "dose" and days.holds(e.at)
        ][-MOST_ROWS:],
        changes=_logged_changes(state, days),
        alkalinity=[
            LoggedAlkalinity(day=days.logged(e.at), raise_dkh=e.body.raise_dkh)
            for e in state.alkalinity
            if e.body.kind == "alkalinity" and days.holds(e.at)
        ][-MOST_ROWS:],
        outages=_outages(state, days.of, now),
        media=_logged_media(state, plan, days, now),
    )
