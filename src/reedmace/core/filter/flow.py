"""One filter on one tank: its whole water path, whether height counts, and the current it makes."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Celsius, Lph, Question, Working, computation, number
from reedmace.core.filter.basket import Basket
from reedmace.core.filter.catalogue import Filter
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.room import Plumbing, Room
from reedmace.core.filter.table import table_of
from reedmace.core.filter.water_path import USUAL_HOSE_MM, deliver, lift_question, path_question
from reedmace.core.flow import (
    AirliftAnswer,
    JetSpeedAnswer,
    JetSpeedQuestion,
    OperatingPointAnswer,
    airlift_flow,
    jet_speed,
    operating_point,
)
from reedmace.core.flow.jet import Liking
from reedmace.core.flow.materials import bar_holes
from reedmace.core.stock import Animals, Species, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import find_species
from reedmace.core.upkeep.service import LONGEST_DAYS

NOZZLE_MM, LIP_MM = 14.0, 40.0
"""A usual nozzle, and the round jet a hang-on's broad lip amounts to (memory)."""


class FilterFlowQuestion(Question):
    """A filter, the tank it is to stand on, its plumbing and what is in it."""

    filter: Filter
    room: Room
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
    """The path of the water: by pump or by air, the rise that counts and why, and the speed at mid-tank."""

    pumped: OperatingPointAnswer | None
    lifted: AirliftAnswer | None
    delivered_lph: Lph
    service_lph: Lph = Field(description="When it is due for cleaning")
    service_days: Annotated[float, number("days", 0, LONGEST_DAYS, "Between cleanings here")]
    rise_m: Annotated[float, number("m", 0, 100)]
    loop: str = Field(description="Whether the loop is open or closed, and what that means")
    jet: JetSpeedAnswer | None


def _outlet(f: Filter, plumbing: Plumbing) -> tuple[float, int, bool]:
    """(bore of one opening in mm, how many, whether they cross the tank's width) of a filter's outlet."""
    kind = kind_of(f.kind)
    if kind.outlet == "lip":
        return LIP_MM, 1, False
    if kind.outlet == "bar-or-nozzle" and any(x.kind == "spray-bar" for x in plumbing.fittings):
        bore = plumbing.hose_bore_mm or f.hose_bore_mm or USUAL_HOSE_MM
        # The holes that cost head in the plumbing are the holes the jets come from.
        return plumbing.bar_hole_mm, plumbing.bar_holes_count or bar_holes(bore, plumbing.bar_hole_mm), True
    return NOZZLE_MM, 1, False


def _jet(q: FilterFlowQuestion, flow_lph: float) -> JetSpeedAnswer | None:
    if flow_lph < 1 or q.filter.air:
        return None
    bore_mm, holes, across = _outlet(q.filter, q.plumbing)
    likes = [find_species(a.species_id, "animals", q.own_species) for a in q.animals]
    return jet_speed(
        JetSpeedQuestion(
            flow_lph=flow_lph,
            outlet_bore_mm=bore_mm,
            holes_count=min(holes, 100),
            # Spray bars are set to the front: the jets cross the width. Others point along the tank.
            distance_cm=(q.room.width_cm if across else q.room.length_cm) / 2,
            animals=[Liking(name=s.common_name, current=s.current) for s in likes],
        )
    )


@computation("filter-flow", "What one filter really does on one tank, and the current it makes")
def filter_flow(question: FilterFlowQuestion) -> FilterFlowAnswer:
    """What one filter really does on one tank.

    question: sizes in cm, hoses in mm and m, media in L.
    Source: as operating-point, airlift-flow and jet-speed.
    """
    q, w, f = question, Working(), question.filter
    waste = waste_load(
        WasteLoadQuestion(net_l=q.room.net_l, animals=q.animals, own_species=q.own_species, feed_g_day=q.feed_g_day)
    )
    feed = waste.feed_g_day * q.food_share
    got = deliver(table_of([f]), q.room, q.plumbing, feed, q.temperature_c, packed={f.id: q.media} if q.media else None)
    rise = float(got.rise_m[0])
    pumped = lifted = None
    path: OperatingPointAnswer | AirliftAnswer
    if f.air:
        path = lifted = airlift_flow(lift_question(f, q.room, feed, q.temperature_c))
    else:
        path = pumped = operating_point(path_question(f, q.room, q.plumbing, q.media, feed, q.temperature_c))
    w.lines.extend(path.working)
    jet = _jet(q, path.delivered_lph)
    if jet:
        w.lines.extend(jet.working)
    return FilterFlowAnswer(
        verdict=path.verdict,
        working=w.lines,
        pumped=pumped,
        lifted=lifted,
        delivered_lph=path.delivered_lph,
        service_lph=path.dirty_lph,
        service_days=min(float(got.service_days[0]), LONGEST_DAYS),
        rise_m=rise,
        loop=kind_of(f.kind).loop_words(rise, q.plumbing.outlet_above_water_cm),
        jet=jet,
    )
