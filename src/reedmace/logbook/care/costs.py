"""Yearly cost of a tank, from its equipment and the consumables in its logbook."""

from datetime import datetime
from typing import Annotated

from reedmace.core.contract import Part, number, whole
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_YEAR
from reedmace.core.tank import HeaterAnswer
from reedmace.core.upkeep import Consumable, Device, YearCostAnswer, YearCostQuestion, year_cost
from reedmace.core.upkeep.care_plan import CARBON_DAYS
from reedmace.core.upkeep.year_cost import SALT_PRICE_KG, WATER_PRICE_M3
from reedmace.logbook.care.later_years import rhythm_of
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.logbook.replay.entries import Purchase
from reedmace.logbook.replay.equipment import EquippedFilter
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres, salinity_now

CARBON_PRICE = 5.0
"""Price of a filling of carbon (memory)."""


class TankCosts(Part):
    """The year, and the assumptions behind it."""

    year: YearCostAnswer
    assumed: list[str]
    bought: Annotated[float, number("money", 0, 1e9, "Paid so far for what was bought from the shopping list")]
    bought_count: Annotated[int, whole(0, 1_000_000, "Things that were paid for")]


def tank_costs(
    state: LogbookState, installed: list[EquippedFilter], heater: HeaterAnswer | None, now: datetime
) -> TankCosts | None:
    """Yearly cost by device; None where the tank has no equipment.

    state: the tank's; installed: its filters; heater: as held against the room; now: aware time.
    """
    if not installed:
        return None
    price = filter_plan(state).price_per_kwh
    paid = [e.body.price for e in state.events if isinstance(e.body, Purchase)]
    devices = [Device(name=_pump(one), watts=min(one.watts, 5000)) for one in installed if one.watts > 0]
    if heater is not None and heater.kwh_year > 0:
        devices.append(Device(name="Heater", watts=min(heater.kwh_year * 1000 / (DAYS_PER_YEAR * 24), 5000)))
    carbon = [
        Consumable(name=f"Carbon: {one.filter.name}", every_days=CARBON_DAYS, price=CARBON_PRICE)
        for one in installed
        if any(b.media == "carbon" for b in one.media)
    ]
    share, every = rhythm_of(state)
    changed = net_litres(state) * share * DAYS_PER_YEAR / every if animals_in(state) else 0.0
    salt = salinity_now(state)
    assumed = [f"{formatting.money(price)} a kWh"]
    if changed:
        assumed.append(f"water at {formatting.money(WATER_PRICE_M3)} a cubic metre")
    if changed and salt:
        assumed.append(f"salt at {formatting.money(SALT_PRICE_KG)} a kilo")
    if carbon:
        assumed.append(f"carbon at {formatting.money(CARBON_PRICE)} a filling")
    question = YearCostQuestion(
        devices=devices, used_up=carbon, price_per_kwh=price, changed_year=changed, salt_g_kg=salt
    )
    return TankCosts(year=year_cost(question), assumed=assumed, bought=sum(paid), bought_count=len(paid))


def _pump(one: EquippedFilter) -> str:
    return f"Air for {one.filter.name}" if one.filter.air else one.filter.name
