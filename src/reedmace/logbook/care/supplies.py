"""Supplies of a tank besides filters: air, heat, and in salt water a skimmer, each compared with what is available."""

from reedmace.core.air.air_supply import AirOutlet, AirSupplyAnswer, AirSupplyQuestion, air_supply
from reedmace.core.contract import Part
from reedmace.core.errors import CannotAnswer
from reedmace.core.fit import TankHeater
from reedmace.core.quantity import formatting
from reedmace.core.tank import (
    EvaporationAnswer,
    HeaterAnswer,
    HeaterQuestion,
    SkimmerSizeAnswer,
    SkimmerSizeQuestion,
    heater_size,
    skimmer_size,
)
from reedmace.logbook.care.water_use import USUAL_ROOM_C, evaporated
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan, tank_plan
from reedmace.logbook.replay.equipment import EquippedFilter, stock_load, tank_site, temperature_c
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume


class Supplies(Part):
    """Air, heat, evaporation, and in salt water a skimmer.

    `air_words` says where the air comes from, or why the pump is too small; None without air-driven filters.
    """

    air_words: str | None
    air: AirSupplyAnswer | None
    heater: HeaterAnswer | None
    evaporation: EvaporationAnswer
    skimmer: SkimmerSizeAnswer | None
    assumed: list[str]


def _outlets(installed: list[EquippedFilter], *, stones: bool) -> list[AirOutlet]:
    found = []
    for one in installed:
        if not one.filter.air:
            continue
        line = next((r for r in one.plan.runs if r.role == "air-line"), None)
        found.append(
            AirOutlet(
                depth_cm=min(one.plan_question.site.water_depth_cm, 300),
                air_l_min=max(one.filter.air_l_min or 0.0, 0.05),
                line_bore_mm=line.bore_mm if line else 4,
                stone=stones,
                line_length_m=min(max(line.cut_cm / 100, 0.1), 50) if line else 2,
            )
        )
    return found


def _air(state: LogbookState, installed: list[EquippedFilter]) -> tuple[str | None, AirSupplyAnswer | None]:
    source = filter_plan(state).air
    outlets = _outlets(installed, stones=source.stones)
    if not outlets:
        return None, None
    shared = source.source == "room" or (source.source is None and tank_plan(state).surroundings.tanks_here_count > 1)
    whose = "The room's air pump" if shared else "An air pump of its own"
    if source.pump_l_min is None or source.pump_kpa is None:
        wanted = sum(o.air_l_min for o in outlets)
        return f"{whose} must give {wanted:.2g} L/min here; its two figures from the box say whether it does.", None
    try:
        answer = air_supply(AirSupplyQuestion(pump_l_min=source.pump_l_min, pump_kpa=source.pump_kpa, outlets=outlets))
    except CannotAnswer as error:
        return f"{whose} cannot do it: {error}", None
    return f"{whose}: {answer.verdict}", answer


def heater_of(state: LogbookState) -> HeaterAnswer | None:
    """The heater of this tank, compared with its room; None where no water temperature is known.

    state: the tank's.
    """
    plan, place, size = filter_plan(state), tank_plan(state).surroundings, volume(state)
    if place.temperature_c is None and not stock_plan(state).animals:
        return None
    return heater_size(
        HeaterQuestion(
            glass_m2=min(max(size.glass_m2, 0.01), 1000),
            surface_m2=min(max(size.surface_cm2 / 1e4, 0.005), 500),
            water_c=temperature_c(state),
            room_c=USUAL_ROOM_C if place.room_c is None else place.room_c,
            lid=place.lid,
            watts=plan.heater.watts if plan.heater else None,
            stands_in=plan.heater.stands_in if plan.heater else "tank",
        )
    )


def tank_heater(state: LogbookState) -> TankHeater | None:
    """The heater in this tank, or the one it will get; None where it needs none. state: the tank's."""
    found, own = heater_of(state), filter_plan(state).heater
    if own is not None:
        return TankHeater(watts=own.watts, stands_in=own.stands_in)
    return TankHeater(watts=found.asked_w / found.heaters_count) if found is not None and found.asked_w else None


def skimmer_of(state: LogbookState) -> SkimmerSizeAnswer | None:
    """The skimmer a salt tank asks for; None in other water. state: the tank's."""
    if tank_site(state).water != "salt":
        return None
    own = filter_plan(state).skimmer
    sump = tank_plan(state).surroundings.sump
    chambers = max(len(sump.chambers), 1) if sump is not None and "skimmer" in sump.chambers else 0
    return skimmer_size(
        SkimmerSizeQuestion(
            net_l=tank_site(state).net_l,
            feed_g_day=min(stock_load(state).feed_g_day, 5000),
            chamber_length_cm=max(sump.length_cm / chambers, 2) if sump is not None and chambers else None,
            chamber_width_cm=sump.width_cm if sump is not None and chambers else None,
            label_l=own.label_l if own else None,
        )
    )


def supplies(state: LogbookState, installed: list[EquippedFilter]) -> Supplies:
    """Supplies of a tank. state: the tank's; installed: its filters."""
    words, air = _air(state, installed)
    heater = heater_of(state)
    unsaid = heater is not None and tank_plan(state).surroundings.room_c is None
    assumed = [f"a room of {formatting.celsius(USUAL_ROOM_C)} in the cold season"] if unsaid else []
    return Supplies(
        air_words=words,
        air=air,
        heater=heater,
        evaporation=evaporated(state),
        skimmer=skimmer_of(state),
        assumed=assumed,
    )
