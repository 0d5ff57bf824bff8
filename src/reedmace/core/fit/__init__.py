"""The fitting plan, what could go wrong, the steps, and the shopping list."""

from reedmace.core.filter.kinds.record import Layout
from reedmace.core.fit.cleaning import CareStepsAnswer, CareStepsQuestion, care_steps_of
from reedmace.core.fit.drain import DrainDownAnswer, DrainDownQuestion, HeaterHere, drain_down
from reedmace.core.fit.layout import FittingPlanAnswer, FittingPlanQuestion, fitting_plan
from reedmace.core.fit.move import FilterMoveAnswer, FilterMoveQuestion, filter_move
from reedmace.core.fit.seed import SpongeSeedAnswer, SpongeSeedQuestion, sponge_seed
from reedmace.core.fit.shopping import ShoppingListAnswer, ShoppingListQuestion, shopping_list
from reedmace.core.fit.steps import FittingStepsAnswer, FittingStepsQuestion, fitting_steps

__all__ = [
    "CareStepsAnswer",
    "CareStepsQuestion",
    "DrainDownAnswer",
    "DrainDownQuestion",
    "FilterMoveAnswer",
    "FilterMoveQuestion",
    "FittingPlanAnswer",
    "FittingPlanQuestion",
    "FittingStepsAnswer",
    "FittingStepsQuestion",
    "HeaterHere",
    "Layout",
    "ShoppingListAnswer",
    "ShoppingListQuestion",
    "SpongeSeedAnswer",
    "SpongeSeedQuestion",
    "care_steps_of",
    "drain_down",
    "filter_move",
    "fitting_plan",
    "fitting_steps",
    "shopping_list",
    "sponge_seed",
]
