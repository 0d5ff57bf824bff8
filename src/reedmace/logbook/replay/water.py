"""Volume and salinity of a tank from its logbook."""

from reedmace.core.memo import memoize
from reedmace.core.tank import TankVolumeAnswer, TankVolumeQuestion, tank_volume
from reedmace.logbook.plans.plan_kinds import CyclePlan, TankPlan
from reedmace.logbook.replay.current_plans import USUAL_WATER, tank_plan
from reedmace.logbook.replay.entries import Reading
from reedmace.logbook.replay.state import LogbookState


def volume_question(plan: TankPlan) -> TankVolumeQuestion:
    """Input of the volume, with the water of the sump. plan: the tank's."""
    sump = plan.surroundings.sump
    if sump is None:
        return plan.tank
    return plan.tank.model_copy(update={"water_outside_l": min(plan.tank.water_outside_l + sump.held_l, 5000)})


@memoize
def volume(state: LogbookState) -> TankVolumeAnswer:
    """The tank's volume, of the default tank until measured. state: the tank's."""
    return tank_volume(volume_question(tank_plan(state)))


def net_litres(state: LogbookState) -> float:
    """Net water in L. state: the tank's."""
    return max(volume(state).net_l, 0.5)


def salinity_now(state: LogbookState) -> float:
    """Salinity as last read, or as planned or usual for the kind of water, g/kg. state: the tank's."""
    body = state.cycle_plan.body if state.cycle_plan else None
    return salinity_of_plan(state, body if isinstance(body, CyclePlan) else None)


def salinity_of_plan(state: LogbookState, plan: CyclePlan | None) -> float:
    """Salinity as last read, or as planned, or as usual, g/kg."""
    read = [
        e.body.salinity_g_kg for e in state.readings if isinstance(e.body, Reading) and e.body.salinity_g_kg is not None
    ]
    if read:
        return read[-1]
    return plan.salinity_g_kg if plan else USUAL_WATER[tank_plan(state).surroundings.water][0]
