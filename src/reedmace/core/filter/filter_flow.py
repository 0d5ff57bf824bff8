"""Flow of one filter on one tank: its whole water path, the height that counts, and its outlet."""

from typing import Annotated, NamedTuple

from pydantic import Field

from reedmace.core.chemistry.salinity import SEA_G_KG
from reedmace.core.contract import Answer, Celsius, Lph, Question, Working, computation, number
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.placement import Layout
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.water_path import USUAL_HOSE_MM, deliver, lift_question, path_question
from reedmace.core.flow import (
    AirliftAnswer,
    CurrentsAnswer,
    CurrentsQuestion,
    OperatingPointAnswer,
    OperatingPointQuestion,
    OxygenBalanceAnswer,
    OxygenBalanceQuestion,
    airlift_flow,
    currents,
    operating_point,
    oxygen_balance,
)
from reedmace.core.flow.currents import CurrentPreference, Outlet
from reedmace.core.flow.materials import bar_holes
from reedmace.core.flow.oxygen_balance import OxygenConsumer
from reedmace.core.stock import Animals, Species, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import body_mass_g, find_species
from reedmace.core.upkeep.cleaning_interval import LONGEST_DAYS

NOZZLE_MM, NOZZLE_SHARE, LIP_MM = 14.0, 0.8, 40.0
"""Usual nozzle bore, or a share of the hose's bore where that is more; round jet equal to a hang-on's lip (memory)."""


FLARE = 2.0
"""Mouth of a flared pipe over the bore of its hose: a wide and slow jet (memory)."""


class FilterFlowQuestion(Question):
    """A filter, its tank, its plumbing and its media."""

    filter: Filter
    site: Site
    plumbing: Plumbing = Field(default_factory=Plumbing)
    media: Annotated[list[Basket], Field(max_length=12, description="Left out: medium foam")] = Field(
        default_factory=list
    )
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Really fed; left out, by the animals")] | None = None
    food_share: Annotated[float, number("share", 0, 1, "Of the tank's food whose dirt this filter catches")] = 1
    temperature_c: Celsius = 25


class FilterFlowAnswer(Answer):
    """The water path, by pump or by air, and the rise that counts and why."""

    pumped: OperatingPointAnswer | None
    path: OperatingPointQuestion | None = Field(description="What a pumped filter's answer was worked out from")
    lifted: AirliftAnswer | None
    delivered_lph: Lph
    service_lph: Lph = Field(description="When it is due for cleaning")
    service_days: Annotated[float, number("days", 0, LONGEST_DAYS, "Between cleanings here")]
    rise_m: Annotated[float, number("m", 0, 100)]
    loop: str = Field(description="Whether the loop is open or closed, and what that means")


class Placed(NamedTuple):
    """A filter with its plumbing, its flow in L/h, and its layout, None for the default."""

    filter: Filter
    plumbing: Plumbing
    flow_lph: float
    layout: Layout | None = None


def _aimed(outlet: Outlet, layout: Layout | None, length_cm: float) -> Outlet:
    """An outlet as placed and turned by the keeper; it points to the farther glass."""
    if layout is None:
        return outlet
    x = layout.outlet_x_cm
    way = None if x is None else min(max(x, length_cm - x, 1.0), 1000.0)
    return outlet.model_copy(update={"against_glass": layout.outlet_to_glass, "way_cm": way})


def outlet_of(f: Filter, plumbing: Plumbing, flow_lph: float) -> Outlet | None:
    """Outlet of a filter; None where the water rises by air and makes no jet.

    f: the filter; plumbing: its own; flow_lph: L/h.
    """
    kind = kind_of(f.kind)
    if f.air or flow_lph < 1:
        return None
    if kind.outlet == "lip":
        return Outlet(flow_lph=flow_lph, bore_mm=LIP_MM)
    bore = plumbing.hose_bore_mm or f.hose_bore_mm or USUAL_HOSE_MM
    if kind.outlet == "bar-or-nozzle" and any(x.kind == "spray-bar" for x in plumbing.fittings):
        # The holes that cost head in the plumbing are the holes the jets come from.
        holes = plumbing.bar_holes_count or bar_holes(bore, plumbing.bar_hole_mm)
        return Outlet(flow_lph=flow_lph, bore_mm=plumbing.bar_hole_mm, holes_count=min(holes, 200))
    if kind.outlet == "bar-or-nozzle" and any(x.kind == "flared-pipe" for x in plumbing.fittings):
        return Outlet(flow_lph=flow_lph, bore_mm=min(FLARE * bore, 200))
    return Outlet(flow_lph=flow_lph, bore_mm=max(NOZZLE_MM, NOZZLE_SHARE * bore))


def current_preferences(animals: list[Animals], own: list[Species]) -> list[CurrentPreference]:
    """Current preference of each species at its length today.

    animals: in the tank; own: species of the keeper's own.
    """
    found = []
    for i, a in enumerate(animals):
        s = find_species(a.species_id, f"animals.{i}.species_id", own)
        found.append(
            CurrentPreference(name=s.common_name, length_cm=a.length_cm or s.adult_length_cm, current=s.current)
        )
    return found


def currents_here(
    site: Site, outlets: list[Outlet | None], animals: list[CurrentPreference], asked_lph: float
) -> CurrentsAnswer:
    """Currents a set of filters makes on a tank.

    site: the tank's; outlets: of all of them; animals: what each likes; asked_lph: by the rule that is followed, L/h.
    """
    return currents(
        CurrentsQuestion(
            length_cm=site.length_cm,
            width_cm=site.width_cm,
            depth_cm=site.water_depth_cm,
            outlets=[o for o in outlets if o is not None],
            animals=animals,
            asked_lph=min(asked_lph, 1e6),
        )
    )


def oxygen_consumers(animals: list[Animals], own: list[Species]) -> list[OxygenConsumer]:
    """Mass of each species at its length today. animals: in the tank; own: species of the keeper's own."""
    found = []
    for i, a in enumerate(animals):
        s = find_species(a.species_id, f"animals.{i}.species_id", own)
        mass = body_mass_g(a.length_cm or s.adult_length_cm, s.body_form)
        found.append(
            OxygenConsumer(
                name=s.common_name,
                count=a.count,
                mass_g=min(max(mass, 0.001), 1e6),
                water_share=s.water_breathing_share,
            )
        )
    return found


RIPPLES_CM = 5.0
"""Depth of an outlet down to which its jet ripples the surface, cm (common practice: set at the surface)."""


def _falls_cm(one: Placed, site: Site) -> float:
    kind = kind_of(one.filter.kind)
    return site.rim_to_water_cm if kind.outlet == "lip" else kind.drains_cm


def _ripples(one: Placed) -> bool:
    return one.layout is None or one.layout.outlet_depth_cm <= RIPPLES_CM


def oxygen_of(
    site: Site,
    filters: list[Placed],
    turning_cm_s: float,
    animals: list[OxygenConsumer],
    film_mg_n_day: float,
    temperature_c: float,
) -> OxygenBalanceAnswer:
    """Oxygen balance of a tank with a set of filters.

    site: the tank's; filters: each with its flow, L/h, and its place; turning_cm_s: as `currents` finds it; animals:
    who breathes; film_mg_n_day: ammonia turned to nitrate, mg N/day; temperature_c: °C.
    """
    falls = [(_falls_cm(one, site), one.flow_lph) for one in filters]
    falling = sum(lph for cm, lph in falls if cm > 0)
    flow = sum(one.flow_lph for one in filters)
    return oxygen_balance(
        OxygenBalanceQuestion(
            net_l=site.net_l,
            surface_cm2=min(max(site.length_cm * site.width_cm, 10), 1e6),
            depth_cm=site.water_depth_cm,
            temperature_c=temperature_c,
            salinity_g_kg=SEA_G_KG if site.water == "salt" else 0,
            animals=animals,
            film_mg_n_day=min(film_mg_n_day, 1e7),
            turning_cm_s=min(turning_cm_s, 1000),
            air_l_min=min(sum(one.filter.air_l_min or 0 for one in filters), 500),
            ripple_share=sum(one.flow_lph for one in filters if _ripples(one)) / flow if flow > 0 else 0.0,
            fall_cm=sum(cm * lph for cm, lph in falls) / falling if falling > 0 else 0,
            fall_lph=min(falling, 1e5),
            surface_film=site.surface_film,
            lid_shut=site.lid,
            planted=site.planted,
            co2_at_night=site.co2 == "day-and-night",
        )
    )


def currents_and_oxygen(
    site: Site,
    filters: list[Placed],
    likes: list[CurrentPreference],
    animals: list[OxygenConsumer],
    asked_lph: float,
    film_mg_n_day: float,
    temperature_c: float,
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen of a set of filters on a tank.

    site: the tank's; filters: each with its plumbing, its flow and its place; likes, animals: who lives there;
    asked_lph: by the rule that is followed, L/h; film_mg_n_day: ammonia turned to nitrate, mg N/day; temperature_c: °C.
    """
    outlets = [
        (
            None
            if (out := outlet_of(one.filter, one.plumbing, one.flow_lph)) is None
            else _aimed(out, one.layout, site.length_cm)
        )
        for one in filters
    ]
    found = currents_here(site, outlets, likes, asked_lph)
    flows = [(one.filter, one.flow_lph) for one in filters]
    # An air lift makes no jet to tire anyone, but its outflow moves the surface.
    lifts = [Outlet(flow_lph=lph, bore_mm=f.tube_bore_mm) for f, lph in flows if f.air and f.tube_bore_mm and lph >= 1]
    turning = currents_here(site, [*outlets, *lifts], [], 0.0).turning_cm_s if lifts else found.turning_cm_s
    return found, oxygen_of(site, filters, turning, animals, film_mg_n_day, temperature_c)


@computation("filter-flow", "What one filter really does on one tank")
def filter_flow(question: FilterFlowQuestion) -> FilterFlowAnswer:
    """Flow of one filter on one tank.

    question: sizes in cm, hoses in mm and m, media in L.
    Source: as operating-point and airlift-flow.
    """
    q, w, f = question, Working(), question.filter
    waste = waste_load(
        WasteLoadQuestion(net_l=q.site.net_l, animals=q.animals, own_species=q.own_species, feed_g_day=q.feed_g_day)
    )
    feed = waste.feed_g_day * q.food_share
    got = deliver(table_of([f]), q.site, q.plumbing, feed, q.temperature_c, packed={f.id: q.media} if q.media else None)
    rise = float(got.rise_m[0])
    pumped = lifted = asked = None
    path: OperatingPointAnswer | AirliftAnswer
    if f.air:
        path = lifted = airlift_flow(lift_question(f, q.site, feed, q.temperature_c))
    else:
        asked = path_question(f, q.site, q.plumbing, q.media, feed, q.temperature_c)
        path = pumped = operating_point(asked)
    w.lines.extend(path.working)
    return FilterFlowAnswer(
        verdict=path.verdict,
        working=w.lines,
        pumped=pumped,
        path=asked,
        lifted=lifted,
        delivered_lph=path.delivered_lph,
        service_lph=path.dirty_lph,
        service_days=min(float(got.service_days[0]), LONGEST_DAYS),
        rise_m=rise,
        loop=kind_of(f.kind).loop_words(rise, q.plumbing.outlet_above_water_cm),
    )
