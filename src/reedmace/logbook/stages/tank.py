"""Tank stage: the volume of water, including the sump's."""

from typing import Annotated

from reedmace.core.contract import Part, number
from reedmace.core.filter.kind_parts.hosed import foot_most_cm
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.plans.plan_kinds import TankPlan
from reedmace.logbook.replay.current_plans import tank_plan
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume


class TankView(Part):
    """Everything the Tank stage shows. `plan` has all defaults filled in; `assumed` when nothing was measured."""

    plan: TankPlan
    assumed: bool
    volume: TankVolumeAnswer
    sump_held_l: Annotated[float, number("L", 0, 1e5, "Of the net litres")]
    sump_free_l: Annotated[float, number("L", 0, 1e5, "Room for what runs back")]
    foot_most_cm: Annotated[float, number("cm", 0, 300, "Highest foot of a body under the tank")]


def tank_view(state: LogbookState) -> TankView:
    """The Tank stage. state: the tank's, with the draft on screen."""
    plan = tank_plan(state)
    sump = plan.surroundings.sump
    return TankView(
        plan=plan,
        assumed=state.tank_plan is None,
        volume=volume(state),
        sump_held_l=sump.held_l if sump else 0.0,
        sump_free_l=sump.free_l if sump else 0.0,
        foot_most_cm=foot_most_cm([f.filter for f in state.filters()], plan.surroundings.beneath_cm),
    )
