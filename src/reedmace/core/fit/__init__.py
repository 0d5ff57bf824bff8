"""Fitting steps and the shopping list."""

from reedmace.core.fit.shopping import ShoppingListAnswer, ShoppingListQuestion, shopping_list
from reedmace.core.fit.steps import FittingStepsAnswer, FittingStepsQuestion, fitting_steps

__all__ = [
    "FittingStepsAnswer",
    "FittingStepsQuestion",
    "ShoppingListAnswer",
    "ShoppingListQuestion",
    "fitting_steps",
    "shopping_list",
]
