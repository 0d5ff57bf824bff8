"""Equipment of a tank, computed once per filter: layout, flow beside the others, cost.

Every stage, sheet, list, export and date that speaks of a filter takes it from here.
"""

from typing import Annotated

import numpy as np

from reedmace.core.contract import Part, Share, number
from reedmace.core.filter import (
    Basket,
    Filter,
    FilterFlowAnswer,
    FilterFlowQuestion,
    RankFiltersQuestion,
    filter_flow,
)
from reedmace.core.filter.choice.scores import watts_here
from reedmace.core.filter.filter_flow import Placed, current_preferences, currents_and_oxygen, oxygen_consumers
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.water_path import deliver, food_shares, path_question
from reedmace.core.fit import (
    FittingPlanAnswer,
    FittingPlanQuestion,
    FittingStepsAnswer,
    FittingStepsQuestion,
    FloodRiskAnswer,
    FloodRiskQuestion,
    Layout,
    TankHeater,
    fitting_plan,
    fitting_steps,
    flood_risk,
)
from reedmace.core.fit.layout import drawn_hose_m, drawn_intake_share
from reedmace.core.flow import (
    CurrentsAnswer,
    OperatingPointQuestion,
    OxygenBalanceAnswer,
)
from reedmace.core.memo import memoize
from reedmace.core.stock import WasteLoadAnswer, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import find_species
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.plans.plan_kinds import FittedFilter, TankPlan
from reedmace.logbook.replay.arrival import is_filled
from reedmace.logbook.replay.current_plans import filter_plan, fit_plan, stock_plan, tank_plan
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume

USUAL_TEMPERATURE_C = 25.0
"""Temperature assumed where neither the tank nor its animals give one (common practice)."""


class EquippedFilter(Part):
    """One filter on this tank. `plumbing` is as laid out: hoses by their drawn runs."""

    key: str
    filter: Filter
    media: list[Basket]
    plumbing: Plumbing
    layout: Layout
    owned: bool
    runs: bool
    food_share: Share
    plan_question: FittingPlanQuestion
    plan: FittingPlanAnswer
    flow: FilterFlowAnswer
    watts: Annotated[float, number("W", 0, 5000, "Its part, where a pump is shared")]


def temperature_c(state: LogbookState) -> float:
    """The tank's temperature for every stage: as entered, or the middle of its animals' range. state: the tank's."""
    entered = tank_plan(state).surroundings.temperature_c
    if entered is not None:
        return entered
    load = stock_load(state)
    if load.temperature_low_c is not None and load.temperature_high_c is not None:
        return (load.temperature_low_c + load.temperature_high_c) / 2
    return USUAL_TEMPERATURE_C


@memoize
def stock_load(state: LogbookState) -> WasteLoadAnswer:
    """Waste load and food of the planned animals in this tank's water. state: the tank's."""
    stock, place, answer = stock_plan(state), tank_plan(state).surroundings, volume(state)
    return waste_load(
        WasteLoadQuestion(
            net_l=max(answer.net_l, 0.5),
            temperature_c=place.temperature_c,
            ph=place.ph,
            water=place.water,
            tank_length_cm=max(answer.inside_length_cm, 5),
            animals=stock.animals,
            own_species=stock.own_species,
            feed_g_day=stock.feed_g_day,
        )
    )


def needs_guard(state: LogbookState) -> bool:
    """Whether any planned animal is small enough to enter an intake. state: the tank's."""
    stock = stock_plan(state)
    return any(find_species(a.species_id, "animals", stock.own_species).needs_guard for a in stock.animals)


def site_of(plan: TankPlan, answer: TankVolumeAnswer) -> Site:
    """The site as the ranking takes it. plan: the tank's; answer: its volume."""
    place = plan.surroundings
    # Gravel carries film on its top few centimetres: about ten times its plan area (memory), glass once.
    gravel = 10 * answer.surface_cm2 / 1e4 if plan.tank.substrate_depth_cm >= 1 else 0.0
    return Site(
        net_l=max(answer.net_l, 0.5),
        water_depth_cm=max(answer.water_depth_cm, 1),
        length_cm=max(answer.inside_length_cm, 5),
        width_cm=max(answer.inside_width_cm, 5),
        rim_to_water_cm=plan.tank.fill_below_rim_cm,
        behind_cm=place.behind_cm,
        beneath_cm=max(place.beneath_cm - place.canister_at_cm, 0),
        sockets=place.sockets,
        water=place.water,
        kind=place.room,
        drilled=place.drilled,
        overflow_box=place.overflow_box,
        lid=place.lid,
        cabinet_shut=place.cabinet_shut,
        planted=place.planted,
        co2=place.co2,
        surface_film=place.surface_film,
        often_away=place.often_away,
        tanks_here_count=place.tanks_here_count,
        sump_level_cm=place.sump.level_cm if place.sump else None,
        film_here_m2=answer.glass_m2 + gravel,
    )


@memoize
def tank_site(state: LogbookState) -> Site:
    """The tank and its surroundings. state: the tank's."""
    air = filter_plan(state).air
    return site_of(tank_plan(state), volume(state)).model_copy(
        update={"air_own": air.source == "own", "air_stones": air.stones, "filled": is_filled(state)}
    )


GAP_CM = 4.0
"""Gap between two filters of a kind side by side (common practice)."""


def beside_cm(kind: str, others: list[FittedFilter]) -> float:
    """Width taken by other filters of a kind, cm. kind: of the filter to place; others: those placed before it."""
    return sum(f.filter.width_cm + GAP_CM for f in others if f.filter.kind == kind)


def fitting_question(state: LogbookState, fitted: FittedFilter, before: list[FittedFilter]) -> FittingPlanQuestion:
    """Input of the fitting plan for one filter.

    state: the tank's; fitted: the filter, on it or only looked at; before: those that have their places already.
    """
    plan, layout = tank_plan(state), fit_plan(state).of(fitted.key)
    # An outlet laid out above the water breaks the loop there.
    plumbing = fitted.plumbing.model_copy(update={"outlet_above_water_cm": -layout.outlet_depth_cm})
    answer = volume(state)
    return FittingPlanQuestion(
        filter=fitted.filter,
        site=site_of(plan, answer),
        plumbing=plumbing,
        stand_height_cm=plan.surroundings.stand_height_cm,
        tank_height_cm=plan.tank.height_cm,
        canister_at_cm=plan.surroundings.canister_at_cm,
        substrate_depth_cm=plan.tank.substrate_depth_cm,
        surface_cm2=max(answer.surface_cm2, 10),
        sump=plan.surroundings.sump,
        beside_cm=beside_cm(fitted.filter.kind, before),
        layout=layout,
    )


def _as_laid(question: FittingPlanQuestion) -> FittingPlanQuestion:
    """The same with hoses as long as drawn, where hoses make up its path."""
    if not kind_of(question.filter.kind).hosed:
        return question
    drawn = {"hose_length_m": drawn_hose_m(question), "intake_share": drawn_intake_share(question)}
    return question.model_copy(update={"plumbing": question.plumbing.model_copy(update=drawn)})


@memoize
def installed_filters(state: LogbookState, also: list[FittedFilter] | None = None) -> list[EquippedFilter]:
    """Every filter on the tank, computed together.

    state: the tank's; also: instead of what hangs there, these, to look at before they are chosen.
    """
    fitted = state.filters() if also is None else also
    if not fitted:
        return []
    here, load, warm = tank_site(state), stock_load(state), temperature_c(state)
    stock = stock_plan(state)
    # A filter only considered is drawn in its default position, as the ranking counts it.
    laid = [_as_laid(fitting_question(state, f, fitted[:n] if also is None else [])) for n, f in enumerate(fitted)]
    # Filters share the dirt of one tank in proportion to their flow.
    clean = np.array(
        [
            deliver(
                table_of([q.filter]), here, q.plumbing, load.feed_today_g_day, warm, packed={q.filter.id: f.media}
            ).clean_lph[0]
            for q, f in zip(laid, fitted, strict=True)
        ]
    )
    found = []
    for f, q, share in zip(fitted, laid, food_shares(clean), strict=True):
        flow = filter_flow(
            FilterFlowQuestion(
                filter=f.filter,
                site=here,
                plumbing=q.plumbing,
                media=f.media,
                animals=stock.animals,
                own_species=stock.own_species,
                feed_g_day=load.feed_today_g_day,
                food_share=float(share),
                temperature_c=warm,
            )
        )
        question = q.model_copy(update={"return_lph": flow.delivered_lph})
        found.append(
            EquippedFilter(
                key=f.key,
                filter=f.filter,
                media=f.media,
                plumbing=q.plumbing,
                layout=q.layout,
                owned=f.owned,
                runs=state.runs(f.key),
                food_share=float(share),
                plan_question=question,
                plan=fitting_plan(question),
                flow=flow,
                watts=float(watts_here(table_of([f.filter]), here)[0]),
            )
        )
    return found


def steps_of(state: LogbookState, one: EquippedFilter) -> FittingStepsAnswer:
    """Fitting steps of one filter, with the sizes of its own plan. state: the tank's; one: the filter."""
    f, plan = one.filter, one.plan
    here = one.plan_question.site
    hosed = kind_of(f.kind).hosed
    return fitting_steps(
        FittingStepsQuestion(
            kind=f.kind,
            filter_height_cm=f.height_cm,
            body_l=max(f.body_l, 0.05),
            water_depth_cm=here.water_depth_cm,
            rim_to_water_cm=here.rim_to_water_cm,
            media_l=f.media_l,
            media_path=f.media_path,
            priming=f.priming,
            turning_wheel=f.wheel_m2 > 0,
            bar_tilts=f.bar_tilts,
            mid_strainer=f.mid_strainer,
            pump_wet=f.pump_wet,
            hose_bore_mm=one.plumbing.hose_bore_mm or f.hose_bore_mm if hosed else None,
            hose_length_m=min(max(plan.hose_m, 0.2), 50) if hosed else None,
            intake_depth_cm=min(plan.intake_depth_cm, 300),
            outlet_depth_cm=one.layout.outlet_depth_cm,
            uplift_cm=plan.uplift_cm if f.air else None,
            needs_guard=needs_guard(state) and not f.air,
            behind_cm=here.behind_cm,
            check_valve=one.layout.check_valve,
        )
    )


def dangers_of(one: EquippedFilter, heater: TankHeater | None) -> FloodRiskAnswer:
    """Flood risk of one filter as laid out. one: the filter; heater: what may be left dry."""
    return flood_risk(FloodRiskQuestion(**dict(one.plan_question), heater=heater))


def path_of(state: LogbookState, one: EquippedFilter) -> OperatingPointQuestion | None:
    """Plumbing of one filter as the operating point and `.inp` take it; None where it is air-driven.

    state: the tank's; one: the filter.
    """
    if one.filter.air:
        return None
    feed = stock_load(state).feed_today_g_day * one.food_share
    here = one.plan_question.site
    return path_question(one.filter, here, one.plumbing, one.media, feed, temperature_c(state))


def currents_and_oxygen_of(
    asked: RankFiltersQuestion, installed: list[EquippedFilter], low_lph: float
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen of a set of filters.

    asked: the ranking's question of the tank; installed: the filters; low_lph: flow asked, L/h.
    """
    load = waste_load(
        WasteLoadQuestion(
            net_l=asked.site.net_l, animals=asked.animals, own_species=asked.own_species, feed_g_day=asked.feed_g_day
        )
    )
    return currents_and_oxygen(
        asked.site,
        [Placed(h.filter, h.plumbing, h.flow.delivered_lph, h.layout) for h in installed],
        current_preferences(asked.animals, asked.own_species),
        oxygen_consumers(asked.animals, asked.own_species),
        low_lph,
        load.today_mg_n_day,
        asked.temperature_c,
    )
