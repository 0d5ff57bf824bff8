"""From where a tank stands to the questions the core answers."""

from collections.abc import Callable
from datetime import datetime, timedelta

from reedmace.core.cycle import CycleLog, LoggedReading
from reedmace.core.cycle.record.log import (
    KitSteps,
    LoggedAlkalinity,
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
from reedmace.core.stock import SPECIES, Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import Water
from reedmace.core.tank import TankVolumeAnswer, TankVolumeQuestion, tank_volume
from reedmace.logbook.plans.plan_kinds import CyclePlan, FilterPlan, FitPlan, KitPlan, StockPlan, TankPlan
from reedmace.logbook.replay.arrival import came_at, came_with_animals, since
from reedmace.logbook.replay.entries import Conditioner, MediaWork, Outage, PlantGrowth, Reading, Stocking
from reedmace.logbook.replay.state import LogbookState, shares_of

DEFAULT_TANK = TankVolumeQuestion(length_cm=60, width_cm=30, height_cm=36, substrate_depth_cm=3)
"""The tank assumed until it has been measured; every screen that uses it says so."""
UNKNOWN_LOAD = 0.3
"""Ammonia load assumed until animals are chosen, mg N/L a day: a community's (memory)."""


def tank_plan(state: LogbookState) -> TankPlan:
    """The tank as measured, or the stated default. state: the tank's."""
    body = state.tank_plan.body if state.tank_plan else None
    return body if isinstance(body, TankPlan) else TankPlan(kind="tank-plan", tank=DEFAULT_TANK)


def stock_plan(state: LogbookState) -> StockPlan:
    """The animals planned or kept, empty until chosen. state: the tank's."""
    body = state.stock_plan.body if state.stock_plan else None
    return body if isinstance(body, StockPlan) else StockPlan(kind="stock-plan", animals=[])


def filter_plan(state: LogbookState) -> FilterPlan:
    """The tank's equipment, empty until chosen. state: the tank's."""
    body = state.filter_plan.body if state.filter_plan else None
    return body if isinstance(body, FilterPlan) else FilterPlan(kind="filter-plan")


def fit_plan(state: LogbookState) -> FitPlan:
    """Positions of the parts, defaults until placed. state: the tank's."""
    body = state.fit_plan.body if state.fit_plan else None
    return body if isinstance(body, FitPlan) else FitPlan(kind="fit-plan")


USUAL_WATER: dict[Water, tuple[float, float, float]] = {
    "fresh": (0, 7.4, 4),
    "brackish": (10, 7.8, 6),
    "salt": (35, 8.1, 8),
}
"""Salinity in g/kg, pH and KH in dKH by kind of water until measured (common practice)."""


def cycle_plan(state: LogbookState, now: datetime) -> CyclePlan:
    """The cycle as planned, or a default one starting now. state: the tank's; now: aware time."""
    body = state.cycle_plan.body if state.cycle_plan else None
    if isinstance(body, CyclePlan):
        return body
    place = tank_plan(state).surroundings
    salinity, ph, kh = USUAL_WATER[place.water]
    return CyclePlan(
        kind="cycle-plan",
        started_at=since(state) or now,
        method="animals-in" if came_with_animals(state) else "measured-ammonia",
        salinity_g_kg=salinity,
        start_ph=place.ph or ph,
        start_kh_dkh=kh,
        tap=TapWater(chlorine="unknown"),
    )


def kit_plan(state: LogbookState) -> KitPlan:
    """The keeper's test kit, usual steps until entered. state: the tank's."""
    body = state.kit_plan.body if state.kit_plan else None
    return body if isinstance(body, KitPlan) else KitPlan(kind="kit-plan")


def volume_question(plan: TankPlan) -> TankVolumeQuestion:
    """Input of the volume, with the water of the sump. plan: the tank's."""
    sump = plan.surroundings.sump
    if sump is None:
        return plan.tank
    return plan.tank.model_copy(update={"water_outside_l": min(plan.tank.water_outside_l + sump.held_l, 5000)})


@memoize
def volume(state: LogbookState) -> TankVolumeAnswer:
    """The tank's volume, of the default tank until measured. state: the tank's."""
    return tank_volume(volume_question(tank_plan(state)))


def net_litres(state: LogbookState) -> float:
    """Net water in L. state: the tank's."""
    return max(volume(state).net_l, 0.5)


@memoize
def daily_load(state: LogbookState) -> float:
    """Planned ammonia, mg N per litre and day; 0.3 until animals are chosen. state: the tank's."""
    stock = stock_plan(state)
    if not (stock.animals or stock.feed_g_day):
        return UNKNOWN_LOAD
    question = WasteLoadQuestion(
        net_l=net_litres(state), animals=stock.animals, own_species=stock.own_species, feed_g_day=stock.feed_g_day
    )
    return waste_load(question).ammonia_mg_n_l_day


@memoize
def animals_in(state: LogbookState) -> list[Animals]:
    """Animals in the tank by species: added less removed. state: the tank's."""
    counts: dict[str, int] = {}
    if came_with_animals(state):
        # They were in before the logbook began: the Stock plan from before others were added.
        before = state.model_copy(update={"stock_plan": state.stock_before})
        counts = {a.species_id: a.count for a in stock_plan(before).animals}
    for e in state.events:
        if isinstance(e.body, Stocking):
            counts[e.body.species_id] = counts.get(e.body.species_id, 0) + e.body.count
    return [Animals(species_id=s, count=min(n, 2000)) for s, n in counts.items() if n > 0]


@memoize
def load_in(state: LogbookState) -> float:
    """Ammonia of the animals in the tank, mg N per litre and day; of the planned ones where none are recorded."""
    own = stock_plan(state).own_species
    known = {s.id for s in own} | set(SPECIES)
    present = [a for a in animals_in(state) if a.species_id in known]
    if not present:
        return daily_load(state)
    question = WasteLoadQuestion(net_l=net_litres(state), animals=present, own_species=own)
    return waste_load(question).ammonia_mg_n_l_day


_MEDIA: dict[str, MediaWhat] = {
    "rinsed": "rinsed-tank-water",
    "rinsed-tap": "rinsed-tap",
    "replaced": "replaced",
    "dried": "dried",
    "seed-added": "seed-added",
    "new-filter": "new-filter",
    "moved": "seed-added",
}


def film_shares(state: LogbookState, at: datetime) -> dict[str, float]:
    """Share of the total film each filter holds, or held until it was removed, by its key.

    state: the tank's; at: aware time.
    """
    return {**{t.key: t.share for t in state.taken_off}, **shares_of(state.filters(), state.hung_since, at)}


def _off_again(state: LogbookState, plan: CyclePlan, day: Callable[[datetime], float]) -> list[LoggedMedia]:
    """Filters removed since the cycle began: before that there was no film to lose."""
    return [
        LoggedMedia(day=day(t.at), what="taken-off", share=t.share)
        for t in state.taken_off
        if t.at > plan.started_at and day(t.at) <= 400
    ]


def stretches(state: LogbookState, now: datetime) -> list[tuple[datetime, datetime | None, str]]:
    """Every stop of every filter: (from, until, key), until None while it lasts; a stop of all is one of each.

    state: the tank's; now: aware time; "*" stands for the filter of a tank that lists none.
    """
    bodies = [f.key for f in state.filters()]
    gone = {t.key: t.at for t in state.taken_off}
    found: list[tuple[datetime, datetime | None, str]] = []
    since: dict[str, datetime] = {}
    for e in state.events:
        if not isinstance(e.body, Outage):
            continue
        for key in [e.body.filter_key] if e.body.filter_key else bodies or ["*"]:
            if not e.body.running:
                since.setdefault(key, e.at)
            elif key in since:
                found.append((since.pop(key), e.at, key))
    # A filter that was removed is no longer stopped.
    found += [(at, gone.get(key) if key not in bodies else None, key) for key, at in since.items() if now > at]
    return sorted(found, key=lambda s: (s[0], s[2]))


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
    """The log of a planned cycle, None before a cycle is planned. state: the tank's; now: aware time."""
    plan = state.cycle_plan.body if state.cycle_plan else None
    return _log(state, plan, now) if isinstance(plan, CyclePlan) else None


USUAL_KEPT_C = 25
"""Temperature of a tank with animals until measured, °C (common practice)."""
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
    return _log(state, planned.model_copy(update={"started_at": since}), now)


def salinity_now(state: LogbookState) -> float:
    """Salinity as last read, or as planned or usual for the kind of water, g/kg. state: the tank's."""
    body = state.cycle_plan.body if state.cycle_plan else None
    return _salinity(state, body if isinstance(body, CyclePlan) else None)


def _salinity(state: LogbookState, plan: CyclePlan | None) -> float:
    """Salinity as last read, or as planned, or as usual, g/kg."""
    read = [
        e.body.salinity_g_kg for e in state.readings if isinstance(e.body, Reading) and e.body.salinity_g_kg is not None
    ]
    if read:
        return read[-1]
    return plan.salinity_g_kg if plan else USUAL_WATER[tank_plan(state).surroundings.water][0]


def _log(state: LogbookState, plan: CyclePlan, now: datetime) -> CycleLog:
    def day(at: datetime) -> float:
        return (at - plan.started_at).total_seconds() / 86400

    def within(at: datetime) -> bool:
        # A test on the morning of the first day, before the dose, belongs to day 0.
        return -1 <= day(at) <= 400

    readings = []
    for e in state.readings:
        r = e.body
        if not isinstance(r, Reading) or not within(e.at):
            continue
        readings.append(
            LoggedReading(
                day=max(day(e.at), 0),
                ammonia_mg_n_l=None if r.ammonia_ppm is None else as_nitrogen(r.ammonia_ppm, "ammonia", r.basis),
                nitrite_mg_n_l=None if r.nitrite_ppm is None else as_nitrogen(r.nitrite_ppm, "nitrite", r.basis),
                nitrate_mg_n_l=None if r.nitrate_ppm is None else as_nitrogen(r.nitrate_ppm, "nitrate", r.basis),
                ph=r.ph,
                kh_dkh=r.kh_dkh,
                temperature_c=r.temperature_c,
                phosphate_ppm=r.phosphate_ppm,
                salinity_g_kg=r.salinity_g_kg,
                off_scale=r.off_scale,
            )
        )
    stock = stock_plan(state)
    shares = film_shares(state, now)
    conditioned = [e.at for e in state.events if isinstance(e.body, Conditioner) and within(e.at)]
    growth = [day(e.at) for e in state.events if isinstance(e.body, PlantGrowth) and within(e.at)]
    present = animals_in(state)
    added_at = [day(at) for at in came_at(state)]
    tap = plan.tap
    offered = cycle_plan(state.model_copy(update={"cycle_plan": None}), now)
    if state.cycle_plan is not None and (plan.start_ph, plan.start_kh_dkh) != (offered.start_ph, offered.start_kh_dkh):
        # The tank was filled from the tap unless the plan says otherwise. Without a plan, or with both figures left at
        # their defaults, neither was stated.
        tap = tap.model_copy(
            update={
                "ph": plan.start_ph if tap.ph is None else tap.ph,
                "kh_dkh": plan.start_kh_dkh if tap.kh_dkh is None else tap.kh_dkh,
            }
        )
    return CycleLog(
        net_l=net_litres(state),
        day_now=min(max(day(now), 0), 400),
        method=plan.method,
        helpers=plan.helpers,
        temperature_c=plan.temperature_c,
        salinity_g_kg=_salinity(state, plan),
        start_kh_dkh=plan.start_kh_dkh,
        start_ph=plan.start_ph,
        tap=tap,
        planned_load_mg_n_l_day=min(daily_load(state), 1000),
        litres_known=state.tank_plan is not None,
        animals=stock.animals,
        own_species=stock.own_species,
        present=present,
        stocked_day=max(min(max(added_at), 400), 0) if added_at else None,
        animals_in_mg_n_l_day=min(load_in(state), 1000) if plan.method == "animals-in" or present else 0,
        food_g_day=plan.food_g_day,
        plan_target_ppm=plan.target_ppm,
        product=plan.product,
        seed_share=plan.seed_share,
        rock_kg=plan.rock_kg,
        donor=plan.donor,
        bottle=plan.bottle,
        plants=plan.plants,
        plants_growing_day=max(min(growth), 0) if growth else None,
        filter_running=state.filter_running,
        filter_closed=any(kind_of(f.filter.kind).closed for f in state.filters()),
        skimmer_running=plan.skimmer_running,
        kit=kit_of(state, now),
        readings=readings[-400:],
        doses=[
            LoggedDose(day=max(day(e.at), 0), raise_mg_n_l=e.body.raise_mg_n_l)
            for e in state.doses
            if e.body.kind == "dose" and within(e.at)
        ][-400:],
        changes=[
            LoggedChange(
                day=max(day(e.at), 0),
                share=e.body.share,
                treated=e.body.treated,
                conditioned=any(at >= e.at for at in conditioned),
            )
            for e in state.changes
            if e.body.kind == "water-change" and within(e.at)
        ][-400:],
        alkalinity=[
            LoggedAlkalinity(day=max(day(e.at), 0), raise_dkh=e.body.raise_dkh)
            for e in state.alkalinity
            if e.body.kind == "alkalinity" and within(e.at)
        ][-400:],
        outages=_outages(state, day, now),
        media=[
            *_off_again(state, plan, day),
            *[
                LoggedMedia(
                    day=max(day(e.at), 0),
                    what=_MEDIA[e.body.what],
                    share=e.body.share * (shares.get(e.body.filter_key, 1.0) if e.body.filter_key else 1.0),
                )
                for e in state.events
                if isinstance(e.body, MediaWork) and e.body.what in _MEDIA and within(e.at)
            ],
        ][-100:],
    )
