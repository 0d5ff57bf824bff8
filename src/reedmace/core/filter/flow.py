"""One filter on one tank: its whole water path, whether height counts, and the current it makes."""

from typing import Annotated

from pydantic import Field

from reedmace.core.filter.catalogue import Filter
from reedmace.core.filter.media import Basket
from reedmace.core.filter.room import Plumbing, Room
from reedmace.core.filter.table import INSIDE_K, STEM_K, rise_m, table_of, usual_days
from reedmace.core.flow import (
    AirliftAnswer,
    AirliftQuestion,
    JetSpeedAnswer,
    JetSpeedQuestion,
    OperatingPointAnswer,
    OperatingPointQuestion,
    airlift_flow,
    jet_speed,
    operating_point,
)
from reedmace.core.flow.jet import Liking
from reedmace.core.flow.operating import Fitting, Hose, Layer, Pump
from reedmace.core.stock import Animals, Species, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import find_species
from reedmace.core.working import Answer, Celsius, Question, Working, number

SPRAY_HOLES, SPRAY_HOLE_MM, NOZZLE_MM = 12, 4.0, 14.0
"""A usual spray bar and nozzle (memory)."""


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
    temperature_c: Celsius = 25


class FilterFlowAnswer(Answer):
    """The path of the water: by pump or by air, the rise that counts and why, and the speed at mid-tank."""

    pumped: OperatingPointAnswer | None
    lifted: AirliftAnswer | None
    rise_m: Annotated[float, number("m", 0, 100)]
    loop: str = Field(description="Whether the loop is open or closed, and what that means")
    jet: JetSpeedAnswer | None


def _loop_words(f: Filter, rise: float, above_cm: float) -> str:
    if f.air:
        return "Air lifts the water inside the tank: depth drives it, height costs it nothing."
    if f.kind == "hang-on":
        return f"It lifts to its lip, {rise * 100:.1f} cm above the water. Every centimetre of evaporation adds to that and costs flow."
    if f.kind == "sump":
        return f"The loop is broken at the overflow, so the pump lifts the whole {rise:.2f} m from the sump."
    if f.kind == "internal":
        return "It stands in the water it moves: there is nothing to lift."
    if above_cm > 0:
        return f"The outlet stands {above_cm:g} cm above the water, so the loop is broken there and the pump lifts that much."
    return "Both hose ends are under water: the falling side carries the rising one, and the height costs nothing however low the filter stands."


def operating_question(
    f: Filter, room: Room, plumbing: Plumbing, media: list[Basket], feed_g_day: float, temperature_c: float
) -> OperatingPointQuestion:
    """The operating-point question of a pumped filter on a tank.

    f: the filter; room, plumbing: the tank's; media: in flow order, none for medium foam; feed_g_day: food in g/day;
    temperature_c: °C.
    """
    table = table_of([f])
    hosed = f.kind in ("canister", "sump")
    bore = (plumbing.hose_bore_mm or f.hose_bore_mm or 16.0) if hosed else (f.tube_bore_mm or 18.0)
    if hosed:
        length, fittings = plumbing.hose_length_m, plumbing.fittings
    elif f.kind == "hang-on":
        length = min(room.water_depth_cm * 0.7, f.height_cm * 1.3) / 100
        fittings = [Fitting(kind="strainer", k=STEM_K)]
    else:
        length, fittings = 0.1, [Fitting(kind="nozzle", k=INSIDE_K)]
    layers = [
        Layer(media=b.media, area_cm2=f.face_cm2, depth_cm=min(max(b.litres * 1000 / f.face_cm2, 0.1), 200))
        for b in media
    ] or [Layer(media="foam-20", area_cm2=f.face_cm2, depth_cm=f.foam_depth_cm)]
    return OperatingPointQuestion(
        pump=Pump(
            max_flow_lph=f.box_lph, max_head_m=f.max_head_m or 0.05, curve=f.curve, speed_share=plumbing.speed_share
        ),
        hoses=[Hose(bore_mm=bore, length_m=length)],
        fittings=fittings,
        media=layers,
        rise_to_open_air_m=float(rise_m(table, room, plumbing)[0]),
        temperature_c=temperature_c,
        feed_g_day=feed_g_day,
        days_since_cleaning=float(usual_days(table)[0]),
        net_l=room.net_l,
    )


def filter_flow(question: FilterFlowQuestion) -> FilterFlowAnswer:
    """What one filter really does on one tank.

    question: sizes in cm, hoses in mm and m, media in L.
    Source: as operating-point, airlift-flow and jet-speed.
    """
    q, w, f = question, Working(), question.filter
    waste = waste_load(WasteLoadQuestion(net_l=q.room.net_l, animals=q.animals, own_species=q.own_species))
    feed = max(waste.feed_g_day, 0.2)
    rise = float(rise_m(table_of([f]), q.room, q.plumbing)[0])
    pumped = lifted = None
    if f.air:
        lifted = airlift_flow(
            AirliftQuestion(
                air_l_min=f.air_l_min or 0.0,
                tube_bore_mm=f.tube_bore_mm or 12.0,
                submerged_cm=min(max(q.room.water_depth_cm - 3, 1), f.height_cm * 0.95, 200),
                foam_face_cm2=f.face_cm2,
                foam_depth_cm=min(f.foam_depth_cm, 30),
                feed_g_day=feed,
                days_since_cleaning=float(usual_days(table_of([f]))[0]),
                temperature_c=q.temperature_c,
            )
        )
        flow, lines, says = lifted.delivered_lph, lifted.working, lifted.verdict
    else:
        pumped = operating_point(operating_question(f, q.room, q.plumbing, q.media, feed, q.temperature_c))
        flow, lines, says = pumped.delivered_lph, pumped.working, pumped.verdict
    w.lines.extend(lines)
    jet = None
    if flow >= 1 and not f.air:
        spray = f.kind in ("canister", "sump") and any(x.kind == "spray-bar" for x in q.plumbing.fittings)
        broad = f.kind == "hang-on"
        likes = [find_species(a.species_id, "animals", q.own_species) for a in q.animals]
        jet = jet_speed(
            JetSpeedQuestion(
                flow_lph=flow,
                outlet_bore_mm=SPRAY_HOLE_MM if spray else (40.0 if broad else NOZZLE_MM),
                holes_count=SPRAY_HOLES if spray else 1,
                # Spray bars are set to the front: the jets cross the width. Others point along the tank.
                distance_cm=q.room.width_cm / 2 if spray else q.room.length_cm / 2,
                animals=[Liking(name=s.common_name, current=s.current) for s in likes],
            )
        )
        w.lines.extend(jet.working)
    return FilterFlowAnswer(
        verdict=says,
        working=w.lines,
        pumped=pumped,
        lifted=lifted,
        rise_m=rise,
        loop=_loop_words(f, rise, q.plumbing.outlet_above_water_cm),
        jet=jet,
    )
