"""Filter stage: ranking, installed filters, their combined flow, and the sizing rules."""

from typing import Annotated

import numpy as np
from pydantic import Field

from reedmace.core.contract import Lph, Part, WorkingLine, number
from reedmace.core.filter import (
    CATALOGUE,
    Filter,
    FlowRequirementAnswer,
    MediaStackAnswer,
    MediaStackQuestion,
    NoiseHeardAnswer,
    NoiseHeardQuestion,
    NoiseSource,
    RankFiltersAnswer,
    RankFiltersQuestion,
    RunningCostAnswer,
    RunningCostQuestion,
    flow_requirement_here,
    media_stack,
    noise_heard,
    rank_filters,
    running_cost,
)
from reedmace.core.filter.choice.margins import Available, Margin, margins
from reedmace.core.filter.choice.requirement import is_enough_by_film, requirement_of
from reedmace.core.filter.choice.scores import pump_price
from reedmace.core.filter.filter_table import film_of_m2
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.media.basket import Basket, next_baskets
from reedmace.core.filter.site.site import Site
from reedmace.core.filter.sizing_schools import ENOUGH_SHARE
from reedmace.core.flow import CurrentsAnswer, OverflowCheckAnswer, OxygenBalanceAnswer, SockDaysAnswer
from reedmace.core.quantity import formatting
from reedmace.core.tank import EvaporationAnswer, TankVolumeAnswer
from reedmace.logbook.care.supplies import Supplies, supplies
from reedmace.logbook.care.water_use import evaporated, socks_of
from reedmace.logbook.plans.plan_kinds import FittedFilter
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan, tank_plan
from reedmace.logbook.replay.equipment import (
    EquippedFilter,
    currents_and_oxygen_of,
    installed_filters,
    overflow_of,
    rank_question,
    stock_load,
    tank_site,
    temperature_c,
)
from reedmace.logbook.replay.measured_flows import calibration
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume


class InstalledView(Part):
    """One filter as installed or considered: its flow beside the others, its media, a sump's overflow."""

    installed: EquippedFilter
    media: MediaStackAnswer | None
    next_baskets: list[Basket] = Field(description="What further baskets would hold, in order")
    overflow: OverflowCheckAnswer | None
    socks: SockDaysAnswer | None
    evaporation: EvaporationAnswer | None = Field(description="Of a tank over a sump")
    expect_lph: Lph | None


class Together(Part):
    """A set of filters on this tank."""

    name: str
    chosen: bool
    filters: list[InstalledView]
    box_lph: Lph
    delivered_lph: Lph
    service_lph: Lph
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    service_turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    cost: RunningCostAnswer
    price: Annotated[float, number("money", 0, 1e7)]
    noise: NoiseHeardAnswer
    margins: list[Margin] = Field(description="Biology, clarity and movement, each on its own")
    currents: CurrentsAnswer
    oxygen: OxygenBalanceAnswer
    asked_lph: Lph = Field(description="Flow asked of these: by the rule followed, or by number where they are sponges")
    enough_by_film: bool = Field(description="Air-driven, film enough, slow only by the turnover rules")
    working: list[WorkingLine]


class FilterView(Part):
    """Everything the Filter stage shows. `assumed` lists what was not entered."""

    verdict: str
    enough: bool | None
    assumed: list[str]
    volume: TankVolumeAnswer
    temperature_c: Annotated[float, number("°C", 0, 45)]
    requirement: FlowRequirementAnswer
    asked_low_lph: Lph
    asked_high_lph: Lph
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)]
    ranking: RankFiltersAnswer
    shown: Together | None
    hanging: Together | None
    supplies: Supplies


def together_name(filters: list[Filter]) -> str:
    """Several filters in a few words. filters: one or more."""
    names = [f.name for f in filters]
    if len(names) > 1 and len(set(names)) == 1:
        return f"{len(names)} × {names[0]}"
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} with {names[-1]}"


def _media(state: LogbookState, one: EquippedFilter) -> MediaStackAnswer | None:
    stock = stock_plan(state)
    return media_stack(
        MediaStackQuestion(
            filter=one.filter,
            site=one.plan_question.site,
            plumbing=one.plumbing,
            baskets=one.media,
            animals=stock.animals,
            own_species=stock.own_species,
            feed_g_day=stock_load(state).feed_g_day,
            food_share=one.food_share,
            temperature_c=temperature_c(state),
        )
    )


def _film_m2(views: list[InstalledView]) -> float:
    """Film of a set's media as packed, m²."""
    return sum(v.media.film_m2 if v.media and v.installed.media else film_of_m2(v.installed.filter) for v in views)


def _has(views: list[InstalledView], film: float, asked: RankFiltersQuestion, low_lph: float) -> Available:
    """Film, straining and flow of a set."""
    installed = [v.installed for v in views]
    made, kept = currents_and_oxygen_of(asked, installed, low_lph)
    return Available(
        film_m2=film,
        clean_lph=sum(h.flow.delivered_lph for h in installed),
        service_lph=sum(h.flow.service_lph for h in installed),
        strains=max(kind_of(h.filter.kind).judged.clear_water for h in installed),
        service_days=min(h.flow.service_days for h in installed),
        currents=made,
        oxygen=kept,
    )


def _noise(here: Site, installed: list[EquippedFilter]) -> NoiseHeardAnswer:
    """Sound level of a set where the tank stands."""
    return noise_heard(
        NoiseHeardQuestion(
            filters=[
                NoiseSource(
                    noise=h.filter.noise,
                    air_driven=h.filter.air,
                    falls_lph=h.flow.delivered_lph if kind_of(h.filter.kind).outlet == "lip" else 0,
                )
                for h in installed
            ],
            fall_cm=here.rim_to_water_cm,
            pump_here=not here.air_shared,
            stones=here.air_stones,
            where=here.kind,
        )
    )


def together(state: LogbookState, installed: list[EquippedFilter], *, chosen: bool) -> Together:
    """A set of filters. state: the tank's; installed: the filters; chosen: whether they are installed already."""
    net, plan = tank_site(state).net_l, filter_plan(state)
    clean = sum(h.flow.delivered_lph for h in installed)
    service = sum(h.flow.service_lph for h in installed)
    watts = sum(h.watts for h in installed)
    here, bought = tank_site(state), [h for h in installed if not h.owned]
    blown = sum(h.filter.air_l_min or 0.0 for h in bought)
    price = sum(h.filter.price for h in bought) + float(pump_price(np.array(blown), here))
    views = []
    for h in installed:
        ratio = calibration(state, h.key) if chosen else None
        views.append(
            InstalledView(
                installed=h,
                media=_media(state, h),
                next_baskets=next_baskets(h.media, h.filter.media_l),
                overflow=(falls := overflow_of(h)),
                socks=socks_of(state, h),
                evaporation=evaporated(state) if falls else None,
                expect_lph=None if ratio is None else ratio * h.flow.delivered_lph,
            )
        )
    asked, film = rank_question(state), _film_m2(views)
    air = all(h.filter.air_l_min is not None for h in installed)
    asks = requirement_of(asked, film=film, air=air, count=len(installed))
    has = _has(views, film, asked, asks.low_lph)
    return Together(
        name=together_name([h.filter for h in installed]),
        chosen=chosen,
        filters=views,
        box_lph=sum(h.filter.box_lph for h in installed),
        delivered_lph=clean,
        service_lph=service,
        turnovers_per_hour=clean / net,
        service_turnovers_per_hour=service / net,
        cost=running_cost(
            RunningCostQuestion(watts=min(watts, 5000), price_per_kwh=plan.price_per_kwh, purchase_price=price)
        ),
        price=price,
        currents=has.currents,
        oxygen=has.oxygen,
        margins=margins(has, asks),
        noise=_noise(here, installed),
        asked_lph=asks.low_lph,
        enough_by_film=is_enough_by_film(asked, has, air=air),
        working=[line for h in installed for line in h.flow.working],
    )


def _assumed(state: LogbookState) -> list[str]:
    found = []
    if not state.tank_plan:
        found.append(
            f"a tank of {formatting.cm.bare(60)} × {formatting.cm.bare(30)} × {formatting.cm(36)}, until yours is"
            " measured"
        )
    elif tank_plan(state).by_litres:
        found.append(f"the sizes of a usual box of {formatting.litres(volume(state).net_l)}, until yours is measured")
    if not stock_plan(state).animals:
        found.append("a community tank, until animals are chosen")
    return found


def _too_strong(words: str, flow: str, found: CurrentsAnswer) -> tuple[str, bool]:
    """Verdict on a set with enough flow but too strong a current."""
    who = " and ".join(found.troubled[:2]) + (" and others" if len(found.troubled) > 2 else "")
    if found.conflict or found.limit_lph is None:
        return f"Too strong for {who}, with {flow}.", False
    return f"{words}: {flow}. For {who} throttle it to {formatting.lph(found.limit_lph)}.", True


def _verdict(set_: Together) -> tuple[str, bool]:
    """Whether it is enough, by the rule followed, and by how much."""
    asked = set_.asked_lph
    biology = next(m for m in set_.margins if m.about == "biology")
    # Want of oxygen kills within hours, want of film within days.
    if not set_.oxygen.enough:
        return f"Too little oxygen: {formatting.inside(set_.oxygen.verdict)}", False
    if biology.level == "short":
        words = "Too little film" if set_.chosen else "It would be too little film"
        return f"{words}: {formatting.inside(biology.words)}", False
    if set_.service_lph >= asked:
        # What is left when the largest stops.
        left = set_.service_lph - max(f.installed.flow.service_lph for f in set_.filters)
        spare = ", even if one stops" if len(set_.filters) > 1 and left >= asked else ""
        words = "Enough" if set_.chosen else "It would be enough"
        flow = f"{formatting.lph(set_.service_lph)} in service where {formatting.lph.bare(asked)} is asked"
        if set_.currents.troubled:
            return _too_strong(words, flow, set_.currents)
        return f"{words}{spare}: {flow}.", True
    if biology.level == "ample" and set_.enough_by_film:
        words = "Enough by its film" if set_.chosen else "It would be enough by its film"
        return (
            (
                f"{words}, slow by the turnover rules: {formatting.lph(set_.service_lph)} where"
                f" {formatting.lph.bare(asked)} is asked."
            ),
            True,
        )
    if set_.service_lph >= ENOUGH_SHARE * asked:
        words = "A little short" if set_.chosen else "It would be a little short"
        return (
            f"{words}: {formatting.lph(set_.service_lph)} in service where {formatting.lph.bare(asked)} is asked.",
            False,
        )
    words = "Too little" if set_.chosen else "It would be too little"
    return f"{words}: {formatting.lph(set_.service_lph)} in service where {formatting.lph.bare(asked)} is asked.", False


def filter_view(state: LogbookState, seen: list[str] | None = None) -> FilterView:
    """The Filter stage of a tank.

    state: the tank's, with what is typed on screen; seen: ids of filters looked at instead of what hangs there.
    """
    plan, stock = filter_plan(state), stock_plan(state)
    ranking = rank_filters(rank_question(state))
    hanging = installed_filters(state)
    ids = seen or ([] if hanging else ranking.first)
    known = {f.id: f for f in (*CATALOGUE, *plan.own_filters, *(h.filter for h in hanging))}
    looked = [
        FittedFilter(key=f"seen{i}", filter=known[name], plumbing=plan.plumbing)
        for i, name in enumerate(ids)
        if name in known
    ]
    same = [h.filter.id for h in hanging] == [f.filter.id for f in looked]
    on_tank = together(state, hanging, chosen=True) if hanging else None
    shown = on_tank if not looked or same else together(state, installed_filters(state, looked), chosen=False)
    verdict, enough = (ranking.verdict, None) if shown is None else _verdict(shown)
    requirement = flow_requirement_here(tank_site(state), stock.animals, stock.own_species, temperature_c(state))
    return FilterView(
        verdict=verdict,
        enough=enough,
        assumed=_assumed(state),
        volume=volume(state),
        temperature_c=temperature_c(state),
        requirement=requirement,
        asked_low_lph=ranking.asked_low_lph,
        asked_high_lph=ranking.asked_high_lph,
        price_per_kwh=plan.price_per_kwh,
        ranking=ranking,
        shown=shown,
        hanging=on_tank,
        supplies=supplies(state, hanging or (installed_filters(state, looked) if looked else [])),
    )
