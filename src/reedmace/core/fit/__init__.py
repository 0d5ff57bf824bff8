"""Fitting: the layout, flood risk, the steps, and the shopping list."""

from reedmace.core.filter.kind_parts.placement import Layout
from reedmace.core.fit.cleaning_steps import CareStepsAnswer, CareStepsQuestion, care_steps_of
from reedmace.core.fit.filter_move import FilterMoveAnswer, FilterMoveQuestion, filter_move
from reedmace.core.fit.fitting_steps import FittingStepsAnswer, FittingStepsQuestion, fitting_steps
from reedmace.core.fit.flood_risk import FloodRiskAnswer, FloodRiskQuestion, TankHeater, flood_risk
from reedmace.core.fit.layout import FittingPlanAnswer, FittingPlanQuestion, fitting_plan
from reedmace.core.fit.shopping_list import ShoppingListAnswer, shopping_list
from reedmace.core.fit.shopping_water import ShoppingListQuestion
from reedmace.core.fit.spare_sponge import SpongeSeedAnswer, SpongeSeedQuestion, sponge_seed

__all__ = [
    "CareStepsAnswer",
    "CareStepsQuestion",
    "FilterMoveAnswer",
    "FilterMoveQuestion",
    "FittingPlanAnswer",
    "FittingPlanQuestion",
    "FittingStepsAnswer",
    "FittingStepsQuestion",
    "FloodRiskAnswer",
    "FloodRiskQuestion",
    "Layout",
    "ShoppingListAnswer",
    "ShoppingListQuestion",
    "SpongeSeedAnswer",
    "SpongeSeedQuestion",
    "TankHeater",
    "care_steps_of",
    "filter_move",
    "fitting_plan",
    "fitting_steps",
    "flood_risk",
    "shopping_list",
    "sponge_seed",
]
