"""Resources shared by the tanks of a room besides air: one sump, and one energy bill."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from typing import NamedTuple

from reedmace.core.flow import SharedSumpAnswer, SharedSumpQuestion, shared_sump
from reedmace.core.flow.shared_sump import SharedTank
from reedmace.core.quantity.constants import KWH_PER_WATT_YEAR
from reedmace.logbook.care.in_quarantine import in_quarantine
from reedmace.logbook.care.supplies import heater_of
from reedmace.logbook.plans.room_plan import RoomPlan, RoomSump, Spot, shelf_of
from reedmace.logbook.replay.animals import animals_in, load_in
from reedmace.logbook.replay.current_plans import filter_plan, tank_plan
from reedmace.logbook.replay.equipment import EquippedFilter
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres, volume


class RoomTank(NamedTuple):
    """A tank of the room: its id, name and state."""

    id: int
    name: str
    state: LogbookState


def room_energy(
    tanks: Sequence[RoomTank], installed: Mapping[int, list[EquippedFilter]], plan: RoomPlan
) -> tuple[float, float]:
    """(kWh, money) a year: pumped filters, heaters, and the room's air pumps at the tanks' mean price.

    tanks: of the room; installed: their filters by id; plan: the room's.
    """
    kwh, money, prices = 0.0, 0.0, []
    for tank in tanks:
        price = filter_plan(tank.state).price_per_kwh
        prices.append(price)
        watts = sum(one.filter.watts for one in installed[tank.id] if one.runs and not one.filter.air)
        heater = heater_of(tank.state)
        used = watts * KWH_PER_WATT_YEAR + (heater.kwh_year if heater else 0.0)
        kwh, money = kwh + used, money + used * price
    blown = sum(p.pump.watts or 0.0 for p in plan.pumps) * KWH_PER_WATT_YEAR
    return kwh + blown, money + blown * (sum(prices) / len(prices) if prices else 0.0)


def shared_question(plan: RoomPlan, tanks: Sequence[RoomTank], now: datetime) -> SharedSumpQuestion | None:
    """Input of the shared sump; None where no tank is on one. plan: the room's; tanks: in it; now: aware time."""
    sump, by_id = plan.sump, {t.id: t for t in tanks}
    spots = [s for s in plan.spots if sump is not None and s.tank_id in sump.tank_ids and s.tank_id in by_id]
    if sump is None or not spots:
        return None
    return SharedSumpQuestion(
        pump_lph=sump.pump_lph,
        pump_head_m=sump.pump_head_m,
        sump_l=max(sump.sump.held_l, 1),
        sump_free_l=sump.sump.free_l,
        tanks=[_on_sump(plan, sump, spot, by_id[spot.tank_id], now) for spot in spots],
    )


def _on_sump(plan: RoomPlan, sump: RoomSump, spot: Spot, tank: RoomTank, now: datetime) -> SharedTank:
    size, box = volume(tank.state), tank_plan(tank.state).tank
    line = shelf_of(plan, spot).y_cm + box.height_cm - box.fill_below_rim_cm
    lift = min(max(line - sump.y_cm - sump.sump.level_cm, 1), 1000)
    along = abs(spot.x_cm + box.length_cm / 2 - sump.x_cm)
    shut_in = in_quarantine(tank.state, now)
    return SharedTank(
        key=str(tank.id),
        name=tank.name,
        net_l=net_litres(tank.state),
        surface_cm2=max(size.surface_cm2, 50),
        lift_cm=lift,
        bore_mm=sump.bore_mm,
        tap_share=sump.tap_shares.get(str(tank.id), 1.0),
        length_m=min(max((lift + along) / 100, 0.1), 100),
        drain_fall_m=min(max(lift / 100, 0.1), 10),
        load_mg_n_day=load_in(tank.state, now) * net_litres(tank.state) if animals_in(tank.state) else 0.0,
        quarantined=shut_in is not None and not shut_in.answer.over,
    )


def room_sump(plan: RoomPlan, tanks: Sequence[RoomTank], now: datetime) -> SharedSumpAnswer | None:
    """Flow the shared sump gives each tank. plan: the room's; tanks: in it; now: aware time."""
    question = shared_question(plan, tanks, now)
    return None if question is None else _sump_of(question.model_dump_json())


@lru_cache(maxsize=64)
def _sump_of(question: str) -> SharedSumpAnswer:
    """Memoized by its input, as the air is."""
    return shared_sump(SharedSumpQuestion.model_validate_json(question))
