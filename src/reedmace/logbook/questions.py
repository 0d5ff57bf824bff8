"""From where a tank stands to the questions the core answers."""

from collections.abc import Callable
from datetime import datetime

from reedmace.core.cycle import CycleLog, LoggedReading
from reedmace.core.cycle.log import (
    KitSteps,
    LoggedAlkalinity,
    LoggedChange,
    LoggedDose,
    LoggedMedia,
    LoggedOutage,
    MediaWhat,
)
from reedmace.core.filter import Filter, RankFiltersQuestion
from reedmace.core.filter.flow import operating_question
from reedmace.core.filter.room import Plumbing, Room
from reedmace.core.fit import FittingPlanQuestion, Layout, fitting_plan
from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.quantity.units import as_nitrogen
from reedmace.core.stock import SPECIES, Animals, WasteLoadQuestion, waste_load
from reedmace.core.tank import TankVolumeAnswer, TankVolumeQuestion, tank_volume
from reedmace.logbook.entries import (
    Conditioner,
    CyclePlan,
    FilterPlan,
    FitPlan,
    KitPlan,
    MediaWork,
    Outage,
    PlantGrowth,
    Reading,
    Stocking,
    StockPlan,
    Surroundings,
    TankPlan,
)
from reedmace.logbook.standing import Standing

DEFAULT_TANK = TankVolumeQuestion(length_cm=60, width_cm=30, height_cm=36)
"""What is assumed until the tank has been measured; every screen that uses it says so."""


def volume(standing: Standing) -> TankVolumeAnswer:
    """The tank's volume, of the stated default until it has been measured. standing: the tank's."""
    plan = standing.tank_plan.body if standing.tank_plan else None
    return tank_volume(plan.tank if isinstance(plan, TankPlan) else DEFAULT_TANK)


def net_litres(standing: Standing) -> float:
    """Net water in L. standing: the tank's."""
    return max(volume(standing).net_l, 0.5)


def daily_load(standing: Standing) -> float:
    """Planned ammonia, mg N per litre and day; 0.3 until animals are chosen. standing: the tank's."""
    stock = standing.stock_plan.body if standing.stock_plan else None
    if not isinstance(stock, StockPlan) or not (stock.animals or stock.feed_g_day):
        return 0.3
    question = WasteLoadQuestion(
        net_l=net_litres(standing), animals=stock.animals, own_species=stock.own_species, feed_g_day=stock.feed_g_day
    )
    return waste_load(question).ammonia_mg_n_l_day


def animals_in(standing: Standing) -> list[Animals]:
    """The animals put in so far less those lost, by species. standing: the tank's."""
    counts: dict[str, int] = {}
    for e in standing.events:
        if isinstance(e.body, Stocking):
            counts[e.body.species_id] = counts.get(e.body.species_id, 0) + e.body.count
    return [Animals(species_id=s, count=min(n, 2000)) for s, n in counts.items() if n > 0]


def _load_in(standing: Standing) -> float:
    """Ammonia of the animals that are in, mg N per litre and day; of the planned ones where none were written down."""
    stock = standing.stock_plan.body if standing.stock_plan else None
    own = stock.own_species if isinstance(stock, StockPlan) else []
    known = {s.id for s in own} | set(SPECIES)
    present = [a for a in animals_in(standing) if a.species_id in known]
    if not present:
        return daily_load(standing)
    question = WasteLoadQuestion(net_l=net_litres(standing), animals=present, own_species=own)
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


def _outages(standing: Standing, day: Callable[[datetime], float], now: datetime) -> list[LoggedOutage]:
    found, since = [], None
    for e in standing.events:
        if not isinstance(e.body, Outage):
            continue
        if not e.body.running and since is None:
            since = e.at
        elif e.body.running and since is not None:
            found.append((since, e.at))
            since = None
    if since is not None and now > since:
        found.append((since, now))
    return [
        LoggedOutage(day=min(max(day(a), 0), 400), hours=min((b - a).total_seconds() / 3600, 10000))
        for a, b in found
        if day(b) >= 0 and day(a) <= 400
    ][-100:]


def kit_of(standing: Standing, now: datetime) -> KitSteps:
    """The keeper's kit with whether it is past its date; the usual steps until they are entered.

    standing: the tank's; now: aware time.
    """
    plan = standing.kit_plan.body if standing.kit_plan else None
    if not isinstance(plan, KitPlan):
        return KitSteps()
    past = plan.expires_on is not None and plan.expires_on < now.date()
    return plan.kit.model_copy(update={"expired": plan.kit.expired or past})


def cycle_log(standing: Standing, now: datetime) -> CycleLog | None:
    """The cycle as the core takes it, None before a cycle is planned. standing: the tank's; now: aware time."""
    plan = standing.cycle_plan.body if standing.cycle_plan else None
    if not isinstance(plan, CyclePlan):
        return None

    def day(at: datetime) -> float:
        return (at - plan.started_at).total_seconds() / 86400

    def within(at: datetime) -> bool:
        # A test made on the morning of the first day, before the dose, belongs to day 0.
        return -1 <= day(at) <= 400

    readings = []
    for e in standing.readings:
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
                off_scale=r.off_scale,
            )
        )
    stock = standing.stock_plan.body if standing.stock_plan else None
    chosen = standing.filter_plan.body if standing.filter_plan else None
    filter_kind = chosen.chosen.kind if isinstance(chosen, FilterPlan) and chosen.chosen else None
    conditioned = [e.at for e in standing.events if isinstance(e.body, Conditioner) and within(e.at)]
    growth = [day(e.at) for e in standing.events if isinstance(e.body, PlantGrowth) and within(e.at)]
    present = animals_in(standing)
    put_in = [day(e.at) for e in standing.events if isinstance(e.body, Stocking) and e.body.count > 0]
    # The water it was filled with came from the tap, unless the plan says otherwise.
    tap = plan.tap.model_copy(
        update={
            "ph": plan.start_ph if plan.tap.ph is None else plan.tap.ph,
            "kh_dkh": plan.start_kh_dkh if plan.tap.kh_dkh is None else plan.tap.kh_dkh,
        }
    )
    return CycleLog(
        net_l=net_litres(standing),
        day_now=min(max(day(now), 0), 400),
        method=plan.method,
        helpers=plan.helpers,
        temperature_c=plan.temperature_c,
        salinity_g_kg=plan.salinity_g_kg,
        start_kh_dkh=plan.start_kh_dkh,
        start_ph=plan.start_ph,
        tap=tap,
        planned_load_mg_n_l_day=min(daily_load(standing), 1000),
        animals=stock.animals if isinstance(stock, StockPlan) else [],
        own_species=stock.own_species if isinstance(stock, StockPlan) else [],
        present=present,
        stocked_day=max(min(max(put_in), 400), 0) if put_in else None,
        animals_in_mg_n_l_day=min(_load_in(standing), 1000) if plan.method == "animals-in" or present else 0,
        food_g_day=plan.food_g_day,
        plan_target_ppm=plan.target_ppm,
        product=plan.product,
        seed_share=plan.seed_share,
        bottle=plan.bottle,
        plants=plan.plants,
        plants_growing_day=max(min(growth), 0) if growth else None,
        filter_running=standing.filter_running,
        filter_closed=filter_kind == "canister",
        skimmer_running=plan.skimmer_running,
        kit=kit_of(standing, now),
        readings=readings[-400:],
        doses=[
            LoggedDose(day=max(day(e.at), 0), raise_mg_n_l=e.body.raise_mg_n_l)
            for e in standing.doses
            if e.body.kind == "dose" and within(e.at)
        ][-400:],
        changes=[
            LoggedChange(
                day=max(day(e.at), 0),
                share=e.body.share,
                treated=e.body.treated,
                conditioned=any(at >= e.at for at in conditioned),
            )
            for e in standing.changes
            if e.body.kind == "water-change" and within(e.at)
        ][-400:],
        alkalinity=[
            LoggedAlkalinity(day=max(day(e.at), 0), raise_dkh=e.body.raise_dkh)
            for e in standing.alkalinity
            if e.body.kind == "alkalinity" and within(e.at)
        ][-400:],
        outages=_outages(standing, day, now),
        media=[
            LoggedMedia(day=max(day(e.at), 0), what=_MEDIA[e.body.what], share=e.body.share)
            for e in standing.events
            if isinstance(e.body, MediaWork) and e.body.what in _MEDIA and within(e.at)
        ][-100:],
    )


def room_of(plan: TankPlan | None, answer: TankVolumeAnswer) -> Room:
    """The room as the ranking takes it. plan: the tank's, None for the stated default; answer: its volume."""
    place = plan.surroundings if plan else Surroundings()
    # Gravel carries film on its top few centimetres: about ten times its plan area (memory), glass once.
    gravel = 10 * answer.surface_cm2 / 1e4 if plan and plan.tank.substrate_depth_cm >= 1 else 0.0
    return Room(
        net_l=max(answer.net_l, 0.5),
        water_depth_cm=max(answer.water_depth_cm, 1),
        length_cm=max(answer.inside_length_cm, 5),
        width_cm=max(answer.inside_width_cm, 5),
        rim_to_water_cm=plan.tank.fill_below_rim_cm if plan else 3,
        behind_cm=place.behind_cm,
        beneath_cm=max(
            (place.stand_height_cm if place.cabinet_cm is None else place.cabinet_cm) - place.canister_at_cm, 0
        ),
        sockets=place.sockets,
        water=place.water,
        kind=place.room,
        drilled=place.drilled,
        overflow_box=place.overflow_box,
        lid=place.lid,
        planted=place.planted,
        often_away=place.often_away,
        tanks_here_count=place.tanks_here_count,
        film_here_m2=answer.glass_m2 + gravel,
    )


def plumbing_question(standing: Standing) -> OperatingPointQuestion | None:
    """The operating-point question of the chosen filter on this tank; None for no filter or an air-driven one."""
    plan = standing.filter_plan.body if standing.filter_plan else None
    if not isinstance(plan, FilterPlan) or plan.chosen is None or plan.chosen.air:
        return None
    q = rank_question(standing)
    feed = waste_load(WasteLoadQuestion(net_l=q.room.net_l, animals=q.animals, own_species=q.own_species)).feed_g_day
    plumbing = fitted_plumbing(standing, plan, plan.chosen, q.room)
    return operating_question(plan.chosen, q.room, plumbing, plan.media, max(feed, 0.2), q.temperature_c)


def fitted_plumbing(standing: Standing, plan: FilterPlan, chosen: Filter, room: Room) -> Plumbing:
    """The plumbing as it is laid out on the tank: a canister's hoses by their drawn runs.

    standing: the tank's; plan: its filter plan; chosen: its filter; room: its room.
    """
    tank = standing.tank_plan.body if standing.tank_plan else None
    place = tank.surroundings if isinstance(tank, TankPlan) else Surroundings()
    sizes = tank.tank if isinstance(tank, TankPlan) else DEFAULT_TANK
    fit = standing.fit_plan.body if standing.fit_plan else None
    layout = fit.layout if isinstance(fit, FitPlan) else Layout()
    plumbing = plan.plumbing.model_copy(update={"outlet_above_water_cm": -layout.outlet_depth_cm})
    if chosen.kind != "canister":
        return plumbing
    laid = fitting_plan(
        FittingPlanQuestion(
            filter=chosen,
            room=room,
            plumbing=plumbing,
            stand_height_cm=place.stand_height_cm,
            tank_height_cm=sizes.height_cm,
            canister_at_cm=place.canister_at_cm,
            substrate_depth_cm=sizes.substrate_depth_cm,
            layout=layout,
        )
    )
    length = sum(r.drawn_cm for r in laid.runs if r.name.endswith("hose")) / 100
    return plumbing.model_copy(update={"hose_length_m": min(max(length, 0.2), 50)})


def rank_question(standing: Standing) -> RankFiltersQuestion:
    """The ranking's question for this tank. standing: the tank's."""
    answer = volume(standing)
    plan = standing.tank_plan.body if standing.tank_plan else None
    stock = standing.stock_plan.body if standing.stock_plan else None
    chosen = standing.filter_plan.body if standing.filter_plan else None
    room = room_of(plan if isinstance(plan, TankPlan) else None, answer)
    extra = (
        {
            "plumbing": chosen.plumbing,
            "priorities": chosen.priorities,
            "own_filters": chosen.own_filters,
            "price_per_kwh": chosen.price_per_kwh,
        }
        if isinstance(chosen, FilterPlan)
        else {}
    )
    running = [f.id for f in (chosen.chosen, chosen.second) if f] if isinstance(chosen, FilterPlan) else []
    return RankFiltersQuestion(
        room=room,
        animals=stock.animals if isinstance(stock, StockPlan) else [],
        own_species=stock.own_species if isinstance(stock, StockPlan) else [],
        running_ids=running if standing.flow_tests else [],
        **extra,
    )
