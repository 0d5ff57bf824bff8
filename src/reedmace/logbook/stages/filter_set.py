"""A set of filters on a tank: flow beside each other, media, margins, cost and sound, and its verdict."""

from typing import Annotated

import numpy as np
from pydantic import Field

from reedmace.core.contract import Lph, Part, WorkingLine, number
from reedmace.core.filter import (
    Filter,
    MediaStackAnswer,
    MediaStackQuestion,
    NoiseHeardAnswer,
    NoiseHeardQuestion,
    NoiseSource,
    RankFiltersQuestion,
    RunningCostAnswer,
    RunningCostQuestion,
    media_stack,
    noise_heard,
    running_cost,
)
from reedmace.core.filter.choice.margins import Available, Margin, cleaned_words, margins
from reedmace.core.filter.choice.requirement import is_enough_by_film, requirement_of
from reedmace.core.filter.choice.scores import pump_price
from reedmace.core.filter.filter_table import film_of_m2
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.media.basket import Basket, next_baskets
from reedmace.core.filter.media.straining import straining
from reedmace.core.filter.site.site import Site
from reedmace.core.filter.sizing_schools import AS_ASKED_SHARE, ENOUGH_SHARE
from reedmace.core.filter.typical import is_typical
from reedmace.core.flow import CurrentsAnswer, OverflowCheckAnswer, OxygenBalanceAnswer, SockDaysAnswer
from reedmace.core.quantity import formatting
from reedmace.core.tank import EvaporationAnswer
from reedmace.logbook.care.water_use import evaporated, socks_of
from reedmace.logbook.replay.arrival import ran_already
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan
from reedmace.logbook.replay.equipment import (
    EquippedFilter,
    currents_and_oxygen_of,
    stock_load,
    tank_site,
    temperature_c,
)
from reedmace.logbook.replay.measured_flows import calibration
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.sump_overflow import overflow_of


class InstalledView(Part):
    """One filter as installed or considered: its flow beside the others, its media, a sump's overflow."""

    installed: EquippedFilter
    typical: bool = Field(description="A usual box of its kind and size, until a real one is bought")
    ran_before: bool = Field(description="Whether it hung and ran before the logbook began")
    media: MediaStackAnswer | None
    next_baskets: list[Basket] = Field(description="What further baskets would hold, in order")
    overflow: OverflowCheckAnswer | None
    socks: SockDaysAnswer | None
    cleaned: str = Field(description="How often it is cleaned, and its socks besides, in words")
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
    price: Annotated[float, number("money", 0, 1e7, "Of what the keeper named a price for")]
    price_known: bool
    noise: NoiseHeardAnswer
    margins: list[Margin] = Field(description="Biology, clarity and movement, each on its own")
    currents: CurrentsAnswer
    oxygen: OxygenBalanceAnswer
    asked_lph: Lph = Field(description="Flow asked of any filter here, by the rule followed")
    enough_by_film: bool = Field(description="Film enough, slow only by the turnover rules")
    working: list[WorkingLine]


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
            feed_g_day=stock_load(state).feed_today_g_day,
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
        strains=max(straining(kind_of(h.filter.kind).judged.clear_water, h.media) for h in installed),
        service_days=min(h.flow.service_days for h in installed),
        socks_days=min((v.socks.wash_days for v in views if v.socks), default=None),
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
                    level_db=h.filter.noise_db,
                    beneath=kind_of(h.filter.kind).hosed,
                    air_driven=h.filter.air,
                    falls_lph=h.flow.delivered_lph if kind_of(h.filter.kind).outlet == "lip" else 0,
                    drains_lph=h.flow.delivered_lph if kind_of(h.filter.kind).drains_cm > 0 else 0,
                )
                for h in installed
            ],
            fall_cm=here.rim_to_water_cm,
            pump_here=not here.air_shared,
            stones=here.air_stones,
            cabinet_shut=here.cabinet_shut,
            lid=here.lid,
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
    known = all(h.filter.price_known for h in bought)
    price = sum(h.filter.price for h in bought if h.filter.price_known)
    price += float(pump_price(np.array(blown), here)) if known else 0.0
    views = []
    for h in installed:
        ratio = calibration(state, h.key) if chosen else None
        views.append(
            InstalledView(
                installed=h,
                typical=is_typical(h.filter.id),
                ran_before=ran_already(state, h.key),
                media=_media(state, h),
                next_baskets=next_baskets(h.media, h.filter.media_l),
                overflow=(falls := overflow_of(h)),
                socks=(socks := socks_of(state, h)),
                cleaned=cleaned_words(h.flow.service_days, socks.wash_days if socks else None),
                evaporation=evaporated(state) if falls else None,
                expect_lph=None if ratio is None else ratio * h.flow.delivered_lph,
            )
        )
    asked, film = rank_question(state), _film_m2(views)
    asks = requirement_of(asked)
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
        price_known=known,
        currents=has.currents,
        oxygen=has.oxygen,
        margins=margins(has, asks),
        noise=_noise(here, installed),
        asked_lph=asks.low_lph,
        enough_by_film=is_enough_by_film(asked, has),
        working=[line for h in installed for line in h.flow.working],
    )


def _too_strong(words: str, flow: str, found: CurrentsAnswer) -> tuple[str, bool]:
    """Verdict on a set with enough flow but too strong a current."""
    who = " and ".join(found.troubled[:2]) + (" and others" if len(found.troubled) > 2 else "")
    if found.conflict or found.limit_lph is None:
        return f"Too strong for {who}, with {flow}.", False
    return f"{words}: {flow}. For {who} throttle it to {formatting.lph(found.limit_lph)}.", True


MUCH_SHARE = 2.5
"""Multiple of the flow asked from which a set is called more than enough (a stated judgement)."""


def _surplus(set_: Together, spare: str) -> str:
    """Verdict on a set with far more than is asked, and the smallest filter of it that would do alone."""
    words = "More than enough" if set_.chosen else "It would be more than enough"
    alone = [f.installed for f in set_.filters if f.installed.flow.service_lph >= set_.asked_lph]
    least = min(alone, key=lambda one: one.flow.service_lph) if len(set_.filters) > 1 and alone else None
    rest = f" The {least.filter.name} alone would do." if least is not None else ""
    times = set_.service_lph / max(set_.asked_lph, 1e-6)
    return (
        f"{words}{spare}: {formatting.lph(set_.service_lph)} in service where"
        f" {formatting.lph.bare(set_.asked_lph)} is asked, {times:.1f} times.{rest}"
    )


def set_verdict(set_: Together) -> tuple[str, bool]:
    """Whether it is enough, by the rule followed, and by how much."""
    asked = set_.asked_lph
    biology = next(m for m in set_.margins if m.about == "biology")
    # Want of oxygen kills within hours, want of film within days.
    if not set_.oxygen.enough:
        return f"Too little oxygen: {formatting.inside(set_.oxygen.verdict)}", False
    if biology.level == "short":
        words = "Too little film" if set_.chosen else "It would be too little film"
        return f"{words}: {formatting.inside(biology.words)}", False
    if set_.service_lph >= AS_ASKED_SHARE * asked:
        # What is left when the largest stops.
        left = set_.service_lph - max(f.installed.flow.service_lph for f in set_.filters)
        spare = ", even if one stops" if len(set_.filters) > 1 and left >= asked else ""
        words = "Enough" if set_.chosen else "It would be enough"
        if set_.service_lph >= MUCH_SHARE * asked and not set_.currents.troubled:
            return _surplus(set_, spare), True
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


class Difference(Part):
    """One figure of two sets, now and with the other."""

    name: str
    now: str
    then: str


def differences_of(now: Together, then: Together) -> list[Difference]:
    """What changes if one set replaces another; only figures that read differently. now, then: sets on one tank."""
    rows = [
        ("Flow in service", formatting.lph(now.service_lph), formatting.lph(then.service_lph)),
        ("Cleaned every", _days(now), _days(then)),
        ("Hose", _hose(now), _hose(then)),
        ("Draws", _watts(now), _watts(then)),
        ("Sound at a metre", f"{now.noise.level_db:.0f} dB", f"{then.noise.level_db:.0f} dB"),
        ("Fitting", _kinds(now), _kinds(then)),
    ]
    return [Difference(name=name, now=a, then=b) for name, a, b in rows if a != b]


def _days(set_: Together) -> str:
    return f"{min(f.installed.flow.service_days for f in set_.filters):.0f} days"


def _hose(set_: Together) -> str:
    metres = sum(f.installed.plan.hose_m for f in set_.filters)
    return formatting.metres(metres, ".1f") if metres else "none"


def _watts(set_: Together) -> str:
    return f"{sum(f.installed.watts for f in set_.filters):.0f} W"


def _kinds(set_: Together) -> str:
    titles = [formatting.inside(kind_of(f.installed.filter.kind).title) for f in set_.filters]
    return "the steps of " + " and ".join(dict.fromkeys(titles))
